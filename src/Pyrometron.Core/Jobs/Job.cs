using Pyrometron.Core.Fleet;
using Pyrometron.Core.Procedures;
using Pyrometron.Core.Proof;

namespace Pyrometron.Core.Jobs;

/// <summary>Where a job stands.</summary>
public enum JobState
{
    /// <summary>Started, not closed.</summary>
    Open,

    /// <summary>Work done and filed, after-run still missing: it stays visible until proven.</summary>
    WaitingForProof,

    /// <summary>Closed with a verdict.</summary>
    Proven,

    /// <summary>Given up; nothing was done to the machine.</summary>
    Abandoned,
}

/// <summary>What the judgement said when a job was started, kept beside what was found.</summary>
public sealed record Prediction(Cause Cause, ServiceLevel? Service, double DriftKelvin);

/// <summary>What is fixed about a job when it starts, and what its card is made from.</summary>
/// <param name="Basis">With the level it was started at.</param>
/// <param name="Parts">What can be measured on the machine.</param>
/// <param name="WarrantyUntil">Null where none runs on the day of the start.</param>
public sealed record JobHead(long Id, string Asset, CardBasis Basis, DateTimeOffset StartedAt, IReadOnlyList<Part> Parts, DateOnly? WarrantyUntil = null, Prediction? Predicted = null);

/// <summary>A step of a job's card as it stands.</summary>
/// <param name="SkippedBecause">Why it was left out, or null.</param>
public sealed record JobStep(CardStep Card, DateTimeOffset? DoneAt, string? DoneBy, IReadOnlyList<string> Checks, string? SkippedBecause, bool Skipped)
{
    /// <summary>Neither done nor left out.</summary>
    public bool IsOpen => DoneAt is null && !Skipped;
}

/// <summary>A run of a job.</summary>
/// <param name="Voided">Why it does not count any more, or null.</param>
public sealed record JobRun(Guid Key, RunPhase Phase, DateTimeOffset At, Run Run, string? Voided);

/// <summary>A timer that was set going.</summary>
public sealed record JobTimer(string Timer, DateTimeOffset StartedAt, int Seconds, bool Stopped)
{
    /// <summary>When it rings.</summary>
    public DateTimeOffset RingsAt => StartedAt.AddSeconds(Seconds);
}

/// <summary>How many came out and went in again.</summary>
public sealed record JobCount(CountOf What, string Item, int Out, int In);

/// <summary>One job on one machine: the sum of its entries, and the rules for the next one.</summary>
public sealed class Job
{
    private const int LongestText = 2000, MostEntries = 5000;

    private readonly Dictionary<string, StampedEntry> _steps = [];
    private readonly List<CardStep> _added = [];
    private readonly Dictionary<string, int> _repeats = [];
    private readonly Dictionary<(CountOf, string), JobCount> _counts = [];
    private readonly Dictionary<CountOf, string> _countExcuses = [];
    private readonly List<JobRun> _runs = [];
    private readonly Dictionary<string, JobTimer> _timers = [];
    private readonly Dictionary<FindingSubject, Found> _findings = [];
    private readonly List<DamageFound> _damage = [];
    private readonly List<DeviationSeen> _deviations = [];
    private readonly List<MaterialUsed> _materials = [];
    private readonly List<(StampedEntry Stamp, PhotoTaken Photo)> _photos = [];
    private readonly HashSet<Guid> _keys = [];
    private int _rounds = 1;

    /// <summary>Adds up a job.</summary>
    /// <param name="entries">In the order in which they were stored.</param>
    public Job(JobHead head, IEnumerable<StampedEntry> entries)
    {
        (Head, Basis) = (head, head.Basis);
        foreach (var entry in entries)
            Add(entry);
    }

    /// <summary>What is fixed since the start.</summary>
    public JobHead Head { get; }

    /// <summary>What the card is made from, with the level in hand.</summary>
    public CardBasis Basis { get; private set; }

    /// <summary>The level in hand.</summary>
    public ServiceLevel Level => Basis.Level;

    /// <summary>Where it stands.</summary>
    public JobState State { get; private set; } = JobState.Open;

    /// <summary>The number of entries so far, plus one; a device says which one it has seen.</summary>
    public int Version { get; private set; } = 1;

