using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Inspection;
using Pyrometron.Core.Procedures;

namespace Pyrometron.Core.Jobs;

// Which entry may come next: every refusal is a sentence that says what to do instead.
public sealed partial class Job
{
    private const int LongestText = 2000,
        MostEntries = 5000;

    /// <summary>Why an entry cannot be taken as things stand, or null.</summary>
    /// <param name="at">When it happened, by the device's clock.</param>
    public string? Refuses(JobEntry entry, DateTimeOffset at) =>
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
                        _added.Count >= 50 ? "Fifty steps of your own are enough."
                        : added.Stage is < Stage.Prepare or > Stage.Close ? "A step belongs between preparing and closing."
                        : null
                    ),
                StepRepeated { Step: var step } => OnlyOpen
                    ?? (
                        Find(step) is null ? NoStep(step)
                        : _repeats.GetValueOrDefault(step) >= 9 ? "Ten times is enough."
                        : null
                    ),
                LevelChanged change => OnlyOpen ?? RefusesLevel(change.Level),
                Counted counted => OnlyOpen ?? Sentence(counted.Item, "What is counted") ?? RefusesCount(counted),
                CountExcused excused => OnlyOpen ?? Sentence(excused.Reason, "The reason"),
                Found found => Unclosed
                    ?? (
                        Grading.Find(found.About, found.Grade) is null
                            ? $"'{found.Grade}' is no grade of {Words.Of(found.About)}; there are {string.Join(", ", Grading.Grades[found.About].Select(g => g.Word))}."
                            : OptionalSentence(found.Note)
                    ),
                DamageFound damage => Unclosed ?? Sentence(damage.Text, "What is damaged"),
                DeviationSeen deviation => Unclosed ?? Sentence(deviation.Text, "The deviation"),
                ComplaintRecorded complaint => Unclosed
                    ?? OptionalSentence(complaint.Load)
                    ?? (
                        complaint.MinutesToFailure is { } m && !(m is > 0 and <= 10_000)
                            ? "Minutes to the failure are more than 0."
                            : null
                    ),
                WarrantyAnswered answer => OnlyOpen ?? Sentence(answer.Answer, "The answer"),
                BeforeExcused excuse => OnlyOpen ?? Sentence(excuse.Reason, "The reason"),
                RunMeasured run => run.Run is null ? "A run is needed." : RefusesRun(run.Phase),
                RunVoided voided => Sentence(voided.Reason, "The reason")
                    ?? (
                        State == JobState.Abandoned || State == JobState.Proven && voided.Phase != RunPhase.Recheck
                            ? "This job is closed; its runs stay."
                        : Standing(voided.Phase) is null ? $"There is no {Words.Of(voided.Phase)}-run."
                        : null
                    ),
                TimerStarted timer => timer.Seconds is < 1 or > 86_400
                    ? "A timer runs from a second to a day."
                    : Sentence(timer.Timer, "The timer's name") ?? (_timers.Count >= 100 ? "A hundred timers are enough." : null),
                TimerStopped timer => timer.Timer is { } name && _timers.ContainsKey(name) ? null : "No such timer was started.",
                MaterialUsed used => Unabandoned ?? RefusesMaterial(used),
                MinutesBooked booked => Unabandoned
                    ?? (
                        !(Math.Abs(booked.Minutes) <= 1440) || Minutes + booked.Minutes < 0
                            ? "Minutes are booked up to a day at once, and their sum is not less than nothing."
                            : null
                    ),
                Noted noted => noted.Text is { Length: <= LongestText } ? null : $"A note is {LongestText} characters at most.",
                PhotoTaken photo => OptionalSentence(photo.Caption)
                    ?? (_photos.Count >= 100 ? "A hundred photos of one job are enough." : null),
                WorkFiled => BlockedFinish,
                Reopened again => State != JobState.WaitingForProof
                    ? "Only work that waits for its proof is opened again."
                    : RefusesReopening(again),
                VerdictFiled verdict => RefusesVerdict(verdict),
                HandedBack back => State is JobState.Open or JobState.Abandoned
                    ? "It goes back to its owner once the work is filed."
                    : Sentence(back.To, "To whom it goes") ?? OptionalSentence(back.Note),
                GivenUp gone => OnlyOpen
                    ?? Sentence(gone.Reason, "The reason")
                    ?? (
                        Steps.Any(s => s.DoneAt is not null && s.Card.Stage is >= Stage.Clean and <= Stage.Tighten)
                            ? "Work has been done on it: skip what is left, with the reason, and file what was done."
                            : null
                    ),
                _ => "This kind of entry is not known.",
            };

    private string? OnlyOpen => State == JobState.Open ? null : NotOpen;

    private string? Unclosed => State is JobState.Open or JobState.WaitingForProof ? null : "This job is closed.";

    private string? Unabandoned => State == JobState.Abandoned ? "This job was given up." : null;

    private CardStep? Find(string? id) => Card().FirstOrDefault(s => s.Id == id);

    private static string NoStep(string? id) => $"This job has no step '{id}'.";

    private static string? Sentence(string? text, string what) =>
        string.IsNullOrWhiteSpace(text) ? $"{what} is needed." : OptionalSentence(text);

    private static string? OptionalSentence(string? text) =>
        text is { Length: > LongestText } ? $"{LongestText} characters at most." : null;

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
        if (
            step.Card.Timer is { Required: true } timer
            && (!_timers.TryGetValue(step.Card.Id, out var running) || running.RingsAt > at.AddSeconds(1))
        )
            return $"The timer has to ring first: {timer.Seconds} seconds.";
        return step.Card.Form switch
        {
            StepForm.ScrewsIn => OpenCount(CountOf.Screws),
            StepForm.ConnectorsIn => OpenCount(CountOf.Connectors),
            StepForm.Inspection when !_findings.Keys.Any(f => f < FindingSubject.Paste) =>
                "Give at least one thing its grade, or leave the step out with a reason.",
            StepForm.JointInspection when !_findings.Keys.Any(f => f >= FindingSubject.Paste) =>
                "Give paste or pads their grade, or leave the step out with a reason.",
            _ => null,
        };
    }

    private string? RefusesSkip(StepSkipped skipped) =>
        Find(skipped.Step) is not { } step ? NoStep(skipped.Step)
        : !step.MayBeSkipped ? "This step guards the machine or you: it cannot be left out."
        : step.Optional ? OptionalSentence(skipped.Reason)
        : Sentence(skipped.Reason, "The reason");

    private string? RefusesLevel(ServiceLevel level)
    {
        if (
            Head.WarrantyUntil is { } until
            && Basis.WarrantyAnswer is null
            && Basis.Schools.RefusesUnderWarranty(level, until) is { } refused
        )
            return refused;
        return
            !ServiceEffects.LiftsCooler(level)
            && Steps.Any(s => s.Card.Kind == "cooler-off" && s.DoneAt is not null)
            && level != ServiceLevel.FanSwap
            ? "The cooler is off: that always brings new paste. A lighter level is not possible any more."
            : null;
    }

    private string? RefusesCount(Counted counted)
    {
        if (counted.Out is < 0 or > 500 || counted.In is < 0 or > 500)
            return "Counts run from 0 to 500.";
        if (counted.In > counted.Out)
            return $"{counted.In} cannot go in where {counted.Out} came out: count again.";
        return _counts.Count >= 200 && !_counts.ContainsKey((counted.What, counted.Item))
            ? "Two hundred kinds are enough."
            : null;
    }

    private string? RefusesMaterial(MaterialUsed used)
    {
        var sum =
            _materials.Where(m => m.Material == used.Material && m.ThicknessMm == used.ThicknessMm).Sum(m => m.Amount)
            + used.Amount;
        return !(sum is >= 0 and <= 10_000) ? "An amount lies between nothing and 10 000, all together."
            : used.Material == MaterialKind.PadPieces && used.ThicknessMm is not (>= 0.2 and <= 10)
                ? "Pads need their thickness, 0.2 to 10 mm."
            : null;
    }

    private string? RefusesRun(RunPhase phase) =>
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

    private string? RefusesReopening(Reopened again) =>
        !again.RoomAlike || !again.FanAlike || !again.SettingsAlike
            ? "Room, fan and settings first: open it again only when all three were alike in both runs."
        : Standing(RunPhase.After) is null ? "Measure it first: nothing says yet that it has to be opened again."
        : Sentence(again.Reason, "The reason");

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
            ? FormattableString.Invariant(
                $"It used to fail after {minutes:0.#} minutes and has run {after.Minutes:0.#}: it counts as fixed after {2 * minutes:0.#}."
            )
            : null;
    }
}
