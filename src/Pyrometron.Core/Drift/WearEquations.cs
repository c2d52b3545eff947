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
    private readonly Tridiagonal _local = new();
    private readonly BoundedLeastSquares _bounded = new();
    private double[] _h = [], _factor = [];
    private double[] _c = [], _solved = [];
    private double[] _g = [], _gradient = [], _row = [], _common = [];
    private double[] _d = [], _weights = [], _diagonal = [], _off = [], _column = [];
    private int[] _nonzero = [], _active = [], _places = [];
    private int _n, _bins, _actives;

    /// <summary>Sums up a machine's cells under its present weights.</summary>
    public void Assemble(WearModel model)
    {
        Reserve(model);
        Array.Clear(_h, 0, _n * _n);
        Array.Clear(_c, 0, _n * _bins);
        Array.Clear(_g, 0, _n);
        Array.Clear(_d, 0, _bins);
        Array.Clear(_weights, 0, _bins);
        for (var cell = 0; cell < model.Cells.Count; cell++)
            Add(model, cell);
        AverageLocalAirOut(model);
        model.Columns.AddPriors(_h.AsSpan(0, _n * _n), _g.AsSpan(0, _n));
    }

    private void Reserve(WearModel model)
    {
        (_n, _bins) = (model.Columns.Count, model.Bins.Length);
        if (_h.Length < _n * _n)
            (_h, _factor) = (new double[_n * _n], new double[_n * _n]);
        if (_c.Length < _n * _bins)
            (_c, _solved) = (new double[_n * _bins], new double[_n * _bins]);
        if (_g.Length < _n)
            (_g, _gradient, _row, _common, _nonzero, _active) = (new double[_n], new double[_n], new double[_n], new double[_n], new int[_n], new int[_n]);
        if (_d.Length < _bins)
            (_d, _weights, _diagonal, _off, _column, _places) = (new double[_bins], new double[_bins], new double[_bins], new double[_bins], new double[_bins], new int[_bins]);
    }

    private void Add(WearModel model, int index)
    {
        var cell = model.Cells[index];
        var bin = model.BinOf(index);
        double weightSum = 0, ySum = 0;
        Array.Clear(_common, 0, _n);
        for (var p = 0; p < model.Cells.Parts; p++)
        {
            var y = cell.Rise(p);
            if (double.IsNaN(y))
                continue;
            var weight = model.Weight(index, p);
            var nonzero = Fill(model, cell, p);
            for (var a = 0; a < nonzero; a++)
            {
                var i = _nonzero[a];
                var wi = weight * _row[a];
                _common[i] += wi;
                _g[i] += wi * y;
                for (var b = a; b < nonzero; b++)
                    _h[i * _n + _nonzero[b]] += wi * _row[b];
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
            _c[i * _bins + bin] += left * _common[i];
            var rest = _h.AsSpan(i * _n + i, _n - i);
            TensorPrimitives.MultiplyAdd(_common.AsSpan(i, _n - i), -shrink * _common[i], rest, rest);
        }
        _weights[bin] += left * weightSum;
        _d[bin] += left * ySum;
    }

    /// <summary>The entries of a part's row that are not zero, with their columns.</summary>
    private int Fill(WearModel model, Cell cell, int part)
    {
        var nonzero = 0;
        foreach (var i in model.Columns.Of(part))
            if (model.Columns.Entry(i, cell, part, model.AirShare[part]) is var entry && entry != 0)
                (_nonzero[nonzero], _row[nonzero++]) = (i, entry);
        return nonzero;
    }

    private void AverageLocalAirOut(WearModel model)
    {
        FactorLocalAir(model);
        for (var i = 0; i < _n; i++)
        {
            var solved = _solved.AsSpan(i * _bins, _bins);
            _c.AsSpan(i * _bins, _bins).CopyTo(solved);
            _local.Solve(solved);
        }
        for (var i = 0; i < _n; i++)
        {
            var solved = _solved.AsSpan(i * _bins, _bins);
            for (var j = i; j < _n; j++)
                _h[j * _n + i] = _h[i * _n + j] -= Dot(solved, _c.AsSpan(j * _bins, _bins));
            _g[i] -= Dot(solved, _d.AsSpan(0, _bins));
        }
        for (var i = 0; i < _n; i++)
            for (var b = 0; b < _bins; b++)
                _c[i * _bins + b] -= _solved[i * _bins + b] * _weights[b];
    }

    /// <summary>M = D + Q; the process's precision Q is tridiagonal at the bins, since only neighbours know of each other.</summary>
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

    /// <summary>Variance of a linear function of the unknowns, those at zero taken as certain.</summary>
    public double VarianceOf(WearModel model, ReadOnlySpan<double> x, ReadOnlySpan<double> factors)
    {
        if (!FactorActive(model, x))
            return double.PositiveInfinity;
        for (var a = 0; a < _actives; a++)
            _row[a] = factors[_active[a]];
        Cholesky.SolveLower(_factor, _actives, _row.AsSpan(0, _actives));
        return Dot(_row.AsSpan(0, _actives), _row.AsSpan(0, _actives));
    }

    /// <summary>The local air that the residuals tell of, K by bin.</summary>
    /// <param name="room">K by the machine's bins.</param>
    public void LocalAir(WearModel model, ReadOnlySpan<double> room, Span<double> local)
    {
        Reserve(model);
        local.Clear();
        Array.Clear(_weights, 0, _bins);
        for (var cell = 0; cell < model.Cells.Count; cell++)
        {
            double weightSum = 0, sum = 0;
            for (var p = 0; p < model.Cells.Parts; p++)
                if (model.Residual(cell, p) - room[model.BinOf(cell)] is var residual && !double.IsNaN(residual))
                {
                    weightSum += model.Weight(cell, p);
                    sum += model.Weight(cell, p) * residual;
                }
            var left = 1 / (1 + model.CommonVariance(cell) * weightSum);
            local[model.BinOf(cell)] += left * sum;
            _weights[model.BinOf(cell)] += left * weightSum;
        }
        FactorLocalAir(model);
        _local.Solve(local);
    }

    private static double Dot(ReadOnlySpan<double> a, ReadOnlySpan<double> b) => TensorPrimitives.Dot(a, b);
}
