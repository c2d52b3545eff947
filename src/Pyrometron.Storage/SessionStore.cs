using Microsoft.Data.Sqlite;

namespace Pyrometron.Storage;

/// <summary>A browser that is signed in.</summary>
/// <param name="Device">What kind, as it says itself.</param>
/// <param name="Address">From where it signed in.</param>
/// <param name="Until">When it is signed out by itself.</param>
public sealed record Session(
    long Id,
    Account Account,
    string Device,
    string Address,
    DateTimeOffset BegunAt,
    DateTimeOffset SeenAt,
    DateTimeOffset Until
);

/// <summary>Browsers that are signed in, by the hash of what their cookie says.</summary>
public sealed class SessionStore(Database database)
{
    private const string Columns = """
        SELECT s.id, s.device, s.address, s.begun_at, s.seen_at, s.until,
            a.id, a.code, a.name, a.role, a.sites, a.machines, a.suspended
        FROM session s JOIN account a ON a.id = s.account_id
        """;

    /// <summary>The one that a cookie names, while it counts.</summary>
    public Session? Find(string hash, DateTimeOffset now) =>
        database.Read(connection =>
            connection
                .Query(
                    $"{Columns} WHERE s.hash = $hash AND s.until > $now AND a.suspended = 0",
                    Read,
                    ("$hash", hash),
                    ("$now", Sql.Text(now))
                )
                .FirstOrDefault()
        );

    /// <summary>All that count, of everybody or of one account; who was seen last comes first.</summary>
    public IReadOnlyList<Session> All(DateTimeOffset now, string? code = null) =>
        database.Read(connection =>
            connection.Query(
                $"{Columns} WHERE s.until > $now AND ($code IS NULL OR a.code = $code) ORDER BY s.seen_at DESC, s.id DESC",
                Read,
                ("$now", Sql.Text(now)),
                ("$code", code)
            )
        );

    /// <summary>Begins one; those that have ended are forgotten.</summary>
    public static void Begin(Transaction t, long account, string hash, string device, string address, DateTimeOffset until)
    {
        t.Connection.Execute("DELETE FROM session WHERE until <= $now", ("$now", Sql.Text(t.Now)));
        t.Connection.Execute(
            """
            INSERT INTO session (hash, account_id, device, address, begun_at, seen_at, until)
            VALUES ($hash, $account, $device, $address, $now, $now, $until)
            """,
            ("$hash", hash),
            ("$account", account),
            ("$device", device),
            ("$address", address),
            ("$now", Sql.Text(t.Now)),
            ("$until", Sql.Text(until))
        );
    }

    /// <summary>Notes that one is at work.</summary>
    public static void See(Transaction t, string hash, DateTimeOffset until) =>
        t.Connection.Execute(
            "UPDATE session SET seen_at = $now, until = $until WHERE hash = $hash",
            ("$hash", hash),
            ("$now", Sql.Text(t.Now)),
            ("$until", Sql.Text(until))
        );

    /// <summary>Ends one.</summary>
    public static void End(Transaction t, string hash) =>
        t.Connection.Execute("DELETE FROM session WHERE hash = $hash", ("$hash", hash));

    /// <summary>Whose one is; null where there is no such session.</summary>
    public static Account? OwnerOf(Transaction t, long id) =>
        t.Connection.Query($"{Columns} WHERE s.id = $id", r => AccountStore.Read(r, 6), ("$id", id)).FirstOrDefault();

    /// <summary>Ends one of an account.</summary>
    /// <returns>False where that account has no such session.</returns>
    public static bool End(Transaction t, long account, long id) =>
        t.Execute("DELETE FROM session WHERE account_id = $account AND id = $id", ("$account", account), ("$id", id)) == 1;

    /// <summary>Ends all of an account, but for one.</summary>
    /// <param name="except">Its number; null for none.</param>
    public static void EndAll(Transaction t, long account, long? except) =>
        t.Connection.Execute(
            "DELETE FROM session WHERE account_id = $account AND ($except IS NULL OR id <> $except)",
            ("$account", account),
            ("$except", except)
        );

    private static Session Read(SqliteDataReader r) =>
        new(
            r.GetInt64(0),
            AccountStore.Read(r, 6),
            r.GetString(1),
            r.GetString(2),
            Sql.ReadInstant(r.GetString(3)),
            Sql.ReadInstant(r.GetString(4)),
            Sql.ReadInstant(r.GetString(5))
        );
}
