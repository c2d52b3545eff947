using System.Globalization;
using Microsoft.Data.Sqlite;

namespace Pyrometron.Storage.Backups;

/// <summary>What laying a backup back would change.</summary>
/// <param name="Now">What stands in the database; null where there is none, or it cannot be read.</param>
/// <param name="Then">What would stand in it.</param>
/// <param name="OtherHouse">Whether the backup is of another house.</param>
public sealed record RestorePreview(Backup Backup, DatabaseContents? Now, DatabaseContents Then, bool OtherHouse);

/// <summary>
/// Lays a backup back. The database that stands there is copied aside first, and the backup takes its place in one step: whatever
/// ends the program meanwhile, one of the two is there.
/// </summary>
/// <param name="database">The file of the database.</param>
public sealed class Restore(string database, BackupFolder folder)
{
    private string Laid => database + ".restored" + DataFolder.Unfinished;

    private string Asked => database + ".restore-next";

    /// <summary>What it would change; nothing is changed by asking.</summary>
    /// <exception cref="InvalidDataException">
    /// There is no such backup, it is damaged, its passphrase is another one, or it is of a newer version.
    /// </exception>
    public RestorePreview Preview(string name, string? passphrase)
    {
        var backup = Find(name);
        // Of its own: somebody else may look at a backup at the same time.
        var trial = $"{database}.{Guid.NewGuid():N}{DataFolder.Unfinished}";
        try
        {
            var then = folder.Unpack(backup, trial, passphrase);
            CheckVersion(backup, then);
            var now = Present();
            return new RestorePreview(backup, now, then, now is not null && now.House != then.House);
        }
        finally
        {
            File.Delete(trial);
        }
    }

    /// <summary>Lays a backup back. The server must not be at work on the folder.</summary>
    /// <param name="fromOtherHouse">Whether one of another house may be laid back.</param>
    /// <returns>The copy of the database as it was; null where there was none.</returns>
    /// <exception cref="InvalidDataException">As of the preview, or it is of another house.</exception>
    public string? Run(string name, string? passphrase, bool fromOtherHouse, DateTimeOffset now)
    {
        var backup = Find(name);
        try
        {
            var then = folder.Unpack(backup, Laid, passphrase);
            CheckVersion(backup, then);
            if (!fromOtherHouse && Present() is { } present && present.House != then.House)
                throw new InvalidDataException(
                    $"{name} is of another house. Lay it into an empty folder, or say that another house's is wanted."
                );
            var aside = CopyAside(now);
            foreach (var log in (string[])["-wal", "-shm"])
                File.Delete(database + log);
            File.Move(Laid, database, overwrite: true);
            return aside;
        }
        finally
        {
            File.Delete(Laid);
        }
    }

    /// <summary>Asks for a backup to be laid back when the server starts next.</summary>
    public void AskFor(string name) => File.WriteAllText(Asked, name);

    /// <summary>What is asked for; null for nothing.</summary>
    public string? AskedFor => File.Exists(Asked) ? File.ReadAllText(Asked).Trim() : null;

    /// <summary>Takes back what was asked for.</summary>
    public void TakeBack() => File.Delete(Asked);

    /// <summary>Lays back what was asked for, the database not being open yet. What goes wrong is told.</summary>
    public void RunAskedFor(string? passphrase, DateTimeOffset now, Action<string> tell)
    {
        if (AskedFor is not { } name)
            return;
        File.Delete(Asked);
        try
        {
            var aside = Run(name, passphrase, fromOtherHouse: false, now);
            tell($"{name} was laid back; the database as it was lies in {aside ?? "no copy: there was none"}.");
        }
        catch (InvalidDataException error)
        {
            tell($"{name} was not laid back, and nothing was changed: {error.Message}");
        }
    }

    private Backup Find(string name) =>
        folder.Find(name) ?? throw new InvalidDataException($"There is no backup '{name}' in {folder.Path}.");

    private static void CheckVersion(Backup backup, DatabaseContents then)
    {
        var newest = SchemaMigration.All[^1].Number;
        if (then.Schema > newest)
            throw new InvalidDataException(
                $"{backup.Name} was made by a newer Pyrometron (schema {then.Schema}, this one knows {newest}). Start the newer program."
            );
    }

    private DatabaseContents? Present()
    {
        if (!File.Exists(database))
            return null;
        try
        {
            using var connection = new SqliteConnection($"Data Source={database};Pooling=False");
            connection.Open();
            return DatabaseContents.Of(connection);
        }
        catch (SqliteException)
        {
            // Damaged: that may be why a backup is wanted.
            return null;
        }
    }

    private string? CopyAside(DateTimeOffset now)
    {
        if (!File.Exists(database))
            return null;
        try
        {
            // What stands in the log goes into the file, as far as it can be read.
            using var connection = new SqliteConnection($"Data Source={database};Pooling=False");
            connection.Open();
            connection.Execute("PRAGMA wal_checkpoint(TRUNCATE)");
        }
        catch (SqliteException)
        {
            // Damaged: file and log are copied as they are.
        }
        var stamp = now.UtcDateTime.ToString("yyyyMMdd-HHmmss", CultureInfo.InvariantCulture);
        var aside = $"{database}.before-restore.{stamp}";
        File.Copy(database, aside, overwrite: true);
        if (new FileInfo(database + "-wal") is { Exists: true, Length: > 0 })
            File.Copy(database + "-wal", aside + "-wal", overwrite: true);
        return aside;
    }
}
