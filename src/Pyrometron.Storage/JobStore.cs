using System.Globalization;
using Microsoft.Data.Sqlite;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Learning;

namespace Pyrometron.Storage;

/// <summary>A job's row: what is fixed at its start, and what its entries came to.</summary>
/// <param name="Level">In hand.</param>
/// <param name="Verdict">JSON, as filed.</param>
/// <param name="FoundCauses">Null while nothing was looked at.</param>
public sealed record StoredJob(
    long Id,
    string Tag,
    AssetKind Kind,
    string Model,
    ServiceLevel Level,
    ServiceLevel StartedLevel,
    string? Fan,
    JobState State,
    DateTimeOffset StartedAt,
    DateTimeOffset? WorkDoneAt,
    DateTimeOffset? ClosedAt,
    string? Verdict,
    int Version,
    DateOnly? WarrantyUntil,
    Prediction? Predicted,
    IReadOnlyList<Cause>? FoundCauses,
    DateTimeOffset? RecheckDue,
    DateTimeOffset? RecheckedAt
);

/// <summary>An entry as stored.</summary>
/// <param name="Entry">JSON.</param>
public sealed record StoredEntry(
    long JobId,
    Guid Key,
    int Version,
    string? Subject,
    string Kind,
    string Device,
    string? By,
    DateTimeOffset MadeAt,
    string Entry
);

/// <summary>A job to start.</summary>
/// <param name="WarrantyUntil">Null where none runs.</param>
public sealed record NewJob(string Tag, ServiceLevel Level, string? Fan, DateOnly? WarrantyUntil, Prediction? Predicted);

/// <summary>What the entries of a job come to, kept in its row for lists.</summary>
/// <param name="Services">The services that enter the machine's book with this entry; the first is the job's own.</param>
public sealed record JobOutcome(
    ServiceLevel Level,
    JobState State,
    DateTimeOffset? WorkDoneAt,
    DateTimeOffset? ClosedAt,
    string? Verdict,
    IReadOnlyList<Cause>? FoundCauses,
    DateTimeOffset? RecheckDue,
    DateTimeOffset? RecheckedAt,
    IReadOnlyList<ServiceDone> Services
);

/// <summary>An entry was made without having seen another device's entry about the same thing.</summary>
/// <param name="theirs">What the other devices wrote since.</param>
public sealed class ConflictingEntryException(IReadOnlyList<StoredEntry> theirs)
    : Exception("Somebody else has changed the same thing meanwhile.")
{
    /// <summary>The entries that had not been seen.</summary>
    public IReadOnlyList<StoredEntry> Theirs { get; } = theirs;
}

/// <summary>Jobs at the bench, as sums of entries. An entry is on disk when its write returns; sent twice, it is stored once.</summary>
public sealed class JobStore(Database database, TimeProvider clock)
{
    private const string Columns = """
        SELECT j.id, a.tag, a.kind, a.model, j.level, j.started_level, j.fan, j.state, j.started_at, j.work_done_at, j.closed_at, j.verdict, j.version, j.warranty_until,
               j.predicted_cause, j.predicted_service, j.predicted_kelvin, j.found_causes, j.recheck_due, j.rechecked_at
        FROM job j JOIN asset a ON a.id = j.asset_id
        """;

    private const string EntryColumns = "SELECT job_id, key, version, subject, kind, device, by, made_at, entry FROM job_entry";

    /// <summary>Starts a job.</summary>
    /// <returns>Its number, or null when one is open on the machine already.</returns>
    public long? Start(NewJob job) =>
        database.Write(connection =>
            connection.Scalar(
                "SELECT 1 FROM job WHERE state = 'open' AND asset_id = (SELECT id FROM asset WHERE tag = $tag)",
                ("$tag", job.Tag)
            )
                is not null
                ? null
                : (long?)
                    connection.Scalar(
                        """
                        INSERT INTO job (asset_id, level, started_level, fan, state, started_at, warranty_until, predicted_cause, predicted_service, predicted_kelvin)
                        VALUES ((SELECT id FROM asset WHERE tag = $tag), $level, $level, $fan, 'open', $now, $warranty, $cause, $service, $kelvin) RETURNING id
                        """,
                        ("$tag", job.Tag),
                        ("$level", Words.Of(job.Level)),
                        ("$fan", job.Fan),
                        ("$now", Sql.Text(clock.GetUtcNow())),
                        ("$warranty", job.WarrantyUntil is { } until ? Sql.Text(until) : null),
                        ("$cause", job.Predicted is { } p ? Words.Of(p.Cause) : null),
                        ("$service", job.Predicted?.Service is { } service ? Words.Of(service) : null),
                        ("$kelvin", job.Predicted?.DriftKelvin)
                    )
        );

    /// <summary>One job, or null.</summary>
    public StoredJob? Find(long id) =>
        database.Read(connection => Load(connection, "WHERE j.id = $id", ("$id", id)).FirstOrDefault());

