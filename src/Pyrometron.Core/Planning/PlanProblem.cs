namespace Pyrometron.Core.Planning;

/// <summary>Somebody who can be sent.</summary>
/// <param name="Id">Theirs alone in the problem.</param>
/// <param name="Skills">What they may do.</param>
/// <param name="Sites">Where they work; null where everywhere.</param>
/// <param name="Shifts">When, in order; no two overlap.</param>
public sealed record PlanPerson(string Id, IReadOnlySet<string> Skills, IReadOnlySet<string>? Sites, IReadOnlyList<Span> Shifts);

/// <summary>Where machines stand.</summary>
/// <param name="Code">Its own alone in the problem.</param>
/// <param name="Site">The site it belongs to.</param>
/// <param name="SetupMinutes">
/// What it takes to begin there: before the first job of a shift, and before each that follows one in another zone.
/// </param>
/// <param name="MaxDown">How many of its machines may be worked on at once; null where any.</param>
/// <param name="Windows">When they may be worked on; null where always. Merged and in order.</param>
public sealed record PlanZone(
    string Code,
    string Site,
    int SetupMinutes = 0,
    int? MaxDown = null,
    IReadOnlyList<Span>? Windows = null
);

/// <summary>The way to a zone from another one, minutes; it adds to the set-up there.</summary>
/// <param name="WithinSite">Between zones of one site.</param>
/// <param name="BetweenSites">From one site to another.</param>
public readonly record struct Walking(int WithinSite, int BetweenSites)
{
    /// <summary>Where nobody has said. Common practice, no source.</summary>
    public static Walking Usual { get; } = new(5, 20);
}

/// <summary>A job that stands where somebody put it.</summary>
/// <param name="Person">Index of who does it.</param>
/// <param name="Start">Minute at which it begins.</param>
/// <param name="Helper">Index of who helps; null where it takes one, or whoever can.</param>
public readonly record struct PlanLock(int Person, int Start, int? Helper = null);

/// <summary>Work on one machine, done without a break.</summary>
/// <param name="Id">Its own alone in the problem.</param>
/// <param name="Zone">Index of its zone.</param>
/// <param name="Minutes">How long it takes, without set-up; at least 1.</param>
/// <param name="Skills">What it needs, all of it.</param>
/// <param name="NotBefore">The minute before which it cannot begin; 0 where at once.</param>
/// <param name="DueDay">The last day, counted from the plan's first, on which it is not late; null where it never is.</param>
/// <param name="Weight">What each day of lateness costs.</param>
/// <param name="Locked">Where it stands, if somebody put it there.</param>
public sealed record PlanJob(
    string Id,
    int Zone,
    int Minutes,
    IReadOnlySet<string> Skills,
    int NotBefore,
    int? DueDay,
    double Weight,
    PlanLock? Locked
)
{
    /// <summary>Where it stood in the plan before, if it did; another person or day costs <see cref="MoveCost"/>.</summary>
    public PlanLock? Before { get; init; }

    /// <summary>What it costs to give it to somebody else, or another day, than in the plan before.</summary>
    public double MoveCost { get; init; }

    /// <summary>When it may be done, besides its zone's windows; null where always. Merged and in order.</summary>
    public IReadOnlyList<Span>? Windows { get; init; }

    /// <summary>What a second person needs, who helps from its beginning to its end; null where it takes one.</summary>
    public IReadOnlySet<string>? HelperSkills { get; init; }

    /// <summary>Whether it takes two.</summary>
    public bool TakesTwo => HelperSkills is not null;
}