    /// <summary>When the work was filed.</summary>
    public DateTimeOffset? WorkDoneAt { get; private set; }

    /// <summary>When the verdict was filed, or the job given up.</summary>
    public DateTimeOffset? ClosedAt { get; private set; }

    /// <summary>Why it was opened without a before-run, or null.</summary>
    public string? BeforeExcuse { get; private set; }

    /// <summary>What its user complains of, or null.</summary>
    public ComplaintRecorded? Complaint { get; private set; }

    /// <summary>Whether the complaint is gone, as filed with the verdict.</summary>
    public bool? ComplaintFixed { get; private set; }

    /// <summary>The last word about the job.</summary>
    public string? Note { get; private set; }

    /// <summary>Why it was given up, or null.</summary>
    public string? GivenUpBecause { get; private set; }

    /// <summary>To whom it went back, and when; null while it is here.</summary>
    public (HandedBack To, DateTimeOffset At)? HandedBack { get; private set; }

    /// <summary>Minutes booked.</summary>
    public double Minutes { get; private set; }

    /// <summary>All runs, voided ones too, oldest first.</summary>
    public IReadOnlyList<JobRun> Runs => _runs;

    /// <summary>Counts so far.</summary>
    public IReadOnlyCollection<JobCount> Counts => _counts.Values;

    /// <summary>Why counts do not meet.</summary>
    public IReadOnlyDictionary<CountOf, string> CountExcuses => _countExcuses;

    /// <summary>Timers, the last start of each.</summary>
    public IReadOnlyCollection<JobTimer> Timers => _timers.Values;

    /// <summary>What was looked at.</summary>
    public IReadOnlyCollection<Found> Findings => _findings.Values;

    /// <summary>What was broken or missing before this job.</summary>
    public IReadOnlyList<DamageFound> Damage => _damage;

    /// <summary>Deviations from good practice.</summary>
    public IReadOnlyList<DeviationSeen> Deviations => _deviations;

    /// <summary>Photos with the entry that brought them.</summary>
    public IReadOnlyList<(StampedEntry Stamp, PhotoTaken Photo)> Photos => _photos;

    /// <summary>Materials used, summed.</summary>
    public IReadOnlyList<MaterialUsed> Materials =>
        [.. _materials.GroupBy(m => (m.Material, m.ThicknessMm)).Select(g => new MaterialUsed(g.Key.Material, g.Sum(m => m.Amount), g.Key.ThicknessMm)).Where(m => m.Amount > 0)];

    /// <summary>The causes that the findings speak for; null when nothing was looked at.</summary>
    public IReadOnlyList<Cause>? FoundCauses => Inspection.FoundCauses(Graded);

    /// <summary>A higher level that the findings ask for, or null.</summary>
    public (ServiceLevel Level, FindingSubject Subject, Grade Grade)? AskedFor => Inspection.AsksFor(Level, Graded);

    private IEnumerable<(FindingSubject, string)> Graded => _findings.Values.Select(f => (f.About, f.Grade));

    /// <summary>The standing run of a phase, or null.</summary>
    public JobRun? Standing(RunPhase phase) => _runs.LastOrDefault(r => r.Phase == phase && r.Voided is null);

    /// <summary>The verdict of the runs as they stand; null while one is missing.</summary>
    public Verdict? Verdict => Compare(RunPhase.After);

    /// <summary>The verdict of the second look, a week later.</summary>
    public Verdict? RecheckVerdict => Compare(RunPhase.Recheck);

    /// <summary>The day from which paste has bedded in and a second look is worth it; null before the work is filed or where no paste was renewed.</summary>
    public DateTimeOffset? RecheckDue => Basis.LiftsCooler ? WorkDoneAt?.AddDays(7) : null;

    private Verdict? Compare(RunPhase phase) =>
        Standing(RunPhase.Before) is { } before && Standing(phase) is { } after ? RunComparison.Evaluate(Level, before.Run, after.Run) : null;

    /// <summary>The steps as they stand, in the order of the work.</summary>
    public IReadOnlyList<JobStep> Steps => [.. Card().Select(card =>
    {
        var stamp = _steps.GetValueOrDefault(card.Id);
        return stamp?.Entry switch
        {
            StepDone done => new JobStep(card, stamp.MadeAt, stamp.By, done.Checks ?? [], null, false),
            StepSkipped skipped => new JobStep(card, null, null, [], skipped.Reason, true),
            _ => new JobStep(card, null, null, [], null, false),
        };
    })];