    /// <summary>All jobs of a machine, newest first.</summary>
    public IReadOnlyList<StoredJob> Of(long assetId) =>
        database.Read(connection => Load(connection, "WHERE j.asset_id = $id ORDER BY j.id DESC", ("$id", assetId)));

    /// <summary>The newest jobs of all machines, open and unproven ones first.</summary>
    public IReadOnlyList<StoredJob> Newest(int count) =>
        database.Read(connection =>
            Load(connection, "ORDER BY j.state IN ('open', 'waiting-for-proof') DESC, j.id DESC LIMIT $count", ("$count", count))
        );

    /// <summary>All entries of a job, oldest first.</summary>
    public IReadOnlyList<StoredEntry> Entries(long id) => database.Read(connection => LoadEntries(connection, id));

    /// <summary>Deviations from good practice recorded on a machine, each once, newest first.</summary>
    public IReadOnlyList<string> Deviations(string tag) =>
        database.Read(connection =>
            connection.Query(
                """
                SELECT e.entry ->> '$.text' AS text FROM job_entry e JOIN job j ON j.id = e.job_id JOIN asset a ON a.id = j.asset_id
                WHERE a.tag = $tag AND e.kind = 'deviation-seen' GROUP BY text ORDER BY max(e.id) DESC
                """,
                r => r.GetString(0),
                ("$tag", tag)
            )
        );

    /// <summary>
    /// Adds an entry. In one transaction the job is added up as it stands, the entry is judged by the core's rules, and the
    /// entry, the row and the machine's book are written; the commit is on disk when this returns.
    /// </summary>
    /// <param name="entry">Its version is given here.</param>
    /// <param name="seen">The job's version that the device had seen.</param>
    /// <param name="decides">Whether the device must have seen everything.</param>
    /// <param name="judge">Gets the job and its entries; throws when the entry cannot be taken.</param>
    /// <returns>False when there is no such job.</returns>
    /// <exception cref="ConflictingEntryException">Another device has written about the same thing since.</exception>
    public bool Append(
        StoredEntry entry,
        int seen,
        bool decides,
        Func<StoredJob, IReadOnlyList<StoredEntry>, int, JobOutcome> judge
    ) =>
        database.Write(connection =>
        {
            if (Load(connection, "WHERE j.id = $id", ("$id", entry.JobId)).FirstOrDefault() is not { } job)
                return false;
            var entries = LoadEntries(connection, entry.JobId);
            if (entries.Any(e => e.Key == entry.Key))
                return true;
            if (
                entries
                    .Where(e =>
                        e.Version > seen
                        && e.Device != entry.Device
                        && (decides || (entry.Subject is not null && e.Subject == entry.Subject))
                    )
                    .ToArray() is
                { Length: > 0 } unseen
            )
                throw new ConflictingEntryException(unseen);
            var version = job.Version + 1;
            var outcome = judge(job, entries, version);
            connection.Execute(
                """
                INSERT INTO job_entry (job_id, key, version, subject, kind, device, by, made_at, stored_at, entry)
                VALUES ($job, $key, $version, $subject, $kind, $device, $by, $made, $now, $entry)
                """,
                ("$job", entry.JobId),
                ("$key", entry.Key.ToString("N")),
                ("$version", version),
                ("$subject", entry.Subject),
                ("$kind", entry.Kind),
                ("$device", entry.Device),
                ("$by", entry.By),
                ("$made", Sql.Text(entry.MadeAt)),
                ("$now", Sql.Text(clock.GetUtcNow())),
                ("$entry", entry.Entry)
            );
            connection.Execute(
                """
                UPDATE job SET version = $version, level = $level, state = $state, work_done_at = $done, closed_at = $closed, verdict = $verdict, found_causes = $found,
                               recheck_due = $due, rechecked_at = $rechecked WHERE id = $id
                """,
                ("$version", version),
                ("$level", Words.Of(outcome.Level)),
                ("$state", Words.Of(outcome.State)),
                ("$done", Instant(outcome.WorkDoneAt)),
                ("$closed", Instant(outcome.ClosedAt)),
                ("$verdict", outcome.Verdict),
                ("$found", outcome.FoundCauses is { } found ? string.Join(' ', found.Select(Words.Of)) : null),
                ("$due", Instant(outcome.RecheckDue)),
                ("$rechecked", Instant(outcome.RecheckedAt)),
                ("$id", entry.JobId)
            );
            foreach (var service in outcome.Services.Reverse())
                EnterService(connection, entry.JobId, service);
            return true;
        });

    /// <summary>The cause that was predicted and those found on opening, for every filed job in which something was looked at.</summary>
    public IReadOnlyList<(Cause Predicted, IReadOnlyList<Cause> Found)> PredictedAndFound() =>
        database.Read(connection =>
            connection.Query(
                "SELECT predicted_cause, found_causes FROM job WHERE predicted_cause IS NOT NULL AND found_causes IS NOT NULL AND work_done_at IS NOT NULL",
                r => (Read<Cause>(r.GetString(0)), Causes(r.GetString(1)))
            )
        );

