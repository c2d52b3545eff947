using Microsoft.Data.Sqlite;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;

namespace Pyrometron.Storage.Tests;

public class DatabaseTests
{
    [Fact]
    public void Migrations_are_numbered_from_one_without_a_gap() =>
        Assert.Equal(Enumerable.Range(1, SchemaMigration.All.Count), SchemaMigration.All.Select(m => m.Number));

    /// <summary>
    /// Jobs of the earlier schema become sums of entries; what was ticked, measured, struck out and filed is all there.
    /// </summary>
    [Fact]
    public void Jobs_of_an_earlier_schema_become_entries()
    {
        using var folder = new TemporaryDatabase(withFleet: false);
        var path = Path.Combine(folder.Folder, "old.db");
        using (var connection = new SqliteConnection($"Data Source={path};Pooling=False"))
        {
            connection.Open();
            using var command = connection.CreateCommand();
            command.CommandText =
                string.Concat(SchemaMigration.All.Take(4).Select(m => m.Sql))
                + """
                    ;
                    INSERT INTO site VALUES (1, 'S', 'Site', 10);
                    INSERT INTO zone VALUES (1, 1, 'Z', 'Zone', 'normal', 30);
                    INSERT INTO asset (id, tag, kind, model, zone_id, duty_hours, in_service_since) VALUES (1, 'OLD-1',
                        'server', 'Tern', 1, 24, '2020-01-01');
                    INSERT INTO job (id, asset_id, level, state, started_at, work_done_at, closed_at, note, verdict, version)
                    VALUES (7, 1, 'repaste', 'proven', '2026-01-01T08:00:00.000Z', '2026-01-01T10:00:00.000Z',
                        '2026-01-02T08:00:00.000Z', 'dry', '{}', 9);
                    INSERT INTO job_step VALUES (7, 'power-off', '2026-01-01T08:30:00.000Z'), (7, 'ground',
                        '2026-01-01T08:31:00.000Z');
                    INSERT INTO run (job_id, phase, measured_at, run, voided_at, voided_reason) VALUES
                        (7, 'before', '2026-01-01T08:10:00.000Z', '{"workload":"steady","minutes":20,"ambientCelsius":24,"fan":{"mode":"auto"},"settings":"stock","throttled":false,"parts":[{"part":"cpu","celsius":70,"resolutionKelvin":1}]}', '2026-01-01T08:20:00.000Z', 'measured again'),
                        (7, 'before', '2026-01-01T08:20:00.000Z', '{"workload":"steady","minutes":21,"ambientCelsius":24,"fan":{"mode":"auto"},"settings":"stock","throttled":false,"parts":[{"part":"cpu","celsius":70,"resolutionKelvin":1}]}', NULL, NULL),
                        (7, 'after', '2026-01-01T11:00:00.000Z', '{"workload":"steady","minutes":20,"ambientCelsius":24,"fan":{"mode":"auto"},"settings":"stock","throttled":false,"parts":[{"part":"cpu","celsius":70,"resolutionKelvin":1}]}', NULL, NULL);
                    PRAGMA user_version = 4;
                    """;
            command.ExecuteNonQuery();
        }
        using var database = Database.Open(path);
        var jobs = new JobStore(database);
        var job = jobs.Find(7)!;
        Assert.Equal((JobState.Proven, ServiceLevel.Repaste, 9), (job.State, job.StartedLevel, job.Version));
        var entries = database.Write(Actor.Program, DateTimeOffset.UtcNow, t => JobStore.Entries(t, 7));
        Assert.Equal(
            ["run-measured", "run-measured", "step-done", "step-done", "noted", "work-filed", "run-measured", "verdict-filed"],
            entries.Select(e => JobStore.KindOf(e.Entry))
        );
        Assert.Equal(21, Assert.IsType<RunMeasured>(entries[1].Entry).Run.Minutes);
        Assert.Equal(Enumerable.Range(2, 8), entries.Select(e => e.Version));
    }

