using Microsoft.Data.Sqlite;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Proof;
using Pyrometron.Storage.Records;

namespace Pyrometron.Storage;

/// <summary>A job's row: what is fixed at its start, and what its entries came to.</summary>
/// <param name="Level">In hand.</param>
/// <param name="Verdict">As filed.</param>
/// <param name="FoundCauses">Null while nothing was looked at.</param>
/// <param name="ComebackOf">The earlier job that the machine is back from; null where it is none.</param>
/// <param name="Free">Whether it is free of charge.</param>
public sealed record StoredJob(
    long Id,
    long AssetId,
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
    Verdict? Verdict,
    int Version,
    DateOnly? WarrantyUntil,
    Prediction? Predicted,
    IReadOnlyList<Cause>? FoundCauses,
    DateTimeOffset? RecheckDue,
    DateTimeOffset? RecheckedAt,
    long? ComebackOf,
    bool Free
);

/// <summary>An entry to store.</summary>
public sealed record NewEntry(Guid Key, int Version, string Device, string? By, DateTimeOffset MadeAt, JobEntry Entry);

/// <summary>A job to start.</summary>
/// <param name="WarrantyUntil">Null where none runs.</param>
/// <param name="Card">As it was dealt.</param>
public sealed record NewJob(
    long AssetId,
    ServiceLevel Level,
    string? Fan,
    DateOnly? WarrantyUntil,
    Prediction? Predicted,
    FrozenCard Card,
    long? ComebackOf = null,
    bool Free = false
);

/// <summary>
/// Jobs at the bench, as sums of entries. An entry is on disk when its use case returns; sent twice, it is stored once.
/// </summary>
public sealed partial class JobStore(Database database)
{
    private const string Columns = """
        SELECT j.id, a.tag, a.kind, a.model, j.level, j.started_level, j.fan, j.state, j.started_at, j.work_done_at,
            j.closed_at, j.verdict, j.version, j.warranty_until, j.predicted_cause, j.predicted_service,
            j.predicted_kelvin, j.found_causes, j.recheck_due, j.rechecked_at, j.asset_id,
            j.comeback_of, j.free, j.predicted_chance
        FROM job j JOIN asset a ON a.id = j.asset_id
        """;

    /// <summary>Starts a job.</summary>
    /// <returns>Its number, or null when one is open on the machine already.</returns>
    public static long? Start(Transaction t, NewJob job) =>
        t.Connection.Scalar("SELECT 1 FROM job WHERE state = 'open' AND asset_id = $asset", ("$asset", job.AssetId)) is not null
            ? null
            : (long?)
                t.Connection.Scalar(
                    """
                    INSERT INTO job (asset_id, level, started_level, fan, state, started_at, warranty_until,
                        predicted_cause, predicted_service, predicted_kelvin, predicted_chance, card_form, card, comeback_of,
                        free)
                    VALUES ($asset, $level, $level, $fan, 'open', $now, $warranty,
                        $cause, $service, $kelvin, $chance, $form, $card, $comeback, $free) RETURNING id
                    """,
                    ("$asset", job.AssetId),
                    ("$level", Words.Of(job.Level)),
                    ("$fan", job.Fan),
                    ("$now", Sql.Text(t.Now)),
                    ("$warranty", job.WarrantyUntil is { } until ? Sql.Text(until) : null),
                    ("$cause", job.Predicted is { } p ? Words.Of(p.Cause) : null),
                    ("$service", job.Predicted?.Service is { } service ? Words.Of(service) : null),
                    ("$kelvin", job.Predicted?.DriftKelvin),
                    ("$chance", job.Predicted?.Chance),
                    ("$form", CardRecord.Form),
                    ("$card", StoredJson.Write(CardRecord.Of(job.Card))),
                    ("$comeback", job.ComebackOf),
                    ("$free", job.Free ? 1 : 0)
                );

    /// <summary>One job's row, or null.</summary>
    public StoredJob? Find(long id) => database.Read(connection => Find(connection, id));

    /// <summary>One job's row within a use case, or null.</summary>
    public static StoredJob? Find(Transaction t, long id) => Find(t.Connection, id);

    /// <summary>All jobs of a machine, newest first.</summary>
    public IReadOnlyList<StoredJob> Of(long assetId) =>
        database.Read(connection => Load(connection, "WHERE j.asset_id = $id ORDER BY j.id DESC", ("$id", assetId)));

