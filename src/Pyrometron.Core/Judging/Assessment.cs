using Pyrometron.Core.Assessments;
using Pyrometron.Core.Drift;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Forecast;
using Pyrometron.Core.Intervals;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Priority;
using Pyrometron.Core.Worth;

namespace Pyrometron.Core.Judging;

/// <summary>The whole judgement of one machine.</summary>
/// <param name="AsOf">The day as whose end it was judged; later than the fleet's where it was worked on since.</param>
/// <param name="Zone">Where it stands.</param>
/// <param name="Policy">The rules it was judged by.</param>
public sealed record Assessment(Asset Asset, DateOnly AsOf, Zone Zone, JudgementPolicy Policy)
{
    /// <summary>What it shows, whatever the rules; null where it was made otherwise.</summary>
    internal MachineFindings? Findings { get; init; }

    /// <summary>How pressing work on it is.</summary>
    public Urgency Urgency { get; init; }

    /// <summary>What is wrong, most of all.</summary>
    public Cause Cause { get; init; } = Cause.None;

    /// <summary>What service could win back on the worst part, at the reference point; null when unknown.</summary>
    public double? DriftKelvin { get; init; }

    /// <summary>When the first part reaches its action line; null without a date.</summary>
    public ActionDate? Action { get; init; }

    /// <summary>The level that removes what is wrong; null where no service helps.</summary>
    public ServiceLevel? Service { get; init; }

    /// <summary>Bench time of that level.</summary>
    public int? Minutes { get; init; }

    /// <summary>What is measured of it; null when too little to judge by.</summary>
    public MeasuredChannels? Measured { get; init; }

    /// <summary>The grade of that; null when too little.</summary>
    public EvidenceGrade? Evidence => Measured?.Grade;

    /// <summary>The operating point it was compared at; null when unknown.</summary>
    public ReferencePoint? Reference { get; init; }

    /// <summary>The parts that could be judged.</summary>
    public IReadOnlyList<PartAssessment> Parts { get; init; } = [];

    /// <summary>What no service can remove.</summary>
    public OutsideCauses Outside { get; init; }

    /// <summary>Intake air when it was measured last, °C, or NaN.</summary>
    public double AmbientNowC { get; init; } = double.NaN;

    /// <summary>Sudden changes.</summary>
    public IReadOnlyList<StepFinding> Steps { get; init; } = [];

    /// <summary>Its fan, where that stands under a full command: before all else.</summary>
    public StandingFan? StandingFan { get; init; }

    /// <summary>Channels not believed.</summary>
    public IReadOnlyList<SensorFinding> SensorFindings { get; init; } = [];

    /// <summary>
    /// The newest change of readings that is more than wear does: taken for the sensor until somebody shows otherwise.
    /// </summary>
    public SensorFinding? DoubtedSensor => SensorFindings.LastOrDefault(f => f.Implausible is not null);

    /// <summary>When its interval is due by the calendar, with the level; null when nothing is.</summary>
    public DueService? ServiceDue { get; init; }

    /// <summary>Whether the house's school lets the calendar ask for a service.</summary>
    public bool Asks(DueService due) => due.Days > 0 && Policy.School is School.WhicheverFirst or School.Calendar;

    /// <summary>Whether the calendar alone asks for work: without it nothing would be asked yet.</summary>
    public bool ByCalendar { get; init; }

    /// <summary>
    /// The day by which the work advised is to be done: at once where it is pressing, else when its part reaches its action line
    /// or its interval is due; null without work, or without a date.
    /// </summary>
    public DateOnly? ActBy =>
        Service is null ? null
        : Urgency == Urgency.Now ? AsOf
        : (ByCalendar ? null : Action?.Day) ?? ServiceDue?.Due;

    /// <summary>When it was measured last, days since 1970; null when never.</summary>
    public double? MeasuredDay { get; init; }

    /// <summary>The run that was measured last; null where it was readings.</summary>
    public MeasuredRun? MeasuredRun { get; init; }

    /// <summary>Whether it throttled or stood at a limit when it was measured last.</summary>
    public bool AtItsLimit { get; init; }

    /// <summary>Number of readings.</summary>
    public int Readings { get; init; }

