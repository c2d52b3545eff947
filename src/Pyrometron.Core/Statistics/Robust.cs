namespace Pyrometron.Core.Statistics;

/// <summary>Location and scale that a few wrong readings cannot move. NaN values are the caller's to leave out.</summary>
public static class Robust
{
    /// <summary>1/Φ⁻¹(3/4): makes the median absolute deviation estimate a normal standard deviation.</summary>
    public const double MadToSigma = 1.482602218505602;

    /// <summary>The median; NaN for no values. O(n log n), the input is left alone.</summary>
    public static double Median(ReadOnlySpan<double> values) => Quantile(values, 0.5);

    /// <summary>The median; sorts the values given. NaN for none.</summary>
    public static double MedianInPlace(Span<double> values)
    {
        if (values.IsEmpty)
            return double.NaN;
        values.Sort();
        return QuantileOfSorted(values, 0.5);
    }

    /// <summary>The quantile by linear interpolation between order statistics (Hyndman &amp; Fan 1996, type 7).</summary>
    /// <param name="fraction">0 (smallest) to 1 (largest).</param>
    /// <returns>NaN for no values.</returns>
    public static double Quantile(ReadOnlySpan<double> values, double fraction)
    {
        if (values.IsEmpty)
            return double.NaN;
        var sorted = values.ToArray();
        Array.Sort(sorted);
        return QuantileOfSorted(sorted, fraction);
    }

    /// <summary>As <see cref="Quantile"/>, for values already in ascending order.</summary>
    public static double QuantileOfSorted(ReadOnlySpan<double> sorted, double fraction)
    {
        var place = fraction * (sorted.Length - 1);
        var low = (int)Math.Floor(place);
        var high = Math.Min(low + 1, sorted.Length - 1);
        return sorted[low] + (place - low) * (sorted[high] - sorted[low]);
    }

    /// <summary>Scale from the median absolute deviation about the median (Hampel 1974), as a normal standard deviation.</summary>
    public static double MadScale(ReadOnlySpan<double> values)
    {
        var median = Median(values);
        var deviations = new double[values.Length];
        for (var i = 0; i < values.Length; i++)
            deviations[i] = Math.Abs(values[i] - median);
        return MadToSigma * Median(deviations);
    }

    /// <summary>
    /// Huber's M-estimate of location with the scale fixed at <see cref="MadScale"/> (Huber 1964; Venables &amp; Ripley
    /// 2002, 5.5).
    /// </summary>
    /// <param name="k">Where an observation stops pulling harder, in standard deviations.</param>
    public static double HuberLocation(ReadOnlySpan<double> values, double k = 1.5)
    {
        var mu = Median(values);
        var bound = k * MadScale(values);
        if (!(bound > 0))
            return mu;
        for (var iteration = 0; iteration < 200; iteration++)
        {
            var sum = 0.0;
            foreach (var value in values)
                sum += Math.Clamp(value, mu - bound, mu + bound);
            var next = sum / values.Length;
            if (Math.Abs(next - mu) <= 1e-12 * Math.Max(1, bound))
                return next;
            mu = next;
        }
        return mu;
    }

    /// <summary>How many robust standard deviations a value lies from the median of its peers.</summary>
    public static double ZScore(double value, ReadOnlySpan<double> peers) => (value - Median(peers)) / MadScale(peers);
}
