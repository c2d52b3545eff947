using System.Text;
using System.Text.Json;

namespace Pyrometron.Server.Tests;

/// <summary>
/// An import undone as a whole: what it created goes, what it changed comes back, until something was built on it.
/// </summary>
public sealed class UndoTests : IDisposable
{
    private readonly Server _server = new();

    public void Dispose() => _server.Dispose();

    private async Task<JsonElement[]> Imports() => [.. (await _server.Get("/api/v1/imports")).Body.EnumerateArray()];

    private async Task<(int Status, JsonElement Body)> UndoNewest()
    {
        var newest = (await Imports()).First(i => i.GetProperty("undoneAt").ValueKind == JsonValueKind.Null);
        return await _server.Post($"/api/v1/imports/{newest.GetProperty("id").GetInt64()}/undo", new { });
    }

    private async Task<string> Fleet() => (await _server.Get("/api/v1/fleet")).Body.GetRawText();

    private static string Machine(string tag, string model, string zone, string services = "") =>
        $$"""{"tag":"{{tag}}","kind":"desktop","model":"{{model}}","zone":"{{zone}}","dutyHoursPerDay":8,"inServiceSince":"2024-01-10","parts":[{"part":"cpu","limitCelsius":95,"interface":"paste"}],"services":[{{services}}]}""";

    private static string Document(string zones, string machines) =>
        $$"""{"format":"pyrometron-fleet/1","sites":[{"code":"S","name":"Site","altitudeMetres":5,"zones":[{{zones}}]}],"assets":[{{machines}}]}""";

    private static string Zone(string code, string dust) =>
        $$"""{"code":"{{code}}","name":"Room {{code}}","dust":"{{dust}}","designAmbientCelsius":30}""";

    private async Task Take(string path, string body) => Assert.Equal(200, (await _server.Send(path, body)).Status);

    [Fact]
    public async Task A_fleet_document_taken_back_leaves_the_fleet_as_it_was()
    {
        await Take(
            "/api/v1/fleet",
            Document(Zone("A", "clean"), Machine("D1", "Petrel", "A") + "," + Machine("D2", "Petrel", "A"))
        );
        var before = await Fleet();
        await Take(
            "/api/v1/fleet",
            Document(
                Zone("A", "heavy") + "," + Zone("B", "normal"),
                Machine("D1", "Gannet", "B", """{"date":"2025-03-01","level":"dust-out"}""") + "," + Machine("D3", "Petrel", "B")
            )
        );
        Assert.NotEqual(before, await Fleet());
        Assert.Equal(204, (await UndoNewest()).Status);
        Assert.Equal(before, await Fleet());
        Assert.Equal(2, (await _server.Get("/api/v1/queue?limit=all&wait=60")).Body.GetProperty("total").GetInt32());
        // What was changed and put back is in the book of D1: the import that created it stays.
        Assert.Equal(409, (await UndoNewest()).Status);
    }

    [Fact]
    public async Task A_zone_edited_since_keeps_the_document_that_brought_it()
    {
        await Take("/api/v1/fleet", Document(Zone("A", "clean"), Machine("D1", "Petrel", "A")));
        Assert.Equal(204, (await _server.Put("/api/v1/zones/A", new { dust = "clean" })).Status);
        Assert.Equal(204, (await _server.Put("/api/v1/zones/A", new { dust = "heavy" })).Status);
        var (status, answer) = await UndoNewest();
        Assert.Equal(409, status);
        Assert.Contains("zone was changed since", answer.GetProperty("detail").GetString());
    }

    [Fact]
    public async Task The_first_document_taken_back_leaves_an_empty_house()
    {
        await Take("/api/v1/fleet", Document(Zone("A", "clean"), Machine("D1", "Petrel", "A")));
        Assert.Equal(204, (await UndoNewest()).Status);
        var fleet = (await _server.Get("/api/v1/fleet")).Body;
        Assert.Empty(fleet.GetProperty("assets").EnumerateArray());
        Assert.Empty(fleet.GetProperty("sites").EnumerateArray());
        Assert.Equal(0, (await _server.Get("/api/v1/queue?wait=60")).Body.GetProperty("total").GetInt32());
    }

