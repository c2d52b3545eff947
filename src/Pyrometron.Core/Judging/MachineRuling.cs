using Pyrometron.Core.Assessments;
using Pyrometron.Core.Drift;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Intervals;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Priority;
using Pyrometron.Core.Units;
using Pyrometron.Core.Worth;

namespace Pyrometron.Core.Judging;

/// <summary>
/// What the rules that hold for a machine make of what it shows: how pressing it is, and what to do. Cheap: other rules are tried
/// over a whole fleet without reading anything again.
/// </summary>
internal sealed class MachineRuling
{
    /// <summary>A machine this near to its action line on a hot day is hot, K. Chosen on the practice fleets.</summary>
    private const double HotMarginKelvin = 2;

    /// <summary>What was measured longer ago than these days does not answer the calendar.</summary>
    private const int AnswersDays = 45;

    private readonly MachineFindings _findings;
    private readonly MachineFacts _machine;
    private readonly Asset _asset;
    private readonly DateOnly _asOf;
    private readonly JudgementPolicy _policy;

    private MachineRuling(MachineFindings findings, JudgementPolicy policy)
    {
        (_findings, _machine, _policy) = (findings, findings.Machine, policy);
        (_asset, _asOf) = (_machine.Asset, _machine.AsOf);
    }

    /// <summary>The judgement of a machine by the rules that hold for it.</summary>
    public static Assessment Of(MachineFindings findings, HouseRules rules) =>
        new MachineRuling(findings, rules.For(findings.Machine.Asset, findings.Site.Code)).Assess();

    private Assessment Assess()
    {
        var drawn = new Assessment(_asset, _asOf, _findings.Zone, _policy) { Findings = _findings };
        if (_machine.Failed)
            return drawn with { Urgency = Urgency.Unknown, Reason = Reasons.Failed };
        return Complete(WithStandingFan(_findings.Parts.Count == 0 ? Unknown(drawn) : Known(drawn)));
    }

    private Assessment Known(Assessment drawn)
    {
        PartAssessment[] parts = [.. _findings.Parts.Select(p => p.HeldAgainst(_policy.ActionMarginKelvin, _asOf))];
        var worst = parts.MaxBy(p => p.Split.Total)!;
        var worth = worst.Split.Total >= _policy.WorthKelvin;
        var action = parts.Where(p => p.Action is not null).Select(p => p.Action).MinBy(a => a!.Value.Day);
        var (symptoms, result) = (_machine.Symptoms, StandingResult(worst));
        var doubted = _machine.LookedSince(Implausible?.FromDay) ? null : Implausible;
        var atItsLimit = _machine.AtItsLimit && _findings.Unmeasured is null && Implausible is null;
        var winnable = new Winnable(
            worst.Split.Total,
            worst.SigmaKelvin,
            worst.PaceKelvinPerDay,
            NeedsWork.Chance(parts, _policy)
        );
        var due = Due(winnable);
        var judged = UrgencyRule.Of(winnable, atItsLimit, action, due, symptoms, _asOf, _policy);
        // Where nothing but a sensor speaks, it is looked at before anything is opened.
        var sensorFirst = doubted is not null && !worth && symptoms.Count == 0;
        var byCalendar =
            judged == Urgency.Soon
            && !sensorFirst
            && result is null
            && UrgencyRule.Of(winnable, atItsLimit, action, null, symptoms, _asOf, _policy) > Urgency.Soon;
        var startUnknown = _machine.RunsAlone && !_machine.HasFreshRun && !_findings.FreshFromSiblings;
        // No change since a start that nobody knows is no sign of health.
        var urgency = UrgencyRule.AfterJob(startUnknown && judged == Urgency.Fine ? Urgency.Unknown : judged, result);
        if (doubted is not null && urgency > Urgency.Soon)
            urgency = Urgency.Soon;
        // Asked where something is to win, and on a machine's own page.
        IReadOnlyList<LevelWorth> levels =
            worth || _findings.WithHistory ? (drawn with { Parts = parts }).Valuation!.Levels() : [];
        return drawn with
        {
            Urgency = urgency,
            Cause = worth ? worst.Split.Ranked().First().Cause : OutsideCause(parts.Min(p => p.MarginKelvin)),
            DriftKelvin = worst.Split.Total,
            Action = action,
            Service = sensorFirst ? ServiceLevel.Inspect : LevelFor(parts, levels, urgency, result, due),
            Measured = _findings.Channels,
            Reference = _findings.Reference,
            Parts = parts,
            Outside = _findings.Outside,
            AmbientNowC = _machine.Latest!.AirC,
            Steps = _findings.Steps,
            SensorFindings = _findings.Sensors,
            Events = _findings.Events,
            ServiceDue = due,
            ByCalendar = byCalendar,
            MeasuredDay = _machine.Latest.Day,
            MeasuredRun = _machine.Latest.Run,
            AtItsLimit = atItsLimit,
            Readings = _machine.Readings,
            Rhythm = _machine.Rhythm,
            Runs = _machine.Runs.Count,
            // What was reported or reached is not weighed: no run comes before it.
            Measure =
                urgency != Urgency.Soon ? null
                : doubted is not null ? DecidingRun.Beside(doubted)
                : DecidingRun.For(parts, symptoms, _policy),
            Symptoms = symptoms,
            RuledOut = _machine.RuledOut,
            Result = result,
            Unmeasured = _findings.Unmeasured,
            StartUnknown = startUnknown,
            Levels = levels,
            Operating = _findings.Operating,
            FanEnd = _findings.FanEnd,
        };
    }

