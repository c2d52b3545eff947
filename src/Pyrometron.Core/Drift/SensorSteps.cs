using Pyrometron.Core.Fleet;
using Pyrometron.Core.Statistics;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Drift;

/// <summary>
/// Finds sensors whose offset jumped: one part alone, from one cell to the next, with no service and no change of settings to
/// explain it.
/// </summary>
public static class SensorSteps
{
    private const int Window = 5;
    private const double LeastJump = 3.5;

    /// <summary>Two jumps of one part within these days are one.</summary>
    private const double NearDays = 30;

    /// <summary>At most this many jumps a part are looked for: one that comes back makes two.</summary>
    private const int MostJumps = 4;

    /// <summary>The jumps of all parts. O(parts² × cells).</summary>
    /// <param name="testRuns">Whether the machine is read by test runs now and then.</param>
    public static List<SensorStep> Find(Asset asset, ReferencePoint reference, CellTable cells, bool testRuns)
    {
        var steps = testRuns ? TestRunSteps.Find(asset, cells) : [];
        steps.AddRange(
            Find(asset, reference, cells).Where(s => !steps.Any(k => k.Part == s.Part && Math.Abs(k.Day - s.Day) < NearDays))
        );
        return steps;
    }

    private static List<SensorStep> Find(Asset asset, ReferencePoint reference, CellTable cells)
    {
        if (asset.Parts.Count < 2)
            return [];
        var main = cells.OfReadings.Where(c => c.Workload == reference.Workload && c.Heat > 0.6).ToArray();
        var parts = asset.Parts.Count;
        // By how much one part jumps against another is what that one jumps against it, the other way.
        var jumps = new List<(double Day, double Kelvin)>[parts, parts];
        for (var p = 0; p < parts; p++)
        for (var other = 0; other < p; other++)
            jumps[other, p] = [.. (jumps[p, other] = Jumps(asset, main, p, other)).Select(j => (j.Day, -j.Kelvin))];
        return
        [
            .. Enumerable
                .Range(0, parts)
                .SelectMany(p =>
                    StepsOf(main, p, [.. Enumerable.Range(0, parts).Where(other => other != p).Select(other => jumps[p, other])])
                ),
        ];
    }

    /// <summary>
    /// The sensor that jumped is the one that left all the others at once, by the same kelvins, while those stayed together;
    /// with two sensors, the one whose own reading jumped.
    /// </summary>
    /// <param name="others">The part's jumps against each of the others.</param>
    private static IEnumerable<SensorStep> StepsOf(Cell[] cells, int part, List<(double Day, double Kelvin)>[] others) =>
        others[0]
            .Where(jump =>
                others.All(o => o.Any(j => Math.Abs(j.Day - jump.Day) <= Cell.Days && j.Kelvin * jump.Kelvin > 0))
                && Math.Abs(Raw(cells, part, jump.Day) - jump.Kelvin) <= Math.Abs(jump.Kelvin) / 2
            )
            .OrderBy(j => j.Day)
            .Select(j => new SensorStep(part, j.Day));

    private static List<(double Day, double Kelvin)> Jumps(Asset asset, Cell[] cells, int part, int other)
    {
        var apart = cells
            .Select(c => new Gap(c.Day, (c.Rise(part) - c.Rise(other)) / c.Heat, c.Settings))
            .Where(c => !double.IsNaN(c.Kelvin))
            .ToArray();
        var jumps = new List<(double, double)>();
        if (apart.Length < 2 * Window)
            return jumps;
        var noise = Robust.MadScale(apart.Skip(1).Select((c, i) => c.Kelvin - apart[i].Kelvin).ToArray()) / Math.Sqrt(2);
        var spans = new Stack<(int From, int To)>([(0, apart.Length)]);
        while (spans.TryPop(out var span) && jumps.Count < MostJumps)
            if (LargestIn(apart, span.From, span.To) is var (at, size) && Math.Abs(size) >= Math.Max(LeastJump, 5 * noise))
            {
                if (IsAbrupt(apart, at, size) && !Explained(asset, apart, at))
                    jumps.Add(((apart[at - 1].Day + apart[at].Day) / 2, size));
                spans.Push((span.From, at));
                spans.Push((at, span.To));
            }
        return jumps;
    }

    /// <param name="Kelvin">By how much one part is warmer than another at the reference heat.</param>
    private readonly record struct Gap(double Day, double Kelvin, int Settings);

    private static (int At, double Kelvin) LargestIn(Gap[] apart, int from, int to)
    {
        (int At, double Kelvin) best = default;
        for (var k = from + Window; k <= to - Window; k++)
        {
            var jump = Median(apart, k, k + Window) - Median(apart, k - Window, k);
            if (Math.Abs(jump) > Math.Abs(best.Kelvin))
                best = (k, jump);
        }
        // Medians see the jump from two cells to either side alike: it is where the nearest cells differ most.
        var nearest = best.At;
        for (var k = best.At - 2; best.At > 0 && k <= best.At + 2; k++)
            if (Math.Abs(Across(apart, k)) > Math.Abs(Across(apart, nearest)))
                nearest = k;
        return (nearest, best.Kelvin);
    }

    private static double Across(Gap[] apart, int at) => Median(apart, at, at + 2) - Median(apart, at - 2, at);

    /// <summary>Whether it happened within one cell; that cell may hold some of both, and is left out of either side.</summary>
    private static bool IsAbrupt(Gap[] apart, int at, double size)
    {
        double[] jumps =
        [
            Across(apart, at),
            Median(apart, at + 1, at + 3) - Median(apart, at - 2, at),
            Median(apart, at, at + 2) - Median(apart, at - 3, at - 1),
        ];
        return jumps.Max(j => j * Math.Sign(size)) > 0.8 * Math.Abs(size);
    }

    /// <summary>Whether new settings or a service came with it, give or take a cell: a mount that went wrong jumps too.</summary>
    private static bool Explained(Asset asset, Gap[] apart, int at)
    {
        var (from, to) = (apart[Math.Max(0, at - 2)], apart[Math.Min(apart.Length - 1, at + 1)]);
        return from.Settings != to.Settings
            || asset.Services.Any(s => UnixDay.Noon(s.Date) > from.Day && UnixDay.Noon(s.Date) < to.Day);
    }

    /// <summary>By how much a part's own rise changed about a day, K.</summary>
    private static double Raw(Cell[] cells, int part, double day)
    {
        var known = cells.Where(c => !double.IsNaN(c.Rise(part))).ToArray();
        return Robust.Median(known.Where(c => c.Day > day).Take(Window).Select(c => c.Rise(part) / c.Heat).ToArray())
            - Robust.Median(known.Where(c => c.Day < day).TakeLast(Window).Select(c => c.Rise(part) / c.Heat).ToArray());
    }

    private static double Median(Gap[] series, int from, int to) =>
        Robust.Median(series[from..to].Select(s => s.Kelvin).ToArray());
}
