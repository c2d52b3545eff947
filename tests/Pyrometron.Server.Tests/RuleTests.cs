using System.Text.Json;

namespace Pyrometron.Server.Tests;

/// <summary>Rules where they apply: kept, tried before they are kept, and told at the machine.</summary>
public sealed class RuleTests : IDisposable
{
    private readonly Server _server = new();

    public void Dispose() => _server.Dispose();

    private static string Text(JsonElement e, string name) => e.GetProperty(name).GetString()!;

    private async Task<JsonElement> Row(string tag) =>
        (await _server.Get("/api/v1/queue?limit=all&wait=60"))
            .Body.GetProperty("items")
            .EnumerateArray()
            .Single(i => Text(i, "asset") == tag);

    private Task<(int Status, JsonElement Body)> Keep(string scope, string key, object change) =>
        _server.Put(
            "/api/v1/rules",
            new
            {
                scope,
                key,
                change,
            }
        );

    private async Task<JsonElement> Setting(string tag, string setting) =>
        (await _server.Get($"/api/v1/assets/{tag}/rules"))
            .Body.GetProperty("settings")
            .EnumerateArray()
            .Single(s => Text(s, "setting") == setting);

    [Fact]
    public async Task The_nearest_rule_is_judged_by_and_told_at_the_machine()
    {
        await _server.LoadSmallFleet();
        Assert.Equal("next", Text(await Row("GC-1"), "urgency"));
        Assert.Equal("house", Text(await Setting("GC-1", "school"), "scope"));
        Assert.Equal(200, (await Keep("zone", "Z", new { school = "failure" })).Status);
        Assert.Equal("watch", Text(await Row("GC-1"), "urgency"));
        Assert.Equal(200, (await Keep("machine", "GC-1", new { school = "evidence", muchKelvin = 5 })).Status);
        Assert.Equal("next", Text(await Row("GC-1"), "urgency"));
        var school = await Setting("GC-1", "school");
        Assert.Equal(("evidence", "machine", "GC-1"), (Text(school, "word"), Text(school, "scope"), Text(school, "key")));
        Assert.Equal("zone", Text(await Setting("GC-2", "school"), "scope"));
        Assert.Equal(5, (await Setting("GC-1", "muchKelvin")).GetProperty("number").GetDouble());
        var (_, all) = await _server.Get("/api/v1/rules");
        Assert.Equal([8, 1], all.GetProperty("rules").EnumerateArray().Select(r => r.GetProperty("machines").GetInt32()));
        // Taken away again.
        Assert.Equal(200, (await Keep("machine", "GC-1", new { })).Status);
        Assert.Equal("watch", Text(await Row("GC-1"), "urgency"));
    }

    [Fact]
    public async Task Trying_rules_tells_what_would_change_and_keeps_nothing()
    {
        await _server.LoadSmallFleet();
        await Row("GC-1");
        var (status, preview) = await _server.Post(
            "/api/v1/rules/preview",
            new
            {
                rule = new
                {
                    scope = "machine",
                    key = "GC-1",
                    change = new { school = "failure" },
                },
            }
        );
        Assert.Equal(200, status);
        var row = Assert.Single(preview.GetProperty("rows").EnumerateArray());
        Assert.Equal(
            ("GC-1", "next", "watch"),
            (Text(row, "asset"), Text(row.GetProperty("before"), "urgency"), Text(row.GetProperty("after"), "urgency"))
        );
        var (before, after) = (preview.GetProperty("before"), preview.GetProperty("after"));
        double Hours(JsonElement e) => e.GetProperty("quarterHours").GetDouble();
        Assert.Equal(row.GetProperty("before").GetProperty("minutes").GetInt32() / 60.0, Hours(before) - Hours(after), 6);
        Assert.Equal("next", Text(await Row("GC-1"), "urgency"));
        Assert.Empty((await _server.Get("/api/v1/rules")).Body.GetProperty("rules").EnumerateArray());
        // The rules of the house can be tried the same way.
        var house = JsonSerializer.Deserialize<Dictionary<string, object?>>((await _server.Get("/api/v1/policy")).Body)!;
        house["school"] = "failure";
        (_, preview) = await _server.Post("/api/v1/rules/preview", new { policy = house });
        Assert.Contains("GC-1", preview.GetProperty("rows").EnumerateArray().Select(r => Text(r, "asset")));
        Assert.Equal("whichever-first", Text((await _server.Get("/api/v1/policy")).Body, "school"));
    }

