using System.Text.Json.Serialization;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Inspection;
using Pyrometron.Core.Materials;
using Pyrometron.Core.Procedures;

namespace Pyrometron.Core.Jobs;

/// <summary>What is counted out and in again.</summary>
public enum CountOf
{
    Screws,
    Connectors,
}

/// <summary>How the thickness of an old pad was told.</summary>
public enum PadMeasure
{
    Caliper,
    Imprint,
}

/// <summary>What a complaint is as a report.</summary>
public static class Complaints
{
    /// <summary>The symptom that a complaint tells of.</summary>
    public static SymptomKind AsSymptom(this ComplaintKind complaint) =>
        complaint switch
        {
            ComplaintKind.SwitchesOff => SymptomKind.Shutdown,
            ComplaintKind.Crashes => SymptomKind.Crash,
            ComplaintKind.Slow => SymptomKind.Throttling,
            ComplaintKind.GotWet => SymptomKind.Wet,
            ComplaintKind.Smells => SymptomKind.Smell,
            ComplaintKind.Dropped => SymptomKind.Dropped,
            ComplaintKind.Other => SymptomKind.Other,
            _ => SymptomKind.Noise,
        };
}

/// <summary>What brought a machine in.</summary>
public enum ComplaintKind
{
    SwitchesOff,
    Crashes,
    Slow,
    Loud,
    GotWet,
    Smells,
    Dropped,

    /// <summary>In the words of whoever complains.</summary>
    Other,
}

/// <summary>
/// One thing that happened to a job. Jobs are the sum of their entries, in the order in which they were stored; nothing is
/// overwritten. Entries come from people's hands, also hours later when a device was without network.
/// </summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(StepDone), "step-done")]
[JsonDerivedType(typeof(StepUndone), "step-undone")]
[JsonDerivedType(typeof(StepSkipped), "step-skipped")]
[JsonDerivedType(typeof(StepAdded), "step-added")]
[JsonDerivedType(typeof(StepRepeated), "step-repeated")]
[JsonDerivedType(typeof(LevelChanged), "level-changed")]
[JsonDerivedType(typeof(Counted), "counted")]
[JsonDerivedType(typeof(CountExcused), "count-excused")]
[JsonDerivedType(typeof(ChipSeen), "chip-seen")]
[JsonDerivedType(typeof(Found), "found")]
[JsonDerivedType(typeof(DamageFound), "damage-found")]
[JsonDerivedType(typeof(DeviationSeen), "deviation-seen")]
[JsonDerivedType(typeof(ComplaintRecorded), "complaint-recorded")]
[JsonDerivedType(typeof(WarrantyAnswered), "warranty-answered")]
[JsonDerivedType(typeof(BeforeExcused), "before-excused")]
[JsonDerivedType(typeof(RunMeasured), "run-measured")]
[JsonDerivedType(typeof(RunVoided), "run-voided")]
[JsonDerivedType(typeof(TimerStarted), "timer-started")]
[JsonDerivedType(typeof(TimerStopped), "timer-stopped")]
[JsonDerivedType(typeof(MaterialUsed), "material-used")]
[JsonDerivedType(typeof(ProductUsed), "product-used")]
[JsonDerivedType(typeof(PadMeasured), "pad-measured")]
[JsonDerivedType(typeof(ToolUsed), "tool-used")]
[JsonDerivedType(typeof(OrderAgreed), "order-agreed")]
[JsonDerivedType(typeof(MinutesBooked), "minutes-booked")]
[JsonDerivedType(typeof(Noted), "noted")]
[JsonDerivedType(typeof(PhotoTaken), "photo-taken")]
[JsonDerivedType(typeof(WorkFiled), "work-filed")]
[JsonDerivedType(typeof(Reopened), "reopened")]
[JsonDerivedType(typeof(VerdictFiled), "verdict-filed")]
[JsonDerivedType(typeof(HandedBack), "handed-back")]
[JsonDerivedType(typeof(GivenUp), "given-up")]
[JsonDerivedType(typeof(NotesTaken), "notes-taken")]
[JsonDerivedType(typeof(CardChanged), "card-changed")]
public abstract record JobEntry
{
    /// <summary>An entry about something.</summary>
    protected JobEntry(string? subject, bool decides = false) => (Subject, Decides) = (subject, decides);

    /// <summary>
    /// What it is about: two devices that write about the same thing without having seen each other's are in conflict. Null where
    /// entries add up.
    /// </summary>
    [JsonIgnore]
    public string? Subject { get; }

    /// <summary>Decides on the job as a whole: whoever decides must have seen everything.</summary>
    [JsonIgnore]
    public bool Decides { get; }
}

/// <summary>A step was done.</summary>
/// <param name="Checks">Those of its gate that were confirmed.</param>
public sealed record StepDone(string Step, IReadOnlyList<string>? Checks = null) : JobEntry("step " + Step);

