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
internal sealed class WearEquations
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

    /// <summary>Sums up a machine's cells under its present weights.</summary>
    /// <param name="x">The unknowns as they stand.</param>
    /// <param name="unworn">Whether wear is left out: a first look, at a third of the cost.</param>
    public void Assemble(WearModel model, ReadOnlySpan<double> x, bool unworn)
    {
        Reserve(model);
        _unworn = unworn;
        Array.Clear(_h, 0, _n * _n);
        Array.Clear(_c, 0, _n * _bins);
        Array.Clear(_g, 0, _n);
        Array.Clear(_d, 0, _bins);
        _local.Clear(_bins);
        _design.Clear();
        for (var cell = 0; cell < model.Cells.Count; cell++)
        {
            model.Columns.Heights(model.Cells[cell].Day, _heights.AsSpan(0, _n));
            Add(model, cell);
            AddFanAnswer(model, cell, x);
        }
        AverageLocalAirOut(model);
        model.Columns.AddPriors(_h.AsSpan(0, _n * _n), _g.AsSpan(0, _n));
        if (!unworn)
            foreach (var look in model.CleanLooks)
                AddLook(model.FactorsOf(look), look.SigmaKelvin);
    }

    /// <summary>Wear that was seen to be nothing, give or take: a measured zero of a linear function of the unknowns.</summary>
    private void AddLook(double[] factors, double sigma)
    {
        var precision = 1 / (sigma * sigma);
        for (var i = 0; i < _n; i++)
            if (factors[i] != 0)
                for (var j = 0; j < _n; j++)
                    _h[i * _n + j] += precision * factors[i] * factors[j];
    }

    /// <summary>−ln(1 + κ·q·(F + S)) of a cell that a fan answered to, to the second order about the present air side.</summary>
    private void AddFanAnswer(WearModel model, int cell, ReadOnlySpan<double> x)
    {
        if (model.FanAnswer(cell) is var answer && answer == 0)
            return;
        var present = 0.0;
        _used.Clear();
        foreach (var i in model.Columns.AirSide)
            if (!(_unworn && model.Columns.NonNegative[i]) && _heights[i] > 0)
            {
                _used.Add(i);
                present += _heights[i] * x[i];
            }
        var pull = answer / (1 + answer * Math.Max(0, present));
        foreach (var i in _used)
        {
            _g[i] += _heights[i] * pull * (1 + pull * Math.Max(0, present));
            // The upper triangle, as all of H until it is mirrored.
            foreach (var j in _used)
                if (j >= i)
                    _h[i * _n + j] += _heights[i] * _heights[j] * pull * pull;
        }
    }

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

    private void Add(WearModel model, int index)
    {
        var cell = model.Cells[index];
        var (bin, feelsZone) = (model.BinOf(index), model.FeelsZone(index));
        double weightSum = 0,
            ySum = 0;
        Array.Clear(_common, 0, _n);
        for (var p = 0; p < model.Cells.Parts; p++)
        {
            var y = cell.Rise(p);
            KeepRow(model, cell, p, measured: !double.IsNaN(y));
            if (double.IsNaN(y))
                continue;
            var kept = _design[index * model.Cells.Parts + p];
            var entries = kept.Entries;
            var columns = kept.Columns;
            var weight = model.Weight(index, p);
            for (var a = 0; a < entries.Length; a++)
            {
                var i = columns[a];
                var wi = weight * entries[a];
                _common[i] += wi;
                _g[i] += wi * y;
                var row = _h.AsSpan(i * _n, _n);
                for (var b = a; b < entries.Length; b++)
                    row[columns[b]] += wi * entries[b];
            }
            weightSum += weight;
            ySum += weight * y;
        }
        if (weightSum == 0)
            return;
        // What all parts of a reading share takes its share of the weight from their sum, not from their differences.
        var variance = model.CommonVariance(index);
        var (shrink, left) = (variance / (1 + variance * weightSum), 1 / (1 + variance * weightSum));
        for (var i = 0; i < _n; i++)
        {
            if (_common[i] == 0)
                continue;
            _g[i] -= shrink * _common[i] * ySum;
            if (feelsZone)
                _c[i * _bins + bin] += left * _common[i];
            var rest = _h.AsSpan(i * _n + i, _n - i);
            TensorPrimitives.MultiplyAdd(_common.AsSpan(i, _n - i), -shrink * _common[i], rest, rest);
        }
        if (!feelsZone)
            return;
        _local.Weights[bin] += left * weightSum;
        _d[bin] += left * ySum;
    }

    /// <summary>Makes and keeps a row of the design: the entries that are not zero.</summary>
    private void KeepRow(WearModel model, Cell cell, int part, bool measured)
    {
        var share = model.AirShare[part];
        if (measured)
            foreach (var i in model.Columns.Of(part))
                if (
                    !(_unworn && model.Columns.NonNegative[i])
                    && model.Columns.Entry(i, _heights[i], cell, part, share) is var entry
                    && entry != 0
                )
                    _design.Add(i, entry);
        _design.End();
    }

    /// <summary>H ← H − C·M⁻¹·Cᵀ and likewise the rest, both triangles of H filled.</summary>
    private void AverageLocalAirOut(WearModel model)
    {
        _local.Factor(model);
        _used.Clear();
        for (var i = 0; i < _n; i++)
            if (!(_unworn && model.Columns.NonNegative[i]))
                _used.Add(i);
        foreach (var i in _used)
        {
            var solved = _solved.AsSpan(i * _bins, _bins);
            _c.AsSpan(i * _bins, _bins).CopyTo(solved);
            _local.Solve(solved);
        }
        foreach (var i in _used)
        {
            var solved = _solved.AsSpan(i * _bins, _bins);
            foreach (var j in _used)
                if (j >= i)
                    _h[j * _n + i] = _h[i * _n + j] -= Dot(solved, _c.AsSpan(j * _bins, _bins));
            _g[i] -= Dot(solved, _d.AsSpan(0, _bins));
        }
        foreach (var i in _used)
            for (var b = 0; b < _bins; b++)
                _c[i * _bins + b] -= _solved[i * _bins + b] * _local.Weights[b];
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