    /// <summary>How its readings come; null with too few to say.</summary>
    internal ReadingRhythm? Rhythm { get; init; }

    /// <summary>Its readings, where they used to come and have stopped.</summary>
    public Silence? Silence { get; init; }

    /// <summary>The run that would tell most, where this is the machine to make it on.</summary>
    public RunToMake? Measure { get; init; }

    /// <summary>What happened to all machines of its model on one day.</summary>
    public IReadOnlyList<GroupEvent> Events { get; init; } = [];

    /// <summary>Number of runs at the bench that count.</summary>
    public int Runs { get; init; }

    /// <summary>Reports and runs of failure that stand, newest first.</summary>
    public IReadOnlyList<Symptom> Symptoms { get; init; } = [];

    /// <summary>What somebody saw to be as it should be since its last service, the newest look of each cause.</summary>
    public IReadOnlyList<Look> RuledOut { get; init; } = [];

    /// <summary>How its newest job ended, while nothing was measured or done since that answers it.</summary>
    public JobResult? Result { get; init; }

    /// <summary>A service since it was measured last; null without one.</summary>
    public ServiceDone? Unmeasured { get; init; }

    /// <summary>Whether what it had gathered before it was measured first is not known.</summary>
    public bool StartUnknown { get; init; }

    /// <summary>One sentence or two for the queue.</summary>
    public Message Reason { get; init; } = Message.Of("Not judged yet.");

    /// <summary>What to measure to be surer; null when nothing would help.</summary>
    public Message? ToBeSurer { get; init; }

    /// <summary>
    /// The longer explanation, put into words each time it is asked for: a fleet's machines are hardly ever asked.
    /// </summary>
    public IReadOnlyList<Message> Sentences => [.. Explanation.Of(this)];

    /// <summary>What else it could be, each with what speaks for or against it; empty where too little was measured.</summary>
    public IReadOnlyList<Alternative> WhyNot => [.. Judging.WhyNot.Of(this)];

    /// <summary>How it stands among its siblings; null with too few of them.</summary>
    public AmongSiblings? Siblings { get; init; }

    /// <summary>How long an automatic fan can go on hiding wear; null for a fixed fan, or one without a command.</summary>
    public FanEnd? FanEnd { get; init; }

    /// <summary>Where it works, to be compared with its siblings; null where nothing is known.</summary>
    internal OperatingRise? Operating { get; init; }

    /// <summary>
    /// What each level that opens or blows something would win, take and be worth; empty where a whole fleet was judged and there
    /// is nothing to win.
    /// </summary>
    public IReadOnlyList<LevelWorth> Levels { get; init; } = [];

    /// <summary>Reckons what levels are worth on it; null where nothing was measured.</summary>
    internal LevelValuation? Valuation =>
        Findings is null || Parts.Count == 0
            ? null
            : new LevelValuation(Asset, Parts, Findings.Year, Findings.Fan, Findings.Machine.Symptoms, AsOf, Policy);

    /// <summary>
    /// What the advised level is worth; null without one, or where nothing but the calendar or a report asks for it.
    /// </summary>
    public LevelWorth? Advised => Levels.FirstOrDefault(l => l.Level == Service);

    /// <summary>What the maker's warranty means for the work advised; null where it means nothing.</summary>
    public WarrantyAdvice? Warranty => WarrantyAdvice.Of(this);

    /// <summary>What a level would win on a part, K: by its split, as far as the fleet's proven jobs bear it out.</summary>
    public double Won(PartAssessment part, ServiceLevel level) => Policy.Proven.Won(Asset, part.Split, level);

    /// <summary>
    /// The chance that it needs work: <see cref="Priority.NeedsWork"/>; null where nothing was measured that tells.
    /// </summary>
    public double? NeedsWorkProbability => Parts.Count == 0 ? null : NeedsWork.Chance(Parts, Policy);

    /// <summary>The part with most to win, or null without judged parts.</summary>
    public PartAssessment? WorstPart => Parts.MaxBy(p => p.Split.Total);

    /// <summary>The part nearest to its action line, or null without judged parts.</summary>
    public PartAssessment? LimitingPart => Parts.MinBy(p => p.MarginKelvin);
}
