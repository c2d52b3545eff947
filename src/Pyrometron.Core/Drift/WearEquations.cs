using System.Numerics.Tensors;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Drift;

/// <summary>
/// The weighted normal equations of one machine's wear model, its local air already averaged out, and room to solve them
/// in: one a worker, used for one machine after the other.
/// <code>
/// ½·βᵀHβ − (g − C·r)ᵀβ + ½·rᵀDr − dᵀr
/// </code>
/// β the model's unknowns, r what the zone's room adds by bin. The local air a ~ N(0, Q⁻¹), an Ornstein–Uhlenbeck process,
/// is integrated out exactly: with M = D + Q (tridiagonal), H ← H − C·M⁻¹·Cᵀ and likewise the rest.
/// </summary>
internal sealed partial class WearEquations
{
    private readonly LocalAir _local = new();
    private readonly WearDesign _design = new();
    private readonly FreeUnknowns _free = new();
    private readonly BoundedLeastSquares _bounded = new();
    private readonly List<int> _used = [];
    private double[] _h = [],
        _g = [],
        _c = [],
        _d = [];
    private double[] _solved = [],
        _gradient = [],
        _row = [],
        _common = [],
        _heights = [],
        _byBin = [];
    private int[] _places = [];
    private int _n,
        _bins;
    private bool _unworn;

    private void Reserve(WearModel model)
    {
        (_n, _bins) = (model.Columns.Count, model.Bins.Length);
        Grow(ref _h, _n * _n);
        Grow(ref _g, _n);
        Grow(ref _gradient, _n);
        Grow(ref _row, _n);
        Grow(ref _common, _n);
        Grow(ref _heights, _n);
        Grow(ref _c, _n * _bins);
        Grow(ref _solved, _n * _bins);
        Grow(ref _d, _bins);
        Grow(ref _byBin, _bins);
        Grow(ref _places, _bins);
    }

    private static void Grow<T>(ref T[] scratch, int length)
    {
        if (scratch.Length < length)
            scratch = new T[length];
    }

    /// <summary>The machine's unknowns with a given room.</summary>
    /// <param name="room">K by the machine's bins.</param>
    /// <param name="x">Start and solution.</param>
    public void Solve(WearModel model, ReadOnlySpan<double> room, Span<double> x)
    {
        SetGradient(model, room);
        _bounded.Solve(_h.AsSpan(0, _n * _n), _gradient.AsSpan(0, _n), model.Columns.NonNegative, x);
    }

    /// <summary>g − C·r, the prices of wear taken off.</summary>
    /// <param name="room">K by the machine's bins; empty where the room is still unknown.</param>
    private void SetGradient(WearModel model, ReadOnlySpan<double> room)
    {
        _g.AsSpan(0, _n).CopyTo(_gradient);
        model.Columns.AddPrices(_gradient.AsSpan(0, _n));
        if (!room.IsEmpty)
            for (var i = 0; i < _n; i++)
                _gradient[i] -= Dot(_c.AsSpan(i * _bins, _bins), room);
    }

    /// <summary>
    /// Adds what this machine knows of its zone's room: the normal equations with the machine's own unknowns solved for
    /// (Schur complement), those that stand at zero left there. O(bins² · unknowns).
    /// </summary>
    public void AddTo(RoomEquations zone, WearModel model, ReadOnlySpan<double> x)
    {
        SetGradient(model, room: []);
        if (!_free.Factor(_h.AsSpan(0, _n * _n), model.Columns.NonNegative, x))
            return;
        // L⁻¹·C and L⁻¹·g of the free unknowns: all products follow from them.
        for (var a = 0; a < _free.Count; a++)
        {
            _row[a] = _gradient[_free[a]];
            _c.AsSpan(_free[a] * _bins, _bins).CopyTo(_solved.AsSpan(a * _bins, _bins));
        }
        _free.SolveLower(_row.AsSpan(0, _free.Count));
        _free.SolveLower(_solved.AsSpan(0, _free.Count * _bins), _bins);
        zone.Place(model.Bins, _places.AsSpan(0, _bins));
        var weights = _local.Weights;
        var column = _byBin.AsSpan(0, _bins);
        for (var b = 0; b < _bins; b++)
        {
            if (_places[b] < 0)
                continue;
            // D − D·M⁻¹·D, column by column; d likewise.
            column.Clear();
            column[b] = weights[b];
            _local.Solve(column);
            var right = _d[b] - Dot(column, _d.AsSpan(0, _bins));
            TensorPrimitives.Multiply(column, weights, column);
            TensorPrimitives.Negate<double>(column, column);
            column[b] += weights[b];
            var lower = column[..(b + 1)];
            for (var a = 0; a < _free.Count; a++)
            {
                var known = _solved[a * _bins + b];
                right -= known * _row[a];
                TensorPrimitives.MultiplyAdd(_solved.AsSpan(a * _bins, b + 1), -known, lower, lower);
            }
            zone.Add(_places[b], _places.AsSpan(0, b + 1), lower, right);
        }
    }

