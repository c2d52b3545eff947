using Pyrometron.Core.Fleet;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Drift;

/// <summary>
/// How much more the readings of a machine scatter than is expected of its kind, learnt from one cell to the next of the same
/// load and settings, in which neither wear nor seasons have moved: of all machines read alike, and of each with as many
/// differences as it has (partial pooling on logarithms of variances). It widens what is stated as uncertain; the estimate itself
/// hardly asks for it.
/// </summary>
internal sealed class LearntNoise
{
    /// <summary>Cells further apart than this are not compared, days.</summary>
    private const double NearDays = 40;

    /// <summary>Fewer differences than this tell nothing of a machine, and fewer machines nothing of a group.</summary>
    private const int LeastDifferences = 6,
        LeastMachines = 4;

    /// <summary>
    /// Variance of the logarithm of a variance that is told by the median of absolute differences, times their number: 2 over its
    /// efficiency of 0.37 (Rousseeuw and Croux 1993, table 2).
    /// </summary>
    internal const double SamplingVariance = 5.4;

    /// <summary>How much machines of a group differ at the least, variance of the logarithm.</summary>
    private const double LeastSpread = 0.05;

    /// <summary>
    /// Share of the standard deviation of daily work's readings that neighbours show: the rest wanders too slowly. Chosen on
    /// invented fleets.
    /// </summary>
    private const double ShownByNeighbours = 0.75;

    private readonly Dictionary<(AssetKind, bool Rare), (double Middle, double Variance)> _groups;

    private LearntNoise(Dictionary<(AssetKind, bool), (double, double)> groups) => _groups = groups;

    /// <summary>Nothing learnt: what is expected of a kind.</summary>
    public static LearntNoise None { get; } = new([]);

    /// <summary>Learns from fitted machines.</summary>
    public static LearntNoise Of(IEnumerable<(WearModel Model, ZoneRoom Room)> machines) =>
        new(
            machines
                .GroupBy(m => (m.Model.Asset.Kind, m.Model.Noise.Rare), m => Shown(m.Model, m.Room))
                .ToDictionary(g => g.Key, g => MiddleAndVariance([.. g]))
        );

    /// <summary>Factor on a machine's standard deviations, by its group and by itself; never below 1.</summary>
    public double For(WearModel model, ZoneRoom room)
    {
        if (!_groups.TryGetValue((model.Asset.Kind, model.Noise.Rare), out var group))
            return 1;
        var (log, count) = Shown(model, room);
        var share = count < LeastDifferences ? 0 : group.Variance / (group.Variance + SamplingVariance / count);
        return Math.Max(1, Math.Exp((group.Middle + share * (log - group.Middle)) / 2));
    }

    private static (double Middle, double Variance) MiddleAndVariance((double Log, int Count)[] shown)
    {
        var known = shown.Where(s => s.Count >= LeastDifferences).ToArray();
        if (known.Length < LeastMachines)
            return (0, LeastSpread);
        double[] logs = [.. known.Select(s => s.Log)];
        return (
            Robust.Median(logs),
            Math.Max(LeastSpread, Math.Pow(Robust.MadScale(logs), 2) - known.Average(s => SamplingVariance / s.Count))
        );
    }

    /// <summary>
    /// Logarithm of observed over expected variance of what all parts of a cell share, and by how many differences it is told.
    /// </summary>
    private static (double Log, int Count) Shown(WearModel model, ZoneRoom room)
    {
        var (cells, noise, parts) = (model.Cells, model.Noise, model.Cells.Parts);
        var scaled = new List<double>();
        var last = new Dictionary<(int, int), int>();
        var residual = new double[cells.Count * parts];
        for (var c = 0; c < cells.Count; c++)
        {
            if (!model.FeelsZone(c))
                continue;
            var cell = cells[c];
            var found = residual.AsSpan(c * parts, parts);
            for (var p = 0; p < parts; p++)
                found[p] = model.Residual(c, p) - room.At(cell.Bin);
            var key = (cell.Workload, cell.Settings);
            if (last.TryGetValue(key, out var before) && cell.Day - cells[before].Day < NearDays)
            {
                double sum = 0;
                var known = 0;
                for (var p = 0; p < parts; p++)
                    if (found[p] - residual[before * parts + p] is var difference && !double.IsNaN(difference))
                        (sum, known) = (sum + difference, known + 1);
                if (known > 0)
                {
                    var rho = Math.Exp(-(cell.Day - cells[before].Day) / NoiseModel.LocalAirDays);
                    var own = noise.OwnVariance(cell.Count) + noise.OwnVariance(cells[before].Count);
                    var expected =
                        noise.CommonVariance(cell.Count)
                        + noise.CommonVariance(cells[before].Count)
                        + 2 * noise.LocalAir * noise.LocalAir * (1 - rho)
                        + own / known;
                    scaled.Add(Math.Abs(sum / known) / Math.Sqrt(expected));
                }
            }
            last[key] = c;
        }
        // About zero: what is compared has no step of its own to be taken out.
        var scale = scaled.Count == 0 ? 1 : Robust.MadToSigma * Robust.Median([.. scaled]);
        return (2 * Math.Log(Math.Max(0.1, scale) / (noise.Rare ? 1 : ShownByNeighbours)), scaled.Count);
    }
}
