using Microsoft.Data.Sqlite;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Learning;
using Pyrometron.Core.Materials;
using Pyrometron.Core.Stores;
using Pyrometron.Storage.Records;

namespace Pyrometron.Storage;

// What filed jobs teach: predictions met, kelvins won, minutes taken.
public sealed partial class JobStore
{
    /// <summary>
    /// The cause that was predicted and those found on opening, for every filed job in which something was looked at.
    /// </summary>
    public IReadOnlyList<(Cause Predicted, IReadOnlyList<Cause> Found)> PredictedAndFound() =>
        database.Read(connection =>
            connection.QueryReadable(
                "SELECT predicted_cause, found_causes FROM job WHERE predicted_cause IS NOT NULL AND found_causes IS NOT NULL AND work_done_at IS NOT NULL",
                r => (Read<Cause>(r.GetString(0)), Causes(r.GetString(1))),
                (_, _) => { }
            )
        );

    /// <summary>When the last entry of each job at the bench was made; where it has none, when it was started.</summary>
    public IReadOnlyDictionary<long, DateTimeOffset> LastTouched() =>
        database.Read(connection =>
            connection
                .Query(
                    """
                    SELECT j.id, coalesce(max(e.made_at), j.started_at)
                    FROM job j LEFT JOIN job_entry e ON e.job_id = j.id WHERE j.state = 'open' GROUP BY j.id
                    """,
                    r => (Id: r.GetInt64(0), At: Sql.ReadInstant(r.GetString(1)))
                )
                .ToDictionary(j => j.Id, j => j.At)
        );

    /// <summary>What every job that did what was advised has proven, on the part that won most.</summary>
    public IReadOnlyList<ProvenJob> Proven() =>
        database.Read(connection =>
            connection.QueryReadable(
                """
                SELECT a.kind, a.model, j.level, j.predicted_cause, j.predicted_kelvin, -min(p.value ->> '$.changeKelvin'),
                    p.value ->> '$.uncertaintyKelvin'
                FROM job j JOIN asset a ON a.id = j.asset_id, json_each(iif(json_valid(j.verdict), j.verdict, '{}'), '$.parts') p
                WHERE j.predicted_service = j.level AND j.predicted_kelvin > 0 AND json_valid(j.verdict)
                    AND j.verdict ->> '$.outcome' <> 'not-comparable'
                GROUP BY j.id
                """,
                r => new ProvenJob(
                    Read<AssetKind>(r.GetString(0)),
                    r.GetString(1),
                    Read<ServiceLevel>(r.GetString(2)),
                    Read<Cause>(r.GetString(3)),
                    r.GetDouble(4),
                    r.GetDouble(5),
                    r.GetDouble(6)
                ),
                (_, _) => { }
            )
        );

