using System.Text.Json;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Proof;
using Pyrometron.Storage;

namespace Pyrometron.Server.Bench;

/// <summary>A step of a job and when it was ticked.</summary>
public sealed record StepAnswer(string Id, Stage Stage, string Do, string? Caution, DateTimeOffset? DoneAt);

/// <summary>A run that was voided: kept, struck through.</summary>
public sealed record VoidedRun(long Id, string Phase, DateTimeOffset MeasuredAt, RunDto Run, DateTimeOffset VoidedAt, string Reason);

/// <summary>A job at the bench.</summary>
/// <param name="Blocked">What is still missing before the work can be filed as done, or null.</param>
/// <param name="Preview">The verdict of the two runs as they stand, before it is filed.</param>
public sealed record JobAnswer(
    long Id, string Asset, AssetKind Kind, ServiceLevel Level, JobState State, DateTimeOffset StartedAt, DateTimeOffset? WorkDoneAt, DateTimeOffset? ClosedAt,
    long? BeforeId, RunDto? Before, DateTimeOffset? BeforeAt, string? NoBeforeReason, long? AfterId, RunDto? After, DateTimeOffset? AfterAt, VerdictAnswer? Verdict, VerdictAnswer? Preview,
    string? Note, IReadOnlyList<StepAnswer> Steps, string? Blocked, IReadOnlyList<VoidedRun> VoidedRuns, int Version)
{
    internal static JobAnswer From(StoredJob job)
    {
        var (before, after) = (Standing(job, "before"), Standing(job, "after"));
        var core = ToCore(job, before, after);
        return new JobAnswer(job.Id, job.Tag, job.Kind, job.Level, job.State, job.StartedAt, job.WorkDoneAt, job.ClosedAt,
            before?.Id, Run(before), before?.MeasuredAt, job.NoBeforeReason, after?.Id, Run(after), after?.MeasuredAt,
            job.Verdict is { } verdict ? JsonSerializer.Deserialize<VerdictAnswer>(verdict, ApiJson.Options) : null, Compare(core), job.Note,
            [.. core.Steps.Select(s => new StepAnswer(s.Id, s.Stage, s.Do, s.Caution, job.Steps.TryGetValue(s.Id, out var at) ? at : null))], core.BlockedFinish,
            [.. job.Runs.Where(r => r.VoidedAt is not null).Select(r => new VoidedRun(r.Id, r.Phase, r.MeasuredAt, Run(r)!, r.VoidedAt!.Value, r.VoidedReason ?? ""))], job.Version);
    }

    /// <summary>The stored job as the core knows it.</summary>
    internal static Job ToCore(StoredJob job) => ToCore(job, Standing(job, "before"), Standing(job, "after"));

    private static Job ToCore(StoredJob job, StoredRun? before, StoredRun? after) => new(job.Id, job.Tag, job.Kind, job.Level, job.State, job.StartedAt, job.WorkDoneAt,
        job.ClosedAt, Run(before)?.ToRun("", []), job.NoBeforeReason, Run(after)?.ToRun("", []), null, job.Steps.Keys.ToHashSet(), job.Note, job.Version);

    private static VerdictAnswer? Compare(Job job) =>
        job is { Before: { } before, After: { } after } ? VerdictAnswer.From(Core.Proof.RunComparison.Evaluate(job.Level, before, after)) : null;

    private static StoredRun? Standing(StoredJob job, string phase) => job.Runs.LastOrDefault(r => r.Phase == phase && r.VoidedAt is null);

    private static RunDto? Run(StoredRun? run) => run is null ? null : JsonSerializer.Deserialize<RunDto>(run.Run, ApiJson.Options);
}

/// <summary>A job in a list.</summary>
public sealed record JobSummary(long Id, string Asset, ServiceLevel Level, JobState State, DateTimeOffset StartedAt, DateTimeOffset? WorkDoneAt, DateTimeOffset? ClosedAt, VerdictAnswer? Verdict)
{
    internal static JobSummary From(StoredJob job) => new(job.Id, job.Tag, job.Level, job.State, job.StartedAt, job.WorkDoneAt, job.ClosedAt,
        job.Verdict is { } verdict ? JsonSerializer.Deserialize<VerdictAnswer>(verdict, ApiJson.Options) : null);
}
