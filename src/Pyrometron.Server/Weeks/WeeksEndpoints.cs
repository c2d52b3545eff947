using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Application.Weeks;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Weeks;
using Pyrometron.Server.Access;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Judging;
using Pyrometron.Storage;

namespace Pyrometron.Server.Weeks;

/// <summary>Weeks to plan.</summary>
/// <param name="Start">The first day; today where missing.</param>
/// <param name="Days">How many days, 1 to 42; 14 where missing.</param>
/// <param name="Seconds">How long may be thought, up to 120; 10 where missing.</param>
public sealed record MakePlan(DateOnly? Start, int? Days, double? Seconds);

/// <summary>A place for a job.</summary>
/// <param name="Seen">Number of the plan that was looked at.</param>
/// <param name="Person">Code of who does it.</param>
/// <param name="Day">The day of the shift, on that person's calendar.</param>
/// <param name="From">When it begins by that person's clock, minutes from 00:00 of the day; beyond 1440 after midnight.</param>
/// <param name="TryOnly">Whether it is only asked.</param>
public sealed record PlaceJob(long? Seen, string? Person, DateOnly? Day, int? From, bool? TryOnly);

/// <summary>Whether a job may stand where it was to be put.</summary>
/// <param name="Conflict">Why not; null where it may, and then it does unless it was only asked.</param>
public sealed record PlaceAnswer(Message? Conflict);

/// <summary>Whether a job stays where it is when the plan is made anew.</summary>
public sealed record LockJob(long? Seen, bool? Locked);

/// <summary>Somebody is late.</summary>
/// <param name="Minutes">By how much, 5 to 480.</param>
public sealed record LateBy(long? Seen, string? Person, int? Minutes);

/// <summary>What became of the rest of their shift.</summary>
/// <param name="Moved">Jobs that begin later.</param>
/// <param name="Lost">Jobs that have no place any more.</param>
public sealed record LateAnswer(int Moved, int Lost);

/// <summary>The plan that was looked at.</summary>
public sealed record SeenPlan(long? Seen);

/// <summary>Work that nobody advised.</summary>
/// <param name="Title">What it is.</param>
/// <param name="Zone">Code of the zone.</param>
/// <param name="Minutes">How long it takes, 1 to 720.</param>
/// <param name="DueBy">The last day on which it is not late; null where it never is.</param>
public sealed record NewVisit(long? Seen, string? Title, string? Zone, int? Minutes, DateOnly? DueBy);

/// <summary>Work that was added.</summary>
public sealed record VisitAdded(string Id);

/// <summary>The plan of the house: made in the background, changed by hand, taken back.</summary>
internal static class WeeksEndpoints
{
    private const int MostDays = 42,
        UsualDays = 14,
        UsualMonths = 6,
        LongestTitle = 80,
        LongestVisit = 720,
        JobsLookedAt = 1000,
        LeastLate = 5,
        MostLate = 480;

    private const double MostSeconds = 120,
        UsualSeconds = 10;

    public static void MapWeeks(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/weeks").WithTags("Weeks");
        group.MapGet("", Get);
        group.MapGet("/hours", HoursAsync);
        group.MapPost("/plan", Make);
        group.MapPost("/stop", Stop).Needs(Right.Plan);
        group.MapPost("/jobs", AddVisit);
        group.MapPost("/jobs/{id}/place", Place);
        group.MapPost("/jobs/{id}/lock", Lock);
        group.MapPost("/jobs/{id}/leave-out", LeaveOut);
        group.MapPost("/late", RunLate);
        group.MapPost("/take-back", TakeBack);
    }