/// <summary>A step's tick was taken back.</summary>
public sealed record StepUndone(string Step) : JobEntry("step " + Step);

/// <summary>A step was left out, with the reason.</summary>
public sealed record StepSkipped(string Step, string? Reason) : JobEntry("step " + Step);

/// <summary>A step was added on the spot, at the end of a stage.</summary>
public sealed record StepAdded(Stage Stage, string Do) : JobEntry("card " + Do);

/// <summary>A step is to be done once more.</summary>
public sealed record StepRepeated(string Step) : JobEntry("step " + Step);

/// <summary>Inspection found more, or less, than was planned.</summary>
/// <param name="Fan">The fan to be changed, where the level is a change of fan.</param>
public sealed record LevelChanged(ServiceLevel Level, string? Reason = null, string? Fan = null) : JobEntry("level");

/// <summary>How many of one kind came out and went in again, so far.</summary>
/// <param name="Item">The compartment of the tray, or the connector's name.</param>
/// <param name="Place">Where these screws sit; null where nobody said.</param>
public sealed record Counted(CountOf What, string Item, int Out, int In, ScrewPlace? Place = null)
    : JobEntry($"count {What} {Item}");

/// <summary>Why the counts do not meet, or why fewer came out than are listed.</summary>
/// <param name="Item">The compartment or connector; null for all of them.</param>
public sealed record CountExcused(CountOf What, string Reason, string? Item = null) : JobEntry($"excuse {What} {Item}");

/// <summary>What sits under the cooler was seen: it decides how paste goes on, and is kept for the model.</summary>
public sealed record ChipSeen(ChipKind Chip) : JobEntry("chip");

/// <summary>Something was looked at and given its grade.</summary>
public sealed record Found(FindingSubject About, string Grade, string? Note = null) : JobEntry($"finding {About}");

/// <summary>Damage, or a part missing: found on opening, or done by this job.</summary>
/// <param name="OnTheWay">Whether it was done by this job; otherwise it was so before.</param>
public sealed record DamageFound(string Text, bool? OnTheWay = null) : JobEntry("damage " + Text);

/// <summary>A deviation from good practice, seen or made; it stays on the machine's page.</summary>
public sealed record DeviationSeen(string Text) : JobEntry("deviation " + Text);

/// <summary>What its user complains of.</summary>
/// <param name="Load">Under which it happens.</param>
/// <param name="MinutesToFailure">How long it takes.</param>
/// <param name="Reproduced">Whether it happened at the bench; null when that was not tried.</param>
/// <param name="InWords">In the words of whoever complains; needed where <paramref name="What"/> is other.</param>
public sealed record ComplaintRecorded(
    ComplaintKind What,
    string? Load = null,
    double? MinutesToFailure = null,
    bool? Reproduced = null,
    string? InWords = null
) : JobEntry("complaint");

/// <summary>The maker's answer, or why it is opened under warranty all the same.</summary>
public sealed record WarrantyAnswered(string Answer) : JobEntry("warranty");

/// <summary>Why it is opened without a before-run.</summary>
public sealed record BeforeExcused(string Reason) : JobEntry("run before");

/// <summary>A run was measured; it is kept beside those that were measured before.</summary>
/// <param name="Replaces">Whether it takes the place of the newest of its phase.</param>
public sealed record RunMeasured(RunPhase Phase, Run Run, bool? Replaces = null) : JobEntry($"run {Phase}");

/// <summary>A run was struck out by a person.</summary>
/// <param name="RunKey">The key of the entry that brought it; null for the newest of its phase.</param>
public sealed record RunVoided(RunPhase Phase, string Reason, Guid? RunKey = null) : JobEntry($"run {Phase}");

/// <summary>A timer was set going.</summary>
public sealed record TimerStarted(string Timer, int Seconds) : JobEntry("timer " + Timer);

/// <summary>A timer was stopped or its ringing silenced.</summary>
public sealed record TimerStopped(string Timer) : JobEntry("timer " + Timer);

/// <summary>Material used; a negative amount takes a mistake back.</summary>
/// <param name="ThicknessMm">Of pads.</param>
public sealed record MaterialUsed(MaterialKind Material, double Amount, double? ThicknessMm = null) : JobEntry(subject: null);

/// <summary>Which product was used or fitted: of each kind the last one said.</summary>
/// <param name="Name">As on its label, in free words.</param>
/// <param name="Batch">Its batch or lot, where it carries one.</param>
/// <param name="Pattern">How paste was laid on.</param>
/// <param name="Lot">Number of the lot in the stores that it came from.</param>
/// <param name="ExpiredBecause">Why it was used all the same, where its lot had expired.</param>
public sealed record ProductUsed(
    ProductKind Product,
    string Name,
    string? Batch = null,
    PastePattern? Pattern = null,
    long? Lot = null,
    string? ExpiredBecause = null
) : JobEntry($"product {Product}");

