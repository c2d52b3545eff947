using Microsoft.Data.Sqlite;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Storage.Records;

namespace Pyrometron.Storage;

/// <summary>A report as stored.</summary>
/// <param name="JobId">The job that took it up, or null.</param>
public sealed record StoredSymptom(long Id, Symptom Symptom, string? WithdrawnReason, long? JobId);

/// <summary>What people reported of machines.</summary>
public sealed class SymptomStore(Database database)
{
    private const string Columns = "s.id, s.date, s.kind, s.note, s.withdrawn_reason, s.job_id, s.minutes, s.made_at";

    /// <summary>Adds a report.</summary>
    /// <returns>Its number.</returns>
    public static long Add(Transaction t, long assetId, Symptom symptom, long? job = null) =>
        (long)
            t.Connection.Scalar(
                """
                INSERT INTO symptom (asset_id, date, kind, note, made_at, minutes, job_id)
                VALUES ($asset, $date, $kind, $note, $made, $minutes, $job) RETURNING id
                """,
                ("$asset", assetId),
                ("$date", Sql.Text(symptom.Date)),
                ("$kind", Words.Of(symptom.Kind)),
                ("$note", symptom.Note),
                ("$made", Sql.Text(symptom.ReportedAt ?? t.Now)),
                ("$minutes", symptom.MinutesToFailure),
                ("$job", job)
            )!;

    /// <summary>What a job says of a report that it took up.</summary>
    public static void Change(Transaction t, long id, Symptom symptom, long job) =>
        t.Connection.Execute(
            "UPDATE symptom SET kind = $kind, minutes = coalesce($minutes, minutes), job_id = $job WHERE id = $id",
            ("$kind", Words.Of(symptom.Kind)),
            ("$minutes", symptom.MinutesToFailure),
            ("$job", job),
            ("$id", id)
        );

    /// <summary>Withdraws a report, which stays in the book.</summary>
    /// <returns>False when the machine has no such report standing.</returns>
    public static bool Withdraw(Transaction t, long assetId, long id, string reason) =>
        t.Connection.Scalar(
            "UPDATE symptom SET withdrawn_at = $now, withdrawn_reason = $reason WHERE id = $id AND asset_id = $asset AND withdrawn_at IS NULL RETURNING id",
            ("$now", Sql.Text(t.Now)),
            ("$reason", reason),
            ("$id", id),
            ("$asset", assetId)
        )
            is not null;

    /// <summary>All reports of a machine, newest first.</summary>
    public IReadOnlyList<StoredSymptom> Of(long assetId) => database.Read(connection => Of(connection, assetId));

    /// <summary>All reports of a machine within a use case, newest first.</summary>
    public static IReadOnlyList<StoredSymptom> Of(Transaction t, long assetId) => Of(t.Connection, assetId);

    internal static List<StoredSymptom> Of(SqliteConnection connection, long assetId) =>
        connection.Query(
            $"SELECT {Columns} FROM symptom s WHERE s.asset_id = $asset ORDER BY s.date DESC, s.id DESC",
            r => new StoredSymptom(r.GetInt64(0), Read(r), r.TextOrNull(4), r.LongOrNull(5)),
            ("$asset", assetId)
        );

    /// <summary>A report of the day it was written down has its instant; an older one only its day.</summary>
    private static Symptom Read(SqliteDataReader r)
    {
        var (date, made) = (r.Date(1), Sql.ReadInstant(r.GetString(7)));
        return new Symptom(date, StoredWords.Read<SymptomKind>(r.GetString(2)), r.TextOrNull(3))
        {
            ReportedAt = DateOnly.FromDateTime(made.UtcDateTime) == date ? made : null,
            MinutesToFailure = r.IsDBNull(6) ? null : r.GetDouble(6),
        };
    }
}
