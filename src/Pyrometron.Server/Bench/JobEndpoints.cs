using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;
using Pyrometron.Formats;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Judging;
using Pyrometron.Server.Proof;
using Pyrometron.Storage;

namespace Pyrometron.Server.Bench;

/// <summary>A job to start.</summary>
public sealed record StartJob(string? Asset, ServiceLevel? Level);

/// <summary>A step ticked, or its tick taken back.</summary>
public sealed record TickStep(bool Done, int Version);

/// <summary>A run measured.</summary>
public sealed record SaveRun(RunDto? Run, int Version);

/// <summary>What can be edited of a job; omitted members stay as they are.</summary>
public sealed record EditJob(string? NoBeforeReason, string? Note, ServiceLevel? Level, int Version);

/// <summary>A change of state, with the version it was decided on.</summary>
public sealed record MoveJob(int Version, string? Reason);

/// <summary>Jobs at the bench: thin handlers around the core's rules.</summary>
internal static class JobEndpoints
{
    private const int LongestText = 2000;

    public static void MapJobs(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/jobs").WithTags("Bench");
        group.MapGet("", (JobStore jobs, int? count) => jobs.Newest(Math.Clamp(count ?? 100, 1, 1000)).Select(JobSummary.From).ToArray());
        group.MapPost("", Start);
        group.MapGet("/{id:long}", Results<Ok<JobAnswer>, ProblemHttpResult> (long id, JobStore jobs) => Answer(jobs, id));
        group.MapPatch("/{id:long}", Edit);
        group.MapPost("/{id:long}/steps/{step}", Tick);
        group.MapPut("/{id:long}/runs/{phase}", PutRun);
        group.MapPost("/{id:long}/runs/{run:long}/void", VoidRun);
        group.MapGet("/{id:long}/runs/from-readings", FromReadings);
        group.MapPost("/{id:long}/finish", Finish);
        group.MapPost("/{id:long}/prove", Prove);
        group.MapPost("/{id:long}/abandon", Abandon);
    }

    private static Results<Ok<JobAnswer>, ProblemHttpResult> Answer(JobStore jobs, long id) =>
        jobs.Find(id) is { } job ? TypedResults.Ok(JobAnswer.From(job)) : Problems.Missing($"There is no job {id}.");

    private static Results<Created<JobAnswer>, ProblemHttpResult> Start(StartJob request, FleetStore fleet, JobStore jobs)
    {
        if (request.Asset is null || fleet.Find(request.Asset) is not { } asset)
            return Problems.Input("/asset", $"There is no machine '{request.Asset}'.");
        if (asset.RetiredOn is not null)
            return Problems.Conflict($"'{request.Asset}' is retired; put it back into use first.");
        if (request.Level is not { } level)
            return Problems.Input("/level", $"level is needed: one of {Words.List<ServiceLevel>()}.");
        if (jobs.Of(asset.Id).FirstOrDefault(j => j.State == JobState.Open) is { } open)
            return Problems.Conflict($"Job {open.Id} is open on '{request.Asset}' already; finish or give it up first.");
        var id = jobs.Start(request.Asset, level);
        return TypedResults.Created($"/api/v1/jobs/{id}", JobAnswer.From(jobs.Find(id)!));
    }

    /// <summary>Runs a change on an existing job, if the core allows it as it stands.</summary>
    private static Results<Ok<JobAnswer>, ProblemHttpResult> Change(JobStore jobs, long id, Func<Job, string?> blocked, Action<Job> change)
    {
        if (jobs.Find(id) is not { } stored)
            return Problems.Missing($"There is no job {id}.");
        var job = JobAnswer.ToCore(stored);
        if (blocked(job) is { } reason)
            return Problems.Conflict(reason);
        change(job);
        return Answer(jobs, id);
    }

    private static string? OnlyOpen(Job job) => job.State == JobState.Open ? null : "This job is not open any more.";

    private static Results<Ok<JobAnswer>, ProblemHttpResult> Edit(long id, EditJob request, JobStore jobs)
    {
        if (request.Note?.Length > LongestText || request.NoBeforeReason?.Length > LongestText)
            return Problems.Input("/note", $"A note is {LongestText} characters at most.");
        return Change(jobs, id,
            job => request.Level is not null && request.Level != job.Level ? OnlyOpen(job) : null,
            job => jobs.Edit(id, request.Version, request.NoBeforeReason ?? job.NoBeforeReason, request.Note ?? job.Note, request.Level ?? job.Level));
    }

