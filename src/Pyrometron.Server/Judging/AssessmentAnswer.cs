using System.Text.Json.Serialization;
using Pyrometron.Core.Assessments;
using Pyrometron.Core.Drift;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Forecast;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Messages;

namespace Pyrometron.Server.Judging;

/// <summary>A sensor that was not believed.</summary>
/// <param name="Message">What it did, as template and values.</param>
public sealed record SensorAnswer(string Channel, string What, DateTimeOffset Since, int Readings, Message Message);

/// <summary>What else a machine's warmth could come from, and what the evidence says of it.</summary>
/// <param name="What">The explanation.</param>
/// <param name="Weighed">What is made of it.</param>
/// <param name="Kelvin">What it adds on the part that it adds most to; null where that is not known.</param>
/// <param name="Evidence">By what that is known.</param>
/// <param name="Message">The same as template and values.</param>
public sealed record AlternativeAnswer(Explaining What, Weighed Weighed, double? Kelvin, string Evidence, Message Message);

/// <summary>A step in a machine's history.</summary>
public sealed record StepChange(DateOnly Date, string Part, double Kelvin, string Kind);

/// <summary>How the part that differs most stands among machines of the same model.</summary>
public sealed record SiblingAnswer(string Part, int Peers, double KelvinAbove, double Z, bool StandsOut);

/// <summary>A report that stands.</summary>
public sealed record SymptomAnswer(DateOnly Date, SymptomKind Kind, string? Note);

/// <summary>The operating point that everything is brought to.</summary>
public sealed record ReferenceAnswer(
    double? PowerWatts,
    double AmbientCelsius,
    double? FanSpeed,
    double? FanPercent,
    bool FanFixed
);

/// <summary>The run that was measured last.</summary>
public sealed record MeasuredRunAnswer(long JobId, RunPhase Phase, string Workload, double Minutes, string Settings);

/// <summary>How the newest job ended, while nothing answers it.</summary>
public sealed record JobResultAnswer(
    long JobId,
    ServiceLevel Level,
    DateTimeOffset At,
    VerdictOutcome Outcome,
    bool? ComplaintGone
);

/// <summary>A service since the machine was measured last.</summary>
public sealed record ServiceNotMeasured(ServiceLevel Level, DateOnly Date, long? JobId);