    /// <summary>The plan of the weeks to come.</summary>
    internal static WeeksAnswer Get(WeeksDesk desk, PlanStore plans, JobStore jobs, TimeProvider clock)
    {
        // Asked first: a plan that is done between the two is then still told as being made, and asked for once more.
        var run = desk.Run;
        var house = desk.House;
        var plan = plans.Newest();
        var before = plan?.Before is { } id ? plans.Find(id) : null;
        var bench = jobs.Newest(JobsLookedAt).GroupBy(j => j.Tag).ToDictionary(j => j.Key, j => j.First());
        return new(
            plan is null ? null : new PlanReading(plan, house).Answer(before, bench),
            run,
            desk.Failure,
            Today(house, clock)
        );
    }

    /// <summary>How many machines pass their line until a day, with more or fewer hours of work a week.</summary>
    /// <param name="until">The day, within two years; half a year from today where missing.</param>
    internal static async Task<Results<Ok<HoursAnswer>, ProblemHttpResult>> HoursAsync(
        DateOnly? until,
        JudgementService judgement,
        PeopleStore people,
        SetAsideStore setAside,
        CancellationToken cancellation
    )
    {
        var judged = (await judgement.GetAsync(null, TimeSpan.FromSeconds(5), cancellation)).Judgement;
        if (judged is null)
            return Problems.Conflict("The machines are still being judged.");
        var day = until ?? judged.AsOf.AddMonths(UsualMonths);
        if (day < judged.AsOf || day > judged.AsOf.AddYears(2))
            return Problems.Input("/until", "until must be a day from today on, within two years");
        var aside = setAside.On(judged.AsOf);
        return TypedResults.Ok(
            HoursCurve.Of(judged.Queue.Where(a => !aside.ContainsKey(a.Asset.Tag)), judged.AsOf, day, people.All())
        );
    }

    /// <summary>Begins to plan; GET /weeks tells how far it is.</summary>
    internal static Results<Accepted, ProblemHttpResult> Make(Caller caller, MakePlan request, WeeksDesk desk, TimeProvider clock)
    {
        var today = Today(desk.House, clock);
        var start = request.Start ?? today;
        if (start < today || start > today.AddYears(1))
            return Problems.Input("/start", "start must be a day from today on, within a year");
        if (request.Days is not (null or (>= 1 and <= MostDays)))
            return Problems.Input("/days", $"days must be a whole number from 1 to {MostDays}");
        if (request.Seconds is not (null or (>= 0 and <= MostSeconds)))
            return Problems.Input("/seconds", $"seconds must be a number from 0 to {MostSeconds}");
        if (desk.House.People.Count == 0)
            return Problems.Conflict("There is nobody to plan for: add who works on machines first.");
        desk.Start(caller.Actor, start, request.Days ?? UsualDays, request.Seconds ?? UsualSeconds);
        return TypedResults.Accepted("/api/v1/weeks");
    }

    /// <summary>Stops planning; the best plan so far is kept.</summary>
    internal static NoContent Stop(WeeksDesk desk)
    {
        desk.Stop();
        return TypedResults.NoContent();
    }

    /// <summary>Gives work another person or time; what speaks against it is told.</summary>
    internal static Results<Ok<PlaceAnswer>, ProblemHttpResult> Place(
        Caller caller,
        string id,
        PlaceJob request,
        WeeksDesk desk,
        PlanStore plans,
        PlanUseCases useCases
    )
    {
        if (NeedsSeen(request.Seen) is { } problem)
            return problem;
        if (request.Day is not { } day || request.From is not (>= 0 and < 2880))
            return Problems.Input("/from", "day and from are needed: a day, and minutes from 0 to 2879");
        var house = desk.House;
        if (house.People.FirstOrDefault(p => p.Code == request.Person) is not { } person)
            return Problems.Missing($"Nobody has the code '{request.Person}'.");
        if (plans.Find(request.Seen!.Value) is not { } plan)
            return Problems.Conflict("There is no such plan any more: look at the one in force.");
        if (Math.Abs(day.DayNumber - plan.Start.DayNumber) > MostDays)
            return Problems.Input("/day", "day must lie within the plan");
        var minute = new LocalClock(day, house.ClockOf(person)).Minute(day, request.From.Value);
        var start = new DateTimeOffset(day, TimeOnly.MinValue, TimeSpan.Zero).AddMinutes(minute);
        var why = useCases.Place(caller.Actor, request.Seen.Value, id, person.Code, start, request.TryOnly ?? false);
        return TypedResults.Ok(new PlaceAnswer(why));
    }

