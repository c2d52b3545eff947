using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Inspection;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Procedures;

namespace Pyrometron.Storage.Records;

/// <summary>
/// One entry of a job as stored, form 2: the kind's word and the members that the kind has. Written and read member by member, so
/// that types in the program can be renamed without a database noticing. In form 1 a run took the place of the one before it.
/// </summary>
internal sealed record EntryRecord
{
    /// <summary>The form that is written.</summary>
    public const int Form = 2;

    public required string Kind { get; init; }
    public string? Step { get; init; }
    public IReadOnlyList<string>? Checks { get; init; }
    public string? Reason { get; init; }
    public string? Stage { get; init; }
    public string? Do { get; init; }
    public string? Level { get; init; }
    public string? Fan { get; init; }
    public string? What { get; init; }
    public string? Item { get; init; }
    public int? Out { get; init; }
    public int? In { get; init; }
    public string? About { get; init; }
    public string? Grade { get; init; }
    public string? Note { get; init; }
    public string? Text { get; init; }
    public string? Load { get; init; }
    public double? MinutesToFailure { get; init; }
    public bool? Reproduced { get; init; }
    public string? InWords { get; init; }
    public string? Chip { get; init; }
    public string? Answer { get; init; }
    public string? Phase { get; init; }
    public RunRecord? Run { get; init; }

    public bool? Replaces { get; init; }
    public Guid? RunKey { get; init; }
    public string? Timer { get; init; }
    public int? Seconds { get; init; }
    public string? Material { get; init; }
    public double? Amount { get; init; }
    public double? ThicknessMm { get; init; }
    public double? Minutes { get; init; }
    public Guid? Photo { get; init; }
    public string? Caption { get; init; }
    public bool? FoundOnOpening { get; init; }
    public bool? RoomAlike { get; init; }
    public bool? FanAlike { get; init; }
    public bool? SettingsAlike { get; init; }
    public bool? Fixed { get; init; }
    public string? To { get; init; }
    public IReadOnlyList<string>? TakenOff { get; init; }
    public IReadOnlyList<PutOnRecord>? PutOn { get; init; }
    public ModelNotes? Notes { get; init; }

    /// <summary>The record of an entry.</summary>
    public static EntryRecord Of(JobEntry entry) =>
        entry switch
        {
            StepDone e => new()
            {
                Kind = "step-done",
                Step = e.Step,
                Checks = e.Checks,
            },
            StepUndone e => new() { Kind = "step-undone", Step = e.Step },
            StepSkipped e => new()
            {
                Kind = "step-skipped",
                Step = e.Step,
                Reason = e.Reason,
            },
            StepAdded e => new()
            {
                Kind = "step-added",
                Stage = Words.Of(e.Stage),
                Do = e.Do,
            },
            StepRepeated e => new() { Kind = "step-repeated", Step = e.Step },
            LevelChanged e => new()
            {
                Kind = "level-changed",
                Level = Words.Of(e.Level),
                Reason = e.Reason,
                Fan = e.Fan,
            },
            Counted e => new()
            {
                Kind = "counted",
                What = Words.Of(e.What),
                Item = e.Item,
                Out = e.Out,
                In = e.In,
            },
            CountExcused e => new()
            {
                Kind = "count-excused",
                What = Words.Of(e.What),
                Reason = e.Reason,
                Item = e.Item,
            },
            ChipSeen e => new() { Kind = "chip-seen", Chip = Words.Of(e.Chip) },
            Found e => new()
            {
                Kind = "found",
                About = Words.Of(e.About),
                Grade = e.Grade,
                Note = e.Note,
            },
            DamageFound e => new() { Kind = "damage-found", Text = e.Text },
            DeviationSeen e => new() { Kind = "deviation-seen", Text = e.Text },
            ComplaintRecorded e => new()
            {
                Kind = "complaint-recorded",
                What = Words.Of(e.What),
                Load = e.Load,
                MinutesToFailure = e.MinutesToFailure,
                Reproduced = e.Reproduced,
                InWords = e.InWords,
            },
            WarrantyAnswered e => new() { Kind = "warranty-answered", Answer = e.Answer },
            BeforeExcused e => new() { Kind = "before-excused", Reason = e.Reason },
            RunMeasured e => new()
            {
                Kind = "run-measured",
                Phase = Words.Of(e.Phase),
                Run = RunRecord.Of(e.Run),
                Replaces = e.Replaces == true ? true : null,
            },
            RunVoided e => new()
            {
                Kind = "run-voided",
                Phase = Words.Of(e.Phase),
                Reason = e.Reason,
                RunKey = e.RunKey,
            },
            TimerStarted e => new()
            {
                Kind = "timer-started",
                Timer = e.Timer,
                Seconds = e.Seconds,
            },
            TimerStopped e => new() { Kind = "timer-stopped", Timer = e.Timer },
            MaterialUsed e => new()
            {
                Kind = "material-used",
                Material = Words.Of(e.Material),
                Amount = e.Amount,
                ThicknessMm = e.ThicknessMm,
            },
            MinutesBooked e => new() { Kind = "minutes-booked", Minutes = e.Minutes },
            Noted e => new() { Kind = "noted", Text = e.Text },
            PhotoTaken e => new()
            {
                Kind = "photo-taken",
                Photo = e.Photo,
                Caption = e.Caption,
                Step = e.Step,
                FoundOnOpening = e.FoundOnOpening,
            },
            WorkFiled => new() { Kind = "work-filed" },
            Reopened e => new()
            {
                Kind = "reopened",
                RoomAlike = e.RoomAlike,
                FanAlike = e.FanAlike,
                SettingsAlike = e.SettingsAlike,
                Reason = e.Reason,
            },
            VerdictFiled e => new() { Kind = "verdict-filed", Fixed = e.Fixed },
            HandedBack e => new()
            {
                Kind = "handed-back",
                To = e.To,
                Note = e.Note,
            },
            GivenUp e => new() { Kind = "given-up", Reason = e.Reason },
            NotesTaken => new() { Kind = "notes-taken" },
            CardChanged e => new()
            {
                Kind = "card-changed",
                TakenOff = e.TakenOff,
                PutOn = [.. e.PutOn.Select(p => new PutOnRecord(CardStepRecord.Of(p.Step), p.After))],
                Notes = e.Notes,
            },
            _ => throw new InvalidOperationException($"{entry.GetType().Name} has no stored form."),
        };

