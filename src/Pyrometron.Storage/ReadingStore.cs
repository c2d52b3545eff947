using System.Globalization;
using Microsoft.Data.Sqlite;
using Pyrometron.Core.Readings;

namespace Pyrometron.Storage;

/// <summary>What became of one reading that was sent.</summary>
public enum ReadingFate
{
    Stored,
    Duplicate,
    Conflict,

    /// <summary>It names settings or a workload, and there are too many different ones already.</summary>
    TooManyLabels,
}

/// <summary>A reading as stored, with what was done to it since.</summary>
/// <param name="Amended">0 as imported, 1 corrected, 2 voided.</param>
public sealed record StoredReading(Reading Reading, int Amended);

/// <summary>One correction, voiding or restoring of a reading.</summary>
public sealed record ReadingAmendment(
    DateTimeOffset At,
    string Kind,
    string? Column,
    double? Before,
    double? After,
    string Reason,
    DateTimeOffset MadeAt
);

/// <summary>The readings of all machines: asset and instant are a reading's identity, the first one sent stays.</summary>
public sealed partial class ReadingStore(Database database)
{
    private const string Numbers = "ambient_c, outlet_c, power_w, fan_rpm, fan_pct, clock_mhz, throttled, score";

    /// <summary>
    /// Different names of settings and workloads that a house can have: a file whose every line has its own tells nothing.
    /// </summary>
    public const int MostLabels = 20_000;

    /// <summary>Columns of a reading that can be corrected besides its parts.</summary>
    public static IReadOnlyList<string> CorrectableColumns { get; } = Numbers.Split(", ");

    /// <summary>Writes readings; call it with a batch of a few thousand.</summary>
    /// <param name="assets">The machines by tag.</param>
    /// <param name="fate">Told for each reading, in order.</param>
    /// <param name="import">The import that brings them, or null.</param>
    public static void Add(
        Transaction t,
        IReadOnlyList<(string Tag, Reading Reading)> batch,
        IReadOnlyDictionary<string, StoredAsset> assets,
        Action<int, ReadingFate> fate,
        long? import = null
    )
    {
        if (batch.Count == 0)
            return;
        var connection = t.Connection;
        var labels = connection.Query("SELECT text, id FROM label", r => (r.GetString(0), r.GetInt64(1))).ToDictionary();
        using var insert = new ReadingInsert(connection, batch, assets, import);
        for (var i = 0; i < batch.Count; i++)
        {
            var (tag, reading) = batch[i];
            var asset = assets[tag];
            if (labels.Count >= MostLabels && !(IsKnown(labels, reading.Settings) && IsKnown(labels, reading.Workload)))
            {
                fate(i, ReadingFate.TooManyLabels);
                continue;
            }
            if (
                insert.Run(
                    asset,
                    reading,
                    LabelId(connection, labels, reading.Settings),
                    LabelId(connection, labels, reading.Workload)
                )
            )
                fate(i, ReadingFate.Stored);
            else
                fate(
                    i,
                    Original(connection, asset, reading.UnixMilliseconds).SameValues(reading)
                        ? ReadingFate.Duplicate
                        : ReadingFate.Conflict
                );
        }
    }

    /// <summary>Reads machines' readings up to an instant as columns: what the judgement runs on.</summary>
    public SeriesReader Series(long untilUnixMilliseconds) => new(database, untilUnixMilliseconds);

    /// <summary>A machine's newest readings, newest first, voided ones included.</summary>
    public IReadOnlyList<StoredReading> Newest(StoredAsset asset, int count, long beforeUnixMilliseconds = long.MaxValue) =>
        database.Read(connection =>
            Load(
                connection,
                asset,
                long.MinValue,
                beforeUnixMilliseconds - 1,
                $"ORDER BY at_ms DESC LIMIT {count.ToString(CultureInfo.InvariantCulture)}"
            )
        );

    /// <summary>Day of the newest reading of the whole fleet, or null.</summary>
    public DateTimeOffset? NewestInstant() =>
        database.Read(connection =>
            connection.Scalar(
                "SELECT max(newest) FROM (SELECT (SELECT max(r.at_ms) FROM reading r WHERE r.asset_id = a.id) AS newest FROM asset a)"
            )
                is long ms
                ? DateTimeOffset.FromUnixTimeMilliseconds(ms)
                : (DateTimeOffset?)null
        );

