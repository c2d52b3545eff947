using MathNet.Numerics.Distributions;

namespace Pyrometron.Core.Statistics;

/// <summary>A straight line through noisy points that up to 29 % wrong ones cannot turn.</summary>
/// <param name="Slope">Median of the slopes of all pairs with different times.</param>
/// <param name="Intercept">Median(y) − slope·median(t), the "separate" intercept.</param>
/// <param name="Low">Lower end of the slope's interval.</param>
/// <param name="High">Upper end of the slope's interval.</param>
/// <param name="Pairs">Number of pairs with different times.</param>
public readonly record struct TheilSenLine(double Slope, double Intercept, double Low, double High, long Pairs)
{
    /// <summary>The line's height at a time.</summary>
    public double At(double time) => Intercept + Slope * time;

    /// <summary>Whether the interval excludes a level or a trend the other way.</summary>
    public bool IsRising => Low > 0;
}

/// <summary>Theil 1950; Sen 1968 (JASA 63, 1379–1389).</summary>
public static class TheilSen
{
    /// <summary>Fits the line. O(n log n) expected time, see <see cref="PairSlopes"/>.</summary>
    /// <param name="t">Times, in any order; equal ones are allowed.</param>
    /// <param name="y">Values, same length, no NaN.</param>
    /// <param name="confidence">Coverage of the interval, 0 to 1 (both excluded).</param>
    /// <returns>Null when no two times differ.</returns>
    /// <exception cref="ArgumentException">The lengths differ.</exception>
    public static TheilSenLine? Fit(ReadOnlySpan<double> t, ReadOnlySpan<double> y, double confidence = 0.95)
    {
        if (t.Length != y.Length)
            throw new ArgumentException("Times and values must have the same length.", nameof(y));
        var slopes = new PairSlopes(t, y);
        if (slopes.Count == 0)
            return null;
        double n = t.Length;
        var slope = (slopes.Select((slopes.Count - 1) / 2) + slopes.Select(slopes.Count / 2)) / 2;
        // Sen's variance of the number of concordant pairs, with both kinds of ties taken out; ranks rounded half to even.
        var variance = (n * (n - 1) * (2 * n + 5) - MannKendall.TieSum(y) - MannKendall.TieSum(t)) / 18;
        var spread = Normal.InvCDF(0, 1, 0.5 + confidence / 2) * Math.Sqrt(Math.Max(0, variance));
        var low = (long)Math.Round((slopes.Count - spread) / 2, MidpointRounding.ToEven);
        var high = (long)Math.Round((slopes.Count + spread) / 2, MidpointRounding.ToEven) + 1;
        return new TheilSenLine(
            slope,
            Robust.Median(y) - slope * Robust.Median(t),
            slopes.Select(Math.Clamp(low, 1, slopes.Count) - 1),
            slopes.Select(Math.Clamp(high, 1, slopes.Count) - 1),
            slopes.Count
        );
    }
}
