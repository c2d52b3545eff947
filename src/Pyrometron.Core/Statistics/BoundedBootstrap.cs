using System.Numerics.Tensors;
using MathNet.Numerics.Statistics;

namespace Pyrometron.Core.Statistics;

/// <summary>
/// A parametric bootstrap (Efron &amp; Tibshirani 1993, 6.5; from memory) of a bounded least-squares problem: the right-hand side
/// is shaken as its data's scatter shakes it, ε ~ N(0, H), and each time the bounded problem is solved anew. So what stands at
/// zero has an uncertainty too, and what one unknown may take from another is in both of theirs.
/// </summary>
internal sealed class BoundedBootstrap(ReadOnlySpan<double> h, ReadOnlySpan<double> gradient, bool[] nonNegative)
{
    private readonly double[] _h = h.ToArray();
    private readonly double[] _gradient = gradient.ToArray();

    /// <summary>Standard deviations of linear functions of the unknowns; infinite where H is not positive definite.</summary>
    /// <param name="start">The solution of the problem that is not shaken.</param>
    /// <param name="functions">The factors of the unknowns, one array a function.</param>
    public double[] Deviations(ReadOnlySpan<double> start, double[][] functions, int draws, Random random)
    {
        var n = _gradient.Length;
        var (root, shaken, normal, drawn) = ((double[])_h.Clone(), new double[n], new double[n], start.ToArray());
        if (!Cholesky.Factor(root, n))
            return [.. functions.Select(_ => double.PositiveInfinity)];
        var values = functions.Select(_ => new double[draws]).ToArray();
        var solver = new BoundedLeastSquares();
        for (var d = 0; d < draws; d++)
        {
            for (var i = 0; i < n; i++)
                normal[i] = random.Normal();
            for (var i = 0; i < n; i++)
                shaken[i] = _gradient[i] + TensorPrimitives.Dot<double>(root.AsSpan(i * n, i + 1), normal.AsSpan(0, i + 1));
            solver.Solve(_h, shaken, nonNegative, drawn);
            for (var f = 0; f < functions.Length; f++)
                values[f][d] = TensorPrimitives.Dot<double>(functions[f], drawn);
        }
        return [.. values.Select(ArrayStatistics.StandardDeviation)];
    }
}
