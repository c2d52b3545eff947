using Pyrometron.Core.Drift;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.GroupEvents;

/// <summary>
/// By how much one machine as a whole reads differently in the weeks after a day and in the weeks before it: a short look, in
/// which wear has hardly grown, at every bin of its history. The median over parts, loads and settings, each compared with
/// itself.
/// </summary>
internal sealed class StepsAround
{
    /// <summary>How far is looked to either side, days.</summary>
    public const double WindowDays = 60;

    /// <summary>Cells looked at on either side, and the fewest.</summary>
    public const int MostCells = 8,
        LeastCells = 2;

    private readonly double[][] _days,
        _kelvins;
    private readonly double[] _served;
    private readonly double _cellVariance;
    private readonly int _firstBin;
    private readonly Step?[] _byBin;

    /// <param name="Variance">Of the step, K², by the noise expected of the machine.</param>
    public readonly record struct Step(double Kelvin, double Variance);

    /// <summary>Looks at all bins of a machine that has not been fitted yet. O(cells).</summary>
    public StepsAround(WearModel model)
    {
        (Tag, Model, Zone) = (model.Asset.Tag, model.Asset.Model, model.Asset.Zone);
        _served = [.. model.Asset.Services.Select(s => s.Day)];
        _cellVariance = model.Noise.CommonVariance(1) + model.Noise.LocalAir * model.Noise.LocalAir;
        var groups = (
            from part in Enumerable.Range(0, model.Cells.Parts)
            from same in Enumerable
                .Range(0, model.Cells.Count)
                .Where(c => model.FeelsZone(c) && !double.IsNaN(model.Cells[c].Rise(part)))
                .GroupBy(c => (model.Cells[c].Workload, model.Cells[c].Settings))
            where same.Count() >= 2 * LeastCells
            select (
                Days: same.Select(c => model.Cells[c].Day).ToArray(),
                Kelvins: same.Select(c => model.Residual(c, part)).ToArray()
            )
        ).ToArray();
        (_days, _kelvins) = ([.. groups.Select(g => g.Days)], [.. groups.Select(g => g.Kelvins)]);
        _firstBin = model.Bins[0];
        _byBin = new Step?[model.Bins[^1] - _firstBin + 1];
        for (var b = 0; b < _byBin.Length; b++)
            _byBin[b] = At((_firstBin + b) * Cell.Days, MostCells);
    }

    /// <summary>The machine, its model and its zone.</summary>
    public string Tag { get; }

    /// <inheritdoc cref="Tag"/>
    public string Model { get; }

    /// <inheritdoc cref="Tag"/>
    public string Zone { get; }

    /// <summary>The bins between its first and its last cell.</summary>
    public IEnumerable<int> Bins => Enumerable.Range(_firstBin, _byBin.Length);

    /// <summary>The step at the beginning of a bin; null where a service or too few readings stand near it.</summary>
    public Step? At(int bin) => bin < _firstBin || bin >= _firstBin + _byBin.Length ? null : _byBin[bin - _firstBin];

    /// <summary>The same on a day, by some cells on either side: few of them tell the day, many the size.</summary>
    public Step? At(double day, int most)
    {
        foreach (var served in _served)
            if (Math.Abs(served - day) < WindowDays / 2)
                return null;
        Span<double> steps = stackalloc double[Math.Min(_days.Length, 64)];
        var (count, variance) = (0, double.PositiveInfinity);
        for (var g = 0; g < steps.Length; g++)
        {
            var (days, kelvins) = (_days[g], _kelvins[g]);
            var split = Array.BinarySearch(days, day) is var found && found < 0 ? ~found : found;
            var (from, to) = (Math.Max(0, split - most), Math.Min(days.Length, split + most));
            while (from < split && days[from] < day - WindowDays)
                from++;
            while (to > split && days[to - 1] > day + WindowDays)
                to--;
            if (split - from < LeastCells || to - split < LeastCells)
                continue;
            steps[count++] = MedianOf(kelvins, split, to) - MedianOf(kelvins, from, split);
            // π/2: a median's variance over a mean's.
            variance = Math.Min(variance, Math.PI / 2 * _cellVariance * (1.0 / (split - from) + 1.0 / (to - split)));
        }
        return count == 0 ? null : new Step(Robust.MedianInPlace(steps[..count]), variance);
    }

    private static double MedianOf(double[] kelvins, int from, int to)
    {
        Span<double> near = stackalloc double[MostCells];
        kelvins.AsSpan(from..to).CopyTo(near);
        return Robust.MedianInPlace(near[..(to - from)]);
    }
}
