using System.IO.Compression;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Microsoft.Data.Sqlite;
using Pyrometron.Storage.Records;

namespace Pyrometron.Storage.HouseFiles;

/// <summary>
/// Lays a house file into an empty house. It is built beside the place of the database and moved there when it is whole: whatever
/// ends the program meanwhile, nothing half done is left.
/// </summary>
public static class HouseReader
{
    /// <summary>A line longer than this is no row, characters.</summary>
    private const int LongestLine = 64 * 1024 * 1024;

    private const int LongestManifest = 16 * 1024 * 1024,
        LargestPicture = 64 * 1024 * 1024;

    /// <summary>Lays it. The server must not be at work on the folder.</summary>
    /// <param name="file">The house file.</param>
    /// <param name="database">Where the database is to lie; nothing may lie there.</param>
    /// <param name="tell">Told in words how far it is.</param>
    /// <exception cref="InvalidDataException">
    /// It is no house file, was cut short or changed, is of a newer version, or there is a database already.
    /// </exception>
    public static HouseManifest Lay(string file, string database, Action<string> tell, CancellationToken cancellation)
    {
        if (File.Exists(database))
            throw new InvalidDataException(
                $"There is a database {Path.GetFullPath(database)} already. A house file goes into an empty folder: name one with --data."
            );
        var trial = database + DataFolder.Unfinished;
        try
        {
            using var zip = ZipFile.OpenRead(file);
            var manifest = ManifestOf(zip, file);
            using (var connection = new SqliteConnection($"Data Source={trial};Pooling=False;Foreign Keys=False"))
            {
                connection.Open();
                connection.Execute("PRAGMA synchronous = OFF");
                SchemaMigration.MakeAt(connection, manifest.Schema);
                connection.Execute("BEGIN");
                Fill(connection, zip, manifest, tell, cancellation);
                connection.Execute("COMMIT");
                Check(connection, file);
            }
            using (var written = new FileStream(trial, FileMode.Open, FileAccess.ReadWrite))
                written.Flush(flushToDisk: true);
            File.Move(trial, database);
            return manifest;
        }
        catch (SqliteException error)
        {
            throw new InvalidDataException(
                StorageFailure.Of(error)?.ToString() ?? $"{file} holds what no house has ({error.Message}). Nothing was laid.",
                error
            );
        }
        catch (JsonException error)
        {
            throw new InvalidDataException($"{file} holds a line that is no JSON. Nothing was laid.", error);
        }
        finally
        {
            foreach (var left in (string[])["", "-wal", "-shm", "-journal"])
                File.Delete(trial + left);
        }
    }

    private static HouseManifest ManifestOf(ZipArchive zip, string file)
    {
        var entry =
            zip.GetEntry(HouseManifest.File)
            ?? throw new InvalidDataException(
                $"{file} is no house file, or it was not finished: it has no {HouseManifest.File}."
            );
        if (entry.Length > LongestManifest)
            throw new InvalidDataException($"{file} is no house file: its {HouseManifest.File} is too large.");
        using var stream = entry.Open();
        var manifest = JsonSerializer.Deserialize<HouseManifest>(stream, StoredJson.Options);
        if (manifest is not { Format: HouseManifest.CurrentFormat, Parts: not null })
            throw new InvalidDataException(
                $"{file} says to be '{manifest?.Format}'; this program reads {HouseManifest.CurrentFormat}."
            );
        var newest = SchemaMigration.All[^1].Number;
        if (manifest.Schema < SchemaMigration.All[0].Number || manifest.Schema > newest)
            throw new InvalidDataException(
                $"{file} was made by a newer Pyrometron (schema {manifest.Schema}, this one knows {newest}). Use the newer program."
            );
        return manifest;
    }

