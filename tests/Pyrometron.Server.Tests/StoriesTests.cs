using System.Text.Json;

namespace Pyrometron.Server.Tests;

/// <summary>
/// What is measured and done at the bench comes back to the judgement: stories from the first run to the machine's page.
/// </summary>
public sealed class StoriesTests : IDisposable
{
    private readonly Server _server = new();

    public void Dispose() => _server.Dispose();

    private static object Run(double minutes, double? failed, params (string Part, double Celsius)[] parts) =>
        new
        {
            workload = "full",
            minutes,
            ambientCelsius = 24.0,
            fan = new { mode = "fixed", percent = 100 },
            settings = "stock",
            failedAfterMinutes = failed,
            parts = parts.Select(p => new { part = p.Part, celsius = p.Celsius }),
        };

    private static object Measured(string phase, double celsius, double minutes = 20, double? failed = null) =>
        new
        {
            kind = "run-measured",
            phase,
            run = Run(minutes, failed, ("cpu", celsius)),
        };

    /// <summary>A machine that nobody has ever read a sensor of.</summary>
    private async Task Register(string tag, string kind)
    {
        var (status, _) = await _server.Post(
            "/api/v1/fleet",
            new
            {
                format = "pyrometron-fleet/1",
                sites = new[]
                {
                    new
                    {
                        code = "S",
                        name = "Site",
                        altitudeMetres = 5,
                        zones = new[]
                        {
                            new
                            {
                                code = "Z",
                                name = "Desk",
                                dust = "normal",
                                designAmbientCelsius = 30,
                            },
                        },
                    },
                },
                assets = new[]
                {
                    new
                    {
                        tag,
                        kind,
                        model = "Gannet",
                        zone = "Z",
                        dutyHoursPerDay = 8,
                        inServiceSince = DateTime.UtcNow.AddDays(-300).ToString("yyyy-MM-dd"),
                        parts = new[]
                        {
                            new
                            {
                                part = "cpu",
                                limitCelsius = 100,
                                @interface = "paste",
                            },
                        },
                        services = Array.Empty<object>(),
                    },
                },
            }
        );
        Assert.Equal(200, status);
    }

    private async Task<JsonElement> Assessment(string tag) =>
        (await _server.Get($"/api/v1/assets/{tag}/assessment?wait=60")).Body;

    private async Task<JsonElement> Row(string tag) =>
        (await _server.Get("/api/v1/queue?wait=60&limit=100"))
            .Body.GetProperty("items")
            .EnumerateArray()
            .Single(i => i.GetProperty("asset").GetString() == tag);

    private static string Text(JsonElement of, string member) => of.GetProperty(member).GetString()!;

    private async Task<Bench> Worked(string tag, string level, object before)
    {
        var bench = await Bench.Start(_server, tag, level);
        await bench.Do(before);
        await bench.DoAllSteps();
        await bench.Do(new { kind = "work-filed" });
        return bench;
    }

    [Fact]
    public async Task A_laptop_that_was_repasted_and_got_cooler_reads_so_at_once()
    {
        await Register("LT-1", "laptop");
        var bench = await Worked("LT-1", "repaste", Measured("before", 85));
        await bench.Do(Measured("after", 71));
        Assert.Equal("improved", Text(bench.Job.GetProperty("preview"), "outcome"));
        await bench.Do(new { kind = "verdict-filed" });

        var a = await Assessment("LT-1");
        var part = a.GetProperty("parts")[0];
        Assert.Equal(("fine", "run"), (Text(a, "urgency"), Text(a, "measuredBy")));
        Assert.Equal(71, part.GetProperty("latestCelsius").GetDouble());
        Assert.Equal(24, part.GetProperty("airCelsius").GetDouble());
        var layers = part.GetProperty("path").EnumerateArray().Sum(l => l.GetProperty("nowKelvin").GetDouble());
        Assert.Equal(71 - 24, layers, 0.05);
        var run = bench.Job.GetProperty("runs").EnumerateArray().Last();
        Assert.Equal(
            run.GetProperty("measuredAt").GetDateTimeOffset(),
            a.GetProperty("measuredAt").GetDateTimeOffset(),
            TimeSpan.FromSeconds(1)
        );
        var row = await Row("LT-1");
        Assert.Equal(("fine", Text(a, "reason")), (Text(row, "urgency"), Text(row, "reason")));
        Assert.Equal(a.GetProperty("measuredAt").ToString(), row.GetProperty("measuredAt").ToString());
    }

