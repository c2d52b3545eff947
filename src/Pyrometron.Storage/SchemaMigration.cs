using System.Globalization;
using System.Reflection;
using Microsoft.Data.Sqlite;

namespace Pyrometron.Storage;

/// <summary>
/// Brings a database up to the newest schema by numbered SQL, one transaction a step. As it was it is copied aside first,
/// whatever its size, without holding it in memory.
/// </summary>
public static class SchemaMigration
{
    /// <summary>The numbered migrations, oldest first.</summary>
    public static IReadOnlyList<(int Number, string Name, string Sql)> All { get; } = [.. Load()];

    /// <summary>Migrates where that is needed.</summary>
    /// <returns>The copy that was laid aside, or null.</returns>
    /// <exception cref="InvalidDataException">It is newer than this program, or there is no room for a copy.</exception>
    internal static string? Run(SqliteConnection connection, string path, Action<string> tell)
    {
        var version = Convert.ToInt32(connection.Scalar("PRAGMA user_version"), CultureInfo.InvariantCulture);
        var newest = All[^1].Number;
        if (version > newest)
            throw new InvalidDataException(
                $"{path} was written by a newer Pyrometron (schema {version}, this one knows {newest}). Start the newer program."
            );
        if (version == newest)
            return null;
        var copy = version > 0 ? CopyAside(connection, path, version, tell) : null;
        // What a step sorts or indexes goes to disk: the largest table does not fit into memory.
        connection.Execute("PRAGMA temp_store = FILE");
        foreach (var (number, name, sql) in All.Where(m => m.Number > version))
        {
            if (version > 0)
                tell($"Bringing the database up to date: step {number} of {newest} ({name[5..^4]}) …");
            connection.Execute($"BEGIN IMMEDIATE; {sql}; PRAGMA user_version = {number}; COMMIT");
        }
        connection.Execute("PRAGMA temp_store = MEMORY");
        return copy;
    }

    /// <summary>Makes an empty database as it was at a schema.</summary>
    internal static void MakeAt(SqliteConnection connection, int schema)
    {
        foreach (var (number, _, sql) in All.Where(m => m.Number <= schema))
            connection.Execute($"BEGIN IMMEDIATE; {sql}; PRAGMA user_version = {number}; COMMIT");
    }

    private static string CopyAside(SqliteConnection connection, string path, int version, Action<string> tell)
    {
        // Everything into the file itself, so that the file alone is the database.
        connection.Execute("PRAGMA wal_checkpoint(TRUNCATE)");
        var stamp = DateTime.UtcNow.ToString("yyyyMMdd-HHmmss", CultureInfo.InvariantCulture);
        var copy = $"{path}.schema-{version}.{stamp}";
        var size = new FileInfo(path).Length;
        CheckRoom(path, size);
        using (var from = new FileStream(path, FileMode.Open, FileAccess.Read, FileShare.ReadWrite))
        using (var to = new FileStream(copy + DataFolder.Unfinished, FileMode.Create, FileAccess.Write))
        {
            var buffer = new byte[1 << 20];
            long copied = 0,
                told = 0;
            for (int read; (read = from.Read(buffer)) > 0; )
            {
                to.Write(buffer, 0, read);
                copied += read;
                if (copied - told < size / 10 || size < 100_000_000)
                    continue;
                told = copied;
                tell($"Copying the database aside: {100 * copied / size} % of {size / 1024 / 1024} MB …");
            }
            to.Flush(flushToDisk: true);
        }
        File.Move(copy + DataFolder.Unfinished, copy);
        return copy;
    }

    /// <summary>The copy needs as much room as the database, and its steps write as much again at most.</summary>
    private static void CheckRoom(string path, long size)
    {
        var free = new DriveInfo(Path.GetDirectoryName(Path.GetFullPath(path))!).AvailableFreeSpace;
        if (free < 2 * size)
            throw new InvalidDataException(
                $"To bring {path} up to date, {2 * size / 1024 / 1024} MB must be free on its disk, and {free / 1024 / 1024} MB are. Make room, or move the folder to a larger disk."
            );
    }

    private static IEnumerable<(int, string, string)> Load()
    {
        var assembly = Assembly.GetExecutingAssembly();
        const string folder = ".Migrations.";
        foreach (
            var resource in assembly
                .GetManifestResourceNames()
                .Where(n => n.Contains(folder, StringComparison.Ordinal))
                .Order(StringComparer.Ordinal)
        )
        {
            var name = resource[(resource.IndexOf(folder, StringComparison.Ordinal) + folder.Length)..];
            using var reader = new StreamReader(assembly.GetManifestResourceStream(resource)!);
            yield return (int.Parse(name[..4], CultureInfo.InvariantCulture), name, reader.ReadToEnd());
        }
    }
}
