using System.Text.Json;
using Microsoft.Extensions.DependencyInjection;
using Pyrometron.Storage;

namespace Pyrometron.Server.Tests;

/// <summary>The bench over HTTP: entries, photos, notes, live runs, log book, labels, and what is refused.</summary>
public sealed class BenchTests : IDisposable
{
    private readonly Server _server = new();

    public void Dispose() => _server.Dispose();

    private static object Run(double core, double minutes = 20) =>
        new
        {
            workload = "steady",
            minutes,
            ambientCelsius = 25,
            fan = new { mode = "fixed", percent = 100 },
            settings = "stock",
            parts = new[] { new { part = "core", celsius = core } },
        };

    private async Task<Bench> Started(string level = "repaste")
    {
        await _server.LoadSmallFleet();
        await _server.Get("/api/v1/queue?wait=60");
        var bench = await Bench.Start(_server, "GC-1", level);
        await bench.Do(
            new
            {
                kind = "run-measured",
                phase = "before",
                run = Run(90),
            }
        );
        return bench;
    }

    [Fact]
    public async Task An_entry_sent_twice_counts_once()
    {
        var bench = await Started();
        var key = Guid.NewGuid();
        var entry = new { kind = "minutes-booked", minutes = 12 };
        for (var i = 0; i < 3; i++)
            Assert.Equal(200, (await bench.Send(entry, key: key)).Status);
        await bench.Reload();
        Assert.Equal(12, bench.Job.GetProperty("minutes").GetDouble());
    }

    [Fact]
    public async Task Two_people_who_change_the_same_thing_are_told_of_each_other_and_others_do_not_disturb()
    {
        var phone = await Started();
        var tablet = new Bench(_server, phone.Job, "tablet");
        await phone.Do(new { kind = "noted", text = "pads torn" });
        await phone.Do(
            new
            {
                kind = "found",
                about = "dust",
                grade = "3",
            }
        );
        // The tablet has seen neither: another subject passes, the same one is shown with both words.
        Assert.Equal(
            200,
            (
                await tablet.Send(
                    new
                    {
                        kind = "found",
                        about = "fan-spin",
                        grade = "free",
                    }
                )
            ).Status
        );
        var (status, problem) = await tablet.Send(new { kind = "noted", text = "fan loud" });
        Assert.Equal(409, status);
        Assert.Equal("Note: pads torn", problem.GetProperty("theirs")[0].GetProperty("says").GetString());
        await tablet.Reload();
        Assert.Equal("pads torn", tablet.Job.GetProperty("note").GetString());
        await tablet.Do(new { kind = "noted", text = "pads torn, fan loud" });
        // Who decides on the whole must have seen the whole.
        Assert.Equal(409, (await phone.Send(new { kind = "given-up", reason = "no time" })).Status);
    }

    [Fact]
    public async Task What_cannot_be_is_refused_with_its_reason_and_the_job_stays_as_it_was()
    {
        var bench = await Started();
        object[] impossible =
        [
            new
            {
                kind = "counted",
                what = "screws",
                item = "6 mm",
                @out = 3,
                @in = 4,
            },
            new
            {
                kind = "counted",
                what = "screws",
                item = "6 mm",
                @out = -1,
                @in = 0,
            },
            new { kind = "work-filed" },
            new
            {
                kind = "run-measured",
                phase = "after",
                run = Run(80),
            },
            new { kind = "step-done", step = "dance" },
            new { kind = "step-done", step = "owner-told" },
            new
            {
                kind = "found",
                about = "dust",
                grade = "9",
            },
            new { kind = "timer-stopped", timer = "none" },
            new { kind = "verdict-filed" },
            new
            {
                kind = "reopened",
                roomAlike = true,
                fanAlike = true,
                settingsAlike = true,
                reason = "x",
            },
        ];
        foreach (var entry in impossible)
            Assert.Equal(409, await bench.Try(entry));
        foreach (
            var entry in (object[])
                [
                    new { kind = "sing" },
                    new { kind = "timer-stopped", timer = (string?)null },
                    new { step = "blow" },
                    new
                    {
                        kind = "counted",
                        what = "cows",
                        item = "6 mm",
                        @out = 3,
                        @in = 4,
                    },
                    new
                    {
                        kind = "run-measured",
                        phase = "before",
                        run = new { minutes = -3 },
                    },
                ]
        )
            Assert.Equal(400, await bench.Try(entry));
        Assert.Equal(409, (await bench.Send(new { kind = "noted", text = "x" }, version: 99)).Status);
        Assert.Equal(400, (await bench.Send(new { kind = "noted", text = "x" }, version: 0)).Status);
        Assert.Equal(400, (await _server.Post($"{bench.Url}/entries", new { version = 1 })).Status);
        Assert.Equal(
            404,
            (
                await _server.Post(
                    "/api/v1/jobs/999/entries",
                    new
                    {
                        key = Guid.NewGuid(),
                        version = 1,
                        device = "x",
                        entry = new { kind = "noted", text = "x" },
                    }
                )
            ).Status
        );
    }

