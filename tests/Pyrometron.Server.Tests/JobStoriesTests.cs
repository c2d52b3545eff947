using System.Text.Json;

namespace Pyrometron.Server.Tests;

/// <summary>
/// Jobs over the four kinds of machine, from the first run to the filed verdict, through the API: what each ends with is the
/// sentence that a careful person would write. The stories are data (<c>tests/stories/jobs.json</c>), their figures common
/// practice, no source.
/// </summary>
public sealed class JobStoriesTests(Server server) : IClassFixture<Server>
{
    private static readonly JsonElement[] Stories =
    [
        .. JsonDocument.Parse(File.ReadAllText(Server.OfRepository("tests/stories/jobs.json"))).RootElement.EnumerateArray(),
    ];

    public static TheoryData<string> Titles() => [.. Stories.Select(s => s.GetProperty("title").GetString()!)];

    [Fact]
    public void There_are_at_least_twenty_one_over_the_four_kinds()
    {
        Assert.True(Stories.Length >= 21);
        Assert.Equal(4, Stories.Select(s => Text(s, "kind")).Distinct().Count());
    }

    [Theory]
    [MemberData(nameof(Titles))]
    public async Task It_ends_with_the_sentence_that_a_careful_person_would_write(string title)
    {
        var story = Stories.Single(s => Text(s, "title") == title);
        var tag = $"ST-{Array.FindIndex(Stories, s => Text(s, "title") == title) + 1:00}";
        await Register(tag, story);
        if (Member(story, "siblings") is { } siblings)
            foreach (var (run, n) in siblings.EnumerateArray().Select((run, n) => (run, n)))
                await MeasureSibling(tag, $"{tag}-{n + 1}", story, run);
        if (Text(story, "earlier") is { } earlier)
            await DoEarlier(tag, earlier);
        var (status, started) = await server.Post(
            "/api/v1/jobs",
            new
            {
                asset = tag,
                level = Text(story, "level"),
                fan = Text(story, "fan"),
                complaint = Member(story, "complaint"),
            }
        );
        Assert.True(status == 201, started.ToString());
        var bench = new Bench(server, started);
        foreach (var run in story.GetProperty("before").EnumerateArray())
            await bench.Do(
                new
                {
                    kind = "run-measured",
                    phase = "before",
                    run,
                }
            );
        if (Text(story, "excuse") is { } reason)
            await bench.Do(new { kind = "before-excused", reason });
        CheckCard(story, bench.Job);
        Assert.Equal(Member(story, "comeback") is not null, Member(bench.Job, "comebackOf") is not null);
        Assert.Equal(Member(story, "comeback") is not null, bench.Job.GetProperty("freeOfCharge").GetBoolean());
        await bench.DoAllSteps();
        if (Member(story, "entries") is { } entries)
            foreach (var entry in entries.EnumerateArray())
                await bench.Do(entry);
        await bench.Do(new { kind = "work-filed" });
        foreach (var run in story.GetProperty("after").EnumerateArray())
            await bench.Do(
                new
                {
                    kind = "run-measured",
                    phase = "after",
                    run,
                }
            );
        await Close(story, bench);
        CheckVerdict(story, bench.Job.GetProperty("verdict"));
    }

    /// <summary>Another machine of its model that was run at the bench.</summary>
    private async Task MeasureSibling(string tag, string sibling, JsonElement story, JsonElement run)
    {
        await Register(sibling, story, $"Model of {tag}");
        var (status, started) = await server.Post("/api/v1/jobs", new { asset = sibling, level = "dust-out" });
        Assert.True(status == 201, started.ToString());
        await new Bench(server, started).Do(
            new
            {
                kind = "run-measured",
                phase = "before",
                run,
            }
        );
    }

    /// <summary>A job that was filed on the machine just before, so that the story's is a comeback.</summary>
    private async Task DoEarlier(string tag, string level)
    {
        var (status, started) = await server.Post("/api/v1/jobs", new { asset = tag, level });
        Assert.True(status == 201, started.ToString());
        var bench = new Bench(server, started);
        await bench.Do(new { kind = "before-excused", reason = "was not measured then" });
        await bench.DoAllSteps();
        await bench.Do(new { kind = "work-filed" });
    }

    private static async Task Close(JsonElement story, Bench bench)
    {
        if (Text(story, "fixedRefused") is { } refusal)
        {
            var (status, body) = await bench.Send(new { kind = "verdict-filed", @fixed = true });
            Assert.Equal(409, status);
            Assert.Contains(refusal, body.GetProperty("detail").GetString());
            Assert.Contains(refusal, Text(bench.Job, "complaintStands"));
        }
        await bench.Do(new { kind = "verdict-filed", @fixed = Member(story, "fixed") });
    }

