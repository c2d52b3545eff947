using Microsoft.Data.Sqlite;
using Pyrometron.Core.Fleet;
using Pyrometron.Storage.Records;

namespace Pyrometron.Storage;

/// <summary>A service in a machine's book.</summary>
/// <param name="VoidedReason">Why it is struck through, or null.</param>
public sealed record StoredService(long Id, ServiceDone Service, DateTimeOffset? VoidedAt, string? VoidedReason);

/// <summary>
/// The services of all machines. One that was entered wrongly is voided: kept, struck through, out of the judgement.
/// </summary>
public sealed class ServiceStore(Database database)
{
    private const string Columns = "s.date, s.level, s.job_id, s.proven, s.record";

    /// <summary>Adds a service unless the same one is known.</summary>
    /// <param name="import">The import that brought it, or null.</param>
    /// <returns>Whether it was new.</returns>
    public static bool Add(Transaction t, long assetId, ServiceDone service, long? import = null)
    {
        var record = ServiceRecord.Of(service);
        return t.Execute(
                "INSERT INTO service (asset_id, date, level, form, record, import_id) VALUES ($asset, $date, $level, $form, $record, $import) ON CONFLICT DO NOTHING",
                ("$asset", assetId),
                ("$date", Sql.Text(service.Date)),
                ("$level", Words.Of(service.Level)),
                ("$form", record is null ? null : ServiceRecord.Form),
                ("$record", record is null ? null : StoredJson.Write(record)),
                ("$import", import)
            ) > 0;
    }

    /// <summary>Puts a job's service into the book, in place of what the job had put there before.</summary>
    public static void Enter(Transaction t, long assetId, ServiceDone service)
    {
        t.Connection.Execute(
            "DELETE FROM service WHERE job_id = $job AND NOT (date = $date AND level = $level)",
            ("$job", service.Job),
            ("$date", Sql.Text(service.Date)),
            ("$level", Words.Of(service.Level))
        );
        var record = ServiceRecord.Of(service);
        t.Connection.Execute(
            """
            INSERT INTO service (asset_id, date, level, job_id, proven, form, record) VALUES ($asset, $date, $level, $job,
                $proven, $form, $record)
            ON CONFLICT (asset_id, date, level) DO UPDATE SET job_id = excluded.job_id, proven = excluded.proven,
                form = excluded.form,
                record = excluded.record
            """,
            ("$asset", assetId),
            ("$date", Sql.Text(service.Date)),
            ("$level", Words.Of(service.Level)),
            ("$job", service.Job),
            ("$proven", service.Proven is { } proven ? Words.Of(proven) : null),
            ("$form", record is null ? null : ServiceRecord.Form),
            ("$record", record is null ? null : StoredJson.Write(record))
        );
    }

    /// <summary>A machine's services, newest first, voided ones included.</summary>
    public IReadOnlyList<StoredService> Of(long assetId) =>
        database.Read(connection =>
            connection.Query(
                $"SELECT {Columns}, s.id, s.voided_at, s.voided_reason FROM service s WHERE s.asset_id = $id ORDER BY s.date DESC, s.id DESC",
                r => new StoredService(r.GetInt64(5), Read(r), r.InstantOrNull(6), r.TextOrNull(7)),
                ("$id", assetId)
            )
        );

    /// <summary>One service, or null.</summary>
    public static ServiceDone? Find(Transaction t, long assetId, long serviceId) =>
        t
            .Connection.Query(
                $"SELECT {Columns} FROM service s WHERE s.id = $id AND s.asset_id = $asset",
                Read,
                ("$id", serviceId),
                ("$asset", assetId)
            )
            .FirstOrDefault();

    /// <summary>Voids a service with a reason, or with null takes the voiding back.</summary>
    public static void Void(Transaction t, long serviceId, string? reason) =>
        t.Connection.Execute(
            "UPDATE service SET voided_at = $at, voided_reason = $reason WHERE id = $id",
            ("$at", reason is null ? null : Sql.Text(t.Now)),
            ("$reason", reason),
            ("$id", serviceId)
        );

    /// <summary>The services that count, by machine.</summary>
    /// <param name="damaged">Told of a machine of which a service cannot be read.</param>
    internal static ILookup<long, ServiceDone> Standing(SqliteConnection connection, string? tag, Action<long> damaged) =>
        connection
            .QueryReadable(
                $"SELECT {Columns}, s.asset_id FROM service s JOIN asset a ON a.id = s.asset_id WHERE s.voided_at IS NULL AND ($tag IS NULL OR a.tag = $tag)",
                r => (Asset: r.GetInt64(5), Service: Read(r)),
                (r, _) => damaged(r.GetInt64(5)),
                ("$tag", tag)
            )
            .ToLookup(s => s.Asset, s => s.Service);

    private static ServiceDone Read(SqliteDataReader r)
    {
        var service = new ServiceDone(r.Date(0), StoredWords.Read<ServiceLevel>(r.GetString(1)))
        {
            Job = r.LongOrNull(2),
            Proven = r.TextOrNull(3) is { } proven ? StoredWords.Read<VerdictOutcome>(proven) : null,
        };
        return r.TextOrNull(4) is { } record ? StoredJson.Read<ServiceRecord>(record).Fill(service) : service;
    }
}
