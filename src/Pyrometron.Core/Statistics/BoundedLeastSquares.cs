namespace Pyrometron.Core.Statistics;

/// <summary>
/// min ½·xᵀHx − gᵀx for a small symmetric positive definite H, where some of x may not be negative, by cyclic coordinate
/// descent: each step solves one coordinate exactly and cuts it off at zero, which converges for a convex problem
/// (Bertsekas 1999, 2.7). A penalty λ·x on a non-negative x (the lasso, Tibshirani 1996) is g − λ.
/// </summary>
public static class BoundedLeastSquares
{
    /// <summary>Solves, starting from <paramref name="x"/> and leaving the solution there.</summary>
    /// <param name="hessian">H, row by row, n·n, with a positive diagonal.</param>
    /// <param name="gradient">g, n.</param>
    /// <param name="nonNegative">Which coordinates may not be negative, n.</param>
    /// <param name="x">Start and solution, n.</param>
    /// <param name="tolerance">Largest change of a coordinate in one sweep at which to stop.</param>
    /// <param name="mostSweeps">Sweeps after which to stop all the same.</param>
    public static void Solve(ReadOnlySpan<double> hessian, ReadOnlySpan<double> gradient, ReadOnlySpan<bool> nonNegative, Span<double> x,
        double tolerance = 1e-4, int mostSweeps = 400)
    {
        var n = gradient.Length;
        for (var sweep = 0; sweep < mostSweeps; sweep++)
        {
            var moved = 0.0;
            for (var i = 0; i < n; i++)
            {
                var row = hessian.Slice(i * n, n);
                var next = x[i] + (gradient[i] - System.Numerics.Tensors.TensorPrimitives.Dot<double>(row, x)) / row[i];
                if (nonNegative[i] && next < 0)
                    next = 0;
                moved = Math.Max(moved, Math.Abs(next - x[i]));
                x[i] = next;
            }
            if (moved < tolerance)
                return;
        }
    }
}