    /// <summary>A machine that another one came to stand in is not taken away under it.</summary>
    [Fact]
    public async Task A_host_stays_as_long_as_something_stands_in_it()
    {
        await Take("/api/v1/fleet", Document(Zone("A", "clean"), Machine("D1", "Petrel", "A")));
        var first = (await Imports())[0].GetProperty("id").GetInt64();
        var inside = Machine("D2", "Petrel", "A").Replace("\"zone\"", "\"hostTag\":\"D1\",\"zone\"", StringComparison.Ordinal);
        await Take("/api/v1/fleet", Document(Zone("A", "clean"), Machine("D1", "Petrel", "A") + "," + inside));
        var (status, body) = await _server.Post($"/api/v1/imports/{first}/undo", new { });
        Assert.Equal(409, status);
        Assert.Contains("D2", body.GetProperty("detail").GetString(), StringComparison.Ordinal);
        Assert.Equal(204, (await UndoNewest()).Status);
        Assert.Equal(204, (await UndoNewest()).Status);
    }

    [Fact]
    public async Task Readings_taken_back_are_gone_from_the_judgement_and_those_before_stay()
    {
        await _server.LoadSmallFleet();
        async Task<string> Judged() =>
            (await _server.Get("/api/v1/queue?limit=all&wait=60"))
                .Body.GetProperty("items")
                .EnumerateArray()
                .Single(i => i.GetProperty("asset").GetString() == "GC-4")
                .GetRawText();
        var before = await Judged();
        var hot = new StringBuilder("time,asset,ambient_c,power_w,core_c,memory_c,fan_rpm,fan_pct,settings,workload\n");
        for (var minute = 0; minute < 40; minute++)
            hot.Append(
                FormattableString.Invariant(
                    $"{DateTime.UtcNow.AddHours(-3):yyyy-MM-dd}T0{minute % 3}:{minute:00}Z,GC-4,25.0,222,99,100,1905,60,stock,steady\n"
                )
            );
        await Take("/api/v1/readings", hot.ToString());
        Assert.NotEqual(before, await Judged());
        Assert.Equal(204, (await UndoNewest()).Status);
        Assert.Equal(before, await Judged());
        // The same file again is new again.
        Assert.Equal(40, (await _server.Send("/api/v1/readings", hot.ToString())).Body.GetProperty("accepted").GetInt32());
    }

    [Fact]
    public async Task What_something_was_built_on_stays_and_says_what()
    {
        await _server.LoadSmallFleet();
        var fleet = (await Imports()).Single(i => i.GetProperty("kind").GetString() == "fleet").GetProperty("id").GetInt64();
        var (status, body) = await _server.Post($"/api/v1/imports/{fleet}/undo", new { });
        Assert.Equal(409, status);
        Assert.Contains("has readings", body.GetProperty("detail").GetString(), StringComparison.Ordinal);
        var at = (await _server.Get("/api/v1/assets/GC-2/readings?count=1")).Body[0].GetProperty("at").GetString();
        Assert.Equal(
            204,
            (
                await _server.Post(
                    "/api/v1/assets/GC-2/readings/void",
                    new
                    {
                        at,
                        voided = true,
                        reason = "hand on it",
                    }
                )
            ).Status
        );
        (status, body) = await UndoNewest();
        Assert.Equal(409, status);
        Assert.Contains("GC-2 was corrected or voided", body.GetProperty("detail").GetString(), StringComparison.Ordinal);
        Assert.Equal(404, (await _server.Post("/api/v1/imports/4711/undo", new { })).Status);
    }

    [Fact]
    public async Task Services_taken_back_and_taken_again()
    {
        await _server.LoadSmallFleet();
        await Take("/api/v1/services", "date,asset,level\n2026-01-10,GC-1,dust-out\n2026-01-11,GC-2,repaste\n");
        Assert.Equal(204, (await UndoNewest()).Status);
        Assert.Empty((await _server.Get("/api/v1/assets/GC-1")).Body.GetProperty("services").EnumerateArray());
        Assert.Equal(
            409,
            (await _server.Post($"/api/v1/imports/{(await Imports())[0].GetProperty("id").GetInt64()}/undo", new { })).Status
        );
        Assert.Equal(
            2,
            (await _server.Send("/api/v1/services", "date,asset,level\n2026-01-10,GC-1,dust-out\n2026-01-11,GC-2,repaste\n"))
                .Body.GetProperty("accepted")
                .GetInt32()
        );
    }
}