/// <summary>An old pad was measured.</summary>
/// <param name="Place">Where it sat: the part and side, or the number on the plan.</param>
/// <param name="MeasuredMm">Its thickness, or that of the gap by its imprint.</param>
/// <param name="NominalMm">The thickness that it was sold as, or that is laid on now.</param>
/// <param name="Pad">Its number on the model's plan; null where it is not on it.</param>
public sealed record PadMeasured(
    string Place,
    double MeasuredMm,
    double? NominalMm = null,
    PadMeasure? By = null,
    int? Pad = null
) : JobEntry("pad " + Place);

/// <summary>A tool that this model asks for beyond the usual ones.</summary>
public sealed record ToolUsed(string Tool) : JobEntry("tool " + Tool);

/// <summary>What was agreed with the machine's owner; the last one said counts.</summary>
/// <param name="Scope">What is to be done, in their words.</param>
/// <param name="PriceCap">The most that it may cost without asking again, in the house's currency.</param>
/// <param name="MayOpen">Whether the owner agrees to its being opened.</param>
/// <param name="Condition">How it looks as it is handed in.</param>
/// <param name="BackedUp">Whether the owner says that the data is backed up.</param>
public sealed record OrderAgreed(
    string Scope,
    string? Owner = null,
    double? PriceCap = null,
    bool? MayOpen = null,
    string? Condition = null,
    bool? BackedUp = null
) : JobEntry("order");

/// <summary>Minutes at the bench; the sum counts.</summary>
public sealed record MinutesBooked(double Minutes) : JobEntry(subject: null);

/// <summary>The job's note, whole.</summary>
public sealed record Noted(string Text) : JobEntry("note");

/// <summary>A photo was taken.</summary>
/// <param name="Photo">The key under which its bytes are kept.</param>
/// <param name="Step">The step it was taken at.</param>
/// <param name="FoundOnOpening">It shows what was so before this job.</param>
/// <param name="DoneOnTheWay">It shows damage that this job did.</param>
public sealed record PhotoTaken(
    Guid Photo,
    string? Caption = null,
    string? Step = null,
    bool FoundOnOpening = false,
    bool? DoneOnTheWay = null
) : JobEntry($"photo {Photo}");

/// <summary>The work is done: the service enters the machine's book.</summary>
public sealed record WorkFiled() : JobEntry("state", decides: true);

/// <summary>
/// The result was bad at equal conditions: the cooler is mounted once more. Room, fan and settings are asked about first.
/// </summary>
public sealed record Reopened(bool RoomAlike, bool FanAlike, bool SettingsAlike, string Reason)
    : JobEntry("state", decides: true);

/// <summary>The verdict is filed.</summary>
/// <param name="Fixed">Whether the complaint is gone; null without one.</param>
public sealed record VerdictFiled(bool? Fixed = null) : JobEntry("state", decides: true);

/// <summary>The machine is back with its owner.</summary>
/// <param name="Condition">How it looks as it goes back.</param>
public sealed record HandedBack(string To, string? Note = null, string? Condition = null) : JobEntry("handed back");

/// <summary>The job was given up before anything was done.</summary>
public sealed record GivenUp(string Reason) : JobEntry("state", decides: true);

/// <summary>The notes on the model have changed since the job began, and are taken over for what is still to do.</summary>
public sealed record NotesTaken() : JobEntry("card");

/// <summary>A step put on a card.</summary>
/// <param name="After">The step that it follows; null at the head of the card.</param>
public sealed record StepPutOn(CardStep Step, string? After);

/// <summary>
/// The card was changed by its rules: a finding, another level, a second round. Written by the program with the entry that caused
/// it; devices do not send it. A step that is taken off and put on again reads otherwise now.
/// </summary>
/// <param name="TakenOff">Steps that are not needed any more; only steps that were open.</param>
/// <param name="PutOn">Steps that came on, each after the one it names.</param>
/// <param name="Notes">The notes that it is made from now, where newer ones were taken over; else null.</param>
public sealed record CardChanged(IReadOnlyList<string> TakenOff, IReadOnlyList<StepPutOn> PutOn, ModelNotes? Notes = null)
    : JobEntry(subject: null);

/// <summary>An entry as stored.</summary>
/// <param name="Key">Made by the device: sent twice, it is stored once.</param>
/// <param name="Version">The job's version that it made.</param>
/// <param name="Device">The device it came from.</param>
/// <param name="By">Who, as the device says; null when nobody was named.</param>
/// <param name="MadeAt">When it happened, by the device's clock.</param>
public sealed record StampedEntry(Guid Key, int Version, string Device, string? By, DateTimeOffset MadeAt, JobEntry Entry);
