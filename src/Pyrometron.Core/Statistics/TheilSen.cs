using MathNet.Numerics.Distributions;

namespace Pyrometron.Core.Statistics;

/// <summary>A straight line through noisy points that up to 29 % wrong ones cannot turn.</summary>
/// <param name="Slope">Median of the slopes of all pairs with different times.</param>
/// <param name="Intercept">Median(y) − slope·median(t), the "separate" intercept.</param>
/// <param name="Low">Lower end of the slope's interval.</param>
/// <param name="High">Upper end of the slope's interval.</param>
/// <param name="Pairs">Number of pairs with different times.</param>
public readonly record struct TheilSenLine(double Slope, double Intercept, double Low, double High, int Pairs)
{
    /// <summary>The line's height at a time.</summary>
    public double At(double time) => Intercept + Slope * time;

    /// <summary>Whether the interval excludes a level or a trend the other way.</summary>
    public bool IsRising => Low > 0;
}

/// <summary>Theil 1950; Sen 1968 (JASA 63, 1379–1389).</summary>
public static class TheilSen
{
    /// <summary>Fits the line. O(n² log n) time, n² memory: meant for binned series of up to a few thousand points.</summary>
    /// <param name="t">Times, in any order; equal ones are allowed.</param>
    /// <param name="y">Values, same length, no NaN.</param>
    /// <param name="confidence">Coverage of the interval, 0 to 1 (both excluded).</param>
    /// <returns>Null when no two times differ.</returns>
    /// <exception cref="ArgumentException">The lengths differ.</exception>
    public static TheilSenLine? Fit(ReadOnlySpan<double> t, ReadOnlySpan<double> y, double confidence = 0.95)
    {
        if (t.Length != y.Length)
            throw new ArgumentException("Times and values must have the same length.", nameof(y));
        var n = t.Length;
        var slopes = new double[n * (n - 1) / 2];
        var pairs = 0;
        for (var i = 0; i < n; i++)
            for (var j = i + 1; j < n; j++)
                if (t[j] != t[i])
                    slopes[pairs++] = (y[j] - y[i]) / (t[j] - t[i]);
        if (pairs == 0)
            return null;
        var sorted = slopes.AsSpan(0, pairs);
        sorted.Sort();
        var slope = Robust.QuantileOfSorted(sorted, 0.5);
        // Sen's variance of the number of concordant pairs, with both kinds of ties taken out; ranks rounded half to even.
        var variance = (n * (n - 1.0) * (2 * n + 5) - MannKendall.TieSum(y) - MannKendall.TieSum(t)) / 18;
        var spread = Normal.InvCDF(0, 1, 0.5 + confidence / 2) * Math.Sqrt(Math.Max(0, variance));
        var low = (int)Math.Round((pairs - spread) / 2, MidpointRounding.ToEven);
        var high = (int)Math.Round((pairs + spread) / 2, MidpointRounding.ToEven) + 1;
        return new TheilSenLine(
            slope,
            Robust.Median(y) - slope * Robust.Median(t),
            sorted[Math.Clamp(low, 1, pairs) - 1],
            sorted[Math.Clamp(high, 1, pairs) - 1],
            pairs);
    }
}
