using Microsoft.Data.Sqlite;
using Pyrometron.Core.Fleet;
using Pyrometron.Storage.Records;

namespace Pyrometron.Storage;

/// <summary>What an import brought.</summary>
public enum ImportKind
{
    Fleet,
    Readings,
    Services,
}

/// <summary>An import as stored.</summary>
/// <param name="Created">Machines, or lines.</param>
/// <param name="Changed">Machines that were known and changed.</param>
/// <param name="UndoneAt">Null while it stands.</param>
public sealed record StoredImport(
    long Id,
    ImportKind Kind,
    DateTimeOffset At,
    long Created,
    long Changed,
    DateTimeOffset? UndoneAt
);

/// <summary>Imports that brought something, so that one can be undone as a whole.</summary>
public sealed class ImportStore(Database database)
{
    private const string Columns = "SELECT id, kind, at, created, changed, undone_at FROM import";

    /// <summary>The newest imports that brought something, newest first.</summary>
    public IReadOnlyList<StoredImport> Newest(int count) =>
        database.Read(connection =>
            connection.Query($"{Columns} WHERE created + changed > 0 ORDER BY id DESC LIMIT $count", Read, ("$count", count))
        );

    /// <summary>One import within a use case, or null.</summary>
    public static StoredImport? Find(Transaction t, long id) =>
        t.Connection.Query($"{Columns} WHERE id = $id", Read, ("$id", id)).FirstOrDefault();

    /// <summary>Begins an import.</summary>
    /// <returns>Its number: what it creates is marked with it.</returns>
    public static long Begin(Transaction t, ImportKind kind) =>
        (long)
            t.Connection.Scalar(
                "INSERT INTO import (kind, at, actor_id) VALUES ($kind, $at, $actor) RETURNING id",
                ("$kind", Words.Of(kind)),
                ("$at", Sql.Text(t.Now)),
                ("$actor", t.ActorId)
            )!;

    /// <summary>Adds to what an import has brought.</summary>
    /// <param name="assets">The machines that it touched.</param>
    public static void Add(Transaction t, long id, long created, long changed, IEnumerable<long> assets)
    {
        t.Execute(
            "UPDATE import SET created = created + $created, changed = changed + $changed WHERE id = $id",
            ("$created", created),
            ("$changed", changed),
            ("$id", id)
        );
        foreach (var asset in assets)
            t.Execute("INSERT INTO import_asset VALUES ($id, $asset) ON CONFLICT DO NOTHING", ("$id", id), ("$asset", asset));
    }

    private static StoredImport Read(SqliteDataReader r) =>
        new(
            r.GetInt64(0),
            StoredWords.Read<ImportKind>(r.GetString(1)),
            Sql.ReadInstant(r.GetString(2)),
            r.GetInt64(3),
            r.GetInt64(4),
            r.InstantOrNull(5)
        );
}
