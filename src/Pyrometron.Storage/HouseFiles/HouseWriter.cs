using System.Globalization;
using System.IO.Compression;
using System.Security.Cryptography;
using System.Text.Encodings.Web;
using System.Text.Json;
using Microsoft.Data.Sqlite;
using Pyrometron.Storage.Records;

namespace Pyrometron.Storage.HouseFiles;

/// <summary>
/// Writes all that a house knows into one ZIP file of open formats: each table as JSON lines, pictures as JPEG. What lets
/// somebody in stays out. Dispose it when done; <see cref="Finish"/> makes the file whole.
/// </summary>
public sealed class HouseWriter : IDisposable
{
    private readonly ZipArchive _zip;
    private readonly List<HousePart> _parts = [];
    private int _schema;

    /// <param name="stream">Is written from its beginning to its end, and left open.</param>
    public HouseWriter(Stream stream) => _zip = new ZipArchive(stream, ZipArchiveMode.Create, leaveOpen: true);

    /// <summary>Adds a file that is no table.</summary>
    public void Add(string file, Action<Stream> write)
    {
        Part(
            file,
            stream =>
            {
                write(stream);
                return null;
            }
        );
    }

    /// <summary>Adds all tables, as they stand at one moment.</summary>
    /// <param name="tell">Told in words how far it is.</param>
    public void AddTables(Database database, Action<string> tell, CancellationToken cancellation) =>
        database.Read(connection =>
        {
            AddTables(connection, tell, cancellation);
            return 0;
        });

    internal void AddTables(SqliteConnection connection, Action<string> tell, CancellationToken cancellation)
    {
        _schema = Convert.ToInt32(connection.Scalar("PRAGMA user_version"), CultureInfo.InvariantCulture);
        foreach (var table in HouseTable.All(connection))
        {
            var rows = Part(table.File, stream => WriteRows(connection, table, stream, cancellation));
            foreach (var column in table.Pictures)
                WritePictures(connection, table, column, cancellation);
            tell($"{table.Name}: {rows} rows");
        }
    }

    /// <summary>Writes what the file holds: with it it is whole.</summary>
    /// <param name="now">When it was made.</param>
    public HouseManifest Finish(DateTimeOffset now)
    {
        var manifest = new HouseManifest(HouseManifest.CurrentFormat, _schema, now, _parts);
        using var stream = _zip.CreateEntry(HouseManifest.File).Open();
        JsonSerializer.Serialize(stream, manifest, StoredJson.Options);
        return manifest;
    }

    /// <inheritdoc/>
    public void Dispose() => _zip.Dispose();

    private long? Part(string file, Func<Stream, long?> write)
    {
        using var hash = SHA256.Create();
        long? rows;
        using (var entry = _zip.CreateEntry(file, CompressionLevel.Fastest).Open())
        using (var hashed = new CryptoStream(entry, hash, CryptoStreamMode.Write))
            rows = write(hashed);
        _parts.Add(new HousePart(file, rows, Convert.ToHexStringLower(hash.Hash!)));
        return rows;
    }

    private static long? WriteRows(SqliteConnection connection, HouseTable table, Stream stream, CancellationToken cancellation)
    {
        using var command = connection.Command($"SELECT {table.Listed} FROM \"{table.Name}\"");
        using var reader = command.ExecuteReader();
        using var json = new Utf8JsonWriter(
            stream,
            new JsonWriterOptions { Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping }
        );
        var rows = 0L;
        for (; reader.Read(); rows++)
        {
            cancellation.ThrowIfCancellationRequested();
            json.WriteStartObject();
            for (var c = 0; c < table.Columns.Count; c++)
                WriteCell(json, table, reader, c);
            json.WriteEndObject();
            json.Flush();
            stream.WriteByte((byte)'\n');
            json.Reset();
        }
        return rows;
    }

    private static void WriteCell(Utf8JsonWriter json, HouseTable table, SqliteDataReader reader, int column)
    {
        var name = table.Columns[column];
        if (table.Pictures.Contains(name))
            json.WriteString(name, table.PictureOf(name, KeyOf(reader)));
        else
            switch (reader.GetValue(column))
            {
                case long whole:
                    json.WriteNumber(name, whole);
                    break;
                case double number:
                    json.WriteNumber(name, number);
                    break;
                case string text:
                    json.WriteString(name, text);
                    break;
                default:
                    json.WriteNull(name);
                    break;
            }
    }

    private void WritePictures(SqliteConnection connection, HouseTable table, string column, CancellationToken cancellation)
    {
        using var command = connection.Command($"SELECT \"{table.Columns[0]}\", \"{column}\" FROM \"{table.Name}\"");
        using var reader = command.ExecuteReader();
        while (reader.Read())
        {
            cancellation.ThrowIfCancellationRequested();
            Add(
                table.PictureOf(column, KeyOf(reader)),
                stream =>
                {
                    using var bytes = reader.GetStream(1);
                    bytes.CopyTo(stream);
                }
            );
        }
    }

    /// <summary>Tables with pictures have their key first.</summary>
    private static string KeyOf(SqliteDataReader reader) => Convert.ToString(reader.GetValue(0), CultureInfo.InvariantCulture)!;
}
