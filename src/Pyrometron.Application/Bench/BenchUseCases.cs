using Pyrometron.Application.Fleet;
using Pyrometron.Application.Stores;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Procedures;
using Pyrometron.Core.Proof;
using Pyrometron.Storage;

namespace Pyrometron.Application.Bench;

/// <summary>A job to start.</summary>
/// <param name="Fan">Which fan is to be changed, where the model has several.</param>
/// <param name="WarrantyAnswer">The maker's answer, or why it is opened under warranty all the same.</param>
/// <param name="Predicted">What the judgement says of the machine now; null where it does not know.</param>
/// <param name="Complaint">What brought it in, such as a report of its user; null where it came without one.</param>
public sealed record JobToStart(
    string Asset,
    ServiceLevel Level,
    string? Fan,
    string? WarrantyAnswer,
    Prediction? Predicted,
    ComplaintRecorded? Complaint = null
);

/// <summary>An entry to append.</summary>
/// <param name="Key">Made by the device: sent twice, it counts once.</param>
/// <param name="Seen">The job's version that the device had seen.</param>
/// <param name="By">Who, as the device says.</param>
/// <param name="MadeAt">When it happened; now where it is not told or cannot be believed.</param>
public sealed record EntryToAppend(Guid Key, int Seen, string Device, string? By, DateTimeOffset? MadeAt, JobEntry Entry);

/// <summary>What became of a model's notes from elsewhere.</summary>
/// <param name="IsNew">Whether this house had none.</param>
public sealed record NotesTakenIn(string Model, bool IsNew, bool Changed, MergedNotes Merged);

/// <summary>Jobs at the bench: started, and written entry by entry, with all that follows from each entry.</summary>
public sealed class BenchUseCases(Database database, TimeProvider clock)
{
    /// <summary>An entry made longer ago than its job, or in the future, has a clock that cannot be believed.</summary>
    private static readonly TimeSpan ClockTolerance = TimeSpan.FromMinutes(5);

    /// <summary>Starts a job and deals its card.</summary>
    /// <returns>Its number.</returns>
    /// <exception cref="NotThereException">There is no such machine.</exception>
    /// <exception cref="NotPossibleException">It is retired, has an open job, or the house's rules forbid it.</exception>
    public long Start(Actor actor, string device, JobToStart job) =>
        database.Write(
            actor.Allowed(Right.Work),
            clock.GetUtcNow(),
            t =>
            {
                var stored = FleetUseCases.Find(t, job.Asset);
                if (stored.RetiredOn is not null)
                    throw new NotPossibleException(
                        Message.Of("'{asset}' is retired; put it back into use first.", Value.Text("asset", job.Asset))
                    );
                var (asset, schools) = (stored.Asset, RuleStore.Bench(t, stored.Asset));
                if (!ServiceEffects.Suits(job.Level, asset.Kind))
                    throw new NotPossibleException(Job.Unsuited(job.Level, asset.Kind));
                DateOnly? until = asset.UnderWarranty(DateOnly.FromDateTime(t.Now.UtcDateTime)) ? asset.WarrantyUntil : null;
                if (
                    until is { } last
                    && string.IsNullOrWhiteSpace(job.WarrantyAnswer)
                    && schools.RefusesUnderWarranty(job.Level, last) is { } refused
                )
                    throw new NotPossibleException(refused, "warranty");
                var notes = NotesStore.Find(t, asset.Model);
                var basis = new CardBasis(
                    asset.Kind,
                    job.Level,
                    notes.Notes,
                    schools,
                    job.Fan,
                    until is not null,
                    null,
                    asset.Parts.Any(p => p.Joint == JointMaterial.Pad),
                    JobStore.Deviations(t, job.Asset)
                )
                {
                    Host = asset.HostTag,
                    HostMates = asset.HostTag is { } host ? HostStore.Mates(t, host, asset.Tag) : null,
                    TwoPeople = RuleStore.Policy(t, asset).TwoPeople,
                };
                var card = FrozenCard.Deal(basis, notes.Version);
                var earlier = ComebackOf(t, stored.Id, schools);
                if (
                    JobStore.Start(
                        t,
                        new NewJob(
                            stored.Id,
                            job.Level,
                            job.Fan,
                            until,
                            job.Predicted,
                            card,
                            earlier,
                            earlier is not null && schools.FreesComebacks
                        )
                    )
                    is not { } id
                )
                    throw new NotPossibleException(
                        Message.Of(
                            "Job {job} is open on '{asset}' already; finish or give it up first.",
                            Value.Count("job", JobStore.Of(t, stored.Id).First(j => j.State == JobState.Open).Id),
                            Value.Text("asset", job.Asset)
                        )
                    );
                t.Log(
                    new Change("job", Message.Of("Job started: {level}", Value.Word("level", job.Level)))
                    {
                        Asset = stored.Id,
                        Job = id,
                    }
                );
                void Tell(JobEntry entry)
                {
                    var row = JobStore.Find(t, id)!;
                    var by = actor.Kind == ActorKind.Person ? actor.Name : null;
                    Append(t, row, new EntryToAppend(Guid.NewGuid(), row.Version, device, by, null, entry));
                }
                if (!string.IsNullOrWhiteSpace(job.WarrantyAnswer))
                    Tell(new WarrantyAnswered(job.WarrantyAnswer));
                if (job.Complaint is { } complaint)
                    Tell(complaint);
                return id;
            }
        );

