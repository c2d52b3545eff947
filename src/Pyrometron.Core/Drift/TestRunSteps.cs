using Pyrometron.Core.Fleet;
using Pyrometron.Core.Statistics;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Drift;

/// <summary>
/// Finds jumps of sensors on machines that are read by test runs now and then. There are too few under one load, but an offset is
/// the same under all of them: one part leaves the others from one run to the next, with no service and no change of settings to
/// explain it. A joint that lets go takes weeks, and shows by its heat.
/// </summary>
internal static class TestRunSteps
{
    /// <summary>Cells of one load and settings that are looked at to either side.</summary>
    private const int Window = 5;

    /// <summary>Cells of all loads that a jump needs before and after it.</summary>
    private const int LeastBefore = 3,
        LeastAfter = 3;

    /// <summary>Smaller jumps cannot be told from wear, K.</summary>
    private const double LeastJump = 3.5;

    /// <summary>How sure a jump must be, standard uncertainties: every day of every pair of parts is looked at.</summary>
    private const double LeastSigmas = 5;

    /// <summary>Parts of whole degrees differ by as much from one reading to the next at the least, K.</summary>
    private const double LeastScatter = 0.5;

    /// <summary>By how much a curve must leave more than a step does, sums of squares.</summary>
    private const double CurveWorse = 1.8;

    /// <summary>At most this many jumps a pair are looked for: one that comes back makes two.</summary>
    private const int MostJumps = 4;

    /// <summary>The jumps of all parts, in time order a part. O(parts² × cells).</summary>
    public static List<SensorStep> Find(Asset asset, CellTable cells)
    {
        var all = cells.OfReadings.ToArray();
        return SensorJump.Told(
            asset.Parts.Count,
            (part, other) => JumpsOf(asset, new GapSeries(all, part, other)),
            (part, day) => new GapSeries(all, part, null).StepAt(day),
            sameDays: 2 * Cell.Days
        );
    }

    private static List<SensorJump> JumpsOf(Asset asset, GapSeries series)
    {
        var jumps = new List<SensorJump>();
        while (jumps.Count < MostJumps && series.Largest() is { } jump)
        {
            // Whether it is told or not, what comes after it is looked at without it.
            series.TakeOut(jump.At, jump.Kelvin);
            if (jump.IsAbrupt && !jump.NewSettings && !Served(asset, jump.Before, jump.After))
                jumps.Add(new SensorJump((jump.Before + jump.After) / 2, jump.Kelvin));
        }
        return jumps;
    }

    /// <summary>Whether a service came with it, give or take a cell: a mount that went wrong jumps too.</summary>
    private static bool Served(Asset asset, double before, double after) =>
        asset.Services.Any(s => UnixDay.Noon(s.Date) > before - Cell.Days && UnixDay.Noon(s.Date) < after + Cell.Days);

    /// <summary>By how much one part is warmer than another, or than the air, cell by cell.</summary>
    private sealed class GapSeries
    {
        private readonly double[] _day,
            _kelvin;
        private readonly int[][] _groups;
        private readonly int[] _groupOf,
            _settings;
        private readonly double _scatter;

        public GapSeries(Cell[] cells, int part, int? other)
        {
            double Gap(Cell c) => c.Rise(part) - (other is { } o ? c.Rise(o) : 0);
            var known = cells.Where(c => !double.IsNaN(Gap(c))).ToArray();
            _day = [.. known.Select(c => c.Day)];
            _settings = [.. known.Select(c => c.Settings)];
            _groups = [.. Enumerable.Range(0, known.Length).GroupBy(i => known[i].Workload, (_, same) => same.ToArray())];
            (_kelvin, _groupOf) = (new double[known.Length], new int[known.Length]);
            for (var g = 0; g < _groups.Length; g++)
            {
                // Brought to one heat, as far as that moves within a load.
                var heat = Robust.Median([.. _groups[g].Select(i => known[i].Heat)]);
                foreach (var i in _groups[g])
                    (_kelvin[i], _groupOf[i]) = (Gap(known[i]) * (known[i].Heat > 0 ? heat / known[i].Heat : 1), g);
            }
            double[] differences =
            [
                .. _groups.SelectMany(g => g.Skip(1).Select((c, i) => (_kelvin[c] - _kelvin[g[i]]) / Math.Sqrt(2))),
            ];
            _scatter = Math.Max(LeastScatter, differences.Length > 2 ? Robust.MadScale(differences) : double.PositiveInfinity);
        }

        /// <summary>The surest jump that is left; null without one.</summary>
        public (int At, double Kelvin, double Before, double After, bool IsAbrupt, bool NewSettings)? Largest()
        {
            var (best, kelvin, sigmas) = (-1, 0.0, 0.0);
            for (var at = LeastBefore; at + LeastAfter <= _day.Length; at++)
                if (Across(at, Window) is var (size, weight) && Math.Abs(size) * Math.Sqrt(weight) > sigmas)
                    (best, kelvin, sigmas) = (at, size, Math.Abs(size) * Math.Sqrt(weight));
            if (best < 0 || Math.Abs(kelvin) < LeastJump || sigmas < LeastSigmas * _scatter)
                return null;
            // Medians see the jump from two cells to either side alike: it is where a step leaves least.
            best = Enumerable
                .Range(best - 3, 7)
                .Where(at => at >= LeastBefore && at + LeastAfter <= _day.Length)
                .MinBy(at => Left(Around(best), StepFrom(at, Around(best))));
            return (best, kelvin, _day[best - 1], _day[best], IsAbrupt(best), _settings[best - 1] != _settings[best]);
        }

