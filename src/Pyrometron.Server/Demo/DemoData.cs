using System.Diagnostics;
using System.Text.Json;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Proof;
using Pyrometron.Core.Simulation;
using Pyrometron.Core.Units;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Proof;
using Pyrometron.Storage;

namespace Pyrometron.Server.Demo;

/// <summary>Lays the demo into a database of its own: beside the final place first, so that one that was broken off leaves nothing.</summary>
internal static class DemoData
{
    private const int Batch = 20_000;

    /// <summary>Makes the demo database.</summary>
    /// <param name="path">Where it shall be; nothing may be there yet.</param>
    public static void Lay(string path, TimeProvider clock, ILogger log)
    {
        var laying = path + ".laying";
        Directory.CreateDirectory(Path.GetDirectoryName(Path.GetFullPath(path))!);
        foreach (var left in (string[])[laying, laying + "-wal", laying + "-shm"])
            File.Delete(left);
        var time = Stopwatch.StartNew();
        var institute = new CoastInstitute(DateOnly.FromDateTime(clock.GetUtcNow().UtcDateTime));
        using (var database = Database.Open(laying))
        {
            new AboutStore(database).Data = "demo";
            var fleet = new FleetStore(database, clock);
            fleet.Import(institute.Register);
            var readings = LayReadings(institute, fleet, new ReadingStore(database, clock), clock);
            LayJobs(institute, database, clock);
            var symptoms = new SymptomStore(database, clock);
            foreach (var (tag, daysAgo, kind, note) in CoastInstitute.Reports)
                symptoms.Add(fleet.Find(tag)!.Id, new Symptom(institute.Today.AddDays(-daysAgo), kind, note));
            log.LogInformation("Laid the demo: {Machines} machines, {Readings} readings, in {Milliseconds} ms", institute.Machines.Count, readings, time.ElapsedMilliseconds);
        }
        File.Move(laying, path);
    }

    private static int LayReadings(CoastInstitute institute, FleetStore fleet, ReadingStore store, TimeProvider clock)
    {
        var stored = fleet.All().ToDictionary(a => a.Asset.Tag);
        var until = clock.GetUtcNow().ToUnixTimeMilliseconds() / 86_400_000.0;
        var count = 0;
        var air = institute.Air;
        foreach (var chunk in institute.Machines.SelectMany((machine, i) =>
            Workshop.Run(machine, air[machine.Asset.Zone], Math.Max(Math.Floor(until) - CoastInstitute.Days, UnixDay.Noon(machine.Asset.InServiceSince)), until, seed: 700 + i).Select(r => (machine.Asset.Tag, r))).Chunk(Batch))
        {
            store.Add(chunk, stored, (_, _) => { }, CancellationToken.None);
            count += chunk.Length;
        }
        return count;
    }

    /// <summary>Jobs are played through the same store as real ones, on a clock that stands at their day.</summary>
    private static void LayJobs(CoastInstitute institute, Database database, TimeProvider clock)
    {
        var air = institute.Air;
        foreach (var past in institute.Jobs)
        {
            var at = new PastClock(clock.GetUtcNow().AddDays(-past.DaysAgo));
            var jobs = new JobStore(database, at);
            var machine = institute.Machines.Single(m => m.Asset.Tag == past.Asset);
            var zone = air[machine.Asset.Zone];
            var day = UnixDay.Noon(DateOnly.FromDateTime(at.GetUtcNow().UtcDateTime));
            var id = jobs.Start(past.Asset, past.Level);
            var version = 1;
            jobs.SaveRun(id, version++, "before", Json(RunOn(machine, zone, day - 1)));
            foreach (var step in Checklist.For(machine.Asset.Kind, past.Level))
                jobs.Tick(id, version++, step.Id, true);
            jobs.Edit(id, version++, null, past.Note, past.Level);
            jobs.Finish(id, version++, DateOnly.FromDateTime(at.GetUtcNow().UtcDateTime));
            if (!past.Proven)
                continue;
            var (before, after) = (RunOn(machine, zone, day - 1), RunOn(machine, zone, day + 0.2));
            jobs.SaveRun(id, version++, "after", Json(after));
            jobs.Prove(id, version, JsonSerializer.Serialize(VerdictAnswer.From(RunComparison.Evaluate(past.Level, before, after)), ApiJson.Options));
        }
    }

    private static Run RunOn(SimulatedMachine machine, SimulatedZone zone, double day)
    {
        var air = Math.Round(zone.SeenC(day), 1);
        // Automatic fans are fixed for a test where they can be, so that before and after match.
        var (parts, pct, rpm) = (machine with { FanTargetC = null }).Settle(day, 1, air);
        return new Run(machine.Loads[0].Name, 20, new Celsius(air), new RunFan(FanMode.Fixed, pct, Math.Round(rpm)), "stock", machine.Instruments.Power ? Math.Round(machine.PowerW) : null,
            null, null, false, [.. machine.Asset.Parts.Select((p, i) => new RunPart(p.Name, new Celsius(Math.Round(parts[i]))))]);
    }

    private static string Json(Run run) => JsonSerializer.Serialize(RunDto.From(run), ApiJson.Options);

    private sealed class PastClock(DateTimeOffset now) : TimeProvider
    {
        public override DateTimeOffset GetUtcNow() => now;
    }
}