/// <summary>The whole judgement of one machine.</summary>
/// <param name="MeasuredAt">When it was measured last.</param>
/// <param name="MeasuredBy"><c>run</c> or <c>readings</c>.</param>
/// <param name="Runs">Runs at the bench that count.</param>
/// <param name="DriftUncertaintyKelvin">Standard uncertainty of the drift.</param>
/// <param name="NeedsWorkProbability">The chance that it needs work; null where nothing was measured that tells.</param>
/// <param name="Warranty">What the maker's warranty means for the work advised; null where it means nothing.</param>
/// <param name="EvidenceSays">The grade of evidence in words; null with too little measured.</param>
/// <param name="Silence">Its readings, where they used to come and have stopped; else null.</param>
/// <param name="Measure">The run that would tell most, where this is the machine to make it on; else null.</param>
public sealed record AssessmentAnswer(
    string Asset,
    DateOnly AsOf,
    DateTimeOffset? JudgedAt,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] bool Pending,
    Urgency Urgency,
    Cause Cause,
    double? DriftKelvin,
    DateOnly? ActionDate,
    DateOnly? ActionDateEarly,
    DateOnly? ActionDateLate,
    ServiceLevel? Service,
    int? Minutes,
    EvidenceGrade? Evidence,
    string Reason,
    Message ReasonMessage,
    IReadOnlyList<string> Sentences,
    IReadOnlyList<Message> SentenceMessages,
    string? ToBeSurer,
    Message? ToBeSurerMessage,
    ReferenceAnswer? Reference,
    IReadOnlyList<PartAnswer> Parts,
    double RoomKelvin,
    double SettingsKelvin,
    double? AmbientCelsius,
    IReadOnlyList<StepChange> Steps,
    IReadOnlyList<SensorAnswer> Sensors,
    ServiceLevel? DueLevel,
    DateOnly? Due,
    DateOnly? DueAsked,
    bool ByCalendar,
    DateTimeOffset? NewestReading,
    int Readings,
    SiblingAnswer? Siblings,
    IReadOnlyList<SymptomAnswer> Symptoms,
    IReadOnlyList<LevelAnswer> Levels,
    string Currency,
    int PayBackYears,
    FanEnd? FanEnd,
    DateTimeOffset? MeasuredAt,
    string? MeasuredBy,
    MeasuredRunAnswer? MeasuredRun,
    int Runs,
    double? DriftUncertaintyKelvin,
    double? NeedsWorkProbability,
    JobResultAnswer? JobResult,
    ServiceNotMeasured? NotMeasured,
    WarrantyAnswer? Warranty,
    string? EvidenceSays,
    Message? EvidenceMessage,
    SilenceAnswer? Silence,
    RunToMakeAnswer? Measure,
    IReadOnlyList<AlternativeAnswer> WhyNot
)
{
    internal static AssessmentAnswer From(Assessment a, JudgedFleet judged) =>
        new(
            a.Asset.Tag,
            a.AsOf,
            judged.JudgedAt,
            judged.Pending,
            a.Urgency,
            a.Cause,
            QueueItem.Round(a.DriftKelvin),
            a.Action?.Day,
            a.Action?.Early,
            a.Action?.Late,
            a.Service,
            a.Minutes,
            a.Evidence,
            a.Reason.ToString(),
            a.Reason,
            [.. a.Sentences.Select(x => x.ToString())],
            a.Sentences,
            a.ToBeSurer?.ToString(),
            a.ToBeSurer,
            a.Reference is { } r
                ? new ReferenceAnswer(
                    r.HasPower ? Math.Round(r.PowerW, 1) : null,
                    ReferencePoint.AmbientC,
                    OrNull(r.FanSpeed),
                    OrNull(r.FanPct),
                    r.FanFixed
                )
                : null,
            [.. a.Parts.Select(p => PartAnswer.From(a, p))],
            Math.Round(a.Outside.Room, 2),
            Math.Round(a.Outside.Settings, 2),
            OrNull(a.AmbientNowC),
            [.. a.Steps.Select(s => new StepChange(s.Date, s.Part, Math.Round(s.Kelvin, 2), s.Kind))],
            [.. a.SensorFindings.Select(f => new SensorAnswer(f.Channel, f.What.ToString(), At(f.FromDay), f.Readings, f.What))],
            a.ServiceDue?.Level,
            a.ServiceDue?.Due,
            a.ServiceDue?.Asked,
            a.ByCalendar,
            At(a.MeasuredDay),
            a.Readings,
            a.Siblings is { } s
                ? new SiblingAnswer(s.Part, s.Peers, Math.Round(s.KelvinAbove, 2), Math.Round(s.Z, 2), s.StandsOut)
                : null,
            [.. a.Symptoms.Select(x => new SymptomAnswer(x.Date, x.Kind, x.Note))],
            [.. a.Levels.Select(LevelAnswer.From)],
            a.Policy.Values.Currency,
            a.Policy.Values.PayBackYears,
            a.FanEnd is { } fan
                ? fan with
                {
                    PercentNow = Math.Round(fan.PercentNow, 1),
                    ReserveKelvin = Math.Round(fan.ReserveKelvin, 2),
                }
                : null,
            At(a.MeasuredDay),
            By(a),
            a.MeasuredRun is { } run
                ? new MeasuredRunAnswer(run.Job, run.Phase, run.Run.Workload, run.Run.Minutes, run.Run.Settings)
                : null,
            a.Runs,
            QueueItem.Round(a.WorstPart?.SigmaKelvin),
            a.NeedsWorkProbability,
            a.Result is { } result
                ? new JobResultAnswer(result.Job, result.Level, result.At, result.Outcome, result.ComplaintGone)
                : null,
            a.Unmeasured is { } service ? new ServiceNotMeasured(service.Level, service.Date, service.Job) : null,
            WarrantyAnswer.From(a.Warranty),
            a.Measured?.Words.ToString(),
            a.Measured?.Words,
            SilenceAnswer.From(a.Silence),
            RunToMakeAnswer.From(a.Measure),
            [
                .. a.WhyNot.Select(w => new AlternativeAnswer(
                    w.What,
                    w.Weighed,
                    w.Kelvin is { } k ? Math.Round(k, 2) : null,
                    w.Evidence.ToString(),
                    w.Evidence
                )),
            ]
        );

    /// <summary>What was measured last: a run at the bench, or readings.</summary>
    internal static string? By(Assessment a) =>
        a.MeasuredDay is null ? null
        : a.MeasuredRun is null ? "readings"
        : "run";

    internal static DateTimeOffset? At(double? day) => day is { } known ? At(known) : null;

    internal static DateTimeOffset At(double day) => DateTimeOffset.FromUnixTimeSeconds((long)Math.Round(day * 86400));

    internal static double? OrNull(double value) => double.IsNaN(value) ? null : Math.Round(value, 1);
}