        /// <summary>
        /// Whether a step explains the cells around it better than a curve does: a joint that lets go takes weeks. Both have a
        /// level of their own under each load; the curve a slope and a bend besides, the step its height.
        /// </summary>
        private bool IsAbrupt(int at)
        {
            var near = Around(at);
            var days = near.Select(i => (_day[i] - _day[at]) / (_day[near[^1]] - _day[near[0]])).ToArray();
            var byStep = Left(near, StepFrom(at, near));
            var byCurve = Left(near, [days, [.. days.Select(d => d * d)]]);
            return byStep * CurveWorse < byCurve;
        }

        private int[] Around(int at)
        {
            var (from, to) = (Math.Max(0, at - 2 * Window), Math.Min(_day.Length, at + 2 * Window));
            return [.. Enumerable.Range(from, to - from)];
        }

        private static double[][] StepFrom(int at, int[] near) =>
            [
                [.. near.Select(i => i >= at ? 1.0 : 0)],
            ];

        /// <summary>Sum of squares that least squares leave: each load's level, and some regressors.</summary>
        private double Left(int[] near, double[][] regressors)
        {
            double[] Centred(Func<int, double> of)
            {
                var values = near.Select((_, k) => of(k)).ToArray();
                foreach (var load in Enumerable.Range(0, near.Length).GroupBy(k => _groupOf[near[k]]))
                {
                    var mean = load.Average(k => values[k]);
                    foreach (var k in load)
                        values[k] -= mean;
                }
                return values;
            }
            var left = Centred(k => _kelvin[near[k]]);
            // One regressor after the other, each freed of those before it (Gram and Schmidt).
            var used = new List<double[]>();
            foreach (var regressor in regressors)
            {
                var x = Centred(k => regressor[k]);
                foreach (var u in used)
                    Subtract(x, u);
                Subtract(left, x);
                used.Add(x);
            }
            return left.Sum(v => v * v) + near.Length * LeastScatter * LeastScatter;
        }

        private static void Subtract(double[] from, double[] direction)
        {
            var length = direction.Sum(v => v * v);
            if (length < 1e-9)
                return;
            var factor = from.Zip(direction, (a, b) => a * b).Sum() / length;
            for (var i = 0; i < from.Length; i++)
                from[i] -= factor * direction[i];
        }

        /// <summary>
        /// The jump at a place over all loads, each weighed by its cells, and its weight: the scatter's variance over it is the
        /// jump's.
        /// </summary>
        private (double Kelvin, double Weight) Across(int at, int window)
        {
            double sum = 0,
                total = 0;
            var (least, most) = (double.PositiveInfinity, double.NegativeInfinity);
            for (var g = 0; g < _groups.Length; g++)
            {
                var members = _groups[g];
                var split = SplitOf(g, at);
                var (before, after) = (Math.Min(window, split), Math.Min(window, members.Length - split));
                if (before == 0 || after == 0)
                    continue;
                var step = MedianOf(members, split, split + after) - MedianOf(members, split - before, split);
                // π/2: a median's variance over a mean's.
                var weight = 1 / (Math.PI / 2 * (1.0 / before + 1.0 / after));
                (sum, total) = (sum + weight * step, total + weight);
                if (weight > 0.3)
                    (least, most) = (Math.Min(least, step), Math.Max(most, step));
            }
            // An offset is the same under every load; heat that meets more resistance is not.
            return total == 0 || (most > least && Math.Min(Math.Abs(least), Math.Abs(most)) < 0.5 * Math.Abs(sum / total))
                ? default
                : (sum / total, total);
        }

        /// <summary>How many of a group's cells stand before a place in the whole series.</summary>
        private int SplitOf(int group, int at)
        {
            var found = Array.BinarySearch(_groups[group], at);
            return found < 0 ? ~found : found;
        }

        private double MedianOf(int[] members, int from, int to)
        {
            Span<double> near = stackalloc double[Window];
            for (var i = from; i < to; i++)
                near[i - from] = _kelvin[members[i]];
            return Robust.MedianInPlace(near[..(to - from)]);
        }

        /// <summary>By how much the series jumps at a day, K; 0 where that cannot be told.</summary>
        public double StepAt(double day)
        {
            var found = Array.BinarySearch(_day, day);
            return Across(found < 0 ? ~found : found, Window).Kelvin;
        }

        /// <summary>Takes a jump out of all that comes after it.</summary>
        public void TakeOut(int at, double kelvin)
        {
            for (var i = at; i < _kelvin.Length; i++)
                _kelvin[i] -= kelvin;
        }
    }
}