    /// <summary>
    /// Appends an entry; everything that follows from it is done with it: card, machine's book, reports, notes.
    /// </summary>
    /// <exception cref="NotThereException">There is no such job.</exception>
    /// <exception cref="NotPossibleException">The rules do not allow it as things stand.</exception>
    /// <exception cref="ConflictingEntryException">Another device has written about the same thing since.</exception>
    public void Append(Actor actor, long id, EntryToAppend entry) =>
        database.Write(actor.Allowed(Right.Work), clock.GetUtcNow(), t => Append(t, Find(t, id), entry));

    /// <summary>
    /// The job that the machine is back from: the newest filed one, where that is not long ago; a look is none.
    /// </summary>
    private static long? ComebackOf(Transaction t, long asset, BenchSchools schools) =>
        JobStore
            .Of(t, asset)
            .FirstOrDefault(j => j.State != JobState.Abandoned && j.WorkDoneAt is not null && j.Level != ServiceLevel.Inspect)
            is { WorkDoneAt: { } filed } last
        && schools.IsComeback(filed, t.Now)
            ? last.Id
            : null;

    /// <summary>Keeps a photo's bytes; the entry that tells of it comes after them.</summary>
    /// <exception cref="NotThereException">There is no such job.</exception>
    public void KeepPhoto(Actor actor, long id, StoredPhoto photo) =>
        database.Write(
            actor.Allowed(Right.Work),
            clock.GetUtcNow(),
            t =>
            {
                _ = Find(t, id);
                if (!PhotoStore.Keep(t, id, photo))
                    throw new NotPossibleException("The key of this photo belongs to a photo of another job. Take it again.");
            }
        );

    /// <summary>Keeps samples of a run that is going on: they are not history yet.</summary>
    /// <exception cref="NotThereException">There is no such job.</exception>
    public void AddSamples(Actor actor, long id, IReadOnlyList<(DateTimeOffset At, string Sample)> samples) =>
        database.Write(
            actor.Allowed(Right.Work),
            clock.GetUtcNow(),
            t =>
            {
                _ = Find(t, id);
                SampleStore.Add(t, id, samples);
            }
        );

    /// <summary>Keeps what a person wrote about a model.</summary>
    /// <param name="seen">The version that the writer had seen; 0 for none.</param>
    /// <exception cref="NotPossibleException">Somebody else has changed them since.</exception>
    public void KeepNotes(Actor actor, ModelNotes notes, int seen) =>
        database.Write(
            actor.Allowed(Right.Work),
            clock.GetUtcNow(),
            t =>
            {
                var before = NotesStore.Find(t, notes.Model).Notes;
                var by = actor.Name.Length > 0 ? actor.Name : "not named";
                var signed = NoteChanges.SignedBy(before, notes, by, DateOnly.FromDateTime(t.Now.UtcDateTime));
                if (!NotesStore.Keep(t, signed, seen))
                    throw new NotPossibleException(
                        "Somebody else, or a job, has changed these notes meanwhile. Load them again, and lay your changes over theirs."
                    );
                t.Log(NotesKept(notes.Model));
            }
        );

