using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Judging;
using Pyrometron.Formats.Calendars;
using Pyrometron.Server.Access;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Judging;
using Pyrometron.Server.Weeks;
using Pyrometron.Storage;

namespace Pyrometron.Server.Planning;

/// <summary>What is to be done by when, for calendars that people have already.</summary>
internal static class CalendarEndpoints
{
    private const int DaysAhead = 366,
        JobsLookedAt = 1000;

    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(20);

    public static void MapCalendar(this RouteGroupBuilder api) =>
        api.MapGroup("")
            .WithTags("Plan")
            .MapGet("/calendar.ics", GetAsync)
            .ForKeys(KeyScope.Calendar)
            .Produces<string>(StatusCodes.Status200OK, "text/calendar");

    /// <summary>
    /// The plan, at its times; what needs work, on the day by which; what the calendar asks for within a year; and the after-runs
    /// that are missing. What the plan held before and does not any more is told as cancelled. Of a person: their part of the
    /// plan alone.
    /// </summary>
    /// <param name="zone">The code of a zone, for its machines alone.</param>
    /// <param name="person">The code of a person, for their part of the plan; a zone then counts for nothing.</param>
    internal static async Task<Results<ContentHttpResult, ProblemHttpResult>> GetAsync(
        string? zone,
        string? person,
        PlanStore plans,
        WeeksDesk weeks,
        JudgementService service,
        SetAsideStore setAside,
        JobStore jobs,
        TimeProvider time,
        CancellationToken cancellation
    )
    {
        var house = weeks.House;
        var places = Places.Of(house.Sites);
        if (zone is not null && !places.HasZone(zone))
            return Problems.Missing($"There is no zone '{zone}'.");
        var visits = new PlannedVisits(plans, house, time.GetUtcNow());
        if (person is not null)
            return house.People.FirstOrDefault(p => p.Code == person) is { } who
                ? Calendar($"Pyrometron: {who.Name}", [], visits.Of(who))
                : Problems.Missing($"Nobody has the code '{person}'.");
        var judgement = (await service.GetAsync(null, Patience, cancellation)).Judgement;
        // A calendar without its due days would be taken for one that has none.
        if (judgement is null)
            return Problems.Conflict("The machines are being judged for the first time. Ask again in a moment.");
        var aside = setAside.On(judgement.AsOf).Keys.ToHashSet();
        var machines = judgement.Queue.Where(a => !aside.Contains(a.Asset.Tag) && (zone is null || a.Asset.Zone == zone));
        var looks = jobs.Newest(JobsLookedAt).Where(j => j.State == JobState.WaitingForProof).ToLookup(j => j.Tag);
        var days = machines.SelectMany(a =>
            Of(a, judgement.AsOf)
                .Concat(looks[a.Asset.Tag].Select(j => AfterRun(j, service.Today())))
                .Select(d => d with { Place = places.ZoneName(a.Asset.Zone) })
        );
        return Calendar(zone is null ? "Pyrometron" : $"Pyrometron: {places.ZoneName(zone)}", days, visits.In(zone));

        ContentHttpResult Calendar(string name, IEnumerable<CalendarDay> due, IReadOnlyCollection<CalendarVisit> planned) =>
            TypedResults.Content(CalendarFile.Write(name, due, planned, time.GetUtcNow()), "text/calendar; charset=utf-8");
    }

    private static IEnumerable<CalendarDay> Of(Assessment a, DateOnly today)
    {
        var tag = a.Asset.Tag;
        if (a.Service is { } service && a.Urgency is Urgency.Now or Urgency.Next or Urgency.Soon)
        {
            var by = a.ActBy ?? today;
            yield return Day(tag, service, by < today ? today : by, a.Reason.ToString(), "work");
        }
        else if (a.ServiceDue is { } due && due.Due >= today && due.Due <= today.AddDays(DaysAhead))
            yield return Day(tag, due.Level, due.Due, $"Due by its interval of {due.Days} days. {a.Reason}", "due");
    }

    private static CalendarDay Day(string tag, ServiceLevel level, DateOnly day, string text, string group) =>
        new($"{tag}-{Words.Of(level)}", day, $"{tag}: {Words.Of(level)}", text, "", group);

    private static CalendarDay AfterRun(StoredJob job, DateOnly today) =>
        new(
            $"job-{job.Id}-after-run",
            today,
            $"{job.Tag}: after-run of its {Words.Of(job.Level)}",
            "The work is done; the run that shows whether it helped is missing.",
            "",
            "after-run"
        );
}
