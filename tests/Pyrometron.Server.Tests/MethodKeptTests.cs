using System.Text.Json;

namespace Pyrometron.Server.Tests;

/// <summary>The method of a job is kept: in the job, in the model's notes, and in what travels to another house.</summary>
public sealed class MethodKeptTests : IDisposable
{
    private readonly Server _server = new();

    public void Dispose() => _server.Dispose();

    private static string Text(JsonElement of, string name) => of.GetProperty(name).GetString()!;

    private static async Task<Bench> RepadWithMethod(Server server)
    {
        await server.LoadSmallFleet();
        var bench = await Bench.Start(server, "GC-1", "repad");
        await bench.Do(new { kind = "before-excused", reason = "does not start" });
        await bench.DoAllSteps(until: "pads-off");
        await bench.Do(
            new
            {
                kind = "pad-measured",
                place = "memory, back",
                measuredMm = 1.36,
                nominalMm = 1.5,
                by = "caliper",
            }
        );
        await bench.Do(
            new
            {
                kind = "product-used",
                product = "paste",
                name = "Hemlock 8",
                batch = "L2231",
                pattern = "line",
            }
        );
        await bench.Do(new { kind = "tool-used", tool = "long PH0" });
        await bench.DoAllSteps();
        await bench.Do(new { kind = "work-filed" });
        return bench;
    }

    private static async Task<JsonElement> Notes(Server server, string model) =>
        (await server.Get($"/api/v1/models/notes?model={Uri.EscapeDataString(model)}")).Body;

    [Fact]
    public async Task Pads_pattern_and_tools_of_a_job_are_in_the_notes_of_its_model_with_who_saw_them()
    {
        var bench = await RepadWithMethod(_server);
        Assert.Equal("L2231", Text(bench.Job.GetProperty("products")[0], "batch"));
        var answer = await Notes(_server, Text(bench.Job, "model"));
        var notes = answer.GetProperty("notes");
        var pad = notes.GetProperty("pads")[0];
        Assert.Equal((1.5, 1.36), (pad.GetProperty("thicknessMm").GetDouble(), pad.GetProperty("measuredMm").GetDouble()));
        Assert.Equal("back", Text(pad, "side"));
        Assert.Equal("line", Text(notes, "pattern"));
        Assert.Equal("long PH0", notes.GetProperty("tools")[0].GetString());
        var seen = answer.GetProperty("seen").EnumerateArray().ToArray();
        Assert.Contains(seen, s => Text(s, "about") == "pad memory, back" && Text(s, "by") == "M. Larkspur");
        Assert.Contains(seen, s => Text(s, "about") == "screws" && s.GetProperty("times").GetInt32() == 1);
    }

    [Fact]
    public async Task Notes_travel_to_another_house_and_what_both_say_differently_is_shown()
    {
        var bench = await RepadWithMethod(_server);
        var model = Text(bench.Job, "model");
        var (_, file) = await _server.Get("/api/v1/models/notes/export");
        Assert.Equal("pyrometron-notes/1", Text(file, "format"));

        using var other = new Server();
        await other.LoadSmallFleet();
        var begun = JsonSerializer.Deserialize<Dictionary<string, object?>>((await Notes(other, model)).GetProperty("notes"))!;
        begun["pattern"] = "dot";
        await other.Put(
            "/api/v1/models/notes",
            new
            {
                notes = begun,
                version = 0,
                by = "Ida",
            }
        );
        async Task<JsonElement> Import(string query)
        {
            var (status, body) = await other.Post("/api/v1/models/notes/import" + query, file);
            Assert.True(status == 200, body.ToString());
            return body;
        }
        var dry = await Import("?dryRun=true");
        Assert.Equal(model, dry.GetProperty("merged")[0].GetString());
        var difference = dry.GetProperty("differences")[0];
        Assert.Equal(
            ("pattern", "dot", "line"),
            (Text(difference, "about"), Text(difference, "here"), Text(difference, "there"))
        );
        Assert.Empty((await Notes(other, model)).GetProperty("notes").GetProperty("pads").EnumerateArray());

        await Import("?prefer=there");
        var now = (await Notes(other, model)).GetProperty("notes");
        Assert.Equal("line", Text(now, "pattern"));
        Assert.Equal(1.36, now.GetProperty("pads")[0].GetProperty("measuredMm").GetDouble());
        string[] by = [.. now.GetProperty("sources").EnumerateArray().Select(s => Text(s, "by"))];
        Assert.Contains("Ida", by);
        Assert.Contains("M. Larkspur", by);
        // The same file once more changes nothing.
        Assert.Equal(model, (await Import("?prefer=there")).GetProperty("unchanged")[0].GetString());
    }

