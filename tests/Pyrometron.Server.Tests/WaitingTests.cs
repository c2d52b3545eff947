using System.Text.Json;

namespace Pyrometron.Server.Tests;

/// <summary>What waiting with advised work means, as a client sees it.</summary>
public sealed class WaitingTests : IAsyncLifetime, IDisposable
{
    private readonly Server _server = new();

    public async Task InitializeAsync()
    {
        await _server.LoadSmallFleet();
        await _server.Get("/api/v1/queue?wait=20");
    }

    public Task DisposeAsync() => Task.CompletedTask;

    public void Dispose() => _server.Dispose();

    private async Task<JsonElement> Look(string path)
    {
        var (status, body) = await _server.Get(path);
        Assert.Equal(200, status);
        return body;
    }

    private static JsonElement[] Options(JsonElement of) => [.. of.GetProperty("options").EnumerateArray()];

    private static string[] When(JsonElement of) => [.. Options(of).Select(o => o.GetProperty("when").GetString()!)];

    [Fact]
    public async Task Now_is_what_the_advised_level_is_worth_and_never_is_nothing()
    {
        var waiting = await Look("/api/v1/assets/GC-1/waiting");
        Assert.Equal(["now", "month", "never"], When(waiting));
        var machine = await Look("/api/v1/assets/GC-1/assessment");
        var advised = machine
            .GetProperty("levels")
            .EnumerateArray()
            .Single(l => l.GetProperty("level").GetString() == machine.GetProperty("service").GetString());
        var options = Options(waiting);
        var (now, never) = (options[0].GetProperty("value"), options[2].GetProperty("value"));
        Assert.Equal(advised.GetProperty("value").GetProperty("net").GetDouble(), now.GetProperty("net").GetDouble(), 0.02);
        Assert.Equal(0, never.GetProperty("net").GetDouble());
        Assert.Equal(now.GetProperty("net").GetDouble(), options[2].GetProperty("costs").GetDouble(), 0.011);
        var chances = options.Select(o => o.GetProperty("pastLine").GetDouble()).ToList();
        Assert.Equal(chances.Order(), chances);
        Assert.All(chances, c => Assert.InRange(c, 0, 1));
    }

    [Fact]
    public async Task A_zone_is_the_sum_of_its_machines_with_advised_work()
    {
        var (zone, machine) = (await Look("/api/v1/zones/Z/waiting"), await Look("/api/v1/assets/GC-1/waiting"));
        Assert.Equal(1, zone.GetProperty("machines").GetInt32());
        Assert.Equal(Options(machine)[1].GetProperty("costs").GetDouble(), Options(zone)[1].GetProperty("costs").GetDouble());
        Assert.Equal(404, (await _server.Get("/api/v1/zones/nowhere/waiting")).Status);
    }

    [Fact]
    public async Task A_zone_that_is_closed_now_has_a_next_window()
    {
        var until = DateOnly.FromDateTime(DateTime.UtcNow).AddDays(4);
        var times = new
        {
            setupMinutes = 10,
            open = Array.Empty<object>(),
            closed = new[]
            {
                new
                {
                    from = "2026-01-01",
                    to = until.ToString("yyyy-MM-dd"),
                    reason = "exams",
                },
            },
        };
        Assert.Equal(204, (await _server.Put("/api/v1/zones/Z/times", times)).Status);
        var window = Assert.Single(
            Options(await Look("/api/v1/assets/GC-1/waiting")),
            o => o.GetProperty("when").GetString() == "window"
        );
        Assert.Equal(until.AddDays(1).ToString("yyyy-MM-dd"), window.GetProperty("day").GetString());
    }

    [Fact]
    public async Task Where_nothing_is_advised_nothing_is_told()
    {
        Assert.Empty(Options(await Look("/api/v1/assets/GC-2/waiting")));
        Assert.Equal(404, (await _server.Get("/api/v1/assets/GC-99/waiting")).Status);
    }
}
