using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Drift;

/// <summary>
/// The usual rise of each part under each load. More heat by other settings adds to each in proportion to it: to a part that the
/// load leaves idle as much as the warmer cooler does, to one that works its joint's share as well.
/// </summary>
internal sealed class LoadLevels
{
    private readonly double[][] _byLoad;

    private LoadLevels(double[][] byLoad) => _byLoad = byLoad;

    /// <summary>Medians of a machine's cells.</summary>
    /// <param name="levels">Usual rise of each part under the main load, K: where one is not known under another.</param>
    public static LoadLevels Of(CellTable cells, double[] levels)
    {
        var loads = cells.All.Select(c => c.Workload).DefaultIfEmpty(-1).Max() + 2;
        var rises = new List<double>[loads, levels.Length];
        foreach (var cell in cells.All)
            for (var p = 0; p < levels.Length; p++)
                if (!double.IsNaN(cell.Rise(p)))
                    (rises[cell.Workload + 1, p] ??= []).Add(cell.Rise(p));
        return new LoadLevels([
            .. Enumerable
                .Range(0, loads)
                .Select(w => levels.Select((level, p) => rises[w, p] is { } known ? Robust.Median([.. known]) : level).ToArray()),
        ]);
    }

    /// <summary>Usual rise of a part under a load, K.</summary>
    public double Of(int workload, int part) => _byLoad[workload + 1][part];
}
