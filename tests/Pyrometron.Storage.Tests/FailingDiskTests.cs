using System.Globalization;
using System.Text;
using Microsoft.Data.Sqlite;
using Pyrometron.Application;
using Pyrometron.Application.Imports;
using Pyrometron.Core.Readings;

namespace Pyrometron.Storage.Tests;

/// <summary>
/// Disks that are full, folders that may not be used, files that are damaged: one line that says what to do, nothing half done.
/// </summary>
public sealed class FailingDiskTests : IDisposable
{
    private readonly DirectoryInfo _folder = Directory.CreateTempSubdirectory("pyrometron-");

    public void Dispose() => _folder.Delete(recursive: true);

    private string Place(string name) => Path.Combine(_folder.FullName, name);

    private static (string, Reading)[] Batch(int from, int count) =>
        [.. Enumerable.Range(from, count).Select(i => ("GC-1", TemporaryDatabase.Reading(i, 60 + i % 9, 80)))];

    private static int Store(Database database, (string, Reading)[] batch) =>
        database.Write(
            TemporaryDatabase.Actor,
            DateTimeOffset.UtcNow,
            t =>
            {
                var stored = 0;
                ReadingStore.Add(t, batch, FleetStore.All(t).ToDictionary(a => a.Asset.Tag), (_, _) => stored++);
                return stored;
            }
        );

    /// <summary>The library rolls back by itself then; what that makes of our own roll-back must not hide why.</summary>
    [Fact]
    public void On_a_full_disk_what_was_stored_stays_and_the_reason_is_told()
    {
        var path = Place("pyrometron.db");
        using var database = Database.Open(path, null, null, mostPages: 400);
        database.Write(
            TemporaryDatabase.Actor,
            DateTimeOffset.UtcNow,
            t =>
            {
                FleetStore.Import(t, TemporaryDatabase.Register());
            }
        );
        var kept = 0;
        void FillUp()
        {
            while (kept < 1_000_000)
            {
                Assert.Equal(500, Store(database, Batch(kept, 500)));
                kept += 500;
            }
        }
        var full = Assert.Throws<SqliteException>(FillUp);
        Assert.Equal("The disk is full. Make room, and send it again.", StorageFailure.Of(full));
        Assert.True(kept >= 500);
        Assert.Equal(kept, new ReadingStore(database).Count());
        // It is still a database, and what is known already is known.
        Assert.Equal(500, Store(database, Batch(0, 500)));
        Assert.Equal(kept, new ReadingStore(database).Count());
    }

    /// <summary>A file that the disk has no room for: what was stored is told, and sent again it counts once.</summary>
    [Fact]
    public async Task An_import_that_a_full_disk_breaks_off_says_how_many_lines_are_kept()
    {
        using var database = Database.Open(Place("pyrometron.db"), null, null, mostPages: 400);
        database.Write(
            TemporaryDatabase.Actor,
            DateTimeOffset.UtcNow,
            t =>
            {
                FleetStore.Import(t, TemporaryDatabase.Register());
            }
        );
        var csv = new StringBuilder("time,asset,core_c\n");
        for (var minute = 0; minute < 60_000; minute++)
            csv.Append(
                CultureInfo.InvariantCulture,
                $"{DateTime.UnixEpoch.AddDays(20_000).AddMinutes(minute):yyyy-MM-ddTHH:mm}Z,GC-1,{60 + minute % 9}\n"
            );
        var import = new ReadingsImport(database, TemporaryDatabase.Actor, DateTimeOffset.UtcNow, 100);
        var broken = await Assert.ThrowsAsync<ImportBrokenOffException>(() =>
            import.RunAsync(new MemoryStream(Encoding.UTF8.GetBytes(csv.ToString())), (_, _) => { }, default)
        );
        Assert.InRange(broken.Kept, 10_000, 50_000);
        Assert.Equal(broken.Kept, new ReadingStore(database).Count());
    }

