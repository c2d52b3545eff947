using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;

namespace Pyrometron.Storage.Records;

// An entry written member by member.
internal sealed partial record EntryRecord
{
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
                Place = Word(e.Place),
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
            DamageFound e => new()
            {
                Kind = "damage-found",
                Text = e.Text,
                OnTheWay = e.OnTheWay == true ? true : null,
            },
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
            ProductUsed e => new()
            {
                Kind = "product-used",
                Product = Words.Of(e.Product),
                Name = e.Name,
                Batch = e.Batch,
                Pattern = Word(e.Pattern),
                Lot = e.Lot,
                ExpiredBecause = e.ExpiredBecause,
            },
            PadMeasured e => new()
            {
                Kind = "pad-measured",
                Place = e.Place,
                MeasuredMm = e.MeasuredMm,
                NominalMm = e.NominalMm,
                By = Word(e.By),
                Pad = e.Pad,
            },
            ToolUsed e => new() { Kind = "tool-used", Tool = e.Tool },
            OrderAgreed e => new()
            {
                Kind = "order-agreed",
                Scope = e.Scope,
                Owner = e.Owner,
                PriceCap = e.PriceCap,
                MayOpen = e.MayOpen,
                Condition = e.Condition,
                BackedUp = e.BackedUp,
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
                OnTheWay = e.DoneOnTheWay == true ? true : null,
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
                Condition = e.Condition,
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

    private static string? Word<T>(T? value)
        where T : struct, Enum => value is { } known ? Words.Of(known) : null;
}
