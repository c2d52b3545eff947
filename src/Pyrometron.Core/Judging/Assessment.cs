using Pyrometron.Core.Causes;
using Pyrometron.Core.Drift;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Forecast;
using Pyrometron.Core.Priority;
using Pyrometron.Core.Worth;

namespace Pyrometron.Core.Judging;

/// <summary>The slow change of a part at its reference point.</summary>
/// <param name="KelvinPerDay">Theil–Sen slope.</param>
/// <param name="Low">Lower end of its 80 % interval.</param>
/// <param name="High">Upper end.</param>
/// <param name="PValue">Mann–Kendall, autocorrelation allowed for.</param>
/// <param name="FromDay">Start of the window, days since 1970.</param>
public readonly record struct Trend(double KelvinPerDay, double Low, double High, double PValue, double FromDay)
{
    /// <summary>Whether there is a rise at all.</summary>
    public bool IsRising => KelvinPerDay > 0 && PValue < 0.05;
}

/// <summary>One point of a part's history, brought to the reference point.</summary>
/// <param name="Day">Days since 1970.</param>
/// <param name="Observed">Rise over the intake at reference heat and fan, room not taken out, K.</param>
/// <param name="Room">What the room adds, K.</param>
/// <param name="Model">Rise by the fitted model, room not included, K.</param>
public readonly record struct DriftPoint(double Day, double Observed, double Room, double Model);

/// <summary>The judgement of one part.</summary>
/// <param name="FreshRiseKelvin">Rise at the reference point with everything fresh.</param>
/// <param name="FreshJointKelvin">The share of it between the part and its cooler.</param>
/// <param name="Split">What service could win back, by cause.</param>
/// <param name="SigmaKelvin">Standard uncertainty of the split's total.</param>
/// <param name="LatestC">Median of the newest readings under the main workload, °C, as measured.</param>
/// <param name="HottestC">Temperature at design ambient, reference power and full fan, °C.</param>
/// <param name="HottestRiseKelvin">The part of it over the air.</param>
/// <param name="MarginKelvin">From there to the action line; negative beyond it.</param>
/// <param name="PaceKelvinPerDay">Present pace of wear by the fitted curve; 0 below what a sound machine gathers.</param>
/// <param name="Action">When the line is reached, or null without a pace.</param>
public sealed record PartAssessment(
    Part Part,
    double FreshRiseKelvin,
    double FreshJointKelvin,
    CauseSplit Split,
    double SigmaKelvin,
    double LatestC,
    double HottestC,
    double HottestRiseKelvin,
    double MarginKelvin,
    Trend? Trend,
    double PaceKelvinPerDay,
    ActionDate? Action,
    IReadOnlyList<DriftPoint> History
)
{
    /// <summary>Rise at the reference point now by the causes found, room left out, K.</summary>
    public double PresentRiseKelvin => FreshRiseKelvin + Split.Total;

    /// <summary>Standard uncertainties of the split's causes, K; null where a whole fleet was judged.</summary>
    public CauseSplit? SplitSigma { get; init; }

    /// <summary>How much of the split an automatic fan that nobody measures keeps from showing, K.</summary>
    public double HiddenKelvin { get; init; }

    /// <summary>What the newest readings show beyond fresh rise, split and room, K: with it, less what is hidden, they add up to what is measured.</summary>
    public double UnexplainedKelvin { get; init; }

    /// <summary>Convective resistance with the fan at full speed, relative to the reference speed; 1 where speeds are unknown.</summary>
    internal double FullFanResistance { get; init; } = 1;

    /// <summary>What a level would win at full fan, K: dust and lost speed cost less there, and what an unseen fan hides does not show in <see cref="HottestC"/>.</summary>
    internal double WonAtFullFan(ServiceLevel level)
    {
        if (!(Split.Total > 0))
            return 0;
        var removed = Split.RemovedBy(level);
        return (removed.Joint + removed.Mount + (removed.Dust + removed.Fan) * FullFanResistance)
            * (1 - HiddenKelvin / Split.Total);
    }
}

/// <summary>What raises temperatures without any service being able to help, K.</summary>
/// <param name="Room">The zone's air beyond its sensors.</param>
/// <param name="Settings">More heat under the present settings than under earlier ones.</param>
public readonly record struct OutsideCauses(double Room, double Settings);

/// <summary>A sudden change in a machine's history.</summary>
/// <param name="Kind"><c>mount</c> where a cooler was lifted, <c>sensor</c> where a sensor jumped, <c>unexplained</c> where neither explains it.</param>
public sealed record StepFinding(DateOnly Date, string Part, double Kelvin, string Kind);

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

/// <summary>One zone's own drift over time.</summary>
public sealed record ZoneAssessment(string Zone, double NowKelvin, int Machines, IReadOnlyList<(int Bin, double Kelvin)> Bins);

/// <summary>All machines judged at once, most pressing first.</summary>
public sealed class FleetJudgement
{
    internal FleetJudgement(
        DateOnly asOf,
        JudgementPolicy policy,
        IReadOnlyList<Assessment> queue,
        IEnumerable<Assessment> alone,
        IReadOnlyDictionary<string, JudgedZone> zones,
        IReadOnlyDictionary<Siblings.Kin, Siblings.Known> siblings,
        SiblingComparison comparison
    )
    {
        (AsOf, Policy, Queue, JudgedZones, KnownSiblings, Comparison) = (asOf, policy, queue, zones, siblings, comparison);
        ByTag = queue.ToDictionary(a => a.Asset.Tag);
        Alone = alone.ToDictionary(a => a.Asset.Tag);
    }

    /// <summary>The day as whose end is judged.</summary>
    public DateOnly AsOf { get; }

    /// <summary>The rules that it was judged by.</summary>
    public JudgementPolicy Policy { get; }

    /// <summary>Every machine once, most pressing first.</summary>
    public IReadOnlyList<Assessment> Queue { get; }

    /// <summary>The machines' judgements by tag.</summary>
    public IReadOnlyDictionary<string, Assessment> ByTag { get; }

    /// <summary>Each zone's own drift.</summary>
    public IEnumerable<ZoneAssessment> Zones => JudgedZones.Values.Select(z => z.Assessment);

    /// <summary>The machines' judgements before they were held against their siblings, which are others every time.</summary>
    internal IReadOnlyDictionary<string, Assessment> Alone { get; }

    internal IReadOnlyDictionary<string, JudgedZone> JudgedZones { get; }

    internal IReadOnlyDictionary<Siblings.Kin, Siblings.Known> KnownSiblings { get; }

    internal SiblingComparison Comparison { get; }
}

/// <summary>What a zone's machines had in common, kept so that one of them can be judged again by itself.</summary>
internal sealed record JudgedZone(ZoneRoom Room, ZoneAir Air, ZoneAssessment Assessment);
