using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Planning;

/// <summary>A job in its place.</summary>
/// <param name="Job">Index of the job.</param>
/// <param name="Person">Index of who does it.</param>
/// <param name="Start">The minute it begins, after its set-up.</param>
/// <param name="Helper">
/// Index of who helps, where it takes two; where one is put without, the first who can help is taken.
/// </param>
public readonly record struct Assignment(int Job, int Person, int Start, int? Helper = null);

/// <summary>Why a job is not in the plan; the first that holds.</summary>
public enum LeftOutCode
{
    /// <summary>Nobody has all its skills.</summary>
    NoSkill,

    /// <summary>Nobody with its skills works at its site.</summary>
    NoSite,

    /// <summary>It fits no shift of those, with its set-up.</summary>
    TooLong,

    /// <summary>No window of its zone is long enough in any of those shifts.</summary>
    NoWindow,

    /// <summary>There is room only before it may begin.</summary>
    NotBefore,

    /// <summary>All who could do it are busy.</summary>
    NoRoom,

    /// <summary>Somebody is free, but then too many machines of its zone would be down at once.</summary>
    MaxDown,

    /// <summary>It could be placed, but costs more than it saves.</summary>
    TooDear,
}

/// <summary>A job that is not in the plan, and why.</summary>
public sealed record LeftOut(int Job, LeftOutCode Code, Message Reason);

/// <summary>A plan and how good it is.</summary>
/// <param name="Roster">Who does what when; is not changed any more.</param>
/// <param name="Bound">What every plan costs at least.</param>
/// <param name="Planner">What made it: <c>solver</c> or <c>greedy</c>.</param>
public sealed record Plan(Roster Roster, double Bound, string Planner)
{
    /// <summary>Jobs in their places, by time.</summary>
    public IReadOnlyList<Assignment> Assignments { get; } = Roster.Assignments;

    /// <summary>What it costs, by the rules of <see cref="PlanProblem"/>.</summary>
    public double Cost { get; } = Roster.Cost;

    /// <summary>What it may cost more than the best plan, as a share of its cost.</summary>
    public double Gap => Math.Max(0, Cost - Bound) / Math.Max(Cost, 1);
}

/// <summary>Makes plans.</summary>
public interface IPlanner
{
    /// <summary>The best plan found in the time.</summary>
    /// <param name="problem">What is to be planned; its locked jobs can stand where they are.</param>
    /// <param name="seconds">How long it may think.</param>
    /// <param name="progress">Told of each better plan.</param>
    /// <param name="cancel">Ends it early with the best plan so far.</param>
    Plan Solve(PlanProblem problem, double seconds, IProgress<Plan>? progress, CancellationToken cancel);
}
