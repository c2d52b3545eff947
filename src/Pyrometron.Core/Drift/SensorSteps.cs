using Pyrometron.Core.Fleet;
using Pyrometron.Core.Statistics;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Drift;

/// <summary>Finds sensors whose offset jumped: one part alone, from one cell to the next, with no service and no change of settings to explain it.</summary>
public static class SensorSteps
{
    private const int Window = 5;
    private const double LeastJump = 3.5;

    /// <summary>At most one step a part. O(cells × parts).</summary>
    public static List<SensorStep> Find(Asset asset, ReferencePoint reference, IReadOnlyList<Cell> cells)
    {
        var steps = new List<SensorStep>();
        if (asset.Parts.Count < 2)
            return steps;
        var main = cells.Where(c => c.Workload == reference.Workload && c.Heat > 0.6).ToArray();
        for (var p = 0; p < asset.Parts.Count; p++)
            if (StepOf(asset, main, p) is { } step)
                steps.Add(step);
        return steps;
    }

    private static SensorStep? StepOf(Asset asset, Cell[] cells, int part)
    {
        var alone = cells.Select(c => (c.Day, Value: Alone(c, part), c.Settings)).Where(c => !double.IsNaN(c.Value)).ToArray();
        if (alone.Length < 2 * Window)
            return null;
        var noise = Robust.MadScale(alone.Skip(1).Select((c, i) => c.Value - alone[i].Value).ToArray()) / Math.Sqrt(2);
        (double Jump, int At) best = (0, 0);
        for (var k = Window; k <= alone.Length - Window; k++)
        {
            var jump = Middle(alone, k, k + Window) - Middle(alone, k - Window, k);
            if (Math.Abs(jump) > Math.Abs(best.Jump))
                best = (jump, k);
        }
        var (size, at) = best;
        if (at == 0)
            return null;
        var abrupt = Math.Abs(Middle(alone, at, at + 2) - Middle(alone, at - 2, at));
        var explained = alone[at].Settings != alone[at - 1].Settings
            || asset.Services.Any(s => UnixDay.Noon(s.Date) > alone[at - 1].Day - 6 && UnixDay.Noon(s.Date) < alone[at].Day + 6);
        return Math.Abs(size) >= Math.Max(LeastJump, 5 * noise) && abrupt > 0.8 * Math.Abs(size) && !explained
            ? new SensorStep(part, (alone[at - 1].Day + alone[at].Day) / 2)
            : null;
    }

    private static double Middle((double Day, double Value, int Settings)[] series, int from, int to) =>
        Robust.Median(series[from..to].Select(s => s.Value).ToArray());

    private static double Alone(Cell cell, int part)
    {
        var others = Enumerable.Range(0, cell.Rise.Length).Where(p => p != part && !double.IsNaN(cell.Rise[p])).Select(p => cell.Rise[p]).ToArray();
        return others.Length == 0 ? double.NaN : (cell.Rise[part] - others.Average()) / cell.Heat;
    }
}
