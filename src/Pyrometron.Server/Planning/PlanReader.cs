using System.Globalization;
using Pyrometron.Core.Planning;
using Pyrometron.Server.Hosting;

namespace Pyrometron.Server.Planning;

/// <summary>Makes a planning problem of what was sent, and says of all that is wrong where and what.</summary>
internal sealed class PlanReader(PlanRequest request) : RequestReader
{
    private const int MostDays = 366,
        MostPeople = 500,
        MostZones = 2_000,
        MostJobs = 5_000,
        MostSpans = 2_000,
        MostSkills = 100,
        MostMinutes = MostDays * PlanProblem.Day,
        MostPairs = 4_000_000;

    private const double MostWeight = 1e6;

    private readonly Dictionary<string, int> _people = [];
    private readonly Dictionary<string, int> _zones = [];
    private readonly HashSet<string> _jobs = [];
    private DateOnly _start;

    /// <summary>The problem; null where anything is wrong with it.</summary>
    public PlanProblem? Read()
    {
        _start = DateOnly.TryParseExact(
            request.Start,
            "yyyy-MM-dd",
            CultureInfo.InvariantCulture,
            DateTimeStyles.None,
            out var start
        )
            ? start
            : Wrong("/start", "start must be a date such as 2026-12-01", new DateOnly(2000, 1, 1));
        if (_start.Year is < 1900 or > 9000)
            Wrong("/start", "start must lie between the years 1900 and 9000", 0);
        var days = Within("/days", request.Days, 1, MostDays);
        if (request.Seconds is not (null or (>= 0 and <= 60)))
            Wrong("/seconds", "seconds must be a number from 0 to 60", 0);
        var problem = new PlanProblem(
            _start,
            days,
            All("/people", request.People, MostPeople, (p, at) => Person(p, at, days)),
            All("/zones", request.Zones, MostZones, Zone),
            All("/jobs", request.Jobs, MostJobs, Job)
        );
        if ((long)problem.Jobs.Count * problem.People.Sum(p => p.Shifts.Count) > MostPairs)
            Wrong("/jobs", $"jobs times shifts may be {MostPairs:#,0} at most: plan fewer days, or site by site", 0);
        if (Problems.Count == 0)
            LocksStand(problem);
        return Problems.Count == 0 ? problem : null;
    }

    private PlanPerson Person(PlanPersonDto dto, string at, int days)
    {
        var horizon = new Span(0, days * PlanProblem.Day);
        var shifts = All($"{at}/shifts", dto.Shifts, MostSpans, SpanOf).OrderBy(s => s.From).ToList();
        for (var i = 1; i < shifts.Count; i++)
            if (shifts[i].From < shifts[i - 1].To)
            {
                Wrong($"{at}/shifts", "shifts of one person may not overlap", 0);
                break;
            }
        return new PlanPerson(
            New($"{at}/id", dto.Id, _people),
            Names($"{at}/skills", dto.Skills),
            dto.Sites is null ? null : Names($"{at}/sites", dto.Sites),
            [.. shifts.Select(s => s.And(horizon)).Where(s => s.Minutes > 0)]
        );
    }

    private PlanZone Zone(PlanZoneDto dto, string at) =>
        new(
            New($"{at}/code", dto.Code, _zones),
            Name($"{at}/site", dto.Site),
            Within($"{at}/setupMinutes", dto.SetupMinutes ?? 0, 0, MostMinutes),
            dto.MaxDown is null ? null : Within($"{at}/maxDown", dto.MaxDown, 0, int.MaxValue),
            dto.Windows is null ? null : Span.Merged(All($"{at}/windows", dto.Windows, MostSpans, SpanOf))
        );

    private PlanJob Job(PlanJobDto dto, string at)
    {
        var id = Name($"{at}/id", dto.Id);
        if (!_jobs.Add(id) && id.Length > 0)
            Wrong($"{at}/id", $"'{id}' stands here twice", 0);
        if (!_zones.TryGetValue(dto.Zone ?? "", out var zone))
            Wrong($"{at}/zone", "zone must be the code of one of the zones", 0);
        var weight = dto.Weight is >= 0 and <= MostWeight
            ? dto.Weight.Value
            : Wrong($"{at}/weight", $"weight must be a number from 0 to {MostWeight:0}", 0.0);
        return new PlanJob(
            id,
            zone,
            Within($"{at}/minutes", dto.Minutes, 1, MostMinutes),
            Names($"{at}/skills", dto.Skills),
            dto.NotBefore is null ? 0 : Math.Max(0, Minute($"{at}/notBefore", dto.NotBefore)),
            dto.DueBy is null ? null : (int)Math.Floor(Minute($"{at}/dueBy", dto.DueBy) / (double)PlanProblem.Day),
            weight,
            dto.Locked is { } locked ? Lock(locked, $"{at}/locked") : null
        );
    }

    private PlanLock Lock(PlanLockDto dto, string at)
    {
        if (!_people.TryGetValue(dto.Person ?? "", out var person))
            Wrong($"{at}/person", "person must be the id of one of the people", 0);
        return new PlanLock(person, Minute($"{at}/start", dto.Start));
    }

    /// <summary>Locked jobs are put where they are said to stand, the first one first.</summary>
    private void LocksStand(PlanProblem problem)
    {
        var roster = new Roster(problem);
        foreach (var a in GreedyPlanner.Locked(problem).OrderBy(a => a.Start))
            if (!roster.TryPut(a))
                Wrong($"/jobs/{a.Job}/locked", $"The job cannot stand there. {Conflict.Of(roster, a)}", 0);
    }

    private Span SpanOf(PlanSpanDto dto, string at)
    {
        var span = new Span(Minute($"{at}/start", dto.Start), Minute($"{at}/end", dto.End));
        return span.Minutes > 0 ? span : Wrong($"{at}/end", "end must lie after start", new Span(0, 0));
    }

    /// <summary>Minutes from the start of the plan to an instant, or to 00:00 UTC of a date.</summary>
    private int Minute(string at, string? text)
    {
        const DateTimeStyles utc = DateTimeStyles.AssumeUniversal | DateTimeStyles.AdjustToUniversal;
        if (
            !DateTimeOffset.TryParseExact(text, Instants, CultureInfo.InvariantCulture, utc, out var instant)
            || instant.Ticks % TimeSpan.TicksPerMinute != 0
        )
            return Wrong(at, $"{Member(at)} must be an instant in whole minutes such as 2026-12-01T08:00Z, or a date", 0);
        var minutes = (instant - new DateTimeOffset(_start, TimeOnly.MinValue, TimeSpan.Zero)).TotalMinutes;
        // Centuries away is as good as never.
        return (int)Math.Clamp(minutes, int.MinValue / 4, int.MaxValue / 4);
    }

    private static readonly string[] Instants =
    [
        "yyyy-MM-dd",
        "yyyy-MM-dd'T'HH:mmK",
        "yyyy-MM-dd'T'HH:mm:ssK",
        "yyyy-MM-dd'T'HH:mm:ss.FFFFFFFK",
    ];

    private HashSet<string> Names(string at, IReadOnlyList<string?>? sent)
    {
        if (sent?.Count > MostSkills)
            return Wrong(at, $"lists more than {MostSkills}", new HashSet<string>());
        return [.. (sent ?? []).Select((name, i) => Name($"{at}/{i}", name))];
    }

    private string New(string at, string? sent, Dictionary<string, int> known)
    {
        var name = Name(at, sent);
        return name.Length == 0 || known.TryAdd(name, known.Count) ? name : Wrong(at, $"'{name}' stands here twice", name);
    }
}
