using Pyrometron.Core.Fleet;
using Pyrometron.Core.Proof;

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

/// <summary>One job on one machine.</summary>
/// <param name="NoBeforeReason">Why it was opened without a before-run, or null.</param>
/// <param name="Done">Ids of the ticked steps.</param>
/// <param name="Version">Grows by one with every change; a write with an older one is refused.</param>
public sealed record Job(
    long Id, string Asset, AssetKind Kind, ServiceLevel Level, JobState State, DateTimeOffset StartedAt, DateTimeOffset? WorkDoneAt,
    DateTimeOffset? ClosedAt, Run? Before, string? NoBeforeReason, Run? After, Verdict? Verdict, IReadOnlySet<string> Done, string? Note, int Version)
{
    /// <summary>The steps of this job.</summary>
    public IReadOnlyList<Step> Steps => Checklist.For(Kind, Level);

    /// <summary>Why work may not begin yet, or null: no before-run, no proof.</summary>
    public string? BlockedBefore => Before is null && string.IsNullOrWhiteSpace(NoBeforeReason)
        ? "Measure before opening, or write down why not." : null;

    /// <summary>Why the work cannot be filed as done, or null.</summary>
    public string? BlockedFinish => State != JobState.Open ? "This job is not open any more."
        : BlockedBefore ?? (Steps.FirstOrDefault(s => !Done.Contains(s.Id)) is { } open ? $"Still to do: {open.Do}" : null);
}
