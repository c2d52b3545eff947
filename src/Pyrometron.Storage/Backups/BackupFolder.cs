using System.Globalization;
using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.Data.Sqlite;
using Pyrometron.Storage.Records;

namespace Pyrometron.Storage.Backups;

/// <summary>A backup in its folder.</summary>
/// <param name="Name">Of its file.</param>
/// <param name="Manifest">Null where the file beside it that tells of it is missing or cannot be read.</param>
/// <param name="Damage">Why it cannot be laid back, as far as its size and manifest tell; null for nothing.</param>
public sealed record Backup(string Name, BackupManifest? Manifest, string? Damage);

/// <summary>
/// A folder with backups: each a whole database (or one that is sealed), with a manifest beside it. Anybody may lay one back by
/// hand: it is an ordinary SQLite file.
/// </summary>
/// <param name="path">Made where it is not there.</param>
public sealed class BackupFolder(string path)
{
    private const string Prefix = "pyrometron-",
        Plain = ".db",
        Sealed = ".db.sealed",
        ManifestEnd = ".json";

    /// <summary>Where it is.</summary>
    public string Path { get; } = System.IO.Path.GetFullPath(path);

    /// <summary>
    /// Copies a database that may be at work meanwhile (SQLite's online backup), checks the copy, and lays it into the folder.
    /// </summary>
    /// <param name="database">Its file.</param>
    /// <param name="passphrase">Seals the copy; null for a plain one.</param>
    /// <exception cref="InvalidDataException">There is no room, or the copy is not whole.</exception>
    public Backup Make(string database, string? passphrase, DateTimeOffset now, CancellationToken cancellation)
    {
        Directory.CreateDirectory(Path);
        foreach (var left in Directory.EnumerateFiles(Path, "*" + DataFolder.Unfinished))
            File.Delete(left);
        CheckRoom(database);
        var stamp = now.UtcDateTime.ToString("yyyyMMdd-HHmmss", CultureInfo.InvariantCulture);
        var copy = System.IO.Path.Combine(Path, $"{Prefix}{stamp}{Plain}{DataFolder.Unfinished}");
        try
        {
            CopyOnline(database, copy);
            cancellation.ThrowIfCancellationRequested();
            var contents = LookThrough(copy);
            var name = $"{Prefix}{stamp}{(passphrase is null ? Plain : Sealed)}";
            if (passphrase is not null)
                copy = SealAndCheck(copy, passphrase, cancellation);
            Flush(copy);
            var manifest = new BackupManifest(
                BackupManifest.CurrentFormat,
                name,
                now,
                new FileInfo(copy).Length,
                HashOf(copy),
                passphrase is not null,
                now,
                contents
            );
            var (file, beside) = (System.IO.Path.Combine(Path, name), System.IO.Path.Combine(Path, name + ManifestEnd));
            // The manifest last: a file without one was not finished.
            File.Move(copy, file, overwrite: true);
            File.WriteAllText(beside + DataFolder.Unfinished, StoredJson.Write(manifest));
            Flush(beside + DataFolder.Unfinished);
            File.Move(beside + DataFolder.Unfinished, beside, overwrite: true);
            return new Backup(name, manifest, null);
        }
        catch (Exception error)
            when (error is IOException full && DataFolder.IsFull(full) || StorageFailure.Of(error) is not null)
        {
            throw new InvalidDataException(
                $"The backup was not made: {StorageFailure.Of(error)?.ToString() ?? error.Message}",
                error
            );
        }
        finally
        {
            foreach (var left in Directory.EnumerateFiles(Path, "*" + DataFolder.Unfinished + "*"))
                File.Delete(left);
        }
    }

    /// <summary>All backups, the newest first.</summary>
    public IReadOnlyList<Backup> All() =>
        !Directory.Exists(Path)
            ? []
            :
            [
                .. Directory
                    .EnumerateFiles(Path, Prefix + "*")
                    .Select(f => System.IO.Path.GetFileName(f))
                    .Where(IsName)
                    .OrderDescending(StringComparer.Ordinal)
                    .Select(Look),
            ];

    /// <summary>One of them; null where there is none of that name.</summary>
    public Backup? Find(string name) => IsName(name) && File.Exists(System.IO.Path.Combine(Path, name)) ? Look(name) : null;

    /// <summary>
    /// Unpacks a backup and looks through all of it: its checksum, its seal, the structure of the database in it.
    /// </summary>
    /// <param name="to">The database's file; made anew.</param>
    /// <returns>What it holds.</returns>
    /// <exception cref="InvalidDataException">It is damaged, cut short, or the passphrase is another one.</exception>
    public DatabaseContents Unpack(Backup backup, string to, string? passphrase)
    {
        if (backup.Manifest is not { } manifest || backup.Damage is not null)
            throw new InvalidDataException($"{backup.Name}: {backup.Damage ?? "what it is cannot be told."}");
        var file = System.IO.Path.Combine(Path, backup.Name);
        if (HashOf(file) != manifest.Sha256)
            throw new InvalidDataException($"{backup.Name} is damaged: its checksum is another one. Take an older backup.");
        if (manifest.Encrypted)
        {
            using var from = File.OpenRead(file);
            using var plain = File.Create(to);
            SealedFile.Open(
                from,
                plain,
                passphrase ?? throw new InvalidDataException($"{backup.Name} is sealed: its passphrase is needed.")
            );
        }
        else
            File.Copy(file, to, overwrite: true);
        Flush(to);
        return LookThrough(to);
    }

