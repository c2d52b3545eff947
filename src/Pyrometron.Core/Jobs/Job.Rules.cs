using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Inspection;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Procedures;

namespace Pyrometron.Core.Jobs;

// Which entry may come next: every refusal is a sentence that says what to do instead.
public sealed partial class Job
{
    private const int LongestText = 2000,
        LongestName = 80,
        MostEntries = 5000,
        MostRuns = 100;

    /// <summary>Why an entry cannot be taken as things stand, or null.</summary>
    /// <param name="at">When it happened, by the device's clock.</param>
    public Message? Refuses(JobEntry entry, DateTimeOffset at) =>
        Version > MostEntries
            ? "This job has too many entries; finish it and start another."
            : entry switch
            {
                StepDone done => OnlyOpen ?? RefusesStep(done, at),
                StepUndone { Step: var step } => OnlyOpen ?? (Find(step) is null ? NoStep(step) : null),
                StepSkipped skipped => OnlyOpen ?? RefusesSkip(skipped),
                StepAdded added => OnlyOpen
                    ?? Sentence(added.Do, "What is to be done")
                    ?? (
                        _card.OwnSteps >= 50 ? "Fifty steps of your own are enough."
                        : added.Stage is < Stage.Prepare or > Stage.Close ? "A step belongs between preparing and closing."
                        : null
                    ),
                StepRepeated { Step: var step } => OnlyOpen
                    ?? (
                        Find(step) is null ? NoStep(step)
                        : _card.Repeats(step) >= 9 ? "Ten times is enough."
                        : null
                    ),
                LevelChanged change => OnlyOpen ?? RefusesLevel(change.Level),
                Counted counted => OnlyOpen ?? Sentence(counted.Item, "What is counted") ?? RefusesCount(counted),
                CountExcused excused => OnlyOpen ?? Sentence(excused.Reason, "The reason") ?? OptionalSentence(excused.Item),
                ChipSeen chip => OnlyOpen ?? (Enum.IsDefined(chip.Chip) ? null : "A chip is lidded or bare."),
                Found found => Unclosed
                    ?? (
                        Grading.Find(found.About, found.Grade) is null
                            ? Message.Of(
                                "'{grade}' is no grade of {subject}; there are {grades}.",
                                Value.Text("grade", found.Grade ?? ""),
                                Value.Word("subject", found.About),
                                Value.Text("grades", string.Join(", ", Grading.Grades[found.About].Select(g => g.Word)))
                            )
                            : OptionalSentence(found.Note)
                    ),
                DamageFound damage => Unclosed ?? Sentence(damage.Text, "What is damaged"),
                DeviationSeen deviation => Unclosed ?? Sentence(deviation.Text, "The deviation"),
                ComplaintRecorded complaint => Unclosed
                    ?? OptionalSentence(complaint.Load)
                    ?? (
                        complaint.What == ComplaintKind.Other
                            ? Sentence(complaint.InWords, "What is complained of")
                            : OptionalSentence(complaint.InWords)
                    )
                    ?? (
                        complaint.MinutesToFailure is { } m && !(m is > 0 and <= 10_000)
                            ? "Minutes to the failure are more than 0."
                            : null
                    ),
                WarrantyAnswered answer => OnlyOpen ?? Sentence(answer.Answer, "The answer"),
                BeforeExcused excuse => OnlyOpen ?? Sentence(excuse.Reason, "The reason"),
                RunMeasured run => run.Run is null ? "A run is needed."
                : _runs.Count >= MostRuns ? Message.Of("{most} runs of one job are enough.", Value.Count("most", MostRuns))
                : RefusesRun(run.Phase),
                RunVoided voided => Sentence(voided.Reason, "The reason")
                    ?? (
                        State == JobState.Abandoned || State == JobState.Proven && voided.Phase != RunPhase.Recheck
                            ? "This job is closed; its runs stay."
                        : !StandingOf(voided.Phase).Any(r => voided.RunKey is null || r.Key == voided.RunKey)
                            ? Message.Of("There is no such {phase}-run.", Value.Word("phase", voided.Phase))
                        : null
                    ),
                TimerStarted timer => timer.Seconds is < 1 or > 86_400
                    ? "A timer runs from a second to a day."
                    : Sentence(timer.Timer, "The timer's name") ?? (_timers.Count >= 100 ? "A hundred timers are enough." : null),
                TimerStopped timer => timer.Timer is { } name && _timers.ContainsKey(name) ? null : "No such timer was started.",
                MaterialUsed used => Unabandoned ?? RefusesMaterial(used),
                ProductUsed used => Unabandoned
                    ?? Sentence(used.Name, "The product's name")
                    ?? (used.Name.Length > LongestName || used.Batch?.Length > LongestName ? TooLongName : null)
                    ?? OptionalSentence(used.ExpiredBecause),
                PadMeasured pad => Unclosed
                    ?? Sentence(pad.Place, "The pad's place")
                    ?? (
                        pad.Place.Length > LongestName ? TooLongName
                        : !(pad.MeasuredMm is >= 0.1 and <= 10) || pad.NominalMm is { } mm && !(mm is >= 0.2 and <= 10)
                            ? "A pad is 0.2 to 10 mm thick; pressed flat, 0.1 mm at the least."
                        : _padsMeasured.Count >= ModelNotes.Most && !_padsMeasured.ContainsKey(pad.Place)
                            ? Message.Of("{most} pads are enough.", Value.Count("most", ModelNotes.Most))
                        : null
                    ),
                ToolUsed tool => Unabandoned
                    ?? Sentence(tool.Tool, "The tool")
                    ?? (
                        tool.Tool.Length > LongestName ? TooLongName
                        : _tools.Count >= 50 ? "Fifty tools are enough."
                        : null
                    ),
                OrderAgreed order => Unabandoned
                    ?? Sentence(order.Scope, "What was agreed")
                    ?? OptionalSentence(order.Owner)
                    ?? OptionalSentence(order.Condition)
                    ?? (order.PriceCap is { } cap && !(cap is >= 0 and <= 1e6) ? "A price lies between 0 and 1 000 000." : null),
                MinutesBooked booked => Unabandoned
                    ?? (
                        !(Math.Abs(booked.Minutes) <= 1440) || Minutes + booked.Minutes < 0
                            ? "Minutes are booked up to a day at once, and their sum is not less than nothing."
                            : null
                    ),
                Noted noted => noted.Text is { Length: <= LongestText }
                    ? null
                    : Message.Of("A note is {most} characters at most.", Value.Count("most", LongestText)),
                PhotoTaken photo => OptionalSentence(photo.Caption)
                    ?? (_photos.Count >= 100 ? "A hundred photos of one job are enough." : null),
                WorkFiled => BlockedFinish,
                Reopened again => State != JobState.WaitingForProof
                    ? "Only work that waits for its proof is opened again."
                    : RefusesReopening(again),
                VerdictFiled verdict => RefusesVerdict(verdict),
                HandedBack back => State is JobState.Open or JobState.Abandoned
                    ? "It goes back to its owner once the work is filed."
                    : Sentence(back.To, "To whom it goes") ?? OptionalSentence(back.Note) ?? OptionalSentence(back.Condition),
                GivenUp gone => OnlyOpen
                    ?? Sentence(gone.Reason, "The reason")
                    ?? (
                        Steps.Any(s => s.DoneAt is not null && s.Card.Stage is >= Stage.Clean and <= Stage.Tighten)
                            ? "Work has been done on it: skip what is left, with the reason, and file what was done."
                            : null
                    ),
                NotesTaken => OnlyOpen,
                CardChanged => "A card changes by what is written about the job, not by itself.",
                _ => "This kind of entry is not known.",
            };

