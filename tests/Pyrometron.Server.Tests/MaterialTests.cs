using System.Text.Json;
using System.Text.Json.Nodes;

namespace Pyrometron.Server.Tests;

/// <summary>Pads from sheets and paste from a tube, asked from outside.</summary>
public sealed class MaterialTests(Server server) : IClassFixture<Server>
{
    private static JsonObject Pads() =>
        JsonNode
            .Parse(
                """
                { "sheets": [ { "id": "grey", "widthMm": 85, "heightMm": 45, "thicknessMm": 1.5, "count": 2 },
                              { "id": "off-cut", "widthMm": 30, "heightMm": 13, "thicknessMm": 1.5, "count": 1 } ],
                  "pieces": [ { "name": "memory", "widthMm": 14, "heightMm": 12, "thicknessMm": 1.5, "count": 2 },
                              { "name": "regulators", "widthMm": 90, "heightMm": 10, "thicknessMm": 1.5, "count": 1 },
                              { "name": "back plate", "widthMm": 20, "heightMm": 20, "thicknessMm": 2, "count": 3 } ],
                  "kerfMm": 0.5, "rotate": true }
                """
            )!
            .AsObject();

    private static JsonObject Paste() =>
        JsonNode
            .Parse(
                """
                { "dieWidthMm": 31.4, "dieHeightMm": 20, "bondLineMicrometres": 50, "conductivityWPerMK": 8.5,
                  "densityGPerCm3": 2.5, "powerWatts": 250, "coverageFraction": 1, "tubeGrams": 4 }
                """
            )!
            .AsObject();

    private async Task<(int Status, JsonElement Body)> Ask(string what, JsonObject body) =>
        await server.Send($"/api/v1/materials/{what}", body.ToJsonString(), "application/json");

    [Fact]
    public async Task An_off_cut_that_does_is_used_up_and_what_cannot_be_cut_says_why()
    {
        var (status, plan) = await Ask("pad-plan", Pads());
        Assert.Equal(200, status);
        var sheet = Assert.Single(plan.GetProperty("sheetsUsed").EnumerateArray());
        Assert.Equal("off-cut", sheet.GetProperty("sheetId").GetString());
        Assert.Equal(0, sheet.GetProperty("index").GetInt32());
        Assert.Equal(2, sheet.GetProperty("placements").GetArrayLength());
        Assert.Equal(1 - (2 * 14 * 12 / (30.0 * 13)), sheet.GetProperty("wasteFraction").GetDouble(), 5);
        Assert.Equal(1, plan.GetProperty("lowerBoundSheets").GetInt32());
        Assert.Equal(
            [
                ("regulators", 1, "too-large", "Every sheet of 1.5 mm is too small for a piece of 90.0 mm by 10.0 mm."),
                (
                    "back plate",
                    3,
                    "no-thickness",
                    "No sheet is 2.0 mm thick. A thicker one lifts the cooler off the chip; a thinner one must still exceed the gap."
                ),
            ],
            plan.GetProperty("unplaced")
                .EnumerateArray()
                .Select(u =>
                    (
                        u.GetProperty("name").GetString()!,
                        u.GetProperty("count").GetInt32(),
                        u.GetProperty("code").GetString()!,
                        u.GetProperty("reason").GetString()!
                    )
                )
        );
    }

    [Fact]
    public async Task Stock_that_does_not_do_says_what_is_left_and_how_many_sheets_it_would_take()
    {
        var pads = Pads();
        pads["pieces"] = new JsonArray(
            new JsonObject
            {
                ["name"] = "memory",
                ["widthMm"] = 40,
                ["heightMm"] = 40,
                ["thicknessMm"] = 1.5,
                ["count"] = 11,
            }
        );
        var (_, plan) = await Ask("pad-plan", pads);
        Assert.Equal(2, plan.GetProperty("sheetsUsed").GetArrayLength());
        var left = Assert.Single(plan.GetProperty("unplaced").EnumerateArray());
        Assert.Equal(7, left.GetProperty("count").GetInt32());
        Assert.Equal("used-up", left.GetProperty("code").GetString());
        Assert.Equal(5, plan.GetProperty("lowerBoundSheets").GetInt32());
    }

    /// <summary>2.3417 K at 250 W for 50 µm of 8.5 W/(m·K) on 628 mm² (reference sheet, section 6.2).</summary>
    [Fact]
    public async Task Paste_for_a_chip()
    {
        var (status, paste) = await Ask("paste", Paste());
        Assert.Equal(200, status);
        Assert.Equal(31.4, paste.GetProperty("volumeMm3").GetDouble(), 9);
        Assert.Equal(0.0785, paste.GetProperty("massGrams").GetDouble(), 9);
        Assert.Equal(4 / 0.0785, paste.GetProperty("applicationsPerTube").GetDouble(), 6);
        Assert.Equal(0.0093668, paste.GetProperty("resistanceKPerW").GetDouble(), 7);
        Assert.Equal(2.3417, paste.GetProperty("temperatureRiseKelvin").GetDouble(), 4);
    }

    [Theory]
    [InlineData("pad-plan", "/sheets", "null", "/sheets")]
    [InlineData("pad-plan", "/sheets/0", "null", "/sheets/0")]
    [InlineData("pad-plan", "/sheets/1/id", "\"grey\"", "/sheets/1/id")]
    [InlineData("pad-plan", "/sheets/0/widthMm", "0", "/sheets/0/widthMm")]
    [InlineData("pad-plan", "/sheets/0/widthMm", "85.005", "/sheets/0/widthMm")]
    [InlineData("pad-plan", "/sheets/0/heightMm", "1e9", "/sheets/0/heightMm")]
    [InlineData("pad-plan", "/sheets/0/count", "-1", "/sheets/0/count")]
    [InlineData("pad-plan", "/pieces/0/name", "\"\"", "/pieces/0/name")]
    [InlineData("pad-plan", "/pieces/0/thicknessMm", "-1.5", "/pieces/0/thicknessMm")]
    [InlineData("pad-plan", "/pieces/0/count", "2001", "/pieces/0/count")]
    [InlineData("pad-plan", "/kerfMm", "-1", "/kerfMm")]
    [InlineData("paste", "/densityGPerCm3", "null", "/densityGPerCm3")]
    [InlineData("paste", "/dieWidthMm", "0", "/dieWidthMm")]
    [InlineData("paste", "/coverageFraction", "1.1", "/coverageFraction")]
    [InlineData("paste", "/powerWatts", "-1", "/powerWatts")]
    public async Task What_is_wrong_is_named(string call, string at, string sent, string pointer)
    {
        var body = call == "paste" ? Paste() : Pads();
        var path = at[1..].Split('/');
        JsonNode node = body;
        foreach (var step in path[..^1])
            node = int.TryParse(step, out var i) ? node[i]! : node[step]!;
        if (int.TryParse(path[^1], out var index))
            node[index] = JsonNode.Parse(sent);
        else
            node[path[^1]] = JsonNode.Parse(sent);
        var (status, problem) = await Ask(call, body);
        Assert.Equal(400, status);
        Assert.Contains(
            pointer,
            problem.GetProperty("errors").EnumerateArray().Select(e => e.GetProperty("pointer").GetString())
        );
    }
}
