using Pyrometron.Core.Fleet;
using Pyrometron.Core.Materials;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Policies;

namespace Pyrometron.Core.Procedures;

/// <summary>Sentences of the work card that depend on the model, the house's ways and the findings.</summary>
internal static class CardWords
{
    public static Message OwnerTold(CardBasis c) =>
        c switch
        {
            _ when ChangeRules.FromOutside(c) => "Tell its owner what is changed, and that it is not at work while it is tried.",
            { Host: { } host, HostMates: { Count: > 0 } mates } => Message.Of(
                "Move its work off and tell its owner that it goes down. Its host {host} and the other cards in it go down too: {mates}.",
                Value.Text("host", host),
                Value.Text("mates", string.Join(", ", mates))
            ),
            { Host: { } host } => Message.Of(
                "Move its work off and tell its owner that it goes down; its host {host} goes down too.",
                Value.Text("host", host)
            ),
            { Kind: AssetKind.Laptop, Opens: true } => "Tell its owner that it goes down, and ask whether the data is backed up.",
            _ => "Move its work off and tell its owner that it goes down.",
        };

    public static Message CardOut(CardBasis c) =>
        c.Host is { } host
            ? Message.Of(
                "Take the card out of {host}: side panel off, power plugs by their latch, bracket screw, the slot's latch, then straight out.",
                Value.Text("host", host)
            )
            : "Take the card out of its host: side panel off, power plugs by their latch, bracket screw, the slot's latch, then straight out.";

    public static Message CardIn(CardBasis c) =>
        c.Host is { } host
            ? Message.Of(
                "Put the card back into {host}: into its slot until it clicks, bracket screw, every power plug, its support.",
                Value.Text("host", host)
            )
            : "Put the card back into its host: into its slot until it clicks, bracket screw, every power plug, its support.";

    public static Message CoverOff(CardBasis c) =>
        c.Kind switch
        {
            AssetKind.Laptop =>
                "Take the bottom cover off: its screws, the hidden ones under feet and labels too, each to its place on the tray; then its clips, from the hinge on.",
            AssetKind.Server => "Take the top cover off.",
            _ => "Take the side panel off.",
        };

    public static Message ScrewsOut(CardBasis c) =>
        (c.Kind, c.Schools.Opening) switch
        {
            (AssetKind.Laptop, OpeningOrder.ReverseOfNumbers) =>
                "Take the other screws out, each to its place on the tray, the highest number first; count them with those of the cover.",
            (AssetKind.Laptop, _) =>
                "Take the other screws out, each to its place on the tray; count them with those of the cover.",
            (_, OpeningOrder.ReverseOfNumbers) =>
                "Take the screws out, each to its place on the tray, the highest number first, and count them.",
            _ => "Take the screws out, each to its place on the tray, and count them.",
        };

    public static Message LeadsOff(CardBasis c) =>
        c.LiftsCooler
            ? "Unplug the connectors by the housing, never by the wire; fan leads before the cooler comes away. Count them."
            : "Unplug the connectors by the housing, never by the wire. Count them.";

    public static Message Inspect(CardBasis c) =>
        c.LooksOnly
            ? "Look into the fins with a lamp, turn every fan by hand, and grade what you see. What you find starts the right job from here."
            : "Before anything is cleaned: look, and grade what you see. Damage or a missing part that was there before you: photograph it and mark it as found.";

    public static Message FanNamed(CardBasis c) =>
        (c.Fan, c.Notes.Fans.FirstOrDefault(f => f.Name == c.Fan)?.PartNumber) switch
        {
            ({ } fan, { } number) => Message.Of(
                "the fan in bay {fan} (part number {number})",
                Value.Text("fan", fan),
                Value.Text("number", number)
            ),
            ({ } fan, null) => Message.Of("the fan in bay {fan}", Value.Text("fan", fan)),
            _ => "the fan that the log names",
        };

