using Pyrometron.Core.Fleet;
using Pyrometron.Core.Policies;

namespace Pyrometron.Core.Worth;

/// <summary>What a level costs besides time. All of it common practice, no source.</summary>
public static class BenchCosts
{
    /// <summary>The loaded runs before and after, during which a machine does not work for its house, minutes.</summary>
    public const int TestMinutes = 2 * 20;

    /// <summary>
    /// What is lost while a machine stands for work of some minutes and its test runs, in the house's currency.
    /// </summary>
    public static double Downtime(Asset asset, double minutes, HouseValues values) =>
        (minutes + TestMinutes) / 60 * asset.DutyHoursPerDay / 24 * values.Of(asset.Kind).MachineHour * values.DowntimeShare;

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
