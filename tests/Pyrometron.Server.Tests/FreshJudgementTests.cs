using System.Globalization;
using System.Text.Json;

namespace Pyrometron.Server.Tests;

/// <summary>A judgement is used again only if nothing that it rests on has changed since.</summary>
public sealed class FreshJudgementTests : IDisposable
{
    private readonly Server _server = new();

    public void Dispose() => _server.Dispose();

    private async Task<JsonElement> Queue() => (await _server.Get("/api/v1/queue?limit=all&wait=100")).Body;

    private static string[] Rows(JsonElement queue) =>
        [
            .. queue
                .GetProperty("items")
                .EnumerateArray()
                .Select(i => $"{i.GetProperty("asset")} {i.GetProperty("urgency")} {i.GetProperty("driftKelvin")}"),
        ];

    /// <summary>
    /// A year of readings that ended long ago, loaded into a server that has judged the empty house as of today; then one reading
    /// of today. Nobody is unknown for that, and the order is that of a server that starts with the same data.
    /// </summary>
    [Fact]
    public async Task One_reading_of_today_after_a_year_of_the_past_leaves_nobody_unknown()
    {
        await Queue();
        var fleet = File.ReadAllBytes(Server.Trial("practice-1/fleet.json"));
        Assert.Equal(200, (await _server.Send("/api/v1/fleet", fleet, "application/json")).Status);
        await Queue();
        var readings = File.ReadAllBytes(Server.Trial("practice-1/readings.csv.gz"));
        Assert.Equal(200, (await _server.Send("/api/v1/readings", readings, encoding: "gzip")).Status);
        var past = await Queue();

        var tag = past.GetProperty("items")[0].GetProperty("asset").GetString();
        var today = DateTime.UtcNow.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
        var one = $"time,asset,ambient_c,core_c\n{today}T00:00Z,{tag},25,71\n";
        Assert.Equal(200, (await _server.Send("/api/v1/readings", one)).Status);
        var now = await Queue();
        Assert.Equal(today, now.GetProperty("asOf").GetString());
        Assert.Equal(0, Count(now, "unknown") - Count(past, "unknown"));

        using var again = new Server(folder =>
        {
            foreach (var file in Directory.EnumerateFiles(_server.Folder, "pyrometron.db*"))
                File.Copy(file, Path.Combine(folder, Path.GetFileName(file)));
        });
        var fresh = (await again.Get("/api/v1/queue?limit=all&wait=100")).Body;
        Assert.Equal(Rows(fresh), Rows(now));
    }

    private static int Count(JsonElement queue, string urgency) =>
        queue.GetProperty("counts").TryGetProperty(urgency, out var count) ? count.GetInt32() : 0;
}