    [Fact]
    public void A_folder_is_one_servers_at_a_time()
    {
        using (DataFolder.Take(Place("data")))
            Assert.Contains(
                "Another Pyrometron is at work",
                Assert.Throws<InvalidDataException>(() => DataFolder.Take(Place("data"))).Message,
                StringComparison.Ordinal
            );
        using var again = DataFolder.Take(Place("data"));
    }

    [Fact]
    public void What_an_earlier_server_left_half_done_is_cleared_away()
    {
        using (var folder = DataFolder.Take(Place("data")))
        {
            File.WriteAllText(Path.Combine(folder.Uploads, "half-a-file"), "x");
            File.WriteAllText(Path.Combine(folder.Path, "pyrometron.db.schema-6.20260101-000000.unfinished"), "x");
            File.WriteAllText(Path.Combine(folder.Path, "pyrometron.db.schema-5.20250101-000000"), "whole");
        }
        using var again = DataFolder.Take(Place("data"));
        Assert.Empty(Directory.GetFiles(again.Uploads));
        Assert.Equal(
            ["in-use", "pyrometron.db.schema-5.20250101-000000"],
            Directory.GetFiles(again.Path).Select(f => Path.GetFileName(f)).Order()
        );
    }

    [Fact]
    public void A_file_for_a_folder_and_a_folder_for_a_file_are_told_apart()
    {
        File.WriteAllText(Place("data"), "");
        Assert.Contains(
            "is a file",
            Assert.Throws<InvalidDataException>(() => DataFolder.Take(Place("data"))).Message,
            StringComparison.Ordinal
        );
        Directory.CreateDirectory(Place("pyrometron.db"));
        Assert.Contains(
            "is a folder",
            Assert.Throws<InvalidDataException>(() => Database.Open(Place("pyrometron.db"))).Message,
            StringComparison.Ordinal
        );
    }

    /// <summary>A page in the middle of a table overwritten: whoever opens it hears of it before anything else happens.</summary>
    [Fact]
    public void Damage_of_the_structure_is_found_when_the_database_is_opened()
    {
        var path = Place("pyrometron.db");
        using (var database = Database.Open(path))
        {
            database.Write(
                TemporaryDatabase.Actor,
                DateTimeOffset.UtcNow,
                t =>
                {
                    FleetStore.Import(t, TemporaryDatabase.Register());
                }
            );
            Store(database, Batch(0, 20_000));
        }
        using (var file = new FileStream(path, FileMode.Open))
        {
            // The middle of the file is readings.
            file.Position = file.Length / 2 / 4096 * 4096;
            file.Write(Enumerable.Repeat((byte)0xA5, 4096).ToArray());
        }
        var told = Assert.Throws<InvalidDataException>(() => Database.Open(path)).Message;
        Assert.Contains("is damaged", told, StringComparison.Ordinal);
        Assert.Contains("Lay back a copy", told, StringComparison.Ordinal);
        Assert.DoesNotContain('\n', told);
    }

    [Fact]
    public void A_migration_says_what_it_does_and_leaves_one_whole_copy()
    {
        var path = Place("old.db");
        using (var connection = new SqliteConnection($"Data Source={path};Pooling=False"))
        {
            connection.Open();
            using var command = connection.CreateCommand();
            command.CommandText = string.Concat(SchemaMigration.All.Take(3).Select(m => m.Sql)) + "; PRAGMA user_version = 3";
            command.ExecuteNonQuery();
        }
        var told = new List<string>();
        using (Database.Open(path, tell: told.Add)) { }
        Assert.Equal(
            SchemaMigration.All.Count - 3,
            told.Count(words => words.StartsWith("Bringing the database up", StringComparison.Ordinal))
        );
        Assert.Single(Directory.GetFiles(_folder.FullName, "old.db.schema-3.*"));
        Assert.Empty(Directory.GetFiles(_folder.FullName, "*" + DataFolder.Unfinished));
    }
}