    [Fact]
    public async Task Intervals_tell_how_they_come_about()
    {
        await _server.LoadSmallFleet();
        Assert.Equal(200, (await Keep("kind", "graphics-card", new { dustOutMonths = 10, petsOrSmoke = true })).Status);
        var (_, rules) = await _server.Get("/api/v1/assets/GC-1/rules");
        var dust = rules.GetProperty("intervals").EnumerateArray().Single(i => Text(i, "level") == "dust-out");
        var product = dust.GetProperty("factors")
            .EnumerateArray()
            .Aggregate(10.0, (m, f) => m * f.GetProperty("times").GetDouble());
        Assert.Equal(product, dust.GetProperty("months").GetDouble(), 9);
        Assert.Contains("pets-or-smoke", dust.GetProperty("factors").EnumerateArray().Select(f => Text(f, "influence")));
        Assert.Equal(404, (await _server.Get("/api/v1/assets/NONE/rules")).Status);
    }

    [Theory]
    [InlineData("""{"scope":"house","key":"x","change":{"worthKelvin":3}}""", "/scope")]
    [InlineData("""{"key":"Z","change":{"worthKelvin":3}}""", "/scope")]
    [InlineData("""{"scope":"zone","change":{"worthKelvin":3}}""", "/key")]
    [InlineData("""{"scope":"kind","key":"toaster","change":{"worthKelvin":3}}""", "/key")]
    [InlineData("""{"scope":"zone","key":"Z","change":{"worthKelvin":-3}}""", "/change/worthKelvin")]
    [InlineData("""{"scope":"zone","key":"Z","change":{"dustOutMonths":0.1}}""", "/change/dustOutMonths")]
    [InlineData("""{"scope":"zone","key":"Z","change":{"downtimeShare":2}}""", "/change/downtimeShare")]
    public async Task A_rule_that_makes_no_sense_is_refused_and_says_where(string body, string pointer)
    {
        await _server.LoadSmallFleet();
        var (status, problem) = await _server.Put("/api/v1/rules", JsonDocument.Parse(body).RootElement);
        Assert.Equal(400, status);
        Assert.Equal([pointer], problem.GetProperty("errors").EnumerateArray().Select(e => Text(e, "pointer")));
        (status, problem) = await _server.Post("/api/v1/rules/preview", new { rule = JsonDocument.Parse(body).RootElement });
        Assert.Equal(400, status);
        Assert.Equal(["/rule" + pointer], problem.GetProperty("errors").EnumerateArray().Select(e => Text(e, "pointer")));
    }

    [Fact]
    public async Task Rules_for_nothing_and_rules_against_each_other_are_refused()
    {
        await _server.LoadSmallFleet();
        Assert.Equal(404, (await Keep("zone", "NOWHERE", new { worthKelvin = 3 })).Status);
        Assert.Equal(404, (await Keep("model", "Nobody", new { worthKelvin = 3 })).Status);
        Assert.Equal(200, (await Keep("zone", "Z", new { worthKelvin = 5 })).Status);
        var (status, problem) = await Keep("machine", "GC-1", new { muchKelvin = 4 });
        Assert.Equal(409, status);
        Assert.Contains("contradict each other", Text(problem, "detail"), StringComparison.Ordinal);
        // Nor may the rules of the house go against one of these.
        var house = JsonSerializer.Deserialize<Dictionary<string, object?>>((await _server.Get("/api/v1/policy")).Body)!;
        house["muchKelvin"] = 4;
        Assert.Equal(409, (await _server.Put("/api/v1/policy", house)).Status);
    }