    /// <summary>Every job whose work is done within some days, newest first, with its proof as far as there is one.</summary>
    /// <param name="from">The first day, or null for the beginning.</param>
    /// <param name="to">The last day, or null for today.</param>
    public IReadOnlyList<FinishedJob> Finished(DateOnly? from, DateOnly? to) =>
        database.Read(connection =>
        {
            var products = NamedProducts(connection);
            return connection.QueryReadable(
                """
                SELECT j.id, a.tag, a.model, z.code, j.level, date(j.work_done_at),
                    v.verdict ->> '$.outcome', -min(p.value ->> '$.changeKelvin'), p.value ->> '$.uncertaintyKelvin',
                    j.predicted_cause, j.found_causes,
                    EXISTS (SELECT 1 FROM job c WHERE c.comeback_of = j.id AND c.state <> 'abandoned'),
                    (SELECT count(*) FROM job_entry e WHERE e.job_id = j.id AND e.kind = 'damage-found'
                        AND json_valid(e.entry) AND e.entry ->> '$.onTheWay'), j.predicted_chance,
                    (SELECT sum(iif(json_valid(e.entry), e.entry ->> '$.minutes', NULL)) FROM job_entry e
                        WHERE e.job_id = j.id AND e.kind = 'minutes-booked'),
                    (SELECT iif(count(*) = count(l.price_per_unit), -sum(m.amount * l.price_per_unit), NULL)
                        FROM stock_move m JOIN lot l ON l.id = m.lot_id WHERE m.job_id = j.id),
                    coalesce(p.value ->> '$.afterCelsius',
                        (SELECT avg(q.value ->> '$.afterCelsius') FROM json_each(v.verdict, '$.pairs') n,
                            json_each(n.value, '$.parts') q WHERE q.value ->> '$.part' = p.value ->> '$.part')),
                    (SELECT avg(n.value ->> '$.noise.decibel') FROM json_each(v.verdict, '$.pairs') n),
                    (SELECT max(n.value ->> '$.noise.uncertaintyDecibel') FROM json_each(v.verdict, '$.pairs') n),
                    (SELECT avg((f.value ->> '$.after') * 1.0 / (f.value ->> '$.before') - 1)
                        FROM json_each(v.verdict, '$.pairs') n, json_each(n.value, '$.performance') f
                        GROUP BY f.value ->> '$.what' ORDER BY f.value ->> '$.what' DESC LIMIT 1),
                    EXISTS (SELECT 1 FROM json_each(v.verdict, '$.alsoBetter') b WHERE b.value = 'no-longer-throttling'),
                    EXISTS (SELECT 1 FROM json_each(v.verdict, '$.alsoBetter') b WHERE b.value = 'no-longer-failing'),
                    coalesce(iif(json_valid(j.card), j.card ->> '$.twoPeople', NULL), 0)
                FROM job j JOIN asset a ON a.id = j.asset_id JOIN zone z ON z.id = a.zone_id
                    JOIN (SELECT id, iif(json_valid(verdict), verdict, '{}') AS verdict FROM job) v ON v.id = j.id
                    LEFT JOIN json_each(v.verdict, '$.parts') p
                WHERE j.work_done_at IS NOT NULL AND j.state <> 'abandoned'
                    AND date(j.work_done_at) BETWEEN coalesce($from, '0000') AND coalesce($to, '9999')
                GROUP BY j.id ORDER BY j.work_done_at DESC, j.id DESC
                """,
                r => new FinishedJob(
                    r.GetInt64(0),
                    r.GetString(1),
                    r.GetString(2),
                    r.GetString(3),
                    Read<ServiceLevel>(r.GetString(4)),
                    r.Date(5),
                    r.IsDBNull(6) ? null : Read<VerdictOutcome>(r.GetString(6)),
                    r.IsDBNull(7) ? 0 : r.GetDouble(7),
                    r.IsDBNull(8) ? 0 : r.GetDouble(8),
                    r.IsDBNull(9) ? null : Read<Cause>(r.GetString(9)),
                    r.IsDBNull(10) ? null : Causes(r.GetString(10)),
                    r.GetInt64(11) != 0,
                    (int)r.GetInt64(12)
                )
                {
                    StatedChance = r.NumberOrNull(13),
                    Minutes = r.NumberOrNull(14),
                    MaterialCost = r.NumberOrNull(15),
                    Sides = new MeasuredSides(
                        r.NumberOrNull(16),
                        r.NumberOrNull(17),
                        r.NumberOrNull(18),
                        r.NumberOrNull(19),
                        r.GetInt64(20) != 0,
                        r.GetInt64(21) != 0
                    ),
                    TookTwo = r.GetInt64(22) != 0 && ServiceEffects.Opens(Read<ServiceLevel>(r.GetString(4))),
                    Products = [.. products[r.GetInt64(0)]],
                },
                (_, _) => { },
                ("$from", from is { } first ? Sql.Text(first) : null),
                ("$to", to is { } last ? Sql.Text(last) : null)
            );
        });

    /// <summary>The products that each job named, the last one of a kind.</summary>
    private static ILookup<long, NamedProduct> NamedProducts(SqliteConnection connection) =>
        connection
            .QueryReadable(
                """
                SELECT job_id, entry ->> '$.product' AS product, entry ->> '$.name', entry ->> '$.batch',
                    entry ->> '$.pattern', max(version)
                FROM job_entry WHERE kind = 'product-used' AND json_valid(entry) GROUP BY job_id, product
                """,
                r =>
                    (
                        Job: r.GetInt64(0),
                        Product: new NamedProduct(
                            Read<ProductKind>(r.GetString(1)),
                            r.GetString(2),
                            r.TextOrNull(3),
                            r.TextOrNull(4) is { } pattern ? Read<PastePattern>(pattern) : null
                        )
                    ),
                (_, _) => { }
            )
            .ToLookup(p => p.Job, p => p.Product);

