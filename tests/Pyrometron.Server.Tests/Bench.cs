using System.Text.Json;

namespace Pyrometron.Server.Tests;

/// <summary>A device at one job: writes entries as the page does.</summary>
internal sealed class Bench(Server server, JsonElement job, string device = "phone")
{
    public JsonElement Job { get; private set; } = job;

    public string Url => $"/api/v1/jobs/{Job.GetProperty("id").GetInt64()}";

    public int Version => Job.GetProperty("version").GetInt32();

    /// <summary>A repaste of GC-1 in a small fleet, with its before-run.</summary>
    public static async Task<Bench> Measured(Server server)
    {
        await server.LoadSmallFleet();
        var bench = await Start(server, "GC-1", "repaste");
        await bench.Do(
            new
            {
                kind = "run-measured",
                phase = "before",
                run = new
                {
                    workload = "steady",
                    minutes = 20,
                    ambientCelsius = 25,
                    fan = new { mode = "fixed", percent = 100 },
                    settings = "stock",
                    parts = new[] { new { part = "core", celsius = 90 } },
                },
            }
        );
        return bench;
    }

    public static async Task<Bench> Start(Server server, string asset, string level, string? warrantyAnswer = null)
    {
        var (status, job) = await server.Post(
            "/api/v1/jobs",
            new
            {
                asset,
                level,
                warrantyAnswer,
            }
        );
        Assert.Equal(201, status);
        return new Bench(server, job);
    }

    public Task<(int Status, JsonElement Body)> Send(
        object entry,
        int? version = null,
        Guid? key = null,
        DateTimeOffset? madeAt = null
    ) =>
        server.Post(
            $"{Url}/entries",
            new
            {
                key = key ?? Guid.NewGuid(),
                version = version ?? Version,
                device,
                by = "M. Larkspur",
                madeAt,
                entry,
            }
        );

    /// <summary>Writes what must be taken.</summary>
    public async Task Do(object entry, DateTimeOffset? madeAt = null)
    {
        var (status, body) = await Send(entry, madeAt: madeAt);
        Assert.True(status == 200, body.ToString());
        Job = body;
    }

    /// <summary>Writes what must be refused; the job has to stay as it was.</summary>
    public async Task<int> Try(object entry)
    {
        var before = (await server.Get(Url)).Body.ToString();
        var (status, _) = await Send(entry);
        Assert.Equal(before, (await server.Get(Url)).Body.ToString());
        return status;
    }

    public async Task Reload() => Job = (await server.Get(Url)).Body;

    /// <summary>Does what is left of the card, gates, grades, counts and times included.</summary>
    public async Task DoAllSteps(string? until = null)
    {
        var at = DateTimeOffset.UtcNow;
        foreach (
            var step in Job.GetProperty("steps")
                .EnumerateArray()
                .Where(s => s.GetProperty("doneAt").ValueKind == JsonValueKind.Null)
                .ToArray()
        )
        {
            var id = step.GetProperty("id").GetString();
            if (id == until)
                return;
            await Count(step.GetProperty("form").GetString()!.Split('-'));
            if (step.GetProperty("form").GetString() == "inspection")
                await Do(
                    new
                    {
                        kind = "found",
                        about = "dust",
                        grade = "3",
                    }
                );
            if (step.GetProperty("form").GetString() == "corrosion-inspection")
                await Do(
                    new
                    {
                        kind = "found",
                        about = "corrosion",
                        grade = "film",
                    }
                );
            if (step.GetProperty("form").GetString() == "joint-inspection")
                await Do(
                    new
                    {
                        kind = "found",
                        about = "paste",
                        grade = "dry",
                    }
                );
            if (
                step.GetProperty("timer") is { ValueKind: JsonValueKind.Object } timer
                && timer.GetProperty("required").GetBoolean()
            )
                await Do(
                    new
                    {
                        kind = "timer-started",
                        timer = id,
                        seconds = timer.GetProperty("seconds").GetInt32(),
                    },
                    at.AddSeconds(-1 - timer.GetProperty("seconds").GetInt32())
                );
            await Do(
                new
                {
                    kind = "step-done",
                    step = id,
                    checks = step.GetProperty("gate").EnumerateArray().Select(g => g.GetString()).ToArray(),
                }
            );
        }
    }

    /// <summary>Counts as many as the notes list, or four screws and one lead; and all of them in again.</summary>
    private async Task Count(string[] form)
    {
        if (form[0] is not ("screws" or "connectors") || form.Length != 2)
            return;
        var (what, back) = (form[0], form[1] == "in");
        (string Item, int Out)[] listed =
        [
            .. Job.GetProperty(back ? "counts" : "expected")
                .EnumerateArray()
                .Where(c => c.GetProperty("what").GetString() == what)
                .Select(c => (c.GetProperty("item").GetString()!, c.GetProperty("out").GetInt32())),
        ];
        if (!back && Job.GetProperty("counts").EnumerateArray().Any(c => c.GetProperty("what").GetString() == what))
            return;
        if (listed.Length == 0 && !back)
            listed = [what == "screws" ? ("4 mm PH1", 4) : ("fan lead", 1)];
        foreach (var (item, count) in listed)
            await Do(
                new
                {
                    kind = "counted",
                    what,
                    item,
                    @out = count,
                    @in = back ? count : 0,
                }
            );
    }
}
