using System.Globalization;
using System.Text;
using System.Text.Json;

namespace Pyrometron.Server.Tests;

/// <summary>The log of a monitoring program becomes readings of its machine.</summary>
public sealed class LogTests : IDisposable
{
    private readonly Server _server = new();

    public void Dispose() => _server.Dispose();

    private async Task Register() =>
        Assert.Equal(
            200,
            (await _server.Send("/api/v1/fleet/table", "tag;kind;model\nPC-1;desktop;Petrel 7\n", "text/csv")).Status
        );

    /// <summary>Some hours of a desktop, a line every ten seconds: one hour idle, then full load.</summary>
    private static string Log(int hours, string air = "22,5")
    {
        var start = DateTime.UtcNow.Date.AddDays(-3).AddHours(8);
        var text = new StringBuilder(
            "Datum;Uhrzeit;Prozessortemperatur [°C];Leistung [W];Raumluft [°C];Takt [MHz];Lüfter [U/min]\n"
        );
        for (var s = 0; s < hours * 3600; s += 10)
        {
            var at = start.AddSeconds(s);
            var busy = s >= 3600;
            text.Append(
                CultureInfo.InvariantCulture,
                $"{at:dd.MM.yyyy};{at:HH:mm:ss};{(busy ? 81 : 38)},{s / 10 % 3};{(busy ? 105 : 14)};{air};{(busy ? 4400 : 1200)};{(busy ? 1800 : 700)}\n"
            );
        }
        return text.ToString();
    }

    private async Task<JsonElement> Take(string log, string query, int expected = 200)
    {
        var (status, body) = await _server.Send("/api/v1/logs" + query, log, "text/csv");
        Assert.True(status == expected, body.ToString());
        return body;
    }

    [Fact]
    public async Task A_dry_run_shows_columns_and_windows_then_they_are_readings_and_again_they_are_known()
    {
        await Register();
        var dry = await Take(Log(4), "?asset=PC-1&timeZone=UTC&dryRun=true");
        Assert.Equal(
            ["date", "clockTime", "cpu", "power", "ambient", "clock", "fanRpm"],
            dry.GetProperty("columns").EnumerateArray().Select(c => c.GetProperty("field").GetString()!)
        );
        Assert.Equal(
            (1440, 8, 2),
            (dry.GetProperty("samples").GetInt32(), dry.GetProperty("windows").GetInt32(), dry.GetProperty("idle").GetInt32())
        );
        Assert.Equal(0, dry.GetProperty("accepted").GetInt32());
        Assert.Empty((await _server.Get("/api/v1/assets/PC-1/readings")).Body.EnumerateArray());
        Assert.Equal(6, (await Take(Log(4), "?asset=PC-1&timeZone=UTC")).GetProperty("accepted").GetInt32());
        var again = await Take(Log(4), "?asset=PC-1&timeZone=UTC");
        Assert.Equal((0, 6), (again.GetProperty("accepted").GetInt32(), again.GetProperty("duplicates").GetInt32()));
        var readings = (await _server.Get("/api/v1/assets/PC-1/readings")).Body.EnumerateArray().ToArray();
        Assert.Equal(6, readings.Length);
        Assert.Equal(22.5, readings[0].GetProperty("ambientC").GetDouble());
        // From how many samples, and how far they spread, stays with the reading.
        Assert.Equal(180, readings[0].GetProperty("samples").GetInt32());
        Assert.InRange(readings[0].GetProperty("spreadKelvin").GetDouble(), 0.05, 0.3);
    }

    [Fact]
    public async Task What_is_settled_of_a_header_is_remembered_for_the_next_log()
    {
        await Register();
        const string log = "Time;Probe 7;Whatever\n2026-03-02T09:00:00Z;60;22\n";
        await Take(log, "?asset=PC-1&dryRun=true");
        var taken = await Take(log, "?asset=PC-1&map=Whatever:ambient&map=Probe%207:cpu");
        Assert.Equal(
            ["time", "cpu", "ambient"],
            taken.GetProperty("columns").EnumerateArray().Select(c => c.GetProperty("field").GetString()!)
        );
        var later = await Take(log, "?asset=PC-1&dryRun=true");
        Assert.Equal(
            ["time", "cpu", "ambient"],
            later.GetProperty("columns").EnumerateArray().Select(c => c.GetProperty("field").GetString()!)
        );
    }