    [Fact]
    public async Task Under_warranty_a_job_needs_its_answer_and_the_house_can_choose_another_school()
    {
        await _server.LoadSmallFleet();
        var parts = new[]
        {
            new
            {
                part = "core",
                limitCelsius = 90,
                @interface = "paste",
            },
            new
            {
                part = "memory",
                limitCelsius = 105,
                @interface = "pad",
            },
        };
        Assert.Equal(
            204,
            (
                await _server.Put(
                    "/api/v1/assets/GC-2",
                    new
                    {
                        model = "Sorrel",
                        kind = "graphics-card",
                        zone = "Z",
                        hostTag = (string?)null,
                        dutyHoursPerDay = 20,
                        inServiceSince = "2025-01-01",
                        warrantyUntil = "2090-01-01",
                        parts,
                    }
                )
            ).Status
        );
        var (status, problem) = await _server.Post("/api/v1/jobs", new { asset = "GC-2", level = "dust-out" });
        Assert.Equal((409, "warranty"), (status, problem.GetProperty("rule").GetString()));
        Assert.Empty((await _server.Get("/api/v1/jobs")).Body.EnumerateArray());
        var bench = await Bench.Start(_server, "GC-2", "dust-out", "The seller agreed by letter.");
        Assert.Contains(bench.Job.GetProperty("steps").EnumerateArray(), s => s.GetProperty("id").GetString() == "warranty");
        await bench.Do(new { kind = "given-up", reason = "only to look" });
        var (_, policy) = await _server.Get("/api/v1/policy");
        var changed = JsonSerializer.Deserialize<Dictionary<string, object?>>(policy)!;
        changed["bench"] = new
        {
            extent = "least-that-cures",
            warranty = "open-where-allowed",
            paste = "line",
            pads = "putty",
            alcohol = "seventy",
            air = "can",
            opening = "free",
        };
        Assert.Equal(200, (await _server.Put("/api/v1/policy", changed)).Status);
        bench = await Bench.Start(_server, "GC-2", "repaste");
        Assert.Contains(
            bench.Job.GetProperty("steps").EnumerateArray(),
            s => s.GetProperty("do").GetString()!.Contains("thin line", StringComparison.Ordinal)
        );
    }

    [Fact]
    public async Task A_job_teaches_its_model_and_notes_are_not_overwritten_unseen()
    {
        var bench = await Started("dust-out");
        await bench.Do(
            new
            {
                kind = "counted",
                what = "screws",
                item = "6 mm PH1",
                @out = 4,
                @in = 4,
            }
        );
        await bench.DoAllSteps();
        await bench.Do(new { kind = "deviation-seen", text = "no mesh fitted" });
        await bench.Do(new { kind = "work-filed" });
        var (_, answer) = await _server.Get("/api/v1/models/notes?model=Sorrel");
        Assert.Equal(
            (1, 4),
            (answer.GetProperty("version").GetInt32(), answer.GetProperty("notes").GetProperty("screws").GetArrayLength())
        );
        var notes = JsonSerializer.Deserialize<Dictionary<string, object?>>(answer.GetProperty("notes"))!;
        notes["traps"] = new[] { "short lead" };
        Assert.Equal(200, (await _server.Put("/api/v1/models/notes", new { notes, version = 1 })).Status);
        Assert.Equal(409, (await _server.Put("/api/v1/models/notes", new { notes, version = 1 })).Status);
        notes["widthMm"] = 1;
        Assert.Equal(400, (await _server.Put("/api/v1/models/notes", new { notes, version = 2 })).Status);
        notes["model"] = "Unheard of";
        Assert.Equal(400, (await _server.Put("/api/v1/models/notes", new { notes, version = 0 })).Status);
        Assert.Equal("no mesh fitted", (await _server.Get("/api/v1/assets/GC-1")).Body.GetProperty("deviations")[0].GetString());
        Assert.Equal(
            (1, 1),
            (
                (await _server.Get("/api/v1/findings/agreement")).Body[0].GetProperty("jobs").GetInt32(),
                (await _server.Get("/api/v1/findings/agreement")).Body[0].GetProperty("right").GetInt32()
            )
        );
    }

