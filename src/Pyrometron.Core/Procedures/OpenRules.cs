using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Policies;
using static Pyrometron.Core.Procedures.CardRule;

namespace Pyrometron.Core.Procedures;

/// <summary>From the seal to the cooler in the hand, and what is looked at then.</summary>
internal static class OpenRules
{
    private static bool IsCard(CardBasis c) => c.Kind == AssetKind.GraphicsCard;

    private static CardRule[] LoopIsolate(Func<CardBasis, bool> when) =>
        [
            new(
                "loop-isolate",
                Stage.Open,
                c => OpensLoop(c) && when(c),
                c =>
                    IsCard(c)
                        ? "The side panel off, and the loop cold: close its couplings at the card, or drain it; a towel under every joint, caps on every open end."
                        : "The loop has to be opened, cold: close its couplings, or drain it; a towel under every joint, caps on every open end."
            )
            {
                Gate = _ => ["The liquid is cold", "Towel and caps are in place", "No open end drips"],
                Cautions = _ => [Caution.Loop],
            },
            new(
                "loop-closed",
                Stage.Open,
                c => c.LiftsCooler && c.Loop == LoopKind.Closed && when(c),
                _ => "Its loop stays closed: the plate comes off with its tubes. Hang it so that no joint is pulled or bent."
            ),
        ];

    public static readonly CardRule[] All =
    [
        new(
            "second-person",
            Stage.Open,
            c => c.TwoPeople && c.Opens,
            _ => "By this house's rules two lift this machine: nobody moves it before the second one is here."
        )
        {
            Gate = _ => ["Both are here"],
            // A server's rails say it in the next step.
            Cautions = c => c.Kind == AssetKind.Server ? [] : [Caution.Lifting],
        },
        new(
            "lift",
            Stage.Open,
            c => c.Kind == AssetKind.Server && c.Opens,
            _ => "Pull it out on its rails as far as the work needs."
        )
        {
            Cautions = _ => [Caution.Lifting, Caution.Noise],
        },
        // A card hangs on its loop: that comes first.
        .. LoopIsolate(IsCard),
        new("card-out", Stage.Open, c => IsCard(c) && c.Opens, CardWords.CardOut)
        {
            Gate = _ => ["Its power plugs came off by their latch", "The slot's latch was open before it was pulled"],
        },
        new(
            "seal",
            Stage.Open,
            Opens,
            _ => "Look at every seal before the screw under it is turned, and photograph it: whole, broken before, or none."
        )
        {
            Form = StepForm.SealInspection,
        },
        new("way-round", Stage.Open, Opens, _ => "Photograph or mark which way round shroud and fans sit, before a screw is out.")
        {
            Optional = Always,
        },
        new(
            "look-in",
            Stage.Open,
            c => c.LooksOnly,
            _ => "Open it only as far as the look needs: side panel, bottom cover or shroud. Keep the screws together."
        )
        {
            Optional = Always,
        },
        new("cover-off", Stage.Open, c => c.Opens && !IsCard(c), CardWords.CoverOff) { Cautions = _ => [Caution.ScrewLengths] },
        new(
            "battery-out",
            Stage.Open,
            c => c.HasBattery && c.Opens,
            _ => "The battery first, before anything else is touched: take it out, or pull its plug by the housing."
        )
        {
            Gate = _ => ["The battery is flat, cool and dry; if not: stop, the site's procedure", "The battery is disconnected"],
            Cautions = _ => [Caution.Battery],
        },
        new(
            "drain",
            Stage.Open,
            c => c.HasBattery && c.Opens,
            _ =>
                Message.Of(
                    "With the battery out, hold the power button for {seconds}; with it in, the machine would start.",
                    Value.Seconds("seconds", WorkCard.DrainSeconds)
                )
        )
        {
            Timer = _ => new("drain", WorkCard.DrainSeconds, Required: true),
        },
        new(
            "back-plate",
            Stage.Open,
            c => c.HasBackPlate,
            _ => "Take the back plate off; note which pads sat on the back and which on the front, they are not the same."
        ),
        new("screws-out", Stage.Open, Opens, CardWords.ScrewsOut)
        {
            Form = StepForm.ScrewsOut,
            Cautions = c =>
                [
                    Caution.ScrewLengths,
                    .. c.Notes.Traps.Select(trap => Caution.Noted("{note}", trap)),
                    .. c.Notes.Clips.Select(clip => Caution.Noted("Clips: {note}", clip)),
                ],
            Order = c =>
                c.Schools.Opening == OpeningOrder.ReverseOfNumbers
                    ? [.. c.Screws.OrderByDescending(s => s.Number).Select(s => s.Number)]
                    : [],
        },
        new("leads-off", Stage.Open, c => c.PullsConnectors, CardWords.LeadsOff) { Form = StepForm.ConnectorsOut },
        .. LoopIsolate(c => !IsCard(c)),
        new(
            "cooler-off",
            Stage.Open,
            Lifts,
            _ => "Lift the cooler straight off: wiggle, never pry. Unwilling? Look for a forgotten screw or clip first."
        )
        {
            Cautions = c =>
                [
                    .. c.Chip == ChipKind.Bare ? (Caution[])[Caution.BareChip]
                    : c.Chip is null ? [Caution.PerhapsBareChip]
                    : [],
                ],
        },
        new("inspect", Stage.Inspect, c => !c.IsHotSwap && !ChangeRules.FromOutside(c), CardWords.Inspect)
        {
            Form = StepForm.Inspection,
            Cautions = c => [.. (c.Deviations ?? []).Select(d => Caution.Noted("Seen on this machine before: {note}", d))],
        },
        new("inspect-joint", Stage.Inspect, Lifts, _ => "Look at the paste, how much of the chip it covered, and at every pad.")
        {
            Form = StepForm.JointInspection,
            Cautions = _ => [Caution.PasteIsNoPad],
        },
        new(
            "chip-kind",
            Stage.Inspect,
            c => c.LiftsCooler && c.Chip is null,
            _ =>
                "Does the chip carry a metal lid, or is it bare? It decides how the paste goes on, and is asked once for this model."
        )
        {
            Form = StepForm.Chip,
        },
        new(
            "dry-out",
            Stage.Inspect,
            c => c.Wet,
            _ => "Leave it open in moving air until it is dry, under the board too, and find out where the water came from."
        )
        {
            Gate = _ => ["It is dry everywhere", "The source is known"],
            Cautions = _ => [Caution.Mains],
        },
        new(
            "rinse",
            Stage.Inspect,
            c => c.Wet || c.DriedIn,
            _ =>
                "Rinse what has dried in with 70–90 % alcohol and a soft brush, on both sides of the board; let it run off and dry."
        )
        {
            Gate = _ => ["Both sides of the board were looked at", "No residue is left", "It is dry again"],
            Cautions = _ => [Caution.Alcohol],
        },
        new("corrosion", Stage.Inspect, c => c.Wet || c.DriedIn, _ => "Grade the corrosion at contacts and under the board.")
        {
            Form = StepForm.CorrosionInspection,
        },
        new(
            "fan-after-wet",
            Stage.Inspect,
            c => c.Wet,
            _ => "Turn every fan by hand: a bearing that got wet is changed, not oiled."
        ),
    ];
}
