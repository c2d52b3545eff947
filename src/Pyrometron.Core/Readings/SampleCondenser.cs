using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Readings;

/// <summary>One line of a sensor log; NaN is "not measured".</summary>
/// <param name="LoadPercent">How busy the machine says it is.</param>
/// <param name="PartsC">In the order of the machine's parts.</param>
public readonly record struct Sample(
    long UnixMilliseconds,
    double AmbientC,
    double PowerW,
    double ClockMhz,
    double LoadPercent,
    double FanRpm,
    double FanPct,
    double[] PartsC
);

/// <summary>How busy a machine was.</summary>
public enum Activity
{
    Idle,
    PartLoad,
    FullLoad,
}

/// <summary>Half an hour of a log in which a machine stood still enough to be read: medians of its steady minutes.</summary>
/// <param name="Samples">Samples that went into it.</param>
/// <param name="SpreadKelvin">Largest robust standard deviation of any part within it.</param>
public sealed record OperatingWindow(
    long UnixMilliseconds,
    Activity Activity,
    bool Throttled,
    int Samples,
    double SpreadKelvin,
    double AmbientC,
    double PowerW,
    double ClockMhz,
    double FanRpm,
    double FanPct,
    double[] PartsC
);

/// <summary>What a log comes to.</summary>
/// <param name="Gaps">Pauses of a minute or more, and of ten times the usual distance of samples.</param>
/// <param name="FirstMs">Its first sample, milliseconds since 1970; null without any.</param>
/// <param name="LastMs">Its last one.</param>
public sealed record CondensedLog(long Samples, int Gaps, IReadOnlyList<OperatingWindow> Windows, long? FirstMs, long? LastMs);

/// <summary>
/// Condenses the samples of a log, seconds apart, into operating windows. Samples are gathered in blocks of five minutes on the
/// clock; a block is steady where no part and not the load has moved; steady blocks of one activity in one half hour make a
/// window. Memory is bounded by the blocks, not by the samples. Thresholds: common practice, no source.
/// </summary>
public sealed class SampleCondenser(int parts)
{
    private const long BlockMs = 5 * 60_000,
        WindowMs = 30 * 60_000;

    /// <summary>A block with fewer samples says nothing, and a window of fewer steady blocks neither.</summary>
    private const int LeastSamples = 5,
        LeastBlocks = 2;

    /// <summary>A part that moves by more from the first third of a block to its last, K, is still on its way.</summary>
    private const double SteadyKelvin = 2;

    /// <summary>A load that spreads by more about its median, share of the range seen, is changing.</summary>
    private const double SteadyLoad = 0.25;

    /// <summary>Shares of the log's usual top below which a machine idles, or works in part.</summary>
    private const double IdleShare = 0.3,
        PartShare = 0.75;

    /// <summary>A clock below this share of the usual one under full load, with a part at its hottest, is throttling.</summary>
    private const double ThrottledClock = 0.93,
        AtItsHottest = 3;

    private readonly List<Sample> _open = [];
    private readonly List<Block> _blocks = [];
    private readonly List<double> _distances = [];
    private long _samples,
        _last = long.MinValue;
    private readonly List<long> _pauses = [];
    private long? _first;

    private sealed record Block(long Start, int Samples, bool Steady, Sample Median, double Spread);

    /// <summary>Takes the next sample; one that is not later than the last is not counted.</summary>
    /// <returns>Whether it was counted.</returns>
    public bool Add(in Sample sample)
    {
        if (sample.UnixMilliseconds <= _last)
            return false;
        if (_open.Count > 0 && BlockOf(_open[0]) != BlockOf(sample))
            Close();
        if (_last != long.MinValue)
        {
            var distance = sample.UnixMilliseconds - _last;
            if (_distances.Count < 10_000)
                _distances.Add(distance);
            if (distance >= 60_000)
                _pauses.Add(distance);
        }
        _first ??= sample.UnixMilliseconds;
        _open.Add(sample);
        _last = sample.UnixMilliseconds;
        _samples++;
        return true;
    }

    /// <summary>The windows of all samples so far.</summary>
    public CondensedLog Finish()
    {
        Close();
        var usual = _distances.Count == 0 ? 0 : Robust.Median(_distances.ToArray());
        return new CondensedLog(_samples, _pauses.Count(p => p >= 10 * usual), Windows(), _first, _samples == 0 ? null : _last);
    }

    private static long BlockOf(Sample s) => Floor(s.UnixMilliseconds, BlockMs);

    private static long Floor(long value, long step) => value - ((value % step) + step) % step;

    private void Close()
    {
        if (_open.Count >= LeastSamples)
        {
            var samples = _open.ToArray();
            var third = Math.Max(1, samples.Length / 3);
            var moved = 0.0;
            var spread = 0.0;
            for (var p = 0; p < parts; p++)
            {
                var at = p;
                var early = Median(samples[..third], s => s.PartsC[at]);
                var late = Median(samples[^third..], s => s.PartsC[at]);
                if (Math.Abs(late - early) is var d && !double.IsNaN(d))
                    moved = Math.Max(moved, d);
                var known = samples.Select(s => s.PartsC[at]).Where(c => !double.IsNaN(c)).ToArray();
                if (known.Length > 2)
                    spread = Math.Max(spread, Robust.MadScale(known));
            }
            var median = new Sample(
                BlockOf(samples[0]),
                Median(samples, s => s.AmbientC),
                Median(samples, s => s.PowerW),
                Median(samples, s => s.ClockMhz),
                Median(samples, s => s.LoadPercent),
                Median(samples, s => s.FanRpm),
                Median(samples, s => s.FanPct),
                [.. Enumerable.Range(0, parts).Select(p => Median(samples, s => s.PartsC[p]))]
            );
            _blocks.Add(
                new Block(median.UnixMilliseconds, samples.Length, moved <= SteadyKelvin && IsEven(samples), median, spread)
            );
        }
        _open.Clear();
    }