    /// <summary>The minutes booked on every filed job, by the level that was done in the end.</summary>
    public IReadOnlyList<TimedJob> Timed() =>
        database.Read(connection =>
            connection.QueryReadable(
                """
                SELECT a.kind, a.model, j.level, sum(iif(json_valid(e.entry), e.entry ->> '$.minutes', NULL)) AS minutes
                FROM job j JOIN asset a ON a.id = j.asset_id JOIN job_entry e ON e.job_id = j.id AND e.kind = 'minutes-booked'
                WHERE j.work_done_at IS NOT NULL AND j.state <> 'abandoned'
                GROUP BY j.id HAVING minutes > 0
                """,
                r => new TimedJob(
                    Read<AssetKind>(r.GetString(0)),
                    r.GetString(1),
                    Read<ServiceLevel>(r.GetString(2)),
                    r.GetDouble(3)
                ),
                (_, _) => { }
            )
        );

    /// <summary>What every filed job noted that it used, summed by material.</summary>
    public IReadOnlyList<UsedByJob> MaterialsUsed() => database.Read(MaterialsUsed);

    /// <summary>The same within a use case.</summary>
    public static IReadOnlyList<UsedByJob> MaterialsUsed(Transaction t) => MaterialsUsed(t.Connection);

    private static List<UsedByJob> MaterialsUsed(SqliteConnection connection) =>
        connection.QueryReadable(
            """
            SELECT a.kind, a.model, j.level, e.entry ->> '$.material', sum(e.entry ->> '$.amount') AS amount
            FROM job j JOIN asset a ON a.id = j.asset_id JOIN job_entry e ON e.job_id = j.id AND e.kind = 'material-used'
            WHERE j.work_done_at IS NOT NULL AND j.state <> 'abandoned' AND json_valid(e.entry)
            GROUP BY j.id, 4 HAVING amount > 0
            """,
            r => new UsedByJob(
                Read<AssetKind>(r.GetString(0)),
                r.GetString(1),
                Read<ServiceLevel>(r.GetString(2)),
                Read<MaterialKind>(r.GetString(3)),
                r.GetDouble(4)
            ),
            (_, _) => { }
        );

    /// <summary>Whether a job was measured after the work and not before it.</summary>
    private static bool NeedsSiblings(List<StampedEntry> entries) =>
        entries.Any(e => e.Entry is RunMeasured { Phase: RunPhase.After })
        && !entries.Any(e => e.Entry is RunMeasured { Phase: RunPhase.Before });

    /// <summary>The newest run of each other machine of the model that was measured at the bench.</summary>
    private static List<Run> SiblingRuns(SqliteConnection connection, StoredJob row) =>
        connection
            .Query(
                """
                SELECT j.history, max(j.id) FROM asset a JOIN job j ON j.asset_id = a.id
                WHERE a.model = $model AND a.id <> $asset AND json_array_length(j.history, '$.runs') > 0 GROUP BY a.id
                """,
                r => StoredJson.Read<HistoryRecord>(r.GetString(0)),
                ("$model", row.Model),
                ("$asset", row.AssetId)
            )
            .Select(h => h.RunsOf(0).Last().Run)
            .ToList();

    /// <summary>Filed jobs by level and model, with how many of them the machine came back from; most comebacks first.</summary>
    public IReadOnlyList<Comebacks> ComeBack() =>
        database.Read(connection =>
            connection.QueryReadable(
                """
                SELECT j.level, a.model, count(*), count(c.of_job)
                FROM job j JOIN asset a ON a.id = j.asset_id LEFT JOIN (
                    SELECT DISTINCT comeback_of AS of_job FROM job WHERE comeback_of IS NOT NULL AND state <> 'abandoned'
                ) c ON c.of_job = j.id
                WHERE j.work_done_at IS NOT NULL AND j.state <> 'abandoned'
                GROUP BY j.level, a.model ORDER BY 4 DESC, 3 DESC, 1, 2
                """,
                r => new Comebacks(Read<ServiceLevel>(r.GetString(0)), r.GetString(1), r.GetInt32(2), r.GetInt32(3)),
                (_, _) => { }
            )
        );
}

/// <summary>How often machines of a model come back from one kind of work.</summary>
/// <param name="Jobs">Filed.</param>
/// <param name="CameBack">Of <paramref name="Jobs"/>.</param>
public sealed record Comebacks(ServiceLevel Level, string Model, int Jobs, int CameBack);
