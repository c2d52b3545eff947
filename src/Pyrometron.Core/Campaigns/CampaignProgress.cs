using Pyrometron.Core.Learning;

namespace Pyrometron.Core.Campaigns;

/// <summary>How far a machine of a campaign is.</summary>
public enum CampaignStep
{
    /// <summary>Its turn has not come: the pilot is to prove the work first.</summary>
    Waits,

    /// <summary>It may be done.</summary>
    Released,

    AtBench,

    Done,
}

/// <summary>What to do about a campaign.</summary>
public enum CampaignAdvice
{
    /// <summary>Its pilot is not done yet.</summary>
    Pilot,

    /// <summary>The pilot is done, and too few of its jobs have a run before and after: nothing can be said.</summary>
    Unproven,

    /// <summary>The pilot is done and does not decide: more machines, as many again at a time.</summary>
    More,

    /// <summary>The work is worthwhile: all others.</summary>
    GoOn,

    /// <summary>The work is not worthwhile.</summary>
    Stop,

    /// <summary>Every machine is done.</summary>
    AllDone,
}

/// <summary>A machine of a campaign.</summary>
/// <param name="Job">The job that did its work; null while none has.</param>
public sealed record CampaignMachine(string Tag, bool Pilot, CampaignStep Step, FinishedJob? Job);

/// <summary>How far a campaign is, what it has proven, and what to do about it.</summary>
/// <param name="Won">What its jobs have won together.</param>
public sealed record CampaignProgress(
    Campaign Campaign,
    IReadOnlyList<CampaignMachine> Machines,
    WorkWon Won,
    SequentialResult Test,
    CampaignAdvice Advice
)
{
    /// <summary>Machines that are to be planned now.</summary>
    public IEnumerable<string> Released => Machines.Where(m => m.Step == CampaignStep.Released).Select(m => m.Tag);

    /// <summary>Looks at a campaign.</summary>
    /// <param name="finished">Jobs of the house, newest first.</param>
    /// <param name="atBench">Tags of machines that are at the bench.</param>
    /// <param name="retired">Tags of machines that are gone: nobody works on them any more.</param>
    public static CampaignProgress Of(
        Campaign campaign,
        IEnumerable<FinishedJob> finished,
        IReadOnlySet<string> atBench,
        IReadOnlySet<string> retired
    )
    {
        var tags = campaign.Tags.Where(t => !retired.Contains(t)).ToList();
        var until = campaign.Ended ?? DateOnly.MaxValue;
        var jobs = finished
            .Where(j => j.Done >= campaign.Begun && j.Done <= until && campaign.IsDoneBy(j.Level))
            .GroupBy(j => j.Tag)
            .ToDictionary(g => g.Key, g => g.Last());
        var done = tags.Where(jobs.ContainsKey).Select(t => jobs[t]).ToList();
        var test = campaign.Test.Of([
            .. done.Where(WorkWon.IsCompared).OrderBy(j => j.Done).Select(j => new Measured(j.WonKelvin, j.ExpandedKelvin / 2)),
        ]);
        var advice = Advise(campaign, tags.Count, done, test.Verdict);
        var released = campaign.State == CampaignState.Running ? Open(campaign, advice, tags.Count, done.Count) : 0;
        return new CampaignProgress(
            campaign,
            [
                .. tags.Select(
                    (tag, i) => new CampaignMachine(tag, i < campaign.Pilot, StepOf(tag, i), jobs.GetValueOrDefault(tag))
                ),
            ],
            WorkWon.Of(done),
            test,
            advice
        );

        CampaignStep StepOf(string tag, int place) =>
            jobs.ContainsKey(tag) ? CampaignStep.Done
            : atBench.Contains(tag) ? CampaignStep.AtBench
            : place < released ? CampaignStep.Released
            : CampaignStep.Waits;
    }

    private static CampaignAdvice Advise(Campaign campaign, int machines, List<FinishedJob> done, SequentialVerdict verdict) =>
        done.Count == machines ? CampaignAdvice.AllDone
        : verdict == SequentialVerdict.Worthwhile ? CampaignAdvice.GoOn
        : verdict == SequentialVerdict.NotWorthwhile ? CampaignAdvice.Stop
        : done.Count < campaign.Pilot ? CampaignAdvice.Pilot
        : done.Count(WorkWon.IsCompared) < SequentialTest.LeastJobs ? CampaignAdvice.Unproven
        : CampaignAdvice.More;

    /// <summary>So many machines, from the first on, may be worked on.</summary>
    private static int Open(Campaign campaign, CampaignAdvice advice, int machines, int done) =>
        campaign.GoneOnBy is not null || advice == CampaignAdvice.GoOn ? machines
        : advice == CampaignAdvice.Stop ? 0
        // Whole lots of as many as the pilot: the next one once all of the last are done.
        : campaign.Pilot * (1 + (advice == CampaignAdvice.More ? done / campaign.Pilot : 0));
}