    [Fact]
    public async Task Samples_become_a_curve_that_says_whether_to_wait()
    {
        var bench = await Started();
        var start = DateTimeOffset.UtcNow.AddMinutes(-30);
        object Samples(int from, int to) =>
            new
            {
                samples = Enumerable
                    .Range(from, to - from)
                    .Select(i => new
                    {
                        at = start.AddSeconds(i * 20),
                        parts = new { core = 80 - 50 * Math.Exp(-i / 3.0 / 4) },
                        ambientCelsius = 25,
                    }),
            };
        Assert.Equal(204, (await _server.Post($"{bench.Url}/samples", Samples(0, 15))).Status);
        var (_, live) = await _server.Get($"{bench.Url}/live");
        Assert.True(live.GetProperty("rising").GetBoolean());
        Assert.Contains("Let it run", live.GetProperty("advice").GetString());
        Assert.Equal(204, (await _server.Post($"{bench.Url}/samples", Samples(0, 90))).Status);
        (_, live) = await _server.Get($"{bench.Url}/live");
        Assert.Equal((90, false), (live.GetProperty("samples").GetInt32(), live.GetProperty("rising").GetBoolean()));
        Assert.InRange(live.GetProperty("run").GetProperty("parts")[0].GetProperty("settledCelsius").GetDouble(), 79.5, 80.5);
        Assert.Equal(
            400,
            (await _server.Post($"{bench.Url}/samples", new { samples = new[] { new { parts = new { core = 4000 } } } })).Status
        );
        Assert.Equal(204, (await _server.Post($"{bench.Url}/probe", new { speed = 600 })).Status);
        Assert.Equal(400, (await _server.Post($"{bench.Url}/probe", new { speed = 1e9 })).Status);
    }

    [Fact]
    public async Task The_log_book_tells_everything_and_leaves_as_csv_and_json()
    {
        var bench = await Started("dust-out");
        await bench.Do(new { kind = "damage-found", text = "=cmd clip, \"broken\"" });
        await bench.DoAllSteps();
        await bench.Do(new { kind = "work-filed" });
        var (_, log) = await _server.Get("/api/v1/log?asset=GC-1&kinds=service,found,damage-found");
        Assert.Equal(3, log.GetProperty("total").GetInt32());
        Assert.Equal(1, (await _server.Get("/api/v1/log?text=cmd%20clip")).Body.GetProperty("total").GetInt32());
        Assert.Equal(0, (await _server.Get("/api/v1/log?text=100%25")).Body.GetProperty("total").GetInt32());
        Assert.Equal(0, (await _server.Get("/api/v1/log?until=2001-01-01")).Body.GetProperty("total").GetInt32());
        var csv = await (
            await _server.Raw(new HttpRequestMessage(HttpMethod.Get, "/api/v1/log.csv?kinds=damage-found"))
        ).Content.ReadAsStringAsync();
        Assert.StartsWith("time,asset,kind,text,by,job,photo\r\n", csv);
        Assert.Contains("GC-1,damage-found,\"Damage found on opening: =cmd clip, \"\"broken\"\"\",M. Larkspur,1,\r\n", csv);
        var json = JsonDocument
            .Parse(
                await (await _server.Raw(new HttpRequestMessage(HttpMethod.Get, "/api/v1/log.json"))).Content.ReadAsStringAsync()
            )
            .RootElement;
        Assert.Equal((await _server.Get("/api/v1/log")).Body.GetProperty("total").GetInt32(), json.GetArrayLength());
    }