    private static Results<Ok<JobAnswer>, ProblemHttpResult> Tick(long id, string step, TickStep request, JobStore jobs) => Change(jobs, id,
        job => OnlyOpen(job) ?? (job.Steps.All(s => s.Id != step) ? $"This job has no step '{step}'." : request.Done ? job.BlockedBefore : null),
        _ => jobs.Tick(id, request.Version, step, request.Done));

    private static Results<Ok<JobAnswer>, ProblemHttpResult> PutRun(long id, string phase, SaveRun request, JobStore jobs)
    {
        var problems = new List<InputProblem>();
        if (phase is not ("before" or "after"))
            return Problems.Missing("A run is 'before' or 'after'.");
        if (request.Run?.ToRun("/run", problems) is null)
            return Problems.Input(problems.Count > 0 ? problems : [new InputProblem("run is needed", Pointer: "/run")]);
        return Change(jobs, id,
            job => phase == "before"
                ? job.Done.Count > 0 || job.State != JobState.Open ? "The work has begun: what is measured now is no before-run any more." : null
                : job.State != JobState.WaitingForProof ? "File the work as done first; the after-run comes after it." : null,
            _ => jobs.SaveRun(id, request.Version, phase, JsonSerializer.Serialize(request.Run, ApiJson.Options)));
    }

    private static Results<Ok<JobAnswer>, ProblemHttpResult> VoidRun(long id, long run, MoveJob request, JobStore jobs) =>
        string.IsNullOrWhiteSpace(request.Reason) ? Problems.Input("/reason", "reason is needed: why this run does not count.")
        : Change(jobs, id, job => job.State is JobState.Proven or JobState.Abandoned ? "This job is closed; its runs stay." : null,
            _ => jobs.VoidRun(id, request.Version, run, request.Reason));

    /// <summary>What the newest readings would give as a run: medians of the last windows under the main load.</summary>
    private static Results<Ok<RunDto>, ProblemHttpResult> FromReadings(long id, JobStore jobs, FleetStore fleet, ReadingStore readings, TimeProvider clock)
    {
        if (jobs.Find(id) is not { } job || fleet.Find(job.Tag) is not { } asset)
            return Problems.Missing($"There is no job {id}.");
        var since = job.State == JobState.Open ? clock.GetUtcNow().AddDays(-30) : job.WorkDoneAt;
        return NewestRun.From(asset, readings.Newest(asset, 60), since) is { } run
            ? TypedResults.Ok(RunDto.From(run))
            : Problems.Conflict(job.State == JobState.Open
                ? "There are no loaded readings of the last 30 days to take a run from; measure one."
                : "There are no loaded readings since the work was done yet; wait for some or measure a run.");
    }

    private static Results<Ok<JobAnswer>, ProblemHttpResult> Finish(long id, MoveJob request, JobStore jobs, TimeProvider clock, JudgementService judgement)
    {
        var answer = Change(jobs, id, stored => stored.BlockedFinish, _ => jobs.Finish(id, request.Version, DateOnly.FromDateTime(clock.GetUtcNow().UtcDateTime)));
        if (jobs.Find(id) is { } job)
            judgement.Changed(job.Tag);
        return answer;
    }

    private static Results<Ok<JobAnswer>, ProblemHttpResult> Prove(long id, MoveJob request, JobStore jobs) => Change(jobs, id,
        job => job.State != JobState.WaitingForProof ? "Only work that is done can be proven."
            : job.After is null ? "The after-run is still missing." : null,
        job => jobs.Prove(id, request.Version, JsonSerializer.Serialize(job.Before is null ? VerdictAnswer.Unproven : JobAnswer.From(jobs.Find(id)!).Preview, ApiJson.Options)));

    private static Results<Ok<JobAnswer>, ProblemHttpResult> Abandon(long id, MoveJob request, JobStore jobs) =>
        string.IsNullOrWhiteSpace(request.Reason) ? Problems.Input("/reason", "reason is needed: why the job is given up.")
        : Change(jobs, id, OnlyOpen, _ => jobs.Abandon(id, request.Version, request.Reason));
}