    [Fact]
    public async Task One_log_of_many_machines_is_taken_for_each_of_them()
    {
        await _server.Send("/api/v1/fleet/table", "tag;kind;model\nPC-1;desktop;Petrel 7\nPC-2;desktop;Petrel 7\n", "text/csv");
        var start = DateTime.UtcNow.Date.AddDays(-3).AddHours(8);
        var text = new StringBuilder("Time,Machine,CPU [°C]\n");
        for (var s = 0; s < 2 * 3600; s += 10)
            text.Append(
                CultureInfo.InvariantCulture,
                $"{start.AddSeconds(s):s}Z,pc-{1 + s / 10 % 2},{(s / 10 % 2 == 0 ? 70 : 80)}\n"
            );
        var dry = await Take(text.ToString(), "?dryRun=true");
        Assert.Equal(
            [("PC-1", 4), ("PC-2", 4)],
            dry.GetProperty("machines")
                .EnumerateArray()
                .Select(m => (m.GetProperty("asset").GetString()!, m.GetProperty("windows").GetInt32()))
        );
        Assert.Equal(8, (await Take(text.ToString(), "")).GetProperty("accepted").GetInt32());
        foreach (var (tag, celsius) in ((string, double)[])[("PC-1", 70), ("PC-2", 80)])
            Assert.All(
                (await _server.Get($"/api/v1/assets/{tag}/readings")).Body.EnumerateArray(),
                r => Assert.Equal(celsius, r.GetProperty("partsC")[0].GetDouble())
            );
        // Of one machine alone: what is asked for is taken, the rest is known.
        var one = await Take(text.ToString(), "?asset=PC-2");
        Assert.Equal((0, 4), (one.GetProperty("accepted").GetInt32(), one.GetProperty("duplicates").GetInt32()));
    }

    [Theory]
    [InlineData("Time,Machine,CPU [°C]\n", true)]
    [InlineData("Time,PC-1 CPU [°C],PC-2 CPU [°C],PC-3 CPU [°C]\n", false)]
    public async Task Asked_for_one_machine_of_a_log_the_others_never_pass_for_it(string header, bool byLine)
    {
        await _server.Send(
            "/api/v1/fleet/table",
            "tag;kind;model\nPC-1;desktop;Petrel 7\nPC-2;desktop;Petrel 7\nPC-3;desktop;Petrel 7\n",
            "text/csv"
        );
        var start = DateTime.UtcNow.Date.AddDays(-3).AddHours(8);
        var text = new StringBuilder(header);
        for (var s = 0; s < 3600; s += 10)
            text.Append(
                CultureInfo.InvariantCulture,
                $"{start.AddSeconds(s):s}Z,{(byLine ? $"PC-{1 + s / 10 % 3},{60 + 10 * (s / 10 % 3)}" : "60,70,80")}\n"
            );
        var one = await Take(text.ToString(), "?asset=PC-1");
        Assert.Equal(["PC-1"], one.GetProperty("machines").EnumerateArray().Select(m => m.GetProperty("asset").GetString()));
        Assert.Equal(byLine ? 120 : 360, one.GetProperty("samples").GetInt32());
        Assert.All(
            (await _server.Get("/api/v1/assets/PC-1/readings")).Body.EnumerateArray(),
            r => Assert.Equal(60, r.GetProperty("partsC")[0].GetDouble())
        );
    }

    [Fact]
    public async Task A_log_that_names_no_machine_asks_for_it()
    {
        await Register();
        var problem = await Take(Log(1), "", 400);
        var question = problem.GetProperty("questions")[0];
        Assert.Equal(
            ("asset", "PC-1"),
            (question.GetProperty("about").GetString(), question.GetProperty("choices")[0].GetString())
        );
    }

    [Theory]
    [InlineData("?asset=NOBODY", 404)]
    [InlineData("?asset=PC-1&timeZone=Atlantis/Deep", 400)]
    [InlineData("?asset=PC-1&map=Time:nonsense", 400)]
    [InlineData("?asset=PC-1&map=Time", 400)]
    [InlineData("", 400)]
    public async Task What_cannot_be_taken_is_refused(string query, int status)
    {
        await Register();
        await Take(Log(1), query, status);
    }

    [Fact]
    public async Task A_log_without_the_machines_temperatures_says_what_was_found()
    {
        await Register();
        var problem = await Take("Time;Wheel;Sail\n2026-03-02 09:00:00;3;4\n", "?asset=PC-1", 400);
        Assert.Contains("'Wheel', 'Sail'", problem.GetProperty("detail").GetString(), StringComparison.Ordinal);
    }
}