    /// <summary>
    /// Whether the load of a block stayed what it was: by load, else by power; where neither is there, by the parts.
    /// </summary>
    private static bool IsEven(Sample[] samples)
    {
        double Wander(Func<Sample, double> of, double full)
        {
            var known = samples.Select(of).Where(v => !double.IsNaN(v)).Order().ToArray();
            return known.Length < LeastSamples
                ? 0
                : (Robust.QuantileOfSorted(known, 0.9) - Robust.QuantileOfSorted(known, 0.1)) / full;
        }
        return samples.Any(s => !double.IsNaN(s.LoadPercent)) ? Wander(s => s.LoadPercent, 100) <= SteadyLoad
            : samples.Any(s => !double.IsNaN(s.PowerW))
                ? Wander(s => s.PowerW, Math.Max(1, samples.Where(s => !double.IsNaN(s.PowerW)).Max(s => s.PowerW))) <= SteadyLoad
            : true;
    }

    private List<OperatingWindow> Windows()
    {
        if (_blocks.Count == 0)
            return [];
        var busy = Busy();
        var full = _blocks.Where((_, i) => busy[i] == Activity.FullLoad).ToArray();
        var clock = Median([.. full.Select(b => b.Median)], s => s.ClockMhz);
        var hottest = full.Select(b => Hottest(b.Median)).DefaultIfEmpty(double.PositiveInfinity).Max();
        bool IsThrottled(Block b) => b.Median.ClockMhz < ThrottledClock * clock && Hottest(b.Median) >= hottest - AtItsHottest;
        return
        [
            .. _blocks
                .Select((block, i) => (Block: block, Activity: busy[i]))
                .Where(b => b.Block.Steady)
                .GroupBy(b => (Cell: Floor(b.Block.Start, WindowMs), b.Activity))
                .Where(g => g.Count() >= LeastBlocks)
                // One window a half hour: what it did most of the time.
                .GroupBy(g => g.Key.Cell)
                .Select(cell => cell.MaxBy(g => g.Sum(b => b.Block.Samples))!)
                .OrderBy(g => g.Key.Cell)
                .Select(g => WindowOf(g.Key.Cell, g.Key.Activity, [.. g.Select(b => b.Block)], IsThrottled)),
        ];
    }

    private OperatingWindow WindowOf(long cell, Activity activity, Block[] blocks, Func<Block, bool> isThrottled)
    {
        double Of(Func<Sample, double> value) => Median([.. blocks.Select(b => b.Median)], value);
        return new OperatingWindow(
            cell + WindowMs / 2,
            activity,
            activity == Activity.FullLoad && blocks.Count(isThrottled) * 2 > blocks.Length,
            blocks.Sum(b => b.Samples),
            blocks.Max(b => b.Spread),
            Of(s => s.AmbientC),
            Of(s => s.PowerW),
            Of(s => s.ClockMhz),
            Of(s => s.FanRpm),
            Of(s => s.FanPct),
            [.. Enumerable.Range(0, parts).Select(p => Of(s => s.PartsC[p]))]
        );
    }

    /// <summary>
    /// How busy each block was: by load as told, else by its share of the log's own top of power, else by how far its hottest
    /// part stands between the coolest and the hottest of the log.
    /// </summary>
    private Activity[] Busy()
    {
        var medians = _blocks.Select(b => b.Median).ToArray();
        double[] Of(Func<Sample, double> value) => [.. medians.Select(value)];
        var load = Of(s => s.LoadPercent);
        if (load.Any(l => !double.IsNaN(l)))
            return [.. load.Select(l => By(l / 100))];
        var power = Of(s => s.PowerW);
        if (Top(power) is > 0 and var most)
            return [.. power.Select(p => By(p / most))];
        var hot = Of(Hottest);
        var known = hot.Where(h => !double.IsNaN(h)).Order().ToArray();
        if (known.Length == 0)
            return [.. hot.Select(_ => Activity.Idle)];
        var (low, high) = (Robust.QuantileOfSorted(known, 0.05), Robust.QuantileOfSorted(known, 0.95));
        // A log that hardly moves was made of one thing: a load, since idle machines are not logged for their heat.
        return high - low < 10 ? [.. hot.Select(_ => Activity.FullLoad)] : [.. hot.Select(h => By((h - low) / (high - low)))];

        static Activity By(double share) =>
            share >= PartShare ? Activity.FullLoad
            : share >= IdleShare ? Activity.PartLoad
            : Activity.Idle;
    }

    private static double Top(double[] values)
    {
        var known = values.Where(v => !double.IsNaN(v)).Order().ToArray();
        return known.Length == 0 ? double.NaN : Robust.QuantileOfSorted(known, 0.95);
    }

    private static double Hottest(Sample s) => s.PartsC.Where(c => !double.IsNaN(c)).DefaultIfEmpty(double.NaN).Max();

    private static double Median(Sample[] samples, Func<Sample, double> of)
    {
        var known = samples.Select(of).Where(v => !double.IsNaN(v)).ToArray();
        return known.Length == 0 ? double.NaN : Robust.Median(known);
    }
}
