using Microsoft.Data.Sqlite;
using Pyrometron.Core.Fleet;
using Pyrometron.Storage.Records;

namespace Pyrometron.Storage;

/// <summary>Keys of programs, by their hashes.</summary>
public sealed class KeyStore(Database database)
{
    private const string Columns = "SELECT id, name, scope, begins, made_at, until, used_at, used_from FROM api_key";

    /// <summary>All of them, by name.</summary>
    public IReadOnlyList<ApiKey> All() => database.Read(connection => connection.Query($"{Columns} ORDER BY name", Read));

    /// <summary>The one that a program shows, while it counts.</summary>
    public ApiKey? Find(string hash, DateTimeOffset now) =>
        database.Read(connection =>
            connection
                .Query(
                    $"""
                    {Columns} WHERE (hash = $hash OR (before_hash = $hash AND before_until > $now))
                        AND (until IS NULL OR until > $now)
                    """,
                    Read,
                    ("$hash", hash),
                    ("$now", Sql.Text(now))
                )
                .FirstOrDefault()
        );

    /// <summary>One by its number within a use case.</summary>
    public static ApiKey? Find(Transaction t, long id) =>
        t.Connection.Query($"{Columns} WHERE id = $id", Read, ("$id", id)).FirstOrDefault();

    /// <summary>Adds one.</summary>
    /// <returns>False where the name is taken.</returns>
    public static bool Add(Transaction t, string name, KeyScope scope, DateTimeOffset? until, string begins, string hash) =>
        t.Execute(
            """
            INSERT INTO api_key (name, scope, begins, hash, made_at, until) VALUES ($name, $scope, $begins, $hash, $now, $until)
            ON CONFLICT (name) DO NOTHING
            """,
            ("$name", name),
            ("$scope", Words.Of(scope)),
            ("$begins", begins),
            ("$hash", hash),
            ("$now", Sql.Text(t.Now)),
            ("$until", until is { } end ? Sql.Text(end) : null)
        ) == 1;

    /// <summary>Puts another in its place; the one before it counts for a while.</summary>
    public static void Renew(Transaction t, long id, string begins, string hash, DateTimeOffset beforeUntil) =>
        t.Connection.Execute(
            """
            UPDATE api_key SET before_hash = hash, before_until = $before, hash = $hash, begins = $begins, made_at = $now
            WHERE id = $id
            """,
            ("$id", id),
            ("$before", Sql.Text(beforeUntil)),
            ("$hash", hash),
            ("$begins", begins),
            ("$now", Sql.Text(t.Now))
        );

    /// <summary>Ends one.</summary>
    public static void Remove(Transaction t, long id) => t.Connection.Execute("DELETE FROM api_key WHERE id = $id", ("$id", id));

    /// <summary>Notes that one was used.</summary>
    public static void See(Transaction t, long id, string address) =>
        t.Connection.Execute(
            "UPDATE api_key SET used_at = $now, used_from = $address WHERE id = $id",
            ("$id", id),
            ("$now", Sql.Text(t.Now)),
            ("$address", address)
        );

    private static ApiKey Read(SqliteDataReader r) =>
        new(
            r.GetInt64(0),
            r.GetString(1),
            StoredWords.Read<KeyScope>(r.GetString(2)),
            r.GetString(3),
            Sql.ReadInstant(r.GetString(4)),
            r.InstantOrNull(5),
            r.InstantOrNull(6),
            r.TextOrNull(7)
        );
}
