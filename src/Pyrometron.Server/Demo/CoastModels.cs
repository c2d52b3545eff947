using Pyrometron.Core.Fleet;
using Pyrometron.Core.Simulation;

namespace Pyrometron.Server.Demo;

/// <summary>The models that the invented institute owns, and the places they stand in.</summary>
internal static class CoastModels
{
    /// <summary>What a model of machine is like when fresh.</summary>
    internal sealed record Model(
        string Name,
        AssetKind Kind,
        double PowerW,
        double AirRise,
        (string Part, double LimitC, JointMaterial Joint, double JointRise)[] Parts,
        double MaxRpm,
        FanControl Fan,
        SimulatedLoad[] Loads,
        Instruments Instruments,
        double HoursPerDay
    );

    private static readonly SimulatedLoad[] Render =
    [
        new("steady compute", 1, 0.8),
        new("light batch", 0.86, 0.17),
        new("idle", 0.15, 0.03),
    ];
    private static readonly SimulatedLoad[] Office = [new("full", 1, 0.65), new("one core", 0.5, 0.35)];

    public static readonly Model Sorrel = new(
        "Sorrel card, mark II",
        AssetKind.GraphicsCard,
        228,
        27,
        [
            ("core", 90, JointMaterial.Paste, 13),
            ("hotspot", 105, JointMaterial.Paste, 25),
            ("memory", 105, JointMaterial.Pad, 24),
        ],
        3200,
        new FanControl.Fixed(60),
        Render,
        new(1 / 3.0),
        24
    );

    public static readonly Model Bladder = new(
        "Wrack card",
        AssetKind.GraphicsCard,
        286,
        26,
        [
            ("core", 92, JointMaterial.Paste, 15),
            ("hotspot", 107, JointMaterial.Paste, 27),
            ("memory", 108, JointMaterial.Pad, 29),
        ],
        2900,
        new FanControl.Holds(76),
        Render,
        new(1 / 3.0),
        24
    );

    public static readonly Model Tern = new(
        "Tern 2U server",
        AssetKind.Server,
        310,
        24,
        [("cpu", 92, JointMaterial.Paste, 20), ("memory", 85, JointMaterial.Pad, 4)],
        9800,
        new FanControl.Holds(68),
        Render,
        new(1 / 3.0),
        24
    );

    public static readonly Model Petrel = new(
        "Petrel desktop",
        AssetKind.Desktop,
        150,
        22,
        [("cpu", 95, JointMaterial.Paste, 24), ("gpu", 93, JointMaterial.Paste, 19)],
        2100,
        new FanControl.Holds(78),
        Office,
        new(7, Power: false),
        9
    );

    public static readonly Model Gannet = new(
        "Gannet field laptop",
        AssetKind.Laptop,
        70,
        34,
        [("cpu", 100, JointMaterial.Paste, 22), ("gpu", 96, JointMaterial.Paste, 16)],
        5200,
        new FanControl.Fixed(60),
        Office,
        new(6, Power: false),
        7
    );

    public static readonly Site[] Sites =
    [
        new(
            "SKERRY",
            "Skerry Institute",
            9,
            [
                new("WAVE", "Wave-model hall", DustClass.Clean, new(27)),
                new("MACH", "Machine room", DustClass.Clean, new(26)),
                new("READ", "Reading room", DustClass.Heavy, new(29)),
                new("BOAT", "Boat store", DustClass.Heavy, new(30)),
            ]
        ),
        new(
            "KELP",
            "Kelp drying hall",
            6,
            [
                new("KELP-A", "Kelp hall, row A", DustClass.Normal, new(34)),
                new("KELP-B", "Kelp hall, row B", DustClass.Normal, new(34)),
                new("KELP-C", "Kelp hall, row C", DustClass.Heavy, new(35)),
                new("KELP-D", "Kelp hall, row D", DustClass.Normal, new(34)),
            ]
        ),
    ];
}
