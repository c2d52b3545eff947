using Pyrometron.Core.Fleet;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Learning;

/// <summary>A finished job and the time it took at the bench.</summary>
/// <param name="Minutes">As booked, positive.</param>
public readonly record struct TimedJob(AssetKind Kind, string Model, ServiceLevel Level, double Minutes);

/// <summary>How long a level takes on a machine.</summary>
/// <param name="Minutes">Median, whole minutes, at least 1.</param>
/// <param name="Jobs">Timed jobs of this very model and level.</param>
public readonly record struct BenchTime(int Minutes, int Jobs);

/// <summary>
/// How long each level takes on each model: a hierarchical normal on the logarithm, since times are off by factors. A model
/// starts from what the other models of its kind have taken, and those from the usual time of the kind.
/// </summary>
public sealed class ProvenMinutes
{
    /// <summary>
    /// How far a whole kind, a model of it, and a single job are off, in logarithms: 0.35 is a third. Common practice, no source.
    /// </summary>
    private const double KindSpread = 0.35,
        ModelSpread = 0.25,
        JobSpread = 0.3;

    private readonly ILookup<(AssetKind, ServiceLevel), TimedJob> _jobs;

    private ProvenMinutes(IEnumerable<TimedJob> jobs) => _jobs = jobs.Where(j => j.Minutes > 0).ToLookup(j => (j.Kind, j.Level));

    /// <summary>No jobs yet: the usual times stand.</summary>
    public static ProvenMinutes None { get; } = new([]);

    /// <summary>What some jobs teach.</summary>
    public static ProvenMinutes Of(IEnumerable<TimedJob> jobs) => new(jobs);

    /// <summary>The time of a level on a machine.</summary>
    public BenchTime Of(Asset asset, ServiceLevel level)
    {
        var usual = Usual(asset.Kind, level);
        var (own, others) = (
            _jobs[(asset.Kind, level)].Where(j => j.Model == asset.Model).ToArray(),
            _jobs[(asset.Kind, level)].Where(j => j.Model != asset.Model).ToArray()
        );
        if (own.Length + others.Length == 0)
            return new BenchTime(usual, 0);
        var learnt = new NormalMean(Math.Log(usual), KindSpread)
            .After(others.Select(Shown))
            .Wider(ModelSpread)
            .After(own.Select(Shown));
        return new BenchTime(Math.Max(1, (int)Math.Round(Math.Exp(learnt.Mean))), own.Length);
    }

    private static NormalMean Shown(TimedJob job) => new(Math.Log(job.Minutes), JobSpread);

    /// <summary>Usual bench time of a level on a kind of machine, minutes (common practice, no source).</summary>
    public static int Usual(AssetKind kind, ServiceLevel level) =>
        (kind, level) switch
        {
            (_, ServiceLevel.Inspect) => 10,
            (_, ServiceLevel.BlowOut) => 15,
            (AssetKind.GraphicsCard, ServiceLevel.DustOut) => 35,
            (AssetKind.Server, ServiceLevel.DustOut) => 30,
            (AssetKind.Laptop, ServiceLevel.DustOut) => 40,
            (_, ServiceLevel.DustOut) => 25,
            // The fins are cleaned on the way.
            (_, ServiceLevel.FanSwap) => Usual(kind, ServiceLevel.DustOut) + 10,
            (AssetKind.GraphicsCard, ServiceLevel.Repaste) => 60,
            (AssetKind.Laptop, ServiceLevel.Repaste) => 90,
            (_, ServiceLevel.Repaste) => 45,
            (_, ServiceLevel.OtherPaste) => Usual(kind, ServiceLevel.Repaste),
            // New paste always comes with new pads.
            (_, ServiceLevel.Repad or ServiceLevel.OtherPads) => Usual(kind, ServiceLevel.Repaste) + 15,
            // Dry fit and another frame.
            (_, ServiceLevel.CoolerSwap) => Usual(kind, ServiceLevel.Repaste) + 30,
            // Step by step, each with its load run.
            (_, ServiceLevel.Undervolt) => 60,
            (_, ServiceLevel.Stand or ServiceLevel.Filter) => 10,
            _ => 30,
        };
}
