using System.Text.Json;

namespace Pyrometron.Server.Tests;

/// <summary>
/// A list of machines from a spreadsheet becomes a fleet: shown first, then taken; asked once, then remembered.
/// </summary>
public sealed class TableTests : IDisposable
{
    private const string Thirty = "Inventarnr;Typ;Modell;Raum;Gekauft am;Garantie bis;Letzte Reinigung\r\n";

    private readonly Server _server = new();

    public void Dispose() => _server.Dispose();

    private async Task<JsonElement> Take(string table, string query = "", int expected = 200)
    {
        var (status, body) = await _server.Send("/api/v1/fleet/table" + query, table, "text/csv");
        Assert.True(status == expected, body.ToString());
        return body;
    }

    private static (int, int, int) Counts(JsonElement answer) =>
        (
            answer.GetProperty("created").GetInt32(),
            answer.GetProperty("updated").GetInt32(),
            answer.GetProperty("unchanged").GetInt32()
        );

    private static string Rows(int count) =>
        Thirty
        + string.Concat(
            Enumerable
                .Range(1, count)
                .Select(i => $"PC-{i:000};Desktop-PC;Petrel 7;Büro {1 + i % 3};1.4.2022;31.3.2025;{i % 28 + 1}.2.2023\r\n")
        );

    [Fact]
    public async Task A_dry_run_shows_what_would_be_and_stores_nothing_then_it_is_taken_and_taken_again_changes_nothing()
    {
        var dry = await Take(Rows(30), "?dryRun=true");
        Assert.Equal((30, 0, 0), Counts(dry));
        Assert.Empty((await _server.Get("/api/v1/assets")).Body.EnumerateArray());
        Assert.Equal(8, dry.GetProperty("preview").GetArrayLength());
        Assert.Equal((30, 0, 0), Counts(await Take(Rows(30))));
        Assert.Equal((0, 0, 30), Counts(await Take(Rows(30))));
        Assert.Equal(
            (0, 1, 29),
            Counts(await Take(Rows(30).Replace("PC-007;Desktop-PC;Petrel 7", "PC-007;Desktop-PC;Petrel 9")))
        );
        var (_, machine) = await _server.Get("/api/v1/assets/PC-001");
        Assert.Equal("desktop", machine.GetProperty("kind").GetString());
        Assert.Equal("Büro 2", machine.GetProperty("zoneName").GetString());
        Assert.Equal("2022-04-01", machine.GetProperty("inServiceSince").GetString());
        Assert.Equal("dust-out", machine.GetProperty("services")[0].GetProperty("level").GetString());
        // What was put in is named.
        string[] defaults = [.. dry.GetProperty("defaults").EnumerateArray().Select(d => d.GetProperty("field").GetString()!)];
        Assert.Contains("parts", defaults);
        Assert.Contains("dutyHoursPerDay", defaults);
        Assert.Contains("site", defaults);
        Assert.DoesNotContain("inServiceSince", defaults);
    }

    [Fact]
    public async Task What_is_settled_by_hand_is_remembered()
    {
        const string table = "Kennung\tArt\tHaus\nA-1\tKlapptisch\tNord\n";
        var asked = await Take(table, "?dryRun=true");
        Assert.Contains(asked.GetProperty("questions").EnumerateArray(), q => q.GetProperty("about").GetString() == "Haus");
        var taken = await Take(table, "?map=Kennung:tag&map=Art:kind&map=Haus:site&means=Klapptisch:laptop");
        Assert.Equal((1, 0, 0), Counts(taken));
        Assert.All(taken.GetProperty("columns").EnumerateArray(), c => Assert.False(c.GetProperty("guessed").GetBoolean()));
        var later = await Take("Kennung\tArt\tHaus\nA-2\tKlapptisch\tNord\n");
        Assert.Equal((1, 0, 0), Counts(later));
        Assert.Empty(later.GetProperty("questions").EnumerateArray());
        Assert.Equal("laptop", (await _server.Get("/api/v1/assets/A-2")).Body.GetProperty("kind").GetString());
    }

    [Fact]
    public async Task A_line_that_cannot_be_taken_is_left_out_and_the_others_are_taken()
    {
        var answer = await Take(
            "tag,model,hostTag\nRIG-1,Tern 2U server,\nGC-1,Sorrel GPU,RIG-1\nGC-2,Sorrel GPU,NOWHERE\nX-1,Some thing,\n"
        );
        Assert.Equal((2, 0, 0), Counts(answer));
        var refused = answer.GetProperty("refused").EnumerateArray().ToArray();
        Assert.Equal([4, 5], refused.Select(r => r.GetProperty("line").GetInt32()));
        Assert.Contains("NOWHERE", refused[0].GetProperty("message").GetString(), StringComparison.Ordinal);
        Assert.Equal("Some thing", answer.GetProperty("questions")[0].GetProperty("about").GetString());
        Assert.Equal("server", (await _server.Get("/api/v1/assets/RIG-1")).Body.GetProperty("kind").GetString());
        Assert.Equal(2, answer.GetProperty("refusedCount").GetInt32());
    }

    [Fact]
    public async Task The_fleet_as_a_table_brought_back_changes_nothing_and_one_cell_changes_one_machine()
    {
        await _server.LoadSmallFleet();
        using var written = await _server.Raw(new HttpRequestMessage(HttpMethod.Get, "/api/v1/fleet/table"));
        Assert.Equal("text/csv", written.Content.Headers.ContentType!.MediaType);
        var table = await written.Content.ReadAsStringAsync();
        var (created, updated, unchanged) = Counts(await Take(table));
        Assert.Equal((0, 0), (created, updated));
        Assert.True(unchanged > 0);
        var lines = table.Split("\r\n");
        lines[1] = lines[1].Replace(",24,", ",12,");
        Assert.Equal((0, 1, unchanged - 1), Counts(await Take(string.Join("\r\n", lines))));
    }

    [Fact]
    public async Task Ten_times_ten_thousand_machines_pasted_are_too_many_only_beyond_the_bound()
    {
        var (status, body) = await _server.Send(
            "/api/v1/fleet/table?dryRun=true",
            "tag,kind\n" + string.Concat(Enumerable.Range(0, 100_001).Select(i => $"A{i},pc\n")),
            "text/csv"
        );
        Assert.Equal(400, status);
        Assert.Contains("100,000", body.GetProperty("detail").GetString(), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("?map=Tag", "/map")]
    [InlineData("?map=Tag:nonsense", "/map")]
    [InlineData("?means=word", "/means")]
    public async Task What_settles_nothing_is_refused(string query, string pointer)
    {
        var problem = await Take("tag,kind\nA,pc\n", query, expected: 400);
        Assert.Equal(pointer, problem.GetProperty("errors")[0].GetProperty("pointer").GetString());
    }

    [Fact]
    public async Task A_table_can_be_undone_like_any_import()
    {
        await Take(Rows(3));
        var (_, imports) = await _server.Get("/api/v1/imports");
        var id = imports[0].GetProperty("id").GetInt64();
        Assert.Equal(204, (await _server.Post($"/api/v1/imports/{id}/undo", new { })).Status);
        Assert.Empty((await _server.Get("/api/v1/assets")).Body.EnumerateArray());
    }
}