    /// <summary>Deletes what is not kept: <see cref="Retention"/> says which.</summary>
    /// <returns>Names of what was deleted.</returns>
    public IReadOnlyList<string> Prune(Retention retention)
    {
        var whole = All().Where(b => b.Manifest is not null).ToList();
        var kept = retention.Kept(whole.Select(b => b.Manifest!.MadeAt)).ToHashSet();
        var gone = whole.Where(b => !kept.Contains(b.Manifest!.MadeAt)).Select(b => b.Name).ToList();
        foreach (var name in gone)
        {
            // The manifest first: what is left of a half deleted one is no backup.
            File.Delete(System.IO.Path.Combine(Path, name + ManifestEnd));
            File.Delete(System.IO.Path.Combine(Path, name));
        }
        return gone;
    }

    private Backup Look(string name)
    {
        var file = System.IO.Path.Combine(Path, name);
        BackupManifest? manifest = null;
        try
        {
            manifest = StoredJson.Read<BackupManifest>(File.ReadAllText(file + ManifestEnd));
        }
        catch (Exception error)
            when (error is IOException or JsonException or InvalidDataException or UnauthorizedAccessException)
        {
            return new Backup(name, null, "The file beside it that tells what it is cannot be read: it was not finished.");
        }
        var length = new FileInfo(file).Length;
        return new Backup(
            name,
            manifest,
            manifest.Format != BackupManifest.CurrentFormat
                    ? $"Its form is '{manifest.Format}', which this version does not know."
                : length != manifest.Bytes ? $"It has {length} bytes and should have {manifest.Bytes}: it was cut short."
                : null
        );
    }

    /// <summary>Names of backups alone: nothing else in a folder is touched, whatever somebody asks for.</summary>
    private static bool IsName(string name) =>
        name.StartsWith(Prefix, StringComparison.Ordinal)
        && (name.EndsWith(Plain, StringComparison.Ordinal) || name.EndsWith(Sealed, StringComparison.Ordinal))
        && name.All(c => char.IsAsciiLetterOrDigit(c) || c is '-' or '.');

    private void CheckRoom(string database)
    {
        var size = new FileInfo(database).Length;
        var free = new DriveInfo(Path).AvailableFreeSpace;
        if (free < 2 * size)
            throw new InvalidDataException(
                $"A backup into {Path} needs {2 * size / 1024 / 1024} MB free, and {free / 1024 / 1024} MB are. Make room, or name another folder."
            );
    }

    private static void CopyOnline(string database, string copy)
    {
        using var from = Connect(database, SqliteOpenMode.ReadOnly);
        using var to = Connect(copy, SqliteOpenMode.ReadWriteCreate);
        from.BackupDatabase(to);
        // One file that is the database by itself, not one that leans on a log beside it.
        to.Execute("PRAGMA journal_mode = DELETE");
    }

    /// <summary>Opens a copy and looks through it.</summary>
    private static DatabaseContents LookThrough(string copy)
    {
        using var connection = Connect(copy, SqliteOpenMode.ReadWrite);
        try
        {
            connection.Execute("PRAGMA journal_mode = DELETE");
            DatabaseCheck.Run(connection, copy, _ => { });
            return DatabaseContents.Of(connection);
        }
        catch (SqliteException error)
        {
            throw new InvalidDataException($"{copy} is no whole database: {error.Message}", error);
        }
    }

    private static string SealAndCheck(string copy, string passphrase, CancellationToken cancellation)
    {
        var sealedCopy = copy + ".sealed";
        using (var plain = File.OpenRead(copy))
        using (var to = File.Create(sealedCopy))
            SealedFile.Seal(plain, to, passphrase, cancellation);
        // What was sealed is opened once, before the plain copy is given up.
        using (var from = File.OpenRead(sealedCopy))
            SealedFile.Open(from, Stream.Null, passphrase);
        File.Delete(copy);
        return sealedCopy;
    }

    private static SqliteConnection Connect(string file, SqliteOpenMode mode)
    {
        var connection = new SqliteConnection(
            new SqliteConnectionStringBuilder
            {
                DataSource = file,
                Mode = mode,
                Pooling = false,
                DefaultTimeout = 30,
            }.ToString()
        );
        connection.Open();
        return connection;
    }

    private static string HashOf(string file)
    {
        using var stream = File.OpenRead(file);
        return Convert.ToHexStringLower(SHA256.HashData(stream));
    }

    private static void Flush(string file)
    {
        using var stream = new FileStream(file, FileMode.Open, FileAccess.Write);
        stream.Flush(flushToDisk: true);
    }
}
