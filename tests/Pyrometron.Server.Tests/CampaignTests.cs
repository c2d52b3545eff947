using System.Text.Json;

namespace Pyrometron.Server.Tests;

/// <summary>Campaigns as a client sees them: thought of, begun, planned, proven, paused, ended.</summary>
public sealed class CampaignTests : IAsyncLifetime, IDisposable
{
    private readonly Server _server = new();

    public async Task InitializeAsync()
    {
        await _server.LoadSmallFleet();
        await _server.Get("/api/v1/queue?wait=20");
    }

    public Task DisposeAsync() => Task.CompletedTask;

    public void Dispose() => _server.Dispose();

    private async Task<long> Begin(object? more = null)
    {
        var draft = JsonSerializer
            .SerializeToNode(
                new
                {
                    name = "Sorrel dust",
                    level = "dust-out",
                    model = "Sorrel",
                    pilot = 2,
                }
            )!
            .AsObject();
        foreach (var member in JsonSerializer.SerializeToNode(more ?? new { })!.AsObject())
            draft[member.Key] = member.Value?.DeepClone();
        var (status, body) = await _server.Post("/api/v1/campaigns", draft);
        Assert.True(status == 201, body.ToString());
        return body.GetProperty("id").GetInt64();
    }

    private async Task<JsonElement> Look(long id) => (await _server.Get($"/api/v1/campaigns/{id}")).Body;

    private async Task<int> Remove(long id, string tag) =>
        (int)(await _server.Raw(new HttpRequestMessage(HttpMethod.Delete, $"/api/v1/campaigns/{id}/machines/{tag}"))).StatusCode;

    private static string[] Tags(JsonElement campaign, string step) =>
        [
            .. campaign
                .GetProperty("machines")
                .EnumerateArray()
                .Where(m => m.GetProperty("step").GetString() == step)
                .Select(m => m.GetProperty("tag").GetString()!),
        ];

    [Fact]
    public async Task A_preview_tells_machines_and_sum_and_changes_nothing()
    {
        var (status, preview) = await _server.Post(
            "/api/v1/campaigns/preview",
            new
            {
                level = "repaste",
                zone = "Z",
                pilot = 3,
            }
        );
        Assert.Equal(200, status);
        Assert.Equal(8, preview.GetProperty("machines").GetArrayLength());
        Assert.Equal(3, preview.GetProperty("machines").EnumerateArray().Count(m => m.GetProperty("pilot").GetBoolean()));
        Assert.True(preview.GetProperty("sum").GetProperty("minutes").GetInt32() >= 8);
        Assert.True(preview.GetProperty("sum").GetProperty("work").GetDouble() > 0);
        Assert.Empty((await _server.Get("/api/v1/campaigns")).Body.GetProperty("campaigns").EnumerateArray());
    }

    [Fact]
    public async Task The_pilot_is_planned_with_the_campaigns_name_and_the_others_wait()
    {
        var id = await Begin();
        var pilot = Tags(await Look(id), "released");
        Assert.Equal(2, pilot.Length);
        Assert.Equal(204, (await _server.Put("/api/v1/people/mira", WeeksTests.House.Person("mira"))).Status);
        Assert.Equal(202, (await _server.Post("/api/v1/weeks/plan", new { days = 7, seconds = 0.5 })).Status);
        JsonElement plan = default;
        for (var i = 0; i < 300 && plan.ValueKind != JsonValueKind.Object; i++, await Task.Delay(100))
            plan = (await _server.Get("/api/v1/weeks")).Body.GetProperty("plan");
        var jobs = plan.GetProperty("jobs").EnumerateArray();
        var planned = jobs.Where(j => j.GetProperty("campaign").GetString() == "Sorrel dust").ToList();
        Assert.Equal(pilot.Order(), planned.Select(j => j.GetProperty("id").GetString()!).Order());
        Assert.All(planned, j => Assert.Equal("dust-out", j.GetProperty("steps")[0].GetProperty("level").GetString()));
        Assert.All(
            (await Look(id)).GetProperty("machines").EnumerateArray(),
            m =>
                Assert.Equal(
                    m.GetProperty("step").GetString() == "released",
                    m.GetProperty("planned").ValueKind == JsonValueKind.String
                )
        );
    }

