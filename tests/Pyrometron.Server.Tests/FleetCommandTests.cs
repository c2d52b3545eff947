using System.IO.Compression;
using System.Text;
using System.Text.Json;
using Pyrometron.Server.Commands;
using Pyrometron.Storage;

namespace Pyrometron.Server.Tests;

/// <summary>The order of work, files and keys by commands, beside a server that is at work.</summary>
public sealed class FleetCommandTests : IDisposable
{
    private readonly Server _server = new();
    private readonly DirectoryInfo _folder = Directory.CreateTempSubdirectory("pyrometron-files-");

    public void Dispose()
    {
        _server.Dispose();
        _folder.Delete(recursive: true);
    }

    private (int Code, string Said) Run(params string[] arguments) => RunOn(_server.Folder, arguments);

    private static (int Code, string Said) RunOn(string data, params string[] arguments) =>
        RunPlain([.. arguments, "--data", data]);

    private static (int Code, string Said) RunPlain(params string[] arguments)
    {
        using var said = new StringWriter();
        return (CommandLine.Run(arguments, _ => 0, said, said), said.ToString());
    }

    private static JsonElement[] Lines(string said) =>
        [.. said.Split('\n', StringSplitOptions.RemoveEmptyEntries).Select(l => JsonDocument.Parse(l).RootElement)];

    private string FileOf(string name, string text, bool packed = false)
    {
        var path = Path.Combine(_folder.FullName, name);
        using var file = File.Create(path);
        using Stream to = packed ? new GZipStream(file, CompressionLevel.Fastest) : file;
        to.Write(Encoding.UTF8.GetBytes(text));
        return path;
    }

    private static string Fleet(params string[] tags) =>
        JsonSerializer.Serialize(
            new
            {
                format = "pyrometron-fleet/1",
                sites = new[]
                {
                    new
                    {
                        code = "COVE",
                        name = "Cove",
                        altitudeMetres = 5,
                        zones = new[]
                        {
                            new
                            {
                                code = "COVE-1",
                                name = "Room",
                                dust = "normal",
                                designAmbientCelsius = 30,
                            },
                        },
                    },
                },
                assets = tags.Select(tag => new
                {
                    tag,
                    kind = "desktop",
                    model = "Whelk",
                    zone = "COVE-1",
                    dutyHoursPerDay = 8,
                    inServiceSince = "2024-01-01",
                    parts = new[]
                    {
                        new
                        {
                            part = "processor",
                            limitCelsius = 95,
                            @interface = "paste",
                        },
                    },
                    services = Array.Empty<object>(),
                }),
            }
        );

    [Fact]
    public async Task The_queue_by_command_is_the_one_that_the_page_shows()
    {
        await _server.LoadSmallFleet();
        var (_, page) = await _server.Get("/api/v1/queue?limit=all&wait=60");
        var (code, said) = Run("queue", "--limit", "0", "--json");
        Assert.Equal(0, code);
        string[] What(IEnumerable<JsonElement> rows, string member) => [.. rows.Select(r => r.GetProperty(member).ToString())];
        var items = page.GetProperty("items").EnumerateArray().ToArray();
        foreach (var member in (string[])["rank", "asset", "urgency", "cause", "driftKelvin", "service", "reason"])
            Assert.Equal(What(items, member), What(Lines(said), member));
        var table = Run("queue", "--limit", "2").Said.Split('\n', StringSplitOptions.RemoveEmptyEntries);
        Assert.Equal(2, table.Length);
        Assert.Contains(items[0].GetProperty("asset").GetString()!, table[0]);
        Assert.Contains(items[0].GetProperty("reason").GetString()!, table[0]);
    }