    private IEnumerable<CardStep> Card()
    {
        for (var round = 1; round <= _rounds; round++)
        {
            var found = Basis with { Findings = _findings.ToDictionary(f => f.Key, f => f.Value.Grade) };
            var basis = round == 1 ? found : found with { Level = Basis.LiftsCooler ? Basis.Level : ServiceLevel.Repaste };
            var steps = WorkCard.For(basis).Where(s => round == 1 || s.Stage is not Stage.Prepare).Select(s => round == 1 ? s : s with { Id = $"{s.Id}~r{round}" }).ToList();
            // What was added on the spot belongs to the round in hand.
            if (round == _rounds)
                steps.AddRange(_added);
            foreach (var step in steps.OrderBy(s => s.Stage))
            {
                yield return step;
                for (var n = 2; n <= _repeats.GetValueOrDefault(step.Id) + 1; n++)
                    yield return step with { Id = $"{step.Id}~{n}" };
            }
        }
    }

    /// <summary>How many of each kind should come out by the model's notes, screws by tray compartment, the shortest first.</summary>
    public IReadOnlyList<JobCount> Expected =>
    [
        .. Basis.Screws.GroupBy(s => s.Tray).OrderBy(g => g.First().LengthMm).ThenBy(g => g.Key, StringComparer.Ordinal).Select(g => new JobCount(CountOf.Screws, g.Key, g.Count(), 0)),
        .. Basis.Notes.Connectors.Select(c => new JobCount(CountOf.Connectors, c.Name, c.Count, 0)),
    ];

    /// <summary>The services that the work comes to: its level, and the fan that was changed on the way.</summary>
    public IReadOnlyList<ServiceLevel> Services =>
        [Level, .. Level != ServiceLevel.FanSwap && Steps.Any(s => s.Card.Kind == "fan-swap" && s.DoneAt is not null) ? [ServiceLevel.FanSwap] : Array.Empty<ServiceLevel>()];

    /// <summary>Whether work on the machine itself has begun.</summary>
    private bool Begun => Steps.Any(s => s.DoneAt is not null && s.Card.Kind is not ("prepare" or "owner-told" or "warranty"));

    /// <summary>Why work may not begin yet, or null: no before-run, no proof.</summary>
    public string? BlockedBefore => Standing(RunPhase.Before) is null && BeforeExcuse is null ? "Measure before opening, or write down why not." : null;

    /// <summary>Why the work cannot be filed as done, or null.</summary>
    public string? BlockedFinish => State != JobState.Open ? NotOpen
        : BlockedBefore ?? (Steps.FirstOrDefault(s => s.IsOpen && !s.Card.Optional) is { } open ? $"Still to do: {open.Card.Do}" : OpenCount(CountOf.Screws) ?? OpenCount(CountOf.Connectors));

    private const string NotOpen = "This job is not open any more.";

    /// <summary>Why a count does not meet, or null when it does or was excused.</summary>
    public string? OpenCount(CountOf what)
    {
        if (_countExcuses.ContainsKey(what))
            return null;
        var open = _counts.Values.Where(c => c.What == what && c.Out != c.In).Select(c => $"{c.Item}: {c.Out} out, {c.In} in").ToArray();
        return open.Length == 0 ? null : $"The {(what == CountOf.Screws ? "screws" : "connectors")} do not come out even ({string.Join("; ", open)}). Find them, or write down why.";
    }

    /// <summary>Whether an entry is here already.</summary>
    public bool Has(Guid key) => _keys.Contains(key);