    /// <summary>A file promised for years: the first schema, with data in it, opens today with everything kept.</summary>
    [Fact]
    public void A_database_of_the_first_schema_is_copied_aside_and_brought_up_to_date()
    {
        using var folder = new TemporaryDatabase(withFleet: false);
        var path = Path.Combine(folder.Folder, "old.db");
        using (var connection = new SqliteConnection($"Data Source={path};Pooling=False"))
        {
            connection.Open();
            using var command = connection.CreateCommand();
            command.CommandText =
                SchemaMigration.All[0].Sql
                + """
                    ;
                    INSERT INTO site VALUES (1, 'S', 'Site', 10);
                    INSERT INTO zone VALUES (1, 1, 'Z', 'Zone', 'normal', 30);
                    INSERT INTO asset VALUES (1, 'OLD-1', 'server', 'Tern', 1, NULL, 24, '2020-01-01', NULL);
                    INSERT INTO part VALUES (1, 0, 0, 'cpu', 92, 'paste');
                    INSERT INTO service VALUES (1, 1, '2021-05-01', 'repaste');
                    INSERT INTO label VALUES (1, 'full');
                    INSERT INTO reading (asset_id, at_ms, p0_c, workload) VALUES (1, 1775000000000, 66, 1);
                    PRAGMA user_version = 1;
                    """;
            command.ExecuteNonQuery();
        }
        using (var database = Database.Open(path))
        {
            var asset = Assert.Single(new FleetStore(database).All());
            Assert.Equal("OLD-1", asset.Asset.Tag);
            Assert.Single(asset.Asset.Services);
            Assert.Equal(66, new ReadingStore(database).Newest(asset, 5).Single().Reading.PartsC[0]);
            Assert.NotNull(database.CopyLaidAside);
            using var copy = new SqliteConnection($"Data Source={database.CopyLaidAside};Mode=ReadOnly;Pooling=False");
            copy.Open();
            using var command = copy.CreateCommand();
            command.CommandText = "SELECT (SELECT user_version FROM pragma_user_version) || ' ' || tag FROM asset";
            Assert.Equal("1 OLD-1", command.ExecuteScalar());
        }
        using (var again = Database.Open(path))
            Assert.Null(again.CopyLaidAside);
    }

    [Fact]
    public void A_newer_or_foreign_file_is_refused_in_words()
    {
        using var folder = new TemporaryDatabase(withFleet: false);
        var newer = Path.Combine(folder.Folder, "newer.db");
        using (var connection = new SqliteConnection($"Data Source={newer};Pooling=False"))
        {
            connection.Open();
            using var command = connection.CreateCommand();
            command.CommandText = "PRAGMA user_version = 999";
            command.ExecuteNonQuery();
        }
        Assert.Contains(
            "newer",
            Assert.Throws<InvalidDataException>(() => Database.Open(newer)).Message,
            StringComparison.Ordinal
        );
        var foreign = Path.Combine(folder.Folder, "foreign.db");
        File.WriteAllText(foreign, new string('x', 5000));
        Assert.Contains(
            "damaged",
            Assert.Throws<InvalidDataException>(() => Database.Open(foreign)).Message,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void A_use_case_that_fails_leaves_nothing_behind()
    {
        using var t = new TemporaryDatabase();
        var fate = Assert.Throws<InvalidOperationException>(() =>
            t.Write(w =>
            {
                AboutStore.MarkAsDemo(w);
                w.Log(new Change("change", "half of a use case"));
                throw new InvalidOperationException("the second half");
            })
        );
        Assert.Equal("the second half", fate.Message);
        Assert.Equal("own", new AboutStore(t.Database).Data);
        Assert.Empty(new ChangeStore(t.Database).After(0, 10));
        t.Write(AboutStore.MarkAsDemo);
        Assert.Equal("demo", new AboutStore(t.Database).Data);
    }

    [Fact]
    public void A_closed_database_is_one_file()
    {
        var t = new TemporaryDatabase();
        t.Send("GC-1", TemporaryDatabase.Reading(0, 60, 80));
        t.Database.Dispose();
        Assert.Equal([t.Path], Directory.GetFiles(t.Folder));
        t.Dispose();
    }
}