    /// <summary>All jobs of a machine within a use case, newest first.</summary>
    public static IReadOnlyList<StoredJob> Of(Transaction t, long assetId) =>
        Load(t.Connection, "WHERE j.asset_id = $id ORDER BY j.id DESC", ("$id", assetId));

    /// <summary>The newest jobs of all machines, open and unproven ones first.</summary>
    public IReadOnlyList<StoredJob> Newest(int count) =>
        database.Read(connection =>
            LoadReadable(
                connection,
                "ORDER BY j.state IN ('open', 'waiting-for-proof') DESC, j.id DESC LIMIT $count",
                ("$count", count)
            )
        );

    /// <summary>A job added up, or null.</summary>
    public Job? Job(long id) => database.Read(connection => Find(connection, id) is { } row ? Job(connection, row) : null);

    /// <summary>A job added up within a use case.</summary>
    public static Job Job(Transaction t, StoredJob row) => Job(t.Connection, row);

    /// <summary>All entries of a job within a use case, oldest first.</summary>
    public static IReadOnlyList<StampedEntry> Entries(Transaction t, long id) => Entries(t.Connection, id);

    /// <summary>Stores an entry.</summary>
    public static void Add(Transaction t, long job, NewEntry entry) =>
        t.Connection.Execute(
            """
            INSERT INTO job_entry (job_id, key, version, subject, kind, device, by, made_at, stored_at, form, entry)
            VALUES ($job, $key, $version, $subject, $kind, $device, $by, $made, $now, $form, $entry)
            """,
            ("$job", job),
            ("$key", entry.Key.ToString("N")),
            ("$version", entry.Version),
            ("$subject", entry.Entry.Subject),
            ("$kind", EntryRecord.Of(entry.Entry).Kind),
            ("$device", entry.Device),
            ("$by", entry.By),
            ("$made", Sql.Text(entry.MadeAt)),
            ("$now", Sql.Text(t.Now)),
            ("$form", EntryRecord.Form),
            ("$entry", StoredJson.Write(EntryRecord.Of(entry.Entry)))
        );

    /// <summary>Keeps what a job's entries come to in its row.</summary>
    /// <param name="verdict">As filed; null while it is not.</param>
    public static void Keep(Transaction t, Job job, Verdict? verdict) =>
        t.Connection.Execute(
            """
            UPDATE job SET version = $version, level = $level, state = $state, work_done_at = $done, closed_at = $closed,
                verdict = coalesce($verdict, verdict), found_causes = $found, recheck_due = $due,
                rechecked_at = $rechecked, history_form = $form, history = $history, outcome = $outcome
            WHERE id = $id
            """,
            ("$version", job.Version),
            ("$level", Words.Of(job.Level)),
            ("$state", Words.Of(job.State)),
            ("$done", Instant(job.WorkDoneAt)),
            ("$closed", Instant(job.ClosedAt)),
            ("$verdict", verdict is null ? null : StoredJson.Write(VerdictRecord.Of(verdict))),
            ("$found", job.FoundCauses is { } found ? string.Join(' ', found.Select(Words.Of)) : null),
            ("$due", Instant(job.RecheckDue)),
            ("$rechecked", Instant(job.Standing(Core.Events.RunPhase.Recheck)?.At)),
            ("$form", HistoryRecord.Form),
            ("$history", StoredJson.Write(HistoryRecord.Of(job))),
            ("$outcome", job.Result is { } result ? Words.Of(result.Outcome) : null),
            ("$id", job.Head.Id)
        );

    /// <summary>The word under which a kind of entry is stored and logged.</summary>
    public static string KindOf(JobEntry entry) => EntryRecord.Of(entry).Kind;

    /// <summary>An entry as it is stored.</summary>
    public static string StoredFormOf(JobEntry entry) => StoredJson.Write(EntryRecord.Of(entry));

    /// <summary>Deviations from good practice recorded on a machine, each once, newest first.</summary>
    public IReadOnlyList<string> Deviations(string tag) => database.Read(connection => Deviations(connection, tag));

    /// <summary>The same within a use case.</summary>
    public static IReadOnlyList<string> Deviations(Transaction t, string tag) => Deviations(t.Connection, tag);