    [Fact]
    public async Task A_job_at_the_bench_is_seen_and_a_machine_is_taken_out()
    {
        var id = await Begin();
        var first = Tags(await Look(id), "released")[0];
        await Bench.Start(_server, first, "dust-out");
        Assert.Equal([first], Tags(await Look(id), "at-bench"));
        var (_, of) = await _server.Get($"/api/v1/assets/{first}/campaigns");
        Assert.Equal(("Sorrel dust", "at-bench"), (of[0].GetProperty("name").GetString(), of[0].GetProperty("step").GetString()));
        Assert.Equal(404, (await _server.Get("/api/v1/assets/GC-99/campaigns")).Status);
        var waits = Tags(await Look(id), "waits")[0];
        Assert.Equal(204, await Remove(id, waits));
        Assert.Equal(7, (await Look(id)).GetProperty("machines").GetArrayLength());
        Assert.Equal(404, await Remove(id, waits));
    }

    [Fact]
    public async Task Machines_are_taken_in_behind_the_others_and_only_once()
    {
        var id = await Begin(new { assets = new[] { "GC-2", "GC-3", "GC-4" } });
        var machines = $"/api/v1/campaigns/{id}/machines";
        Assert.Equal(204, (await _server.Post(machines, new { assets = new[] { "GC-7", "GC-6", "GC-7" } })).Status);
        var tags = (await Look(id)).GetProperty("machines").EnumerateArray().Select(m => m.GetProperty("tag").GetString());
        Assert.Equal(["GC-7", "GC-6"], tags.Skip(3));
        Assert.Equal(409, (await _server.Post(machines, new { assets = new[] { "GC-6" } })).Status);
        Assert.Equal(404, (await _server.Post(machines, new { assets = new[] { "GC-99" } })).Status);
        Assert.Equal(400, (await _server.Post(machines, new { assets = Array.Empty<string>() })).Status);
        Assert.Equal(5, (await Look(id)).GetProperty("machines").GetArrayLength());
        await _server.Post($"/api/v1/campaigns/{id}/end", new { because = "enough" });
        Assert.Equal(409, (await _server.Post(machines, new { assets = new[] { "GC-8" } })).Status);
    }

    /// <summary>Its material is reckoned with before anything is planned: the pilot first, those that wait last.</summary>
    [Fact]
    public async Task The_stores_know_what_it_will_take()
    {
        var id = await Begin(new { level = "repaste" });
        var (_, stores) = await _server.Get("/api/v1/stores?jobs=200");
        var ahead = stores
            .GetProperty("ahead")
            .EnumerateArray()
            .Where(j => j.GetProperty("by").GetString() == "campaign")
            .ToList();
        // What the judgement asks for by itself stands there as that.
        Assert.Equal(8, stores.GetProperty("ahead").GetArrayLength());
        Assert.InRange(ahead.Count, 6, 8);
        Assert.All(ahead, j => Assert.Equal("repaste", j.GetProperty("level").GetString()));
        Assert.Equal(
            Tags(await Look(id), "released").Order(),
            ahead.Take(2).Select(j => j.GetProperty("asset").GetString()!).Order()
        );
        Assert.Equal(204, (await _server.Post($"/api/v1/campaigns/{id}/end", new { because = "enough" })).Status);
        var (_, after) = await _server.Get("/api/v1/stores?jobs=200");
        Assert.DoesNotContain(after.GetProperty("ahead").EnumerateArray(), j => j.GetProperty("by").GetString() == "campaign");
    }

