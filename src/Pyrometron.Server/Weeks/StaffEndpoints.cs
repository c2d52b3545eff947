using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Application.Weeks;
using Pyrometron.Core.Planning;
using Pyrometron.Core.Weeks;
using Pyrometron.Formats;
using Pyrometron.Server.Access;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

namespace Pyrometron.Server.Weeks;

/// <summary>A stretch of every week.</summary>
/// <param name="From">Such as 08:00.</param>
/// <param name="To">Such as 16:00; not later than <paramref name="From"/> means on the next day.</param>
public sealed record WeeklyTimeDto(DayOfWeek? Day, string? From, string? To);

/// <summary>Somebody who works on machines.</summary>
/// <param name="Skills">What they may do beyond what everybody may.</param>
/// <param name="Sites">Codes of sites; empty for all.</param>
/// <param name="Hours">When they work, by the clock of the first site they work at; no two overlap.</param>
public sealed record PersonDto(
    string? Name,
    IReadOnlyList<Skill>? Skills,
    IReadOnlyList<string>? Sites,
    IReadOnlyList<WeeklyTimeDto?>? Hours
);

/// <summary>Days on which somebody is away.</summary>
/// <param name="To">The last of them; the first where missing.</param>
public sealed record AbsenceDto(DateOnly? From, DateOnly? To, string? Reason);

/// <summary>When machines of a zone may be worked on.</summary>
/// <param name="SetupMinutes">The tools, the mat: before the first job of a visit.</param>
/// <param name="MaxDown">How many may be down at once; any number where null.</param>
/// <param name="Open">The stretches of a week in which machines may be down; empty for always.</param>
/// <param name="Closed">Days on which none may be.</param>
public sealed record ZoneTimesDto(
    int? SetupMinutes,
    int? MaxDown,
    IReadOnlyList<WeeklyTimeDto?>? Open,
    IReadOnlyList<AbsenceDto?>? Closed
);

/// <summary>The way between zones, minutes; it adds to the set-up.</summary>
/// <param name="WithinSite">Between zones of one site.</param>
/// <param name="BetweenSites">From one site to another.</param>
public sealed record WalkingDto(int? WithinSite, int? BetweenSites);

/// <summary>A machine that waits.</summary>
/// <param name="Until">The first day on which it may be worked on; null where it waits no longer.</param>
/// <param name="Reason">What for.</param>
public sealed record HoldDto(DateOnly? Until, string? Reason);

/// <summary>A person with their absences.</summary>
public sealed record PersonAnswer(
    string Code,
    string Name,
    IReadOnlyList<Skill> Skills,
    IReadOnlyList<string> Sites,
    IReadOnlyList<WeeklyTimeDto> Hours,
    IReadOnlyList<AbsenceAnswer> Absences
);

/// <summary>An absence.</summary>
public sealed record AbsenceAnswer(long Id, DateOnly From, DateOnly To, string Reason);

/// <summary>Times of work of a zone.</summary>
public sealed record ZoneTimesAnswer(
    string Zone,
    string Name,
    int SetupMinutes,
    int? MaxDown,
    IReadOnlyList<WeeklyTimeDto> Open,
    IReadOnlyList<ClosedDays> Closed
);

/// <summary>Who works when, and where work may be done when.</summary>
public sealed record StaffAnswer(
    IReadOnlyList<PersonAnswer> People,
    IReadOnlyList<ZoneTimesAnswer> Zones,
    IReadOnlyList<Hold> Holds,
    WalkingDto Walking
);

/// <summary>Who works when, where work may be done when, and what waits.</summary>
internal static class StaffEndpoints
{
    private const int LongestName = 80,
        LongestCode = 40,
        MostTimes = 50,
        MostMinutes = 240,
        MostYears = 3;

    public static void MapStaff(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("").WithTags("Weeks");
        group.MapGet("/staff", Get);
        group.MapPut("/people/{code}", PutPerson);
        group.MapDelete("/people/{code}", RemovePerson);
        group.MapPost("/people/{code}/absences", AddAbsence);
        group.MapDelete("/absences/{id:long}", RemoveAbsence);
        group.MapPut("/zones/{code}/times", PutZone);
        group.MapPut("/walking", PutWalking);
        group.MapPut("/assets/{tag}/hold", PutHold);
    }

