namespace Pyrometron.Core.Statistics;

/// <summary>
/// The mean of values that differ by themselves and are each known to an uncertainty of their own (random effects; DerSimonian
/// &amp; Laird 1986, Controlled Clinical Trials 7, 177–188).
/// </summary>
/// <param name="Mean">Their common mean.</param>
/// <param name="Sigma">Its standard uncertainty.</param>
/// <param name="Spread">Standard deviation of the values among themselves, their uncertainties taken out.</param>
public readonly record struct RandomEffects(double Mean, double Sigma, double Spread)
{
    /// <summary>Pools some values; at least one, with positive uncertainties. O(n).</summary>
    public static RandomEffects Of(IReadOnlyCollection<NormalMean> values)
    {
        var weights = values.Select(v => 1 / (v.Sigma * v.Sigma)).ToArray();
        var (sum, squares) = (weights.Sum(), weights.Sum(w => w * w));
        var common = values.Zip(weights, (v, w) => w * v.Mean).Sum() / sum;
        var q = values.Zip(weights, (v, w) => w * (v.Mean - common) * (v.Mean - common)).Sum();
        var scale = sum - squares / sum;
        var between = scale > 0 ? Math.Max(0, (q - (values.Count - 1)) / scale) : 0;
        var wider = values.Select(v => 1 / (v.Sigma * v.Sigma + between)).ToArray();
        var total = wider.Sum();
        return new RandomEffects(values.Zip(wider, (v, w) => w * v.Mean).Sum() / total, 1 / Math.Sqrt(total), Math.Sqrt(between));
    }
}
