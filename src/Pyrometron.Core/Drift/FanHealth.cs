using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Drift;

/// <summary>
/// A tired fan turns slower than its command asks: told by turns per per cent of command against the machine's own early
/// ratio. Without a command nothing is said: what an automatic fan was asked cannot be told from the temperatures it holds.
/// </summary>
/// <param name="SpeedShare">Present speed at equal command relative to fresh, 0 to 1; 1 when sound or not known.</param>
public readonly record struct FanHealth(double SpeedShare)
{
    private const double RecentDays = 25;

    /// <summary>Speeds scatter by a few per cent; less than this is no finding.</summary>
    private const double LeastLoss = 0.03;

    /// <summary>Judges the fan from a machine's cells, oldest first.</summary>
    /// <param name="renewed">Day of the last fan swap, days since 1970, or negative infinity.</param>
    public static FanHealth Of(CellTable cells, double renewed)
    {
        var known = cells.All.Where(c => c.SpeedRatio >= 0 && c.Day >= renewed).ToArray();
        if (known.Length < 6)
            return new FanHealth(1);
        // The fresh ratio: the upper part of the history, since wear only ever lowers it.
        var fresh = Robust.Quantile(known.Select(c => c.SpeedRatio).ToArray(), 0.85);
        var recent = known.Where(c => c.Day > known[^1].Day - RecentDays).Select(c => c.SpeedRatio).ToArray();
        var share = Robust.Median(recent.Length >= 3 ? recent : known.TakeLast(3).Select(c => c.SpeedRatio).ToArray()) / fresh;
        return new FanHealth(share > 1 - LeastLoss ? 1 : share);
    }
}
