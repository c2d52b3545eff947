using Microsoft.Data.Sqlite;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;

namespace Pyrometron.Storage;

/// <summary>A job's row. Runs and verdict are kept in the form the API speaks; only the server reads them.</summary>
public sealed record StoredJob(
    long Id, string Tag, AssetKind Kind, ServiceLevel Level, JobState State, DateTimeOffset StartedAt, DateTimeOffset? WorkDoneAt, DateTimeOffset? ClosedAt,
    string? NoBeforeReason, string? Verdict, string? Note, int Version, IReadOnlyDictionary<string, DateTimeOffset> Steps, IReadOnlyList<StoredRun> Runs);

/// <summary>A run of a job.</summary>
/// <param name="Phase"><c>before</c> or <c>after</c>.</param>
/// <param name="Run">JSON.</param>
public sealed record StoredRun(long Id, string Phase, DateTimeOffset MeasuredAt, string Run, DateTimeOffset? VoidedAt, string? VoidedReason);

/// <summary>The write was made against an older version of the job than the stored one.</summary>
public sealed class OutdatedJobException(int current) : Exception($"Somebody else has changed this job meanwhile (now version {current}). Reload it and look before you write again.")
{
    /// <summary>The version as stored.</summary>
    public int Current { get; } = current;
}

/// <summary>Jobs at the bench. Every write checks the version it was made against.</summary>
public sealed class JobStore(Database database, TimeProvider clock)
{
    /// <summary>Starts a job.</summary>
    /// <returns>Its number.</returns>
    public long Start(string tag, ServiceLevel level) => database.Write(connection => (long)connection.Scalar(
        "INSERT INTO job (asset_id, level, state, started_at) VALUES ((SELECT id FROM asset WHERE tag = $tag), $level, 'open', $now) RETURNING id",
        ("$tag", tag), ("$level", Words.Of(level)), ("$now", Sql.Text(clock.GetUtcNow())))!);

    /// <summary>One job, or null.</summary>
    public StoredJob? Find(long id) => database.Read(connection => Load(connection, "WHERE j.id = $id", ("$id", id)).FirstOrDefault());

    /// <summary>All jobs of a machine, newest first.</summary>
    public IReadOnlyList<StoredJob> Of(long assetId) => database.Read(connection => Load(connection, "WHERE j.asset_id = $id", ("$id", assetId)));

    /// <summary>The newest jobs of all machines, open and unproven ones first.</summary>
    public IReadOnlyList<StoredJob> Newest(int count) => database.Read(connection =>
        Load(connection, "", ("$count", count), "ORDER BY j.state IN ('open', 'waiting-for-proof') DESC, j.id DESC LIMIT $count"));

    /// <summary>Ticks a step, or takes the tick back. It is on disk when this returns.</summary>
    public void Tick(long id, int version, string step, bool done) => Change(id, version, connection =>
        connection.Execute(done
            ? "INSERT INTO job_step (job_id, step, done_at) VALUES ($id, $step, $now) ON CONFLICT DO NOTHING"
            : "DELETE FROM job_step WHERE job_id = $id AND step = $step", ("$id", id), ("$step", step), ("$now", Sql.Text(clock.GetUtcNow()))));

    /// <summary>Writes a run; an earlier one of the same phase is voided, not lost.</summary>
    public void SaveRun(long id, int version, string phase, string run) => Change(id, version, connection =>
    {
        var now = Sql.Text(clock.GetUtcNow());
        connection.Execute("UPDATE run SET voided_at = $now, voided_reason = 'measured again' WHERE job_id = $id AND phase = $phase AND voided_at IS NULL",
            ("$now", now), ("$id", id), ("$phase", phase));
        connection.Execute("INSERT INTO run (job_id, phase, measured_at, run) VALUES ($id, $phase, $now, $run)",
            ("$id", id), ("$phase", phase), ("$now", now), ("$run", run));
    });

    /// <summary>Voids a run with a reason.</summary>
    public void VoidRun(long id, int version, long runId, string reason) => Change(id, version, connection =>
        connection.Execute("UPDATE run SET voided_at = $now, voided_reason = $reason WHERE id = $run AND job_id = $id AND voided_at IS NULL",
            ("$now", Sql.Text(clock.GetUtcNow())), ("$reason", reason), ("$run", runId), ("$id", id)));

