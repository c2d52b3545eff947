using System.Globalization;
using Microsoft.Data.Sqlite;

namespace Pyrometron.Storage.Backups;

/// <summary>What a database holds, told by counts and by its newest line.</summary>
/// <param name="House">By which the house knows its own.</param>
/// <param name="Schema">Number of its newest migration.</param>
/// <param name="LastChange">When something was changed last; null where nothing was.</param>
public sealed record DatabaseContents(
    string House,
    int Schema,
    long Machines,
    long Readings,
    long Jobs,
    long Entries,
    long Photos,
    long Changes,
    DateTimeOffset? LastChange
)
{
    /// <summary>Looks it up.</summary>
    internal static DatabaseContents Of(SqliteConnection connection)
    {
        var schema = Convert.ToInt32(connection.Scalar("PRAGMA user_version"), CultureInfo.InvariantCulture);
        var tables = connection.Query("SELECT name FROM sqlite_schema WHERE type = 'table'", r => r.GetString(0)).ToHashSet();
        // A database of an earlier version has not all of them.
        long Count(string table) => tables.Contains(table) ? (long)connection.Scalar($"SELECT count(*) FROM {table}")! : 0;
        return new DatabaseContents(
            connection.Scalar("SELECT value FROM about WHERE name = 'house'") as string ?? "",
            schema,
            Count("asset"),
            Count("reading"),
            Count("job"),
            Count("job_entry"),
            Count("photo"),
            Count("change"),
            tables.Contains("change") && connection.Scalar("SELECT max(stored_at) FROM change") is string at
                ? Sql.ReadInstant(at)
                : null
        );
    }
}

/// <summary>What stands beside a backup: what it is, so that a copy cut short or mixed up is found out.</summary>
/// <param name="Format"><c>pyrometron-backup/1</c>.</param>
/// <param name="File">Name of the backup beside it.</param>
/// <param name="Bytes">Its size.</param>
/// <param name="Sha256">Of its bytes (FIPS 180-4), lower-case hexadecimal.</param>
/// <param name="Encrypted">Whether a passphrase is needed.</param>
/// <param name="CheckedAt">When it was opened and found whole, after it was made.</param>
public sealed record BackupManifest(
    string Format,
    string File,
    DateTimeOffset MadeAt,
    long Bytes,
    string Sha256,
    bool Encrypted,
    DateTimeOffset CheckedAt,
    DatabaseContents Contents
)
{
    /// <summary>The only form there is.</summary>
    public const string CurrentFormat = "pyrometron-backup/1";
}
