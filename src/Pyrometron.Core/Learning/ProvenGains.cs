using Pyrometron.Core.Causes;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Learning;

/// <summary>A finished job with its proof.</summary>
/// <param name="Level">The level that was advised and done.</param>
/// <param name="Cause">The cause that was predicted.</param>
/// <param name="DriftKelvin">What was to win on the worst part by whatever it takes, positive.</param>
/// <param name="WonKelvin">What the verdict found on the part that won most.</param>
/// <param name="ExpandedKelvin">Its expanded uncertainty, k = 2.</param>
public sealed record ProvenJob(
    AssetKind Kind,
    string Model,
    ServiceLevel Level,
    Cause Cause,
    double DriftKelvin,
    double WonKelvin,
    double ExpandedKelvin
)
{
    /// <summary>What the level was to win of it: no cleaning takes all the dust.</summary>
    public double PredictedKelvin => DriftKelvin * ServiceEffects.RemovedShare(Level, Cause);
}

/// <summary>What a level wins of what is predicted, as the fleet's own jobs have shown.</summary>
/// <param name="Share">1 where nothing speaks against the prediction.</param>
/// <param name="Sigma">Its standard uncertainty.</param>
/// <param name="Jobs">Proven jobs of this very model and level.</param>
public readonly record struct ProvenShare(double Share, double Sigma, int Jobs);

/// <summary>
/// What the fleet's proven jobs teach about each level on each model: the won share of the predicted kelvins, a hierarchical
/// normal (Gelman et al. 2013, ch. 5). A model starts from what the other models of its kind have shown, and those from the prior
/// that predictions hold; each job counts by the uncertainty of its own proof.
/// </summary>
public sealed class ProvenGains
{
    /// <summary>
    /// How far predictions and levels are off for a whole kind, a model of it, and a single job. Common practice, no source.
    /// </summary>
    private const double KindSpread = 0.25,
        ModelSpread = 0.15,
        JobSpread = 0.2;

    /// <summary>Less predicted than this, K, and the share is mostly chance.</summary>
    public const double LeastPredicted = 2.5;

    private readonly ILookup<(AssetKind, ServiceLevel), ProvenJob> _jobs;

    private ProvenGains(IEnumerable<ProvenJob> jobs) =>
        _jobs = jobs.Where(j => j.PredictedKelvin >= LeastPredicted).ToLookup(j => (j.Kind, j.Level));

    /// <summary>No jobs yet: predictions stand.</summary>
    public static ProvenGains None { get; } = new([]);

    /// <summary>What some jobs teach.</summary>
    public static ProvenGains Of(IEnumerable<ProvenJob> jobs) => new(jobs);

    /// <summary>The share of its prediction that a level wins on a machine.</summary>
    public ProvenShare Of(Asset asset, ServiceLevel level)
    {
        var (own, others) = (
            _jobs[(asset.Kind, level)].Where(j => j.Model == asset.Model).ToArray(),
            _jobs[(asset.Kind, level)].Where(j => j.Model != asset.Model)
        );
        var (share, sigma) = new NormalMean(1, KindSpread)
            .After(others.Select(Shown))
            .Wider(ModelSpread)
            .After(own.Select(Shown));
        return new ProvenShare(Math.Max(0, share), sigma, own.Length);
    }

    /// <summary>
    /// What a level would win on a part of a machine, K: what its split says, as far as proven jobs bear it out.
    /// </summary>
    public double Won(Asset asset, CauseSplit split, ServiceLevel level) => split.WonBy(level) * Of(asset, level).Share;

    /// <summary>The share a job has won, as sure as its proof.</summary>
    private static NormalMean Shown(ProvenJob job) =>
        new NormalMean(job.WonKelvin / job.PredictedKelvin, job.ExpandedKelvin / 2 / job.PredictedKelvin).Wider(JobSpread);
}
