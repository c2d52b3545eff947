using System.IO.Compression;
using System.Text;

namespace Pyrometron.Server.Tests;

public sealed class ImportTests : IDisposable
{
    private readonly Server _server = new();

    public void Dispose() => _server.Dispose();

    private static byte[] Gzip(string text)
    {
        using var packed = new MemoryStream();
        using (var gzip = new GZipStream(packed, CompressionLevel.Fastest))
            gzip.Write(Encoding.UTF8.GetBytes(text));
        return packed.ToArray();
    }

    [Fact]
    public async Task Readings_with_semicolons_are_refused_with_a_question_and_taken_when_it_is_answered()
    {
        await _server.LoadSmallFleet();
        var text = $"time;asset;core_c\n{DateTime.UtcNow:yyyy-MM-ddTHH:mm}Z;GC-1;61,5\n";
        var (status, body) = await _server.Send("/api/v1/readings", text, "text/csv");
        var question = body.GetProperty("questions")[0];
        Assert.Equal((400, "delimiter"), (status, question.GetProperty("about").GetString()));
        var choice = question.GetProperty("choices")[0].GetString();
        (status, body) = await _server.Send($"/api/v1/readings?delimiter={choice}", text, "text/csv");
        Assert.Equal((200, 1), (status, body.GetProperty("accepted").GetInt32()));
        (status, body) = await _server.Send("/api/v1/readings?delimiter=bar", text, "text/csv");
        Assert.Equal((400, "/delimiter"), (status, body.GetProperty("errors")[0].GetProperty("pointer").GetString()));
    }

    [Fact]
    public async Task Practice_1_loads_as_it_is_and_is_ranked_well()
    {
        var (status, body) = await _server.Send(
            "/api/v1/fleet",
            await File.ReadAllBytesAsync(Server.Trial("practice-1/fleet.json")),
            "application/json"
        );
        Assert.Equal((200, 160), (status, body.GetProperty("created").GetInt32()));
        (status, body) = await _server.Send(
            "/api/v1/readings",
            await File.ReadAllBytesAsync(Server.Trial("practice-1/readings.csv.gz")),
            "text/csv",
            "gzip"
        );
        Assert.Equal(
            (200, 128_226L, 0L),
            (status, body.GetProperty("accepted").GetInt64(), body.GetProperty("rejectedCount").GetInt64())
        );
        (status, body) = await _server.Send(
            "/api/v1/services",
            await File.ReadAllBytesAsync(Server.Trial("practice-1/services.csv"))
        );
        Assert.Equal((200, 0L), (status, body.GetProperty("accepted").GetInt64()));
        Assert.True(body.GetProperty("duplicates").GetInt64() > 100);

        (status, body) = await _server.Get("/api/v1/queue?asOf=2025-09-25&limit=all&wait=120");
        Assert.Equal((200, "2025-09-25"), (status, body.GetProperty("asOf").GetString()));
        Assert.False(body.TryGetProperty("pending", out _));
        var items = body.GetProperty("items").EnumerateArray().ToArray();
        Assert.Equal(160, items.Select(i => i.GetProperty("asset").GetString()).Distinct().Count());
        Assert.Equal(Enumerable.Range(1, 160), items.Select(i => i.GetProperty("rank").GetInt32()));
        var needing = System
            .Text.Json.JsonDocument.Parse(await File.ReadAllBytesAsync(Server.Trial("practice-1/truth.json")))
            .RootElement.GetProperty("assets")
            .EnumerateArray()
            .Where(a => a.GetProperty("needsWork").GetBoolean())
            .Select(a => a.GetProperty("asset").GetString())
            .ToHashSet();
        var found = items.Take(needing.Count).Count(i => needing.Contains(i.GetProperty("asset").GetString()));
        Assert.True(found >= 0.8 * needing.Count, $"{found} of {needing.Count}");

        // With no reading newer than 30 days the newest reading's day is judged without being asked for.
        (_, body) = await _server.Get("/api/v1/queue?limit=3&wait=120");
        Assert.Equal(("2025-09-25", 3), (body.GetProperty("asOf").GetString(), body.GetProperty("items").GetArrayLength()));
    }

