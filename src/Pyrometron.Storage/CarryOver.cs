using Microsoft.Data.Sqlite;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Procedures;
using Pyrometron.Storage.Records;

namespace Pyrometron.Storage;

/// <summary>
/// Brings what an older program stored into the forms of today, where SQL alone cannot: cards are frozen as they read so far,
/// jobs tell their machines' history, services the job that did them, and the change log begins with what is known of the past.
/// One transaction: broken off, it begins anew at the next start.
/// </summary>
internal static class CarryOver
{
    private const int Version = 7;

    /// <param name="tell">Told of what cannot be read.</param>
    public static void Run(Database database, DateTimeOffset now, Action<string> tell) =>
        database.Write(
            Actor.Program,
            now,
            t =>
            {
                if (AboutStore.CarriedOver(t) >= Version)
                    return;
                foreach (var job in JobStore.Load(t.Connection, "WHERE j.card IS NULL ORDER BY j.id", ("$none", null)))
                    Readable(job, () => Freeze(t, job), tell);
                foreach (var job in JobStore.Load(t.Connection, "WHERE j.history IS NULL ORDER BY j.id", ("$none", null)))
                    Readable(job, () => Tell(t, job), tell);
                if (t.Connection.Scalar("SELECT 1 FROM change LIMIT 1") is null)
                    BeginLog(t);
                AboutStore.SetCarriedOver(t, Version);
            }
        );

    /// <summary>A job that cannot be read stays as it is: it must not keep all others from being opened.</summary>
    private static void Readable(StoredJob job, Action carry, Action<string> tell)
    {
        try
        {
            carry();
        }
        catch (Exception error) when (error is System.Text.Json.JsonException or InvalidDataException or FormatException)
        {
            tell($"Job {job.Id} on {job.Tag} cannot be read and is left as it is: {error.Message}");
        }
    }

    private static void Freeze(Transaction t, StoredJob job)
    {
        var notes = NotesStore.Find(t, job.Model);
        var basis = new CardBasis(
            job.Kind,
            job.StartedLevel,
            notes.Notes,
            PolicyStore.Bench(t),
            job.Fan,
            job.WarrantyUntil is not null,
            null,
            FleetStore.Find(t, job.Tag)!.Asset.Parts.Any(p => p.Joint == JointMaterial.Pad),
            JobStore.Deviations(t, job.Tag)
        );
        var card = FrozenCard.Recover(basis, notes.Version, JobStore.Entries(t, job.Id));
        t.Connection.Execute(
            "UPDATE job SET card_form = $form, card = $card WHERE id = $id",
            ("$form", CardRecord.Form),
            ("$card", StoredJson.Write(CardRecord.Of(card))),
            ("$id", job.Id)
        );
    }

    private static void Tell(Transaction t, StoredJob row)
    {
        var job = JobStore.Job(t, row);
        JobStore.Keep(t, job, null);
        if (job.Service is not { } service)
            return;
        // What stands in the book keeps its day and level, and whether it was struck out.
        t.Connection.Execute(
            "UPDATE service SET form = $form, record = $record, proven = $proven WHERE job_id = $job AND level = $level AND date = $date",
            ("$form", ServiceRecord.Form),
            ("$record", ServiceRecord.Of(service) is { } record ? StoredJson.Write(record) : null),
            ("$proven", service.Proven is { } proven ? Words.Of(proven) : null),
            ("$job", row.Id),
            ("$level", Words.Of(service.Level)),
            ("$date", Sql.Text(service.Date))
        );
    }

    /// <summary>The log begins with all that the older tables tell, in the order of time.</summary>
    private static void BeginLog(Transaction t)
    {
        foreach (var (change, actor) in Past(t.Connection).OrderBy(p => p.Change.At).ToArray())
            t.As(actor).Log(change);
    }

    private static IEnumerable<(Change Change, Actor Actor)> Past(SqliteConnection connection)
    {
        foreach (var job in JobStore.Load(connection, "ORDER BY j.id", ("$none", null)))
        {
            yield return (
                new Change("job", Message.Of("Job started: {level}", Value.Word("level", job.StartedLevel)))
                {
                    Asset = job.AssetId,
                    Job = job.Id,
                    At = job.StartedAt,
                },
                Actor.Unnamed
            );
            var steps = JobStore.Job(connection, job).Steps.ToDictionary(s => s.Card.Id, s => s.Card.Do);
            foreach (var entry in JobStore.Entries(connection, job.Id))
                yield return (
                    new Change(JobStore.KindOf(entry.Entry), EntryWords.Of(entry.Entry, steps.GetValueOrDefault))
                    {
                        Asset = job.AssetId,
                        Job = job.Id,
                        At = entry.MadeAt,
                        After = JobStore.StoredFormOf(entry.Entry),
                    },
                    Actor.Of(entry.By, entry.Device)
                );
        }
        foreach (var change in PastOfMachines(connection))
            yield return (change, Actor.Unnamed);
    }

    private static IEnumerable<Change> PastOfMachines(SqliteConnection connection)
    {
        static DateTimeOffset Day(DateOnly date) => new(date.ToDateTime(TimeOnly.MinValue), TimeSpan.Zero);
        foreach (
            var (asset, date, level, reason) in connection.Query(
                "SELECT asset_id, date, level, voided_reason FROM service ORDER BY id",
                r => (r.GetInt64(0), r.Date(1), r.GetString(2), r.TextOrNull(3))
            )
        )
            yield return new Change(
                "service",
                Struck("Service: {level}", reason, Value.Word("level", StoredWords.Read<ServiceLevel>(level)))
            )
            {
                Asset = asset,
                At = Day(date),
            };
        foreach (
            var (asset, date, kind, note, reason) in connection.Query(
                "SELECT asset_id, date, kind, note, withdrawn_reason FROM symptom ORDER BY id",
                r => (r.GetInt64(0), r.Date(1), r.GetString(2), r.TextOrNull(3), r.TextOrNull(4))
            )
        )
            yield return new Change(
                "report",
                note is null
                    ? Struck("Reported: {kind}", reason, Value.Text("kind", kind))
                    : Struck("Reported: {kind}, {note}", reason, Value.Text("kind", kind), Value.Text("note", note))
            )
            {
                Asset = asset,
                At = Day(date),
            };
        foreach (
            var (asset, at, field, before, after) in connection.Query(
                "SELECT asset_id, made_at, field, before, after FROM asset_change ORDER BY id",
                r => (r.GetInt64(0), Sql.ReadInstant(r.GetString(1)), r.GetString(2), r.TextOrNull(3), r.TextOrNull(4))
            )
        )
            yield return new Change("change", ChangeWords.OfField(field, before, after))
            {
                Asset = asset,
                At = at,
                Before = before,
                After = after,
            };
        foreach (
            var (asset, made, kind, at, reason) in connection.Query(
                "SELECT asset_id, made_at, kind, at_ms, reason FROM reading_amendment ORDER BY id",
                r => (r.GetInt64(0), Sql.ReadInstant(r.GetString(1)), r.GetString(2), r.GetInt64(3), r.GetString(4))
            )
        )
            yield return new Change("reading", ChangeWords.OfReading(kind, DateTimeOffset.FromUnixTimeMilliseconds(at), reason))
            {
                Asset = asset,
                At = made,
            };
    }

    private static Message Struck(string template, string? reason, params ReadOnlySpan<MessageValue> values) =>
        reason is null
            ? Message.Of(template, values)
            : Message.Of(
                "{what} (struck out: {reason})",
                Value.List("what", "", [Message.Of(template, values)]),
                Value.Text("reason", reason)
            );
}
