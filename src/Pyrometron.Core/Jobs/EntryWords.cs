using Pyrometron.Core.Fleet;
using Pyrometron.Core.Inspection;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Procedures;

namespace Pyrometron.Core.Jobs;

/// <summary>What an entry says in the log book, one line.</summary>
public static class EntryWords
{
    /// <summary>The sentence of an entry.</summary>
    /// <param name="stepOf">What a step's id asks for, from the job's card; null where it is not on it.</param>
    public static Message Of(JobEntry entry, Func<string, Message?> stepOf)
    {
        MessageValue Step(string id) => Value.List("step", "", [stepOf(id) ?? Message.Of("{id}", Value.Text("id", id))]);
        return entry switch
        {
            StepDone e => Message.Of("Done: {step}", Step(e.Step)),
            StepUndone e => Message.Of("Tick taken back: {step}", Step(e.Step)),
            StepSkipped e => WithNote("Left out: {step}", e.Reason, Step(e.Step)),
            StepAdded e => Message.Of("Step added: {text}", Value.Text("text", e.Do)),
            StepRepeated e => Message.Of("Once more: {step}", Step(e.Step)),
            LevelChanged e => WithReason("Now a {level}", e.Reason, Value.Word("level", e.Level)),
            Counted e => Message.Of(
                e.What == CountOf.Screws ? "Screws, {item}: {out} out, {in} in" : "Connectors, {item}: {out} out, {in} in",
                Value.Text("item", e.Item),
                Value.Count("out", e.Out),
                Value.Count("in", e.In)
            ),
            CountExcused e => WithReason(
                e.What == CountOf.Screws ? "The screws do not come out even" : "The connectors do not come out even",
                e.Reason
            ),
            ChipSeen { Chip: ChipKind.Lidded } => "The chip carries a lid",
            ChipSeen => "The chip is bare",
            Found e => WithNote(
                "Found: {subject} {grade}",
                e.Note,
                Value.List("subject", "", [SubjectWord(e.About)]),
                Value.List("grade", "", [Grading.Find(e.About, e.Grade)?.Says ?? Message.Verbatim(e.Grade)])
            ),
            DamageFound { OnTheWay: true } e => Message.Of("Damage done by this job: {text}", Value.Text("text", e.Text)),
            DamageFound e => Message.Of("Damage found on opening: {text}", Value.Text("text", e.Text)),
            DeviationSeen e => Message.Of("Deviation from good practice: {text}", Value.Text("text", e.Text)),
            ComplaintRecorded e => Complaint(e),
            WarrantyAnswered e => Message.Of("Opened under warranty: {text}", Value.Text("text", e.Answer)),
            BeforeExcused e => Message.Of("No before-run: {text}", Value.Text("text", e.Reason)),
            RunMeasured e => Measured(e),
            RunVoided e => Message.Of(
                "{phase}-run struck out: {text}",
                Value.Word("phase", e.Phase),
                Value.Text("text", e.Reason)
            ),
            TimerStarted e => Message.Of("Timer: {step}, {seconds}", Step(e.Timer), Value.Seconds("seconds", e.Seconds)),
            TimerStopped e => Message.Of("Timer stopped: {step}", Step(e.Timer)),
            MaterialUsed e => Used(e),
            ProductUsed e => Product(e),
            PadMeasured e => Pad(e),
            ToolUsed e => Message.Of("Tool: {tool}", Value.Text("tool", e.Tool)),
            OrderAgreed e => Message.Of("Agreed with its owner: {text}", Value.Text("text", e.Scope)),
            MinutesBooked e => Message.Of("{minutes} booked", Value.Minutes("minutes", e.Minutes)),
            Noted { Text.Length: 0 } => "Note taken out",
            Noted e => Message.Of("Note: {text}", Value.Text("text", e.Text)),
            PhotoTaken e => WithReason(e.FoundOnOpening ? "Photo of what was found on opening" : "Photo", e.Caption),
            WorkFiled => "Work filed as done",
            Reopened e => Message.Of("Opened again, room, fan and settings being alike: {text}", Value.Text("text", e.Reason)),
            VerdictFiled { Fixed: true } => "Verdict filed; the complaint is gone",
            VerdictFiled { Fixed: false } => "Verdict filed; the complaint is not gone",
            VerdictFiled => "Verdict filed",
            HandedBack e => WithReason("Handed back to {to}", e.Note, Value.Text("to", e.To)),
            GivenUp e => Message.Of("Given up: {text}", Value.Text("text", e.Reason)),
            NotesTaken => "The model's newer notes taken over",
            CardChanged e => Message.Of(
                "Card changed: {on} put on, {off} taken off",
                Value.Counted("on", e.PutOn.Count, "step"),
                Value.Counted("off", e.TakenOff.Count, "step")
            ),
            _ => throw new InvalidOperationException($"No words for {entry.GetType().Name}"),
        };
    }

    /// <summary>What was looked at, and what was seen.</summary>
    public static Message Graded(FindingSubject subject, Grade grade) =>
        Message.Of(
            "{subject}: {grade}",
            Value.List("subject", "", [SubjectWord(subject)]),
            Value.List("grade", "", [grade.Says])
        );

