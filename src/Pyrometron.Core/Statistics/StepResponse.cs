namespace Pyrometron.Core.Statistics;

/// <summary>First-order approach to a settled value: T(t) = T∞ − (T∞ − T₀)·e^(−t/τ).</summary>
/// <param name="Start">T₀.</param>
/// <param name="Settled">T∞.</param>
/// <param name="TimeConstant">τ, in the unit of the times given.</param>
/// <param name="ResidualSumOfSquares">What the curve leaves.</param>
/// <param name="SettledUncertainty">Standard uncertainty of T∞ from the fit's Jacobian.</param>
public readonly record struct StepFit(
    double Start,
    double Settled,
    double TimeConstant,
    double ResidualSumOfSquares,
    double SettledUncertainty
)
{
    /// <summary>The curve at a time.</summary>
    public double At(double time) => Settled - (Settled - Start) * Math.Exp(-time / TimeConstant);

    /// <summary>The share of the rise reached at a time, 0 to 1.</summary>
    public double ShareAt(double time) => 1 - Math.Exp(-time / TimeConstant);
}

/// <summary>A chip on its cooler: T(t) = T∞ − A·e^(−t/τ₁) − B·e^(−t/τ₂), τ₁ &lt; τ₂.</summary>
/// <param name="SettledUncertainty">Standard uncertainty of T∞ with both τ taken as found.</param>
public readonly record struct TwoStepFit(
    double Settled,
    double Fast,
    double Slow,
    double FastTau,
    double SlowTau,
    double ResidualSumOfSquares,
    double SettledUncertainty
)
{
    /// <summary>The curve at a time.</summary>
    public double At(double time) => Settled - Fast * Math.Exp(-time / FastTau) - Slow * Math.Exp(-time / SlowTau);
}

/// <summary>
/// Fits the step response. T₀ and T∞ enter linearly, so for each τ they are solved exactly and only τ is searched
/// (variable projection, Golub &amp; Pereyra 1973): no start value, no divergence.
/// </summary>
public static class StepResponse
{
    /// <summary>Fits the curve to samples.</summary>
    /// <param name="time">Times since the load was switched on, ascending, same unit throughout.</param>
    /// <param name="value">Temperatures.</param>
    /// <param name="knownStart">T₀ when it is known and shall not be fitted.</param>
    /// <returns>Null with fewer samples than unknowns plus one, or when all times are equal.</returns>
    public static StepFit? Fit(ReadOnlySpan<double> time, ReadOnlySpan<double> value, double? knownStart = null)
    {
        var unknowns = knownStart is null ? 3 : 2;
        if (time.Length <= unknowns || time[^1] <= time[0])
            return null;
        var span = time[^1] - time[0];
        // Coarse search over τ from a thousandth of the run to thirty times its length, then golden section.
        const int steps = 120;
        double low = Math.Log(span / 1000),
            high = Math.Log(span * 30),
            width = (high - low) / steps;
        var (best, bestRss) = (low, double.PositiveInfinity);
        for (var i = 0; i <= steps; i++)
        {
            var rss = Project(time, value, knownStart, Math.Exp(low + i * width)).ResidualSumOfSquares;
            if (rss < bestRss)
                (best, bestRss) = (low + i * width, rss);
        }
        var (a, b) = (best - width, best + width);
        var ratio = (Math.Sqrt(5) - 1) / 2;
        for (var i = 0; i < 80; i++)
        {
            var (c, d) = (b - ratio * (b - a), a + ratio * (b - a));
            var left = Project(time, value, knownStart, Math.Exp(c)).ResidualSumOfSquares;
            var right = Project(time, value, knownStart, Math.Exp(d)).ResidualSumOfSquares;
            if (left < right)
                b = d;
            else
                a = c;
        }
        var fit = Project(time, value, knownStart, Math.Exp((a + b) / 2));
        return fit with { SettledUncertainty = SettledUncertainty(time, fit, unknowns) };
    }

