using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Proof;

/// <summary>
/// Samples taken during a run by a sensor log. Arrays are as long as <see cref="Minutes"/>; NaN is "not measured".
/// </summary>
/// <param name="Minutes">Since the first sample, ascending.</param>
/// <param name="Parts">°C by part.</param>
/// <param name="Ambient">Intake air, °C; null where the log has no such column. The same for those that follow.</param>
public sealed record RunLog(
    double[] Minutes,
    IReadOnlyList<(string Part, double[] Celsius)> Parts,
    double[]? Ambient = null,
    double[]? PowerWatts = null,
    double[]? ClockMhz = null,
    double[]? FanRpm = null,
    double[]? FanPct = null
);

/// <summary>One part of a log: what it settles at, and the curve that says so.</summary>
/// <param name="Curve">Minute, sample and fitted curve, thinned for drawing.</param>
public sealed record SettledPart(
    string Part,
    SettledValue Settled,
    IReadOnlyList<(double Minute, double Celsius, double Fitted)> Curve
);

/// <summary>What a log of samples tells of a run.</summary>
/// <param name="Minutes">How long the load lasted.</param>
/// <param name="StoppedAt">
/// Minute at which the load broke off although the log goes on, or the log itself broke off and came back; null when it ran
/// through.
/// </param>
/// <param name="ThrottledFrom">
/// Minute from which the clock was lower at equal load while a part stood at its hottest; null when it was not.
/// </param>
/// <param name="AmbientC">Median; null where not measured. The same for those that follow.</param>
/// <param name="FanRpm">Median of the last quarter: the settled value belongs to the end of the run.</param>
public sealed record RunReading(
    double Minutes,
    double? StoppedAt,
    double? ThrottledFrom,
    IReadOnlyList<SettledPart> Parts,
    double? AmbientC,
    double? PowerWatts,
    double? ClockMhz,
    double? FanRpm,
    double? FanPct
)
{
    /// <summary>
    /// Fan speed of the last quarter over that of the second, minus 1: what a ramping fan did once the part was warm; null where
    /// not measured.
    /// </summary>
    public double? FanRamp { get; init; }

    /// <summary>The hottest part at the first sample, °C.</summary>
    public double? StartC { get; init; }

    /// <summary>Samples that must be left of a run to say anything.</summary>
    public const int LeastSamples = 6;

    private const int MostDrawn = 240;

    /// <summary>
    /// A clock this share below its start is throttling; boost clocks wander by a few per cent (common practice, no source).
    /// </summary>
    private const double ThrottledClock = 0.93;

    /// <summary>So near to its hottest, K, a part counts as standing there.</summary>
    private const double AtItsHottest = 3;

    /// <summary>Power below this share of its usual is a load that stopped.</summary>
    private const double StoppedPower = 0.5;

    /// <summary>A pause this many times the usual distance of samples, and a minute at least, is a log that broke off.</summary>
    private const double Pause = 10;

    /// <summary>Reads a log.</summary>
    /// <returns>Null with too few samples before the load stopped.</returns>
    /// <exception cref="OperationCanceledException">Nobody waits for it any more.</exception>
    public static RunReading? Of(RunLog log, CancellationToken cancellation = default)
    {
        var stopped = StoppedIndex(log);
        var count = stopped ?? log.Minutes.Length;
        if (count < LeastSamples)
            return null;
        var parts = new List<SettledPart>();
        foreach (var (part, celsius) in log.Parts)
        {
            cancellation.ThrowIfCancellationRequested();
            if (Settle(part, log.Minutes, celsius, count) is { } settled)
                parts.Add(settled);
        }
        return parts.Count == 0
            ? null
            : new RunReading(
                log.Minutes[count - 1],
                stopped is { } at ? log.Minutes[at] : null,
                ThrottlingBegins(log, count),
                parts,
                Median(log.Ambient, count),
                Median(log.PowerWatts, count),
                Median(log.ClockMhz, count),
                Late(log.FanRpm, count),
                Late(log.FanPct, count)
            )
            {
                FanRamp = Ramp(log.FanRpm ?? log.FanPct, count),
                StartC = log
                    .Parts.Select(p => p.Celsius[0])
                    .Where(c => !double.IsNaN(c))
                    .Cast<double?>()
                    .DefaultIfEmpty(null)
                    .Max(),
            };
    }

    private static SettledPart? Settle(string part, double[] minutes, double[] celsius, int count)
    {
        var known = Enumerable.Range(0, count).Where(i => !double.IsNaN(celsius[i])).ToArray();
        var (t, y) = (known.Select(i => minutes[i]).ToArray(), known.Select(i => celsius[i]).ToArray());
        if (SettledValue.Of(t, y) is not { } settled)
            return null;
        var every = Math.Max(1, (t.Length + MostDrawn - 1) / MostDrawn);
        return new SettledPart(
            part,
            settled,
            [
                .. Enumerable
                    .Range(0, t.Length)
                    .Where(i => i % every == 0 || i == t.Length - 1)
                    .Select(i => (t[i], y[i], settled.At(t[i]))),
            ]
        );
    }

    /// <summary>
    /// Where the load ended before the log: the power fell away for good, or samples are missing for long (a crash that the
    /// log survived). A log that simply ends is a run that ended.
    /// </summary>
    private static int? StoppedIndex(RunLog log)
    {
        var distances = log.Minutes.Skip(1).Zip(log.Minutes, (b, a) => b - a).ToArray();
        var pause = Math.Max(1, Pause * Robust.Median(distances));
        var broken = Array.FindIndex(distances, d => d > pause);
        int? at = broken >= 0 ? broken + 1 : null;
        if (log.PowerWatts is { } power && power.Where(p => p > 0).ToArray() is { Length: > 0 } known)
        {
            var usual = Robust.Quantile(known, 0.7);
            var last = Array.FindLastIndex(power, p => p > StoppedPower * usual);
            if (last >= 0 && last < power.Length - 2)
                at = Math.Min(at ?? int.MaxValue, last + 1);
        }
        return at;
    }

    private static double? ThrottlingBegins(RunLog log, int count)
    {
        if (log.ClockMhz is not { } clock)
            return null;
        var first = Enumerable
            .Range(0, count)
            .Where(i => log.Minutes[i] <= log.Minutes[count - 1] / 5 && clock[i] > 0)
            .Select(i => clock[i])
            .ToArray();
        if (first.Length == 0)
            return null;
        var usual = Robust.Median(first);
        bool Hot(int i) =>
            log.Parts.Any(p =>
                p.Celsius[i]
                >= p.Celsius.Take(count).Where(c => !double.IsNaN(c)).DefaultIfEmpty(double.PositiveInfinity).Max() - AtItsHottest
            );
        var low = Enumerable.Range(0, count).Where(i => clock[i] > 0 && clock[i] < ThrottledClock * usual && Hot(i)).ToArray();
        // A dip is no throttling: it has to last for a tenth of the run.
        return low.Length >= Math.Max(3, count / 10) ? log.Minutes[low[0]] : null;
    }

    private static double? Late(double[]? channel, int count) => Median(channel?[(count * 3 / 4)..count], count);

    private static double? Ramp(double[]? channel, int count) =>
        Median(channel?[(count / 4)..(count / 2)], count) is > 0 and var middle && Late(channel, count) is { } late
            ? late / middle - 1
            : null;

    private static double? Median(double[]? channel, int count) =>
        channel?.Take(count).Where(v => !double.IsNaN(v)).ToArray() is { Length: > 0 } known ? Robust.Median(known) : null;
}