    [Fact]
    public async Task It_is_paused_gone_on_with_and_ended()
    {
        var id = await Begin();
        Assert.Equal(204, (await _server.Post($"/api/v1/campaigns/{id}/pause", new { })).Status);
        Assert.Empty(Tags(await Look(id), "released"));
        Assert.Equal(204, (await _server.Post($"/api/v1/campaigns/{id}/resume", new { })).Status);
        Assert.Equal(2, Tags(await Look(id), "released").Length);
        Assert.Equal(400, (await _server.Post($"/api/v1/campaigns/{id}/go-on", new { })).Status);
        Assert.Equal(204, (await _server.Post($"/api/v1/campaigns/{id}/go-on", new { by = "Mira" })).Status);
        Assert.Equal(8, Tags(await Look(id), "released").Length);
        Assert.Equal(400, (await _server.Post($"/api/v1/campaigns/{id}/end", new { because = " " })).Status);
        Assert.Equal(204, (await _server.Post($"/api/v1/campaigns/{id}/end", new { because = "other work first" })).Status);
        var ended = await Look(id);
        Assert.Equal("ended", ended.GetProperty("state").GetString());
        Assert.Empty(Tags(ended, "released"));
        Assert.Equal(409, (await _server.Post($"/api/v1/campaigns/{id}/pause", new { })).Status);
        // Its machines are free for another one.
        Assert.NotEqual(id, await Begin(new { name = "Again" }));
    }

    [Fact]
    public async Task A_machine_is_in_one_campaign_at_a_time()
    {
        await Begin(new { assets = (string[])["GC-1", "GC-2", "GC-3"] });
        var (_, preview) = await _server.Post("/api/v1/campaigns/preview", new { level = "repaste", model = "Sorrel" });
        Assert.Equal(3, preview.GetProperty("without").GetArrayLength());
        Assert.Equal(5, preview.GetProperty("machines").GetArrayLength());
        var (status, refused) = await _server.Post(
            "/api/v1/campaigns",
            new
            {
                name = "Few",
                level = "repaste",
                assets = (string[])["GC-1", "GC-4"],
            }
        );
        Assert.True(status == 409, refused.ToString());
    }

    [Theory]
    [InlineData("{}", "/level")]
    [InlineData("""{"level":"dust-out"}""", "/model")]
    [InlineData("""{"level":"inspect","model":"Sorrel"}""", "/level")]
    [InlineData("""{"level":"dust-out","model":"Heron"}""", "/model")]
    [InlineData("""{"level":"dust-out","zone":"nowhere"}""", "/zone")]
    [InlineData("""{"level":"dust-out","assets":["GC-1","GC-99",null]}""", "/assets/1")]
    [InlineData("""{"level":"dust-out","model":"Sorrel","pilot":0}""", "/pilot")]
    [InlineData("""{"level":"dust-out","model":"Sorrel","pilot":51}""", "/pilot")]
    [InlineData("""{"level":"dust-out","model":"Sorrel","leastKelvin":0}""", "/leastKelvin")]
    [InlineData("""{"level":"dust-out","model":"Sorrel","leastKelvin":-4}""", "/leastKelvin")]
    [InlineData("""{"level":"dust-out","model":"Sorrel","dueBy":"2020-01-01"}""", "/dueBy")]
    [InlineData("""{"level":"dust-out","model":"Sorrel","name":"a\nb"}""", "/name")]
    public async Task What_is_wrong_is_refused_with_its_place(string draft, string pointer)
    {
        var (status, answer) = await _server.Send("/api/v1/campaigns", draft);
        Assert.Equal(400, status);
        Assert.Contains(pointer, answer.GetProperty("errors").EnumerateArray().Select(e => e.GetProperty("pointer").GetString()));
    }

    [Fact]
    public async Task Of_what_is_not_there_it_says_so()
    {
        Assert.Equal(404, (await _server.Get("/api/v1/campaigns/99")).Status);
        Assert.Equal(404, (await _server.Post("/api/v1/campaigns/99/pause", new { })).Status);
        Assert.Equal(404, (await _server.Post("/api/v1/campaigns/99/end", new { because = "x" })).Status);
    }
}