    /// <summary>Who works when, and where work may be done when.</summary>
    internal static StaffAnswer Get(PeopleStore people, ZoneTimesStore zones, FleetStore fleet)
    {
        var absences = people.Absences().ToLookup(a => a.Absence.Person);
        var times = zones.All().ToDictionary(z => z.Zone);
        var way = zones.Walking();
        return new(
            [
                .. people
                    .All()
                    .Select(p => new PersonAnswer(
                        p.Code,
                        p.Name,
                        [.. p.Skills.Order()],
                        p.Sites,
                        [.. p.Hours.Select(Told)],
                        [.. absences[p.Code].Select(a => new AbsenceAnswer(a.Id, a.Absence.From, a.Absence.To, a.Absence.Reason))]
                    )),
            ],
            [
                .. fleet
                    .Sites()
                    .SelectMany(s => s.Zones)
                    .Select(z =>
                    {
                        var of = times.GetValueOrDefault(z.Code) ?? ZoneTimes.Usual(z.Code);
                        return new ZoneTimesAnswer(
                            z.Code,
                            z.Name,
                            of.SetupMinutes,
                            of.MaxDown,
                            [.. of.Open.Select(Told)],
                            of.Closed
                        );
                    }),
            ],
            [.. zones.Holds().Values.OrderBy(h => h.Tag, StringComparer.Ordinal)],
            new WalkingDto(way.WithinSite, way.BetweenSites)
        );
    }

    /// <summary>Adds somebody who works, or changes what is known of them.</summary>
    internal static Results<NoContent, ProblemHttpResult> PutPerson(
        Caller caller,
        string code,
        PersonDto person,
        StaffUseCases staff
    )
    {
        var wrong = new List<InputProblem>();
        if (!Texts.IsCode(code, LongestCode))
            wrong.Add(new("a code is letters, digits and hyphens", Pointer: ""));
        if (!Texts.IsLine(person.Name, LongestName))
            wrong.Add(new($"name is needed: {LongestName} characters at most, on one line", Pointer: "/name"));
        var hours = Times("/hours", person.Hours, wrong);
        if (wrong.Count > 0)
            return Problems.Input(wrong);
        staff.Keep(
            caller.Actor,
            new Person(code, person.Name!.Trim(), (person.Skills ?? []).ToHashSet(), [.. (person.Sites ?? []).Distinct()], hours)
        );
        return TypedResults.NoContent();
    }

    /// <summary>Takes somebody off the list of who works.</summary>
    internal static NoContent RemovePerson(Caller caller, string code, StaffUseCases staff)
    {
        staff.Remove(caller.Actor, code);
        return TypedResults.NoContent();
    }

    /// <summary>Enters days on which somebody is away.</summary>
    internal static Results<Ok<AbsenceAnswer>, ProblemHttpResult> AddAbsence(
        Caller caller,
        string code,
        AbsenceDto absence,
        StaffUseCases staff
    )
    {
        var wrong = new List<InputProblem>();
        var days = Days("", absence, wrong);
        if (wrong.Count > 0)
            return Problems.Input(wrong);
        var id = staff.Keep(caller.Actor, new Absence(code, days.From, days.To, days.Reason));
        return TypedResults.Ok(new AbsenceAnswer(id, days.From, days.To, days.Reason));
    }

    /// <summary>Takes an absence back.</summary>
    internal static NoContent RemoveAbsence(Caller caller, long id, StaffUseCases staff)
    {
        staff.RemoveAbsence(caller.Actor, id);
        return TypedResults.NoContent();
    }

    /// <summary>Says when a zone may be worked in, and how many of its machines may be down at once.</summary>
    internal static Results<NoContent, ProblemHttpResult> PutZone(
        Caller caller,
        string code,
        ZoneTimesDto times,
        StaffUseCases staff
    )
    {
        var wrong = new List<InputProblem>();
        if (times.SetupMinutes is not (>= 0 and <= MostMinutes))
            wrong.Add(new($"setupMinutes must be a whole number from 0 to {MostMinutes}", Pointer: "/setupMinutes"));
        if (times.MaxDown is < 1)
            wrong.Add(new("maxDown must be 1 or more, or null for any number", Pointer: "/maxDown"));
        var open = Times("/open", times.Open, wrong);
        if (times.Closed?.Count > MostTimes)
            wrong.Add(new($"lists more than {MostTimes}", Pointer: "/closed"));
        var closed = (times.Closed ?? []).Take(MostTimes).Select((c, i) => Days($"/closed/{i}", c, wrong)).ToList();
        if (wrong.Count > 0)
            return Problems.Input(wrong);
        staff.Keep(caller.Actor, new ZoneTimes(code, times.SetupMinutes!.Value, times.MaxDown, open, closed));
        return TypedResults.NoContent();
    }

