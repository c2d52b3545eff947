using MathNet.Numerics.LinearAlgebra;

namespace Pyrometron.Core.Statistics;

/// <summary>Linear regression that a few wrong readings cannot bend.</summary>
/// <param name="Coefficients">One a column of the design.</param>
/// <param name="Scale">Residual scale: median absolute residual / 0.6745.</param>
public sealed record HuberFit(double[] Coefficients, double Scale);

/// <summary>
/// Huber's M-estimate (k = 1.345, 95 % efficient at the normal) by iteratively reweighted least squares on a QR
/// decomposition; scale = median absolute residual / 0.6745 (Venables &amp; Ripley 2002, 6.5).
/// </summary>
public static class HuberRegression
{
    /// <summary>Fits y ≈ X·b.</summary>
    /// <param name="rows">The design, one row an observation; a constant term is a column of ones.</param>
    /// <param name="y">Observations, as many as rows.</param>
    /// <param name="k">Where an observation stops pulling harder; infinity gives ordinary least squares.</param>
    /// <returns>Null when there are fewer observations than columns or the columns depend on each other.</returns>
    public static HuberFit? Fit(double[][] rows, ReadOnlySpan<double> y, double k = 1.345)
    {
        if (rows.Length == 0 || rows.Length < rows[0].Length)
            return null;
        var x = Matrix<double>.Build.DenseOfRowArrays(rows);
        var target = Vector<double>.Build.Dense(y.ToArray());
        var coefficients = Solve(x, target);
        if (coefficients is null)
            return null;
        var scale = 0.0;
        for (var iteration = 0; iteration < 400; iteration++)
        {
            var residuals = target - x * coefficients;
            scale = Robust.Median(residuals.Select(Math.Abs).ToArray()) / 0.6745;
            if (double.IsInfinity(k) || scale < 1e-12)
                break;
            var root = residuals.Map(r => Math.Sqrt(Math.Min(1, k * scale / Math.Abs(r))));
            var next = Solve(Matrix<double>.Build.DenseOfDiagonalVector(root) * x, root.PointwiseMultiply(target));
            if (next is null)
                break;
            var moved = (next - coefficients).L2Norm();
            coefficients = next;
            if (moved <= 1e-10 * (1 + coefficients.L2Norm()))
                break;
        }
        return new HuberFit(coefficients.ToArray(), scale);
    }

    private static Vector<double>? Solve(Matrix<double> x, Vector<double> y)
    {
        // Columns of very different size (a power of a year beside a constant) are brought to one length first.
        var norms = x.ColumnNorms(2);
        if (norms.Any(n => !(n > 0)))
            return null;
        var scaled = x.MapIndexed((_, column, value) => value / norms[column]);
        var qr = scaled.QR(MathNet.Numerics.LinearAlgebra.Factorization.QRMethod.Thin);
        if (qr.R.Diagonal().Any(d => Math.Abs(d) < 1e-13))
            return null;
        return qr.Solve(y).PointwiseDivide(norms);
    }
}
