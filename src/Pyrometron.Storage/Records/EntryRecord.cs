using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Inspection;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Materials;
using Pyrometron.Core.Procedures;

namespace Pyrometron.Storage.Records;

/// <summary>
/// One entry of a job as stored, form 2: the kind's word and the members that the kind has. Written and read member by member, so
/// that types in the program can be renamed without a database noticing. In form 1 a run took the place of the one before it.
/// </summary>
internal sealed partial record EntryRecord
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
    public string? Product { get; init; }
    public string? Name { get; init; }
    public string? Batch { get; init; }
    public string? Pattern { get; init; }
    public long? Lot { get; init; }
    public string? ExpiredBecause { get; init; }
    public string? Place { get; init; }
    public double? MeasuredMm { get; init; }
    public double? NominalMm { get; init; }
    public string? By { get; init; }
    public int? Pad { get; init; }
    public string? Tool { get; init; }
    public string? Scope { get; init; }
    public string? Owner { get; init; }
    public double? PriceCap { get; init; }
    public bool? MayOpen { get; init; }
    public string? Condition { get; init; }
    public bool? BackedUp { get; init; }
    public bool? OnTheWay { get; init; }
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
            "counted" => new Counted(StoredWords.Read<CountOf>(What), Need(Item), Need(Out), Need(In), Read<ScrewPlace>(Place)),
            "count-excused" => new CountExcused(StoredWords.Read<CountOf>(What), Need(Reason), Item),
            "chip-seen" => new ChipSeen(StoredWords.Read<ChipKind>(Chip)),
            "found" => new Found(StoredWords.Read<FindingSubject>(About), Need(Grade), Note),
            "damage-found" => new DamageFound(Need(Text), OnTheWay),
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
            "product-used" => new ProductUsed(
                StoredWords.Read<ProductKind>(Product),
                Need(Name),
                Batch,
                Read<PastePattern>(Pattern),
                Lot,
                ExpiredBecause
            ),
            "pad-measured" => new PadMeasured(Need(Place), Need(MeasuredMm), NominalMm, Read<PadMeasure>(By), Pad),
            "tool-used" => new ToolUsed(Need(Tool)),
            "order-agreed" => new OrderAgreed(Need(Scope), Owner, PriceCap, MayOpen, Condition, BackedUp),
            "minutes-booked" => new MinutesBooked(Need(Minutes)),
            "noted" => new Noted(Need(Text)),
            "photo-taken" => new PhotoTaken(Need(Photo), Caption, Step, FoundOnOpening ?? false, OnTheWay),
            "work-filed" => new WorkFiled(),
            "reopened" => new Reopened(RoomAlike ?? false, FanAlike ?? false, SettingsAlike ?? false, Need(Reason)),
            "verdict-filed" => new VerdictFiled(Fixed),
            "handed-back" => new HandedBack(Need(To), Note, Condition),
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

    private static T? Read<T>(string? word)
        where T : struct, Enum => word is null ? null : StoredWords.Read<T>(word);

    private T Need<T>(T? member)
        where T : class => member ?? throw Lacking();

    private T Need<T>(T? member)
        where T : struct => member ?? throw Lacking();

    private InvalidDataException Lacking() => new($"An entry of kind '{Kind}' in the database lacks a member that it needs.");
}

/// <summary>A step put on a card, as stored.</summary>
internal sealed record PutOnRecord(CardStepRecord Step, string? After);
