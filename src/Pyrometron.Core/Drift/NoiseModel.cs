using Pyrometron.Core.Readings;

namespace Pyrometron.Core.Drift;

/// <summary>
/// How the readings of one machine scatter about its model. Most of it moves all parts alike: the air at the intake is
/// seldom what its sensor says, by the day and by the week, and a test run is seldom warmed through as the last one was.
/// What one part does alone is an order quieter, which is why paste and pads are seen long before dust is.
/// </summary>
/// <param name="Own">Standard deviation of one part alone in a cell, K, that more readings do not shrink.</param>
/// <param name="OwnReading">The same of a single reading: whole degrees, and a sensor's own noise.</param>
/// <param name="CommonReading">What moves all parts of one reading alike.</param>
/// <param name="LocalAir">What moves all parts for days: the air in front of this machine against the zone's.</param>
internal readonly record struct NoiseModel(double Own, double OwnReading, double CommonReading, double LocalAir)
{
    /// <summary>Whether it is of a machine that is tested now and then.</summary>
    public bool Rare { get; private init; }

    /// <summary>Days after which the local air has forgotten most of what it was.</summary>
    public const double LocalAirDays = 8;

    /// <summary>Longer than this between readings, days, and they are test runs.</summary>
    private const double RareDays = 2;

    /// <summary>Machines that report windows of steady load.</summary>
    private static readonly NoiseModel Steady = new(0.3, 0.7, 1.0, 0.9);

    /// <summary>Machines that are tested now and then: each run begins anew, in other air.</summary>
    private static readonly NoiseModel TestRuns = new(0.3, 0.8, 1.8, 0.7) { Rare = true };

    /// <summary>The noise to expect of a machine, by how it is measured.</summary>
    public static NoiseModel Of(ReadingSeries series) => IsRare(series) ? TestRuns : Steady;

    /// <summary>Whether a machine is read by test runs now and then, not by windows of its daily work.</summary>
    public static bool IsRare(ReadingSeries series) =>
        series.Count > 1 && (series.Day[^1] - series.Day[0]) / series.Count > RareDays;

    /// <summary>Variance of one part alone in a cell.</summary>
    public double OwnVariance(int readings) => Own * Own + OwnReading * OwnReading / readings;

    /// <summary>Variance of what a cell's parts share.</summary>
    public double CommonVariance(int readings) => CommonReading * CommonReading / readings;
}
