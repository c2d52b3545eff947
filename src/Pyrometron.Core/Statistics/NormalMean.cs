namespace Pyrometron.Core.Statistics;

/// <summary>
/// A normal mean learnt from observations whose own uncertainties are known (Gelman et al. 2013, eq. 2.11–2.12).
/// </summary>
/// <param name="Mean">What is believed of it.</param>
/// <param name="Sigma">Its standard deviation, positive.</param>
public readonly record struct NormalMean(double Mean, double Sigma)
{
    /// <summary>What is believed after some observations: precisions add, means weigh by them. O(n).</summary>
    public NormalMean After(IEnumerable<NormalMean> observations)
    {
        var precision = 1 / (Sigma * Sigma);
        var sum = precision * Mean;
        foreach (var (value, sigma) in observations)
        {
            var weight = 1 / (sigma * sigma);
            precision += weight;
            sum += weight * value;
        }
        return new NormalMean(sum / precision, 1 / Math.Sqrt(precision));
    }

    /// <summary>The same mean of a member that differs from the group by some spread.</summary>
    public NormalMean Wider(double spread) => this with { Sigma = Math.Sqrt(Sigma * Sigma + spread * spread) };
}