    /// <summary>
    /// The judgement of a machine with too little measured: by the calendar where nothing was ever measured, by what people
    /// reported, and by a run that stood at its limit; else that nothing can be said, and what would help.
    /// </summary>
    private Assessment Unknown(Assessment drawn)
    {
        var symptoms = _machine.Symptoms;
        var due = ServiceIntervals.First(Asked(), _asOf);
        var byInterval = UrgencyRule.ByIntervalAlone(due, _asOf, _policy);
        var measured = _machine.Readings + _machine.Runs.Count > 0;
        var urgency =
            UrgencyRule.Of(symptoms)
            ?? (
                _machine.AtItsLimit ? Urgency.Soon
                // What little was measured does not answer the calendar.
                : measured && byInterval == Urgency.Next ? Urgency.Soon
                : byInterval
            );
        return drawn with
        {
            Urgency = urgency,
            Service =
                symptoms.Count > 0 || _machine.AtItsLimit ? ServiceLevel.Inspect
                : urgency is Urgency.Soon or Urgency.Next ? due?.Level
                : null,
            AmbientNowC = _machine.Latest?.AirC ?? double.NaN,
            SensorFindings = _findings.Sensors,
            ServiceDue = due,
            ByCalendar = symptoms.Count == 0 && !_machine.AtItsLimit && urgency is Urgency.Soon or Urgency.Next,
            MeasuredDay = _machine.NewestDay,
            MeasuredRun = _machine.Latest?.Run,
            AtItsLimit = _machine.AtItsLimit,
            Readings = _machine.Readings,
            Rhythm = _machine.Rhythm,
            Runs = _machine.Runs.Count,
            Symptoms = symptoms,
            Operating = _findings.Operating,
        };
    }

    /// <summary>The newest change of its readings that is more than wear does.</summary>
    private SensorFinding? Implausible => _findings.Sensors.LastOrDefault(s => s.Implausible is not null);

    /// <summary>All services that the calendar asks for.</summary>
    private IEnumerable<DueService> Asked() =>
        new ServiceIntervals(_asset, _findings.Site, _findings.Zone, _policy).Due(
            _asOf,
            _machine.NewestDay is { } day ? UnixDay.DateOf(day) : null,
            reports: _machine.Readings > 0 && MeasuredLately
        );

    private bool MeasuredLately =>
        _machine.NewestDay is { } day && _asOf.DayNumber - UnixDay.DateOf(day).DayNumber <= AnswersDays;