    private static Message TooLongName => Message.Of("A name is {most} characters at most.", Value.Count("most", LongestName));

    private Message? OnlyOpen => State == JobState.Open ? null : NotOpen;

    private Message? Unclosed => State is JobState.Open or JobState.WaitingForProof ? null : "This job is closed.";

    private Message? Unabandoned => State == JobState.Abandoned ? "This job was given up." : null;

    private CardStep? Find(string? id) => _card.Steps.FirstOrDefault(s => s.Id == id);

    private static Message NoStep(string? id) => Message.Of("This job has no step '{step}'.", Value.Text("step", id ?? ""));

    private static Message? Sentence(string? text, Message what) =>
        string.IsNullOrWhiteSpace(text)
            ? Message.Of("{what} is needed.", Value.List("what", "", [what]))
            : OptionalSentence(text);

    private static Message? OptionalSentence(string? text) =>
        text is { Length: > LongestText } ? Message.Of("{most} characters at most.", Value.Count("most", LongestText)) : null;

    private Message? RefusesStep(StepDone done, DateTimeOffset at)
    {
        var steps = Steps;
        if (steps.FirstOrDefault(s => s.Card.Id == done.Step) is not { } step)
            return NoStep(done.Step);
        if (IsWork(step.Card) && BlockedBefore is { } before)
            return before;
        if (steps.TakeWhile(s => s != step).FirstOrDefault(s => s.IsOpen && !s.Card.MayBeSkipped) is { } gate)
            return Message.Of("First: {step}", Value.List("step", "", [gate.Card.Do]));
        if (step.Card.Gate.Select(g => g.ToString()).Except(done.Checks ?? []).ToArray() is { Length: > 0 } missing)
            return Message.Of("Still to confirm: {checks}.", Value.Text("checks", string.Join("; ", missing)));
        if (step.Card.Timer is { Required: true } timer && !HasRung(step.Card.Id, timer, at))
            return Message.Of("The timer has to ring first: {seconds}.", Value.Seconds("seconds", timer.Seconds));
        return RefusesForm(step.Card.Form);
    }

