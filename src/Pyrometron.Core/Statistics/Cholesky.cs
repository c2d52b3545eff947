namespace Pyrometron.Core.Statistics;

/// <summary>
/// Cholesky factorisation of a small symmetric positive definite matrix in place (Golub &amp; Van Loan 2013, 4.2), without
/// allocation: it stands in the judgement's innermost loop. O(n³/3) to factor, O(n²) a solution.
/// </summary>
internal static class Cholesky
{
    /// <summary>Puts L with A = L·Lᵀ into the lower triangle.</summary>
    /// <param name="a">Row by row, n·n; only the lower triangle is read.</param>
    /// <returns>Whether the matrix was positive definite.</returns>
    public static bool Factor(Span<double> a, int n)
    {
        for (var i = 0; i < n; i++)
        {
            var row = a.Slice(i * n, i + 1);
            for (var j = 0; j <= i; j++)
            {
                var sum = row[j] - System.Numerics.Tensors.TensorPrimitives.Dot<double>(row[..j], a.Slice(j * n, j));
                if (j < i)
                    row[j] = sum / a[j * n + j];
                else if (sum > 0)
                    row[i] = Math.Sqrt(sum);
                else
                    return false;
            }
        }
        return true;
    }

    /// <summary>Solves L·x = b in place.</summary>
    public static void SolveLower(ReadOnlySpan<double> factor, int n, Span<double> x)
    {
        for (var i = 0; i < n; i++)
            x[i] =
                (x[i] - System.Numerics.Tensors.TensorPrimitives.Dot<double>(factor.Slice(i * n, i), x[..i])) / factor[i * n + i];
    }

    /// <summary>Solves Lᵀ·x = b in place.</summary>
    public static void SolveUpper(ReadOnlySpan<double> factor, int n, Span<double> x)
    {
        for (var i = n - 1; i >= 0; i--)
        {
            x[i] /= factor[i * n + i];
            for (var j = 0; j < i; j++)
                x[j] -= factor[i * n + j] * x[i];
        }
    }
}
