using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Planning;

namespace Pyrometron.Core.Weeks;

/// <summary>Who and where a plan is made for.</summary>
/// <param name="Absences">Of all of them.</param>
/// <param name="Zones">Of those zones that somebody has said something of.</param>
/// <param name="TimeZone">Of sites that have none of their own.</param>
public sealed record House(
    IReadOnlyList<Site> Sites,
    IReadOnlyList<Person> People,
    IReadOnlyList<Absence> Absences,
    IReadOnlyList<ZoneTimes> Zones,
    TimeZoneInfo TimeZone
)
{
    /// <summary>The way between zones.</summary>
    public Walking Walking { get; init; } = Walking.Usual;

    /// <summary>The time zone of a site.</summary>
    public TimeZoneInfo ClockOf(Site site) =>
        site.TimeZone is { } id && TimeZoneInfo.TryFindSystemTimeZoneById(id, out var zone) ? zone : TimeZone;

    /// <summary>The time zone that somebody's hours are meant in: of the first site they work at.</summary>
    public TimeZoneInfo ClockOf(Person person) =>
        Sites.FirstOrDefault(s => person.Sites.Count == 0 || person.Sites.Contains(s.Code)) is { } site
            ? ClockOf(site)
            : TimeZone;
}

/// <summary>A shift of somebody on a day of theirs.</summary>
/// <param name="Person">Index of the person.</param>
/// <param name="Day">The day on their wall's calendar on which it begins.</param>
/// <param name="From">What their clock shows then, minutes from 00:00.</param>
/// <param name="Span">When, in minutes of the plan.</param>
public sealed record LocalShift(int Person, DateOnly Day, int From, Span Span);

/// <summary>Some weeks of a house as a planning problem.</summary>
public sealed class WeekProblem
{
    /// <summary>What moving a job costs that never is late.</summary>
    private const double LeastMoveCost = 0.1;

    private readonly House _house;
    private readonly DateTimeOffset _start;

    /// <param name="start">The first day.</param>
    /// <param name="days">How many days.</param>
    /// <param name="wanted">What is to be done.</param>
    /// <param name="before">Where work stood in the plan before; what is locked stays there if it can.</param>
    /// <param name="from">The instant before which nothing may begin any more; null where all that stands may stay.</param>
    public WeekProblem(
        House house,
        DateOnly start,
        int days,
        IReadOnlyList<Wanted> wanted,
        IReadOnlyList<Placed> before,
        DateTimeOffset? from
    )
    {
        (_house, Wanted) = (house, wanted);
        _start = new DateTimeOffset(start, TimeOnly.MinValue, TimeSpan.Zero);
        var horizon = new Span(from is { } now ? Math.Max(0, MinuteOf(now)) : 0, days * PlanProblem.Day);
        Shifts = [.. house.People.SelectMany((p, i) => ShiftsOf(p, i, start, days, horizon))];
        var zones = house.Sites.SelectMany(s => s.Zones.Select(z => (Site: s, Zone: z))).ToList();
        var index = zones.Select((z, i) => (z.Zone.Code, i)).ToDictionary(z => z.Code, z => z.i);
        Problem = new PlanProblem(
            start,
            days,
            [
                .. house.People.Select(
                    (p, i) =>
                        new PlanPerson(
                            p.Name,
                            p.Skills.Select(Skills.Name).ToHashSet(),
                            p.Sites.Count == 0 ? null : p.Sites.Select(NameOfSite).ToHashSet(),
                            [.. Shifts.Where(s => s.Person == i).Select(s => s.Span)]
                        )
                ),
            ],
            [.. zones.Select(z => ZoneOf(z.Site, z.Zone, start, days, horizon))],
            [.. wanted.Select(w => JobOf(w, index[w.Zone], ClockOf(zones[index[w.Zone]].Site, start), start, days, horizon))]
        )
        {
            Walking = house.Walking,
        };
        Problem = Problem with { Jobs = [.. Problem.Jobs.Zip(wanted, (job, w) => Standing(job, w, before, from))] };
        Problem = Unlocked(Problem);
    }

    /// <summary>What is to be solved; people and zones are in the house's order, jobs in that of <see cref="Wanted"/>.</summary>
    public PlanProblem Problem { get; }

    /// <summary>What is to be done.</summary>
    public IReadOnlyList<Wanted> Wanted { get; }

    /// <summary>All shifts, person by person in order.</summary>
    public IReadOnlyList<LocalShift> Shifts { get; }

    /// <summary>The minute of the plan at an instant.</summary>
    public int MinuteOf(DateTimeOffset instant) => (int)Math.Ceiling((instant - _start).TotalMinutes);

    /// <summary>The instant of a minute of the plan.</summary>
    public DateTimeOffset InstantOf(int minute) => _start.AddMinutes(minute);

    /// <summary>The index of somebody; -1 where they are not in the house.</summary>
    public int PersonOf(string code)
    {
        for (var i = 0; i < _house.People.Count; i++)
            if (_house.People[i].Code == code)
                return i;
        return -1;
    }

    /// <summary>The code of somebody by their index.</summary>
    public string CodeOf(int person) => _house.People[person].Code;

