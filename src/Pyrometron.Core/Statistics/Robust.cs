using System.Numerics.Tensors;

namespace Pyrometron.Core.Statistics;

/// <summary>Location and scale that a few wrong readings cannot move. NaN values are the caller's to leave out.</summary>
public static class Robust
{
    /// <summary>1/Φ⁻¹(3/4): makes the median absolute deviation estimate a normal standard deviation.</summary>
    public const double MadToSigma = 1.482602218505602;

    /// <summary>The median; NaN for no values. O(n) expected, the input is left alone.</summary>
    public static double Median(ReadOnlySpan<double> values) => Quantile(values, 0.5);

    /// <summary>The median; changes the order of the values given. NaN for none.</summary>
    public static double MedianInPlace(Span<double> values) => QuantileInPlace(values, 0.5);

    /// <summary>
    /// The quantile by linear interpolation between order statistics (Hyndman &amp; Fan 1996, type 7). O(n) expected.
    /// </summary>
    /// <param name="fraction">0 (smallest) to 1 (largest).</param>
    /// <returns>NaN for no values.</returns>
    public static double Quantile(ReadOnlySpan<double> values, double fraction) => QuantileInPlace(values.ToArray(), fraction);

    private static double QuantileInPlace(Span<double> values, double fraction)
    {
        if (values.IsEmpty)
            return double.NaN;
        var place = fraction * (values.Length - 1);
        var rank = (int)Math.Floor(place);
        var low = OrderStatistic(values, rank);
        return place == rank ? low : low + (place - rank) * (TensorPrimitives.Min<double>(values[(rank + 1)..]) - low);
    }

    /// <summary>
    /// Hoare's selection: the value of a rank; afterwards nothing before it is larger, nothing behind it smaller. O(n) expected.
    /// </summary>
    internal static double OrderStatistic(Span<double> values, int rank)
    {
        var (low, high) = (0, values.Length - 1);
        while (low < high)
        {
            // Median of three, so that sorted input is no bad case.
            var (a, b, c) = (values[low], values[(low + high) / 2], values[high]);
            var pivot = Math.Max(Math.Min(a, b), Math.Min(Math.Max(a, b), c));
            var (i, j) = (low, high);
            while (i <= j)
            {
                while (values[i] < pivot)
                    i++;
                while (values[j] > pivot)
                    j--;
                if (i <= j)
                    (values[i], values[j], i, j) = (values[j], values[i], i + 1, j - 1);
            }
            if (rank <= j)
                high = j;
            else if (rank >= i)
                low = i;
            else
                break;
        }
        return values[rank];
    }

    /// <summary>As <see cref="Quantile"/>, for values already in ascending order.</summary>
    public static double QuantileOfSorted(ReadOnlySpan<double> sorted, double fraction)
    {
        var place = fraction * (sorted.Length - 1);
        var low = (int)Math.Floor(place);
        var high = Math.Min(low + 1, sorted.Length - 1);
        return sorted[low] + (place - low) * (sorted[high] - sorted[low]);
    }

    /// <summary>
    /// Scale from the median absolute deviation about the median (Hampel 1974), as a normal standard deviation.
    /// </summary>
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
