using System.Diagnostics;
using System.Text.Json;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Inspection;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Learning;
using Pyrometron.Core.Procedures;
using Pyrometron.Core.Simulation;
using Pyrometron.Core.Units;
using Pyrometron.Server.Bench;
using Pyrometron.Server.Hosting;
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
            LayNotes(database, clock);
            LayJobs(institute, database, clock);
            var symptoms = new SymptomStore(database, clock);
            foreach (var (tag, daysAgo, kind, note) in CoastInstitute.Reports)
                symptoms.Add(fleet.Find(tag)!.Id, new Symptom(institute.Today.AddDays(-daysAgo), kind, note));
            log.LogInformation(
                "Laid the demo: {Machines} machines, {Readings} readings, in {Milliseconds} ms",
                institute.Machines.Count,
                readings,
                time.ElapsedMilliseconds
            );
        }
        File.Move(laying, path);
    }

    private static int LayReadings(CoastInstitute institute, FleetStore fleet, ReadingStore store, TimeProvider clock)
    {
        var stored = fleet.All().ToDictionary(a => a.Asset.Tag);
        var until = clock.GetUtcNow().ToUnixTimeMilliseconds() / 86_400_000.0;
        var count = 0;
        var air = institute.Air;
        foreach (
            var chunk in institute
                .Machines.SelectMany(
                    (machine, i) =>
                        Workshop
                            .Run(
                                machine,
                                air[machine.Asset.Zone],
                                Math.Max(Math.Floor(until) - CoastInstitute.Days, UnixDay.Noon(machine.Asset.InServiceSince)),
                                until,
                                seed: 700 + i
                            )
                            .Select(r => (machine.Asset.Tag, r))
                )
                .Chunk(Batch)
        )
        {
            store.Add(chunk, stored, (_, _) => { }, CancellationToken.None);
            count += chunk.Length;
        }
        return count;
    }

    private static void LayNotes(Database database, TimeProvider clock)
    {
        var store = new NotesStore(database, clock);
        foreach (var notes in CoastNotes.All)
            store.Keep(notes.Model, JsonSerializer.Serialize(notes, ApiJson.Options), seen: 0);
    }

    /// <summary>Jobs are played through the same rules and the same store as real ones, on a clock that stands at their day.</summary>
    private static void LayJobs(CoastInstitute institute, Database database, TimeProvider clock)
    {
        foreach (var past in institute.Jobs)
            new PlayedJob(institute, past, database, new PastClock(clock.GetUtcNow().AddDays(-past.DaysAgo))).Play();
    }

    /// <summary>A job of the past, entry by entry.</summary>
    private sealed class PlayedJob(CoastInstitute institute, CoastInstitute.PastJob past, Database database, PastClock clock)
    {
        private readonly JobStore _jobs = new(database, clock);
        private readonly PhotoStore _photos = new(database);
        private readonly JobBook _book = new(
            new JobStore(database, clock),
            new FleetStore(database, clock),
            new NotesStore(database, clock),
            new PhotoStore(database),
            new PolicyStore(database),
            clock
        );
        private long _id;

        public void Play()
        {
            var machine = institute.Machines.Single(m => m.Asset.Tag == past.Asset);
            var zone = institute.Air[machine.Asset.Zone];
            var day = UnixDay.Noon(DateOnly.FromDateTime(clock.GetUtcNow().UtcDateTime));
            var today = DateOnly.FromDateTime(clock.GetUtcNow().UtcDateTime);
            _id = _jobs
                .Start(
                    new NewJob(
                        past.Asset,
                        past.Level,
                        null,
                        machine.Asset.UnderWarranty(today) ? machine.Asset.WarrantyUntil : null,
                        new Prediction(past.Cured.Cause, past.Level, Math.Round(past.Cured.Kelvin, 1))
                    )
                )!
                .Value;
            if (machine.Asset.UnderWarranty(today) && past.Level > ServiceLevel.BlowOut)
                Add(new WarrantyAnswered("Its seller agreed by letter, seals to be renewed."));
            if (past.Complaint is { } complaint)
                Add(complaint);
            Add(new RunMeasured(RunPhase.Before, RunOn(machine, zone, day - 1)));
            foreach (var found in past.Found)
                Add(found);
            foreach (var step in _book.Find(_id)!.Steps)
                Do(step.Card);
            foreach (var used in past.Used)
                Add(used);
            Add(new MinutesBooked(ProvenMinutes.Usual(machine.Asset.Kind, past.Level) + 7));
            if (past.Note is { } note)
                Add(new Noted(note));
            Photograph();
            Add(new WorkFiled());
            if (!past.Proven)
                return;
            Add(new RunMeasured(RunPhase.After, RunOn(machine, zone, day + 0.2)));
            Add(new VerdictFiled(past.Complaint is null ? null : true));
            Add(new HandedBack(past.Owner));
        }

        private void Do(CardStep step)
        {
            if (step.Form is StepForm.ScrewsOut or StepForm.ScrewsIn or StepForm.ConnectorsOut or StepForm.ConnectorsIn)
            {
                var what = step.Form is StepForm.ScrewsOut or StepForm.ScrewsIn ? CountOf.Screws : CountOf.Connectors;
                foreach (var expected in _book.Find(_id)!.Expected.Where(c => c.What == what))
                    Add(
                        new Counted(
                            what,
                            expected.Item,
                            expected.Out,
                            step.Form is StepForm.ScrewsIn or StepForm.ConnectorsIn ? expected.Out : 0
                        )
                    );
            }
            if (step.Timer is { Required: true } timer)
            {
                Add(new TimerStarted(step.Id, timer.Seconds));
                clock.Forward(TimeSpan.FromSeconds(timer.Seconds));
            }
            clock.Forward(TimeSpan.FromSeconds(90));
            Add(new StepDone(step.Id, step.Gate));
        }

        private void Photograph()
        {
            if (past.Found.FirstOrDefault(f => f.About == FindingSubject.Dust) is not { } dust)
                return;
            var key = Guid.NewGuid();
            var photo = Photo.Read(
                FinsPicture.Draw(int.Parse(dust.Grade, System.Globalization.CultureInfo.InvariantCulture)),
                out _
            )!;
            _photos.Keep(key, _id, photo.Width, photo.Height, photo.Picture, photo.Small);
            Add(new PhotoTaken(key, "Fins as found", "inspect", FoundOnOpening: true));
        }

        private void Add(JobEntry entry) =>
            _book.Append(_id, Guid.NewGuid(), _jobs.Find(_id)!.Version, "demo", "M. Larkspur", clock.GetUtcNow(), entry);
    }

    private static Run RunOn(SimulatedMachine machine, SimulatedZone zone, double day)
    {
        var air = Math.Round(zone.SeenC(day), 1);
        // Automatic fans are fixed for a test where they can be, so that before and after match.
        var (parts, pct, rpm) = (machine with { Fan = new FanControl.Fixed(60) }).Settle(day, 1, air);
        return new Run(
            machine.Loads[0].Name,
            20,
            new Celsius(air),
            new RunFan(FanMode.Fixed, pct, Math.Round(rpm)),
            "stock",
            machine.Instruments.Power ? Math.Round(machine.PowerW) : null,
            null,
            null,
            false,
            [.. machine.Asset.Parts.Select((p, i) => new RunPart(p.Name, new Celsius(Math.Round(parts[i]))))]
        );
    }

    private sealed class PastClock(DateTimeOffset now) : TimeProvider
    {
        private DateTimeOffset _now = now;

        public void Forward(TimeSpan time) => _now += time;

        public override DateTimeOffset GetUtcNow() => _now;
    }
}
