using System.IO.Compression;
using System.Text;
using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;
using Pyrometron.Storage.HouseFiles;

namespace Pyrometron.Storage.Tests;

/// <summary>A house taken along in a file, and laid into an empty one.</summary>
public sealed class HouseFileTests : IDisposable
{
    private static readonly DateTimeOffset Now = new(2026, 11, 30, 9, 0, 0, TimeSpan.Zero);

    private readonly TemporaryDatabase _house = new();

    private string File => Path.Combine(_house.Folder, "house.zip");

    private string Elsewhere => Path.Combine(_house.Folder, "elsewhere.db");

    public void Dispose() => _house.Dispose();

    private void Execute(string sql)
    {
        using var connection = _house.Database.Connect();
        connection.Execute(sql);
    }

    /// <summary>A house with numbers of every size, any script, bytes, and what lets people in.</summary>
    private void LayHouse()
    {
        _house.Write(t => t.Log(new Change("notes", "A line") { Before = "{\"a\":1}", After = "größer, 温度, \"quoted\"\n" }));
        Execute(
            """
            INSERT INTO label (text) VALUES ('undervolted, -50 mV');
            INSERT INTO reading (asset_id, at_ms, ambient_c, power_w, fan_rpm, p0_c, settings, fans_rpm)
                SELECT id, 1764500000000, 0.1 + 0.2, 1e300, 5, -1.5e-7, 1, '1780;1750' FROM asset WHERE tag = 'GC-1';
            INSERT INTO job (id, asset_id, level, state, started_at, version)
                SELECT 7, id, 'dust-out', 'open', '2026-11-29T08:00:00.000Z', 1 FROM asset WHERE tag = 'GC-1';
            INSERT INTO photo (key, job_id, width, height, picture, small)
                VALUES ('0f0f', 7, 4, 3, x'FFD8FF0000FFD9', x'FFD8FFD9');
            INSERT INTO account (id, code, name, alike, role, sites, machines, password, totp, totp_step, made_at)
                VALUES (3, 'mira', 'Mira Larkspur', 'MIRA LARKSPUR', 'administrator', '', '[]', 'HASH-OF-PASSWORD', 'TOTPSECRET',
                    99, '2026-01-01T00:00:00.000Z');
            INSERT INTO recovery_code (account_id, hash) VALUES (3, 'HASH-OF-RECOVERY');
            INSERT INTO session (hash, account_id, device, address, begun_at, seen_at, until)
                VALUES ('HASH-OF-SESSION', 3, 'phone', '10.0.0.7', '2026-01-01', '2026-01-01', '2027-01-01');
            INSERT INTO api_key (name, scope, begins, hash, made_at)
                VALUES ('probe', 'readings', 'pyro', 'HASH-OF-KEY', '2026-01-01');
            """
        );
    }

    private HouseManifest Export()
    {
        using var stream = System.IO.File.Create(File);
        using var writer = new HouseWriter(stream);
        writer.AddTables(_house.Database, _ => { }, CancellationToken.None);
        return writer.Finish(Now);
    }

    private HouseManifest Lay() => HouseReader.Lay(File, Elsewhere, _ => { }, CancellationToken.None);

