using System.Numerics.Tensors;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Drift;

/// <summary>
/// The equations of those unknowns that do not stand at their bound of zero, factored: H_FF = L·Lᵀ. What stands at zero is taken
/// as certain.
/// </summary>
internal sealed class FreeUnknowns
{
    private double[] _factor = [],
        _row = [];
    private int[] _columns = [];

    /// <summary>How many there are.</summary>
    public int Count { get; private set; }

    /// <summary>The column of one of them in the whole.</summary>
    public int this[int free] => _columns[free];

    /// <summary>Factors the matrix of those that are free at a solution.</summary>
    /// <param name="h">n·n, row by row.</param>
    /// <returns>Whether it was positive definite.</returns>
    public bool Factor(ReadOnlySpan<double> h, ReadOnlySpan<bool> nonNegative, ReadOnlySpan<double> x)
    {
        var n = nonNegative.Length;
        if (_columns.Length < n)
            (_columns, _factor, _row) = (new int[n], new double[n * n], new double[n]);
        Count = 0;
        for (var i = 0; i < n; i++)
            if (!nonNegative[i] || x[i] > 0)
                _columns[Count++] = i;
        for (var a = 0; a < Count; a++)
        for (var b = 0; b <= a; b++)
            _factor[a * Count + b] = h[_columns[a] * n + _columns[b]];
        return Cholesky.Factor(_factor.AsSpan(0, Count * Count), Count);
    }

    /// <summary>L⁻¹ times a vector, in place.</summary>
    public void SolveLower(Span<double> x) => Cholesky.SolveLower(_factor, Count, x);

    /// <summary>L⁻¹ times a matrix of <see cref="Count"/> rows, in place.</summary>
    public void SolveLower(Span<double> rows, int width)
    {
        for (var a = 0; a < Count; a++)
        {
            var row = rows.Slice(a * width, width);
            for (var k = 0; k < a; k++)
                TensorPrimitives.MultiplyAdd(rows.Slice(k * width, width), -_factor[a * Count + k], row, row);
            TensorPrimitives.Divide(row, _factor[a * Count + a], row);
        }
    }

    /// <summary>Standard uncertainty of a linear function of all unknowns.</summary>
    /// <param name="factors">One of each unknown, in the order of the whole.</param>
    public double Uncertainty(ReadOnlySpan<double> factors)
    {
        var row = _row.AsSpan(0, Count);
        for (var a = 0; a < Count; a++)
            row[a] = factors[_columns[a]];
        SolveLower(row);
        return Math.Sqrt(TensorPrimitives.Dot<double>(row, row));
    }
}
