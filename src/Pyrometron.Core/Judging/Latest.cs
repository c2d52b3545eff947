using Pyrometron.Core.Drift;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Readings;
using Pyrometron.Core.Statistics;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Judging;

/// <summary>
/// What a machine shows now, as it was measured: its newest run, or the median of its newest readings since its last service
/// under its main load.
/// </summary>
/// <param name="PartsC">°C by part; NaN where not measured.</param>
/// <param name="AirsC">Intake air when each part was measured, °C; NaN where unknown.</param>
/// <param name="FanPct">Commanded fan speed then, per cent; NaN where unknown.</param>
/// <param name="Day">When, days since 1970.</param>
/// <param name="FromDay">Where readings are condensed, the oldest of them may be from just after this day.</param>
/// <param name="Run">The run; null where it is readings.</param>
internal sealed record Latest(double[] PartsC, double[] AirsC, double FanPct, double Day, double FromDay, MeasuredRun? Run)
{
    /// <summary>Readings of this many days before the newest count as now.</summary>
    public const double RecentDays = 14;

    private const int LeastReadings = 3;

    /// <summary>Takes it from a machine's cleaned readings and its usable runs.</summary>
    /// <param name="air">The air of a run, °C.</param>
    public static Latest Of(
        Asset asset,
        Channels channels,
        int workload,
        IReadOnlyList<MeasuredRun> runs,
        Func<MeasuredRun, double> air
    )
    {
        var series = channels.Series;
        var from = series.Count == 0 ? double.NegativeInfinity : Since(asset, series);
        double Median(double[] channel) => MedianOf(series, channel, workload, from);
        var parts = channels.Parts.Select(Median).ToArray();
        var airs = parts.Select(_ => Median(channels.Ambient)).ToArray();
        if (runs.Count == 0 || (series.Count > 0 && UnixDay.Of(runs[^1].At) < series.Day[^1]))
            return new Latest(parts, airs, Median(series.FanPct), series.Day[^1], from, null);
        // A part that the run leaves out is shown as the readings have it.
        var (newest, day) = (runs[^1], UnixDay.Of(runs[^1].At));
        for (var p = 0; p < parts.Length; p++)
            if (RunCells.CelsiusOf(newest.Run, asset.Parts[p].Name) is var celsius && !double.IsNaN(celsius))
                (parts[p], airs[p]) = (celsius, air(newest));
        return new Latest(parts, airs, newest.Run.Fan.Percent ?? double.NaN, day, day, newest);
    }

    /// <summary>Intake air of what was measured last, °C; NaN where unknown.</summary>
    public double AirC => AirsC.FirstOrDefault(a => !double.IsNaN(a), double.NaN);

    /// <summary>Whether it throttled, or stood at a limit.</summary>
    public static bool StandsAtItsLimit(Asset asset, Channels channels, Latest latest)
    {
        if (latest.Run is { Run: var run })
            return run.Throttled || asset.Parts.Where((part, p) => latest.PartsC[p] >= part.Limit.Value).Any();
        var s = channels.Series;
        var first = Array.FindIndex(s.Day, d => d > latest.FromDay);
        var (recent, throttled) = (s.Count - first, 0);
        for (var i = first; i < s.Count; i++)
            throttled += s.Throttled[i] ? 1 : 0;
        return throttled >= Math.Max(1, recent / 20)
            || asset
                .Parts.Where(
                    (part, p) => channels.Parts[p].Skip(first).Count(c => c >= part.Limit.Value) > Math.Max(1, recent / 5)
                )
                .Any();
    }

    /// <summary>
    /// From where on readings count as now: a fortnight, and nothing from before the last service that readings followed.
    /// </summary>
    private static double Since(Asset asset, ReadingSeries series)
    {
        var served = asset
            .Services.Where(s => s.Level != ServiceLevel.Inspect && s.Day < series.Day[^1])
            .Select(s => s.Day)
            .DefaultIfEmpty(double.NegativeInfinity)
            .Max();
        return Math.Max(series.Day[^1] - RecentDays, served);
    }

    private static double MedianOf(ReadingSeries s, double[] channel, int workload, double from)
    {
        var latest = new List<double>();
        // Newest first: those that count as now, or where there are none of this load the last three whenever they were.
        for (var i = s.Count - 1; i >= 0 && (s.Day[i] > from || latest.Count < LeastReadings); i--)
            if (s.Workload[i] == workload && !double.IsNaN(channel[i]))
            {
                if (s.Day[i] <= from && latest.Count > 0 && s.Day[^1] - RecentDays < from)
                    break;
                latest.Add(channel[i]);
            }
        return Robust.Median(latest.ToArray());
    }
}
