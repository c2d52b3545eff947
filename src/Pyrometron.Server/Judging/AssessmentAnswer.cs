using System.Text.Json.Serialization;
using Pyrometron.Core.Assessments;
using Pyrometron.Core.Drift;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Forecast;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Messages;

namespace Pyrometron.Server.Judging;

/// <summary>Kelvins of one cause.</summary>
/// <param name="UncertaintyKelvin">Expanded, k = 2.</param>
public sealed record CauseKelvin(Cause Cause, double Kelvin, double? UncertaintyKelvin);

/// <summary>The slow change of a part, K a day, with its 80 % interval.</summary>
public sealed record TrendAnswer(double KelvinPerDay, double Low, double High, double PValue, bool Rising, DateTimeOffset From);

/// <summary>One point of a part's history at its reference point, K over the intake air.</summary>
/// <param name="Run">Whether it was measured at the bench.</param>
public sealed record HistoryPoint(DateTimeOffset At, double Observed, double Room, double Model, bool Run);

/// <summary>One layer of the heat path: kelvins it costs now and fresh.</summary>
/// <param name="Layer">
/// <c>joint</c>, <c>fins</c>, <c>fan</c>, <c>served</c>, <c>hidden</c>, <c>conditions</c>, <c>room</c>, <c>unexplained</c>; the
/// last five may be negative.
/// </param>
public sealed record PathLayer(string Layer, double NowKelvin, double FreshKelvin);

/// <summary>The judgement of one part.</summary>
/// <param name="HottestRiseKelvin">
/// Rise over the air at reference heat and full fan: the rest of <c>hottestCelsius</c> is the zone's design ambient.
/// </param>
/// <param name="PaceKelvinPerDay">
/// Present pace of wear by the fitted curve, what the date is reckoned with; 0 without one.
/// </param>
/// <param name="UnexplainedKelvin">
/// What the newest readings show beyond the split and the room: with it, less what is hidden, the split adds up to what is
/// measured.
/// </param>
/// <param name="HiddenKelvin">How much of the split an automatic fan that nobody measures keeps from showing.</param>
/// <param name="GainKelvin">What the recommended service would win back on it.</param>
public sealed record PartAnswer(
    string Part,
    double LimitCelsius,
    JointMaterial Interface,
    double BaselineRiseKelvin,
    double PresentRiseKelvin,
    double DriftKelvin,
    double GainKelvin,
    double UncertaintyKelvin,
    IReadOnlyList<CauseKelvin> Split,
    double UnexplainedKelvin,
    double HiddenKelvin,
    IReadOnlyList<PathLayer> Path,
    double? LatestCelsius,
    double? AirCelsius,
    double HottestCelsius,
    double HottestRiseKelvin,
    double ActionLineCelsius,
    double MarginKelvin,
    TrendAnswer? Trend,
    double PaceKelvinPerDay,
    DateOnly? ActionDate,
    DateOnly? ActionDateEarly,
    DateOnly? ActionDateLate,
    IReadOnlyList<HistoryPoint> History
);