    [Fact]
    public async Task One_machine_is_judged_and_one_that_is_not_there_is_told()
    {
        await _server.LoadSmallFleet();
        var (_, page) = await _server.Get("/api/v1/assets/GC-1/assessment?wait=60");
        var (code, said) = Run("judge", "GC-1");
        Assert.Equal(0, code);
        foreach (var sentence in page.GetProperty("sentences").EnumerateArray())
            Assert.Contains(sentence.GetString()!, said);
        Assert.Equal("GC-1", Lines(Run("judge", "GC-1", "--json").Said).Single().GetProperty("asset").GetString());
        Assert.Equal((1, true), (Run("judge", "GC-99").Code, Run("judge", "GC-99").Said.Contains("There is no machine 'GC-99'")));
        Assert.Equal(1, Run("queue", "--as-of", "1066-10-14").Code);
        Assert.Equal(2, Run("queue", "--as-of", "yesterday").Code);
    }

    /// <summary>What a command writes reaches the judgement of a server that is at work, without anybody asking.</summary>
    [Fact]
    public async Task Files_are_told_apart_and_reach_the_server_that_is_at_work()
    {
        var fleet = FileOf("fleet.json.gz", Fleet("DT-1", "DT-2"), packed: true);
        var readings = FileOf(
            "readings.csv",
            """
            time,asset,ambient_c,power_w,processor_c
            2026-10-01T00:00Z,DT-1,22,60,55
            2026-10-01T00:00Z,DT-9,22,60,55
            """
        );
        var services = FileOf("services.csv", "asset,date,level\nDT-2,2026-09-01,dust-out\n");
        var (code, said) = Run("import", fleet, readings, services);
        Assert.Contains("2 machines created", said);
        Assert.Contains("1 taken, 0 known already, 1 lines refused", said);
        Assert.Contains("readings.csv, line 3", said);
        Assert.Contains("1 taken, 0 known already, 0 lines refused", said);
        // Something was refused: a script has to see it.
        Assert.Equal(1, code);
        Assert.Equal(0, Run("import", fleet, services).Code);
        var seen = 0;
        for (var tries = 0; tries < 150 && seen < 2; tries++)
        {
            await Task.Delay(200);
            var (_, queue) = await _server.Get("/api/v1/queue?wait=0");
            seen = queue.GetProperty("total").GetInt32();
        }
        Assert.Equal(2, seen);
        var (_, machine) = await _server.Get("/api/v1/assets/DT-2/assessment");
        Assert.Equal("DT-2", machine.GetProperty("asset").GetString());
    }

    [Fact]
    public void What_cannot_be_taken_in_is_told_and_nothing_is_kept()
    {
        var (code, said) = Run("import", Path.Combine(_folder.FullName, "none.csv"));
        Assert.Equal((1, true), (code, said.Contains("none.csv. Nothing was taken in.")));
        (code, said) = Run("import", FileOf("broken.json", "{\"format\":"));
        Assert.Equal(1, code);
        (code, said) = Run("import", FileOf("empty.csv", ""));
        Assert.Equal(1, code);
        Assert.NotEmpty(said);
        (code, said) = Run("import", FileOf("words.csv", "these;are\nno;readings\n"));
        Assert.Equal(1, code);
        Assert.NotEmpty(said);
        Assert.Equal(2, Run("import").Code);
    }

    [Fact]
    public async Task All_is_taken_along_and_an_empty_house_becomes_an_equal_one()
    {
        await _server.LoadSmallFleet();
        var (_, before) = await _server.Get("/api/v1/queue?limit=all&wait=60");
        var house = Path.Combine(_folder.FullName, "house.zip");
        var (code, said) = Run("export", house);
        Assert.True(code == 0, said);
        Assert.Equal(1, Run("import", house).Code);
        var elsewhere = Path.Combine(_folder.FullName, "elsewhere");
        (code, said) = RunOn(elsewhere, "import", house);
        Assert.True(code == 0, said);
        (code, said) = RunOn(elsewhere, "import", house);
        Assert.Equal((1, true), (code, said.Contains("goes into an empty folder")));
        Assert.Equal(0, RunOn(elsewhere, "verify").Code);
        var rows = Lines(RunOn(elsewhere, "queue", "--limit", "0", "--json").Said);
        Assert.Equal(
            before.GetProperty("items").EnumerateArray().Select(i => i.GetProperty("reason").GetString()),
            rows.Select(r => r.GetProperty("reason").GetString())
        );
        // And the forms for other programs are the ones that this program takes in.
        var open = Path.Combine(_folder.FullName, "open");
        ZipFile.ExtractToDirectory(house, open);
        var other = Path.Combine(_folder.FullName, "other");
        using (Database.Open(Path.Combine(other, "pyrometron.db"))) { }
        (code, said) = RunOn(other, "import", Path.Combine(open, "fleet.json"), Path.Combine(open, "readings.csv"));
        Assert.True(code == 0, said);
        var again = Lines(RunOn(other, "queue", "--limit", "0", "--json").Said);
        Assert.Equal(
            rows.Select(r => (r.GetProperty("asset").ToString(), r.GetProperty("driftKelvin").ToString())),
            again.Select(r => (r.GetProperty("asset").ToString(), r.GetProperty("driftKelvin").ToString()))
        );
    }