    private static void CheckCard(JsonElement story, JsonElement job)
    {
        string[] steps = [.. job.GetProperty("steps").EnumerateArray().Select(s => Text(s, "id")!)];
        if (Member(story, "steps") is not null)
            Assert.Equal(Texts(story, "steps"), steps);
        Assert.Empty(Texts(story, "has").Except(steps));
        Assert.Empty(steps.Intersect(Texts(story, "hasNot")));
    }

    private static void CheckVerdict(JsonElement story, JsonElement verdict)
    {
        Assert.Equal(Text(story, "outcome"), Text(verdict, "outcome"));
        Assert.Contains(Text(story, "headline")!, Text(verdict, "headline"));
        foreach (var words in Texts(story, "headlineParts"))
            Assert.Contains(words, Text(verdict, "headline"));
        var told = string.Join('\n', Texts(verdict, "advice"));
        foreach (var words in Texts(story, "advice"))
            Assert.Contains(words, told);
        foreach (var words in Texts(story, "never"))
            Assert.DoesNotContain(words, told);
        string[] codes = [.. verdict.GetProperty("reasons").EnumerateArray().Select(r => Text(r, "code")!)];
        Assert.Empty(Texts(story, "reasons").Except(codes));
        Assert.Empty(Texts(story, "notReasons").Intersect(codes));
        Assert.Empty(Texts(story, "also").Except(Texts(verdict, "alsoBetter")));
        if (Member(story, "success") is { } success)
            Assert.Equal(success.GetBoolean(), verdict.GetProperty("success").GetBoolean());
        if (Member(story, "remedies") is not null)
            Assert.Equal(Texts(story, "remedies"), Texts(verdict, "remedies"));
        if (Member(story, "pairs") is { } pairs)
            Assert.Equal(pairs.GetInt32(), verdict.GetProperty("pairs").GetArrayLength());
    }

    private static JsonElement? Member(JsonElement of, string name) =>
        of.TryGetProperty(name, out var member) && member.ValueKind != JsonValueKind.Null ? member : null;

    private static string? Text(JsonElement of, string name) => Member(of, name)?.GetString();

    private static string[] Texts(JsonElement of, string name) =>
        Member(of, name) is { } list ? [.. list.EnumerateArray().Select(e => e.GetString()!)] : [];

    /// <summary>The machine of a story, of a model of its own, with the model's notes where the story has some.</summary>
    private async Task Register(string tag, JsonElement story, string? ofModel = null)
    {
        var kind = Text(story, "kind")!;
        string[] parts = kind switch
        {
            "graphics-card" => ["core", "hotspot", "memory"],
            "laptop" => ["cpu", "gpu"],
            _ => ["cpu"],
        };
        var model = ofModel ?? $"Model of {tag}";
        var (status, body) = await server.Post(
            "/api/v1/fleet",
            new
            {
                format = "pyrometron-fleet/1",
                sites = new[]
                {
                    new
                    {
                        code = "S",
                        name = "Site",
                        altitudeMetres = 5,
                        zones = new[]
                        {
                            new
                            {
                                code = "Z",
                                name = "Desk",
                                dust = "normal",
                                designAmbientCelsius = 30,
                            },
                        },
                    },
                },
                assets = new[]
                {
                    new
                    {
                        tag,
                        kind,
                        model,
                        zone = "Z",
                        dutyHoursPerDay = 8,
                        inServiceSince = "2024-02-01",
                        warrantyUntil = Member(story, "warranty") is null
                            ? null
                            : DateTime.UtcNow.AddYears(1).ToString("yyyy-MM-dd"),
                        parts = parts.Select(p => new
                        {
                            part = p,
                            limitCelsius = p == "hotspot" ? 110 : 100,
                            @interface = p == "memory" ? "pad" : "paste",
                        }),
                        services = Array.Empty<object>(),
                    },
                },
            }
        );
        Assert.True(status == 200, body.ToString());
        if (ofModel is not null || Member(story, "notes") is not { } given)
            return;
        var (_, known) = await server.Get($"/api/v1/models/notes?model={Uri.EscapeDataString(model)}");
        var notes = JsonSerializer.Deserialize<Dictionary<string, object?>>(known.GetProperty("notes"))!;
        foreach (var member in given.EnumerateObject())
            notes[member.Name] = member.Value;
        var (kept, answer) = await server.Put(
            "/api/v1/models/notes",
            new { notes, version = known.GetProperty("version").GetInt32() }
        );
        Assert.True(kept == 200, answer.ToString());
    }
}
