using Pyrometron.Core.Events;
using Pyrometron.Core.Materials;
using Pyrometron.Core.Procedures;

namespace Pyrometron.Server.Demo;

/// <summary>What the institute's people have written down about their models.</summary>
internal static class CoastNotes
{
    /// <summary>Notes of four of the five models; of the desktops nobody has drawn any yet.</summary>
    public static IReadOnlyList<ModelNotes> All =>
        [
            Card("Sorrel card, mark II", 268, 111, padThickness: 1.5, makersNumbers: true),
            Card("Wrack card", 300, 124, padThickness: 2.0, makersNumbers: false),
            new(
                "Tern 2U server",
                440,
                700,
                ChipKind.Lidded,
                PastePattern.Dot,
                [
                    .. Row(1, ScrewPlace.Cover, 40, 30, 360, 3, 6, "T10"),
                    .. Corners(4, ScrewPlace.Cooler, 170, 260, 100, 100, 12, "T30"),
                ],
                [new("Fan wall lead", ConnectorKind.FanLead, 6), new("Riser", ConnectorKind.Data, 1)],
                [new(1, "memory", 60, 240, 30, 130, 1), new(2, "memory", 350, 240, 30, 130, 1)],
                [new("wall", true)],
                ["two slides at the rear edge of the lid"],
                ["The lid catches on the left slide: press it down while pulling."],
                new("steady compute", 20, FanMode.Fixed, 100, "stock", "in its rack")
            ),
            new(
                "Gannet field laptop",
                358,
                246,
                ChipKind.Bare,
                PastePattern.Spread,
                [
                    .. Row(1, ScrewPlace.Cover, 20, 18, 318, 5, 8, "PH0"),
                    .. Row(6, ScrewPlace.Cover, 20, 228, 318, 5, 5, "PH0"),
                    .. Corners(11, ScrewPlace.Cooler, 150, 90, 46, 40, 4, "PH0"),
                    .. Corners(15, ScrewPlace.Cooler, 220, 92, 38, 36, 4, "PH0"),
                ],
                [
                    new("Battery", ConnectorKind.Battery),
                    new("Left fan lead", ConnectorKind.FanLead),
                    new("Right fan lead", ConnectorKind.FanLead),
                    new("Display ribbon", ConnectorKind.Display),
                    new("Antenna", ConnectorKind.Antenna, 2),
                ],
                [],
                [new("left", true), new("right", false)],
                ["twelve along the rim, start at the hinge"],
                [
                    "The two long screws sit at the hinge; in front they reach the board.",
                    "Salt: rinse connectors with alcohol when white bloom is seen.",
                ],
                new("full", 25, FanMode.Auto, null, "stock", "propped on two blocks")
            ),
        ];

    /// <summary>A graphics card: a shroud with two fans, a cooler on a bare chip, eight memory chips around it.</summary>
    private static ModelNotes Card(string model, double width, double height, double padThickness, bool makersNumbers)
    {
        var (x, y) = (width * 0.42, height * 0.5);
        var cooler = Corners(7, ScrewPlace.Cooler, x - 30, y - 27, 60, 54, 6, "PH1");
        int[] numbers = [1, 3, 2, 4];
        PadNote[] pads =
        [
            .. Enumerable.Range(0, 4).Select(i => new PadNote(i + 1, "memory", x - 56 + i * 29, y - 46, 14, 12, padThickness)),
            .. Enumerable.Range(0, 4).Select(i => new PadNote(i + 5, "memory", x - 56 + i * 29, y + 34, 14, 12, padThickness)),
            new(9, "vrm", width * 0.78, y - 40, 10, 80, padThickness + 0.5),
        ];
        return new(
            model,
            width,
            height,
            ChipKind.Bare,
            PastePattern.Spread,
            [
                .. Row(1, ScrewPlace.Shroud, 18, 10, width - 36, 3, 4, "PH1"),
                .. Row(4, ScrewPlace.BackPlate, 18, height - 10, width - 36, 3, 8, "PH1"),
                .. cooler.Select((s, i) => makersNumbers ? s with { Order = numbers[i] } : s),
            ],
            [new("Fan lead", ConnectorKind.FanLead, 2), new("Light lead", ConnectorKind.Power)],
            pads,
            [new("left", true), new("right", true)],
            [],
            ["The fan lead is shorter than it looks: unplug it before the cooler is lifted."],
            new("steady compute", 20, FanMode.Fixed, 100, "stock", "in its frame")
        );
    }

    private static Screw[] Row(
        int first,
        ScrewPlace place,
        double x,
        double y,
        double length,
        int count,
        double screwMm,
        string driver
    ) =>
        [
            .. Enumerable
                .Range(0, count)
                .Select(i => new Screw(first + i, place, x + length * i / (count - 1), y, screwMm, driver)),
        ];

    private static Screw[] Corners(
        int first,
        ScrewPlace place,
        double x,
        double y,
        double width,
        double height,
        double screwMm,
        string driver
    ) =>
        [
            new(first, place, x, y, screwMm, driver),
            new(first + 1, place, x + width, y, screwMm, driver),
            new(first + 2, place, x + width, y + height, screwMm, driver),
            new(first + 3, place, x, y + height, screwMm, driver),
        ];
}
