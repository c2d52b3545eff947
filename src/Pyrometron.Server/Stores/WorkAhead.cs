using Pyrometron.Core.Campaigns;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Procedures;
using Pyrometron.Core.Stores;
using Pyrometron.Core.Weeks;
using Pyrometron.Server.Campaigns;
using Pyrometron.Server.Judging;
using Pyrometron.Storage;

namespace Pyrometron.Server.Stores;

/// <summary>
/// The jobs that will take from the shelf, in the order in which they are served: those at the bench, those of the plan by their
/// day, those that campaigns have released, the queue, and last the machines of campaigns whose turn has not come.
/// </summary>
internal sealed class WorkAhead(
    JudgementService judgement,
    FleetStore fleet,
    JobStore jobs,
    PlanStore plans,
    CampaignReading campaigns,
    NotesStore notes,
    SetAsideStore setAside,
    PolicyStore policy,
    RuleStore rules,
    TimeProvider clock
)
{
    private const int JobsLookedAt = 1000;

    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(5);

    /// <summary>Today, UTC.</summary>
    public DateOnly Today => DateOnly.FromDateTime(clock.GetUtcNow().UtcDateTime);

    /// <summary>The next jobs.</summary>
    /// <param name="most">How many.</param>
    public async Task<IReadOnlyList<JobAhead>> NextAsync(int most, CancellationToken cancellation)
    {
        var judged = (await judgement.GetAsync(null, Patience, cancellation)).Judgement;
        var machines = fleet.All().Where(m => m.RetiredOn is null).ToDictionary(m => m.Asset.Tag, m => m.Asset);
        var deal = new Dealer(notes, policy, rules, fleet, new UsedSoFar(jobs.MaterialsUsed()));
        var newest = jobs.Newest(JobsLookedAt);
        var atBench = newest.Where(j => j.State == JobState.Open).ToList();
        var plan = plans.Newest();
        // Work that was begun since the plan was made stands in it still.
        var begun = newest
            .Where(j => j.State is JobState.Open or JobState.WaitingForProof || j.StartedAt > plan?.MadeAt)
            .Select(j => j.Tag)
            .ToHashSet();
        var aside = judged is null ? [] : setAside.On(judged.AsOf).Keys.ToHashSet();
        var planned =
            from placed in plan?.Placed ?? []
            where placed.Work.Kind == WantedKind.Service
            orderby placed.Start
            from step in placed.Work.Steps
            where step.Level is not null && machines.ContainsKey(step.Tag) && !begun.Contains(step.Tag)
            select deal.Planned(machines[step.Tag], step.Level!.Value, Day(placed.Start), placed.Work.DueBy);
        var advised =
            from a in judged?.Queue ?? []
            where a is { Service: not null, Urgency: <= Urgency.Soon, Measure: null }
            where machines.ContainsKey(a.Asset.Tag) && !begun.Contains(a.Asset.Tag) && !aside.Contains(a.Asset.Tag)
            select deal.Advised(a);
        var assessments = judged?.Queue.ToDictionary(a => a.Asset.Tag);
        var inCampaigns = campaigns.Progress().Where(c => c.Campaign.State != CampaignState.Ended).ToList();
        IEnumerable<JobAhead> OfCampaigns(CampaignStep step) =>
            from c in inCampaigns
            from m in c.Machines
            where m.Step == step && machines.ContainsKey(m.Tag) && !begun.Contains(m.Tag)
            where assessments?.GetValueOrDefault(m.Tag) is not { } a || !WantedWork.GoesFirst(a, c.Campaign.Level)
            select deal.OfCampaign(machines[m.Tag], c.Campaign);
        return
        [
            .. atBench
                .OrderBy(j => j.Id)
                .Select(j => deal.AtBench(j, jobs.Job(j.Id)!))
                .Concat(planned)
                .Concat(OfCampaigns(CampaignStep.Released))
                .Concat(advised)
                .Concat(OfCampaigns(CampaignStep.Waits))
                .DistinctBy(j => j.Asset)
                .Take(most),
        ];
    }

    /// <summary>What work of the level advised, or of one that is asked for, would take on some machines.</summary>
    /// <param name="tags">Of the machines.</param>
    public async Task<IReadOnlyList<JobAhead>> OnAsync(IReadOnlyCollection<string> tags, CancellationToken cancellation)
    {
        var next = (await NextAsync(int.MaxValue, cancellation)).ToDictionary(j => j.Asset);
        return [.. tags.Where(next.ContainsKey).Select(t => next[t])];
    }

    private static DateOnly Day(DateTimeOffset instant) => DateOnly.FromDateTime(instant.UtcDateTime);

    /// <summary>Knows what work on a machine takes.</summary>
    private sealed class Dealer
    {
        private readonly UsedSoFar _used;
        private readonly Dictionary<string, ModelNotes> _notes;
        private readonly HouseRules _rules;
        private readonly BenchSchools _bench;
        private readonly Dictionary<string, string> _siteOf;

        public Dealer(NotesStore notes, PolicyStore policy, RuleStore rules, FleetStore fleet, UsedSoFar used)
        {
            _used = used;
            _notes = notes.All().ToDictionary(n => n.Model);
            _rules = new HouseRules(policy.Current(), rules.All());
            _bench = policy.Bench();
            _siteOf = fleet
                .Sites()
                .SelectMany(s => s.Zones.Select(z => (z.Code, Site: s.Code)))
                .ToDictionary(z => z.Code, z => z.Site);
        }

        public JobAhead AtBench(StoredJob row, Job job) =>
            new(
                row.Tag,
                row.Model,
                job.Level,
                AheadBy.Bench,
                Day(row.StartedAt),
                null,
                row.Id,
                WorkNeeds.Of(job.Basis, row.Model, _used)
            );

        public JobAhead Planned(Asset asset, ServiceLevel level, DateOnly day, DateOnly? dueBy) =>
            new(asset.Tag, asset.Model, level, AheadBy.Plan, day, dueBy, null, Needs(asset, level));

        public JobAhead OfCampaign(Asset asset, Campaign campaign) =>
            new(
                asset.Tag,
                asset.Model,
                campaign.Level,
                AheadBy.Campaign,
                null,
                campaign.DueBy,
                null,
                Needs(asset, campaign.Level)
            );

        public JobAhead Advised(Assessment a) =>
            new(
                a.Asset.Tag,
                a.Asset.Model,
                a.Service!.Value,
                AheadBy.Queue,
                null,
                a.ActBy,
                null,
                Needs(a.Asset, a.Service.Value)
            );

        private IReadOnlyList<Need> Needs(Asset asset, ServiceLevel level) =>
            WorkNeeds.Of(
                new CardBasis(
                    asset.Kind,
                    level,
                    _notes.GetValueOrDefault(asset.Model) ?? ModelNotes.Empty(asset.Model),
                    _rules.For(asset, _siteOf.GetValueOrDefault(asset.Zone, ""), _bench),
                    HasPads: asset.Parts.Any(p => p.Joint == JointMaterial.Pad)
                ),
                asset.Model,
                _used
            );
    }
}
