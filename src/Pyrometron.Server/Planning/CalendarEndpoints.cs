using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Weeks;
using Pyrometron.Formats.Calendars;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Judging;
using Pyrometron.Storage;

namespace Pyrometron.Server.Planning;

/// <summary>What is to be done by when, for calendars that people have already.</summary>
internal static class CalendarEndpoints
{
    private const int DaysAhead = 366,
        JobsLookedAt = 1000;

    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(5);

    public static void MapCalendar(this RouteGroupBuilder api) =>
        api.MapGroup("")
            .WithTags("Plan")
            .MapGet("/calendar.ics", GetAsync)
            .Produces<string>(StatusCodes.Status200OK, "text/calendar");

    /// <summary>
    /// What needs work, on the day by which; what the calendar asks for within a year; and the after-runs that are missing. Of
    /// a person: what the plan gives them, at its times, and what it took from them again.
    /// </summary>
    /// <param name="zone">The code of a zone, for its machines alone.</param>
    /// <param name="person">The code of a person, for their part of the plan; a zone then counts for nothing.</param>
    private static async Task<Results<ContentHttpResult, ProblemHttpResult>> GetAsync(
        string? zone,
        string? person,
        PlanStore plans,
        PeopleStore people,
        JudgementService service,
        FleetStore fleet,
        SetAsideStore setAside,
        JobStore jobs,
        TimeProvider time,
        CancellationToken cancellation
    )
    {
        var places = Places.Of(fleet.Sites());
        if (zone is not null && !places.HasZone(zone))
            return Problems.Missing($"There is no zone '{zone}'.");
        var now = time.GetUtcNow();
        if (person is not null)
        {
            if (people.All().FirstOrDefault(p => p.Code == person) is not { } who)
                return Problems.Missing($"Nobody has the code '{person}'.");
            var visits = plans.Newest() is { } plan ? Visits(plans, plan, who.Code, now, places) : [];
            return Calendar(CalendarFile.Write($"Pyrometron: {who.Name}", visits, now));
        }
        var judgement = (await service.GetAsync(null, Patience, cancellation)).Judgement;
        var aside = judgement is null ? [] : setAside.On(judgement.AsOf).Keys.ToHashSet();
        var machines = (judgement?.Queue ?? []).Where(a =>
            !aside.Contains(a.Asset.Tag) && (zone is null || a.Asset.Zone == zone)
        );
        var looks = jobs.Newest(JobsLookedAt).Where(j => j.State == JobState.WaitingForProof).ToLookup(j => j.Tag);
        var days = machines.SelectMany(a =>
            Of(a, judgement!.AsOf)
                .Concat(looks[a.Asset.Tag].Select(j => AfterRun(j, service.Today())))
                .Select(d => d with { Place = places.ZoneName(a.Asset.Zone) })
        );
        var name = zone is null ? "Pyrometron" : $"Pyrometron: {places.ZoneName(zone)}";
        return Calendar(CalendarFile.Write(name, days, now));
    }

    private static ContentHttpResult Calendar(string text) => TypedResults.Content(text, "text/calendar; charset=utf-8");

    /// <summary>Somebody's part of the plan, and what earlier plans gave them that is not theirs any more.</summary>
    private static IEnumerable<CalendarVisit> Visits(
        PlanStore plans,
        StoredPlan plan,
        string person,
        DateTimeOffset now,
        Places places
    )
    {
        var theirs = plan.Placed.Where(p => p.Person == person).ToDictionary(p => p.Work.Id);
        CalendarVisit Of(Placed placed, bool cancelled) =>
            new(
                $"{placed.Work.Id}-{person}",
                placed.Start,
                TimeSpan.FromMinutes(placed.Work.Minutes),
                Title(placed.Work),
                placed.Work.DueBy is { } due ? FormattableString.Invariant($"Due by {due:yyyy-MM-dd}.") : "",
                places.ZoneName(placed.Work.Zone),
                (int)plan.Id,
                cancelled
            );
        return theirs
            .Values.Select(p => Of(p, cancelled: false))
            .Concat(plans.Earlier(person, now).Where(p => !theirs.ContainsKey(p.Work.Id)).Select(p => Of(p, cancelled: true)));
    }

    private static string Title(Wanted work) =>
        work.Kind switch
        {
            WantedKind.Visit => work.Title,
            WantedKind.Service => string.Join(", ", work.Steps.Select(s => $"{s.Tag}: {Words.Of(s.Level!.Value)}")),
            _ => $"{work.Steps[0].Tag}: {Words.Of(work.Kind).Replace('-', ' ')}",
        };

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