    /// <summary>Whether the time that a step needs is over, whatever the timer was set to.</summary>
    private bool HasRung(string step, StepTimer timer, DateTimeOffset at) =>
        _timers.TryGetValue(step, out var running)
        && running.StartedAt.AddSeconds(Math.Max(running.Seconds, timer.Seconds)) <= at.AddSeconds(1);

    private Message? RefusesForm(StepForm form) =>
        form switch
        {
            StepForm.ScrewsOut => UncountedOut(CountOf.Screws),
            StepForm.ConnectorsOut => UncountedOut(CountOf.Connectors),
            StepForm.ScrewsIn => OpenCount(CountOf.Screws),
            StepForm.ConnectorsIn => OpenCount(CountOf.Connectors),
            StepForm.Inspection when !_findings.Keys.Any(Outside.Contains) =>
                "Grade at least one thing, or leave the step out with a reason.",
            StepForm.JointInspection when !_findings.Keys.Any(Joint.Contains) =>
                "Give paste or pads their grade, or leave the step out with a reason.",
            StepForm.CorrosionInspection when !_findings.ContainsKey(FindingSubject.Corrosion) =>
                "Grade the corrosion, or leave the step out with a reason.",
            _ => null,
        };

    private static readonly FindingSubject[] Outside =
        [FindingSubject.Dust, FindingSubject.Mesh, FindingSubject.FanSpin, FindingSubject.FanNoise, FindingSubject.Liquid],
        Joint = [FindingSubject.Paste, FindingSubject.Coverage, FindingSubject.Pads];

    private Message? RefusesSkip(StepSkipped skipped) =>
        Find(skipped.Step) is not { } step ? NoStep(skipped.Step)
        : !step.MayBeSkipped ? "This step guards the machine or you: it cannot be left out."
        : step.Optional ? OptionalSentence(skipped.Reason)
        : Sentence(skipped.Reason, "The reason");