    /// <summary>Why an entry cannot be taken as things stand, or null.</summary>
    /// <param name="at">When it happened, by the device's clock.</param>
    public string? Refuses(JobEntry entry, DateTimeOffset at) => Version > MostEntries ? "This job has too many entries; finish it and start another." : entry switch
    {
        StepDone done => OnlyOpen ?? RefusesStep(done, at),
        StepUndone { Step: var step } => OnlyOpen ?? (Find(step) is null ? NoStep(step) : null),
        StepSkipped skipped => OnlyOpen ?? RefusesSkip(skipped),
        StepAdded added => OnlyOpen ?? Sentence(added.Do, "What is to be done") ?? (_added.Count >= 50 ? "Fifty steps of your own are enough." : added.Stage is < Stage.Prepare or > Stage.Close ? "A step belongs between preparing and closing." : null),
        StepRepeated { Step: var step } => OnlyOpen ?? (Find(step) is null ? NoStep(step) : _repeats.GetValueOrDefault(step) >= 9 ? "Ten times is enough." : null),
        LevelChanged change => OnlyOpen ?? RefusesLevel(change.Level),
        Counted counted => OnlyOpen ?? Sentence(counted.Item, "What is counted") ?? RefusesCount(counted),
        CountExcused excused => OnlyOpen ?? Sentence(excused.Reason, "The reason"),
        Found found => Unclosed ?? (Inspection.Find(found.About, found.Grade) is null ? $"'{found.Grade}' is no grade of {Words.Of(found.About)}; there are {string.Join(", ", Inspection.Grades[found.About].Select(g => g.Word))}." : OptionalSentence(found.Note)),
        DamageFound damage => Unclosed ?? Sentence(damage.Text, "What is damaged"),
        DeviationSeen deviation => Unclosed ?? Sentence(deviation.Text, "The deviation"),
        ComplaintRecorded complaint => Unclosed ?? OptionalSentence(complaint.Load) ?? (complaint.MinutesToFailure is { } m && !(m is > 0 and <= 10_000) ? "Minutes to the failure are more than 0." : null),
        WarrantyAnswered answer => OnlyOpen ?? Sentence(answer.Answer, "The answer"),
        BeforeExcused excuse => OnlyOpen ?? Sentence(excuse.Reason, "The reason"),
        RunMeasured run => run.Run is null ? "A run is needed." : RefusesRun(run.Phase),
        RunVoided voided => Sentence(voided.Reason, "The reason") ?? (State == JobState.Abandoned || State == JobState.Proven && voided.Phase != RunPhase.Recheck ? "This job is closed; its runs stay."
            : Standing(voided.Phase) is null ? $"There is no {Words.Of(voided.Phase)}-run." : null),
        TimerStarted timer => timer.Seconds is < 1 or > 86_400 ? "A timer runs from a second to a day." : Sentence(timer.Timer, "The timer's name") ?? (_timers.Count >= 100 ? "A hundred timers are enough." : null),
        TimerStopped timer => timer.Timer is { } name && _timers.ContainsKey(name) ? null : "No such timer was started.",
        MaterialUsed used => Unabandoned ?? RefusesMaterial(used),
        MinutesBooked booked => Unabandoned ?? (!(Math.Abs(booked.Minutes) <= 1440) || Minutes + booked.Minutes < 0 ? "Minutes are booked up to a day at once, and their sum is not less than nothing." : null),
        Noted noted => noted.Text is { Length: <= LongestText } ? null : $"A note is {LongestText} characters at most.",
        PhotoTaken photo => OptionalSentence(photo.Caption) ?? (_photos.Count >= 100 ? "A hundred photos of one job are enough." : null),
        WorkFiled => BlockedFinish,
        Reopened again => State != JobState.WaitingForProof ? "Only work that waits for its proof is opened again." : RefusesReopening(again),
        VerdictFiled verdict => RefusesVerdict(verdict),
        HandedBack back => State is JobState.Open or JobState.Abandoned ? "It goes back to its owner once the work is filed." : Sentence(back.To, "To whom it goes") ?? OptionalSentence(back.Note),
        GivenUp gone => OnlyOpen ?? Sentence(gone.Reason, "The reason") ?? (Steps.Any(s => s.DoneAt is not null && s.Card.Stage is >= Stage.Clean and <= Stage.Tighten)
            ? "Work has been done on it: skip what is left, with the reason, and file what was done." : null),
        _ => "This kind of entry is not known.",
    };

    private string? OnlyOpen => State == JobState.Open ? null : NotOpen;

    private string? Unclosed => State is JobState.Open or JobState.WaitingForProof ? null : "This job is closed.";

    private string? Unabandoned => State == JobState.Abandoned ? "This job was given up." : null;

    private CardStep? Find(string? id) => Card().FirstOrDefault(s => s.Id == id);

