using MathNet.Numerics;

namespace Pyrometron.Core.Statistics;

/// <summary>An age at which a part failed, or up to which it had not.</summary>
/// <param name="Time">Positive, in any one unit.</param>
/// <param name="Failed">False where it still ran then (censored on the right).</param>
public readonly record struct Lifetime(double Time, bool Failed);

/// <summary>
/// Weibull's distribution of lives, R(t) = exp(−(t/η)^β) (Weibull 1951). Below a shape of 1 failures grow rarer with age, at
/// 1 they come by chance, above it parts wear out.
/// </summary>
/// <param name="Shape">β, positive.</param>
/// <param name="Scale">η, the age by which 63.2 % have failed; positive, in the unit of the lives.</param>
public readonly record struct WeibullLife(double Shape, double Scale)
{
    /// <summary>The share that lives longer than an age.</summary>
    public double Survival(double age) => Math.Exp(-Math.Pow(age / Scale, Shape));

    /// <summary>Failures a unit of time among those that have reached an age.</summary>
    public double Hazard(double age) => Shape / Scale * Math.Pow(age / Scale, Shape - 1);

    /// <summary>Mean life, η·Γ(1 + 1/β).</summary>
    public double Mean => Scale * SpecialFunctions.Gamma(1 + 1 / Shape);

    /// <summary>Standard deviation of lives.</summary>
    public double Deviation =>
        Scale * Math.Sqrt(SpecialFunctions.Gamma(1 + 2 / Shape) - Math.Pow(SpecialFunctions.Gamma(1 + 1 / Shape), 2));

    /// <summary>The age by which a share has failed.</summary>
    /// <param name="share">0 up to, but not, 1.</param>
    public double AgeOf(double share) => Scale * Math.Pow(-Math.Log(1 - share), 1 / Shape);

    /// <summary>The mean time at work of parts that are replaced at an age, or when they fail before it: ∫₀ᵀ R.</summary>
    public double TimeAtWork(double age) =>
        age <= 0 ? 0 : Mean * SpecialFunctions.GammaLowerRegularized(1 / Shape, Math.Pow(age / Scale, Shape));

    /// <summary>
    /// The likeliest distribution of some lives (maximum likelihood, those that still run counted as such; Lawless 1982, 4.1).
    /// </summary>
    /// <returns>Null with fewer than two different ages of failure: any shape would fit.</returns>
    public static WeibullLife? Fit(IReadOnlyCollection<Lifetime> lives)
    {
        var failed = lives.Where(l => l.Failed).Select(l => l.Time).ToArray();
        if (failed.Distinct().Count() < 2)
            return null;
        // Relative to the longest life, so that no power overflows.
        var longest = lives.Max(l => l.Time);
        var logs = lives.Select(l => Math.Log(l.Time / longest)).ToArray();
        var meanLog = failed.Average(t => Math.Log(t / longest));
        // Grows with the shape from −∞: the root is bracketed and bisected.
        double Score(double shape)
        {
            var (sum, weighted) = (0.0, 0.0);
            foreach (var log in logs)
            {
                var power = Math.Exp(shape * log);
                sum += power;
                weighted += power * log;
            }
            return weighted / sum - 1 / shape - meanLog;
        }
        var (low, high) = (1e-3, 1.0);
        while (Score(high) < 0 && high < 1e4)
            (low, high) = (high, 2 * high);
        for (var i = 0; i < 80; i++)
        {
            var middle = (low + high) / 2;
            (low, high) = Score(middle) < 0 ? (middle, high) : (low, middle);
        }
        var found = (low + high) / 2;
        return new WeibullLife(found, longest * Math.Pow(logs.Sum(log => Math.Exp(found * log)) / failed.Length, 1 / found));
    }

    /// <summary>
    /// The relative standard uncertainty of a fitted shape by its failures alone, √(6/π²)/√r ≈ 0.78/√r: the large-sample
    /// figure of
    /// complete samples (Lawless 1982); censoring makes it somewhat larger.
    /// </summary>
    public static double ShapeUncertainty(int failures) => Math.Sqrt(6 / (Math.PI * Math.PI) / failures);

    /// <summary>
    /// Lower bound on the scale where the shape is known from elsewhere (Weibayes; Abernethy, The New Weibull Handbook).
    /// </summary>
    /// <param name="shape">The shape.</param>
    /// <param name="lives">Of all parts.</param>
    /// <param name="confidence">Between 0 and 1.</param>
    public static double LeastScale(double shape, IReadOnlyCollection<Lifetime> lives, double confidence)
    {
        var sum = lives.Sum(l => Math.Pow(l.Time, shape));
        var failures = lives.Count(l => l.Failed);
        var bound = MathNet.Numerics.Distributions.ChiSquared.InvCDF(2 * (failures + 1), confidence) / 2;
        return Math.Pow(sum / bound, 1 / shape);
    }
}
