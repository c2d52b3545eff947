using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Inspection;
using Pyrometron.Core.Materials;
using Pyrometron.Core.Procedures;
using Pyrometron.Core.Proof;

namespace Pyrometron.Core.Jobs;

/// <summary>One job on one machine: the sum of its entries, and the rules for the next one.</summary>
public sealed partial class Job
{
    private readonly Dictionary<string, StampedEntry> _steps = [];
    private readonly CardList _card;
    private readonly Dictionary<(CountOf, string), JobCount> _counts = [];
    private readonly Dictionary<(CountOf What, string? Item), (string Reason, bool Closing)> _countExcuses = [];
    private readonly List<JobRun> _runs = [];
    private readonly Dictionary<string, JobTimer> _timers = [];
    private readonly Dictionary<FindingSubject, (Found Found, DateTimeOffset At)> _findings = [];
    private readonly List<DamageFound> _damage = [];
    private readonly List<DeviationSeen> _deviations = [];
    private readonly List<MaterialUsed> _materials = [];
    private readonly Dictionary<ProductKind, ProductUsed> _products = [];
    private readonly Dictionary<string, PadMeasured> _padsMeasured = [];
    private readonly List<string> _tools = [];
    private readonly List<(StampedEntry Stamp, PhotoTaken Photo)> _photos = [];
    private readonly HashSet<Guid> _keys = [];
    private int _rounds = 1;

