namespace Pyrometron.Core.Statistics;

/// <summary>
/// A symmetric positive definite tridiagonal matrix, factored as L·D·Lᵀ (Golub &amp; Van Loan 2013, 4.3.6). O(n) to factor,
/// O(n) a solution.
/// </summary>
internal sealed class Tridiagonal
{
    private double[] _pivot = [],
        _lower = [];

    /// <summary>Order of the matrix factored last.</summary>
    public int Count { get; private set; }

    /// <summary>Factors a matrix; the arrays given are left alone.</summary>
    /// <param name="diagonal">n values.</param>
    /// <param name="off">n − 1 values beside it.</param>
    public void Factor(ReadOnlySpan<double> diagonal, ReadOnlySpan<double> off)
    {
        Count = diagonal.Length;
        if (_pivot.Length < Count)
            (_pivot, _lower) = (new double[Count], new double[Count]);
        for (var i = 0; i < Count; i++)
        {
            _pivot[i] = diagonal[i] - (i > 0 ? _lower[i - 1] * off[i - 1] : 0);
            if (i + 1 < Count)
                _lower[i] = off[i] / _pivot[i];
        }
    }

    /// <summary>Solves in place: <paramref name="x"/> is the right side before and the solution after.</summary>
    public void Solve(Span<double> x)
    {
        for (var i = 1; i < Count; i++)
            x[i] -= _lower[i - 1] * x[i - 1];
        for (var i = Count - 1; i >= 0; i--)
            x[i] = x[i] / _pivot[i] - (i + 1 < Count ? _lower[i] * x[i + 1] : 0);
    }
}