    [Fact]
    public async Task A_fleet_document_comes_back_the_same_and_twice_changes_nothing()
    {
        var document = await File.ReadAllBytesAsync(Server.Trial("practice-2/fleet.json"));
        await _server.Send("/api/v1/fleet", document, "application/json");
        var (_, twice) = await _server.Send("/api/v1/fleet", Gzip(Encoding.UTF8.GetString(document)), "application/json", "gzip");
        Assert.Equal(
            (0, 0, 160),
            (
                twice.GetProperty("created").GetInt32(),
                twice.GetProperty("updated").GetInt32(),
                twice.GetProperty("unchanged").GetInt32()
            )
        );
        var (_, back) = await _server.Get("/api/v1/fleet");
        Assert.True(System.Text.Json.JsonElement.DeepEquals(System.Text.Json.JsonDocument.Parse(document).RootElement, back));
    }

    [Fact]
    public async Task Good_lines_are_kept_bad_ones_are_listed_and_sending_again_adds_nothing()
    {
        await _server.LoadSmallFleet();
        const string file =
            "time,asset,core_c\n2026-01-01T00:30Z,GC-1,60\n2026-01-01T00:30Z,GC-9,60\n2026-01-01T00:30+00:00,GC-1,61\n2026-01-01T00:31Z,GC-1,warm\n";
        var (status, body) = await _server.Send("/api/v1/readings", file);
        Assert.Equal(
            (200, 1, 0, 3),
            (
                status,
                body.GetProperty("accepted").GetInt32(),
                body.GetProperty("duplicates").GetInt32(),
                body.GetProperty("rejectedCount").GetInt32()
            )
        );
        Assert.Equal(
            [(3, "asset"), (4, null), (5, "core_c")],
            body.GetProperty("rejected")
                .EnumerateArray()
                .Select(r => (r.GetProperty("line").GetInt32(), r.GetProperty("column").GetString()))
        );
        Assert.Contains(
            "with other values",
            body.GetProperty("rejected")[1].GetProperty("message").GetString(),
            StringComparison.Ordinal
        );
        (_, body) = await _server.Send("/api/v1/readings", file);
        Assert.Equal((0, 1), (body.GetProperty("accepted").GetInt32(), body.GetProperty("duplicates").GetInt32()));
    }

    [Fact]
    public async Task A_truncated_gzip_stores_nothing()
    {
        await _server.LoadSmallFleet();
        var packed = Gzip(
            "time,asset,core_c\n"
                + string.Concat(Enumerable.Range(0, 900).Select(i => $"2020-01-01T{i / 60 % 24:00}:{i % 60:00}Z,GC-1,60\n"))
        );
        var (status, body) = await _server.Send("/api/v1/readings", packed[..^4], "text/csv", "gzip");
        Assert.Equal(400, status);
        Assert.Contains("nothing of it was stored", body.GetProperty("detail").GetString(), StringComparison.Ordinal);
        (_, body) = await _server.Send("/api/v1/readings", packed, "application/gzip");
        Assert.Equal(900, body.GetProperty("accepted").GetInt32());
    }

    [Theory]
    [InlineData("/api/v1/fleet", "{\"format\":\"pyrometron-fleet/1\",\"sites\":[],\"assets\":[{}]}", "/assets/0/tag")]
    [InlineData("/api/v1/fleet", "not json", "")]
    [InlineData("/api/v1/readings", "a,b\n1,2\n", null)]
    [InlineData("/api/v1/services", "", null)]
    public async Task A_broken_body_changes_nothing_and_says_where(string path, string text, string? pointer)
    {
        var (status, body) = await _server.Send(path, text);
        Assert.Equal(400, status);
        var error = body.GetProperty("errors").EnumerateArray();
        Assert.Contains(
            error,
            e => pointer is null ? e.GetProperty("line").GetInt32() == 1 : e.GetProperty("pointer").GetString() == pointer
        );
        Assert.Empty((await _server.Get("/api/v1/fleet")).Body.GetProperty("assets").EnumerateArray());
    }

    [Fact]
    public async Task What_comes_in_for_a_retired_machine_is_kept_and_told()
    {
        await _server.LoadSmallFleet();
        await _server.Post("/api/v1/assets/GC-3/retirement", new { retired = true, reason = "sold" });
        var readings = (await _server.Send("/api/v1/readings", "time,asset,core_c\n2026-01-10T10:00Z,GC-3,71\n")).Body;
        var services = (await _server.Send("/api/v1/services", "date,asset,level\n2026-01-10,GC-3,dust-out\n")).Body;
        foreach (var answer in new[] { readings, services })
        {
            Assert.Equal(1, answer.GetProperty("accepted").GetInt32());
            Assert.StartsWith("GC-3 was retired on", answer.GetProperty("warnings")[0].GetString(), StringComparison.Ordinal);
        }
    }
}