    /// <summary>Standard uncertainties of linear functions of the unknowns, those at zero taken as certain.</summary>
    /// <param name="functions">The factors of the unknowns, one array a function.</param>
    public double[] Uncertainty(WearModel model, ReadOnlySpan<double> x, double[][] functions)
    {
        var known = _free.Factor(_h.AsSpan(0, _n * _n), model.Columns.NonNegative, x);
        var sigma = new double[functions.Length];
        for (var f = 0; f < functions.Length; f++)
            sigma[f] = known ? _free.Uncertainty(functions[f]) : double.PositiveInfinity;
        return sigma;
    }

    /// <summary>
    /// Standard deviations of linear functions of the unknowns as the readings' scatter shakes them: see
    /// <see cref="BoundedBootstrap"/>.
    /// </summary>
    /// <param name="x">The solution with the room that is in force.</param>
    /// <param name="room">K by the machine's bins.</param>
    /// <param name="functions">The factors of the unknowns, one array a function.</param>
    public double[] Bootstrap(
        WearModel model,
        ReadOnlySpan<double> x,
        ReadOnlySpan<double> room,
        double[][] functions,
        int draws,
        Random random
    )
    {
        SetGradient(model, room);
        var bootstrap = new BoundedBootstrap(_h.AsSpan(0, _n * _n), _gradient.AsSpan(0, _n), model.Columns.NonNegative);
        return bootstrap.Deviations(x, functions, draws, random);
    }

    /// <summary>
    /// What the model of the machine assembled last leaves: measured less predicted rise, less room and the local air that the
    /// rest tells of, K. NaN where not measured.
    /// </summary>
    /// <param name="room">K by the machine's bins.</param>
    /// <param name="left">By cell and part.</param>
    public void Residuals(WearModel model, ReadOnlySpan<double> x, ReadOnlySpan<double> room, Span<double> left)
    {
        var parts = model.Cells.Parts;
        var local = _byBin.AsSpan(0, _bins);
        local.Clear();
        for (var cell = 0; cell < model.Cells.Count; cell++)
        {
            var (bin, feelsZone) = (model.BinOf(cell), model.FeelsZone(cell));
            double weightSum = 0,
                sum = 0;
            for (var p = 0; p < parts; p++)
            {
                ref var residual = ref left[cell * parts + p];
                residual = model.Cells[cell].Rise(p) - (feelsZone ? room[bin] : 0) - _design[cell * parts + p].Times(x);
                if (double.IsNaN(residual))
                    continue;
                weightSum += model.Weight(cell, p);
                sum += model.Weight(cell, p) * residual;
            }
            if (feelsZone)
                local[bin] += sum / (1 + model.CommonVariance(cell) * weightSum);
        }
        // Under the weights it was assembled with, so the local air's precision stands as it was factored then.
        _local.Solve(local);
        for (var i = 0; i < left.Length; i++)
            if (model.FeelsZone(i / parts))
                left[i] -= local[model.BinOf(i / parts)];
    }

    private static double Dot(ReadOnlySpan<double> a, ReadOnlySpan<double> b) => TensorPrimitives.Dot(a, b);
}