    /// <summary>What every job that did what was advised has proven, on the part that won most.</summary>
    public IReadOnlyList<ProvenJob> Proven() =>
        database.Read(connection =>
            connection.Query(
                """
                SELECT a.kind, a.model, j.level, j.predicted_cause, j.predicted_kelvin, -min(p.value ->> '$.changeKelvin'), p.value ->> '$.uncertaintyKelvin'
                FROM job j JOIN asset a ON a.id = j.asset_id, json_each(j.verdict, '$.parts') p
                WHERE j.predicted_service = j.level AND j.predicted_kelvin > 0 AND j.verdict ->> '$.outcome' <> 'not-comparable'
                GROUP BY j.id
                """,
                r => new ProvenJob(
                    Read<AssetKind>(r.GetString(0)),
                    r.GetString(1),
                    ServiceStore.ReadLevel(r.GetString(2)),
                    Read<Cause>(r.GetString(3)),
                    r.GetDouble(4),
                    r.GetDouble(5),
                    r.GetDouble(6)
                )
            )
        );

    /// <summary>The minutes booked on every filed job, by the level that was done in the end.</summary>
    public IReadOnlyList<TimedJob> Timed() =>
        database.Read(connection =>
            connection.Query(
                """
                SELECT a.kind, a.model, j.level, sum(e.entry ->> '$.minutes') AS minutes
                FROM job j JOIN asset a ON a.id = j.asset_id JOIN job_entry e ON e.job_id = j.id AND e.kind = 'minutes-booked'
                WHERE j.work_done_at IS NOT NULL AND j.state <> 'abandoned'
                GROUP BY j.id HAVING minutes > 0
                """,
                r => new TimedJob(
                    Read<AssetKind>(r.GetString(0)),
                    r.GetString(1),
                    ServiceStore.ReadLevel(r.GetString(2)),
                    r.GetDouble(3)
                )
            )
        );

    private static void EnterService(SqliteConnection connection, long job, ServiceDone service)
    {
        var id = connection.Scalar(
            """
            INSERT INTO service (asset_id, date, level) VALUES ((SELECT asset_id FROM job WHERE id = $job), $date, $level)
            ON CONFLICT (asset_id, date, level) DO UPDATE SET voided_at = NULL, voided_reason = NULL RETURNING id
            """,
            ("$job", job),
            ("$date", Sql.Text(service.Date)),
            ("$level", Words.Of(service.Level))
        );
        connection.Execute("UPDATE job SET service_id = $service WHERE id = $job", ("$service", id), ("$job", job));
        connection.Execute("DELETE FROM set_aside WHERE asset_id = (SELECT asset_id FROM job WHERE id = $job)", ("$job", job));
    }

    private static string? Instant(DateTimeOffset? at) => at is { } instant ? Sql.Text(instant) : null;

    private static List<StoredEntry> LoadEntries(SqliteConnection connection, long id) =>
        connection.Query($"{EntryColumns} WHERE job_id = $id ORDER BY version", ReadEntry, ("$id", id));

    internal static StoredEntry ReadEntry(SqliteDataReader r) =>
        new(
            r.GetInt64(0),
            Guid.Parse(r.GetString(1), CultureInfo.InvariantCulture),
            r.GetInt32(2),
            r.TextOrNull(3),
            r.GetString(4),
            r.GetString(5),
            r.TextOrNull(6),
            Sql.ReadInstant(r.GetString(7)),
            r.GetString(8)
        );

    private static List<StoredJob> Load(SqliteConnection connection, string filter, (string, object?) parameter) =>
        connection.Query(
            $"{Columns} {filter}",
            r => new StoredJob(
                r.GetInt64(0),
                r.GetString(1),
                Read<AssetKind>(r.GetString(2)),
                r.GetString(3),
                ServiceStore.ReadLevel(r.GetString(4)),
                ServiceStore.ReadLevel(r.GetString(5)),
                r.TextOrNull(6),
                Read<JobState>(r.GetString(7)),
                Sql.ReadInstant(r.GetString(8)),
                r.InstantOrNull(9),
                r.InstantOrNull(10),
                r.TextOrNull(11),
                r.GetInt32(12),
                r.DateOrNull(13),
                r.TextOrNull(14) is { } cause
                    ? new Prediction(
                        Read<Cause>(cause),
                        r.TextOrNull(15) is { } service ? ServiceStore.ReadLevel(service) : null,
                        r.IsDBNull(16) ? 0 : r.GetDouble(16)
                    )
                    : null,
                r.TextOrNull(17) is { } found ? Causes(found) : null,
                r.InstantOrNull(18),
                r.InstantOrNull(19)
            ),
            parameter
        );

    private static IReadOnlyList<Cause> Causes(string words) =>
        [.. words.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(Read<Cause>)];

    private static T Read<T>(string word)
        where T : struct, Enum =>
        Words.TryRead<T>(word, out var value)
            ? value
            : throw new InvalidDataException($"The database holds '{word}', which is no {typeof(T).Name}.");
}
