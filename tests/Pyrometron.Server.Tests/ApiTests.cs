using System.Text.Json;

namespace Pyrometron.Server.Tests;

public sealed class ApiTests : IDisposable
{
    private readonly Server _server = new();

    public void Dispose() => _server.Dispose();

    private static readonly object Run = RunAt(96);

    private static object RunAt(double memory) =>
        new
        {
            workload = "steady",
            minutes = 20,
            ambientCelsius = 25.0,
            fan = new { mode = "fixed", percent = 100 },
            settings = "stock",
            parts = new[] { new { part = "memory", celsius = memory } },
        };

    [Fact]
    public async Task Health_and_unknown_paths()
    {
        var (status, body) = await _server.Get("/api/v1/health");
        Assert.Equal((200, "ok", "own"), (status, body.GetProperty("status").GetString(), body.GetProperty("data").GetString()));
        (status, _) = await _server.Get("/api/v1/nowhere");
        Assert.Equal(404, status);
        (status, _) = await _server.Get("/api/v1/assets/NONE/assessment");
        Assert.Equal(404, status);
        (status, _) = await _server.Get("/api/v1/queue?limit=many");
        Assert.Equal(400, status);
        (status, _) = await _server.Get("/api/v1/queue?asOf=tomorrow");
        Assert.Equal(400, status);
        Assert.True((await _server.Get("/openapi/v1.json")).Body.GetProperty("paths").TryGetProperty("/api/v1/queue", out _));
    }

