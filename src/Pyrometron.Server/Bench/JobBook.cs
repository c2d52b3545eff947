using System.Text.Json;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Procedures;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Proof;
using Pyrometron.Storage;

namespace Pyrometron.Server.Bench;

/// <summary>An entry as a device sends it.</summary>
/// <param name="Key">Made by the device: sent twice, it counts once.</param>
/// <param name="Version">The job's version that the device had seen.</param>
/// <param name="Device">A word that the device keeps for itself.</param>
/// <param name="MadeAt">When it happened; now when omitted.</param>
public sealed record EntryRequest(Guid? Key, int? Version, string? Device, string? By, DateTimeOffset? MadeAt, JobEntry? Entry);

/// <summary>An entry cannot be taken as the job stands.</summary>
internal sealed class RefusedEntryException(string why) : Exception(why);

/// <summary>Jobs with all that belongs to them: read as the core knows them, and written entry by entry.</summary>
internal sealed class JobBook(
    JobStore jobs,
    FleetStore fleet,
    NotesStore notes,
    PhotoStore photos,
    PolicyStore policy,
    TimeProvider clock
)
{
    /// <summary>An entry made longer ago than its job, or in the future, has a clock that cannot be believed.</summary>
    private static readonly TimeSpan ClockTolerance = TimeSpan.FromMinutes(5);

    /// <summary>A job as it stands, or null.</summary>
    public Job? Find(long id) => jobs.Find(id) is { } stored ? Add(stored, jobs.Entries(id)) : null;

    /// <summary>What is known of a model.</summary>
    public (ModelNotes Notes, int Version) NotesOf(string model) =>
        notes.Find(model) is { } stored
            ? (JsonSerializer.Deserialize<ModelNotes>(stored.Notes, ApiJson.Options)!, stored.Version)
            : (ModelNotes.Empty(model), 0);

    /// <summary>Adds an entry; everything that follows from it is done.</summary>
    /// <returns>The job as it stands then, or null when there is none.</returns>
    /// <exception cref="RefusedEntryException">The rules do not allow it as things stand.</exception>
    /// <exception cref="ConflictingEntryException">Another device has written about the same thing since.</exception>
    public Job? Append(long id, Guid key, int seen, string device, string? by, DateTimeOffset? madeAt, JobEntry entry)
    {
        if (jobs.Find(id) is not { } known)
            return null;
        var now = clock.GetUtcNow();
        var at = madeAt is { } told && told >= known.StartedAt - ClockTolerance && told <= now + ClockTolerance ? told : now;
        Job? after = null;
        JobOutcome Judge(StoredJob stored, IReadOnlyList<StoredEntry> entries, int version)
        {
            if (seen > stored.Version)
                throw new RefusedEntryException(
                    $"The job is at version {stored.Version}; version {seen} has not been written yet."
                );
            if (entry is PhotoTaken photo && !photos.Has(photo.Photo, id))
                throw new RefusedEntryException("The photo itself has not arrived; send it first.");
            var before = Add(stored, entries);
            if (before.Refuses(entry, at) is { } why)
                throw new RefusedEntryException(why);
            after = new Job(before.Head, entries.Select(Stamp).Append(new StampedEntry(key, version, device, by, at, entry)));
            return Outcome(stored, after, entry);
        }
        jobs.Append(
            new StoredEntry(
                id,
                key,
                0,
                entry.Subject,
                Kind(entry),
                device,
                by,
                at,
                JsonSerializer.Serialize(entry, ApiJson.Options)
            ),
            seen,
            entry.Decides,
            Judge
        );
        if (after is not null && entry is WorkFiled)
            Learn(known, after);
        return after ?? Find(id);
    }

    private void Learn(StoredJob stored, Job job)
    {
        var (known, version) = NotesOf(stored.Model);
        if (LearntNotes.From(known, job) is var learnt && !ReferenceEquals(learnt, known))
            notes.Keep(stored.Model, JsonSerializer.Serialize(learnt, ApiJson.Options), version, stored.Id);
    }

    private static JobOutcome Outcome(StoredJob stored, Job job, JobEntry entry) =>
        new(
            job.Level,
            job.State,
            job.WorkDoneAt,
            job.ClosedAt,
            entry is VerdictFiled
                ? JsonSerializer.Serialize(
                    job.Verdict is { } verdict ? VerdictAnswer.From(verdict) : VerdictAnswer.Unproven,
                    ApiJson.Options
                )
                : stored.Verdict,
            job.FoundCauses,
            job.RecheckDue,
            job.Standing(RunPhase.Recheck)?.At,
            entry is WorkFiled
                ?
                [
                    .. job.Services.Select(level => new ServiceDone(
                        DateOnly.FromDateTime(job.WorkDoneAt!.Value.UtcDateTime),
                        level
                    )),
                ]
                : []
        );

    private Job Add(StoredJob stored, IReadOnlyList<StoredEntry> entries)
    {
        var asset = fleet.Find(stored.Tag)!.Asset;
        var basis = new CardBasis(
            stored.Kind,
            stored.StartedLevel,
            NotesOf(stored.Model).Notes,
            policy.Bench(),
            stored.Fan,
            stored.WarrantyUntil is not null,
            null,
            asset.Parts.Any(p => p.Joint == JointMaterial.Pad),
            jobs.Deviations(stored.Tag)
        );
        return new Job(
            new JobHead(stored.Id, stored.Tag, basis, stored.StartedAt, asset.Parts, stored.WarrantyUntil, stored.Predicted),
            entries.Select(Stamp)
        );
    }

    internal static StampedEntry Stamp(StoredEntry e) => new(e.Key, e.Version, e.Device, e.By, e.MadeAt, Read(e.Entry));

    internal static JobEntry Read(string entry) => JsonSerializer.Deserialize<JobEntry>(entry, ApiJson.Options)!;

    private static string Kind(JobEntry entry) =>
        JsonSerializer.SerializeToElement(entry, ApiJson.Options).GetProperty("kind").GetString()!;
}
