using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Drift;

/// <summary>
/// A tired fan turns slower than it is asked to. What it is asked is its command where that is measured, held against the
/// machine's own early turns per per cent; else it is told from the hottest part, which an automatic fan follows by a fixed
/// curve: the machine's own early one.
/// </summary>
/// <param name="SpeedShare">Present speed at equal command relative to fresh, 0 to 1; 1 when sound or not known.</param>
public readonly record struct FanHealth(double SpeedShare)
{
    private const double RecentDays = 25;

    /// <summary>Speeds scatter by a few per cent; less than this is no finding. A command told from temperatures is less sure.</summary>
    private const double LeastLoss = 0.03, LeastLossUnasked = 0.08;

    /// <summary>Cells that a curve needs, and the kelvins they must spread over.</summary>
    private const int LeastForCurve = 10, LeastSpread = 5;

    /// <summary>Judges the fan from a machine's cells, oldest first.</summary>
    /// <param name="renewed">Day of the last fan swap, days since 1970, or negative infinity.</param>
    public static FanHealth Of(CellTable cells, ReferencePoint reference, double renewed)
    {
        var known = cells.All.Where(c => c.SpeedRatio >= 0 && c.Day >= renewed).Select(c => (c.Day, Ratio: c.SpeedRatio)).ToArray();
        if (known.Length >= 6)
            return From(known, LeastLoss);
        return reference.SpeedIsRpm && AgainstTemperature(cells, reference, renewed) is { Length: >= 6 } followed ? From(followed, LeastLossUnasked) : new FanHealth(1);
    }

    private static FanHealth From((double Day, double Ratio)[] known, double leastLoss)
    {
        // The fresh ratio: the upper part of the history, since wear only ever lowers it.
        var fresh = Robust.Quantile(known.Select(c => c.Ratio).ToArray(), 0.85);
        var recent = known.Where(c => c.Day > known[^1].Day - RecentDays).Select(c => c.Ratio).ToArray();
        var share = Robust.Median(recent.Length >= 3 ? recent : known.TakeLast(3).Select(c => c.Ratio).ToArray()) / fresh;
        return new FanHealth(share > 1 - leastLoss ? 1 : share);
    }

    /// <summary>Speed relative to what the early curve asks at that temperature; null where the fan does not follow its hottest part.</summary>
    private static (double Day, double Ratio)[]? AgainstTemperature(CellTable cells, ReferencePoint reference, double renewed)
    {
        var points = cells.All.Where(c => c.Day >= renewed && c.Flow > -1).Select(c => (c.Day, Hottest: c.AmbientC + HottestRise(c, cells.Parts),
            Rpm: reference.FanSpeed * Math.Pow(1 + c.Flow, -1 / FanLaw.Exponent))).Where(p => double.IsFinite(p.Hottest) && p.Rpm > 0).ToArray();
        var early = points[..Math.Min(points.Length, Math.Max(LeastForCurve, points.Length * 2 / 5))];
        if (early.Length < LeastForCurve)
            return null;
        var temperatures = early.Select(p => p.Hottest).ToArray();
        if (Robust.Quantile(temperatures, 0.9) - Robust.Quantile(temperatures, 0.1) < LeastSpread
            || TheilSen.Fit(temperatures, early.Select(p => p.Rpm).ToArray()) is not { IsRising: true } curve)
            return null;
        // No further than was seen: beyond it the fan may be at its end.
        var speeds = early.Select(p => p.Rpm).ToArray();
        var (slowest, fastest) = (Robust.Quantile(speeds, 0.1), Robust.Quantile(speeds, 0.9));
        return [.. points.Select(p => (p.Day, p.Rpm / Math.Clamp(curve.At(p.Hottest), slowest, fastest)))];
    }

    private static double HottestRise(Cell cell, int parts)
    {
        var most = double.NaN;
        for (var p = 0; p < parts; p++)
            if (!(cell.Rise(p) <= most) && !double.IsNaN(cell.Rise(p)))
                most = cell.Rise(p);
        return most;
    }
}
