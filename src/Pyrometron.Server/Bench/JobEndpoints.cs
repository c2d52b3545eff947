using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Application.Bench;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Inspection;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Messages;
using Pyrometron.Server.Access;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Judging;
using Pyrometron.Server.Proof;
using Pyrometron.Storage;

namespace Pyrometron.Server.Bench;

/// <summary>An entry as a device sends it.</summary>
/// <param name="Key">Made by the device: sent twice, it counts once.</param>
/// <param name="Version">The job's version that the device had seen.</param>
/// <param name="Device">A word that the device keeps for itself.</param>
/// <param name="MadeAt">When it happened; now when omitted.</param>
public sealed record EntryRequest(Guid? Key, int? Version, string? Device, string? By, DateTimeOffset? MadeAt, JobEntry? Entry);

/// <summary>A job to start.</summary>
/// <param name="Fan">Which fan is to be changed, where the model has several.</param>
/// <param name="WarrantyAnswer">The maker's answer, or why it is opened under warranty all the same.</param>
/// <param name="Complaint">What brought it in, such as a report of its user.</param>
public sealed record StartJob(
    string? Asset,
    ServiceLevel? Level,
    string? Fan,
    string? WarrantyAnswer,
    string? Device,
    string? By,
    ComplaintRecorded? Complaint = null
);

/// <summary>Jobs at the bench: thin handlers around the core's rules.</summary>
internal static class JobEndpoints
{
    /// <summary>A job does not wait longer for the judgement that it is to be compared with.</summary>
    private static readonly TimeSpan PredictionPatience = TimeSpan.FromSeconds(2);

    /// <summary>What a device is called that does not say.</summary>
    private const string UnnamedDevice = "unnamed";

    private const int LongestWord = 80,
        LongestText = 2000;

    /// <summary>Grades of everything that can be looked at.</summary>
    private static readonly Dictionary<FindingSubject, GradeAnswer[]> Grades = Grading.Grades.ToDictionary(
        g => g.Key,
        g => g.Value.Select(grade => new GradeAnswer(grade.Word, grade.Says.ToString(), grade.Says)).ToArray()
    );

    public static void MapJobs(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/jobs").WithTags("Bench");
        group
            .MapGet(
                "",
                (JobStore jobs, int? count) => jobs.Newest(Math.Clamp(count ?? 100, 1, 1000)).Select(JobSummary.From).ToArray()
            )
            .WithSummary("The newest jobs.");
        group.MapPost("", Start);
        group.MapGet("/grades", () => Grades).WithSummary("The grades in which findings are told, with what each means.");
        group.MapGet("/{id:long}", Get);
        group.MapPost("/{id:long}/entries", PostEntry);
        group.MapGet("/{id:long}/runs/from-readings", FromReadings);
        group.MapPut("/{id:long}/photos/{key:guid}", PutPhoto).WithMetadata(Bodies.Pictures);
        api.MapGet("/photos/{key:guid}", GetPhoto).WithTags("Bench").Produces(200, contentType: "image/jpeg");
    }

    /// <summary>A job with its card, entries, runs and verdict.</summary>
    internal static Results<Ok<JobAnswer>, ProblemHttpResult> Get(long id, BenchQueries bench) =>
        bench.Find(id) is { } job ? TypedResults.Ok(JobAnswer.From(job)) : Unknown(id);

    /// <summary>Begins a job at the bench; its card is made for this machine.</summary>
    internal static async Task<Results<Created<JobAnswer>, ProblemHttpResult>> Start(
        StartJob request,
        Caller caller,
        FleetStore fleet,
        BenchUseCases bench,
        BenchQueries queries,
        JudgementService judgement,
        CancellationToken cancellation
    )
    {
        if (request.Asset is null || fleet.Find(request.Asset) is null)
            return Problems.Input("/asset", $"There is no machine '{request.Asset}'.");
        if (request.Level is not { } level)
            return Problems.Input("/level", $"level is needed: one of {Words.List<ServiceLevel>()}.");
        if (
            request.Fan?.Length > LongestWord
            || request.WarrantyAnswer?.Length > LongestText
            || request.By?.Length > LongestWord
            || request.Device?.Length > LongestWord
        )
            return Problems.Input("", $"A name is {LongestWord} characters at most, an answer {LongestText}.");
        var judged = await judgement.GetAsync(null, PredictionPatience, cancellation);
        var predicted = judged.Judgement?.ByTag.GetValueOrDefault(request.Asset) is { } a
            ? new Prediction(a.Cause, a.Service, a.DriftKelvin is { } drift ? Math.Round(drift, 1) : 0, a.NeedsWorkProbability)
            : null;
        var device = request.Device ?? UnnamedDevice;
        var id = bench.Start(
            caller.At(request.By, device),
            device,
            new JobToStart(request.Asset, level, request.Fan, request.WarrantyAnswer, predicted, request.Complaint)
        );
        return TypedResults.Created($"/api/v1/jobs/{id}", JobAnswer.From(queries.Find(id)!));
    }

