using Microsoft.Data.Sqlite;

namespace Pyrometron.Storage;

/// <summary>Whether the file of a database is whole: looked at when it is opened, before anything is written.</summary>
public static class DatabaseCheck
{
    /// <summary>What to do with a damaged file.</summary>
    internal const string WayOn =
        "Nothing was changed. Lay back a copy, rescue what can be read with '.recover' of the sqlite3 shell, or start with another --data folder.";

    /// <summary>Whether a database was not opened because its file is damaged, or is none.</summary>
    public static bool IsDamage(InvalidDataException error) => error.Message.Contains(WayOn, StringComparison.Ordinal);

    /// <summary>A file larger than this takes seconds to look through, bytes.</summary>
    private const long Large = 256L * 1024 * 1024;

    /// <summary>Values that are not what their column takes: one machine's data, which says so where it is read.</summary>
    private static readonly string[] OfRows =
    [
        "CHECK constraint failed",
        "NULL value in",
        "TEXT value in",
        "NUMERIC value in",
        "non-",
    ];

    /// <summary>Looks through the structure of the file. O(its size).</summary>
    /// <exception cref="InvalidDataException">It is damaged.</exception>
    internal static void Run(SqliteConnection connection, string path, Action<string> tell)
    {
        if (new FileInfo(path) is { Exists: true, Length: > Large } file)
            tell($"Looking through the database ({file.Length / 1024 / 1024} MB) …");
        var found = connection.Query("PRAGMA quick_check(50)", r => r.GetString(0));
        var damage = found.FirstOrDefault(line =>
            line != "ok" && !OfRows.Any(known => line.StartsWith(known, StringComparison.Ordinal))
        );
        if (damage is not null)
            throw new InvalidDataException($"{path} is damaged ({damage.ReplaceLineEndings(" ")}). {WayOn}");
    }
}
