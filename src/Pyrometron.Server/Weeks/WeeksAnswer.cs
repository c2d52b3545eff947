using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Weeks;
using Pyrometron.Server.Judging;

namespace Pyrometron.Server.Weeks;

/// <summary>The plan in force, and the one being made.</summary>
/// <param name="Plan">Null while none was made.</param>
/// <param name="Run">The one being made; null while none is.</param>
/// <param name="Failure">Why the last one was not made.</param>
/// <param name="Today">The day on the wall's calendar of the house.</param>
public sealed record WeeksAnswer(PlanInForce? Plan, PlanRun? Run, Message? Failure, DateOnly Today);

/// <summary>A plan.</summary>
/// <param name="Id">Whoever changes the plan says which they have seen.</param>
/// <param name="By">Who made it; empty where nobody said.</param>
/// <param name="Says">What was done to the plan before.</param>
/// <param name="Cost">What its lateness, what is left out and its set-ups cost, in days of weight.</param>
/// <param name="CostOf">What that is made of.</param>
/// <param name="Bound">What every plan costs at least; null after a change by hand.</param>
/// <param name="Gap">What it may cost more than the best plan, as a share of its cost; null after a change by hand.</param>
/// <param name="Planner"><c>solver</c>, <c>greedy</c> or <c>hand</c>.</param>
/// <param name="CanTakeBack">Whether there is a plan before it to go back to.</param>
/// <param name="WorkMinutes">Of all jobs with their set-ups.</param>
/// <param name="HandMinutes">Of all shifts.</param>
/// <param name="Moved">What stands elsewhere than in the plan before.</param>
public sealed record PlanInForce(
    long Id,
    DateTimeOffset MadeAt,
    string By,
    Message Says,
    DateOnly Start,
    int Days,
    double Cost,
    PlanCost CostOf,
    double? Bound,
    double? Gap,
    string Planner,
    bool CanTakeBack,
    int WorkMinutes,
    int HandMinutes,
    IReadOnlyList<PlannedJob> Jobs,
    IReadOnlyList<LeftOutJob> LeftOut,
    IReadOnlyList<ShiftAnswer> Shifts,
    IReadOnlyList<MovedJob> Moved
);

/// <summary>What a plan's cost is made of, in days of weight.</summary>
/// <param name="Late">Jobs that begin behind their due day, each day by its weight.</param>
/// <param name="LeftOut">Jobs without a place.</param>
/// <param name="Setup">Set-ups and ways, a hundredth a minute.</param>
/// <param name="Moved">
/// The rest: jobs with another day or person than in the plan before, and what has changed in the house since.
/// </param>
public sealed record PlanCost(double Late, double LeftOut, double Setup, double Moved);

/// <summary>What is done to one machine.</summary>
/// <param name="Kelvin">What the work can win back, K; null where unknown.</param>
public sealed record WorkStep(string Asset, ServiceLevel? Level, int Minutes, Cause Cause, double? Kelvin);

/// <summary>A job in its place.</summary>
/// <param name="Title">What a person called it, or the host of several cards; empty where the machine names it.</param>
/// <param name="Person">Code of who does it.</param>
/// <param name="Start">When it begins, after its set-up.</param>
/// <param name="Day">The day of its shift, on that person's calendar.</param>
/// <param name="From">When it begins by that person's clock, minutes from 00:00 of the day; beyond 1440 after midnight.</param>
/// <param name="Setup">Minutes of set-up before it.</param>
/// <param name="Late">Whether it stands behind its due day, although that lay ahead when the plan was made.</param>
/// <param name="Conflict">Why it cannot stand there any more; null where it can.</param>
/// <param name="Bench">The machine's job at the bench since the plan's first day; null without one.</param>
/// <param name="Campaign">Name of the campaign whose work it is; null where it is of none.</param>
/// <param name="Help">Who helps; null where it takes one.</param>
public sealed record PlannedJob(
    string Id,
    WantedKind Kind,
    string Title,
    string Zone,
    string ZoneName,
    IReadOnlyList<WorkStep> Steps,
    string Person,
    DateTimeOffset Start,
    DateOnly Day,
    int From,
    int Minutes,
    int Setup,
    bool Locked,
    DateOnly? DueBy,
    bool Late,
    Message? Conflict,
    OpenJob? Bench,
    string? Campaign,
    HelpAnswer? Help
);

/// <summary>Who helps with a job that takes two.</summary>
/// <param name="Day">The day of their shift, on their calendar.</param>
/// <param name="From">When it begins by their clock, minutes from 00:00 of the day.</param>
/// <param name="Setup">Minutes of set-up before it, theirs.</param>
public sealed record HelpAnswer(string Person, DateOnly Day, int From, int Setup);

/// <summary>Work without a place.</summary>
/// <param name="Code">As in <c>plan/solve</c>; <c>by-hand</c> where a person left it out.</param>
public sealed record LeftOutJob(
    string Id,
    WantedKind Kind,
    string Title,
    string Zone,
    string ZoneName,
    IReadOnlyList<WorkStep> Steps,
    int Minutes,
    DateOnly? DueBy,
    string Code,
    Message Reason
);

/// <summary>Somebody's shift, by their clock.</summary>
/// <param name="From">Minutes from 00:00 of the day.</param>
/// <param name="To">Minutes from 00:00 of the day; beyond 1440 after midnight.</param>
public sealed record ShiftAnswer(string Person, DateOnly Day, int From, int To);

/// <summary>A job that stands elsewhere than in the plan before.</summary>
/// <param name="WasPerson">Who was to do it.</param>
/// <param name="WasDay">And when.</param>
/// <param name="Why">Why it could not stay.</param>
public sealed record MovedJob(string Id, string Title, string WasPerson, DateOnly WasDay, Message Why);