    /// <summary>Writes why there is no before-run, a note, or another level.</summary>
    public void Edit(long id, int version, string? noBeforeReason, string? note, ServiceLevel level) => Change(id, version, connection =>
        connection.Execute("UPDATE job SET no_before_reason = $reason, note = $note, level = $level WHERE id = $id",
            ("$reason", noBeforeReason), ("$note", note), ("$level", Words.Of(level)), ("$id", id)));

    /// <summary>Files the work as done: the service enters the machine's book in the same transaction.</summary>
    public void Finish(long id, int version, DateOnly day) => Change(id, version, connection =>
    {
        var (asset, level) = connection.Query("SELECT asset_id, level FROM job WHERE id = $id", r => (r.GetInt64(0), r.GetString(1)), ("$id", id))[0];
        var service = connection.Scalar(
            """
            INSERT INTO service (asset_id, date, level) VALUES ($asset, $date, $level)
            ON CONFLICT (asset_id, date, level) DO UPDATE SET voided_at = NULL, voided_reason = NULL RETURNING id
            """,
            ("$asset", asset), ("$date", Sql.Text(day)), ("$level", level));
        connection.Execute("UPDATE job SET state = 'waiting-for-proof', work_done_at = $now, service_id = $service WHERE id = $id",
            ("$now", Sql.Text(clock.GetUtcNow())), ("$service", service), ("$id", id));
        connection.Execute("DELETE FROM set_aside WHERE asset_id = $asset", ("$asset", asset));
    });

    /// <summary>Closes a job with its verdict.</summary>
    /// <param name="verdict">JSON.</param>
    public void Prove(long id, int version, string verdict) => Change(id, version, connection =>
        connection.Execute("UPDATE job SET state = 'proven', closed_at = $now, verdict = $verdict WHERE id = $id",
            ("$now", Sql.Text(clock.GetUtcNow())), ("$verdict", verdict), ("$id", id)));

    /// <summary>Gives a job up before anything was done.</summary>
    public void Abandon(long id, int version, string reason) => Change(id, version, connection =>
        connection.Execute("UPDATE job SET state = 'abandoned', closed_at = $now, note = coalesce(note || char(10), '') || $reason WHERE id = $id",
            ("$now", Sql.Text(clock.GetUtcNow())), ("$reason", reason), ("$id", id)));

    private void Change(long id, int version, Action<SqliteConnection> change) => database.Write(connection =>
    {
        using var command = connection.Command("UPDATE job SET version = version + 1 WHERE id = $id AND version = $version", ("$id", id), ("$version", version));
        if (command.ExecuteNonQuery() == 0)
            throw new OutdatedJobException(Convert.ToInt32(connection.Scalar("SELECT version FROM job WHERE id = $id", ("$id", id)), System.Globalization.CultureInfo.InvariantCulture));
        change(connection);
    });

    private static List<StoredJob> Load(SqliteConnection connection, string filter, (string, object?) parameter, string order = "ORDER BY j.id DESC")
    {
        var jobs = connection.Query(
            $"""
            SELECT j.id, a.tag, a.kind, j.level, j.state, j.started_at, j.work_done_at, j.closed_at, j.no_before_reason, j.verdict, j.note, j.version
            FROM job j JOIN asset a ON a.id = j.asset_id {filter} {order}
            """,
            r => new StoredJob(r.GetInt64(0), r.GetString(1), Read<AssetKind>(r.GetString(2)), ServiceStore.ReadLevel(r.GetString(3)), Read<JobState>(r.GetString(4)),
                Sql.ReadInstant(r.GetString(5)), r.InstantOrNull(6), r.InstantOrNull(7), r.TextOrNull(8), r.TextOrNull(9), r.TextOrNull(10), r.GetInt32(11),
                new Dictionary<string, DateTimeOffset>(), []), parameter);
        return jobs.ConvertAll(job => job with
        {
            Steps = connection.Query("SELECT step, done_at FROM job_step WHERE job_id = $id", r => (r.GetString(0), Sql.ReadInstant(r.GetString(1))), ("$id", job.Id)).ToDictionary(),
            Runs = connection.Query("SELECT id, phase, measured_at, run, voided_at, voided_reason FROM run WHERE job_id = $id ORDER BY id",
                r => new StoredRun(r.GetInt64(0), r.GetString(1), Sql.ReadInstant(r.GetString(2)), r.GetString(3), r.InstantOrNull(4), r.TextOrNull(5)), ("$id", job.Id)),
        });
    }

    private static T Read<T>(string word) where T : struct, Enum =>
        Words.TryRead<T>(word, out var value) ? value : throw new InvalidDataException($"The database holds '{word}', which is no {typeof(T).Name}.");
}
