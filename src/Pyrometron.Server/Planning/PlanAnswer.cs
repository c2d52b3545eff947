using System.Globalization;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Planning;

namespace Pyrometron.Server.Planning;

/// <summary>A job in its place.</summary>
/// <param name="Start">When it begins, after its set-up, UTC.</param>
/// <param name="End">When it ends.</param>
public sealed record AssignmentAnswer(string Job, string Person, string Start, string End);

/// <summary>A job that is not in the plan.</summary>
/// <param name="Code">The first condition that alone keeps it out.</param>
/// <param name="Reason">The same in plain English.</param>
public sealed record LeftOutAnswer(string Job, LeftOutCode Code, string Reason, Message Message);

/// <summary>A plan.</summary>
/// <param name="Cost">Days of lateness by weight, what is left out, and a hundredth of each minute of set-up.</param>
/// <param name="Bound">What every plan costs at least.</param>
/// <param name="Gap">Cost less bound, as a share of the cost.</param>
/// <param name="Seconds">How long it took.</param>
/// <param name="Planner">What made it: <c>solver</c>, or <c>greedy</c> where the solver's library could not be loaded.</param>
public sealed record PlanAnswer(
    IReadOnlyList<AssignmentAnswer> Assignments,
    IReadOnlyList<LeftOutAnswer> Unplanned,
    double Cost,
    double Bound,
    double Gap,
    double Seconds,
    string Planner
)
{
    internal static PlanAnswer From(PlanProblem problem, Plan plan, double seconds)
    {
        string Instant(int minute) =>
            problem
                .Start.ToDateTime(TimeOnly.MinValue)
                .AddMinutes(minute)
                .ToString("yyyy-MM-dd'T'HH:mm'Z'", CultureInfo.InvariantCulture);
        return new PlanAnswer(
            [
                .. plan.Assignments.Select(a => new AssignmentAnswer(
                    problem.Jobs[a.Job].Id,
                    problem.People[a.Person].Id,
                    Instant(a.Start),
                    Instant(plan.Roster.SpanOf(a).To)
                )),
            ],
            [
                .. LeftOutReasons
                    .Of(plan.Roster)
                    .Select(l => new LeftOutAnswer(problem.Jobs[l.Job].Id, l.Code, l.Reason.ToString(), l.Reason)),
            ],
            Math.Round(plan.Cost, 6),
            Math.Round(plan.Bound, 6),
            Math.Round(plan.Gap, 6),
            Math.Round(seconds, 3),
            plan.Planner
        );
    }
}