    /// <summary>The entry of a record.</summary>
    /// <exception cref="InvalidDataException">It is of no known kind, or lacks what its kind needs.</exception>
    public JobEntry ToEntry(int form = Form) =>
        Kind switch
        {
            "step-done" => new StepDone(Need(Step), Checks),
            "step-undone" => new StepUndone(Need(Step)),
            "step-skipped" => new StepSkipped(Need(Step), Reason),
            "step-added" => new StepAdded(StoredWords.Read<Stage>(Stage), Need(Do)),
            "step-repeated" => new StepRepeated(Need(Step)),
            "level-changed" => new LevelChanged(StoredWords.Read<ServiceLevel>(Level), Reason, Fan),
            "counted" => new Counted(StoredWords.Read<CountOf>(What), Need(Item), Need(Out), Need(In)),
            "count-excused" => new CountExcused(StoredWords.Read<CountOf>(What), Need(Reason), Item),
            "chip-seen" => new ChipSeen(StoredWords.Read<ChipKind>(Chip)),
            "found" => new Found(StoredWords.Read<FindingSubject>(About), Need(Grade), Note),
            "damage-found" => new DamageFound(Need(Text)),
            "deviation-seen" => new DeviationSeen(Need(Text)),
            "complaint-recorded" => new ComplaintRecorded(
                StoredWords.Read<ComplaintKind>(What),
                Load,
                MinutesToFailure,
                Reproduced,
                InWords
            ),
            "warranty-answered" => new WarrantyAnswered(Need(Answer)),
            "before-excused" => new BeforeExcused(Need(Reason)),
            "run-measured" => new RunMeasured(
                StoredWords.Read<RunPhase>(Phase),
                Need(Run).ToRun(),
                Replaces ?? (form < 2 ? true : null)
            ),
            "run-voided" => new RunVoided(StoredWords.Read<RunPhase>(Phase), Need(Reason), RunKey),
            "timer-started" => new TimerStarted(Need(Timer), Need(Seconds)),
            "timer-stopped" => new TimerStopped(Need(Timer)),
            "material-used" => new MaterialUsed(StoredWords.Read<MaterialKind>(Material), Need(Amount), ThicknessMm),
            "minutes-booked" => new MinutesBooked(Need(Minutes)),
            "noted" => new Noted(Need(Text)),
            "photo-taken" => new PhotoTaken(Need(Photo), Caption, Step, FoundOnOpening ?? false),
            "work-filed" => new WorkFiled(),
            "reopened" => new Reopened(RoomAlike ?? false, FanAlike ?? false, SettingsAlike ?? false, Need(Reason)),
            "verdict-filed" => new VerdictFiled(Fixed),
            "handed-back" => new HandedBack(Need(To), Note),
            "given-up" => new GivenUp(Need(Reason)),
            "notes-taken" => new NotesTaken(),
            "card-changed" => new CardChanged(
                TakenOff ?? [],
                [.. (PutOn ?? []).Select(p => new StepPutOn(p.Step.ToStep(), p.After))],
                Notes
            ),
            _ => throw new InvalidDataException(
                $"The database holds an entry of kind '{Kind}', which this program does not know."
            ),
        };

    private T Need<T>(T? member)
        where T : class => member ?? throw Lacking();

    private T Need<T>(T? member)
        where T : struct => member ?? throw Lacking();

    private InvalidDataException Lacking() => new($"An entry of kind '{Kind}' in the database lacks a member that it needs.");
}

/// <summary>A step put on a card, as stored.</summary>
internal sealed record PutOnRecord(CardStepRecord Step, string? After);
