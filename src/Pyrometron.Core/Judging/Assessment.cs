using Pyrometron.Core.Assessments;
using Pyrometron.Core.Drift;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Forecast;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Worth;

namespace Pyrometron.Core.Judging;

/// <summary>The whole judgement of one machine.</summary>
/// <param name="DriftKelvin">What service could win back on the worst part, at the reference point; null when unknown.</param>
/// <param name="Service">The level that removes what is wrong; null where no service helps.</param>
/// <param name="AmbientNowC">Intake air of the newest readings, °C, or NaN.</param>
/// <param name="ServiceDue">When its interval is due by the calendar, with the level; null when nothing is.</param>
/// <param name="Symptoms">What people reported and no service has answered since.</param>
/// <param name="Reason">One sentence for the queue.</param>
/// <param name="ToBeSurer">What to measure to be surer; null when nothing would help.</param>
public sealed record Assessment(
    Asset Asset,
    DateOnly AsOf,
    Urgency Urgency,
    Cause Cause,
    double? DriftKelvin,
    ActionDate? Action,
    ServiceLevel? Service,
    int? Minutes,
    EvidenceGrade? Evidence,
    ReferencePoint? Reference,
    IReadOnlyList<PartAssessment> Parts,
    OutsideCauses Outside,
    double AmbientNowC,
    IReadOnlyList<StepFinding> Steps,
    IReadOnlyList<SensorFinding> SensorFindings,
    Intervals.DueService? ServiceDue,
    double? NewestReadingDay,
    int Readings,
    IReadOnlyList<Symptom> Symptoms,
    string Reason,
    string? ToBeSurer
)
{
    /// <summary>The longer explanation, put into words each time it is asked for: a fleet's machines are hardly ever asked. Empty before the judgement is complete.</summary>
    public IReadOnlyList<string> Sentences => Place is { } zone ? [.. Reasons.Sentences(this, zone)] : [];

    /// <summary>Where it stands.</summary>
    internal Zone? Place { get; init; }

    /// <summary>How it stands among its siblings; null with too few of them.</summary>
    public AmongSiblings? Siblings { get; init; }

    /// <summary>How long an automatic fan can go on hiding wear; null for a fixed fan, or one without a command.</summary>
    public FanEnd? FanEnd { get; init; }

    /// <summary>Where it works, to be compared with its siblings; null where nothing is known.</summary>
    internal OperatingRise? Operating { get; init; }

    /// <summary>What each level that opens or blows something would win, take and be worth; empty where a whole fleet was judged and there is nothing to win.</summary>
    public IReadOnlyList<LevelWorth> Levels { get; init; } = [];

    /// <summary>What the advised level is worth; null without one, or where nothing but the calendar or a report asks for it.</summary>
    public LevelWorth? Advised => Levels.FirstOrDefault(l => l.Level == Service);

    /// <summary>What a level would win on a part, K: by its split, as far as the fleet's proven jobs bear it out.</summary>
    public double Won(PartAssessment part, ServiceLevel level) => Policy.Proven.Won(Asset, part.Split, level);

    /// <summary>The rules it was judged by.</summary>
    public JudgementPolicy Policy { get; init; } = JudgementPolicy.Default;

    /// <summary>The part with most to win, or null without judged parts.</summary>
    public PartAssessment? WorstPart => Parts.MaxBy(p => p.Split.Total);

    /// <summary>The part nearest to its action line, or null without judged parts.</summary>
    public PartAssessment? LimitingPart => Parts.MinBy(p => p.MarginKelvin);
}