    /// <summary>
    /// What the calendar asks for first; where much was measured lately and next to nothing is to win, evidence answers it and it
    /// moves on. A house that goes by the calendar alone moves nothing; nor does a fan's age wait, since temperatures do not tell
    /// when a bearing fails.
    /// </summary>
    private DueService? Due(Winnable winnable)
    {
        var wellMeasured =
            _findings.Channels.Grade <= EvidenceGrade.C
            && _asOf.DayNumber - UnixDay.DateOf(_machine.Latest!.Day).DayNumber <= AnswersDays
            && _findings.Unmeasured is null
            && _machine.Symptoms.Count == 0;
        if (_policy.School == School.Calendar || !wellMeasured)
            return ServiceIntervals.First(Asked(), _asOf);
        var days = winnable.DaysBelow(_policy.WorthKelvin);
        return ServiceIntervals.First(
            Asked().Select(due => due.Level == ServiceLevel.FanSwap ? due : due.Until(_asOf, days)),
            _asOf
        );
    }

    /// <summary>A fan that stands under a full command is what is wrong, now, whatever else there is.</summary>
    private Assessment WithStandingFan(Assessment a) =>
        _machine.StandingFan is { } fan
            ? a with
            {
                StandingFan = fan,
                Urgency = Urgency.Now,
                Cause = Cause.Fan,
                Service = ServiceLevel.FanSwap,
            }
            : a;

    private static Assessment Complete(Assessment draft)
    {
        var timed = draft with
        {
            Minutes = draft.Service is { } level ? draft.Policy.Times.Of(draft.Asset, level).Minutes : null,
        };
        return timed with { Reason = Reasons.Of(timed), ToBeSurer = Reasons.ToBeSurer(timed) };
    }

    /// <summary>
    /// What to do: what cures, under the house's school; a look where something was seen that the temperatures do not explain.
    /// </summary>
    private ServiceLevel? LevelFor(
        PartAssessment[] parts,
        IReadOnlyList<LevelWorth> levels,
        Urgency urgency,
        JobResult? result,
        DueService? due
    )
    {
        if (Recommendation.LevelFor(_asset, parts, levels, _policy, _asOf) is { } level)
            // What was just proven to change nothing is not done again: look first.
            return WasInVain(level) ? ServiceLevel.Inspect : level;
        return _machine.Symptoms.Count > 0 || result is { Outcome: VerdictOutcome.Worse } ? ServiceLevel.Inspect
            : urgency == Urgency.Soon ? due?.Level
            : null;
    }

    /// <summary>Whether the last service, proven to have changed nothing, renewed all that a level would.</summary>
    private bool WasInVain(ServiceLevel level) =>
        _asset.Services.LastOrDefault(s => s.Level != ServiceLevel.Inspect) is { Proven: VerdictOutcome.NoChange } last
        && Enum.GetValues<Cause>().All(c => ServiceEffects.RemovedShare(level, c) <= last.Renewed.Of(c));

    /// <summary>
    /// How the newest job ended, as long as nothing answers it: a later service, or readings since that show nothing to win
    /// beyond doubt.
    /// </summary>
    private JobResult? StandingResult(PartAssessment worst)
    {
        if (_machine.History.Results.Count == 0)
            return null;
        var result = _machine.History.Results[^1];
        var done = UnixDay.Of(result.WorkDoneAt);
        if (_asset.Services.Any(s => s.Job != result.Job && s.Level != ServiceLevel.Inspect && s.Day > done))
            return null;
        return
            _findings.ReadingsSinceResult >= MachineFacts.LeastReadings
            && worst.Split.Total + 2 * worst.SigmaKelvin < _policy.MuchKelvin
            ? null
            : result;
    }

    /// <summary>What explains a warm machine that no service helps.</summary>
    private Cause OutsideCause(double margin) =>
        _findings.Outside.Notable
        ?? (
            Implausible is not null ? Cause.Sensor
            : margin <= HotMarginKelvin ? Cause.CoolerLimited
            : _findings.Sensors.Count > 0 ? Cause.Sensor
            : Cause.None
        );
}
