using Pyrometron.Application.Notices;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Notices;
using Pyrometron.Core.Stores;
using Pyrometron.Core.Weeks;
using Pyrometron.Server.Judging;
using Pyrometron.Server.Stores;
using Pyrometron.Storage;

namespace Pyrometron.Server.Notices;

/// <summary>Notices what is new in the house: after each judgement, and when the day changes.</summary>
internal sealed class NoticeDesk(
    JudgementService judgement,
    SetAsideStore setAside,
    JobStore jobs,
    FleetStore fleet,
    LotStore lots,
    WorkAhead ahead,
    NoticeStore notices,
    NoticeUseCases useCases,
    AboutStore about
)
{
    private const int JobsLookedAt = 1000;

    /// <summary>The demo begins to be watched so many days ago: it has news on its first day.</summary>
    private const int DemoDays = 7;

    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(5),
        DemoPatience = TimeSpan.FromMinutes(2);

    private (DateTimeOffset? JudgedAt, DateOnly Day) _noticed;

    /// <summary>Notices what is new; nothing while the newest data is still being judged.</summary>
    public async Task LookAsync(CancellationToken cancellation)
    {
        var judged = await judgement.GetAsync(null, Patience, cancellation);
        var today = judgement.Today();
        if (judged.Pending || judged.Judgement is not { Queue.Count: > 0 } now || _noticed == (judged.JudgedAt, today))
            return;
        if (about.Data == "demo" && notices.WatchedSince() is null)
            await BeginDemoAsync(today.AddDays(-DemoDays), cancellation);
        var open = jobs.Newest(JobsLookedAt).Where(j => j.State is JobState.Open or JobState.WaitingForProof);
        var supply = Supply.Of(lots.Shelf(today), await ahead.NextAsync(JobsLookedAt, cancellation));
        useCases.Notice(today, Conditions.Of(House(now, today, InHand(open, now), supply)));
        _noticed = (judged.JudgedAt, today);
    }

    /// <summary>What the demo's machines were like some days ago is what it begins with.</summary>
    private async Task BeginDemoAsync(DateOnly day, CancellationToken cancellation)
    {
        if ((await judgement.GetAsync(day, DemoPatience, cancellation)).Judgement is { } before)
            useCases.Notice(day, Conditions.Of(House(before, day, [], [])));
    }

    private HouseToday House(
        Core.Judging.FleetJudgement judged,
        DateOnly day,
        IReadOnlyList<JobInHand> inHand,
        IReadOnlyList<JobSupply> supply
    )
    {
        var aside = setAside.On(judged.AsOf).Keys.ToHashSet();
        return new HouseToday(
            day,
            [.. judged.Queue.Where(a => !aside.Contains(a.Asset.Tag))],
            judged.Events,
            [.. judged.Zones.Where(z => z.IsWarm)],
            inHand,
            supply,
            fleet.Sites().SelectMany(s => s.Zones).ToDictionary(z => z.Code, z => z.Name)
        );
    }

    private List<JobInHand> InHand(IEnumerable<StoredJob> open, Core.Judging.FleetJudgement judged)
    {
        var touched = jobs.LastTouched();
        return
        [
            .. from j in open
            where judged.ByTag.ContainsKey(j.Tag)
            let since = j.State == JobState.Open ? touched.GetValueOrDefault(j.Id, j.StartedAt) : j.WorkDoneAt ?? j.StartedAt
            select new JobInHand(
                j.Id,
                j.Tag,
                judged.ByTag[j.Tag].Asset.Zone,
                j.Level,
                j.State,
                DateOnly.FromDateTime(since.UtcDateTime)
            ),
        ];
    }
}

/// <summary>
/// Tells whether something concerns somebody: who works at some sites only hears of those, and of the whole house.
/// </summary>
/// <param name="siteOf">Codes of sites by zone.</param>
internal sealed class Concern(IReadOnlyDictionary<string, string> siteOf)
{
    /// <summary>For the house as it is.</summary>
    public static Concern Of(IEnumerable<Site> sites) =>
        new(sites.SelectMany(s => s.Zones, (s, z) => (z.Code, Site: s.Code)).ToDictionary(z => z.Code, z => z.Site));

    public bool IsFor(Person person, Notice notice) =>
        person.Sites.Count == 0
        || notice.Condition.Zone is not { } zone
        || !siteOf.TryGetValue(zone, out var site)
        || person.Sites.Contains(site);
}
