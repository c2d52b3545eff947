using Pyrometron.Core.Campaigns;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Learning;
using Pyrometron.Server.Judging;
using Pyrometron.Storage;

namespace Pyrometron.Server.Campaigns;

/// <summary>How far campaigns are, from jobs, plan and judgement; nothing of it is stored.</summary>
internal sealed class CampaignReading(
    CampaignStore campaigns,
    JobStore jobs,
    FleetStore fleet,
    PlanStore plans,
    PolicyStore policy,
    JudgementService judgement
)
{
    private const int JobsLookedAt = 1000;

    /// <summary>On fewer jobs their scatter tells nothing.</summary>
    private const int LeastForScatter = 8;

    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(5);

    /// <summary>All campaigns as far as they are.</summary>
    public IReadOnlyList<CampaignProgress> Progress()
    {
        var all = campaigns.All();
        if (all.Count == 0)
            return [];
        var finished = jobs.Finished(all.Min(c => c.Begun), null);
        var atBench = AtBench().Keys.ToHashSet();
        var retired = fleet.All().Where(a => a.RetiredOn is not null).Select(a => a.Asset.Tag).ToHashSet();
        return [.. all.Select(c => CampaignProgress.Of(c, finished, atBench, retired))];
    }

    /// <summary>The machines judged; empty before anything is.</summary>
    public async Task<IReadOnlyDictionary<string, Assessment>> JudgedAsync(CancellationToken cancellation) =>
        (await judgement.GetAsync(null, Patience, cancellation)).Judgement?.Queue.ToDictionary(a => a.Asset.Tag) ?? [];

    /// <summary>Campaigns as answers.</summary>
    public async Task<IReadOnlyList<CampaignAnswer>> AnswersAsync(
        IEnumerable<CampaignProgress> progress,
        CancellationToken cancellation
    )
    {
        var judged = await JudgedAsync(cancellation);
        var open = AtBench();
        var planned = (plans.Newest()?.Placed ?? [])
            .SelectMany(p => p.Work.Steps.Where(s => s.Level is not null).Select(s => (s.Tag, Level: s.Level!.Value, p.Start)))
            .ToLookup(p => p.Tag, p => (p.Level, p.Start));
        var assets = fleet.All().ToDictionary(a => a.Asset.Tag, a => a.Asset);
        return [.. progress.Select(p => Answer(p, judged, assets, open, planned))];
    }

    /// <summary>The scatter of wins of a level from machine to machine, K, with the jobs it is from.</summary>
    public (double Kelvin, int Jobs) Scatter(ServiceLevel level)
    {
        var wins = jobs.Finished(null, null).Where(j => j.Level == level && WorkWon.IsCompared(j)).ToList();
        if (wins.Count < LeastForScatter)
            return (Campaign.UsualScatter, 0);
        var mean = wins.Average(j => j.WonKelvin);
        return (Math.Max(1, Math.Sqrt(wins.Sum(j => Math.Pow(j.WonKelvin - mean, 2)) / (wins.Count - 1))), wins.Count);
    }

    /// <summary>What work on some machines takes.</summary>
    public CampaignSum Sum(IEnumerable<string> tags, ServiceLevel level, IReadOnlyDictionary<string, Assessment> judged)
    {
        var values = policy.Current().Values;
        var (machines, minutes, material) = (0, 0, 0.0);
        foreach (var tag in tags)
        {
            machines++;
            if (judged.GetValueOrDefault(tag) is not { } a)
                continue;
            minutes += a.Policy.Times.Of(a.Asset, level).Minutes * a.Policy.HandsFor(level);
            material += a.Policy.Materials.Of(level);
        }
        return new CampaignSum(machines, minutes, material, minutes / 60.0 * values.TechnicianHour, values.Currency);
    }

    private Dictionary<string, long> AtBench() =>
        jobs.Newest(JobsLookedAt).Where(j => j.State == JobState.Open).DistinctBy(j => j.Tag).ToDictionary(j => j.Tag, j => j.Id);

    private CampaignAnswer Answer(
        CampaignProgress of,
        IReadOnlyDictionary<string, Assessment> judged,
        Dictionary<string, Asset> assets,
        Dictionary<string, long> open,
        ILookup<string, (ServiceLevel Level, DateTimeOffset Start)> planned
    )
    {
        var c = of.Campaign;
        return new CampaignAnswer(
            c.Id,
            c.Name,
            c.Level,
            c.State,
            c.Pilot,
            c.Test.LeastKelvin,
            of.Test.Scatter,
            c.Begun,
            c.DueBy,
            c.Ended,
            c.EndedBecause,
            c.GoneOnBy,
            of.Advice,
            of.Test.Evidence,
            SequentialTest.ErrorRate,
            of.Won,
            Sum(of.Machines.Where(m => m.Step != CampaignStep.Done).Select(m => m.Tag), c.Level, judged),
            c.Tags.Count - of.Machines.Count,
            [.. of.Machines.Select(Machine)]
        );

        CampaignMachineAnswer Machine(CampaignMachine m)
        {
            var compared = m.Job is { } job && WorkWon.IsCompared(job);
            return new CampaignMachineAnswer(
                m.Tag,
                assets[m.Tag].Model,
                assets[m.Tag].Zone,
                m.Pilot,
                m.Step,
                m.Step == CampaignStep.Released
                    ? planned[m.Tag].Where(p => c.IsDoneBy(p.Level)).Select(p => (DateTimeOffset?)p.Start).FirstOrDefault()
                    : null,
                m.Job?.Id ?? (open.TryGetValue(m.Tag, out var atBench) ? atBench : null),
                m.Job?.Done,
                m.Job?.Outcome,
                compared ? m.Job!.WonKelvin : null,
                compared ? m.Job!.ExpandedKelvin : null
            );
        }
    }
}