    private Message? RefusesLevel(ServiceLevel level)
    {
        if (
            Head.WarrantyUntil is { } until
            && Basis.WarrantyAnswer is null
            && Basis.Schools.RefusesUnderWarranty(level, until) is { } refused
        )
            return refused;
        if (!ServiceEffects.Suits(level, Basis.Kind))
            return Unsuited(level, Basis.Kind);
        // A fan swap with the cooler off keeps its paste steps; anything lighter would close it without.
        return CoolerCameOff && !ServiceEffects.LiftsCooler(level) && level != ServiceLevel.FanSwap
            ? "The cooler is off: that always brings new paste. A lighter level is not possible any more."
            : null;
    }

    /// <summary>That a level is not done on a kind of machine.</summary>
    public static Message Unsuited(ServiceLevel level, AssetKind kind) =>
        Message.Of("There is no {level} for a {kind}.", Value.Word("level", level), Value.Word("kind", kind));

    private Message? RefusesMaterial(MaterialUsed used)
    {
        var sum =
            _materials.Where(m => m.Material == used.Material && m.ThicknessMm == used.ThicknessMm).Sum(m => m.Amount)
            + used.Amount;
        return !(sum is >= 0 and <= 10_000) ? "An amount lies between nothing and 10 000, all together."
            : used.Material == MaterialKind.PadPieces && used.ThicknessMm is not (>= 0.2 and <= 10)
                ? "Pads need their thickness, 0.2 to 10 mm."
            : null;
    }

    private Message? RefusesRun(RunPhase phase) =>
        phase switch
        {
            RunPhase.Before => State != JobState.Open || Begun
                ? "The work has begun: what is measured now is no before-run any more."
                : null,
            RunPhase.After => State != JobState.WaitingForProof
                ? "File the work as done first; the after-run comes after it."
                : null,
            _ => State is JobState.Open or JobState.Abandoned || Standing(RunPhase.After) is null
                ? "The second look comes after the after-run."
                : null,
        };

    private Message? RefusesReopening(Reopened again) =>
        !again.RoomAlike || !again.FanAlike || !again.SettingsAlike
            ? "Room, fan and settings first: open it again only when all three were alike in both runs."
        : Standing(RunPhase.After) is null ? "Measure it first: nothing says yet that it has to be opened again."
        : Sentence(again.Reason, "The reason");

    private Message? RefusesVerdict(VerdictFiled verdict)
    {
        if (State != JobState.WaitingForProof)
            return "Only work that is done can be proven.";
        // A look that changed nothing has nothing to prove.
        if (LongestAfter is not { } after)
            return Level == ServiceLevel.Inspect ? null : "The after-run is still missing.";
        if (Complaint is null)
            return null;
        if (verdict.Fixed is not { } gone)
            return "There was a complaint: say whether it is gone.";
        return gone ? NotYetGone(after) : null;
    }

    /// <summary>The longest run after the work: the one by which a complaint counts as gone.</summary>
    public Run? LongestAfter => StandingOf(RunPhase.After).Select(r => r.Run).MaxBy(r => r.Minutes);

    /// <summary>Why the complaint cannot be called gone yet, or null.</summary>
    public Message? ComplaintStands => LongestAfter is { } after && Complaint is not null ? NotYetGone(after) : null;

    private Message? NotYetGone(Run after) =>
        StandingOf(RunPhase.After).Min(r => r.Run.FailedAfterMinutes) is { } failed
            ? Message.Of(
                "It failed after {minutes} in a run after the work: it is not fixed. Strike that run out, with the reason, only if it does not count.",
                Value.Minutes("minutes", failed)
            )
        : Complaint?.MinutesToFailure is { } minutes && after.Minutes < Symptom.TimesToFailure * minutes
            ? Message.Of(
                "It used to fail after {failed} and has run {run}: it counts as fixed after {needed}.",
                Value.Minutes("failed", minutes),
                Value.Minutes("run", after.Minutes),
                Value.Minutes("needed", Symptom.TimesToFailure * minutes)
            )
        : null;
}
