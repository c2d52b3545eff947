using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Procedures;

/// <summary>Sentences of the work card that depend on the model, the house's ways and the findings.</summary>
internal static class CardWords
{
    public static Message Outfit(CardBasis c)
    {
        var things = new List<Message>
        {
            c.Screws.Count > 0
                ? Message.Of(
                    "bits {drivers}",
                    Value.Text(
                        "drivers",
                        string.Join(", ", c.Screws.Select(s => s.Driver).Distinct().Order(StringComparer.Ordinal))
                    )
                )
                : "the right driver bits",
        };
        if (c.LiftsCooler)
            things.Add(
                Message.Of(
                    "paste, wipes, swabs and alcohol ({strength})",
                    Value.List("strength", "", [Alcohol(c.Schools.Alcohol)])
                )
            );
        if (c.RenewsPads)
            things.Add(PadsFor(c));
        if (c.ChangesFan)
            things.Add("the spare fan");
        things.Add(
            c.Schools.Air == AirSource.BrushOnly
                ? "brushes"
                : Message.Of("brushes and the {air}", Value.List("air", "", [Air(c.Schools.Air)]))
        );
        return Message.Of("Lay out what it takes: {things}.", Value.List("things", "; ", things));
    }

    public static Message Warranty(CardBasis c) =>
        c.WarrantyAnswer is { } answer
            ? Message.Of("It is under warranty. Recorded: “{answer}”", Value.Text("answer", answer))
            : "It is under warranty, and this house opens where law and maker allow it.";

    public static Message Blow(CardBasis c) =>
        Message.Of(
            "Hold each fan still and blow the dust out with the {air}, intake meshes and grilles too, outdoors or extracted.",
            Value.List("air", "", [Air(c.Schools.Air)])
        );

    public static Message FanSwap(CardBasis c) =>
        c.Fan is { } fan
            ? Message.Of("Change the {fan} fan; the new one the same way round as the old.", Value.Text("fan", fan))
            : "Change the fan; the new one the same way round as the old.";

    public static Message AlcoholDry(CardBasis c) =>
        Message.Of("Wait until the alcohol is gone ({strength}).", Value.List("strength", "", [Alcohol(c.Schools.Alcohol)]));

    /// <summary>Patterns and amounts are common practice, no source: thin wins.</summary>
    public static Message Paste(CardBasis c)
    {
        var pattern = c.Schools.Paste switch
        {
            PasteSchool.Spread => PastePattern.Spread,
            PasteSchool.Line => PastePattern.Line,
            PasteSchool.Dot => PastePattern.Dot,
            PasteSchool.Cross => PastePattern.Cross,
            _ => c.Notes.Pattern ?? (c.Notes.Chip == ChipKind.Lidded ? PastePattern.Dot : PastePattern.Spread),
        };
        Message how = pattern switch
        {
            PastePattern.Dot => "a dot between a grain of rice and a pea, in the middle",
            PastePattern.Line => "a thin line along the chip",
            PastePattern.Cross => "a thin cross from corner to corner",
            _ => "spread thin over the chip to 1–2 mm from its edge",
        };
        return Message.Of("Put on new paste: {how}. Bubbles do not matter; thin wins.", Value.List("how", "", [how]));
    }

    public static Message Tighten(CardBasis c)
    {
        var order = c.Notes.CoolerScrewsInOrder;
        var passes = Value.List("passes", "; then ", [.. Tightening.Passes.Select(p => Message.Of(p))]);
        return order.Count == 0
            ? Message.Of("Tighten crosswise, or by the maker's numbers, each screw in turn: {passes}.", passes)
            : Message.Of(
                "Tighten in the order {order}, all of them each time: {passes}.",
                Value.Text("order", string.Join("–", order.Select(s => s.Number))),
                passes
            );
    }

    private static Message PadsFor(CardBasis c) =>
        c.Schools.Pads == PadSchool.Putty ? "putty"
        : c.Notes.Pads.Count == 0 ? "pads of 0.5, 1.0, 1.5, 2.0 and 3.0 mm, since this model's thicknesses are not noted yet"
        : Message.Of(
            "pads of {pads}",
            Value.List(
                "pads",
                ", ",
                [
                    .. c
                        .Notes.Pads.GroupBy(p => p.ThicknessMm)
                        .OrderBy(g => g.Key)
                        .Select(g =>
                            Message.Of(
                                "{thickness} (× {count})",
                                Value.Millimetre("thickness", g.Key),
                                Value.Count("count", g.Count())
                            )
                        ),
                ]
            )
        );

    private static Message Air(AirSource air) =>
        air switch
        {
            AirSource.Compressor => "compressor",
            AirSource.Can => "can",
            _ => "blower",
        };

    private static Message Alcohol(AlcoholStrength strength) =>
        strength switch
        {
            AlcoholStrength.Ninetynine => "99 %",
            AlcoholStrength.NinetyPlus => "90 % or stronger",
            _ => "70 %",
        };
}