    /// <summary>Locks work where it stands, or frees it.</summary>
    internal static Results<NoContent, ProblemHttpResult> Lock(Caller caller, string id, LockJob request, PlanUseCases useCases)
    {
        if (NeedsSeen(request.Seen) is { } problem)
            return problem;
        if (request.Locked is not { } locked)
            return Problems.Input("/locked", "locked is needed: true or false");
        useCases.Lock(caller.Actor, request.Seen!.Value, id, locked);
        return TypedResults.NoContent();
    }

    /// <summary>Leaves work out of the plan.</summary>
    internal static Results<NoContent, ProblemHttpResult> LeaveOut(
        Caller caller,
        string id,
        SeenPlan request,
        PlanUseCases useCases
    )
    {
        if (NeedsSeen(request.Seen) is { } problem)
            return problem;
        useCases.LeaveOut(caller.Actor, request.Seen!.Value, id);
        return TypedResults.NoContent();
    }

    /// <summary>Adds work that nobody advised.</summary>
    internal static Results<Ok<VisitAdded>, ProblemHttpResult> AddVisit(Caller caller, NewVisit request, PlanUseCases useCases)
    {
        if (NeedsSeen(request.Seen) is { } problem)
            return problem;
        if (!Texts.IsLine(request.Title, LongestTitle))
            return Problems.Input("/title", $"title is needed: {LongestTitle} characters at most, on one line");
        if (request.Minutes is not (>= 1 and <= LongestVisit))
            return Problems.Input("/minutes", $"minutes must be a whole number from 1 to {LongestVisit}");
        var id = useCases.AddVisit(
            caller.Actor,
            request.Seen!.Value,
            request.Title!.Trim(),
            request.Zone ?? "",
            request.Minutes.Value,
            request.DueBy
        );
        return TypedResults.Ok(new VisitAdded(id));
    }

    /// <summary>Moves what is left of somebody's day: work took longer.</summary>
    internal static Results<Ok<LateAnswer>, ProblemHttpResult> RunLate(
        Caller caller,
        LateBy request,
        PlanUseCases useCases,
        JobStore jobs
    )
    {
        if (NeedsSeen(request.Seen) is { } problem)
            return problem;
        if (request.Minutes is not (>= LeastLate and <= MostLate))
            return Problems.Input("/minutes", $"minutes must be a whole number from {LeastLate} to {MostLate}");
        var begun = jobs.Newest(JobsLookedAt).Where(j => j.ClosedAt is null).Select(j => j.Tag).ToHashSet();
        var (moved, lost) = useCases.RunLate(
            caller.Actor,
            request.Seen!.Value,
            request.Person ?? "",
            request.Minutes.Value,
            work => work.Steps.Any(s => begun.Contains(s.Tag))
        );
        return TypedResults.Ok(new LateAnswer(moved, lost));
    }

    /// <summary>Takes the last change of the plan back.</summary>
    internal static Results<NoContent, ProblemHttpResult> TakeBack(Caller caller, SeenPlan request, PlanUseCases useCases)
    {
        if (NeedsSeen(request.Seen) is { } problem)
            return problem;
        useCases.TakeBack(caller.Actor, request.Seen!.Value);
        return TypedResults.NoContent();
    }

    private static ProblemHttpResult? NeedsSeen(long? seen) =>
        seen is null ? Problems.Input("/seen", "seen is needed: the number of the plan that was looked at") : null;

    private static DateOnly Today(House house, TimeProvider clock) =>
        DateOnly.FromDateTime(TimeZoneInfo.ConvertTime(clock.GetUtcNow(), house.TimeZone).DateTime);
}
