using Microsoft.Data.Sqlite;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Stores;
using Pyrometron.Storage.Records;

namespace Pyrometron.Storage;

/// <summary>A job that used a lot.</summary>
public sealed record LotUser(long Job, string Asset, string Model, DateOnly? Done, double Amount);

/// <summary>Pads that were cut ahead for a machine and wait for its job.</summary>
public sealed record CutPads(string Asset, long Lot, double ThicknessMm, int Count);

/// <summary>Lots and everything that came in and went out of them.</summary>
public sealed class LotStore(Database database)
{
    private const string Select = """
        SELECT l.id, p.code, l.batch, l.place, l.came_on, l.opened_on, l.expires_on, l.price_per_unit, l.width_mm, l.height_mm,
            l.bad_because, coalesce((SELECT sum(m.amount) FROM stock_move m WHERE m.lot_id = l.id), 0)
        FROM lot l JOIN product p ON p.id = l.product_id
        """;

    /// <summary>What is smaller than this is nothing: sums of decimals leave crumbs.</summary>
    private const double Nothing = 1e-6;

    /// <summary>What is on the shelf.</summary>
    /// <param name="day">The day that it is looked at.</param>
    public Shelf Shelf(DateOnly day) => database.Read(connection => Shelf(connection, day, null));

    /// <summary>What would be on the shelf within a use case, had a job taken nothing.</summary>
    public static Shelf Shelf(Transaction t, DateOnly day, long? without = null) => Shelf(t.Connection, day, without);

    /// <summary>One lot, or null.</summary>
    public Lot? Find(long id) => database.Read(connection => Find(connection, id));

    /// <summary>One lot within a use case, or null.</summary>
    public static Lot? Find(Transaction t, long id) => Find(t.Connection, id);

    /// <summary>A lot's moves, newest first.</summary>
    public IReadOnlyList<StockMove> Moves(long lot) =>
        database.Read(connection =>
            connection.Query(
                """
                SELECT m.kind, m.amount, m.at, m.job_id, a.name, m.note FROM stock_move m JOIN actor a ON a.id = m.actor_id
                WHERE m.lot_id = $lot ORDER BY m.id DESC
                """,
                r => new StockMove(
                    StoredWords.Read<StockMoveKind>(r.GetString(0)),
                    r.GetDouble(1),
                    Sql.ReadInstant(r.GetString(2)),
                    r.LongOrNull(3),
                    r.GetString(4),
                    r.TextOrNull(5)
                ),
                ("$lot", lot)
            )
        );

    /// <summary>
    /// The jobs that used a lot, or another lot of the same product and batch: what a batch that was found bad has gone into.
    /// </summary>
    public IReadOnlyList<LotUser> Users(long lot) =>
        database.Read(connection =>
            connection.Query(
                """
                SELECT j.id, a.tag, a.model, date(j.work_done_at), -sum(m.amount)
                FROM lot this JOIN lot l ON l.product_id = this.product_id AND (l.id = this.id OR l.batch = this.batch)
                    JOIN stock_move m ON m.lot_id = l.id JOIN job j ON j.id = m.job_id JOIN asset a ON a.id = j.asset_id
                WHERE this.id = $lot GROUP BY j.id ORDER BY j.work_done_at DESC
                """,
                r => new LotUser(r.GetInt64(0), r.GetString(1), r.GetString(2), r.DateOrNull(3), r.GetDouble(4)),
                ("$lot", lot)
            )
        );

    /// <summary>When a person last counted anything, and who; null where nobody has.</summary>
    public (DateTimeOffset At, string By)? LastCount() =>
        database.Read(connection =>
            connection
                .Query(
                    """
                    SELECT m.at, a.name FROM stock_move m JOIN actor a ON a.id = m.actor_id
                    WHERE m.kind = 'counted' ORDER BY m.id DESC LIMIT 1
                    """,
                    r => ((DateTimeOffset, string)?)(Sql.ReadInstant(r.GetString(0)), r.GetString(1))
                )
                .FirstOrDefault()
        );

    /// <summary>What a job has taken, with what it cost; null where a price is not known.</summary>
    public IReadOnlyList<(string Product, double Amount, double? Cost)> TakenBy(long job) =>
        database.Read(connection =>
            connection.Query(
                """
                SELECT p.name, -sum(m.amount), -sum(m.amount * l.price_per_unit), count(*) = count(l.price_per_unit)
                FROM stock_move m JOIN lot l ON l.id = m.lot_id JOIN product p ON p.id = l.product_id
                WHERE m.job_id = $job GROUP BY p.id HAVING abs(sum(m.amount)) > 0 ORDER BY p.name
                """,
                r => (r.GetString(0), r.GetDouble(1), r.GetBoolean(3) ? r.NumberOrNull(2) : null),
                ("$job", job)
            )
        );

    /// <summary>What a job has taken so far, by lot, within a use case.</summary>
    public static IReadOnlyDictionary<long, double> Booked(Transaction t, long job) =>
        t
            .Connection.Query(
                "SELECT lot_id, -sum(amount) FROM stock_move WHERE job_id = $job GROUP BY lot_id",
                r => (Lot: r.GetInt64(0), Amount: r.GetDouble(1)),
                ("$job", job)
            )
            .ToDictionary(b => b.Lot, b => b.Amount);

