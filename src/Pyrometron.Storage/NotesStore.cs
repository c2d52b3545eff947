using Microsoft.Data.Sqlite;
using Pyrometron.Core.Procedures;
using Pyrometron.Storage.Records;

namespace Pyrometron.Storage;

/// <summary>Notes of a model as kept.</summary>
/// <param name="JobId">The job that added to them last, or null where a person did.</param>
/// <param name="Version">0 where nothing is noted yet.</param>
public sealed record StoredNotes(ModelNotes Notes, DateTimeOffset? ChangedAt, long? JobId, int Version);

/// <summary>What is known of models.</summary>
public sealed class NotesStore(Database database)
{
    /// <summary>The notes of a model; empty ones of version 0 where nothing is noted yet.</summary>
    public StoredNotes Find(string model) => database.Read(connection => Find(connection, model));

    /// <summary>The notes of a model within a use case.</summary>
    public static StoredNotes Find(Transaction t, string model) => Find(t.Connection, model);

    internal static StoredNotes Find(SqliteConnection connection, string model) =>
        connection
            .Query(
                "SELECT notes, changed_at, job_id, version FROM model_notes WHERE model = $model",
                r => new StoredNotes(
                    StoredJson.Read<ModelNotes>(r.GetString(0)),
                    Sql.ReadInstant(r.GetString(1)),
                    r.LongOrNull(2),
                    r.GetInt32(3)
                ),
                ("$model", model)
            )
            .FirstOrDefault()
        ?? new StoredNotes(ModelNotes.Empty(model), null, null, 0);

    /// <summary>All models of the fleet with the number of their machines, and whether there are notes.</summary>
    public IReadOnlyList<(string Model, string Kind, int Machines, bool Noted)> Models() =>
        database.Read(connection =>
            connection.Query(
                "SELECT a.model, min(a.kind), count(*), max(n.model IS NOT NULL) FROM asset a LEFT JOIN model_notes n ON n.model = a.model WHERE a.retired_on IS NULL GROUP BY a.model ORDER BY count(*) DESC, a.model",
                r => (r.GetString(0), r.GetString(1), r.GetInt32(2), r.GetInt32(3) == 1)
            )
        );

    /// <summary>
    /// Who saw what of a model at the bench, and in how many jobs: counted from the jobs' entries, the most often seen first.
    /// </summary>
    public IReadOnlyList<NoteSource> Seen(string model) =>
        database.Read(connection =>
            connection.Query(
                """
                SELECT about, by, count(DISTINCT job_id), max(made_at) FROM (
                    SELECT e.job_id, e.made_at, coalesce(e.by, 'not named') AS by,
                        CASE e.kind
                            WHEN 'counted' THEN e.entry ->> '$.what'
                            WHEN 'chip-seen' THEN 'chip'
                            WHEN 'tool-used' THEN e.entry ->> '$.tool'
                            ELSE 'pad ' || coalesce(e.entry ->> '$.pad', e.entry ->> '$.place')
                        END AS about
                    FROM asset a JOIN job j ON j.asset_id = a.id JOIN job_entry e ON e.job_id = j.id
                    WHERE a.model = $model AND j.work_done_at IS NOT NULL
                        AND e.kind IN ('counted', 'chip-seen', 'tool-used', 'pad-measured')
                ) GROUP BY about, by ORDER BY 3 DESC, about, by LIMIT $most
                """,
                r => new NoteSource(
                    r.GetString(0),
                    r.GetString(1),
                    r.GetInt32(2),
                    DateOnly.FromDateTime(Sql.ReadInstant(r.GetString(3)).UtcDateTime)
                ),
                ("$model", model),
                ("$most", ModelNotes.Most)
            )
        );

    /// <summary>All notes that were ever kept, by model.</summary>
    public IReadOnlyList<ModelNotes> All() =>
        database.Read(connection =>
            connection.Query("SELECT notes FROM model_notes ORDER BY model", r => StoredJson.Read<ModelNotes>(r.GetString(0)))
        );

    /// <summary>Keeps notes.</summary>
    /// <param name="seen">The version that the writer had seen; 0 for none.</param>
    /// <returns>False when somebody else has changed them since.</returns>
    public static bool Keep(Transaction t, ModelNotes notes, int seen, long? job = null) =>
        t.Connection.Scalar(
            """
            INSERT INTO model_notes (model, notes, changed_at, job_id) SELECT $model, $notes, $now, $job WHERE $seen = 0
                OR EXISTS (SELECT 1 FROM model_notes WHERE model = $model AND version = $seen)
            ON CONFLICT (model) DO UPDATE SET notes = $notes, changed_at = $now, job_id = $job,
                version = version + 1 WHERE version = $seen
            RETURNING version
            """,
            ("$model", notes.Model),
            ("$notes", StoredJson.Write(notes)),
            ("$now", Sql.Text(t.Now)),
            ("$job", job),
            ("$seen", seen)
        )
            is not null;
}