    [Fact]
    public async Task A_card_that_came_back_hotter_stands_higher_and_its_row_says_why()
    {
        await Register("DT-1", "desktop");
        var bench = await Worked("DT-1", "repaste", Measured("before", 80));
        await bench.Do(Measured("after", 91));
        await bench.Do(new { kind = "verdict-filed" });
        Assert.Equal("worse", Text(bench.Job.GetProperty("verdict"), "outcome"));
        var row = await Row("DT-1");
        Assert.Contains(Text(row, "urgency"), new[] { "now", "next" });
        Assert.StartsWith("Worse after its repaste, measured on", Text(row, "reason"), StringComparison.Ordinal);
        Assert.Contains("+11 K", Text(row, "reason"), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_machine_with_a_first_run_alone_has_been_measured()
    {
        await Register("DT-1", "desktop");
        var before = await Assessment("DT-1");
        Assert.StartsWith("No readings yet.", Text(before, "reason"), StringComparison.Ordinal);
        var bench = await Bench.Start(_server, "DT-1", "dust-out");
        await bench.Do(Measured("before", 78));
        var a = await Assessment("DT-1");
        Assert.StartsWith("Measured once, on", Text(a, "reason"), StringComparison.Ordinal);
        Assert.Contains("78 °C", Text(a, "reason"), StringComparison.Ordinal);
        Assert.Equal("run", Text(a, "measuredBy"));
        Assert.Equal(1, a.GetProperty("runs").GetInt32());

        // Struck out, it is as if it had never been measured.
        await bench.Do(
            new
            {
                kind = "run-voided",
                phase = "before",
                reason = "door open",
            }
        );
        Assert.Equal(0, (await Assessment("DT-1")).GetProperty("runs").GetInt32());
    }

    [Fact]
    public async Task A_report_stands_until_a_long_enough_run_or_a_person_says_that_it_is_gone()
    {
        await Register("DT-1", "desktop");
        for (var i = 0; i < 2; i++)
            Assert.Equal(
                204,
                (
                    await _server.Post(
                        "/api/v1/assets/DT-1/symptoms",
                        new
                        {
                            kind = "shutdown",
                            note = $"time {i}",
                            minutesToFailure = 12,
                        }
                    )
                ).Status
            );
        var (_, machine) = await _server.Get("/api/v1/assets/DT-1");
        Assert.Equal(2, machine.GetProperty("symptoms").GetArrayLength());

        var bench = await Worked("DT-1", "blow-out", new { kind = "before-excused", reason = "does not start" });
        var row = await Row("DT-1");
        Assert.Equal("now", Text(row, "urgency"));
        Assert.Contains("Switches itself off", Text(row, "reason"), StringComparison.Ordinal);

        // 20 minutes are less than twice 12; 25 are enough.
        await bench.Do(Measured("after", 70, minutes: 20));
        Assert.Equal("now", Text(await Row("DT-1"), "urgency"));
        await bench.Do(Measured("after", 70, minutes: 25));
        Assert.NotEqual("now", Text(await Row("DT-1"), "urgency"));
    }

    [Fact]
    public async Task A_machine_that_fails_again_after_the_work_is_down()
    {
        await Register("DT-1", "desktop");
        var bench = await Worked("DT-1", "repaste", Measured("before", 88, minutes: 12, failed: 12));
        await bench.Do(Measured("after", 72, minutes: 9, failed: 9));
        Assert.NotEqual("improved", Text(bench.Job.GetProperty("preview"), "outcome"));
        var row = await Row("DT-1");
        Assert.Equal("now", Text(row, "urgency"));
        Assert.Contains("9 minutes", Text(row, "reason"), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_cooler_that_came_off_for_a_fan_brings_new_paste()
    {
        await Register("DT-1", "desktop");
        var bench = await Bench.Start(_server, "DT-1", "repaste");
        await bench.Do(Measured("before", 80));
        await bench.DoAllSteps(until: "paste-on");
        await bench.Do(
            new
            {
                kind = "level-changed",
                level = "fan-swap",
                reason = "the bearing is gone",
            }
        );
        var open = bench
            .Job.GetProperty("steps")
            .EnumerateArray()
            .Where(s => s.GetProperty("doneAt").ValueKind == JsonValueKind.Null)
            .Select(s => Text(s, "id"));
        Assert.Contains("paste-on", open);
        await bench.DoAllSteps();
        await bench.Do(new { kind = "work-filed" });
        var service = (await _server.Get("/api/v1/assets/DT-1")).Body.GetProperty("services")[0];
        Assert.Equal(("fan-swap", true), (Text(service, "level"), service.GetProperty("liftedCooler").GetBoolean()));
        Assert.Equal(1, service.GetProperty("renewed").GetProperty("paste").GetDouble());
        Assert.Equal(1, service.GetProperty("renewed").GetProperty("fan").GetDouble());
    }

    /// <summary>A card stays as it was dealt; newer notes are offered, and taken over by an entry.</summary>
    [Fact]
    public async Task Notes_that_change_are_offered_and_never_applied_silently()
    {
        await Register("LT-1", "laptop");
        var bench = await Bench.Start(_server, "LT-1", "repaste");
        var (_, notes) = await _server.Get("/api/v1/models/notes?model=Gannet");
        var dealt = bench.Job.GetProperty("steps").ToString();
        var changed = JsonSerializer.Deserialize<Dictionary<string, object?>>(notes.GetProperty("notes").GetRawText())!;
        changed["traps"] = new[] { "The ribbon under the palm rest tears" };
        var (status, answer) = await _server.Put(
            "/api/v1/models/notes",
            new { version = notes.GetProperty("version").GetInt32(), notes = changed }
        );
        Assert.True(status < 300, answer.ToString());
        await bench.Reload();
        Assert.Equal(dealt, bench.Job.GetProperty("steps").ToString());
        Assert.True(bench.Job.GetProperty("notesChanged").GetBoolean());
        await bench.Do(new { kind = "notes-taken" });
        Assert.False(bench.Job.GetProperty("notesChanged").GetBoolean());
        Assert.Contains(
            "The ribbon under the palm rest tears",
            bench.Job.GetProperty("steps").ToString(),
            StringComparison.Ordinal
        );
    }

    /// <summary>Everything that was written is in the change log, in one chain, by person and by page.</summary>
    [Fact]
    public async Task What_was_written_is_in_the_change_log()
    {
        await Register("LT-1", "laptop");
        var bench = await Bench.Start(_server, "LT-1", "repaste");
        await bench.Do(Measured("before", 85));
        var (_, page) = await _server.Get("/api/v1/changes?after=0&limit=2");
        var first = page.GetProperty("changes").EnumerateArray().ToArray();
        Assert.Equal(2, first.Length);
        var after = first[^1].GetProperty("id").GetInt64();
        var rest = (await _server.Get($"/api/v1/changes?after={after}&limit=100"))
            .Body.GetProperty("changes")
            .EnumerateArray()
            .ToArray();
        Assert.Equal("run-measured", Text(rest[^1], "kind"));
        Assert.Equal("M. Larkspur", Text(rest[^1].GetProperty("actor"), "name"));
        Assert.All(first.Concat(rest), c => Assert.Equal(64, Text(c, "hash").Length));
    }
}