    /// <summary>Says how long ways between zones and sites take, minutes.</summary>
    internal static Results<NoContent, ProblemHttpResult> PutWalking(Caller caller, WalkingDto walking, StaffUseCases staff)
    {
        var wrong = new List<InputProblem>();
        if (walking.WithinSite is not (>= 0 and <= MostMinutes))
            wrong.Add(new($"withinSite must be a whole number from 0 to {MostMinutes}", Pointer: "/withinSite"));
        if (walking.BetweenSites is not (>= 0 and <= MostMinutes))
            wrong.Add(new($"betweenSites must be a whole number from 0 to {MostMinutes}", Pointer: "/betweenSites"));
        if (wrong.Count > 0)
            return Problems.Input(wrong);
        staff.Keep(caller.Actor, new Walking(walking.WithinSite!.Value, walking.BetweenSites!.Value));
        return TypedResults.NoContent();
    }

    /// <summary>Has a machine wait until a day: its parts are not there.</summary>
    internal static Results<NoContent, ProblemHttpResult> PutHold(Caller caller, string tag, HoldDto hold, StaffUseCases staff)
    {
        if (hold.Until is { Year: < 2000 or > 2100 })
            return Problems.Input("/until", "until must be a day between the years 2000 and 2100");
        if (hold.Until is not null && !Texts.IsLine(hold.Reason, LongestName))
            return Problems.Input("/reason", $"reason is needed: {LongestName} characters at most, on one line");
        staff.Hold(caller.Actor, tag, hold.Until, hold.Reason?.Trim() ?? "");
        return TypedResults.NoContent();
    }

    private static ClosedDays Days(string at, AbsenceDto? days, List<InputProblem> wrong)
    {
        var none = new ClosedDays(default, default, "");
        if (days?.From is not { Year: >= 2000 and <= 2100 } from)
        {
            wrong.Add(new("from is needed: a day between the years 2000 and 2100", Pointer: $"{at}/from"));
            return none;
        }
        var to = days.To ?? from;
        if (to < from || to > from.AddYears(MostYears))
            wrong.Add(new($"to must be from or later, and within {MostYears} years", Pointer: $"{at}/to"));
        if (days.Reason is { Length: > 0 } reason && !Texts.IsLine(reason, LongestName))
            wrong.Add(new($"reason has {LongestName} characters at most, on one line", Pointer: $"{at}/reason"));
        return new ClosedDays(from, to, days.Reason?.Trim() ?? "");
    }

    private static IReadOnlyList<WeeklyTime> Times(string at, IReadOnlyList<WeeklyTimeDto?>? sent, List<InputProblem> wrong)
    {
        if (sent?.Count > MostTimes)
            wrong.Add(new($"lists more than {MostTimes}", Pointer: at));
        var times = new List<WeeklyTime>();
        foreach (var (time, i) in (sent ?? []).Take(MostTimes).Select((time, i) => (time, i)))
            if (time?.Day is { } day && WallTimes.Read(time.From) is { } from && WallTimes.Read(time.To) is { } to)
                times.Add(new WeeklyTime(day, from, to > from ? to : to + (24 * 60)));
            else
                wrong.Add(new("day, from and to are needed, such as monday, 08:00 and 16:00", Pointer: $"{at}/{i}"));
        if (Overlap(times))
            wrong.Add(new("two of the times overlap", Pointer: at));
        return [.. times.OrderBy(t => t.Day).ThenBy(t => t.From)];
    }

    /// <summary>Whether two stretches of the week share a minute, those over its end too.</summary>
    private static bool Overlap(List<WeeklyTime> times)
    {
        const int week = 7 * 24 * 60;
        var spans = times.Select(t => (From: ((int)t.Day * 1440) + t.From, To: ((int)t.Day * 1440) + t.To)).Order().ToList();
        for (var i = 1; i < spans.Count; i++)
            if (spans[i].From < spans[i - 1].To)
                return true;
        return spans.Count > 1 && spans[^1].To - week > spans[0].From;
    }

    private static WeeklyTimeDto Told(WeeklyTime time) => new(time.Day, WallTimes.Write(time.From), WallTimes.Write(time.To));
}