    [Fact]
    public async Task A_scanned_label_leads_to_the_machine_or_to_the_job_in_hand()
    {
        await _server.LoadSmallFleet();
        async Task<(string?, JsonElement)> Scan(string text)
        {
            var (status, body) = await _server.Get($"/api/v1/scan?text={Uri.EscapeDataString(text)}");
            Assert.Equal(200, status);
            return (body.GetProperty("asset").GetString(), body.GetProperty("job"));
        }
        Assert.Equal(JsonValueKind.Null, (await Scan("GC-3")).Item2.ValueKind);
        var bench = await Bench.Start(_server, "GC-3", "dust-out");
        Assert.Equal(
            ("GC-3", 1),
            ((await Scan("http://127.0.0.1:5117/machines/GC-3")).Item1, (await Scan(" GC-3 ")).Item2.GetInt32())
        );
        Assert.Equal("GC-3", (await Scan("https://bench.example/bench/1")).Item1);
        Assert.Equal(404, (await _server.Get("/api/v1/scan?text=ZZ-9")).Status);
        Assert.Equal(400, (await _server.Get("/api/v1/qr.svg?text=")).Status);
        var svg = await (
            await _server.Raw(new HttpRequestMessage(HttpMethod.Get, "/api/v1/qr.svg?text=GC-3"))
        ).Content.ReadAsStringAsync();
        Assert.StartsWith("<svg", svg);
        Assert.Equal(1, bench.Version);
    }

    [Fact]
    public void Database_is_opened_with_a_full_synchronous_commit()
    {
        using var connection = _server.Services.GetRequiredService<Database>().Connect();
        using var command = connection.CreateCommand();
        command.CommandText = "PRAGMA synchronous";
        Assert.Equal(2L, command.ExecuteScalar());
    }

    [Fact]
    public async Task A_machine_that_is_back_soon_is_linked_to_its_earlier_job_and_counted()
    {
        var first = await Started("dust-out");
        Assert.Equal(JsonValueKind.Null, first.Job.GetProperty("comebackOf").ValueKind);
        await first.DoAllSteps();
        await first.Do(new { kind = "work-filed" });
        var back = await Bench.Start(_server, "GC-1", "repaste");
        Assert.Equal(first.Job.GetProperty("id").GetInt64(), back.Job.GetProperty("comebackOf").GetInt64());
        Assert.True(back.Job.GetProperty("freeOfCharge").GetBoolean());
        var rate = (await _server.Get("/api/v1/findings/comebacks")).Body.EnumerateArray().Single();
        Assert.Equal(
            ("dust-out", "Sorrel", 1, 1),
            (
                rate.GetProperty("level").GetString(),
                rate.GetProperty("model").GetString(),
                rate.GetProperty("jobs").GetInt32(),
                rate.GetProperty("cameBack").GetInt32()
            )
        );

        // The house sets the span, and what it costs.
        await back.Do(new { kind = "given-up", reason = "wrong machine" });
        Assert.Equal(0, (await _server.Get("/api/v1/findings/comebacks")).Body[0].GetProperty("cameBack").GetInt32());
        await Rule("comebacksFree", false);
        var paid = await Bench.Start(_server, "GC-1", "repaste");
        Assert.False(paid.Job.GetProperty("freeOfCharge").GetBoolean());
        await paid.Do(new { kind = "given-up", reason = "wrong machine" });
        await Rule("comebackDays", 0);
        var never = await Bench.Start(_server, "GC-1", "repaste");
        Assert.Equal(JsonValueKind.Null, never.Job.GetProperty("comebackOf").ValueKind);
    }

    private async Task Rule(string name, object value)
    {
        var rules = JsonSerializer.Deserialize<Dictionary<string, object?>>((await _server.Get("/api/v1/policy")).Body)!;
        var bench = JsonSerializer.Deserialize<Dictionary<string, object?>>((JsonElement)rules["bench"]!)!;
        bench[name] = value;
        rules["bench"] = bench;
        var (status, body) = await _server.Put("/api/v1/policy", rules);
        Assert.True(status == 200, body.ToString());
    }
}