    [Fact]
    public async Task Intervals_of_the_house_are_kept_and_checked()
    {
        await _server.LoadSmallFleet();
        var house = JsonSerializer.Deserialize<Dictionary<string, object?>>((await _server.Get("/api/v1/policy")).Body)!;
        house["intervals"] = new
        {
            hardUseHours = 30,
            laptop = new { dustOut = 0.1 },
            server = (object?)null,
        };
        var (status, problem) = await _server.Put("/api/v1/policy", house);
        Assert.Equal(400, status);
        Assert.Equal(
            ["/intervals/hardUseHours", "/intervals/server", "/intervals/laptop/dustOut"],
            problem.GetProperty("errors").EnumerateArray().Select(e => Text(e, "pointer"))
        );
        house["intervals"] = new { graphicsCard = new { dustOut = 9 } };
        Assert.Equal(200, (await _server.Put("/api/v1/policy", house)).Status);
        var (_, rules) = await _server.Get("/api/v1/assets/GC-1/rules");
        Assert.Equal(["dust-out"], rules.GetProperty("intervals").EnumerateArray().Select(i => Text(i, "level")));
        // Kinds that were not named have their defaults.
        Assert.Equal(
            8,
            (await _server.Get("/api/v1/policy"))
                .Body.GetProperty("intervals")
                .GetProperty("laptop")
                .GetProperty("dustOut")
                .GetDouble()
        );
    }

    [Fact]
    public async Task The_bench_goes_by_the_nearest_rule_too()
    {
        await _server.LoadSmallFleet();
        Assert.Equal(200, (await Keep("model", "Sorrel", new { paste = "cross" })).Status);
        var bench = await Bench.Start(_server, "GC-1", "repaste");
        Assert.Equal("cross", Text(bench.Job.GetProperty("schools"), "paste"));
    }

    [Fact]
    public async Task What_the_record_says_is_told_and_what_is_not_wanted_stays_told_as_such()
    {
        await _server.LoadSmallFleet();
        // A hall that is dusted every other month, and hardly fouls.
        Assert.Equal(200, (await Keep("zone", "Z", new { dustOutMonths = 2 })).Status);
        await Row("GC-1");
        async Task<JsonElement> Suggested() =>
            (await _server.Get("/api/v1/rules/learnt"))
                .Body.GetProperty("intervals")
                .EnumerateArray()
                .Single(i => Text(i, "level") == "dust-out");
        var found = await Suggested();
        Assert.Equal(("zone", "Z"), (Text(found, "scope"), Text(found, "key")));
        var (low, months) = (found.GetProperty("lowMonths").GetDouble(), found.GetProperty("months").GetDouble());
        Assert.Equal(Math.Min(low, 2 * found.GetProperty("presentMonths").GetDouble()), months, 9);
        Assert.Equal(JsonValueKind.Null, found.GetProperty("refused").ValueKind);
        object Refusal(string? reason) =>
            new
            {
                scope = "zone",
                key = "Z",
                level = "dust-out",
                months,
                reason,
            };
        Assert.Equal(400, (await _server.Post("/api/v1/rules/learnt/refusals", Refusal(" "))).Status);
        Assert.Equal(204, (await _server.Post("/api/v1/rules/learnt/refusals", Refusal("Pollen in May"))).Status);
        await Row("GC-1");
        Assert.Equal("Pollen in May", Text(await Suggested(), "refusedBecause"));
        // Another interval by the rules makes it another suggestion.
        Assert.Equal(200, (await Keep("zone", "Z", new { dustOutMonths = 1 })).Status);
        await Row("GC-1");
        Assert.Equal(JsonValueKind.Null, (await Suggested()).GetProperty("refused").ValueKind);
    }
}