    /// <summary>One thing that happened. Its answer is the job as it now stands.</summary>
    internal static Results<Ok<JobAnswer>, ProblemHttpResult> PostEntry(
        long id,
        EntryRequest request,
        Caller caller,
        BenchUseCases bench,
        BenchQueries queries
    )
    {
        if (request.Entry is not { } entry)
            return Problems.Input("/entry", "entry is needed: what happened, with its kind.");
        if (request.Key is not { } key || key == Guid.Empty)
            return Problems.Input(
                "/key",
                "key is needed: a UUID that the device makes, so that an entry sent twice counts once."
            );
        if (request.Version is not >= 1)
            return Problems.Input("/version", "version is needed: the job's version that was seen.");
        if (string.IsNullOrWhiteSpace(request.Device) || request.Device.Length > LongestWord || request.By?.Length > LongestWord)
            return Problems.Input(
                "/device",
                $"device is needed: a word that the device keeps for itself, {LongestWord} characters at most."
            );
        bench.Append(
            caller.At(request.By, request.Device),
            id,
            new EntryToAppend(key, request.Version.Value, request.Device, caller.Named(request.By), request.MadeAt, entry)
        );
        return TypedResults.Ok(JobAnswer.From(queries.Find(id)!));
    }

    /// <summary>What the newest readings would give as a run: medians of the last windows under the main load.</summary>
    internal static Results<Ok<RunAnswer>, ProblemHttpResult> FromReadings(
        long id,
        string? phase,
        JobStore jobs,
        FleetStore fleet,
        ReadingStore readings,
        TimeProvider clock
    )
    {
        if (jobs.Find(id) is not { } job || fleet.Find(job.Tag) is not { } asset)
            return Unknown(id);
        if (!Words.TryRead<RunPhase>(phase ?? (job.State == JobState.Open ? "before" : "after"), out var asked))
            return Problems.Input("/phase", $"phase is one of {Words.List<RunPhase>()}.");
        (DateTimeOffset? since, Message none) = asked switch
        {
            RunPhase.Before => (
                clock.GetUtcNow().AddDays(-30),
                (Message)"There are no loaded readings of the last 30 days to take a run from; measure one."
            ),
            RunPhase.Recheck => (
                job.RecheckDue ?? job.WorkDoneAt?.AddDays(7),
                (Message)"There are no loaded readings from a week after the work on to take a run from; measure one."
            ),
            _ => (
                job.WorkDoneAt,
                (Message)"There are no loaded readings since the work was done to take a run from; measure one."
            ),
        };
        return NewestRun.From(asset, readings.Newest(asset, 60), since) is { } run
            ? TypedResults.Ok(RunAnswer.From(run))
            : Problems.Conflict(none);
    }

    /// <summary>A photo's bytes; the entry that tells of it comes after them.</summary>
    internal static async Task<Results<NoContent, ProblemHttpResult>> PutPhoto(
        Caller caller,
        long id,
        Guid key,
        HttpRequest request,
        JobStore jobs,
        BenchUseCases bench,
        CancellationToken cancellation
    )
    {
        if (jobs.Find(id) is null)
            return Unknown(id);
        const string tooLarge = "The photo is larger than 12 MB; take it with a lower resolution.";
        if (request.ContentLength > Photo.LargestFile)
            return Problems.TooLarge(tooLarge);
        using var file = new MemoryStream();
        var buffer = new byte[81920];
        for (int read; (read = await request.Body.ReadAsync(buffer, cancellation)) > 0; )
        {
            if (file.Length + read > Photo.LargestFile)
                return Problems.TooLarge(tooLarge);
            file.Write(buffer, 0, read);
        }
        var (photo, problem) = await Photo.ReadAsync(file.ToArray(), cancellation);
        if (photo is null)
            return Problems.Input("", problem!);
        bench.KeepPhoto(caller.Actor, id, new StoredPhoto(key, photo.Width, photo.Height, photo.Picture, photo.Small));
        return TypedResults.NoContent();
    }

    /// <summary>A photo of a job, JPEG.</summary>
    internal static Results<FileContentHttpResult, ProblemHttpResult> GetPhoto(
        Guid key,
        bool? small,
        PhotoStore photos,
        HttpResponse response
    )
    {
        if (photos.Find(key, small ?? false) is not { } bytes)
            return Problems.Missing("There is no such photo.");
        // A photo that came cut short is replaced under the same key.
        response.Headers.CacheControl = "private, max-age=600";
        return TypedResults.File(bytes, "image/jpeg");
    }

    private static ProblemHttpResult Unknown(long id) => Problems.Missing($"There is no job {id}.");
}