    [Fact]
    public async Task Pages_of_other_sites_may_not_write()
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, "/api/v1/jobs") { Content = new StringContent("{}") };
        request.Headers.Add("Sec-Fetch-Site", "cross-site");
        Assert.Equal(403, (int)(await _server.Raw(request)).StatusCode);
    }

    [Fact]
    public async Task A_verdict_answers_as_the_contract_says_and_stores_nothing()
    {
        var (status, body) = await _server.Post(
            "/api/v1/verdicts/evaluate",
            new
            {
                service = "repad",
                before = Run,
                after = RunAt(88),
            }
        );
        var part = body.GetProperty("parts")[0];
        Assert.Equal(
            (200, "improved", -8.0, 3.27, -8.0),
            (
                status,
                body.GetProperty("outcome").GetString(),
                part.GetProperty("changeKelvin").GetDouble(),
                part.GetProperty("uncertaintyKelvin").GetDouble(),
                part.GetProperty("rawChangeCelsius").GetDouble()
            )
        );
        Assert.Empty((await _server.Get("/api/v1/jobs")).Body.EnumerateArray());
    }

    [Theory]
    [InlineData("{}", "/before")]
    [InlineData("""{"before":{"minutes":"x"}}""", "/before/minutes")]
    [InlineData(
        """{"before":{"workload":"a","minutes":0,"fan":{},"settings":"s","parts":[]},"after":null}""",
        "/before/fan/mode"
    )]
    [InlineData(
        """{"before":{"workload":"a","minutes":20,"fan":{"mode":"auto"},"settings":"s","parts":[{"part":"core","celsius":1e9}]}}""",
        "/before/parts/0/celsius"
    )]
    [InlineData("""{"service":"hammer"}""", "/service")]
    public async Task A_wrong_pair_of_runs_is_refused_with_pointers(string json, string pointer)
    {
        var (status, body) = await _server.Send("/api/v1/verdicts/evaluate", json, "application/json");
        Assert.Equal(400, status);
        Assert.Contains(body.GetProperty("errors").EnumerateArray(), e => e.GetProperty("pointer").GetString() == pointer);
    }

    [Fact]
    public async Task A_log_of_samples_is_settled_or_refused()
    {
        var minutes = Enumerable.Range(0, 60).Select(i => i / 3.0).ToArray();
        var (status, body) = await _server.Post(
            "/api/v1/runs/settle",
            new { minutes, celsius = minutes.Select(t => 74 - 42 * Math.Exp(-t / 3)) }
        );
        Assert.Equal((200, 74.0), (status, Math.Round(body.GetProperty("settledC").GetDouble(), 3)));
        Assert.Equal(400, (await _server.Post("/api/v1/runs/settle", new { minutes, celsius = new[] { 1.0 } })).Status);
        Assert.Equal(
            400,
            (await _server.Post("/api/v1/runs/settle", new { minutes = new double[6], celsius = new double[6] })).Status
        );
    }

    [Fact]
    public async Task Ten_thousand_levels_of_json_are_a_plain_refusal() =>
        Assert.Equal(
            400,
            (
                await _server.Send(
                    "/api/v1/verdicts/evaluate",
                    string.Concat(Enumerable.Repeat("{\"before\":", 10_000)),
                    "application/json"
                )
            ).Status
        );

    [Fact]
    public async Task One_job_from_the_first_measurement_to_the_proof()
    {
        await _server.LoadSmallFleet();
        var (_, queue) = await _server.Get("/api/v1/queue?wait=60");
        var first = queue.GetProperty("items")[0];
        Assert.Equal(
            ("GC-1", "dust", "dust-out"),
            (
                first.GetProperty("asset").GetString(),
                first.GetProperty("cause").GetString(),
                first.GetProperty("service").GetString()
            )
        );

        var (status, job) = await _server.Post("/api/v1/jobs", new { asset = "GC-1", level = "dust-out" });
        Assert.Equal(201, status);
        var bench = new Bench(_server, job);
        Assert.Equal(
            409,
            await bench.Try(
                new
                {
                    kind = "step-done",
                    step = "power-off",
                    @checks = new[] { "Its host is off, not asleep", "Every mains plug is out" },
                }
            )
        );
        Assert.Equal(409, await bench.Try(new { kind = "work-filed" }));
        Assert.Equal(
            409,
            await bench.Try(
                new
                {
                    kind = "run-measured",
                    phase = "after",
                    run = Run,
                }
            )
        );
        Assert.Equal(409, (await _server.Post("/api/v1/jobs", new { asset = "GC-1", level = "repad" })).Status);
        var (_, newest) = await _server.Get($"{bench.Url}/runs/from-readings");
        await bench.Do(
            new
            {
                kind = "run-measured",
                phase = "before",
                run = newest,
            }
        );
        Assert.Equal(
            400,
            await bench.Try(
                new
                {
                    kind = "run-measured",
                    phase = "before",
                    run = new { minutes = 3 },
                }
            )
        );
        await bench.DoAllSteps();
        await bench.Do(new { kind = "work-filed" });
        Assert.Equal("waiting-for-proof", bench.Job.GetProperty("state").GetString());
        Assert.Equal(409, await bench.Try(new { kind = "verdict-filed" }));

        var after = JsonSerializer.Deserialize<Dictionary<string, object?>>(newest)!;
        after["parts"] = newest
            .GetProperty("parts")
            .EnumerateArray()
            .Select(p => new { part = p.GetProperty("part").GetString(), celsius = p.GetProperty("celsius").GetDouble() - 9 });
        await bench.Do(
            new
            {
                kind = "run-measured",
                phase = "after",
                run = after,
            }
        );
        Assert.Equal("improved", bench.Job.GetProperty("preview").GetProperty("outcome").GetString());
        await bench.Do(new { kind = "verdict-filed" });
        Assert.Equal("proven", bench.Job.GetProperty("state").GetString());
        Assert.Equal("dust", bench.Job.GetProperty("predicted").GetProperty("cause").GetString());

        // The queue moves on: the service is in the book, and the machine no longer asks for one.
        (_, queue) = await _server.Get("/api/v1/queue?wait=60");
        var served = queue.GetProperty("items").EnumerateArray().Single(i => i.GetProperty("asset").GetString() == "GC-1");
        Assert.Equal(JsonValueKind.Null, served.GetProperty("service").ValueKind);
        var (_, machine) = await _server.Get("/api/v1/assets/GC-1");
        Assert.Equal("dust-out", machine.GetProperty("services")[0].GetProperty("level").GetString());
        Assert.Equal("improved", machine.GetProperty("jobs")[0].GetProperty("verdict").GetProperty("outcome").GetString());
    }
}
