using Microsoft.Data.Sqlite;

namespace Pyrometron.Storage;

/// <summary>How large a house is.</summary>
/// <param name="DatabaseBytes">The database file with what is not moved into it yet; photos stand in it.</param>
/// <param name="PhotoBytes">Of it the photos.</param>
/// <param name="Changes">Lines of the change log.</param>
public sealed record HouseSize(long DatabaseBytes, long PhotoBytes, long Readings, long Photos, long Changes);

/// <summary>How large a house was at the end of a day, as far as the program ran.</summary>
public sealed record SizeOfDay(DateOnly Day, long DatabaseBytes, long PhotoBytes, long Readings, long Changes);

/// <summary>How large the house is, and was day by day.</summary>
public sealed class SizeStore(Database database)
{
    /// <summary>Now.</summary>
    public HouseSize Now() => database.Read(Now);

    /// <summary>All days, the oldest first.</summary>
    public IReadOnlyList<SizeOfDay> Days() =>
        database.Read(connection =>
            connection.Query(
                "SELECT day, database_bytes, photo_bytes, readings, changes FROM size_of_day ORDER BY day",
                r => new SizeOfDay(r.Date(0), r.GetInt64(1), r.GetInt64(2), r.GetInt64(3), r.GetInt64(4))
            )
        );

    /// <summary>Writes down how large the house is today; what stood there of this day is replaced.</summary>
    public static void Note(Transaction t, DateOnly day)
    {
        var size = Now(t.Connection);
        t.Connection.Execute(
            """
            INSERT INTO size_of_day (day, database_bytes, photo_bytes, readings, changes)
            VALUES ($day, $database, $photos, $readings, $changes)
            ON CONFLICT (day) DO UPDATE SET database_bytes = excluded.database_bytes, photo_bytes = excluded.photo_bytes,
                readings = excluded.readings, changes = excluded.changes
            """,
            ("$day", Sql.Text(day)),
            ("$database", size.DatabaseBytes),
            ("$photos", size.PhotoBytes),
            ("$readings", size.Readings),
            ("$changes", size.Changes)
        );
    }

    private static HouseSize Now(SqliteConnection connection) =>
        connection
            .Query(
                """
                SELECT coalesce(sum(length(picture) + length(small)), 0), (SELECT count(*) FROM reading), count(*),
                    (SELECT count(*) FROM change)
                FROM photo
                """,
                r => new HouseSize(BytesOf(connection.DataSource), r.GetInt64(0), r.GetInt64(1), r.GetInt64(2), r.GetInt64(3))
            )
            .First();

    /// <summary>The size of a database file, with what is not moved into it yet.</summary>
    public static long BytesOf(string path) =>
        ((string[])["", "-wal"]).Select(end => new FileInfo(path + end)).Where(f => f.Exists).Sum(f => f.Length);
}