    [Theory]
    [InlineData("""{ "models": [] }""", "/format")]
    [InlineData("""{ "format": "pyrometron-notes/1" }""", "/models")]
    [InlineData("""{ "format": "pyrometron-notes/1", "models": [null] }""", "/models/0/model")]
    [InlineData("""{ "format": "pyrometron-notes/1", "models": [{ "model": "A" }] }""", "/models/0")]
    [InlineData(
        """{ "format": "pyrometron-notes/1", "models": [{ "model": "A", "widthMm": 100, "heightMm": 100, "screws": [null], "connectors": [], "pads": [], "fans": [], "clips": [], "traps": [] }] }""",
        "/models/0"
    )]
    public async Task A_file_that_is_no_notes_says_where(string body, string pointer)
    {
        var (status, problem) = await _server.Send("/api/v1/models/notes/import", body, "application/json");
        Assert.Equal(400, status);
        Assert.StartsWith(pointer, Text(problem.GetProperty("errors")[0], "pointer"), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Where_machines_belong_to_others_none_is_opened_before_its_owner_agreed()
    {
        await _server.LoadSmallFleet();
        var (_, policy) = await _server.Get("/api/v1/policy");
        var rules = JsonSerializer.Deserialize<Dictionary<string, object?>>(policy)!;
        var ways = JsonSerializer.Deserialize<Dictionary<string, object?>>(policy.GetProperty("bench"))!;
        ways["othersMachines"] = true;
        rules["bench"] = ways;
        Assert.Equal(200, (await _server.Put("/api/v1/policy", rules)).Status);
        var bench = await Bench.Start(_server, "GC-1", "dust-out");
        await bench.Do(new { kind = "before-excused", reason = "does not start" });
        Assert.Contains("belongs to somebody else", Text(bench.Job, "unagreed"), StringComparison.Ordinal);
        Assert.Equal(409, await bench.Try(new { kind = "step-done", step = "power-off" }));
        object Order(bool mayOpen) =>
            new
            {
                kind = "order-agreed",
                scope = "clean it, it is loud",
                owner = "Ida Varga",
                priceCap = 120,
                mayOpen,
                condition = "lid scratched",
            };
        await bench.Do(Order(mayOpen: false));
        Assert.Contains("not agreed to its being opened", Text(bench.Job, "unagreed"), StringComparison.Ordinal);
        await bench.Do(Order(mayOpen: true));
        Assert.Equal(JsonValueKind.Null, bench.Job.GetProperty("unagreed").ValueKind);
        await bench.DoAllSteps();
        await bench.Do(
            new
            {
                kind = "damage-found",
                text = "clip snapped",
                onTheWay = true,
            }
        );
        await bench.Do(new { kind = "work-filed" });
        await bench.Do(
            new
            {
                kind = "handed-back",
                to = "Ida Varga",
                condition = "as it came, one clip less",
            }
        );
        Assert.Equal("clip snapped", bench.Job.GetProperty("damageDone")[0].GetString());
        Assert.Empty(bench.Job.GetProperty("damage").EnumerateArray());
        Assert.Equal("as it came, one clip less", Text(bench.Job.GetProperty("handedBack"), "condition"));
    }

    [Fact]
    public async Task What_is_not_done_to_a_kind_of_machine_is_refused_and_not_offered()
    {
        await _server.LoadSmallFleet();
        var (status, problem) = await _server.Post("/api/v1/jobs", new { asset = "GC-1", level = "stand" });
        Assert.Equal(409, status);
        Assert.Contains("no stand for a graphics-card", Text(problem, "detail"), StringComparison.Ordinal);
        var (_, machine) = await _server.Get("/api/v1/assets/GC-1");
        string[] levels = [.. machine.GetProperty("levels").EnumerateArray().Select(l => l.GetString()!)];
        Assert.Contains("cooler-swap", levels);
        Assert.DoesNotContain("stand", levels);
    }
}
