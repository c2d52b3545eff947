using System.Diagnostics;
using Pyrometron.Application;
using Pyrometron.Application.Weeks;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Planning;
using Pyrometron.Core.Weeks;
using Pyrometron.Server.Campaigns;
using Pyrometron.Server.Judging;
using Pyrometron.Server.Planning;
using Pyrometron.Storage;

namespace Pyrometron.Server.Weeks;

/// <summary>A plan being made in the background.</summary>
/// <param name="Seconds">How long may be thought.</param>
/// <param name="Passed">Seconds of it that have passed.</param>
/// <param name="Wanted">Jobs that want a place.</param>
/// <param name="Placed">Jobs in their places in the best plan so far.</param>
/// <param name="Gap">What that may cost more than the best plan, as a share; null before the first plan.</param>
public sealed record PlanRun(double Seconds, double Passed, int Wanted, int Placed, double? Gap);

/// <summary>Makes plans of the house in the background, one at a time.</summary>
internal sealed class WeeksDesk(
    PlanningDesk desk,
    JudgementService judgement,
    FleetStore fleet,
    PeopleStore people,
    ZoneTimesStore zones,
    JobStore jobs,
    SetAsideStore setAside,
    PlanStore plans,
    CampaignReading campaigns,
    PlanUseCases useCases,
    TimeProvider clock,
    ILogger<WeeksDesk> log
) : IDisposable
{
    private const int JobsLookedAt = 1000;

    /// <summary>Nothing is planned sooner than this from now, minutes: somebody has to read the plan.</summary>
    private const int LeadMinutes = 5;

    private readonly Lock _guard = new();
    private Running? _running;

    private sealed class Running(double seconds) : IProgress<Plan>
    {
        private readonly Stopwatch _clock = Stopwatch.StartNew();
        private Plan? _best;

        public CancellationTokenSource Stop { get; } = new();

        public int Wanted { get; set; }

        public void Report(Plan value) => _best = value;

        public PlanRun Told =>
            new(seconds, Math.Min(seconds, _clock.Elapsed.TotalSeconds), Wanted, _best?.Assignments.Count ?? 0, _best?.Gap);
    }

    /// <summary>The plan being made; null while none is.</summary>
    public PlanRun? Run => _running?.Told;

    /// <summary>Why the last one was not made; null where nothing went wrong.</summary>
    public Message? Failure { get; private set; }

    /// <summary>The house as it is.</summary>
    public House House =>
        new(fleet.Sites(), people.All(), [.. people.Absences().Select(a => a.Absence)], zones.All(), TimeZoneInfo.Local)
        {
            Walking = zones.Walking(),
        };

    /// <summary>Begins a plan and does not wait for it.</summary>
    /// <exception cref="NotPossibleException">One is being made, or nothing is judged yet.</exception>
    /// <exception cref="NotAllowedException">The actor may not plan.</exception>
    public void Start(Actor actor, DateOnly start, int days, double seconds)
    {
        PlanUseCases.CheckMay(actor);
        var running = Begin(seconds);
        _ = Task.Run(() => MakeAsync(actor, start, days, seconds, running));
    }

    /// <summary>Makes a plan and waits for it.</summary>
    /// <exception cref="NotPossibleException">One is being made.</exception>
    public async Task MakeAsync(Actor actor, DateOnly start, int days, double seconds, CancellationToken cancellation)
    {
        var running = Begin(seconds);
        await using var stop = cancellation.Register(running.Stop.Cancel);
        await MakeAsync(actor, start, days, seconds, running);
    }

    private Running Begin(double seconds)
    {
        lock (_guard)
        {
            if (_running is not null)
                throw new NotPossibleException("A plan is being made already: wait for it, or stop it.");
            Failure = null;
            return _running = new Running(seconds);
        }
    }

    /// <summary>Ends the thinking; the best plan so far is put in force.</summary>
    public void Stop() => _running?.Stop.Cancel();

    /// <inheritdoc/>
    public void Dispose() => _running?.Stop.Cancel();

    private async Task MakeAsync(Actor actor, DateOnly start, int days, double seconds, Running running)
    {
        try
        {
            var before = plans.Newest();
            var house = House;
            var (wanted, byHand) = await WantedAsync(before, house);
            running.Wanted = wanted.Count;
            var week = new WeekProblem(
                house,
                start,
                days,
                wanted,
                before?.Placed ?? [],
                clock.GetUtcNow().AddMinutes(LeadMinutes)
            );
            var plan = await desk.SolveAsync(week.Problem, seconds, running, running.Stop.Token, CancellationToken.None);
            useCases.Keep(actor, before?.Id, week, plan, byHand);
        }
        catch (NotPossibleException refused)
        {
            Failure = refused.Says;
        }
        catch (Exception error)
        {
            log.LogError(error, "No plan could be made; the last one stays in force");
            Failure = "No plan could be made: the log of the server says why. The last one stays in force.";
        }
        finally
        {
            _running = null;
        }
    }

    /// <summary>All work that wants a place, and what a person left out.</summary>
    private async Task<(IReadOnlyList<Wanted> Wanted, IReadOnlyList<StoredLeftOut> ByHand)> WantedAsync(
        StoredPlan? before,
        House house
    )
    {
        var judged =
            (await judgement.GetAsync(null, TimeSpan.FromSeconds(60), CancellationToken.None)).Judgement
            ?? throw new NotPossibleException("The machines are still being judged: plan again when Rounds shows them.");
        var aside = setAside.On(judged.AsOf).Keys.ToHashSet();
        var newest = jobs.Newest(JobsLookedAt);
        var atBench = newest.Where(j => j.State is JobState.Open or JobState.WaitingForProof).Select(j => j.Tag).ToHashSet();
        var assets = judged.Queue.ToDictionary(a => a.Asset.Tag, a => a.Asset);
        var byHand = (before?.LeftOut ?? []).Where(l => l.Code is null).ToList();
        var left = byHand.Select(l => l.Work.Id).ToHashSet();
        var visits = (before?.Placed.Select(p => p.Work) ?? [])
            .Concat(before?.LeftOut.Select(l => l.Work) ?? [])
            .Where(w => w.Kind == WantedKind.Visit);
        var holds = zones.Holds();
        var free = judged.Queue.Where(a => !aside.Contains(a.Asset.Tag) && !atBench.Contains(a.Asset.Tag)).ToList();
        var ofCampaigns = OfCampaigns(free, holds);
        var inCampaign = ofCampaigns.SelectMany(w => w.Steps).Select(s => s.Tag).ToHashSet();
        Wanted[] all =
        [
            .. ofCampaigns,
            .. WantedWork.Advised(free.Where(a => !inCampaign.Contains(a.Asset.Tag)), holds),
            .. newest.Where(j => assets.ContainsKey(j.Tag)).SelectMany(j => FollowUps(j, assets[j.Tag])),
            .. visits,
        ];
        // A visit may outlive its zone.
        var known = house.Sites.SelectMany(s => s.Zones).Select(z => z.Code).ToHashSet();
        // Should a machine's tag read like the id of a visit, the machine goes before it.
        return ([.. all.Where(w => !left.Contains(w.Id) && known.Contains(w.Zone)).DistinctBy(w => w.Id)], byHand);
    }

    /// <summary>The machines that campaigns have released.</summary>
    private List<Wanted> OfCampaigns(IEnumerable<Assessment> free, IReadOnlyDictionary<string, Hold> holds)
    {
        var released = campaigns
            .Progress()
            .SelectMany(p => p.Released.Select(tag => (tag, p.Campaign)))
            .ToDictionary(r => r.tag, r => r.Campaign);
        return
        [
            .. WantedWork.ByHost(
                from a in free
                where released.ContainsKey(a.Asset.Tag)
                let c = released[a.Asset.Tag]
                let work = WantedWork.OfCampaign(a, c.Name, c.Level, c.DueBy, holds.GetValueOrDefault(a.Asset.Tag))
                where work is not null
                select (a.Asset.HostTag ?? a.Asset.Tag, work)
            ),
        ];
    }

    private static IEnumerable<Wanted> FollowUps(StoredJob job, Asset asset)
    {
        if (job.State == JobState.WaitingForProof)
            yield return WantedWork.AfterRun(job.Id, asset, Day(job.WorkDoneAt ?? job.StartedAt));
        else if (job is { ClosedAt: not null, RecheckDue: { } due, RecheckedAt: null })
            yield return WantedWork.SecondLook(job.Id, asset, Day(due));
    }

    private static DateOnly Day(DateTimeOffset instant) => DateOnly.FromDateTime(instant.UtcDateTime);
}
