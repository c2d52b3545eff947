using System.Text.Json;

namespace Pyrometron.Server.Tests;

/// <summary>Entries that come late, from a device that was without network, and what follows from a filed job.</summary>
public sealed class OfflineBenchTests : IDisposable
{
    private readonly Server _server = new();

    public void Dispose() => _server.Dispose();

    private async Task<Bench> Started(string level)
    {
        await _server.LoadSmallFleet();
        await _server.Get("/api/v1/queue?wait=60");
        var bench = await Bench.Start(_server, "GC-1", level);
        await bench.Do(new { kind = "before-excused", reason = "does not start" });
        return bench;
    }

    private static DateTimeOffset DoneAt(Bench bench, string step) =>
        bench
            .Job.GetProperty("steps")
            .EnumerateArray()
            .Single(s => s.GetProperty("id").GetString() == step)
            .GetProperty("doneAt")
            .GetDateTimeOffset();

    [Fact]
    public async Task A_tick_keeps_the_time_at_which_it_was_made_unless_that_cannot_be()
    {
        var bench = await Started("dust-out");
        var before = DateTimeOffset.UtcNow;
        // Made a minute ago, sent now: within the tolerance of a job that began just before.
        var made = before.AddMinutes(-1);
        await bench.Do(new { kind = "step-done", step = "prepare" }, made);
        Assert.Equal(made, DoneAt(bench, "prepare"), TimeSpan.FromMilliseconds(5));
        // A clock in another year is not believed.
        await bench.Do(new { kind = "step-undone", step = "prepare" });
        await bench.Do(new { kind = "step-done", step = "prepare" }, before.AddYears(3));
        Assert.InRange(DoneAt(bench, "prepare"), before.AddSeconds(-1), DateTimeOffset.UtcNow.AddSeconds(1));
        await bench.Do(new { kind = "step-undone", step = "prepare" });
        await bench.Do(new { kind = "step-done", step = "prepare" }, before.AddYears(-3));
        Assert.InRange(DoneAt(bench, "prepare"), before.AddSeconds(-1), DateTimeOffset.UtcNow.AddSeconds(1));
    }

    [Fact]
    public async Task Many_entries_made_on_one_version_all_arrive_when_they_are_from_one_device()
    {
        var bench = await Started("dust-out");
        var seen = bench.Version;
        for (var i = 0; i < 12; i++)
            Assert.Equal(
                200,
                (
                    await bench.Send(
                        new
                        {
                            kind = "counted",
                            what = "screws",
                            item = "6 mm PH1",
                            @out = i + 1,
                            @in = 0,
                        },
                        version: seen
                    )
                ).Status
            );
        await bench.Reload();
        Assert.Equal(12, bench.Job.GetProperty("counts")[0].GetProperty("out").GetInt32());
        Assert.Equal(seen + 12, bench.Version);
    }

    [Fact]
    public async Task A_fan_changed_on_the_way_stands_in_the_service()
    {
        var bench = await Started("repaste");
        await bench.Do(
            new
            {
                kind = "found",
                about = "fan-noise",
                grade = "rattles",
            }
        );
        Assert.Contains(bench.Job.GetProperty("steps").EnumerateArray(), s => s.GetProperty("id").GetString() == "fan-swap");
        await bench.DoAllSteps();
        await bench.Do(new { kind = "work-filed" });
        var service = (await _server.Get("/api/v1/assets/GC-1")).Body.GetProperty("services").EnumerateArray().Single();
        Assert.Equal("repaste", service.GetProperty("level").GetString());
        Assert.Contains(service.GetProperty("renewed").EnumerateObject(), r => r.Name == "fan");
    }