    private static List<string> Deviations(SqliteConnection connection, string tag) =>
        connection.Query(
            """
            SELECT e.entry ->> '$.text' AS text FROM job_entry e JOIN job j ON j.id = e.job_id JOIN asset a ON a.id = j.asset_id
            WHERE a.tag = $tag AND e.kind = 'deviation-seen' GROUP BY text ORDER BY max(e.id) DESC
            """,
            r => r.GetString(0),
            ("$tag", tag)
        );

    private static string? Instant(DateTimeOffset? at) => at is { } instant ? Sql.Text(instant) : null;

    private static StoredJob? Find(SqliteConnection connection, long id) =>
        Load(connection, "WHERE j.id = $id", ("$id", id)).FirstOrDefault();

    internal static Job Job(SqliteConnection connection, StoredJob row)
    {
        var asset = FleetStore.All(connection, row.Tag).Single().Asset;
        var card = (string)connection.Scalar("SELECT card FROM job WHERE id = $id", ("$id", row.Id))!;
        var entries = Entries(connection, row.Id);
        return new Job(
            new JobHead(
                row.Id,
                row.Tag,
                StoredJson.Read<CardRecord>(card).ToCard(),
                row.StartedAt,
                asset.Parts,
                row.WarrantyUntil,
                row.Predicted
            )
            {
                SiblingRuns = NeedsSiblings(entries) ? SiblingRuns(connection, row) : [],
            },
            entries
        );
    }

    internal static List<StampedEntry> Entries(SqliteConnection connection, long id) =>
        connection.Query(
            "SELECT key, version, device, by, made_at, entry, form FROM job_entry WHERE job_id = $id ORDER BY version",
            r => new StampedEntry(
                Guid.ParseExact(r.GetString(0), "N"),
                r.GetInt32(1),
                r.GetString(2),
                r.TextOrNull(3),
                Sql.ReadInstant(r.GetString(4)),
                StoredJson.Read<EntryRecord>(r.GetString(5)).ToEntry(r.GetInt32(6))
            ),
            ("$id", id)
        );

    internal static List<StoredJob> Load(SqliteConnection connection, string filter, (string, object?) parameter) =>
        connection.Query($"{Columns} {filter}", ReadRow, parameter);

    /// <summary>As above, those left out whose row is damaged.</summary>
    private static List<StoredJob> LoadReadable(SqliteConnection connection, string filter, (string, object?) parameter) =>
        connection.QueryReadable($"{Columns} {filter}", ReadRow, (_, _) => { }, parameter);

    private static StoredJob ReadRow(SqliteDataReader r) =>
        new(
            r.GetInt64(0),
            r.GetInt64(20),
            r.GetString(1),
            Read<AssetKind>(r.GetString(2)),
            r.GetString(3),
            Read<ServiceLevel>(r.GetString(4)),
            Read<ServiceLevel>(r.GetString(5)),
            r.TextOrNull(6),
            Read<JobState>(r.GetString(7)),
            Sql.ReadInstant(r.GetString(8)),
            r.InstantOrNull(9),
            r.InstantOrNull(10),
            r.TextOrNull(11) is { } verdict ? ReadVerdict(verdict) : null,
            r.GetInt32(12),
            r.DateOrNull(13),
            r.TextOrNull(14) is { } cause
                ? new Prediction(
                    Read<Cause>(cause),
                    r.TextOrNull(15) is { } service ? Read<ServiceLevel>(service) : null,
                    r.IsDBNull(16) ? 0 : r.GetDouble(16),
                    r.IsDBNull(23) ? null : r.GetDouble(23)
                )
                : null,
            r.TextOrNull(17) is { } found ? Causes(found) : null,
            r.InstantOrNull(18),
            r.InstantOrNull(19),
            r.IsDBNull(21) ? null : r.GetInt64(21),
            r.GetBoolean(22)
        );

    /// <summary>Verdicts of the first jobs were kept without parts.</summary>
    private static Verdict? ReadVerdict(string json)
    {
        var record = StoredJson.Read<VerdictRecord>(json);
        return record.Outcome is null
            ? null
            : (
                record with
                {
                    Parts = record.Parts ?? [],
                    Reasons = record.Reasons ?? [],
                    Advice = record.Advice ?? [],
                }
            ).ToVerdict();
    }

    private static IReadOnlyList<Cause> Causes(string words) =>
        [.. words.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(Read<Cause>)];

    private static T Read<T>(string word)
        where T : struct, Enum => StoredWords.Read<T>(word);
}
