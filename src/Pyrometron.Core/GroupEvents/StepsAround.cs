using Pyrometron.Core.Drift;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.GroupEvents;

/// <summary>
/// By how much one machine's parts differ between the weeks after a day and the weeks before it, under the same load and
/// settings: a short look, in which wear has hardly grown, at every bin of its history.
/// </summary>
internal sealed class StepsAround
{
    /// <summary>How far is looked to either side, days.</summary>
    public const double WindowDays = 60;

    /// <summary>Cells looked at on either side, and the fewest.</summary>
    public const int MostCells = 8,
        LeastCells = 2;

    private readonly WearModel _model;
    private readonly (int Cell, double Kelvin)[][] _groups;
    private readonly int[] _partOf;
    private readonly double[] _served;

    public StepsAround(WearModel model)
    {
        _model = model;
        _served = [.. model.Asset.Services.Select(s => s.Day)];
        var groups =
            from part in Enumerable.Range(0, model.Cells.Parts)
            from same in Enumerable
                .Range(0, model.Cells.Count)
                .Where(c => model.FeelsZone(c) && !double.IsNaN(model.Cells[c].Rise(part)))
                .GroupBy(c => (model.Cells[c].Workload, model.Cells[c].Settings))
            where same.Count() >= 2 * LeastCells
            select (Part: part, Points: same.Select(c => (c, model.Residual(c, part))).ToArray());
        var all = groups.ToArray();
        _groups = [.. all.Select(g => g.Points)];
        _partOf = [.. all.Select(g => g.Part)];
    }

    /// <summary>The machine.</summary>
    public WearModel Model => _model;

    /// <summary>A part's step under one load and settings.</summary>
    /// <param name="Heat">Heat of the cooler there, relative to the reference point, air side and fan reckoned in.</param>
    /// <param name="Variance">Of the step, K², by the scatter around it.</param>
    public readonly record struct Step(int Part, double Kelvin, double Heat, double Variance);

    /// <summary>The steps at a day; none where a service or too few readings stand near it.</summary>
    /// <param name="most">Cells looked at on either side: few of them tell the day, many the size.</param>
    public List<Step> At(double day, int most = MostCells)
    {
        var steps = new List<Step>();
        if (_served.Any(s => Math.Abs(s - day) < WindowDays / 2))
            return steps;
        for (var g = 0; g < _groups.Length; g++)
        {
            var points = _groups[g];
            var split = Array.FindIndex(points, p => _model.Cells[p.Cell].Day >= day);
            if (split < LeastCells)
                continue;
            var before = Near(points.AsSpan(Math.Max(0, split - most)..split), day);
            var after = Near(points.AsSpan(split..Math.Min(points.Length, split + most)), day);
            if (before.Length < LeastCells || after.Length < LeastCells)
                continue;
            var cell = _model.Cells[points[split].Cell];
            steps.Add(
                new Step(
                    _partOf[g],
                    Robust.Median(after) - Robust.Median(before),
                    cell.AirHeat(_partOf[g]) * (1 + cell.Flow) * _model.AirShare[_partOf[g]],
                    VarianceOf(before) + VarianceOf(after)
                )
            );
        }
        return steps;
    }

    private double[] Near(ReadOnlySpan<(int Cell, double Kelvin)> points, double day)
    {
        var near = new List<double>(points.Length);
        foreach (var (cell, kelvin) in points)
            if (Math.Abs(_model.Cells[cell].Day - day) <= WindowDays)
                near.Add(kelvin);
        return [.. near];
    }

    /// <summary>Variance of a median of few cells, by the noise expected of them: π/2 of the mean's.</summary>
    private double VarianceOf(double[] cells) =>
        Math.PI / 2 * (_model.Noise.CommonVariance(1) + _model.Noise.LocalAir * _model.Noise.LocalAir) / cells.Length;
}