    [Fact]
    public async Task Inspection_raises_the_level_and_its_steps_come_along()
    {
        var bench = await Started("dust-out");
        await bench.DoAllSteps(until: "blow");
        await bench.Do(
            new
            {
                kind = "found",
                about = "pads",
                grade = "torn",
            }
        );
        Assert.Equal("repad", bench.Job.GetProperty("asked").GetProperty("level").GetString());
        await bench.Do(
            new
            {
                kind = "level-changed",
                level = "repad",
                reason = "pads torn",
            }
        );
        Assert.Equal(JsonValueKind.Null, bench.Job.GetProperty("asked").ValueKind);
        Assert.Equal("dust-out", bench.Job.GetProperty("startedLevel").GetString());
        await bench.DoAllSteps();
        await bench.Do(new { kind = "work-filed" });
        Assert.Equal(["pads", "paste", "dust"], bench.Job.GetProperty("foundCauses").EnumerateArray().Select(c => c.GetString()));
        var (_, machine) = await _server.Get("/api/v1/assets/GC-1");
        Assert.Contains(machine.GetProperty("services").EnumerateArray(), s => s.GetProperty("level").GetString() == "repad");
    }

    [Fact]
    public async Task Without_a_before_run_nothing_is_proven_and_the_second_look_stays_due()
    {
        var bench = await Started("repaste");
        await bench.DoAllSteps();
        await bench.Do(new { kind = "work-filed" });
        var run = new
        {
            workload = "steady",
            minutes = 20,
            ambientCelsius = 25,
            fan = new { mode = "auto" },
            settings = "stock",
            position = "flat",
            parts = new[]
            {
                new
                {
                    part = "core",
                    celsius = 71,
                    maximumCelsius = 74,
                },
            },
        };
        await bench.Do(
            new
            {
                kind = "run-measured",
                phase = "after",
                run,
            }
        );
        Assert.Equal(
            ("flat", 74),
            (
                bench.Job.GetProperty("runs")[0].GetProperty("run").GetProperty("position").GetString(),
                bench
                    .Job.GetProperty("runs")[0]
                    .GetProperty("run")
                    .GetProperty("parts")[0]
                    .GetProperty("maximumCelsius")
                    .GetInt32()
            )
        );
        await bench.Do(new { kind = "verdict-filed" });
        Assert.Equal("not-comparable", bench.Job.GetProperty("verdict").GetProperty("outcome").GetString());
        var summary = (await _server.Get("/api/v1/jobs")).Body[0];
        Assert.Equal(
            (JsonValueKind.String, JsonValueKind.Null),
            (summary.GetProperty("recheckDue").ValueKind, summary.GetProperty("recheckedAt").ValueKind)
        );
        Assert.Equal(409, (await _server.Get($"{bench.Url}/runs/from-readings?phase=recheck")).Status);
        Assert.Equal(400, (await _server.Get($"{bench.Url}/runs/from-readings?phase=tomorrow")).Status);
        await bench.Do(
            new
            {
                kind = "run-measured",
                phase = "recheck",
                run,
            }
        );
        Assert.Equal(JsonValueKind.String, (await _server.Get("/api/v1/jobs")).Body[0].GetProperty("recheckedAt").ValueKind);
    }

    [Fact]
    public async Task A_deviation_is_told_in_every_later_job_on_the_machine()
    {
        var bench = await Started("dust-out");
        await bench.Do(new { kind = "deviation-seen", text = "paste over the memory instead of pads" });
        await bench.Do(new { kind = "given-up", reason = "owner needs it back" });
        var next = await Bench.Start(_server, "GC-1", "repad");
        var inspect = next.Job.GetProperty("steps").EnumerateArray().Single(s => s.GetProperty("id").GetString() == "inspect");
        Assert.Contains(
            inspect.GetProperty("cautions").EnumerateArray(),
            c => c.GetProperty("text").GetString()!.Contains("paste over the memory", StringComparison.Ordinal)
        );
    }

    [Fact]
    public async Task The_judgement_tells_its_own_record_once_there_are_jobs_enough()
    {
        var bench = await Started("dust-out");
        for (var job = 0; job < 3; job++)
        {
            if (job > 0)
            {
                bench = await Bench.Start(_server, "GC-1", "dust-out");
                await bench.Do(new { kind = "before-excused", reason = "again" });
            }
            await bench.DoAllSteps();
            await bench.Do(new { kind = "work-filed" });
        }
        var agreement = (await _server.Get("/api/v1/findings/agreement"))
            .Body.EnumerateArray()
            .Single(a => a.GetProperty("predicted").GetString() == "dust");
        Assert.True(agreement.GetProperty("right").GetInt32() <= agreement.GetProperty("jobs").GetInt32());
        Assert.True(agreement.GetProperty("right").GetInt32() >= 1);
    }
}
