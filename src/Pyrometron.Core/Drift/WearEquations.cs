using System.Numerics.Tensors;
using System.Runtime.InteropServices;
using MathNet.Numerics.Statistics;
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
    private readonly Tridiagonal _local = new();
    private readonly BoundedLeastSquares _bounded = new();
    private double[] _h = [],
        _factor = [];
    private double[] _c = [],
        _solved = [];
    private double[] _g = [],
        _gradient = [],
        _row = [],
        _common = [],
        _heights = [];
    private double[] _d = [],
        _weights = [],
        _diagonal = [],
        _off = [],
        _column = [];
    private int[] _active = [],
        _places = [];
    private int _n,
        _bins,
        _actives;
    private bool _unworn;

    /// <summary>The design of the machine assembled last, without its zeros: entries and their columns, row by row.</summary>
    private readonly List<double> _entries = [];
    private readonly List<int> _columns = [];
    private readonly List<int> _rowEnds = [];
    private readonly List<int> _used = [];

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
        Array.Clear(_weights, 0, _bins);
        _entries.Clear();
        _columns.Clear();
        _rowEnds.Clear();
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
        if (_h.Length < _n * _n)
            (_h, _factor) = (new double[_n * _n], new double[_n * _n]);
        if (_c.Length < _n * _bins)
            (_c, _solved) = (new double[_n * _bins], new double[_n * _bins]);
        if (_g.Length < _n)
            (_g, _gradient, _row, _common, _heights, _active) = (
                new double[_n],
                new double[_n],
                new double[_n],
                new double[_n],
                new double[_n],
                new int[_n]
            );
        if (_d.Length < _bins)
            (_d, _weights, _diagonal, _off, _column, _places) = (
                new double[_bins],
                new double[_bins],
                new double[_bins],
                new double[_bins],
                new double[_bins],
                new int[_bins]
            );
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
            var start = KeepRow(model, cell, p, measured: !double.IsNaN(y));
            if (double.IsNaN(y))
                continue;
            var entries = CollectionsMarshal.AsSpan(_entries)[start..];
            var columns = CollectionsMarshal.AsSpan(_columns)[start..];
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
        _weights[bin] += left * weightSum;
        _d[bin] += left * ySum;
    }

    /// <summary>Makes and keeps a row of the design: the entries that are not zero, with their columns.</summary>
    /// <returns>Where it begins.</returns>
    private int KeepRow(WearModel model, Cell cell, int part, bool measured)
    {
        var (start, share) = (_entries.Count, model.AirShare[part]);
        if (measured)
            foreach (var i in model.Columns.Of(part))
                if (
                    !(_unworn && model.Columns.NonNegative[i])
                    && model.Columns.Entry(i, _heights[i], cell, part, share) is var entry
                    && entry != 0
                )
                {
                    _entries.Add(entry);
                    _columns.Add(i);
                }
        _rowEnds.Add(_entries.Count);
        return start;
    }

    private void AverageLocalAirOut(WearModel model)
    {
        FactorLocalAir(model);
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
                _c[i * _bins + b] -= _solved[i * _bins + b] * _weights[b];
    }

    /// <summary>
    /// M = D + Q; the process's precision Q is tridiagonal at the bins, since only neighbours know of each other.
    /// </summary>
    private void FactorLocalAir(WearModel model)
    {
        var precision = 1 / (model.Noise.LocalAir * model.Noise.LocalAir);
        Array.Fill(_diagonal, precision, 0, _bins);
        for (var b = 0; b + 1 < _bins; b++)
        {
            var rho = Math.Exp(-(model.Bins[b + 1] - model.Bins[b]) * Cell.Days / NoiseModel.LocalAirDays);
            var gained = precision * rho * rho / (1 - rho * rho);
            _diagonal[b] += gained;
            _diagonal[b + 1] += gained;
            _off[b] = -precision * rho / (1 - rho * rho);
        }
        TensorPrimitives.Add(_diagonal.AsSpan(0, _bins), _weights.AsSpan(0, _bins), _diagonal);
        _local.Factor(_diagonal.AsSpan(0, _bins), _off.AsSpan(0, _bins - 1));
    }

    /// <summary>The machine's unknowns with a given room.</summary>
    /// <param name="room">K by the machine's bins.</param>
    /// <param name="x">Start and solution.</param>
    public void Solve(WearModel model, ReadOnlySpan<double> room, Span<double> x)
    {
        Prices(model);
        for (var i = 0; i < _n; i++)
            _gradient[i] -= Dot(_c.AsSpan(i * _bins, _bins), room);
        _bounded.Solve(_h.AsSpan(0, _n * _n), _gradient.AsSpan(0, _n), model.Columns.NonNegative, x);
    }

    private void Prices(WearModel model)
    {
        _g.AsSpan(0, _n).CopyTo(_gradient);
        model.Columns.AddPrices(_gradient.AsSpan(0, _n));
    }

    /// <summary>
    /// Adds what this machine knows of its zone's room: the normal equations with the machine's own unknowns solved for
    /// (Schur complement), those that stand at zero left there. O(bins² · unknowns).
    /// </summary>
    public void AddTo(RoomEquations zone, WearModel model, ReadOnlySpan<double> x)
    {
        Prices(model);
        if (!FactorActive(model, x))
            return;
        // L⁻¹·C_A and L⁻¹·g_A: all products follow from them.
        for (var a = 0; a < _actives; a++)
            _row[a] = _gradient[_active[a]];
        Cholesky.SolveLower(_factor, _actives, _row.AsSpan(0, _actives));
        for (var a = 0; a < _actives; a++)
        {
            var row = _solved.AsSpan(a * _bins, _bins);
            _c.AsSpan(_active[a] * _bins, _bins).CopyTo(row);
            for (var k = 0; k < a; k++)
                TensorPrimitives.MultiplyAdd(_solved.AsSpan(k * _bins, _bins), -_factor[a * _actives + k], row, row);
            TensorPrimitives.Divide(row, _factor[a * _actives + a], row);
        }
        zone.Place(model.Bins, _places.AsSpan(0, _bins));
        var column = _column.AsSpan(0, _bins);
        for (var b = 0; b < _bins; b++)
        {
            if (_places[b] < 0)
                continue;
            // D − D·M⁻¹·D, column by column; d likewise.
            column.Clear();
            column[b] = _weights[b];
            _local.Solve(column);
            var right = _d[b] - Dot(column, _d.AsSpan(0, _bins));
            TensorPrimitives.Multiply(column, _weights.AsSpan(0, _bins), column);
            TensorPrimitives.Negate<double>(column, column);
            column[b] += _weights[b];
            for (var a = 0; a < _actives; a++)
            {
                var known = _solved[a * _bins + b];
                right -= known * _row[a];
                TensorPrimitives.MultiplyAdd(_solved.AsSpan(a * _bins, _bins), -known, column, column);
            }
            zone.Add(_places[b], _places.AsSpan(0, _bins), column, right);
        }
    }

    private bool FactorActive(WearModel model, ReadOnlySpan<double> x)
    {
        _actives = 0;
        for (var i = 0; i < _n; i++)
            if (!model.Columns.NonNegative[i] || x[i] > 0)
                _active[_actives++] = i;
        for (var a = 0; a < _actives; a++)
        for (var b = 0; b <= a; b++)
            _factor[a * _actives + b] = _h[_active[a] * _n + _active[b]];
        return Cholesky.Factor(_factor.AsSpan(0, _actives * _actives), _actives);
    }

    /// <summary>Standard uncertainties of linear functions of the unknowns, those at zero taken as certain.</summary>
    /// <param name="functions">The factors of the unknowns, one array a function.</param>
    public double[] Uncertainty(WearModel model, ReadOnlySpan<double> x, double[][] functions)
    {
        var sigma = new double[functions.Length];
        if (!FactorActive(model, x))
        {
            Array.Fill(sigma, double.PositiveInfinity);
            return sigma;
        }
        for (var f = 0; f < functions.Length; f++)
        {
            for (var a = 0; a < _actives; a++)
                _row[a] = functions[f][_active[a]];
            var solved = _row.AsSpan(0, _actives);
            Cholesky.SolveLower(_factor, _actives, solved);
            sigma[f] = Math.Sqrt(Dot(solved, solved));
        }
        return sigma;
    }

    /// <summary>
    /// A parametric bootstrap of linear functions of the unknowns: the right-hand side of the machine's equations is shaken as
    /// its readings' scatter shakes it (ε ~ N(0, H)), and each time the bounded problem is solved anew. So what stands at zero
    /// has an uncertainty too, and what one cause may take from another is in all of theirs.
    /// </summary>
    /// <param name="x">The solution with the room that is in force.</param>
    /// <param name="room">K by the machine's bins.</param>
    /// <param name="functions">The factors of the unknowns, one array a function.</param>
    /// <returns>Standard deviations, one a function.</returns>
    public double[] Bootstrap(
        WearModel model,
        ReadOnlySpan<double> x,
        ReadOnlySpan<double> room,
        double[][] functions,
        int draws,
        Random random
    )
    {
        Prices(model);
        for (var i = 0; i < _n; i++)
            _gradient[i] -= Dot(_c.AsSpan(i * _bins, _bins), room);
        var (root, shaken, drawn) = (_h.AsSpan(0, _n * _n).ToArray(), new double[_n], x.ToArray());
        var values = functions.Select(_ => new double[draws]).ToArray();
        if (!Cholesky.Factor(root, _n))
            return [.. functions.Select(_ => double.PositiveInfinity)];
        for (var d = 0; d < draws; d++)
        {
            var normal = Enumerable.Range(0, _n).Select(_ => random.Normal()).ToArray();
            for (var i = 0; i < _n; i++)
                shaken[i] = _gradient[i] + Dot(root.AsSpan(i * _n, i + 1), normal.AsSpan(0, i + 1));
            _bounded.Solve(_h.AsSpan(0, _n * _n), shaken, model.Columns.NonNegative, drawn);
            for (var f = 0; f < functions.Length; f++)
                values[f][d] = Dot(functions[f], drawn);
        }
        return [.. values.Select(ArrayStatistics.StandardDeviation)];
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
        var entries = CollectionsMarshal.AsSpan(_entries);
        var columns = CollectionsMarshal.AsSpan(_columns);
        var start = 0;
        var local = _column.AsSpan(0, _bins);
        local.Clear();
        Array.Clear(_weights, 0, _bins);
        for (var cell = 0; cell < model.Cells.Count; cell++)
        {
            var (bin, feelsZone) = (model.BinOf(cell), model.FeelsZone(cell));
            double weightSum = 0,
                sum = 0;
            for (var p = 0; p < parts; p++)
            {
                var end = _rowEnds[cell * parts + p];
                ref var residual = ref left[cell * parts + p];
                residual = model.Cells[cell].Rise(p) - (feelsZone ? room[bin] : 0);
                for (; start < end; start++)
                    residual -= entries[start] * x[columns[start]];
                if (double.IsNaN(residual))
                    continue;
                weightSum += model.Weight(cell, p);
                sum += model.Weight(cell, p) * residual;
            }
            if (!feelsZone)
                continue;
            var share = 1 / (1 + model.CommonVariance(cell) * weightSum);
            local[bin] += share * sum;
            _weights[bin] += share * weightSum;
        }
        FactorLocalAir(model);
        _local.Solve(local);
        for (var i = 0; i < left.Length; i++)
            if (model.FeelsZone(i / parts))
                left[i] -= local[model.BinOf(i / parts)];
    }

    private static double Dot(ReadOnlySpan<double> a, ReadOnlySpan<double> b) => TensorPrimitives.Dot(a, b);
}
