using Pyrometron.Core.Fleet;

namespace Pyrometron.Core.Procedures;

/// <summary>
/// Steps of the jobs that make a machine's cooling another one: what is checked before anything comes off, and the change
/// itself. Common practice, no source.
/// </summary>
internal static class ChangeRules
{
    private static Func<CardBasis, bool> For(ServiceLevel level) => c => c.Level == level && !c.Wet;

    private static readonly Func<CardBasis, bool> SwapsCooler = For(ServiceLevel.CoolerSwap),
        Undervolts = For(ServiceLevel.Undervolt);

    /// <summary>Whether the change is made from outside, on a machine that may go on running.</summary>
    public static bool FromOutside(CardBasis c) =>
        c.Level is ServiceLevel.Undervolt or ServiceLevel.Stand or ServiceLevel.Filter && !c.Wet;

    /// <summary>Before power is off and anything is opened.</summary>
    public static readonly CardRule[] Before =
    [
        new(
            "cooler-fits",
            Stage.Prepare,
            SwapsCooler,
            _ => "Before anything comes off, see on paper that the new cooler fits this machine."
        )
        {
            Gate = _ =>
                [
                    "Its mounting is made for this board or card",
                    "Height and width leave room for cover, memory and the cards beside it",
                    "It is made for at least this chip's power",
                    "The header for its fan carries the current it draws",
                ],
        },
        new(
            "paste-kind",
            Stage.Prepare,
            For(ServiceLevel.OtherPaste),
            _ => "Read the new paste's data sheet, and write its name and batch down with what was used."
        )
        {
            Gate = _ =>
                [
                    "It does not conduct, or nothing open lies beside the chip",
                    "Liquid metal meets no aluminium",
                    "It has not passed its date",
                ],
            Cautions = _ => [Caution.LiquidMetal],
        },
        new(
            "pad-kind",
            Stage.Prepare,
            For(ServiceLevel.OtherPads),
            _ => "Compare the new pads with the old ones: thickness place by place, and how far they give."
        )
        {
            Gate = _ => ["Each thickness is that of the gap, or was measured", "They give at least as much as the old ones"],
            Cautions = _ => [Caution.PadThickness],
        },
        new(
            "settings-noted",
            Stage.Prepare,
            Undervolts,
            _ => "Write down or photograph the settings as they are, and how the machine is brought back to them."
        )
        {
            Gate = _ => ["The settings as they were are kept", "The way back to them is known", "Open work on it is saved"],
            Cautions = _ => [Caution.Undervolting],
        },
    ];

    /// <summary>While the cooler is off: another frame, and the new cooler tried dry.</summary>
    public static readonly CardRule[] Fitting =
    [
        new(
            "frame-on",
            Stage.Clean,
            SwapsCooler,
            _ => "Take the old cooler's frame and stand-offs off and put the new ones on, straight and hand-tight."
        )
        {
            Gate = _ => ["The stand-offs are those for this board", "Nothing touches the back of the board that should not"],
        },
        new(
            "dry-fit",
            Stage.Clean,
            SwapsCooler,
            _ =>
                "Set the new cooler down dry, without paste; try every screw by a turn or two, look at it from the side, lift it."
        )
        {
            Gate = _ =>
                [
                    "The film on its face is off",
                    "Every screw finds its thread without force",
                    "It lies on the chip, and on every pad, without a gap",
                ],
            Cautions = c => c.Chip == ChipKind.Lidded ? [] : [c.Chip is null ? Caution.PerhapsBareChip : Caution.BareChip],
        },
    ];

    /// <summary>The change itself, where no cooler comes off.</summary>
    public static readonly CardRule[] Change =
    [
        new(
            "fan-on",
            Stage.Clean,
            For(ServiceLevel.AddOnFan),
            _ => "Fix the fan where air lacks, so that it blows the way the machine's own air goes; then its lead."
        )
        {
            Gate = _ =>
                [
                    "It blows with the other fans, not against them",
                    "Its lead stays clear of every blade",
                    "Its header carries the current it draws",
                ],
            Cautions = _ => [Caution.FansBite],
        },
        new(
            "undervolt",
            Stage.Clean,
            Undervolts,
            _ =>
                "Lower voltage or power limit by a small step and run the load for ten minutes; again, until it fails. Then go back two steps, and run it once more."
        )
        {
            Gate = _ => ["It has run its load through at these settings", "The new settings are written down"],
            Cautions = _ => [Caution.Undervolting],
        },
        new(
            "stand",
            Stage.Clean,
            For(ServiceLevel.Stand),
            _ => "Put it on its stand: nothing under its intakes, nothing behind its outlet."
        )
        {
            Gate = _ => ["Its intakes have two fingers of free air below them", "It stands firm, and no lead pulls on it"],
        },
        new(
            "filter",
            Stage.Clean,
            For(ServiceLevel.Filter),
            _ => "Fit the filter before the intake, so that all air goes through it and it comes off for washing."
        )
        {
            Gate = _ => ["No air goes past it", "It comes off by hand", "Who washes it, and how often, is agreed"],
            Cautions = _ => [Caution.FansBite],
        },
    ];
}