    /// <summary>Number of readings stored.</summary>
    public long Count() => database.Read(connection => (long)connection.Scalar("SELECT count(*) FROM reading")!);

    /// <summary>Corrects one number of a reading; the old one is kept.</summary>
    /// <param name="column">One of <see cref="CorrectableColumns"/>, or a part's name.</param>
    /// <returns>False when there is no such reading or column.</returns>
    public static bool Correct(Transaction t, StoredAsset asset, DateTimeOffset at, string column, double? value, string reason)
    {
        var connection = t.Connection;
        var stored = ColumnOf(asset, column);
        if (stored is null || !Exists(connection, asset, at))
            return false;
        var key = Key(asset, at);
        var before = connection.Scalar($"SELECT {stored} FROM reading WHERE asset_id = $asset AND at_ms = $at", key);
        connection.Execute(
            $"UPDATE reading SET {stored} = $value, amended = max(amended, 1) WHERE asset_id = $asset AND at_ms = $at",
            [.. key, ("$value", value)]
        );
        Amend(t, asset, at, "corrected", stored, (before as double?, value), reason);
        return true;
    }

    /// <summary>Voids a reading, or takes the voiding back.</summary>
    /// <returns>False when there is no such reading.</returns>
    public static bool Void(Transaction t, StoredAsset asset, DateTimeOffset at, bool voided, string reason)
    {
        var connection = t.Connection;
        if (!Exists(connection, asset, at))
            return false;
        connection.Execute(
            """
            UPDATE reading SET amended = CASE WHEN $voided THEN 2
                WHEN EXISTS (SELECT 1 FROM reading_amendment m WHERE m.asset_id = $asset AND m.at_ms = $at
                    AND m.kind = 'corrected') THEN 1 ELSE 0 END
            WHERE asset_id = $asset AND at_ms = $at
            """,
            [.. Key(asset, at), ("$voided", voided)]
        );
        Amend(t, asset, at, voided ? "voided" : "restored", null, default, reason);
        return true;
    }

    /// <summary>All corrections of a machine's readings, newest first.</summary>
    public IReadOnlyList<ReadingAmendment> Amendments(StoredAsset asset) =>
        database.Read(connection =>
            connection.Query(
                "SELECT at_ms, kind, \"column\", before, after, reason, made_at FROM reading_amendment WHERE asset_id = $asset ORDER BY id DESC",
                r => new ReadingAmendment(
                    DateTimeOffset.FromUnixTimeMilliseconds(r.GetInt64(0)),
                    r.GetString(1),
                    NameOf(asset, r.TextOrNull(2)),
                    r.IsDBNull(3) ? null : r.GetDouble(3),
                    r.IsDBNull(4) ? null : r.GetDouble(4),
                    r.GetString(5),
                    Sql.ReadInstant(r.GetString(6))
                ),
                ("$asset", asset.Id)
            )
        );

    private static void Amend(
        Transaction t,
        StoredAsset asset,
        DateTimeOffset at,
        string kind,
        string? column,
        (double? Before, double? After) values,
        string reason
    ) =>
        t.Connection.Execute(
            "INSERT INTO reading_amendment (asset_id, at_ms, kind, \"column\", before, after, reason, made_at) VALUES ($asset, $at, $kind, $column, $before, $after, $reason, $made)",
            [
                .. Key(asset, at),
                ("$kind", kind),
                ("$column", column),
                ("$before", values.Before),
                ("$after", values.After),
                ("$reason", reason),
                ("$made", Sql.Text(t.Now)),
            ]
        );

    private static bool Exists(SqliteConnection connection, StoredAsset asset, DateTimeOffset at) =>
        connection.Scalar("SELECT 1 FROM reading WHERE asset_id = $asset AND at_ms = $at", Key(asset, at)) is not null;

    private static (string, object?)[] Key(StoredAsset asset, DateTimeOffset at) =>
        [("$asset", asset.Id), ("$at", at.ToUnixTimeMilliseconds())];

