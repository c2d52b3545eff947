using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Policies;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

namespace Pyrometron.Server.Judging;

/// <summary>The order of work, and the judgement of one machine.</summary>
internal static class QueueEndpoints
{
    /// <summary>How long a call waits for a judgement of the newest data unless it says otherwise.</summary>
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(20);

    public static void MapQueue(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("").WithTags("Judgement");
        group.MapGet("/queue", GetQueue);
        group.MapGet("/assets/{tag}/assessment", GetAssessment);
    }

    /// <summary>The order of work: which machines need cleaning, repasting or repadding next, and why.</summary>
    /// <param name="asOf">A day; default now, or the newest reading's day when that is older than 30 days.</param>
    /// <param name="limit">How many items, or <c>all</c>; default 100.</param>
    /// <param name="wait">Seconds to wait for the newest data to be judged; default 20.</param>
    /// <param name="since">The mark of a queue that the caller has; only with limit all and no other day.</param>
    internal static async Task<Results<Ok<QueueAnswer>, ProblemHttpResult>> GetQueue(
        DateOnly? asOf,
        string? limit,
        double? wait,
        string? since,
        JudgementService service,
        QueueSnapshots snapshots,
        FleetStore fleet,
        SetAsideStore setAside,
        JobStore jobs,
        CancellationToken cancellation
    )
    {
        var most = 100;
        if (limit == "all")
            most = int.MaxValue;
        else if (limit is not null && (!int.TryParse(limit, out most) || most < 0))
            return Problems.Input("/limit", $"'{limit}' is neither a number nor 'all'.");
        if (Refuse(asOf, wait, service) is { } refused)
            return refused;
        var judged = await service.GetAsync(asOf, PatienceOf(wait), cancellation);
        var places = Places.Of(fleet.Sites());
        var aside = judged.Judgement is { } j ? setAside.On(j.AsOf) : new Dictionary<string, SetAside>();
        var items = judged.Judgement is { } rows ? Items(rows, most, places, aside, jobs) : [];
        var zones = (judged.Judgement?.Zones ?? [])
            .Where(z => z.IsWarm)
            .Select(z => new WarmZone(z.Zone, places.ZoneName(z.Zone), z.NowKelvin, z.Machines))
            .ToArray();
        var counts = (judged.Judgement?.Queue ?? [])
            .Where(a => !aside.ContainsKey(a.Asset.Tag))
            .GroupBy(a => a.Urgency)
            .ToDictionary(g => Words.Of(g.Key), g => g.Count());
        var marked = limit == "all" && asOf is null;
        var change = marked && since is not null ? snapshots.Since(since, items) : null;
        var policy = judged.Judgement?.Policy ?? JudgementPolicy.Default;
        return TypedResults.Ok(
            new QueueAnswer(
                judged.Judgement?.AsOf ?? asOf ?? service.PresentDay(),
                change?.Items ?? items,
                judged.Judgement?.Queue.Count ?? 0,
                policy.Values.Currency,
                policy.Precedence,
                counts,
                judged.Judgement?.Queue.Count(a => aside.ContainsKey(a.Asset.Tag)) ?? 0,
                zones,
                [.. (judged.Judgement?.Events ?? []).Select(e => GroupEventAnswer.From(e, places))],
                judged.Judgement?.Queue.Count(a => a.MeasuredDay is null) ?? 0,
                service.Today(),
                judged.JudgedAt,
                judged.Pending,
                judged.Pending ? new JudgingProgress(service.Progress.Done, service.Progress.Of) : null,
                marked ? snapshots.Keep(items) : null,
                change is null ? null : since,
                change?.Gone
            )
        );
    }

    /// <summary>The rows of a judgement, in their order.</summary>
    /// <param name="most">How many.</param>
    /// <param name="aside">Machines that are set aside, by tag.</param>
    internal static QueueItem[] Items(
        FleetJudgement judgement,
        int most,
        Places places,
        IReadOnlyDictionary<string, SetAside> aside,
        JobStore jobs
    )
    {
        var open = jobs.Newest(1000)
            .Where(job => job.State is Core.Jobs.JobState.Open or Core.Jobs.JobState.WaitingForProof)
            .ToLookup(job => job.Tag);
        return
        [
            .. judgement
                // Machines set aside go behind those that somebody should look at, before the fine ones.
                .Queue.OrderBy(a => aside.ContainsKey(a.Asset.Tag) ? Urgency.Watch : a.Urgency)
                .Take(most)
                .Select(
                    (a, i) =>
                        QueueItem.From(
                            a,
                            i + 1,
                            new(places, judgement.AsOf, aside.GetValueOrDefault(a.Asset.Tag), open[a.Asset.Tag].FirstOrDefault())
                        )
                ),
        ];
    }

    /// <summary>How a machine is judged, with what was ruled out and by which evidence.</summary>
    internal static async Task<Results<Ok<AssessmentAnswer>, ProblemHttpResult>> GetAssessment(
        string tag,
        DateOnly? asOf,
        double? wait,
        JudgementService service,
        FleetStore fleet,
        JobStore jobs,
        CancellationToken cancellation
    )
    {
        if (Refuse(asOf, wait, service) is { } refused)
            return refused;
        var judged = await service.GetAsync(asOf, PatienceOf(wait), cancellation);
        if (judged.Judgement is { } judgement && service.One(judgement, tag) is { } assessment)
        {
            var answer = AssessmentAnswer.From(assessment, judged);
            var record = TrackRecord.Of(jobs.PredictedAndFound()).FirstOrDefault(r => r.Predicted == answer.Cause)?.Says;
            return TypedResults.Ok(
                record is null
                    ? answer
                    : answer with
                    {
                        Sentences = [.. answer.Sentences, record.ToString()],
                        SentenceMessages = [.. answer.SentenceMessages, record],
                    }
            );
        }
        return fleet.Find(tag) switch
        {
            null => Problems.Missing($"There is no machine '{tag}'."),
            { RetiredOn: not null } => Problems.Conflict(
                $"'{tag}' is retired and is not judged any more; its history stays on its page."
            ),
            _ => Problems.Conflict($"'{tag}' is still being judged. Ask again in a moment."),
        };
    }

    /// <summary>A day, or a time to wait, that is none.</summary>
    internal static ProblemHttpResult? Refuse(DateOnly? asOf, double? wait, JudgementService service) =>
        asOf is { } day && (day.Year < 1990 || day > service.PresentDay().AddYears(1))
            ? Problems.Input("/asOf", $"{day} is not a day that can be judged.")
        : wait is { } seconds && !(seconds >= 0 && double.IsFinite(seconds))
            ? Problems.Input("/wait", "wait is a number of seconds, 0 or more.")
        : null;

    internal static TimeSpan PatienceOf(double? wait) =>
        wait is { } seconds ? TimeSpan.FromSeconds(Math.Min(seconds, 120)) : Patience;
}
