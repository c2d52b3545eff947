using MathNet.Numerics;

namespace Pyrometron.Core.Statistics;

/// <summary>Whether a series rises or falls at all.</summary>
/// <param name="S">Rising pairs minus falling pairs.</param>
/// <param name="Variance">Of S under "no trend", ties taken out.</param>
/// <param name="Z">S in standard deviations, with the continuity correction.</param>
/// <param name="P">Two-sided probability of so large a |Z| without a trend.</param>
public readonly record struct MannKendallResult(int S, double Variance, double Z, double P);

/// <summary>Mann 1945 (Econometrica 13, 245–259); Kendall 1975; Gilbert 1987, ch. 16.</summary>
public static class MannKendall
{
    /// <summary>
    /// Tests for a trend. Ties are tests for equality of doubles, so round values to their resolution first.
    /// O(n²) time.
    /// </summary>
    /// <param name="t">Times; pairs of equal times count for neither side.</param>
    /// <param name="y">Values, same length.</param>
    /// <param name="varianceFactor">What autocorrelation multiplies the variance by, see <see cref="YueWangFactor"/>.</param>
    public static MannKendallResult Test(ReadOnlySpan<double> t, ReadOnlySpan<double> y, double varianceFactor = 1)
    {
        var s = 0;
        for (var i = 0; i < y.Length; i++)
        for (var j = i + 1; j < y.Length; j++)
            s += Math.Sign(t[j] - t[i]) * Math.Sign(y[j] - y[i]);
        var variance = Variance(t, y) * varianceFactor;
        var z = s == 0 || variance <= 0 ? 0 : (s - Math.Sign(s)) / Math.Sqrt(variance);
        return new MannKendallResult(s, variance, z, SpecialFunctions.Erfc(Math.Abs(z) / Math.Sqrt(2)));
    }

    /// <summary>
    /// The factor by which first-order autocorrelation of the detrended series widens Var(S): Yue and Wang 2004, lag 1
    /// only. Never below 1: a series that alternates is not thereby surer.
    /// </summary>
    public static double YueWangFactor(ReadOnlySpan<double> t, ReadOnlySpan<double> y)
    {
        var n = y.Length;
        if (n < 4 || TheilSen.Fit(t, y) is not { } line)
            return 1;
        var detrended = new double[n];
        for (var i = 0; i < n; i++)
            detrended[i] = y[i] - line.Slope * t[i];
        var mean = 0.0;
        foreach (var value in detrended)
            mean += value / n;
        double square = 0,
            lagged = 0;
        for (var i = 0; i < n; i++)
        {
            square += (detrended[i] - mean) * (detrended[i] - mean);
            if (i > 0)
                lagged += (detrended[i] - mean) * (detrended[i - 1] - mean);
        }
        return square <= 0 ? 1 : Math.Max(1, 1 + 2 * (1 - 1.0 / n) * lagged / square);
    }

    /// <summary>Σ k(k − 1)(2k + 5) over groups of k equal values.</summary>
    internal static double TieSum(ReadOnlySpan<double> values) => Ties(values).Sum(k => k * (k - 1.0) * (2 * k + 5));

    private static double Variance(ReadOnlySpan<double> t, ReadOnlySpan<double> y)
    {
        double n = y.Length;
        var (ties, timeTies) = (Ties(y), Ties(t));
        var variance = (n * (n - 1) * (2 * n + 5) - TieSum(y) - TieSum(t)) / 18;
        if (n > 2)
            variance +=
                Sum(ties, k => k * (k - 1) * (k - 2)) * Sum(timeTies, k => k * (k - 1) * (k - 2)) / (9 * n * (n - 1) * (n - 2));
        if (n > 1)
            variance += Sum(ties, k => k * (k - 1)) * Sum(timeTies, k => k * (k - 1)) / (2 * n * (n - 1));
        return variance;
    }

    private static double Sum(List<int> groups, Func<double, double> term) => groups.Sum(k => term(k));

    private static List<int> Ties(ReadOnlySpan<double> values)
    {
        var sorted = values.ToArray();
        Array.Sort(sorted);
        var groups = new List<int>();
        for (int i = 0, run = 1; i < sorted.Length; i++, run++)
        {
            if (i + 1 < sorted.Length && sorted[i + 1] == sorted[i])
                continue;
            if (run > 1)
                groups.Add(run);
            run = 0;
        }
        return groups;
    }
}
