using MathNet.Numerics.Statistics;
using Pyrometron.Core.Cooling;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Drift;

/// <summary>
/// A tired fan turns slower than it is asked to. Asked by a command, it is told by turns per per cent against the machine's own
/// early ratio. Asked by a temperature, and no command reported, by its speed against that of the early history at the same
/// temperature: a sound fan never slows while the part that it listens to grows warmer.
/// </summary>
/// <param name="SpeedShare">Present speed at equal command relative to fresh, 0 to 1; 1 when sound or not known.</param>
/// <param name="LostPerDay">What it loses of that share a day; 0 when it stands, or no trend is certain.</param>
public readonly record struct FanHealth(double SpeedShare, double LostPerDay = 0)
{
    /// <summary>Days, and points in them, that a pace is taken from.</summary>
    private const double PaceDays = 100;
    private const int LeastForPace = 6;

    private const double RecentDays = 25;

    /// <summary>Speeds scatter by a few per cent; less than this is no finding.</summary>
    private const double LeastLoss = 0.03;

    /// <summary>
    /// Without a command: days that count as present, cells that the early curve needs, and the share of the speed's scatter that
    /// temperature must explain.
    /// </summary>
    private const double RecentDaysByTemperature = 60;
    private const int LeastForCurve = 10;
    private const double LeastExplained = 0.5;

    /// <summary>A speed that moves less than this hardly moves: the fan is fixed, or on its stop.</summary>
    private const double Steady = 0.03;

    private static readonly FanHealth Sound = new(1);

    /// <summary>Judges the fan from a machine's cells, oldest first.</summary>
    /// <param name="renewed">Day of the last fan swap, days since 1970, or negative infinity.</param>
    public static FanHealth Of(CellTable cells, double renewed)
    {
        var known = cells.OfReadings.Where(c => c.SpeedRatio >= 0 && c.Day >= renewed).ToArray();
        if (known.Length < 6)
            return ByTemperature(cells, renewed);
        // The fresh ratio: the upper part of the history, since wear only ever lowers it.
        var fresh = Robust.Quantile(known.Select(c => c.SpeedRatio).ToArray(), 0.85);
        return Judged([.. known.Select(c => (c.Day, c.SpeedRatio / fresh))], RecentDays, LeastLoss);
    }

    /// <param name="shares">Speed relative to fresh by day, oldest first.</param>
    private static FanHealth Judged((double Day, double Share)[] shares, double recentDays, double leastLoss)
    {
        var last = shares[^1].Day;
        var recent = shares.Where(s => s.Day > last - recentDays).Select(s => s.Share).ToArray();
        var share = Robust.Median(recent.Length >= 3 ? recent : [.. shares.TakeLast(3).Select(s => s.Share)]);
        if (share > 1 - leastLoss)
            return Sound;
        var late = shares.Where(s => s.Day > last - PaceDays).ToArray();
        return
            late.Length >= LeastForPace
            && TheilSen.Fit([.. late.Select(s => s.Day)], [.. late.Select(s => s.Share)], 0.8) is { High: < 0 } line
            ? new FanHealth(share, -line.Slope)
            : new FanHealth(share);
    }

    private static FanHealth ByTemperature(CellTable cells, double renewed)
    {
        var known = cells
            .OfReadings.Where(c => c.Flow != 0 && c.Day >= renewed)
            .Select(c => (c.Day, Celsius: Math.Round(Hottest(c)), Speed: FanLaw.SpeedAt(1 + c.Flow)))
            .Where(c => !double.IsNaN(c.Celsius))
            .ToArray();
        if (known.Length < 2 * LeastForCurve)
            return Sound;
        var early = known[..(known.Length / 2)];
        var curve = IsotonicRegression.Fit(early.Select(c => (c.Celsius, c.Speed)));
        var left = early.Select(c => c.Speed / curve.At(c.Celsius) - 1).ToArray();
        var scatter = ArrayStatistics.PopulationStandardDeviation(left);
        var speeds = early.Select(c => c.Speed).ToArray();
        // A fan that holds a temperature turns at any speed there: then its temperature says nothing about its speed.
        if (
            ArrayStatistics.PopulationStandardDeviation(speeds) / speeds.Average() is var moves
            && moves > Steady
            && scatter * scatter > (1 - LeastExplained) * moves * moves
        )
            return Sound;
        (double Day, double Share)[] shares =
        [
            .. known.Select(c => (c.Day, c.Speed / curve.At(c.Celsius))).Where(s => !double.IsNaN(s.Item2)),
        ];
        var recent = shares.Count(s => s.Day > known[^1].Day - RecentDaysByTemperature);
        return recent < 3
            ? Sound
            : Judged(shares, RecentDaysByTemperature, Math.Max(LeastLoss, 2.5 * scatter / Math.Sqrt(recent)));
    }

    private static double Hottest(Cell cell)
    {
        var rise = double.NaN;
        for (var p = 0; p < cell.Parts; p++)
            rise = double.IsNaN(rise) || cell.Rise(p) > rise ? cell.Rise(p) : rise;
        return rise + cell.AmbientC;
    }
}