    /// <summary>All rows of a table, each value with its type.</summary>
    private static List<string> Rows(SqliteConnection connection, string table, IReadOnlyList<string> columns) =>
        connection.Query(
            $"SELECT {string.Join(", ", columns.Select(c => $"quote(\"{c}\") || typeof(\"{c}\")"))} FROM \"{table}\"",
            r => string.Join('|', Enumerable.Range(0, r.FieldCount).Select(r.GetString))
        );

    [Fact]
    public void Laid_into_an_empty_house_every_row_is_the_same()
    {
        LayHouse();
        var manifest = Export();
        Assert.Equal(manifest.Parts.Count, Lay().Parts.Count);
        using var there = Database.Open(Elsewhere);
        using var here = _house.Database.Connect();
        using var elsewhere = there.Connect();
        var tables = HouseTable.All(here);
        Assert.True(tables.Count > 40);
        foreach (var table in tables)
            Assert.Equal(Rows(here, table.Name, table.Columns), Rows(elsewhere, table.Name, table.Columns));
        Assert.Null(new AuditStore(there).Follow(CancellationToken.None).FirstBroken);
        Assert.Equal("ok", elsewhere.Scalar("PRAGMA integrity_check"));
    }

    [Fact]
    public void What_lets_somebody_in_stays_here()
    {
        LayHouse();
        Export();
        using (var zip = ZipFile.OpenRead(File))
            foreach (var entry in zip.Entries)
            {
                using var reader = new StreamReader(entry.Open());
                var text = reader.ReadToEnd();
                Assert.DoesNotContain("HASH-OF", text, StringComparison.Ordinal);
                Assert.DoesNotContain("TOTPSECRET", text, StringComparison.Ordinal);
            }
        Lay();
        using var there = Database.Open(Elsewhere);
        var accounts = new AccountStore(there);
        Assert.Equal("mira", Assert.Single(accounts.All()).Code);
        Assert.Equal((null, null), (accounts.Secrets(3).Password, accounts.Secrets(3).Totp));
    }

    /// <summary>The photo is an ordinary file in it, and a line of a table is JSON of its own (RFC 8259).</summary>
    [Fact]
    public void Anybody_can_read_it()
    {
        LayHouse();
        Export();
        using var zip = ZipFile.OpenRead(File);
        using var picture = new MemoryStream();
        using (var stream = zip.GetEntry("photos/0f0f.jpg")!.Open())
            stream.CopyTo(picture);
        Assert.Equal((byte[])[0xFF, 0xD8, 0xFF, 0, 0, 0xFF, 0xD9], picture.ToArray());
        using var lines = new StreamReader(zip.GetEntry("tables/reading.jsonl")!.Open());
        var reading = JsonNode.Parse(lines.ReadLine()!)!;
        // 0.1 + 0.2 in binary64, as Python's repr and ECMAScript write it.
        Assert.Equal("0.30000000000000004", reading["ambient_c"]!.ToJsonString());
        Assert.Null(reading["outlet_c"]);
        Assert.Equal("1780;1750", (string?)reading["fans_rpm"]);
    }

    /// <summary>
    /// As it was when there were no addresses in the change log: its tables are laid as they were, then brought up to date.
    /// </summary>
    [Fact]
    public void One_of_an_earlier_version_is_brought_up_to_date()
    {
        using (var old = new SqliteConnection($"Data Source={_house.Folder}/old.db;Pooling=False"))
        {
            old.Open();
            SchemaMigration.MakeAt(old, 23);
            old.Execute("INSERT INTO site (code, name, altitude_m) VALUES ('COVE', 'Cove', 3)");
            using var stream = System.IO.File.Create(File);
            using var writer = new HouseWriter(stream);
            writer.AddTables(old, _ => { }, CancellationToken.None);
            Assert.Equal(23, writer.Finish(Now).Schema);
        }
        Lay();
        using var there = Database.Open(Elsewhere);
        Assert.Equal("COVE", Assert.Single(new FleetStore(there).Sites()).Code);
        there.Write(Pyrometron.Core.Access.Actor.Program, Now, t => t.Log(new Change("notes", "New")));
        Assert.Null(new AuditStore(there).Follow(CancellationToken.None).FirstBroken);
    }

    /// <summary>Rewrites a file of the house file; null takes it out.</summary>
    private void Tamper(string file, Func<string, string?> change)
    {
        using var zip = ZipFile.Open(File, ZipArchiveMode.Update);
        var entry = zip.GetEntry(file)!;
        string text;
        using (var reader = new StreamReader(entry.Open(), Encoding.Latin1))
            text = reader.ReadToEnd();
        entry.Delete();
        if (change(text) is not { } other)
            return;
        using var writer = new StreamWriter(zip.CreateEntry(file).Open(), Encoding.Latin1);
        writer.Write(other);
    }

    private void Refused(string why)
    {
        var error = Assert.Throws<InvalidDataException>(Lay);
        Assert.Contains(why, error.Message, StringComparison.Ordinal);
        Assert.Empty(Directory.GetFiles(_house.Folder, "elsewhere*"));
    }

    [Theory]
    [InlineData("tables/site.jsonl", "Site", "Sits", "is not as it was written")]
    [InlineData("tables/site.jsonl", "{", "[", "holds a line that is no JSON")]
    [InlineData("tables/asset.jsonl", "\"zone_id\":1", "\"zone_id\":{}", "is neither text nor number")]
    [InlineData("tables/asset.jsonl", "\"duty_hours\":24", "\"duty_hours\":\"long\"", "holds what no house has")]
    [InlineData("photos/0f0f.jpg", "\u00D8", "\u00D9", "is not as it was written")]
    [InlineData("manifest.json", "pyrometron-house/1", "pyrometron-house/9", "says to be 'pyrometron-house/9'")]
    [InlineData("manifest.json", "\"schema\":", "\"schema\":99", "was made by a newer Pyrometron")]
    [InlineData("manifest.json", "tables/site.jsonl", "tables/sight.jsonl", "has no tables/site.jsonl")]
    public void One_that_was_changed_is_not_laid(string file, string what, string by, string why)
    {
        LayHouse();
        Export();
        Tamper(
            file,
            text =>
            {
                Assert.Contains(what, text, StringComparison.Ordinal);
                return text.Replace(what, by, StringComparison.Ordinal);
            }
        );
        Refused(why);
    }

    [Theory]
    [InlineData("manifest.json", "it has no manifest.json")]
    [InlineData("tables/site.jsonl", "has no tables/site.jsonl")]
    [InlineData("photos/0f0f-small.jpg", "has no photos/0f0f-small.jpg")]
    public void One_that_lacks_a_file_is_not_laid(string file, string why)
    {
        LayHouse();
        Export();
        Tamper(file, _ => null);
        Refused(why);
    }

    [Fact]
    public void Rows_about_something_that_is_not_there_are_not_laid()
    {
        LayHouse();
        Execute("PRAGMA foreign_keys = OFF; DELETE FROM site");
        Export();
        Refused("are about something that is not in it");
    }

    [Fact]
    public void One_that_was_cut_short_or_is_no_house_file_is_not_laid()
    {
        LayHouse();
        Export();
        var whole = System.IO.File.ReadAllBytes(File);
        System.IO.File.WriteAllBytes(File, whole[..(whole.Length / 2)]);
        Refused("");
        System.IO.File.WriteAllText(File, "no ZIP at all");
        Refused("");
    }

    [Fact]
    public void Where_a_house_is_nothing_is_laid()
    {
        Export();
        var before = System.IO.File.ReadAllBytes(_house.Path);
        var error = Assert.Throws<InvalidDataException>(() =>
            HouseReader.Lay(File, _house.Path, _ => { }, CancellationToken.None)
        );
        Assert.Contains("goes into an empty folder", error.Message, StringComparison.Ordinal);
        Assert.Equal(before, System.IO.File.ReadAllBytes(_house.Path));
    }

    [Fact]
    public void Broken_off_it_leaves_nothing()
    {
        Export();
        using var stop = new CancellationTokenSource();
        Assert.Throws<OperationCanceledException>(() => HouseReader.Lay(File, Elsewhere, _ => stop.Cancel(), stop.Token));
        Assert.Empty(Directory.GetFiles(_house.Folder, "elsewhere*"));
    }
}
