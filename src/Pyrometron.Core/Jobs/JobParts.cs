using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Procedures;

namespace Pyrometron.Core.Jobs;

/// <summary>Where a job stands.</summary>
public enum JobState
{
    /// <summary>Started, not closed.</summary>
    Open,

    /// <summary>Work done and filed, after-run still missing: it stays visible until proven.</summary>
    WaitingForProof,

    /// <summary>Closed with a verdict.</summary>
    Proven,

    /// <summary>Given up; nothing was done to the machine.</summary>
    Abandoned,
}

/// <summary>What the judgement said when a job was started, kept beside what was found.</summary>
/// <param name="Chance">That it needs work; null where that was not told.</param>
public sealed record Prediction(Cause Cause, ServiceLevel? Service, double DriftKelvin, double? Chance = null);

/// <summary>What is fixed about a job when it starts, and what its card is made from.</summary>
/// <param name="Card">As it was dealt.</param>
/// <param name="Parts">What can be measured on the machine.</param>
/// <param name="WarrantyUntil">Null where none runs on the day of the start.</param>
public sealed record JobHead(
    long Id,
    string Asset,
    FrozenCard Card,
    DateTimeOffset StartedAt,
    IReadOnlyList<Part> Parts,
    DateOnly? WarrantyUntil = null,
    Prediction? Predicted = null
)
{
    /// <summary>
    /// The newest run of each other machine of its model: what a machine that had no run before the work is held against.
    /// </summary>
    public IReadOnlyList<Run> SiblingRuns { get; init; } = [];
}

/// <summary>A step of a job's card as it stands.</summary>
/// <param name="SkippedBecause">Why it was left out, or null.</param>
public sealed record JobStep(
    CardStep Card,
    DateTimeOffset? DoneAt,
    string? DoneBy,
    IReadOnlyList<string> Checks,
    string? SkippedBecause,
    bool Skipped
)
{
    /// <summary>Neither done nor left out.</summary>
    public bool IsOpen => DoneAt is null && !Skipped;
}

/// <summary>A run of a job.</summary>
/// <param name="Voided">Why it does not count any more, or null.</param>
public sealed record JobRun(Guid Key, RunPhase Phase, DateTimeOffset At, Run Run, string? Voided);

/// <summary>A timer that was set going.</summary>
public sealed record JobTimer(string Timer, DateTimeOffset StartedAt, int Seconds, bool Stopped)
{
    /// <summary>When it rings.</summary>
    public DateTimeOffset RingsAt => StartedAt.AddSeconds(Seconds);
}

/// <summary>How many came out and went in again.</summary>
public sealed record JobCount(CountOf What, string Item, int Out, int In, ScrewPlace? Place = null);