    /// <summary>Adds up a job.</summary>
    /// <param name="entries">In the order in which they were stored.</param>
    public Job(JobHead head, IEnumerable<StampedEntry> entries)
    {
        (Head, Basis, _card) = (head, head.Card.Basis, new CardList(head.Card.Steps));
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

    /// <summary>Who filed the work, as they called themselves; null where nobody was named.</summary>
    public string? FiledBy { get; private set; }

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

    /// <summary>Whether newer notes were taken over since the job began.</summary>
    public bool NotesTakenOver { get; private set; }

    /// <summary>Minutes booked.</summary>
    public double Minutes { get; private set; }

    /// <summary>All runs, voided ones too, oldest first.</summary>
    public IReadOnlyList<JobRun> Runs => _runs;

    /// <summary>Counts so far.</summary>
    public IReadOnlyCollection<JobCount> Counts => _counts.Values;

    /// <summary>Why counts do not meet, by kind and place; place null for all of a kind.</summary>
    public IReadOnlyCollection<CountExcused> CountExcuses =>
        [.. _countExcuses.Select(e => new CountExcused(e.Key.What, e.Value.Reason, e.Key.Item))];

    /// <summary>Timers, the last start of each.</summary>
    public IReadOnlyCollection<JobTimer> Timers => _timers.Values;

    /// <summary>What was looked at.</summary>
    public IReadOnlyCollection<Found> Findings => [.. _findings.Values.Select(f => f.Found)];

    /// <summary>What was broken or missing before this job, and what it broke.</summary>
    public IReadOnlyList<DamageFound> Damage => _damage;

    /// <summary>What was agreed with the owner; null where nothing was written down.</summary>
    public OrderAgreed? Order { get; private set; }

    /// <summary>Products used and fitted, one of a kind.</summary>
    public IReadOnlyCollection<ProductUsed> Products => _products.Values;

    /// <summary>Old pads as measured, by their place.</summary>
    public IReadOnlyCollection<PadMeasured> PadsMeasured => _padsMeasured.Values;

    /// <summary>Tools beyond the usual ones.</summary>
    public IReadOnlyList<string> Tools => _tools;

    /// <summary>Deviations from good practice.</summary>
    public IReadOnlyList<DeviationSeen> Deviations => _deviations;

    /// <summary>Photos with the entry that brought them.</summary>
    public IReadOnlyList<(StampedEntry Stamp, PhotoTaken Photo)> Photos => _photos;

    /// <summary>Materials used, summed.</summary>
    public IReadOnlyList<MaterialUsed> Materials =>
        [
            .. _materials
                .GroupBy(m => (m.Material, m.ThicknessMm))
                .Select(g => new MaterialUsed(g.Key.Material, g.Sum(m => m.Amount), g.Key.ThicknessMm))
                .Where(m => m.Amount > 0),
        ];

    /// <summary>The causes that the findings speak for; null when nothing was looked at.</summary>
    public IReadOnlyList<Cause>? FoundCauses => Grading.FoundCauses(Graded);

    /// <summary>A higher level that the findings ask for, or null.</summary>
    public (ServiceLevel Level, FindingSubject Subject, Grade Grade)? AskedFor => Grading.AsksFor(Level, Graded);

    private IEnumerable<(FindingSubject, string)> Graded => _findings.Values.Select(f => (f.Found.About, f.Found.Grade));

    /// <summary>The newest run of a phase that stands, or null.</summary>
    public JobRun? Standing(RunPhase phase) => StandingOf(phase).LastOrDefault();

    /// <summary>All runs of a phase that stand, in the order in which they were kept.</summary>
    public IEnumerable<JobRun> StandingOf(RunPhase phase) => _runs.Where(r => r.Phase == phase && r.Voided is null);

    /// <summary>
    /// The verdict of the runs as they stand; against the limits where there is none before the work; null while there is none
    /// after it.
    /// </summary>
    public Verdict? Verdict => Compare(RunPhase.After);

    /// <summary>The verdict of the second look, a week later.</summary>
    public Verdict? RecheckVerdict => Compare(RunPhase.Recheck);

    /// <summary>
    /// The day from which paste has bedded in and a second look is worth it; null before the work is filed or where no paste was
    /// renewed.
    /// </summary>
    public DateTimeOffset? RecheckDue => Basis.LiftsCooler ? WorkDoneAt?.AddDays(7) : null;

    private Verdict? Compare(RunPhase phase)
    {
        Run[] before = [.. StandingOf(RunPhase.Before).Select(r => r.Run)],
            after = [.. StandingOf(phase).Select(r => r.Run)];
        var machine = new TestedMachine(
            Basis.Kind,
            Head.Parts.ToDictionary(p => p.Name, p => p.Limit.Value),
            Complaint is not null
        );
        return after.Length == 0 ? null
            : before.Length == 0 ? LimitCheck.Of(after, machine, Head.SiblingRuns)
            : TestSet.Judge(Level, before, after, machine);
    }

    /// <summary>Whether work on the machine itself has begun.</summary>
    private bool Begun => Steps.Any(s => s.DoneAt is not null && IsWork(s.Card));

    private static bool IsWork(CardStep step) => step.Kind is not ("warm-joint" or "prepare" or "owner-told" or "warranty");

    /// <summary>Whether an entry is here already.</summary>
    public bool Has(Guid key) => _keys.Contains(key);

    private void Add(StampedEntry stamp)
    {
        Version = stamp.Version;
        _keys.Add(stamp.Key);
        switch (stamp.Entry)
        {
            case StepDone e:
                _steps[e.Step] = stamp;
                // A run does not go on while the machine is worked on.
                if (_card.Steps.FirstOrDefault(s => s.Id == e.Step) is { } step && IsWork(step))
                    StopRun(RunPhase.Before);
                break;
            case StepSkipped e:
                _steps[e.Step] = stamp;
                break;
            case StepUndone e:
                _steps.Remove(e.Step);
                break;
            case StepAdded e:
                if (IsNew(stamp))
                    _card.Add(e);
                break;
            case StepRepeated e:
                if (IsNew(stamp))
                    _card.Repeat(e.Step);
                break;
            case CardChanged e:
                _card.Apply(e);
                if (e.Notes is { } notes)
                    Basis = Basis with { Notes = notes };
                break;
            case NotesTaken:
                NotesTakenOver = true;
                break;
            case LevelChanged e:
                Basis = Basis with { Level = e.Level, Fan = e.Fan ?? Basis.Fan };
                break;
            case Counted e:
                _counts[(e.What, e.Item)] = new JobCount(
                    e.What,
                    e.Item,
                    e.Out,
                    e.In,
                    e.Place ?? _counts.GetValueOrDefault((e.What, e.Item))?.Place
                );
                break;
            case CountExcused e:
                _countExcuses[(e.What, e.Item)] = (e.Reason, IsOut(e.What));
                break;
            case ChipSeen e:
                Basis = Basis with { Notes = Basis.Notes with { Chip = e.Chip } };
                break;
            case Found e:
                _findings[e.About] = (e, stamp.MadeAt);
                break;
            case DamageFound e:
                _damage.Add(e);
                break;
            case DeviationSeen e:
                _deviations.Add(e);
                break;
            case ComplaintRecorded e:
                Complaint = e;
                Basis = Basis with { GotWet = e.What == ComplaintKind.GotWet };
                break;
            case WarrantyAnswered e:
                Basis = Basis with { WarrantyAnswer = e.Answer };
                break;
            case BeforeExcused e:
                BeforeExcuse = e.Reason;
                StopRun(RunPhase.Before);
                break;
            case RunMeasured e:
                if (e.Replaces == true)
                    Void(e.Phase, "measured again");
                StopRun(e.Phase);
                _runs.Add(new JobRun(stamp.Key, e.Phase, stamp.MadeAt, e.Run, null));
                break;
            case RunVoided e:
                Void(e.Phase, e.Reason, e.RunKey);
                break;
            case TimerStarted e:
                _timers[e.Timer] = new JobTimer(e.Timer, stamp.MadeAt, e.Seconds, false);
                break;
            case TimerStopped e:
                _timers[e.Timer] = _timers[e.Timer] with { Stopped = true };
                break;
            case MaterialUsed e:
                _materials.Add(e);
                break;
            case ProductUsed e:
                _products[e.Product] = e;
                break;
            case PadMeasured e:
                _padsMeasured[e.Place] = e;
                break;
            case ToolUsed e:
                if (!_tools.Contains(e.Tool))
                    _tools.Add(e.Tool);
                break;
            case OrderAgreed e:
                Order = e;
                break;
            case MinutesBooked e:
                Minutes += e.Minutes;
                break;
            case Noted e:
                Note = e.Text;
                break;
            case PhotoTaken e:
                _photos.Add((stamp, e));
                break;
            case WorkFiled:
                (State, WorkDoneAt, FiledBy) = (JobState.WaitingForProof, stamp.MadeAt, stamp.By);
                break;
            case Reopened e:
                (State, _rounds) = (JobState.Open, _rounds + 1);
                StopRun(RunPhase.After);
                while (Standing(RunPhase.After) is not null)
                    Void(RunPhase.After, e.Reason);
                break;
            case VerdictFiled e:
                (State, ClosedAt, ComplaintFixed) = (JobState.Proven, stamp.MadeAt, e.Fixed);
                break;
            case HandedBack e:
                HandedBack = (e, stamp.MadeAt);
                break;
            case GivenUp e:
                (State, ClosedAt, GivenUpBecause) = (JobState.Abandoned, stamp.MadeAt, e.Reason);
                break;
        }
    }

    private void StopRun(RunPhase phase)
    {
        var name = $"{Words.Of(phase)}-run";
        if (_timers.TryGetValue(name, out var timer))
            _timers[name] = timer with { Stopped = true };
    }

    /// <summary>Whether an entry came after the card was frozen: what is older is in its steps already.</summary>
    private bool IsNew(StampedEntry stamp) => stamp.Version > Head.Card.UpTo;

    private void Void(RunPhase phase, string reason, Guid? run = null)
    {
        var at = _runs.FindLastIndex(r => r.Phase == phase && r.Voided is null && (run is null || r.Key == run));
        if (at >= 0)
            _runs[at] = _runs[at] with { Voided = reason };
    }
}