/// <summary>
/// What is to be planned: jobs into the shifts of people, at the least cost. Rules: a job runs without a break inside one shift
/// of one person with all its skills and its zone's site, inside one window of its zone, not before it may; nobody does two
/// things at once; set-up stands directly before the job that needs it, inside the shift, with the way from another zone; at
/// most so many machines of a zone are down at once; where a job takes two, the other does nothing else meanwhile.
/// </summary>
/// <param name="Start">The first day, from 00:00 UTC.</param>
/// <param name="Days">How many days; nothing is planned beyond them.</param>
public sealed record PlanProblem(
    DateOnly Start,
    int Days,
    IReadOnlyList<PlanPerson> People,
    IReadOnlyList<PlanZone> Zones,
    IReadOnlyList<PlanJob> Jobs
)
{
    /// <summary>The way between zones.</summary>
    public Walking Walking { get; init; }

    /// <summary>Minutes of a day.</summary>
    public const int Day = 1440;

    /// <summary>What leaving a job out costs beyond being late to the end of the plan, days of its weight.</summary>
    public const int LeftOutDays = 10;

    /// <summary>What a minute of set-up costs.</summary>
    public const double SetupCost = 0.01;

    /// <summary>The whole time of the plan.</summary>
    public Span Horizon => new(0, Days * Day);

    /// <summary>
    /// Minutes before a job: none behind one in the same zone, else its zone's set-up, with the way from the zone before.
    /// </summary>
    /// <param name="zone">Index of its zone.</param>
    /// <param name="before">Index of the zone of the job before it in the shift; null for the first.</param>
    public int Setup(int zone, int? before) =>
        before == zone ? 0
        : before is not { } from ? Zones[zone].SetupMinutes
        : Zones[zone].SetupMinutes + (Zones[from].Site == Zones[zone].Site ? Walking.WithinSite : Walking.BetweenSites);

    /// <summary>What it costs to begin a job on a day, counted from the first.</summary>
    public static double Lateness(PlanJob job, int day) => job.DueDay is { } due ? job.Weight * Math.Max(0, day - due) : 0;

    /// <summary>What it costs to have somebody begin a job on a day: its lateness, and that it moved.</summary>
    public static double Placing(PlanJob job, int person, int day) =>
        Lateness(job, day)
        + (job.Before is { } before && (before.Person != person || before.Start / Day != day) ? job.MoveCost : 0);

    /// <summary>What it costs to leave a job out.</summary>
    public double LeavingOut(PlanJob job) => Lateness(job, Days) + job.Weight * LeftOutDays;

    /// <summary>
    /// What nobody can help: each job late already on the first day it may begin, whoever does it. No plan costs less.
    /// </summary>
    public double Unavoidable => Jobs.Sum(job => Lateness(job, job.NotBefore / Day));

    /// <summary>Whether somebody may do a job at all: skills and site.</summary>
    public bool May(PlanPerson person, PlanJob job) => MaySkill(person, job) && MaySite(person, job);

    /// <summary>Whether somebody may help with a job that takes two: what that needs, and site.</summary>
    public bool MayHelp(PlanPerson person, PlanJob job) =>
        job.HelperSkills?.IsSubsetOf(person.Skills) == true && MaySite(person, job);

    internal static bool MaySkill(PlanPerson person, PlanJob job) => job.Skills.IsSubsetOf(person.Skills);

    internal bool MaySite(PlanPerson person, PlanJob job) => person.Sites?.Contains(Zones[job.Zone].Site) != false;

    /// <summary>
    /// When a job may begin in a shift, whatever else is done in it: inclusive from the first to the last minute of each stretch.
    /// The room for its zone's set-up is kept, since whatever stands before it in its zone needs that too.
    /// </summary>
    /// <param name="job">The job.</param>
    /// <param name="shift">A shift of somebody who may do it.</param>
    public IEnumerable<(int First, int Last)> Starts(PlanJob job, Span shift)
    {
        var zone = Zones[job.Zone];
        var room = new Span(Math.Max(shift.From + zone.SetupMinutes, job.NotBefore), shift.To);
        foreach (var window in zone.Windows ?? [Horizon])
        foreach (var own in job.Windows ?? [Horizon])
            if (room.And(window).And(own) is var open && open.Minutes >= job.Minutes)
                yield return (open.From, open.To - job.Minutes);
    }
}
