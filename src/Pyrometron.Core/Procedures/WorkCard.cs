using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Procedures;

/// <summary>
/// Work cards made by rules, in the order of the trade. A rule is one step and when it belongs to a card; a lifted cooler
/// always brings new paste.
/// </summary>
public static class WorkCard
{
    private sealed record Rule(string Id, Stage Stage, Func<CardBasis, bool> When, Func<CardBasis, Message> Do)
    {
        public Func<CardBasis, IReadOnlyList<Caution>> Cautions { get; init; } = _ => [];

        public Func<CardBasis, IReadOnlyList<string>> Gate { get; init; } = _ => [];

        public StepForm Form { get; init; }

        public Func<CardBasis, StepTimer?> Timer { get; init; } = _ => null;

        public Func<CardBasis, IReadOnlyList<int>> Order { get; init; } = _ => [];

        public bool Optional { get; init; }
    }

    /// <summary>The power button is held so long to drain what is left (common practice, no source).</summary>
    public const int DrainSeconds = 15;

    /// <summary>A cold joint lets go after it has run so long (common practice, no source).</summary>
    public const int WarmUpSeconds = 270;

    /// <summary>Paste remover soaks so long (30–60 s; common practice, no source).</summary>
    public const int SoakSeconds = 45;

    private static bool Always(CardBasis _) => true;

    private static bool Opens(CardBasis c) => c.Opens;

    private static bool Lifts(CardBasis c) => c.LiftsCooler;

