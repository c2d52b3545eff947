namespace Pyrometron.Core.Statistics;

/// <summary>
/// min ½·xᵀHx − gᵀx for a small symmetric positive definite H, where some of x may not be negative. Block principal pivoting
/// (Júdice &amp; Pires 1994; Portugal, Júdice &amp; Vicente 1994): all coordinates that break a condition change sides at once,
/// and one at a time when that stops helping, which ends after finitely many steps. Keeps its scratch: one a worker.
/// A price λ on a non-negative x is g − λ.
/// </summary>
internal sealed class BoundedLeastSquares
{
    /// <summary>Blocks tried without progress before coordinates change sides one by one.</summary>
    private const int Patience = 3;

    private double[] _factor = [],
        _right = [];
    private int[] _free = [],
        _broken = [];
    private bool[] _isFree = [];

    /// <summary>
    /// Solves, starting from the coordinates that are not zero in <paramref name="x"/>, and leaves the solution there.
    /// </summary>
    /// <param name="hessian">H, row by row, n·n, symmetric positive definite.</param>
    /// <param name="gradient">g, n.</param>
    /// <param name="nonNegative">Which coordinates may not be negative, n.</param>
    /// <param name="x">Start and solution, n.</param>
    /// <param name="tolerance">A slope or a coordinate this far on the wrong side of zero counts as zero.</param>
    public void Solve(
        ReadOnlySpan<double> hessian,
        ReadOnlySpan<double> gradient,
        ReadOnlySpan<bool> nonNegative,
        Span<double> x,
        double tolerance = 1e-9
    )
    {
        var n = gradient.Length;
        if (_isFree.Length < n)
            (_factor, _right, _free, _broken, _isFree) = (new double[n * n], new double[n], new int[n], new int[n], new bool[n]);
        for (var i = 0; i < n; i++)
            _isFree[i] = !nonNegative[i] || x[i] > 0;
        var (fewest, patience) = (n + 1, Patience);
        for (var round = 0; round < 50 + 10 * n; round++)
        {
            if (!SolveFree(hessian, gradient, x))
                return;
            var broken = 0;
            for (var i = 0; i < n; i++)
                if (IsBroken(hessian, gradient, nonNegative, x, i, tolerance))
                    _broken[broken++] = i;
            if (broken == 0)
            {
                for (var i = 0; i < n; i++)
                    if (nonNegative[i] && x[i] < 0)
                        x[i] = 0;
                return;
            }
            if (broken < fewest)
                (fewest, patience) = (broken, Patience);
            else if (--patience < 0)
            {
                // Murty's rule: the last one only.
                _isFree[_broken[broken - 1]] ^= true;
                continue;
            }
            foreach (var i in _broken.AsSpan(0, broken))
                _isFree[i] ^= true;
        }
    }

    /// <summary>A free coordinate below zero, or one held at zero that the slope would draw up.</summary>
    private bool IsBroken(
        ReadOnlySpan<double> hessian,
        ReadOnlySpan<double> gradient,
        ReadOnlySpan<bool> nonNegative,
        ReadOnlySpan<double> x,
        int i,
        double tolerance
    ) =>
        nonNegative[i]
        && (
            _isFree[i]
                ? x[i] < -tolerance
                : gradient[i] - System.Numerics.Tensors.TensorPrimitives.Dot(hessian.Slice(i * x.Length, x.Length), x) > tolerance
        );

    private bool SolveFree(ReadOnlySpan<double> hessian, ReadOnlySpan<double> gradient, Span<double> x)
    {
        var (n, free) = (x.Length, 0);
        for (var i = 0; i < n; i++)
            if (_isFree[i])
                _free[free++] = i;
        for (var a = 0; a < free; a++)
        {
            var row = hessian.Slice(_free[a] * n, n);
            for (var b = 0; b <= a; b++)
                _factor[a * free + b] = row[_free[b]];
            _right[a] = gradient[_free[a]];
        }
        if (!Cholesky.Factor(_factor.AsSpan(0, free * free), free))
            return false;
        Cholesky.SolveLower(_factor, free, _right.AsSpan(0, free));
        Cholesky.SolveUpper(_factor, free, _right.AsSpan(0, free));
        x.Clear();
        for (var a = 0; a < free; a++)
            x[_free[a]] = _right[a];
        return true;
    }
}