    private static string NoStep(string? id) => $"This job has no step '{id}'.";

    private static string? Sentence(string? text, string what) => string.IsNullOrWhiteSpace(text) ? $"{what} is needed." : OptionalSentence(text);

    private static string? OptionalSentence(string? text) => text is { Length: > LongestText } ? $"{LongestText} characters at most." : null;

    private string? RefusesStep(StepDone done, DateTimeOffset at)
    {
        var steps = Steps;
        if (steps.FirstOrDefault(s => s.Card.Id == done.Step) is not { } step)
            return NoStep(done.Step);
        if (step.Card.Stage > Stage.Prepare && step.Card.Kind is not ("owner-told" or "warranty") && BlockedBefore is { } before)
            return before;
        if (steps.TakeWhile(s => s != step).FirstOrDefault(s => s.IsOpen && !s.Card.MayBeSkipped) is { } gate)
            return $"First: {gate.Card.Do}";
        if (step.Card.Gate.Except(done.Checks ?? []).ToArray() is { Length: > 0 } missing)
            return $"Still to confirm: {string.Join("; ", missing)}.";
        if (step.Card.Timer is { Required: true } timer && (!_timers.TryGetValue(step.Card.Id, out var running) || running.RingsAt > at.AddSeconds(1)))
            return $"The timer has to ring first: {timer.Seconds} seconds.";
        return step.Card.Form switch
        {
            StepForm.ScrewsIn => OpenCount(CountOf.Screws),
            StepForm.ConnectorsIn => OpenCount(CountOf.Connectors),
            StepForm.Inspection when !_findings.Keys.Any(f => f < FindingSubject.Paste) => "Give at least one thing its grade, or leave the step out with a reason.",
            StepForm.JointInspection when !_findings.Keys.Any(f => f >= FindingSubject.Paste) => "Give paste or pads their grade, or leave the step out with a reason.",
            _ => null,
        };
    }

    private string? RefusesSkip(StepSkipped skipped) => Find(skipped.Step) is not { } step ? NoStep(skipped.Step)
        : !step.MayBeSkipped ? "This step guards the machine or you: it cannot be left out."
        : step.Optional ? OptionalSentence(skipped.Reason) : Sentence(skipped.Reason, "The reason");

    private string? RefusesLevel(ServiceLevel level)
    {
        if (Head.WarrantyUntil is { } until && Basis.WarrantyAnswer is null && Basis.Schools.RefusesUnderWarranty(level, until) is { } refused)
            return refused;
        return !ServiceEffects.LiftsCooler(level) && Steps.Any(s => s.Card.Kind == "cooler-off" && s.DoneAt is not null) && level != ServiceLevel.FanSwap
            ? "The cooler is off: that always brings new paste. A lighter level is not possible any more." : null;
    }

    private string? RefusesCount(Counted counted)
    {
        if (counted.Out is < 0 or > 500 || counted.In is < 0 or > 500)
            return "Counts run from 0 to 500.";
        if (counted.In > counted.Out)
            return $"{counted.In} cannot go in where {counted.Out} came out: count again.";
        return _counts.Count >= 200 && !_counts.ContainsKey((counted.What, counted.Item)) ? "Two hundred kinds are enough." : null;
    }

    private string? RefusesMaterial(MaterialUsed used)
    {
        var sum = _materials.Where(m => m.Material == used.Material && m.ThicknessMm == used.ThicknessMm).Sum(m => m.Amount) + used.Amount;
        return !(sum is >= 0 and <= 10_000) ? "An amount lies between nothing and 10 000, all together."
            : used.Material == MaterialKind.PadPieces && used.ThicknessMm is not (>= 0.2 and <= 10) ? "Pads need their thickness, 0.2 to 10 mm." : null;
    }

    private string? RefusesRun(RunPhase phase) => phase switch
    {
        RunPhase.Before => State != JobState.Open || Begun ? "The work has begun: what is measured now is no before-run any more." : null,
        RunPhase.After => State != JobState.WaitingForProof ? "File the work as done first; the after-run comes after it." : null,
        _ => State is JobState.Open or JobState.Abandoned || Standing(RunPhase.After) is null ? "The second look comes after the after-run." : null,
    };