    [Fact]
    public void A_house_without_machines_says_so()
    {
        Assert.Contains("There are no machines yet.", Run("queue").Said);
        Assert.Equal("", Run("queue", "--json").Said);
    }

    [Fact]
    public void Keys_are_given_out_listed_renewed_and_ended()
    {
        var (code, said) = Run("key", "add", "probe", "--scope", "readings", "--until", "2030-01-31");
        Assert.Equal((0, true), (code, said.Contains("pyrometron_")));
        Assert.Equal(1, Run("key", "add", "probe").Code);
        Assert.Equal(1, Run("key", "add", "other", "--scope", "everything").Code);
        Assert.Equal(2, Run("key", "add", "other", "--until", "soon").Code);
        said = Run("key", "list").Said;
        Assert.Contains("never used", said);
        Assert.Contains("2030-02-01", said);
        Assert.Equal((0, true), (Run("key", "renew", "probe").Code, Run("key", "renew", "probe").Said.Contains("pyrometron_")));
        Assert.Equal(0, Run("key", "end", "probe").Code);
        Assert.Equal(1, Run("key", "end", "probe").Code);
        Assert.Empty(Run("key", "list").Said);
    }

    [Fact]
    public void The_manual_tells_every_command_and_shells_complete_them()
    {
        var (code, page) = RunPlain("man");
        Assert.Equal(0, code);
        // groff takes a line that begins with a point for a request: only those of man(7) may stand there.
        Assert.All(
            page.Split('\n').Where(l => l.StartsWith('.')),
            l => Assert.Contains(l.Split(' ')[0], (string[])[".TH", ".SH", ".TP", ".B", ".I", ".RS", ".RE"])
        );
        foreach (
            var command in (string[])
                [
                    "serve",
                    "queue",
                    "judge",
                    "import",
                    "export",
                    "backup",
                    "restore",
                    "verify",
                    "user add",
                    "user reset",
                    "key add",
                    "doctor",
                ]
        )
            Assert.Contains($"\n.B {command}", page);
        Assert.Equal(["export"], RunPlain("[suggest:2]", "ex").Said.Split('\n', StringSplitOptions.RemoveEmptyEntries));
        Assert.Contains("--limit", RunPlain("[suggest:9]", "queue --l").Said);
        foreach (var shell in (string[])["bash", "zsh", "fish"])
            Assert.Contains("[suggest:", RunPlain("completion", shell).Said);
        Assert.Equal(2, RunPlain("completion", "elsewhere").Code);
    }

    [Fact]
    public void Serve_starts_the_server_with_the_options_as_typed()
    {
        string[]? started = null;
        using var said = new StringWriter();
        int Start(string[] options)
        {
            started = options;
            return 7;
        }
        Assert.Equal(7, CommandLine.Run(["serve", "--port", "5999", "--solo", "false", "--data", "x"], Start, said, said));
        Assert.Equal(["--port", "5999", "--solo", "false", "--data", "x"], started!);
        started = null;
        Assert.Equal(2, CommandLine.Run(["serve", "--prot", "5999"], Start, said, said));
        Assert.Equal(2, CommandLine.Run(["serve", "--port", "many"], Start, said, said));
        Assert.Null(started);
    }
}
