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
    /// <param name="reported">Whether people reported something of the machine: then no size alone says that it is the sensor.</param>
    public static List<SensorStep> Find(
        Asset asset,
        ReferencePoint reference,
        CellTable cells,
        bool testRuns,
        bool reported = false
    )
    {
        var steps = testRuns ? TestRunSteps.Find(asset, cells) : [];
        Add(Find(asset, reference, cells));
        if (!reported)
            Add(ImplausibleSteps.Find(asset, reference, cells));
        return steps;

        void Add(IEnumerable<SensorStep> more) =>
            steps.AddRange(more.Where(s => !steps.Any(k => k.Part == s.Part && Math.Abs(k.Day - s.Day) < NearDays)).ToList());
    }

    private static List<SensorStep> Find(Asset asset, ReferencePoint reference, CellTable cells)
    {
        var main = cells.OfReadings.Where(c => c.Workload == reference.Workload && c.Heat > 0.6).ToArray();
        return SensorJump.Told(
            asset.Parts.Count,
            (part, other) => Jumps(asset, main, part, other),
            (part, day) => Raw(main, part, day),
            sameDays: Cell.Days
        );
    }

    private static List<SensorJump> Jumps(Asset asset, Cell[] cells, int part, int other)
    {
        var apart = cells
            .Select(c => new Gap(c.Day, (c.Rise(part) - c.Rise(other)) / c.Heat, c.Settings))
            .Where(c => !double.IsNaN(c.Kelvin))
            .ToArray();
        var jumps = new List<SensorJump>();
        if (apart.Length < 2 * Window)
            return jumps;
        var noise = Robust.MadScale(apart.Skip(1).Select((c, i) => c.Kelvin - apart[i].Kelvin).ToArray()) / Math.Sqrt(2);
        var spans = new Stack<(int From, int To)>([(0, apart.Length)]);
        while (spans.TryPop(out var span) && jumps.Count < MostJumps)
            if (LargestIn(apart, span.From, span.To) is var (at, size) && Math.Abs(size) >= Math.Max(LeastJump, 5 * noise))
            {
                if (IsAbrupt(apart, at, size) && !Explained(asset, apart, at))
                    jumps.Add(new SensorJump((apart[at - 1].Day + apart[at].Day) / 2, size));
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