    /// <summary>
    /// Fits a curve of two time constants, searched over pairs of τ at least a factor of four apart; the rest is linear.
    /// </summary>
    /// <returns>Null with fewer than ten samples, or when the samples do not tell two apart.</returns>
    public static TwoStepFit? FitTwo(ReadOnlySpan<double> time, ReadOnlySpan<double> value)
    {
        if (time.Length < 10 || time[^1] <= time[0])
            return null;
        // A few hundred samples say as much as thousands about two numbers.
        var every = (time.Length + 399) / 400;
        var (t, y) = (new List<double>(), new List<double>());
        for (var i = 0; i < time.Length; i += every)
        {
            t.Add(time[i]);
            y.Add(value[i]);
        }
        var span = t[^1] - t[0];
        const double apart = 4;
        (double Fast, double Slow, double Rss) best = (0, 0, double.PositiveInfinity);
        void Try(double fast, double slow)
        {
            if (
                slow >= apart * fast
                && slow <= 10 * span
                && fast >= span / 2000
                && Linear(t, y, fast, slow) is { } fit
                && fit.ResidualSumOfSquares < best.Rss
            )
                best = (fast, slow, fit.ResidualSumOfSquares);
        }
        const int steps = 24;
        double Tau(int i) => span / 2000 * Math.Pow(20_000, (double)i / steps);
        for (var i = 0; i <= steps; i++)
        for (var j = i + 1; j <= steps; j++)
            Try(Tau(i), Tau(j));
        for (var step = Math.Pow(20_000, 1.0 / steps); step > 1.0005; step = Math.Sqrt(step))
        for (var before = double.PositiveInfinity; best.Rss < before; )
        {
            before = best.Rss;
            var (fast, slow, _) = best;
            Try(fast * step, slow);
            Try(fast / step, slow);
            Try(fast, slow * step);
            Try(fast, slow / step);
        }
        if (double.IsInfinity(best.Rss) || Linear(t, y, best.Fast, best.Slow) is not { } found)
            return null;
        // The residual of all samples, so that it can be held against that of one time constant.
        var rss = 0.0;
        for (var i = 0; i < time.Length; i++)
            rss += Math.Pow(value[i] - found.At(time[i]), 2);
        return found with { ResidualSumOfSquares = rss };
    }

    private static TwoStepFit? Linear(List<double> t, List<double> y, double fast, double slow)
    {
        Span<double> a = stackalloc double[9],
            b = stackalloc double[3],
            row = stackalloc double[3];
        a.Clear();
        b.Clear();
        for (var i = 0; i < t.Count; i++)
        {
            (row[0], row[1], row[2]) = (1, -Math.Exp(-t[i] / fast), -Math.Exp(-t[i] / slow));
            for (var r = 0; r < 3; r++)
            {
                b[r] += row[r] * y[i];
                for (var c = 0; c <= r; c++)
                    a[r * 3 + c] += row[r] * row[c];
            }
        }
        if (!Cholesky.Factor(a, 3))
            return null;
        Cholesky.SolveLower(a, 3, b);
        Cholesky.SolveUpper(a, 3, b);
        var fit = new TwoStepFit(b[0], b[1], b[2], fast, slow, 0, 0);
        var rss = 0.0;
        for (var i = 0; i < t.Count; i++)
            rss += Math.Pow(y[i] - fit.At(t[i]), 2);
        Span<double> unit = [1, 0, 0];
        Cholesky.SolveLower(a, 3, unit);
        var inverse = unit[0] * unit[0] + unit[1] * unit[1] + unit[2] * unit[2];
        return double.IsFinite(rss)
            ? fit with
            {
                ResidualSumOfSquares = rss,
                SettledUncertainty = Math.Sqrt(inverse * rss / Math.Max(1, t.Count - 5)),
            }
            : null;
    }

    private static StepFit Project(ReadOnlySpan<double> time, ReadOnlySpan<double> value, double? knownStart, double tau)
    {
        // T = T₀·e + T∞·(1 − e): two normal equations.
        double ee = 0,
            ef = 0,
            ff = 0,
            ey = 0,
            fy = 0;
        for (var i = 0; i < time.Length; i++)
        {
            var e = Math.Exp(-time[i] / tau);
            var f = -MathNet.Numerics.SpecialFunctions.Expm1(-time[i] / tau);
            var y = value[i];
            ee += e * e;
            ef += e * f;
            ff += f * f;
            ey += e * y;
            fy += f * y;
        }
        double start,
            settled;
        if (knownStart is { } known)
            (start, settled) = (known, (fy - known * ef) / ff);
        else
        {
            var determinant = ee * ff - ef * ef;
            (start, settled) = ((ey * ff - fy * ef) / determinant, (fy * ee - ey * ef) / determinant);
        }
        var fit = new StepFit(start, settled, tau, 0, double.NaN);
        var rss = 0.0;
        for (var i = 0; i < time.Length; i++)
            rss += (value[i] - fit.At(time[i])) * (value[i] - fit.At(time[i]));
        return double.IsFinite(rss)
            ? fit with
            {
                ResidualSumOfSquares = rss,
            }
            : fit with
            {
                ResidualSumOfSquares = double.MaxValue,
            };
    }

    private static double SettledUncertainty(ReadOnlySpan<double> time, StepFit fit, int unknowns)
    {
        var jacobian = MathNet.Numerics.LinearAlgebra.Matrix<double>.Build.Dense(time.Length, unknowns);
        for (var i = 0; i < time.Length; i++)
        {
            var e = Math.Exp(-time[i] / fit.TimeConstant);
            jacobian[i, 0] = 1 - e;
            jacobian[i, 1] = -(fit.Settled - fit.Start) * e * time[i] / (fit.TimeConstant * fit.TimeConstant);
            if (unknowns == 3)
                jacobian[i, 2] = e;
        }
        var information = jacobian.TransposeThisAndMultiply(jacobian);
        if (Math.Abs(information.Determinant()) < 1e-300)
            return double.PositiveInfinity;
        return Math.Sqrt(information.Inverse()[0, 0] * fit.ResidualSumOfSquares / (time.Length - unknowns));
    }
}