    /// <summary>
    /// The reading as it was first sent: corrections taken back, so that sending the file again is no conflict.
    /// </summary>
    private static Reading Original(SqliteConnection connection, StoredAsset asset, long at)
    {
        var (reading, amended) = Load(connection, asset, at, at, "")[0];
        if (amended == 0)
            return reading;
        // Newest first, so that the oldest correction has the last word.
        foreach (
            var (column, before) in connection.Query(
                "SELECT \"column\", before FROM reading_amendment WHERE asset_id = $asset AND at_ms = $at AND kind = 'corrected' ORDER BY id DESC",
                r => (r.GetString(0), r.NumberOrNaN(1)),
                ("$asset", asset.Id),
                ("$at", at)
            )
        )
        {
            var slot = asset
                .Slots.Select((s, p) => (Name: $"p{s}_c", p))
                .Where(s => s.Name == column)
                .Select(s => s.p)
                .DefaultIfEmpty(-1)
                .First();
            if (slot >= 0)
                reading.PartsC[slot] = before;
            else
                reading = column switch
                {
                    "ambient_c" => reading with { AmbientC = before },
                    "outlet_c" => reading with { OutletC = before },
                    "power_w" => reading with { PowerW = before },
                    "fan_rpm" => reading with { FanRpm = before },
                    "fan_pct" => reading with { FanPct = before },
                    "clock_mhz" => reading with { ClockMhz = before },
                    "throttled" => reading with { Throttled = before },
                    "score" => reading with { Score = before },
                    // Of a part that has gone since.
                    _ => reading,
                };
        }
        return reading;
    }

    private static string? ColumnOf(StoredAsset asset, string column)
    {
        if (CorrectableColumns.Contains(column))
            return column;
        for (var p = 0; p < asset.Slots.Count; p++)
            if (asset.Asset.Parts[p].Name == column)
                return $"p{asset.Slots[p]}_c";
        return null;
    }

    private static string? NameOf(StoredAsset asset, string? column)
    {
        for (var p = 0; p < asset.Slots.Count; p++)
            if (column == $"p{asset.Slots[p]}_c")
                return asset.Asset.Parts[p].Name;
        return column;
    }

    private static List<StoredReading> Load(SqliteConnection connection, StoredAsset asset, long from, long until, string rest)
    {
        var slots = asset.Slots.Select(s => $", p{s}_c").ToArray();
        return connection.Query(
            $"""
            SELECT at_ms, {Numbers}, (SELECT text FROM label WHERE id = settings), (SELECT text
                FROM label WHERE id = workload), fans_rpm, amended, samples, spread_k{string.Concat(
                slots
            )}
            FROM reading WHERE asset_id = $asset AND at_ms BETWEEN $from AND $until {rest}
            """,
            r =>
            {
                var parts = new double[slots.Length];
                for (var p = 0; p < parts.Length; p++)
                    parts[p] = r.NumberOrNaN(15 + p);
                return new StoredReading(
                    new Reading(
                        r.GetInt64(0),
                        r.NumberOrNaN(1),
                        r.NumberOrNaN(2),
                        r.NumberOrNaN(3),
                        r.NumberOrNaN(4),
                        r.NumberOrNaN(5),
                        r.NumberOrNaN(6),
                        r.NumberOrNaN(7),
                        r.NumberOrNaN(8),
                        r.TextOrNull(9),
                        r.TextOrNull(10),
                        r.TextOrNull(11),
                        parts
                    )
                    {
                        Samples = r.IsDBNull(13) ? 0 : r.GetInt32(13),
                        SpreadKelvin = r.NumberOrNaN(14),
                    },
                    r.GetInt32(12)
                );
            },
            ("$asset", asset.Id),
            ("$from", from),
            ("$until", until)
        );
    }

    private static bool IsKnown(Dictionary<string, long> labels, string? text) => text is null || labels.ContainsKey(text);

    private static long? LabelId(SqliteConnection connection, Dictionary<string, long> labels, string? text)
    {
        if (text is null)
            return null;
        if (!labels.TryGetValue(text, out var id))
            labels[text] = id = (long)connection.Scalar("INSERT INTO label (text) VALUES ($text) RETURNING id", ("$text", text))!;
        return id;
    }
}