    /// <summary>Lays notes from elsewhere over those of this house.</summary>
    /// <param name="models">One a model.</param>
    /// <param name="dryRun">Whether nothing is kept.</param>
    /// <returns>What became, or would become, of each.</returns>
    public IReadOnlyList<NotesTakenIn> TakeInNotes(
        Actor actor,
        IReadOnlyList<ModelNotes> models,
        PreferredNotes prefer,
        bool dryRun
    ) =>
        database.Write(
            actor.AllowedEverywhere(Right.KeepMachines),
            clock.GetUtcNow(),
            t =>
                models
                    .Select(there =>
                    {
                        var here = NotesStore.Find(t, there.Model);
                        var merged = NotesMerge.Of(here.Notes, there, prefer);
                        var changed = !ReferenceEquals(merged.Notes, here.Notes);
                        if (changed && !dryRun)
                        {
                            NotesStore.Keep(t, merged.Notes, here.Version);
                            t.Log(NotesKept(there.Model));
                        }
                        return new NotesTakenIn(there.Model, here.Version == 0, changed, merged);
                    })
                    .ToArray()
        );

    internal static Change NotesKept(string model) =>
        new("notes", Message.Of("Notes on {model} changed", Value.Text("model", model)));

    private static StoredJob Find(Transaction t, long id)
    {
        var row = JobStore.Find(t, id) ?? throw Missing.Job(id);
        FleetUseCases.Find(t, row.Tag);
        return row;
    }

    internal static void Append(Transaction t, StoredJob row, EntryToAppend told)
    {
        var entries = JobStore.Entries(t, row.Id);
        if (entries.Any(e => e.Key == told.Key))
            return;
        var before = JobStore.Job(t, row);
        RefuseUnseen(before, entries, told);
        if (told.Seen > row.Version)
            throw new NotPossibleException(
                Message.Of(
                    "The job is at version {version}; version {seen} has not been written yet.",
                    Value.Count("version", row.Version),
                    Value.Count("seen", told.Seen)
                )
            );
        if (told.Entry is PhotoTaken photo && !PhotoStore.Has(t, photo.Photo, row.Id))
            throw new NotPossibleException("The photo itself has not arrived; send it first.");
        var at =
            told.MadeAt is { } made && made >= row.StartedAt - ClockTolerance && made <= t.Now + ClockTolerance ? made : t.Now;
        if ((before.Refuses(told.Entry, at) ?? StockBooking.Refuses(t, told.Entry)) is { } why)
            throw new NotPossibleException(why);
        var after = Store(t, row, before, new NewEntry(told.Key, row.Version + 1, told.Device, told.By, at, told.Entry));
        var notes = told.Entry is NotesTaken ? NotesStore.Find(t, row.Model).Notes : null;
        if (after.CardChange(before, notes) is { } change)
            after = Store(t, row, after, new NewEntry(Guid.NewGuid(), after.Version + 1, told.Device, null, at, change));
        JobStore.Keep(t, after, told.Entry is VerdictFiled ? after.Verdict ?? Verdict.LookedAt : null);
        EntryEffects.Follow(t, row, before, after, told.Entry);
        StockBooking.Follow(t, row, after, told.Entry);
    }

    private static void RefuseUnseen(Job job, IReadOnlyList<StampedEntry> entries, EntryToAppend told)
    {
        var unseen = entries
            .Where(e =>
                e.Version > told.Seen
                && e.Device != told.Device
                && e.Entry is not CardChanged
                && (told.Entry.Decides || (told.Entry.Subject is { } subject && e.Entry.Subject == subject))
            )
            .ToArray();
        if (unseen.Length == 0)
            return;
        var steps = job.Steps.ToDictionary(s => s.Card.Id, s => s.Card.Do);
        throw new ConflictingEntryException([.. unseen.Select(e => (e, EntryWords.Of(e.Entry, steps.GetValueOrDefault)))]);
    }

    /// <summary>Stores and logs one entry.</summary>
    /// <returns>The job with it.</returns>
    private static Job Store(Transaction t, StoredJob row, Job before, NewEntry entry)
    {
        JobStore.Add(t, row.Id, entry);
        var after = new Job(before.Head, JobStore.Entries(t, row.Id));
        var steps = before.Steps.Concat(after.Steps).DistinctBy(s => s.Card.Id).ToDictionary(s => s.Card.Id, s => s.Card.Do);
        t.Log(
            new Change(JobStore.KindOf(entry.Entry), EntryWords.Of(entry.Entry, steps.GetValueOrDefault))
            {
                Asset = row.AssetId,
                Job = row.Id,
                At = entry.MadeAt,
                After = JobStore.StoredFormOf(entry.Entry),
            }
        );
        return after;
    }
}
