using System.Globalization;
using Pyrometron.Application.Bench;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Inspection;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Learning;
using Pyrometron.Core.Materials;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Priority;
using Pyrometron.Core.Procedures;
using Pyrometron.Core.Simulation;
using Pyrometron.Core.Units;
using Pyrometron.Server.Bench;
using Pyrometron.Storage;

namespace Pyrometron.Server.Demo;

/// <summary>
/// A job of the past, played entry by entry through the same rules and the same store as a real one, on a clock that stands at
/// its day.
/// </summary>
internal sealed class PlayedJob
{
    /// <summary>How sure the judgement was of these kelvins then, K.</summary>
    private const double StatedSigma = 1.5;

    private const string Device = "demo",
        Technician = "M. Larkspur";

    private readonly CoastInstitute _institute;
    private readonly PastJob _past;
    private readonly PastClock _clock;
    private readonly BenchUseCases _bench;
    private readonly BenchQueries _jobs;
    private long _id;

    public PlayedJob(CoastInstitute institute, PastJob past, Database database, DateTimeOffset at)
    {
        (_institute, _past, _clock) = (institute, past, new PastClock(at));
        _bench = new BenchUseCases(database, _clock);
        _jobs = new BenchQueries(new JobStore(database), new NotesStore(database));
    }

    private static Actor Person => Actor.Of(Technician, Device);

    public void Play()
    {
        var machine = _institute.Machines.Single(m => m.Asset.Tag == _past.Asset);
        var zone = _institute.Air[machine.Asset.Zone];
        var today = DateOnly.FromDateTime(_clock.GetUtcNow().UtcDateTime);
        var day = UnixDay.Noon(today);
        var opened = machine.Asset.UnderWarranty(today) && ServiceEffects.Opens(_past.Level);
        _id = _bench.Start(
            Person,
            Device,
            new JobToStart(
                _past.Asset,
                _past.Level,
                null,
                opened ? "Its seller agreed by letter, seals to be renewed." : null,
                new Prediction(
                    _past.Cured.Cause,
                    _past.Level,
                    Math.Round(_past.Cured.Kelvin, 1),
                    NeedsWork.Chance(_past.Cured.Kelvin, StatedSigma, near: 0, JudgementPolicy.Default)
                )
            )
        );
        if (_past.Complaint is { } complaint)
            Add(complaint);
        Add(new RunMeasured(RunPhase.Before, RunOn(machine, zone, day - 1)));
        foreach (var found in _past.Found)
            Add(found);
        foreach (var step in Job.Steps)
            Do(step.Card);
        foreach (var used in _past.Used)
            Add(used);
        if (Job.Basis.LiftsCooler)
        {
            var (paste, batch, lot) = CoastStores.PasteOn(_past.DaysAgo);
            Add(new ProductUsed(ProductKind.Paste, paste, batch, PastePattern.Spread, lot));
            Add(new ProductUsed(ProductKind.Alcohol, "Alcohol 99 %", null, null, 8));
        }
        Add(new MinutesBooked(ProvenMinutes.Usual(machine.Asset.Kind, _past.Level) + 7));
        if (_past.Note is { } note)
            Add(new Noted(note));
        Photograph();
        Add(new WorkFiled());
        if (!_past.Proven)
            return;
        Add(new RunMeasured(RunPhase.After, RunOn(machine, zone, day + 0.2)));
        Add(new VerdictFiled(_past.Complaint is null ? null : true));
        Add(new HandedBack(_past.Owner));
    }

    private Job Job => _jobs.Find(_id)!.Job;

    private void Do(CardStep step)
    {
        if (step.Form is StepForm.ScrewsOut or StepForm.ScrewsIn or StepForm.ConnectorsOut or StepForm.ConnectorsIn)
        {
            var what = step.Form is StepForm.ScrewsOut or StepForm.ScrewsIn ? CountOf.Screws : CountOf.Connectors;
            var back = step.Form is StepForm.ScrewsIn or StepForm.ConnectorsIn;
            var expected = Job.Expected.Where(c => c.What == what).ToArray();
            if (expected.Length == 0 && !back)
                Add(
                    new CountExcused(what, what == CountOf.Screws ? "thumb screws, all captive" : "one fan lead, laid beside it")
                );
            foreach (var count in expected)
                Add(new Counted(what, count.Item, count.Out, back ? count.Out : 0));
        }
        if (step.Form == StepForm.SealInspection)
            Add(new Found(FindingSubject.Seal, "none"));
        if (step.Form == StepForm.Chip)
            Add(new ChipSeen(ChipKind.Bare));
        if (step.Timer is { Required: true } timer)
        {
            Add(new TimerStarted(step.Id, timer.Seconds));
            _clock.Forward(TimeSpan.FromSeconds(timer.Seconds));
        }
        _clock.Forward(TimeSpan.FromSeconds(90));
        Add(new StepDone(step.Id, [.. step.Gate.Select(g => g.ToString())]));
    }

    private void Photograph()
    {
        if (_past.Found.FirstOrDefault(f => f.About == FindingSubject.Dust) is not { } dust)
            return;
        var key = Guid.NewGuid();
        var photo = Photo.Read(FinsPicture.Draw(int.Parse(dust.Grade, CultureInfo.InvariantCulture)), out _)!;
        _bench.KeepPhoto(Person, _id, new StoredPhoto(key, photo.Width, photo.Height, photo.Picture, photo.Small));
        Add(new PhotoTaken(key, "Fins as found", "inspect", FoundOnOpening: true));
    }

    private void Add(JobEntry entry) =>
        _bench.Append(
            Person,
            _id,
            new EntryToAppend(Guid.NewGuid(), _jobs.Find(_id)!.Row.Version, Device, Technician, _clock.GetUtcNow(), entry)
        );

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
}