/// <summary>A sensor that was not believed.</summary>
/// <param name="Message">What it did, as template and values.</param>
public sealed record SensorAnswer(string Channel, string What, DateTimeOffset Since, int Readings, Message Message);

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
/// <param name="Warranty">What the maker's warranty means for the work advised; null where it means nothing.</param>
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
    JobResultAnswer? JobResult,
    ServiceNotMeasured? NotMeasured,
    WarrantyAnswer? Warranty
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
            [.. a.Parts.Select(p => Part(a, p))],
            Math.Round(a.Outside.Room, 2),
            Math.Round(a.Outside.Settings, 2),
            OrNull(a.AmbientNowC),
            [.. a.Steps.Select(s => new StepChange(s.Date, s.Part, Math.Round(s.Kelvin, 2), s.Kind))],
            [.. a.SensorFindings.Select(f => new SensorAnswer(f.Channel, f.What.ToString(), At(f.FromDay), f.Readings, f.What))],
            a.ServiceDue?.Level,
            a.ServiceDue?.Due,
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
            a.Result is { } result
                ? new JobResultAnswer(result.Job, result.Level, result.At, result.Outcome, result.ComplaintGone)
                : null,
            a.Unmeasured is { } service ? new ServiceNotMeasured(service.Level, service.Date, service.Job) : null,
            WarrantyAnswer.From(a.Warranty)
        );

    private static PartAnswer Part(Assessment a, PartAssessment p) =>
        new(
            p.Part.Name,
            p.Part.Limit.Value,
            p.Part.Joint,
            Math.Round(p.FreshRiseKelvin, 2),
            Math.Round(p.PresentRiseKelvin, 2),
            Math.Round(p.Split.Total, 2),
            a.Service is { } level ? Math.Round(a.Won(p, level), 2) : 0,
            Math.Round(2 * p.SigmaKelvin, 2),
            [
                .. p
                    .Split.Ranked()
                    .Where(c => c.Kelvin != 0)
                    .Select(c => new CauseKelvin(
                        c.Cause,
                        Math.Round(c.Kelvin, 2),
                        p.SplitSigma?.Of(c.Cause) is { } sigma && double.IsFinite(sigma) ? Math.Round(2 * sigma, 2) : null
                    )),
            ],
            Math.Round(p.UnexplainedKelvin, 2),
            Math.Round(p.HiddenKelvin, 2),
            PathOf(p),
            OrNull(p.LatestC),
            p.Path is { } path ? OrNull(path.AirC) : null,
            Math.Round(p.HottestC, 1),
            Math.Round(p.HottestRiseKelvin, 1),
            Math.Round(p.HottestC + p.MarginKelvin, 1),
            Math.Round(p.MarginKelvin, 2),
            p.Trend is { } t ? new TrendAnswer(t.KelvinPerDay, t.Low, t.High, t.PValue, t.IsRising, At(t.FromDay)) : null,
            p.PaceKelvinPerDay,
            p.Action?.Day,
            p.Action?.Early,
            p.Action?.Late,
            [
                .. p.History.Select(h => new HistoryPoint(
                    At(h.Day),
                    Math.Round(h.Observed, 2),
                    Math.Round(h.Room, 2),
                    Math.Round(h.Model, 2),
                    h.IsRun
                )),
            ]
        );

    /// <summary>
    /// The layers of the heat path; air and layers add up to what was measured, in the figures as they are written. Without a
    /// measured temperature the two that are always there, at the reference point.
    /// </summary>
    private static PathLayer[] PathOf(PartAssessment p)
    {
        if (p.Path is not { } path)
            return
            [
                new(
                    "joint",
                    Math.Round(p.FreshJointKelvin + p.Split.Joint + p.Split.Mount, 1),
                    Math.Round(p.FreshJointKelvin, 1)
                ),
                new(
                    "fins",
                    Math.Round(p.FreshRiseKelvin - p.FreshJointKelvin + p.Split.Dust, 1),
                    Math.Round(p.FreshRiseKelvin - p.FreshJointKelvin, 1)
                ),
            ];
        var explained = path
            .Layers.Where(l => l.Name != "unexplained")
            .Select(l => new PathLayer(l.Name, Math.Round(l.Kelvin, 1), Math.Round(l.FreshKelvin, 1)))
            .ToArray();
        var left = Math.Round(p.LatestC, 1) - Math.Round(path.AirC, 1) - explained.Sum(l => l.NowKelvin);
        return [.. explained, new PathLayer("unexplained", Math.Round(left, 1), 0)];
    }

    /// <summary>What was measured last: a run at the bench, or readings.</summary>
    internal static string? By(Assessment a) =>
        a.MeasuredDay is null ? null
        : a.MeasuredRun is null ? "readings"
        : "run";

    internal static DateTimeOffset? At(double? day) => day is { } known ? At(known) : null;

    private static DateTimeOffset At(double day) => DateTimeOffset.FromUnixTimeSeconds((long)Math.Round(day * 86400));

    private static double? OrNull(double value) => double.IsNaN(value) ? null : Math.Round(value, 1);
}
