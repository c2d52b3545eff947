namespace Pyrometron.Core.Statistics;

/// <summary>
/// How far a share seen in a few cases may be from the true one: Wilson's score interval (Wilson 1927, JASA 22, 209–212).
/// </summary>
public static class Wilson
{
    /// <summary>Two-sided 95 % of a normal distribution.</summary>
    private const double Z95 = 1.959963984540054;

    /// <summary>The interval at 95 %.</summary>
    /// <param name="hits">0 to <paramref name="cases"/>.</param>
    /// <param name="cases">At least one.</param>
    public static (double Low, double High) Interval(int hits, int cases)
    {
        double n = cases,
            share = hits / n;
        var middle = share + Z95 * Z95 / (2 * n);
        var half = Z95 * Math.Sqrt(share * (1 - share) / n + Z95 * Z95 / (4 * n * n));
        var scale = 1 + Z95 * Z95 / n;
        return (Math.Max(0, (middle - half) / scale), Math.Min(1, (middle + half) / scale));
    }
}
