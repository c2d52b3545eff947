namespace Pyrometron.Core.Readings;

/// <summary>
/// One reading window of one machine. A number that was not measured is <see cref="double.NaN"/>; a label that was not
/// given is null.
/// </summary>
/// <param name="UnixMilliseconds">The instant, in milliseconds since 1970-01-01T00:00Z.</param>
/// <param name="AmbientC">Intake air, °C.</param>
/// <param name="OutletC">Outlet air, °C.</param>
/// <param name="PowerW">Heat of the whole cooler, W.</param>
/// <param name="FanRpm">Fan speed, turns a minute.</param>
/// <param name="FanPct">Commanded fan speed, per cent.</param>
/// <param name="PartsC">°C by the asset's parts, in the register's order.</param>
/// <param name="FansRpm">Fans that report apart, as <c>1780;1750</c>; null where none does.</param>
public sealed record Reading(
    long UnixMilliseconds,
    double AmbientC,
    double OutletC,
    double PowerW,
    double FanRpm,
    double FanPct,
    double ClockMhz,
    double Throttled,
    double Score,
    string? Settings,
    string? Workload,
    string? FansRpm,
    double[] PartsC
)
{
    /// <summary>The highest temperature that is kept, °C; beyond it a cell is no temperature.</summary>
    public const double HottestC = 1000;

    /// <summary>The coldest temperature there is, °C.</summary>
    public const double ColdestC = -273.15;

    /// <summary>The largest number that is kept of anything else.</summary>
    public const double LargestNumber = 1e9;

    /// <summary>Samples that it is the median of; 0 where nobody said.</summary>
    public int Samples { get; init; }

    /// <summary>Largest standard deviation of a part among them, K; NaN where nobody said.</summary>
    public double SpreadKelvin { get; init; } = double.NaN;

    /// <summary>Whether all that was measured is the same; the identity (asset and instant) is the caller's.</summary>
    public bool SameValues(Reading other) =>
        AmbientC.Equals(other.AmbientC)
        && OutletC.Equals(other.OutletC)
        && PowerW.Equals(other.PowerW)
        && FanRpm.Equals(other.FanRpm)
        && FanPct.Equals(other.FanPct)
        && ClockMhz.Equals(other.ClockMhz)
        && Throttled.Equals(other.Throttled)
        && Score.Equals(other.Score)
        && Settings == other.Settings
        && Workload == other.Workload
        && FansRpm == other.FansRpm
        && PartsC.AsSpan().SequenceEqual(other.PartsC);
}