    public static IReadOnlyList<Message> PadChecks(CardBasis c) =>
        c.Schools.Pads == PadSchool.Putty ? ["Every chip that had a pad has putty"]
        : c.Notes.Pads.Count > 0
            ?
            [
                .. c
                    .Notes.Pads.OrderBy(p => p.Side == PadSide.Back)
                    .ThenBy(p => p.Number)
                    .Select(p =>
                    {
                        MessageValue[] values =
                        [
                            Value.Count("number", p.Number),
                            Value.Part("part", p.Part),
                            Value.Figure("width", p.WidthMm),
                            Value.Figure("height", p.HeightMm),
                            Value.Figure("thickness", p.ThicknessMm),
                        ];
                        return p.Side == PadSide.Back
                            ? Message.Of(
                                "Pad {number} ({part}, back, {width} × {height} × {thickness} mm): both films off",
                                values
                            )
                            : Message.Of("Pad {number} ({part}, {width} × {height} × {thickness} mm): both films off", values);
                    }),
            ]
        : c.HasBackPlate ? ["Every chip that had a pad has one, front and back", "Both films are off each pad"]
        : ["Every chip that had a pad has one", "Both films are off each pad"];

    public static Message Outfit(CardBasis c)
    {
        if (c.IsHotSwap)
            return Message.Of(
                "Read off bay, part number and direction of air of {fan}, and have the same one at hand.",
                Value.List("fan", "", [FanNamed(c)])
            );
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
        if (c.Level == ServiceLevel.CoolerSwap)
            things.Add("the new cooler with its frame and screws");
        if (c.Level == ServiceLevel.AddOnFan)
            things.Add("the fan, its grille and what holds it");
        things.Add(
            c.Schools.Air == AirSource.BrushOnly
                ? "brushes"
                : Message.Of("brushes and the {air}", Value.List("air", "", [Air(c.Schools.Air)]))
        );
        things.AddRange((c.Notes.Tools ?? []).Select(tool => Message.Of("{tool}", Value.Text("tool", tool))));
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

    /// <summary>
    /// Patterns and amounts are common practice, no source: thin wins. A lid takes a dot in its middle, a bare chip is covered
    /// whole; where nobody knows, both are told.
    /// </summary>
    public static Message Paste(CardBasis c)
    {
        PastePattern? pattern = c.Schools.Paste switch
        {
            PasteSchool.Spread => PastePattern.Spread,
            PasteSchool.Line => PastePattern.Line,
            PasteSchool.Dot => PastePattern.Dot,
            PasteSchool.Cross => PastePattern.Cross,
            _ => c.Notes.Pattern
                ?? c.Chip switch
                {
                    ChipKind.Lidded => PastePattern.Dot,
                    ChipKind.Bare => PastePattern.Spread,
                    _ => null,
                },
        };
        var lid = c.Chip == ChipKind.Lidded;
        Message how = pattern switch
        {
            PastePattern.Dot => lid
                ? "a dot between a grain of rice and a pea, in the middle of the lid"
                : "a dot between a grain of rice and a pea, in the middle",
            PastePattern.Line => lid ? "a thin line along the lid" : "a thin line along the chip",
            PastePattern.Cross => "a thin cross from corner to corner",
            PastePattern.Spread => lid ? "spread thin over the lid" : "spread thin over the chip to 1–2 mm from its edge",
            _ =>
                "on a lid a dot between a grain of rice and a pea, in the middle; on a bare chip spread thin to 1–2 mm from its edge",
        };
        return Message.Of("Put on new paste: {how}. Bubbles do not matter; thin is better.", Value.List("how", "", [how]));
    }

    public static Message Tighten(CardBasis c)
    {
        var order = c.Notes.CoolerScrewsInOrder;
        var passes = Value.List("passes", "; then ", Tightening.Passes);
        return order.Count == 0
                ? Message.Of("Tighten crosswise, or by the maker's numbers, each screw in turn: {passes}.", passes)
            : Tightening.Plates(order) is { Count: > 1 } plates
                ? Message.Of(
                    "Tighten plate by plate, never across two: {plates}. All screws of a plate each time: {passes}.",
                    Value.Text("plates", string.Join("; ", plates.Select(Numbers))),
                    passes
                )
            : Message.Of(
                "Tighten in the order {order}, all of them each time: {passes}.",
                Value.Text("order", Numbers(order)),
                passes
            );
    }

    private static string Numbers(IEnumerable<Screw> screws) => string.Join("–", screws.Select(s => s.Number));

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
