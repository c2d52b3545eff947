using System.Diagnostics;
using Pyrometron.Application.Campaigns;
using Pyrometron.Application.Fleet;
using Pyrometron.Application.Rules;
using Pyrometron.Application.Weeks;
using Pyrometron.Core.Campaigns;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Readings;
using Pyrometron.Core.Simulation;
using Pyrometron.Core.Units;
using Pyrometron.Sending;
using Pyrometron.Storage;

namespace Pyrometron.Server.Demo;

/// <summary>
/// Lays the demo into a database of its own: beside the final place first, so that one that was broken off leaves nothing.
/// </summary>
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
        using (var database = Database.Open(laying, clock))
        {
            var readings = LayFleet(institute, database, clock);
            new CoastStores(institute.Today).Lay(database, clock);
            foreach (var past in institute.Jobs)
                new PlayedJob(institute, past, database, clock.GetUtcNow().AddDays(-past.DaysAgo)).Play();
            CoastStores.Count(database, clock);
            LayCampaign(institute, database, clock);
            LayReports(institute, database, clock);
            LayStaff(institute, database, clock);
            LayRules(database, clock);
            log.LogInformation(
                "Laid the demo: {Machines} machines, {Readings} readings, in {Milliseconds} ms",
                institute.Machines.Count,
                readings,
                time.ElapsedMilliseconds
            );
        }
        File.Move(laying, path);
    }

    private static int LayFleet(CoastInstitute institute, Database database, TimeProvider clock) =>
        database.Write(
            Actor.Program,
            clock.GetUtcNow(),
            t =>
            {
                AboutStore.MarkAsDemo(t);
                FleetStore.Import(t, institute.Register);
                foreach (var notes in CoastNotes.All)
                    NotesStore.Keep(t, notes, seen: 0);
                return LayReadings(institute, t);
            }
        );

    /// <summary>Dust out of the reading room's desktops, the pilot done, the others to come.</summary>
    private static void LayCampaign(CoastInstitute institute, Database database, TimeProvider clock) =>
        new CampaignUseCases(database, new PastClock(clock.GetUtcNow().AddDays(-25))).Begin(
            Actor.Program,
            new Campaign(
                0,
                "Dust out of the reading room",
                ServiceLevel.DustOut,
                3,
                new SequentialTest(3, Campaign.UsualScatter),
                CampaignState.Running,
                institute.Today.AddDays(-25),
                institute.Today.AddDays(40),
                null,
                null,
                null,
                ["DT-0019", "DT-0010", "DT-0014", "DT-0011", "DT-0016", "DT-0021", "DT-0027", "DT-0033"]
            )
        );

    private static int LayReadings(CoastInstitute institute, Transaction t)
    {
        var stored = FleetStore.All(t).ToDictionary(a => a.Asset.Tag);
        var until = t.Now.ToUnixTimeMilliseconds() / 86_400_000.0;
        var count = 0;
        foreach (
            var chunk in institute.Machines.SelectMany((machine, i) => ReadingsOf(institute, machine, i, until)).Chunk(Batch)
        )
        {
            ReadingStore.Add(t, chunk, stored, (_, _) => { });
            count += chunk.Length;
        }
        return count;
    }

    private static IEnumerable<(string, Reading)> ReadingsOf(
        CoastInstitute institute,
        SimulatedMachine machine,
        int i,
        double until
    )
    {
        var from = Math.Max(Math.Floor(until) - CoastInstitute.Days, UnixDay.Noon(machine.Asset.InServiceSince));
        var last = until - CoastInstitute.SilentSince.GetValueOrDefault(machine.Asset.Tag);
        return Workshop
            .Run(machine, institute.Air[machine.Asset.Zone], from, last, seed: 700 + i)
            .Select(r => (machine.Asset.Tag, r));
    }

    private static void LayStaff(CoastInstitute institute, Database database, TimeProvider clock)
    {
        var staff = new StaffUseCases(database, clock);
        foreach (var person in CoastStaff.People)
            staff.Keep(Actor.Program, person);
        // They chose a day ago: today's mail is due already.
        foreach (var chosen in CoastStaff.Chosen)
            database.Write(Actor.Program, clock.GetUtcNow().AddDays(-1), t => NoticeStore.Keep(t, chosen));
        database.Write(
            Actor.Program,
            clock.GetUtcNow(),
            t => NoticeStore.KeepSecret(t, CoastStaff.WithProgram, WebhookSecret.Make())
        );
        foreach (var zone in new CoastStaff(institute.Today).Zones)
            staff.Keep(Actor.Program, zone);
    }

    /// <summary>What is lifted out of a rack is lifted by two.</summary>
    private static void LayRules(Database database, TimeProvider clock) =>
        new RuleUseCases(database, clock).Keep(
            Actor.Program,
            new LocalRule(RuleScope.Model, CoastModels.Tern.Name, new RuleChange(TwoPeople: true))
        );

    private static void LayReports(CoastInstitute institute, Database database, TimeProvider clock)
    {
        var fleet = new FleetUseCases(database, clock);
        foreach (var (tag, daysAgo, kind, note) in CoastInstitute.Reports)
            fleet.Report(Actor.Program, tag, new Symptom(institute.Today.AddDays(-daysAgo), kind, note));
    }
}
