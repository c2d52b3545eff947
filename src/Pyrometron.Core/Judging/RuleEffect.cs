using Pyrometron.Core.Fleet;

namespace Pyrometron.Core.Judging;

/// <summary>What a fleet's rules ask for.</summary>
/// <param name="Machines">How many stand at each urgency.</param>
/// <param name="QuarterMinutes">Work that is asked for now, or will be by the calendar within a quarter.</param>
/// <param name="QuarterJobs">How many jobs that is.</param>
public sealed record WorkAsked(IReadOnlyDictionary<Urgency, int> Machines, long QuarterMinutes, int QuarterJobs)
{
    /// <summary>Days of a quarter.</summary>
    public const int QuarterDays = 91;

    /// <summary>That of a judgement.</summary>
    public static WorkAsked Of(FleetJudgement judgement)
    {
        var asked = judgement.Queue.Select(MinutesWithinQuarter).Where(m => m > 0).ToArray();
        return new WorkAsked(
            judgement.Queue.GroupBy(a => a.Urgency).ToDictionary(g => g.Key, g => g.Count()),
            asked.Sum(m => (long)m),
            asked.Length
        );
    }

    /// <summary>What one machine asks for: its advised work, or the service that falls due; 0 for nothing.</summary>
    public static int MinutesWithinQuarter(Assessment a) =>
        a is { Service: { } level, Minutes: { } minutes, Urgency: <= Urgency.Soon } ? minutes * a.Policy.HandsFor(level)
        : a.ServiceDue is { } due && due.Due <= a.AsOf.AddDays(QuarterDays) && a.Asks(due)
            ? a.Policy.Times.Of(a.Asset, due.Level).Minutes * a.Policy.HandsFor(due.Level)
        : 0;
}

/// <summary>What other rules do to one machine.</summary>
public sealed record MachineUnderRules(Assessment Before, Assessment After)
{
    /// <summary>Whether they change anything about it: how pressing it is, what is advised, or when it is due.</summary>
    public bool Changes =>
        Before.Urgency != After.Urgency
        || Before.Service != After.Service
        || Before.Action?.Day != After.Action?.Day
        || Before.ServiceDue?.Due != After.ServiceDue?.Due
        || Before.ServiceDue?.Level != After.ServiceDue?.Level;
}

/// <summary>What other rules would do to the queue.</summary>
/// <param name="Changed">The machines that they change, in the order of the queue that would be.</param>
public sealed record RuleEffect(WorkAsked Before, WorkAsked After, IReadOnlyList<MachineUnderRules> Changed)
{
    /// <summary>Compares two judgements of the same machines.</summary>
    public static RuleEffect Of(FleetJudgement before, FleetJudgement after) =>
        new(
            WorkAsked.Of(before),
            WorkAsked.Of(after),
            [
                .. after
                    .Queue.Select(a => new MachineUnderRules(before.ByTag[a.Asset.Tag], a))
                    .Where(m => m.Changes)
                    // Those whose urgency changes first: of the others only a date moves.
                    .OrderBy(m => m.Before.Urgency == m.After.Urgency),
            ]
        );
}
