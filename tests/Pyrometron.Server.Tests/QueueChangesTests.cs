using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Pyrometron.Server.Tests;

/// <summary>Who has a queue is told what has changed since, and comes to the same queue as who asks for all of it.</summary>
public sealed class QueueChangesTests : IDisposable
{
    private readonly Server _server = new();

    public void Dispose() => _server.Dispose();

    private async Task<JsonElement> Queue(string? since = null) =>
        (await _server.Get($"/api/v1/queue?limit=all&wait=100{(since is null ? "" : "&since=" + since)}")).Body;

    private static string Mark(JsonElement queue) => queue.GetProperty("mark").GetString()!;

    private static string[] Rows(IEnumerable<JsonElement> items) => [.. items.Select(i => i.GetRawText())];

    /// <summary>The rules by which a reader puts a change into the queue that it has.</summary>
    private static string[] Merged(JsonElement before, JsonElement change)
    {
        var items = change.GetProperty("items").EnumerateArray().ToArray();
        var moved = items.Select(i => i.GetProperty("asset").GetString()).ToHashSet();
        moved.UnionWith(change.GetProperty("gone").EnumerateArray().Select(g => g.GetString()));
        var stayed = new Queue<JsonElement>(
            before.GetProperty("items").EnumerateArray().Where(i => !moved.Contains(i.GetProperty("asset").GetString()))
        );
        var changed = new Queue<JsonElement>(items);
        var rows = new List<string>();
        while (stayed.Count + changed.Count > 0)
        {
            var rank = rows.Count + 1;
            if (changed.TryPeek(out var next) && (next.GetProperty("rank").GetInt32() == rank || stayed.Count == 0))
                rows.Add(changed.Dequeue().GetRawText());
            else
            {
                var row = JsonNode.Parse(stayed.Dequeue().GetRawText())!;
                row["rank"] = rank;
                rows.Add(JsonDocument.Parse(row.ToJsonString()).RootElement.GetRawText());
            }
        }
        return [.. rows];
    }

    private static string[] Plain(IEnumerable<string> rows) => [.. rows.Select(r => JsonNode.Parse(r)!.ToJsonString())];

    [Fact]
    public async Task Set_aside_retired_and_reported_machines_are_told_alone_and_lead_to_the_same_queue()
    {
        var fleet = File.ReadAllBytes(Server.Trial("practice-1/fleet.json"));
        Assert.Equal(200, (await _server.Send("/api/v1/fleet", fleet, "application/json")).Status);
        var before = await Queue();
        Assert.Equal(Mark(before), Mark(await Queue()));
        var none = await Queue(Mark(before));
        Assert.Equal(0, none.GetProperty("items").GetArrayLength());
        Assert.Equal(Mark(before), none.GetProperty("since").GetString());

        var tags = before.GetProperty("items").EnumerateArray().Select(i => i.GetProperty("asset").GetString()!).ToArray();
        var until = DateTime.UtcNow.AddDays(30).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
        var today = DateTime.UtcNow.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
        Func<Task>[] writes =
        [
            async () => await _server.Put($"/api/v1/assets/{tags[0]}/set-aside", new { reason = "looked", until }),
            async () => await _server.Post($"/api/v1/assets/{tags[^1]}/symptoms", new { kind = "crash", date = today }),
            async () => await _server.Post($"/api/v1/assets/{tags[3]}/retirement", new { retired = true, reason = "sold" }),
        ];
        foreach (var write in writes)
        {
            await write();
            var change = await Queue(Mark(before));
            var whole = await Queue();
            Assert.Equal(Mark(before), change.GetProperty("since").GetString());
            Assert.InRange(change.GetProperty("items").GetArrayLength() + change.GetProperty("gone").GetArrayLength(), 1, 40);
            Assert.Equal(Plain(Rows(whole.GetProperty("items").EnumerateArray())), Plain(Merged(before, change)));
            Assert.Equal(Mark(change), Mark(whole));
            before = whole;
        }
    }

    [Fact]
    public async Task A_mark_that_nobody_knows_brings_the_whole_queue()
    {
        var fleet = File.ReadAllBytes(Server.Trial("practice-1/fleet.json"));
        Assert.Equal(200, (await _server.Send("/api/v1/fleet", fleet, "application/json")).Status);
        var whole = await Queue();
        var again = await Queue("of-another-server");
        Assert.Equal(JsonValueKind.Null, again.GetProperty("since").ValueKind);
        Assert.Equal(whole.GetProperty("items").GetArrayLength(), again.GetProperty("items").GetArrayLength());
        // A part of the queue, or that of another day, has no mark.
        Assert.Equal(JsonValueKind.Null, (await _server.Get("/api/v1/queue?limit=3")).Body.GetProperty("mark").ValueKind);
    }
}