    private static readonly Rule[] Rules =
    [
        new("prepare", Stage.Prepare, Opens, CardWords.Outfit) { Optional = true },
        new("warranty", Stage.MakeSafe, c => c.Opens && c.UnderWarranty, CardWords.Warranty)
        {
            Gate = _ => ["Local law and its maker's terms allow this", "Its owner agrees"],
        },
        new("owner-told", Stage.MakeSafe, Always, _ => "Move its work off and tell its owner that it goes down.")
        {
            Gate = _ => ["Its work is moved off", "Its owner knows"],
        },
        new(
            "power-off",
            Stage.MakeSafe,
            c => c.Level != ServiceLevel.Inspect,
            c =>
                c.Kind == AssetKind.GraphicsCard
                    ? "Shut its host down, no standby, and unplug everything."
                    : "Shut it down, no standby, and unplug everything."
        )
        {
            Gate = c =>
                [
                    c.Kind == AssetKind.GraphicsCard ? "Its host is off, not asleep" : "It is off, not asleep",
                    "Every mains plug is out",
                ],
            Cautions = _ => [Caution.Mains],
        },
        new(
            "battery-out",
            Stage.MakeSafe,
            c => c.Kind == AssetKind.Laptop && c.Opens,
            _ => "Battery first: take it out, or lift the cover and disconnect it before anything else is touched."
        )
        {
            Gate = _ => ["The battery is flat, cool and dry", "The battery is disconnected"],
            Cautions = _ => [Caution.Battery],
        },
        new(
            "drain",
            Stage.MakeSafe,
            c => c.Level != ServiceLevel.Inspect,
            _ => Message.Of("Hold the power button for {seconds}.", Value.Seconds("seconds", DrainSeconds))
        )
        {
            Timer = _ => new("drain", DrainSeconds, Required: true),
        },
        new(
            "ground",
            Stage.MakeSafe,
            Opens,
            _ => "Put on the wrist strap or stand on the grounded mat; let the cooler cool down to the hand."
        )
        {
            Cautions = _ => [Caution.Static, Caution.Burn],
        },
        new(
            "lift",
            Stage.Open,
            c => c.Kind == AssetKind.Server && c.Opens,
            _ => "Pull it out of its rack with two people or a lift."
        )
        {
            Cautions = _ => [Caution.Lifting, Caution.Noise],
        },
        new(
            "screws-out",
            Stage.Open,
            Opens,
            c =>
                c.Schools.Opening == OpeningOrder.ReverseOfNumbers
                    ? "Take the screws out, each to its place on the tray, the highest number first."
                    : "Take the screws out, each to its place on the tray."
        )
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
        new("way-round", Stage.Open, Opens, _ => "Mark which way round shroud and fans sit; a photo will do.")
        {
            Optional = true,
        },
        new(
            "leads-off",
            Stage.Open,
            Opens,
            c =>
                c.LiftsCooler
                    ? "Unplug the connectors by the housing, never by the wire; fan leads before the cooler comes away. Count them."
                    : "Unplug the connectors by the housing, never by the wire. Count them."
        )
        {
            Form = StepForm.ConnectorsOut,
        },
        new(
            "cooler-off",
            Stage.Open,
            Lifts,
            _ =>
                "Lift the cooler straight off: wiggle, never pry. Unwilling? Look for a forgotten screw, or run it a few minutes to warm the paste."
        )
        {
            Cautions = c =>
                [
                    .. c.Notes.Chip == ChipKind.Lidded ? [] : (Caution[])[Caution.BareChip],
                    .. c.Kind is AssetKind.Desktop or AssetKind.Server ? (Caution[])[Caution.Loop] : [],
                ],
            Timer = _ => new("warm-up of the joint", WarmUpSeconds, Required: false),
        },
        new(
            "inspect",
            Stage.Inspect,
            Always,
            _ =>
                "Look, and give what you see its grade. Damage or a missing part that was there before you: photograph it and mark it as found."
        )
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
            "dry-out",
            Stage.Inspect,
            c => c.Wet,
            _ => "It is wet: stop, leave it open in moving air until it is dry, and find out where the water came from."
        )
        {
            Gate = _ => ["It is dry everywhere", "The source is known"],
            Cautions = _ => [Caution.Mains],
        },
        new("blow", Stage.Clean, c => c.Level >= ServiceLevel.BlowOut && c.Schools.Air != AirSource.BrushOnly, CardWords.Blow)
        {
            Cautions = c => [c.Schools.Air == AirSource.Can ? Caution.CanAir : Caution.CompressedAir, Caution.Dust],
        },
        new(
            "brush-outside",
            Stage.Clean,
            c => c.Level == ServiceLevel.BlowOut && c.Schools.Air == AirSource.BrushOnly,
            _ => "Brush meshes and grilles clean from outside, with the extractor beside them."
        )
        {
            Cautions = _ => [Caution.Dust],
        },
        new("brush", Stage.Clean, Opens, _ => "Brush fins and blades clean down to the metal, meshes and grilles too.")
        {
            Cautions = _ => [Caution.Fins],
        },
        new("fan-swap", Stage.Clean, c => c.ChangesFan, CardWords.FanSwap) { Cautions = _ => [Caution.FansBite] },
        new(
            "paste-off",
            Stage.Clean,
            Lifts,
            _ =>
                "Take the old paste off both faces, first dry, then with alcohol on the cloth, swabs at the edges. Paste remover soaks before it is wiped."
        )
        {
            Gate = _ => ["The chip is mirror-clean", "The cooler's face is clean", "No fibres are left"],
            Cautions = _ => [Caution.Alcohol],
            Timer = _ => new("paste remover", SoakSeconds, Required: false),
        },
        new("alcohol-dry", Stage.Clean, Lifts, CardWords.AlcoholDry)
        {
            Gate = _ => ["Both faces are dry"],
            Timer = c => new("alcohol drying", BenchSchools.DryingSeconds(c.Schools.Alcohol), Required: true),
        },
        new(
            "pads-keep",
            Stage.Pads,
            c => c.LiftsCooler && c.HasPads && !c.RenewsPads,
            _ => "Pads that are elastic and whole stay where they are; hard, torn or oily ones make this a repad."
        )
        {
            Cautions = _ => [Caution.PadThickness],
        },
        new(
            "pads-on",
            Stage.Pads,
            c => c.RenewsPads,
            c =>
                c.Schools.Pads == PadSchool.Putty
                    ? "Take the old pads off and lay putty on every chip that had one, a little higher than the old pad."
                    : "Take the old pads off, cut the new ones to size, same thickness as the gap asks, and lay them on."
        )
        {
            Gate = c =>
                c.Schools.Pads == PadSchool.Putty ? ["Every chip that had a pad has putty"]
                : c.Notes.Pads.Count > 0
                    ?
                    [
                        .. c
                            .Notes.Pads.OrderBy(p => p.Number)
                            .Select(p =>
                                FormattableString.Invariant(
                                    $"Pad {p.Number} ({p.Part}, {p.WidthMm:0.#} × {p.HeightMm:0.#} × {p.ThicknessMm:0.#} mm): both films off"
                                )
                            ),
                    ]
                : ["Every chip that had a pad has one", "Both films are off each pad"],
            Cautions = _ => [Caution.PadThickness],
            Order = c => [.. c.Notes.Pads.OrderBy(p => p.Number).Select(p => p.Number)],
        },
        new("paste-on", Stage.Paste, Lifts, CardWords.Paste) { Cautions = _ => [Caution.LiquidMetal] },
        new("cooler-on", Stage.Paste, Lifts, _ => "Set the cooler down once, straight. Lifted again means new paste again.")
        {
            Cautions = c => c.Notes.Chip == ChipKind.Lidded ? [] : [Caution.BareChip],
        },
        new("tighten", Stage.Tighten, Lifts, CardWords.Tighten)
        {
            Order = c => [.. c.Notes.CoolerScrewsInOrder.Select(s => s.Number)],
        },
        new("leads-on", Stage.Reconnect, Opens, _ => "Plug every connector back and count: as many in as came out.")
        {
            Form = StepForm.ConnectorsIn,
            Gate = _ => ["Every fan lead is plugged"],
        },
        new("boot-look", Stage.TestBeforeClosing, Opens, _ => "Power it up before the last screws, and look.")
        {
            Gate = c => BootChecks(c.Kind),
            Cautions = _ => [Caution.FansBite],
        },
        new(
            "screws-in",
            Stage.Close,
            Opens,
            _ => "Power it down again and close it: every screw back to where it came from. Nothing left on the tray?"
        )
        {
            Form = StepForm.ScrewsIn,
        },
        new("power-up", Stage.Close, c => c.Level == ServiceLevel.BlowOut, _ => "Plug it in and power it up.")
        {
            Gate = c => BootChecks(c.Kind),
        },
    ];

    /// <summary>The steps of a card.</summary>
    public static IReadOnlyList<CardStep> For(CardBasis basis) =>
        [.. Rules.Where(r => r.When(basis)).Select(r => Make(r, basis))];

    private static CardStep Make(Rule rule, CardBasis c) =>
        new(
            rule.Id,
            rule.Stage,
            rule.Do(c),
            rule.Cautions(c),
            rule.Gate(c),
            rule.Form,
            rule.Timer(c),
            rule.Order(c),
            rule.Optional
        );

    private static IReadOnlyList<string> BootChecks(AssetKind kind) =>
        kind switch
        {
            AssetKind.Laptop => ["Display", "Fans turn", "Keys and pad", "Drives seen"],
            AssetKind.Desktop => ["Display", "Fans turn", "Drives seen"],
            AssetKind.Server => ["Fans turn", "Drives seen", "Network link"],
            _ => ["The card is seen by its host", "Every fan turns", "Display or link"],
        };
}
