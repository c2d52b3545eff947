using System.Globalization;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Inspection;

namespace Pyrometron.Core.Jobs;

/// <summary>What an entry says in the log book, one line.</summary>
public static class EntryWords
{
    /// <summary>The sentence of an entry.</summary>
    /// <param name="stepOf">The words of a step's id, from the job's card.</param>
    public static string Of(JobEntry entry, Func<string, string?> stepOf)
    {
        string Step(string id) => stepOf(id) ?? id;
        return entry switch
        {
            StepDone e => $"Done: {Step(e.Step)}",
            StepUndone e => $"Tick taken back: {Step(e.Step)}",
            StepSkipped e => $"Left out: {Step(e.Step)}{(e.Reason is { } why ? $" ({why})" : "")}",
            StepAdded e => $"Step added: {e.Do}",
            StepRepeated e => $"Once more: {Step(e.Step)}",
            LevelChanged e => $"Now a {Words.Of(e.Level)}{(e.Reason is { } why ? $": {why}" : "")}",
            Counted e => $"{e.What}, {e.Item}: {e.Out} out, {e.In} in",
            CountExcused e => $"{e.What} do not come out even: {e.Reason}",
            Found e =>
                $"Found: {SubjectWord(e.About)} {Grading.Find(e.About, e.Grade)?.Says ?? e.Grade}{(e.Note is { Length: > 0 } note ? $" ({note})" : "")}",
            DamageFound e => $"Damage found on opening: {e.Text}",
            DeviationSeen e => $"Deviation from good practice: {e.Text}",
            ComplaintRecorded e => $"Complaint: {Words.Of(e.What).Replace('-', ' ')}{Detail(e)}",
            WarrantyAnswered e => $"Opened under warranty: {e.Answer}",
            BeforeExcused e => $"No before-run: {e.Reason}",
            RunMeasured e => string.Create(
                CultureInfo.InvariantCulture,
                $"{e.Phase}-run, {e.Run.Minutes:0.#} min of {e.Run.Workload}: {string.Join(", ", e.Run.Parts.Select(p => string.Create(CultureInfo.InvariantCulture, $"{p.Part} {p.Celsius.Value:0.#} °C")))}{(e.Run.Ambient is { } air ? string.Create(CultureInfo.InvariantCulture, $", air {air.Value:0.#} °C") : "")}"
            ),
            RunVoided e => $"{e.Phase}-run struck out: {e.Reason}",
            TimerStarted e => $"Timer: {Step(e.Timer)}, {e.Seconds} s",
            TimerStopped e => $"Timer stopped: {Step(e.Timer)}",
            MaterialUsed e => string.Create(
                CultureInfo.InvariantCulture,
                $"Used: {e.Amount:0.##} {MaterialWord(e.Material)}{(e.ThicknessMm is { } t ? string.Create(CultureInfo.InvariantCulture, $" of {t:0.0} mm") : "")}"
            ),
            MinutesBooked e => string.Create(CultureInfo.InvariantCulture, $"{e.Minutes:0.#} minutes booked"),
            Noted e => e.Text.Length == 0 ? "Note taken out" : $"Note: {e.Text}",
            PhotoTaken e =>
                $"Photo{(e.FoundOnOpening ? " of what was found on opening" : "")}{(e.Caption is { Length: > 0 } caption ? $": {caption}" : "")}",
            WorkFiled => "Work filed as done",
            Reopened e => $"Opened again, room, fan and settings being alike: {e.Reason}",
            VerdictFiled e => e.Fixed is { } gone
                ? $"Verdict filed; the complaint is {(gone ? "gone" : "not gone")}"
                : "Verdict filed",
            HandedBack e => $"Handed back to {e.To}{(e.Note is { Length: > 0 } note ? $": {note}" : "")}",
            GivenUp e => $"Given up: {e.Reason}",
            _ => entry.GetType().Name,
        };
    }

    private static string Detail(ComplaintRecorded e)
    {
        var parts = new List<string>();
        if (e.Load is { Length: > 0 } load)
            parts.Add($"under {load}");
        if (e.MinutesToFailure is { } minutes)
            parts.Add(string.Create(CultureInfo.InvariantCulture, $"after {minutes:0.#} minutes"));
        if (e.Reproduced is { } reproduced)
            parts.Add(reproduced ? "seen at the bench" : "not seen at the bench");
        return parts.Count == 0 ? "" : " " + string.Join(", ", parts);
    }

    /// <summary>A subject in a sentence.</summary>
    public static string SubjectWord(FindingSubject subject) =>
        subject switch
        {
            FindingSubject.Dust => "dust in the fins",
            FindingSubject.Mesh => "intake mesh",
            FindingSubject.FanSpin => "fan",
            FindingSubject.FanNoise => "fan",
            FindingSubject.Liquid => "liquid",
            FindingSubject.Coverage => "paste covered",
            _ => Words.Of(subject),
        };

    private static string MaterialWord(MaterialKind kind) =>
        kind switch
        {
            MaterialKind.PasteGrams => "g of paste",
            MaterialKind.PadPieces => "pads",
            MaterialKind.PuttyGrams => "g of putty",
            MaterialKind.Wipes => "wipes",
            MaterialKind.Swabs => "swabs",
            MaterialKind.AlcoholMillilitres => "ml of alcohol",
            _ => "fans",
        };
}
