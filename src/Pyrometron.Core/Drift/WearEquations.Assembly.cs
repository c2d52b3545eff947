using System.Numerics.Tensors;

namespace Pyrometron.Core.Drift;

// How a machine's cells, looks and priors are summed up, and its local air averaged out.
internal sealed partial class WearEquations
{
    /// <summary>Sums up a machine's cells under its present weights.</summary>
    /// <param name="x">The unknowns as they stand.</param>
    /// <param name="unworn">Whether wear is left out: a first look, at a third of the cost.</param>
    /// <param name="until">The last bin that counts.</param>
    public void Assemble(WearModel model, ReadOnlySpan<double> x, bool unworn, int until)
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
            var counts = model.Cells[cell].Bin <= until;
            Add(model, cell, counts);
            if (counts)
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

    private void Add(WearModel model, int index, bool counts)
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
            if (double.IsNaN(y) || !counts)
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
}