    private static void Fill(
        SqliteConnection connection,
        ZipArchive zip,
        HouseManifest manifest,
        Action<string> tell,
        CancellationToken cancellation
    )
    {
        // What a migration writes into a new database comes along with the rows.
        var tables = HouseTable.All(connection);
        foreach (var table in tables)
            connection.Execute($"DELETE FROM \"{table.Name}\"");
        var parts = manifest.Parts.ToDictionary(p => p.File);
        foreach (var table in tables)
        {
            if (!parts.TryGetValue(table.File, out var part))
                throw new InvalidDataException($"The file has no {table.File}. It was changed, or cut short; nothing was laid.");
            using var hash = SHA256.Create();
            var rows = 0L;
            using (var hashed = new CryptoStream(Entry(zip, table.File).Open(), hash, CryptoStreamMode.Read))
            using (var lines = new StreamReader(hashed, new UTF8Encoding(false), false, 1 << 16))
            using (var insert = Insert(connection, table))
                foreach (var line in LinesOf(lines, table.File))
                {
                    cancellation.ThrowIfCancellationRequested();
                    Add(insert, zip, table, line, parts);
                    rows++;
                }
            if (part.Rows != rows || Convert.ToHexStringLower(hash.Hash!) != part.Sha256)
                throw new InvalidDataException($"{table.File} is not as it was written. The file was changed, or cut short.");
            tell($"{table.Name}: {rows} rows");
        }
    }

    private static SqliteCommand Insert(SqliteConnection connection, HouseTable table)
    {
        var command = connection.CreateCommand();
        command.CommandText =
            $"INSERT INTO \"{table.Name}\" ({table.Listed}) VALUES ({string.Join(", ", table.Columns.Select((_, c) => $"${c}"))})";
        for (var c = 0; c < table.Columns.Count; c++)
            command.Parameters.Add(new SqliteParameter { ParameterName = $"${c}" });
        return command;
    }

    private static void Add(
        SqliteCommand insert,
        ZipArchive zip,
        HouseTable table,
        string line,
        Dictionary<string, HousePart> parts
    )
    {
        using var row = JsonDocument.Parse(line);
        if (row.RootElement.ValueKind != JsonValueKind.Object)
            throw new InvalidDataException($"{table.File} holds a line that is no row.");
        for (var c = 0; c < table.Columns.Count; c++)
        {
            var name = table.Columns[c];
            var cell = row.RootElement.TryGetProperty(name, out var found) ? found : default;
            object? value = cell.ValueKind switch
            {
                JsonValueKind.String when table.Pictures.Contains(name) => Picture(zip, cell.GetString()!, parts),
                JsonValueKind.String => cell.GetString(),
                JsonValueKind.Number => cell.TryGetInt64(out var whole) ? whole : cell.GetDouble(),
                JsonValueKind.Null or JsonValueKind.Undefined => null,
                _ => throw new InvalidDataException($"{table.File}: {name} is neither text nor number."),
            };
            insert.Parameters[c].Value = value ?? DBNull.Value;
        }
        insert.ExecuteNonQuery();
    }

    private static byte[] Picture(ZipArchive zip, string file, Dictionary<string, HousePart> parts)
    {
        var entry = Entry(zip, file);
        if (entry.Length > LargestPicture)
            throw new InvalidDataException($"{file} is too large to be a picture.");
        using var stream = entry.Open();
        using var bytes = new MemoryStream();
        stream.CopyTo(bytes);
        var picture = bytes.ToArray();
        return parts.TryGetValue(file, out var part) && Convert.ToHexStringLower(SHA256.HashData(picture)) == part.Sha256
            ? picture
            : throw new InvalidDataException($"{file} is not as it was written. The file was changed, or cut short.");
    }

    private static ZipArchiveEntry Entry(ZipArchive zip, string file) =>
        zip.GetEntry(file)
        ?? throw new InvalidDataException($"The file has no {file}. It was changed, or cut short; nothing was laid.");

    /// <summary>The lines of a table, none of them held beyond the longest that a row can be.</summary>
    private static IEnumerable<string> LinesOf(StreamReader text, string file)
    {
        var (line, buffer) = (new StringBuilder(), new char[1 << 16]);
        for (int read; (read = text.Read(buffer, 0, buffer.Length)) > 0; )
        for (var rest = buffer.AsMemory(0, read); rest.Length > 0; )
        {
            var end = rest.Span.IndexOf('\n');
            line.Append(rest.Span[..(end < 0 ? rest.Length : end)]);
            if (line.Length > LongestLine)
                throw new InvalidDataException($"{file} holds a line that is too long to be a row.");
            if (end < 0)
                break;
            yield return line.ToString();
            line.Clear();
            rest = rest[(end + 1)..];
        }
        if (line.Length > 0)
            yield return line.ToString();
    }

    private static void Check(SqliteConnection connection, string file)
    {
        if (connection.Query("PRAGMA foreign_key_check", r => r.GetString(0)) is [var table, ..])
            throw new InvalidDataException($"{file}: rows of {table} are about something that is not in it. Nothing was laid.");
    }
}
