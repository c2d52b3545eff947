using System.Globalization;
using System.Text;
using System.Text.Json;

namespace Pyrometron.Server.Tests;

/// <summary>As of when a judgement is, what it knew then, and what happens while newer data is still being judged.</summary>
public sealed class JudgedDaysTests : IDisposable
{
    private readonly Server _server = new();

    public void Dispose() => _server.Dispose();

    private static DateOnly Today => DateOnly.FromDateTime(DateTime.UtcNow);

    private async Task<JsonElement> Queue(string query = "") =>
        (await _server.Get($"/api/v1/queue?limit=all&wait=60{query}")).Body;

    private static JsonElement Machine(JsonElement queue, string tag) =>
        queue.GetProperty("items").EnumerateArray().Single(i => i.GetProperty("asset").GetString() == tag);

    private static string Day(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    [Fact]
    public async Task An_earlier_day_is_judged_by_what_was_known_then()
    {
        await _server.LoadSmallFleet();
        var now = Machine(await Queue(), "GC-1").GetProperty("driftKelvin").GetDouble();
        var day = Today.AddDays(-150);
        var then = Machine(await Queue($"&asOf={Day(day)}"), "GC-1").GetProperty("driftKelvin").GetDouble();
        // Nine kelvin in 300 days, half of them gone by.
        Assert.InRange(now, 7, 10);
        Assert.InRange(then, 2.5, 6);
        var (_, assessment) = await _server.Get($"/api/v1/assets/GC-1/assessment?asOf={Day(day)}&wait=60");
        Assert.True(
            assessment.GetProperty("newestReading").GetDateTimeOffset()
                < new DateTimeOffset(day.AddDays(1).ToDateTime(TimeOnly.MinValue), TimeSpan.Zero)
        );
        Assert.Equal(Day(day), assessment.GetProperty("asOf").GetString());
        // A service of a later day was not known then; today it is.
        Assert.Equal(
            204,
            (await _server.Post("/api/v1/assets/GC-1/services", new { date = Day(Today), level = "dust-out" })).Status
        );
        Assert.Equal(then, Machine(await Queue($"&asOf={Day(day)}"), "GC-1").GetProperty("driftKelvin").GetDouble(), 1e-9);
        Assert.True(Machine(await Queue(), "GC-1").GetProperty("driftKelvin").GetDouble() < 2);
    }

    [Fact]
    public async Task Before_its_first_reading_nothing_is_known_of_a_machine()
    {
        await _server.LoadSmallFleet();
        var item = Machine(await Queue($"&asOf={Day(Today.AddDays(-380))}"), "GC-1");
        Assert.Equal("unknown", item.GetProperty("urgency").GetString());
        Assert.Equal(JsonValueKind.Null, item.GetProperty("driftKelvin").ValueKind);
        Assert.StartsWith("No readings yet", item.GetProperty("reason").GetString(), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("asOf=1970-01-01", 400)]
    [InlineData("asOf=2099-01-01", 400)]
    [InlineData("asOf=yesterday", 400)]
    [InlineData("limit=-1", 400)]
    [InlineData("limit=some", 400)]
    [InlineData("limit=0", 200)]
    public async Task A_day_or_a_number_that_is_none_is_refused(string query, int expected) =>
        Assert.Equal(expected, (await _server.Get("/api/v1/queue?" + query)).Status);

    [Fact]
    public async Task While_newer_data_is_judged_the_older_answer_says_so_and_the_newer_one_follows()
    {
        await _server.LoadSmallFleet();
        var before = (await Queue()).GetProperty("judgedAt").GetDateTimeOffset();
        var csv = new StringBuilder("time,asset,ambient_c,power_w,core_c,memory_c,fan_rpm,fan_pct,settings,workload\n");
        for (var minute = 0; minute < 50; minute++)
            csv.Append(
                FormattableString.Invariant(
                    $"{Day(Today.AddDays(-1))}T07:{minute:00}Z,GC-4,25.0,222,72,80,1905,60,stock,steady\n"
                )
            );
        Assert.Equal(200, (await _server.Send("/api/v1/readings", csv.ToString())).Status);
        var (_, at_once) = await _server.Get("/api/v1/queue?wait=0");
        // Either it says that it is older, or it is the newer one already.
        Assert.True(
            at_once.TryGetProperty("pending", out var pending)
                ? pending.GetBoolean()
                : at_once.GetProperty("judgedAt").GetDateTimeOffset() > before
        );
        var after = await Queue();
        Assert.False(after.TryGetProperty("pending", out _));
        Assert.True(after.GetProperty("judgedAt").GetDateTimeOffset() > before);
        Assert.Equal(8, after.GetProperty("total").GetInt32());
    }

    [Fact]
    public async Task A_machine_that_is_retired_leaves_the_queue_and_comes_back_with_its_history()
    {
        await _server.LoadSmallFleet();
        var drift = Machine(await Queue(), "GC-1").GetProperty("driftKelvin").GetDouble();
        Assert.Equal(204, (await _server.Post("/api/v1/assets/GC-1/retirement", new { retired = true, reason = "sold" })).Status);
        var without = await Queue();
        Assert.Equal(7, without.GetProperty("total").GetInt32());
        Assert.Equal(409, (await _server.Get("/api/v1/assets/GC-1/assessment")).Status);
        Assert.Equal(204, (await _server.Post("/api/v1/assets/GC-1/retirement", new { retired = false })).Status);
        Assert.Equal(drift, Machine(await Queue(), "GC-1").GetProperty("driftKelvin").GetDouble(), 0.3);
    }

    /// <summary>Whoever gives up waiting does not stop the work for the next one.</summary>
    [Fact]
    public async Task Many_who_ask_at_once_get_one_and_the_same_judgement()
    {
        await _server.LoadSmallFleet();
        var day = Day(Today.AddDays(-30));
        var answers = await Task.WhenAll(
            Enumerable.Range(0, 12).Select(i => _server.Get($"/api/v1/queue?asOf={day}&wait={(i % 3 == 0 ? 0 : 60)}"))
        );
        Assert.All(answers, a => Assert.Equal(200, a.Status));
        var patient = answers
            .Where((_, i) => i % 3 != 0)
            .Select(a => a.Body.GetProperty("judgedAt").GetDateTimeOffset())
            .Distinct();
        Assert.Single(patient);
    }
}
