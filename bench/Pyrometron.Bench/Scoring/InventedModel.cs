using Pyrometron.Core.Fleet;
using Pyrometron.Core.Simulation;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Bench.Scoring;

/// <summary>What is alike in all machines of one model.</summary>
internal sealed record InventedModel(
    string Name,
    AssetKind Kind,
    double PowerW,
    double AirRise,
    double MaxRpm,
    FanControl Fan,
    (string Name, JointMaterial Joint, double Rise, double LimitC)[] Parts
)
{
    /// <summary>In a server the memory has its own fins in the same stream of air.</summary>
    public double MemoryShare { get; init; } = 1;

    /// <summary>Hot from the first day.</summary>
    public bool CoolerTooSmall { get; init; }

    /// <summary>Draws a model by chance.</summary>
    /// <param name="designC">What the zone it is made for is laid out for, °C.</param>
    public static InventedModel Draw(Random random, AssetKind kind, string name, double designC)
    {
        var small = random.Chance(0.1);
        // Limits leave a sound machine some ten to thirty kelvins on a hot day.
        (string, JointMaterial, double, double) Part(string part, JointMaterial joint, double rise, double air) =>
            (part, joint, rise, Math.Round(designC + 0.8 * air + rise + (small ? random.Between(3, 8) : random.Between(14, 34))));
        var memoryShare = random.Between(0.55, 1.1);
        var air = kind is AssetKind.Laptop ? random.Between(24, 34) : random.Between(18, 30);
        var fan =
            kind is AssetKind.GraphicsCard && random.Chance(0.4)
                ? new FanControl.Fixed(random.Next(55, 90))
                : (FanControl)new FanControl.Follows(random.Between(35, 45), random.Between(76, 92));
        var drawn = kind switch
        {
            AssetKind.GraphicsCard => new InventedModel(
                name,
                kind,
                random.Between(160, 330),
                air,
                3200,
                fan,
                [
                    Part("core", JointMaterial.Paste, random.Between(9, 16), air),
                    Part("hotspot", JointMaterial.Paste, random.Between(19, 29), air),
                    Part("memory", JointMaterial.Pad, random.Between(16, 30), air),
                ]
            ),
            AssetKind.Server => new InventedModel(
                name,
                kind,
                random.Between(220, 450),
                air,
                9800,
                fan,
                [
                    Part("cpu", JointMaterial.Paste, random.Between(14, 26), air),
                    Part("memory", JointMaterial.Pad, random.Between(3, 8), air * memoryShare),
                ]
            ),
            _ => new InventedModel(
                name,
                kind,
                kind is AssetKind.Laptop ? 90 : 320,
                air,
                kind is AssetKind.Laptop ? 5200 : 2100,
                fan,
                [
                    Part("cpu", JointMaterial.Paste, random.Between(16, 26), air),
                    Part("gpu", JointMaterial.Paste, random.Between(14, 22), air),
                ]
            ),
        };
        return drawn with { CoolerTooSmall = small, MemoryShare = memoryShare };
    }
}
