using Pyrometron.Core.Fleet;

namespace Pyrometron.Core.Worth;

/// <summary>What a level costs besides time. All of it common practice, no source.</summary>
public static class BenchCosts
{
    /// <summary>The loaded runs before and after, during which a machine does not work for its house, minutes.</summary>
    public const int TestMinutes = 2 * 20;

    /// <summary>What a level uses up, in currency units: a tenth of a tube and wipes, two packs of pads, a fan.</summary>
    public static double Material(ServiceLevel level) =>
        level switch
        {
            ServiceLevel.BlowOut or ServiceLevel.DustOut => 1,
            ServiceLevel.FanSwap => 15,
            ServiceLevel.Repaste => 4,
            ServiceLevel.Repad => 20,
            _ => 0,
        };

    /// <summary>Chance that opening it breaks something that costs a machine: a torn connector, a chipped die.</summary>
    public static double ChanceOfDamage(AssetKind kind, ServiceLevel level) =>
        (kind == AssetKind.Laptop ? 2 : 1)
        * level switch
        {
            ServiceLevel.DustOut => 0.001,
            ServiceLevel.FanSwap => 0.002,
            ServiceLevel.Repaste => 0.004,
            ServiceLevel.Repad => 0.006,
            _ => 0,
        };

    /// <summary>Electricity of a kind's fans at full speed, W.</summary>
    public static double FanWatts(AssetKind kind) =>
        kind switch
        {
            AssetKind.GraphicsCard => 12,
            AssetKind.Server => 60,
            AssetKind.Laptop => 2,
            _ => 4,
        };
}