    private string? RefusesReopening(Reopened again) => !again.RoomAlike || !again.FanAlike || !again.SettingsAlike
        ? "Room, fan and settings first: open it again only when all three were alike in both runs."
        : Standing(RunPhase.After) is null ? "Measure it first: nothing says yet that it has to be opened again." : Sentence(again.Reason, "The reason");

    private string? RefusesVerdict(VerdictFiled verdict)
    {
        if (State != JobState.WaitingForProof)
            return "Only work that is done can be proven.";
        if (Standing(RunPhase.After)?.Run is not { } after)
            return "The after-run is still missing.";
        if (Complaint is null)
            return null;
        if (verdict.Fixed is not { } gone)
            return "There was a complaint: say whether it is gone.";
        if (!gone)
            return null;
        if (after.FailedAfterMinutes is { } failed)
            return FormattableString.Invariant($"It failed after {failed:0.#} minutes in the after-run: it is not fixed.");
        return Complaint.MinutesToFailure is { } minutes && after.Minutes < 2 * minutes
            ? FormattableString.Invariant($"It used to fail after {minutes:0.#} minutes and has run {after.Minutes:0.#}: it counts as fixed after {2 * minutes:0.#}.") : null;
    }

    private void Add(StampedEntry stamp)
    {
        Version = stamp.Version;
        _keys.Add(stamp.Key);
        switch (stamp.Entry)
        {
            case StepDone e: _steps[e.Step] = stamp; break;
            case StepSkipped e: _steps[e.Step] = stamp; break;
            case StepUndone e: _steps.Remove(e.Step); break;
            case StepAdded e: _added.Add(new CardStep($"own-{_added.Count + 1}", e.Stage, e.Do, [], [], StepForm.Tick, null, [], false)); break;
            case StepRepeated e: _repeats[e.Step] = _repeats.GetValueOrDefault(e.Step) + 1; break;
            case LevelChanged e: Basis = Basis with { Level = e.Level, Fan = e.Fan ?? Basis.Fan }; break;
            case Counted e: _counts[(e.What, e.Item)] = new JobCount(e.What, e.Item, e.Out, e.In); break;
            case CountExcused e: _countExcuses[e.What] = e.Reason; break;
            case Found e: _findings[e.About] = e; break;
            case DamageFound e: _damage.Add(e); break;
            case DeviationSeen e: _deviations.Add(e); break;
            case ComplaintRecorded e: Complaint = e; break;
            case WarrantyAnswered e: Basis = Basis with { WarrantyAnswer = e.Answer }; break;
            case BeforeExcused e: BeforeExcuse = e.Reason; break;
            case RunMeasured e:
                Void(e.Phase, "measured again");
                _runs.Add(new JobRun(stamp.Key, e.Phase, stamp.MadeAt, e.Run, null));
                break;
            case RunVoided e: Void(e.Phase, e.Reason); break;
            case TimerStarted e: _timers[e.Timer] = new JobTimer(e.Timer, stamp.MadeAt, e.Seconds, false); break;
            case TimerStopped e: _timers[e.Timer] = _timers[e.Timer] with { Stopped = true }; break;
            case MaterialUsed e: _materials.Add(e); break;
            case MinutesBooked e: Minutes += e.Minutes; break;
            case Noted e: Note = e.Text; break;
            case PhotoTaken e: _photos.Add((stamp, e)); break;
            case WorkFiled: (State, WorkDoneAt) = (JobState.WaitingForProof, stamp.MadeAt); break;
            case Reopened e:
                (State, _rounds) = (JobState.Open, _rounds + 1);
                Void(RunPhase.After, e.Reason);
                break;
            case VerdictFiled e: (State, ClosedAt, ComplaintFixed) = (JobState.Proven, stamp.MadeAt, e.Fixed); break;
            case HandedBack e: HandedBack = (e, stamp.MadeAt); break;
            case GivenUp e: (State, ClosedAt, GivenUpBecause) = (JobState.Abandoned, stamp.MadeAt, e.Reason); break;
        }
    }

    private void Void(RunPhase phase, string reason)
    {
        var at = _runs.FindLastIndex(r => r.Phase == phase && r.Voided is null);
        if (at >= 0)
            _runs[at] = _runs[at] with { Voided = reason };
    }
}