    /// <summary>Puts a lot on the shelf, still empty: its moves tell what is in it.</summary>
    /// <returns>Its number.</returns>
    public static long Add(Transaction t, Lot lot) =>
        (long)
            t.Connection.Scalar(
                """
                INSERT INTO lot (product_id, batch, place, came_on, opened_on, expires_on, price_per_unit, width_mm, height_mm)
                SELECT id, $batch, $place, $came, $opened, $expires, $price, $width, $height FROM product WHERE code = $product
                RETURNING id
                """,
                ("$product", lot.Product),
                ("$batch", lot.Batch),
                ("$place", lot.Place),
                ("$came", Sql.Text(lot.CameOn)),
                ("$opened", Date(lot.OpenedOn)),
                ("$expires", Date(lot.ExpiresOn)),
                ("$price", lot.PricePerUnit),
                ("$width", lot.WidthMm),
                ("$height", lot.HeightMm)
            )!;

    /// <summary>Changes what is known of a lot; not its amount.</summary>
    public static void Change(Transaction t, Lot lot) =>
        t.Connection.Execute(
            """
            UPDATE lot SET batch = $batch, place = $place, opened_on = $opened, expires_on = $expires, price_per_unit = $price,
                bad_because = $bad WHERE id = $id
            """,
            ("$id", lot.Id),
            ("$batch", lot.Batch),
            ("$place", lot.Place),
            ("$opened", Date(lot.OpenedOn)),
            ("$expires", Date(lot.ExpiresOn)),
            ("$price", lot.PricePerUnit),
            ("$bad", lot.BadBecause)
        );

    /// <summary>Changes a lot's amount.</summary>
    public static void Move(Transaction t, long lot, StockMoveKind kind, double amount, long? job = null, string? note = null) =>
        t.Connection.Execute(
            "INSERT INTO stock_move (lot_id, kind, amount, at, job_id, actor_id, note) VALUES ($lot, $kind, $amount, $now, $job, $actor, $note)",
            ("$lot", lot),
            ("$kind", Words.Of(kind)),
            ("$amount", amount),
            ("$now", Sql.Text(t.Now)),
            ("$job", job),
            ("$actor", t.ActorId),
            ("$note", note)
        );

    /// <summary>Lays pads ready for a machine.</summary>
    public static void LayReady(Transaction t, CutPads pads) =>
        t.Connection.Execute(
            """
            INSERT INTO cut_pads (asset_id, lot_id, thickness_mm, count)
            SELECT id, $lot, $thickness, $count FROM asset WHERE tag = $asset
            """,
            ("$asset", pads.Asset),
            ("$lot", pads.Lot),
            ("$thickness", pads.ThicknessMm),
            ("$count", pads.Count)
        );

    /// <summary>Says that a job used the pads of a thickness that lay ready for its machine.</summary>
    public static void UseReady(Transaction t, long asset, double thicknessMm, long job) =>
        t.Connection.Execute(
            "UPDATE cut_pads SET job_id = $job WHERE asset_id = $asset AND thickness_mm = $thickness AND job_id IS NULL",
            ("$asset", asset),
            ("$thickness", thicknessMm),
            ("$job", job)
        );

    /// <summary>Whether any lot of a product was ever there.</summary>
    public static bool Any(Transaction t, string product) =>
        t.Connection.Scalar(
            "SELECT 1 FROM lot l JOIN product p ON p.id = l.product_id WHERE p.code = $code LIMIT 1",
            ("$code", product)
        )
            is not null;

    private static Shelf Shelf(SqliteConnection connection, DateOnly day, long? without)
    {
        var taken = connection
            .Query(
                "SELECT lot_id, -sum(amount) FROM stock_move WHERE job_id = $job GROUP BY lot_id",
                r => (Lot: r.GetInt64(0), Amount: r.GetDouble(1)),
                ("$job", without)
            )
            .ToDictionary(b => b.Lot, b => b.Amount);
        var cut = connection.Query(
            """
            SELECT a.tag, c.thickness_mm, sum(c.count) FROM cut_pads c JOIN asset a ON a.id = c.asset_id
            WHERE c.job_id IS NULL OR c.job_id = $job GROUP BY a.tag, c.thickness_mm
            """,
            r => ((r.GetString(0), r.GetDouble(1)), r.GetInt32(2)),
            ("$job", without)
        );
        return new Shelf(
            ProductStore.All(connection),
            [
                .. connection
                    .Query($"{Select} ORDER BY l.id", Read)
                    .Select(l => taken.TryGetValue(l.Id, out var amount) ? l with { Amount = l.Amount + amount } : l),
            ],
            cut.ToDictionary(c => c.Item1, c => c.Item2),
            day
        );
    }

    private static Lot? Find(SqliteConnection connection, long id) =>
        connection.Query($"{Select} WHERE l.id = $id", Read, ("$id", id)).FirstOrDefault();

    private static Lot Read(SqliteDataReader r)
    {
        var amount = r.GetDouble(11);
        return new Lot(
            r.GetInt64(0),
            r.GetString(1),
            r.TextOrNull(2),
            r.GetString(3),
            r.Date(4),
            r.DateOrNull(5),
            r.DateOrNull(6),
            r.NumberOrNull(7),
            r.NumberOrNull(8),
            r.NumberOrNull(9),
            r.TextOrNull(10),
            Math.Abs(amount) < Nothing ? 0 : amount
        );
    }

    private static string? Date(DateOnly? day) => day is { } known ? Sql.Text(known) : null;
}