    /// <summary>The shift that holds a minute of somebody's; null where none does.</summary>
    public LocalShift? ShiftAt(int person, int minute) =>
        Shifts.FirstOrDefault(s => s.Person == person && s.Span.From <= minute && minute < s.Span.To);

    /// <summary>The work of a plan in its places; what was locked stays so.</summary>
    public IReadOnlyList<Placed> Placed(IEnumerable<Assignment> assignments) =>
        [
            .. assignments.Select(a => new Placed(
                Wanted[a.Job],
                CodeOf(a.Person),
                InstantOf(a.Start),
                Problem.Jobs[a.Job].Locked is not null,
                a.Helper is { } helper ? CodeOf(helper) : null
            )),
        ];

    /// <summary>Why work is not in a plan, with what the house has said about its zone.</summary>
    public Message Reason(LeftOut left)
    {
        var work = Wanted[left.Job];
        var zone = _house.Zones.FirstOrDefault(z => z.Zone == work.Zone);
        var closed = zone?.Closed.Where(c => c.Reason.Length > 0 && c.To >= Problem.Start).ToList() ?? [];
        return left.Code switch
        {
            LeftOutCode.NoWindow or LeftOutCode.NoRoom when closed.Count > 0 => Message.Join(
                left.Reason,
                Message.Of("Closed until {day}: {why}.", Value.Day("day", closed[0].To), Value.Text("why", closed[0].Reason))
            )!,
            LeftOutCode.NotBefore when work.WaitsFor.Length > 0 => Message.Join(
                left.Reason,
                work.WaitsFor == Core.Weeks.Wanted.Warranty
                    ? "It waits for the end of its warranty."
                    : Message.Of("It waits for: {why}.", Value.Text("why", work.WaitsFor))
            )!,
            _ => left.Reason,
        };
    }

    private LocalClock ClockOf(Site site, DateOnly start) => new(start, _house.ClockOf(site));

    private string NameOfSite(string code) => _house.Sites.FirstOrDefault(s => s.Code == code)?.Name ?? code;

    private IEnumerable<LocalShift> ShiftsOf(Person person, int index, DateOnly start, int days, Span horizon)
    {
        var clock = new LocalClock(start, _house.ClockOf(person));
        var away = _house.Absences.Where(a => a.Person == person.Code).ToList();
        return clock
            .Spans(person.Hours, days)
            .Where(s => !away.Any(a => a.From <= s.Day && s.Day <= a.To))
            .Select(s => new LocalShift(index, s.Day, s.Span.And(horizon).From - clock.Minute(s.Day, 0), s.Span.And(horizon)))
            .Where(s => s.Span.Minutes > 0)
            .OrderBy(s => s.Span.From);
    }

    private PlanZone ZoneOf(Site site, Zone zone, DateOnly start, int days, Span horizon)
    {
        var times = _house.Zones.FirstOrDefault(z => z.Zone == zone.Code) ?? ZoneTimes.Usual(zone.Code);
        var clock = ClockOf(site, start);
        return new PlanZone(
            zone.Name,
            site.Name,
            times.SetupMinutes,
            times.MaxDown,
            clock.Open(times.Open, times.Closed.Select(c => (c.From, c.To)), days, horizon)
        );
    }

    private static PlanJob JobOf(Wanted work, int zone, LocalClock clock, DateOnly start, int days, Span horizon) =>
        new(
            work.Id,
            zone,
            work.Minutes,
            work.Skills.Select(Skills.Name).ToHashSet(),
            work.NotBefore is { } day ? Math.Max(0, clock.Minute(day, 0)) : 0,
            work.DueBy is { } due ? due.DayNumber - start.DayNumber : null,
            work.Weight,
            null
        )
        {
            HelperSkills = work.TakesTwo ? new HashSet<string> { Skills.Name(Skill.LiftWithTwo) } : null,
            Windows = work.Downtime is { } rules
                ? clock.Open(rules.Open(), rules.Closed(start.AddDays(-1), days + 2), days, horizon)
                : null,
        };

    /// <summary>A job with where it stood before.</summary>
    private PlanJob Standing(PlanJob job, Wanted work, IReadOnlyList<Placed> before, DateTimeOffset? from)
    {
        if (
            before.FirstOrDefault(p => p.Work.Id == work.Id) is not { } old
            || PersonOf(old.Person) is not (>= 0 and var person)
            || (from is { } now && old.Start < now)
        )
            return job;
        var helper = old.Helper is { } code && PersonOf(code) is >= 0 and var known ? known : (int?)null;
        var place = new PlanLock(person, MinuteOf(old.Start), job.TakesTwo ? helper : null);
        return job with { Before = place, MoveCost = Math.Max(LeastMoveCost, job.Weight), Locked = old.Locked ? place : null };
    }

    /// <summary>Locks that cannot stand any more are taken off, the later one of two that meet.</summary>
    private static PlanProblem Unlocked(PlanProblem problem)
    {
        var roster = new Roster(problem);
        var fallen = GreedyPlanner
            .Locked(problem)
            .OrderBy(a => a.Start)
            .Where(a => !roster.TryPut(a))
            .Select(a => a.Job)
            .ToHashSet();
        return fallen.Count == 0
            ? problem
            : problem with
            {
                Jobs = [.. problem.Jobs.Select((j, i) => fallen.Contains(i) ? j with { Locked = null } : j)],
            };
    }
}