    /// <summary>A subject in a sentence.</summary>
    public static Message SubjectWord(FindingSubject subject) =>
        subject switch
        {
            FindingSubject.Dust => "dust in the fins",
            FindingSubject.Mesh => "intake mesh",
            FindingSubject.FanSpin => "fan",
            FindingSubject.FanNoise => "fan",
            FindingSubject.Coverage => "paste covered",
            _ => Message.Of("{word}", Value.Word("word", subject)),
        };

    private static Message WithNote(string template, string? note, params ReadOnlySpan<MessageValue> values) =>
        note is { Length: > 0 }
            ? Message.Of(
                "{sentence} ({note})",
                Value.List("sentence", "", [Message.Of(template, values)]),
                Value.Text("note", note)
            )
            : Message.Of(template, values);

    private static Message WithReason(string template, string? reason, params ReadOnlySpan<MessageValue> values) =>
        reason is { Length: > 0 }
            ? Message.Of(
                "{sentence}: {text}",
                Value.List("sentence", "", [Message.Of(template, values)]),
                Value.Text("text", reason)
            )
            : Message.Of(template, values);

    private static Message Measured(RunMeasured e)
    {
        MessageValue[] values =
        [
            Value.Word("phase", e.Phase),
            Value.Minutes("minutes", e.Run.Minutes),
            Value.Text("load", e.Run.Workload),
            Value.List(
                "parts",
                ", ",
                [
                    .. e.Run.Parts.Select(p =>
                        Message.Of("{part} {celsius}", Value.Part("part", p.Part), Value.Celsius("celsius", p.Celsius.Value))
                    ),
                ]
            ),
        ];
        return e.Run.Ambient is { } air
            ? Message.Of("{phase}-run, {minutes} of {load}: {parts}, air {air}", [.. values, Value.Celsius("air", air.Value)])
            : Message.Of("{phase}-run, {minutes} of {load}: {parts}", values);
    }

    private static Message Complaint(ComplaintRecorded e)
    {
        var details = new List<Message>();
        if (e.Load is { Length: > 0 } load)
            details.Add(Message.Of("under {load}", Value.Text("load", load)));
        if (e.MinutesToFailure is { } minutes)
            details.Add(Message.Of("after {minutes}", Value.Minutes("minutes", minutes)));
        if (e.Reproduced is { } reproduced)
            details.Add(reproduced ? "seen at the bench" : "not seen at the bench");
        Message what = e.What switch
        {
            ComplaintKind.SwitchesOff => "switches off",
            ComplaintKind.Crashes => "crashes",
            ComplaintKind.Slow => "slow",
            ComplaintKind.Loud => "loud",
            ComplaintKind.GotWet => "got wet",
            ComplaintKind.Smells => "smells",
            ComplaintKind.Dropped => "was dropped",
            _ => Message.Of("{words}", Value.Text("words", e.InWords ?? "")),
        };
        return details.Count == 0
            ? Message.Of("Complaint: {what}", Value.List("what", "", [what]))
            : Message.Of("Complaint: {what} {details}", Value.List("what", "", [what]), Value.List("details", ", ", details));
    }

    private static Message Product(ProductUsed e)
    {
        var product = Value.Word("product", e.Product);
        var name = Value.Text("name", e.Name);
        var used = e.Pattern is { } pattern
            ? Message.Of("Used: {product} “{name}”, laid on as {pattern}", product, name, Value.Word("pattern", pattern))
            : Message.Of("Used: {product} “{name}”", product, name);
        if (e.Batch is { } batch)
            used = Message.Of("{used}, batch {batch}", Value.List("used", "", [used]), Value.Text("batch", batch));
        return e.ExpiredBecause is { } reason
            ? Message.Of("{used}, expired: {reason}", Value.List("used", "", [used]), Value.Text("reason", reason))
            : used;
    }

    private static Message Pad(PadMeasured e) =>
        e.NominalMm is { } nominal
            ? Message.Of(
                "Old pad at {place}: {measured}, nominal {nominal}",
                Value.Text("place", e.Place),
                Value.Millimetre("measured", e.MeasuredMm),
                Value.Millimetre("nominal", nominal)
            )
            : Message.Of(
                "Old pad at {place}: {measured}",
                Value.Text("place", e.Place),
                Value.Millimetre("measured", e.MeasuredMm)
            );

    private static Message Used(MaterialUsed e)
    {
        var amount = Value.Count("amount", e.Amount);
        return e.Material switch
        {
            MaterialKind.PasteGrams => Message.Of("Used: {amount} g of paste", amount),
            MaterialKind.PadPieces when e.ThicknessMm is { } mm => Message.Of(
                "Used: {amount} pads of {thickness}",
                amount,
                Value.Millimetre("thickness", mm)
            ),
            MaterialKind.PadPieces => Message.Of("Used: {amount} pads", amount),
            MaterialKind.PuttyGrams => Message.Of("Used: {amount} g of putty", amount),
            MaterialKind.Wipes => Message.Of("Used: {amount} wipes", amount),
            MaterialKind.Swabs => Message.Of("Used: {amount} swabs", amount),
            MaterialKind.AlcoholMillilitres => Message.Of("Used: {amount} ml of alcohol", amount),
            _ => Message.Of("Used: {amount} fans", amount),
        };
    }
}
