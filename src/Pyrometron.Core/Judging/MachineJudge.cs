using Pyrometron.Core.Assessments;
using Pyrometron.Core.Drift;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Forecast;
using Pyrometron.Core.Intervals;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Priority;
using Pyrometron.Core.Statistics;
using Pyrometron.Core.Units;
using Pyrometron.Core.Worth;

namespace Pyrometron.Core.Judging;

/// <summary>Reads one fitted machine: what is wrong, how pressing it is, and what to do.</summary>
internal sealed class MachineJudge(MachineFacts machine, WearModel model, Zone zone, ZoneRoom room, JudgementPolicy policy)
{
    /// <summary>A machine this near to its action line on a hot day is hot, K. Chosen on the practice fleets.</summary>
    private const double HotMarginKelvin = 2;

    /// <summary>What was measured longer ago than these days does not answer the calendar.</summary>
    private const int AnswersDays = 45;

    private readonly Asset _asset = machine.Asset;
    private readonly DateOnly _asOf = machine.AsOf;
    private readonly UnmeasuredServices _since = new(machine.Asset, model.LastDay, policy.Proven);

    private MeasuredChannels Channels => new(model.Reference.HasPower, model.Reference.FanSpeed > 0, machine.OwnAir);

    /// <summary>The whole judgement.</summary>
    /// <param name="scatter">
    /// How sure each part's causes are: then every part's past is told too. For one machine's page; null for a whole fleet.
    /// </param>
    public Assessment Assess(WearScatter[]? scatter)
    {
        var judge = new PartJudge(machine, model, zone, room, Channels.Grade, policy);
        if (judge.Measured.Count == 0 || !(machine.IsKnown || model.FreshFromSiblings))
            return Unknown(machine, zone, policy);
        var parts = judge.Measured.Select(p => judge.Judge(p, scatter?[p])).ToArray();
        var worst = parts.MaxBy(p => p.Split.Total)!;
        var worth = worst.Split.Total >= policy.WorthKelvin;
        var action = parts.Where(p => p.Action is not null).Select(p => p.Action).MinBy(a => a!.Value.Day);
        var (symptoms, result) = (machine.Symptoms, StandingResult(worst));
        var atItsLimit = machine.AtItsLimit && _since.Newest is null;
        var winnable = new Winnable(
            worst.Split.Total,
            worst.SigmaKelvin,
            worst.PaceKelvinPerDay,
            NeedsWork.Chance(parts, policy)
        );
        var due = Due(winnable);
        var judged = UrgencyRule.Of(winnable, atItsLimit, action, due, symptoms, _asOf, policy);
        var byCalendar =
            judged == Urgency.Soon
            && result is null
            && UrgencyRule.Of(winnable, atItsLimit, action, null, symptoms, _asOf, policy) > Urgency.Soon;
        var startUnknown = machine.RunsAlone && !machine.HasFreshRun && !model.FreshFromSiblings;
        // No change since a start that nobody knows is no sign of health.
        var urgency = UrgencyRule.AfterJob(startUnknown && judged == Urgency.Fine ? Urgency.Unknown : judged, result);
        var outside = new OutsideCauses(judge.RoomNow, SettingsNow(judge.Measured));
        var findings = machine
            .Findings.Concat(model.SensorSteps.Select(s => SensorFinding.Jumped(_asset.Parts[s.Part].Name, s.Day)))
            .ToArray();
        // Asked where something is to win, and on a machine's own page.
        IReadOnlyList<LevelWorth> levels =
            worth || scatter is not null
                ? new LevelValuation(
                    _asset,
                    parts,
                    YearAhead.Of(model.Cells),
                    FanAtWork.Of(model, worst),
                    symptoms,
                    _asOf,
                    policy
                ).Levels()
                : [];
        var draft = new Assessment(_asset, _asOf, zone, policy)
        {
            Urgency = urgency,
            Cause = worth ? worst.Split.Ranked().First().Cause : OutsideCause(outside, parts.Min(p => p.MarginKelvin), findings),
            DriftKelvin = worst.Split.Total,
            Action = action,
            Service = LevelFor(parts, levels, urgency, result, due),
            Measured = Channels,
            Reference = model.Reference,
            Parts = parts,
            Outside = outside,
            AmbientNowC = machine.Latest!.AirC,
            Steps = [.. StepSearch.Of(_asset, model, room, scatter is not null ? judge.Measured : [])],
            SensorFindings = findings,
            Events = model.Events,
            ServiceDue = due,
            ByCalendar = byCalendar,
            MeasuredDay = machine.Latest.Day,
            MeasuredRun = machine.Latest.Run,
            AtItsLimit = atItsLimit,
            Readings = machine.Readings,
            Rhythm = machine.Rhythm,
            Runs = machine.Runs.Count,
            // What was reported or reached is not weighed: no run comes before it.
            Measure = urgency == Urgency.Soon ? DecidingRun.For(parts, symptoms, policy) : null,
            Symptoms = symptoms,
            RuledOut = machine.RuledOut,
            Result = result,
            Unmeasured = _since.Newest,
            StartUnknown = startUnknown,
            Levels = levels,
            Operating = Operating(parts),
            FanEnd = model.Reference.FanFixed
                ? null
                : FanEnd.Of(
                    _asOf,
                    model.Reference.FanPct,
                    machine.Latest.FanPct,
                    worst.FreshRiseKelvin - worst.FreshJointKelvin + worst.Split.Dust,
                    parts.Max(p => p.PaceKelvinPerDay)
                ),
        };
        return Complete(WithStandingFan(draft, machine));
    }

    /// <summary>
    /// What the calendar asks for first; where much was measured lately and next to nothing is to win, evidence answers it and it
    /// moves on. A house that goes by the calendar alone moves nothing.
    /// </summary>
    private DueService? Due(Winnable winnable)
    {
        var asked = ServiceIntervals.All(_asset, zone.Dust, _asOf);
        var wellMeasured =
            Channels.Grade <= EvidenceGrade.C
            && _asOf.DayNumber - UnixDay.DateOf(machine.Latest!.Day).DayNumber <= AnswersDays
            && _since.Newest is null
            && machine.Symptoms.Count == 0;
        if (policy.School == School.Calendar || !wellMeasured)
            return ServiceIntervals.First(asked);
        var days = winnable.DaysBelow(policy.WorthKelvin);
        return ServiceIntervals.First(asked.Select(due => due.Until(_asOf, days)));
    }

    /// <summary>A fan that stands under a full command is what is wrong, now, whatever else there is.</summary>
    private static Assessment WithStandingFan(Assessment a, MachineFacts machine) =>
        machine.StandingFan is { } fan
            ? a with
            {
                StandingFan = fan,
                Urgency = Urgency.Now,
                Cause = Cause.Fan,
                Service = ServiceLevel.FanSwap,
            }
            : a;

    /// <summary>
    /// The judgement of a machine with too little measured: by the calendar where nothing was ever measured, by what people
    /// reported, and by a run that stood at its limit; else that nothing can be said, and what would help.
    /// </summary>
    public static Assessment Unknown(MachineFacts machine, Zone zone, JudgementPolicy policy)
    {
        if (machine.Failed)
            return new Assessment(machine.Asset, machine.AsOf, zone, policy)
            {
                Urgency = Urgency.Unknown,
                AmbientNowC = double.NaN,
                Reason = Reasons.Failed,
            };
        var (asset, asOf, symptoms) = (machine.Asset, machine.AsOf, machine.Symptoms);
        var due = ServiceIntervals.FirstDue(asset, zone.Dust, asOf);
        var byInterval = UrgencyRule.ByIntervalAlone(due, asOf, policy);
        var measured = machine.Readings + machine.Runs.Count > 0;
        var urgency =
            UrgencyRule.Of(symptoms)
            ?? (
                machine.AtItsLimit ? Urgency.Soon
                // What little was measured does not answer the calendar.
                : measured && byInterval == Urgency.Next ? Urgency.Soon
                : byInterval
            );
        return Complete(
            WithStandingFan(
                new Assessment(asset, asOf, zone, policy)
                {
                    Urgency = urgency,
                    Service =
                        symptoms.Count > 0 || machine.AtItsLimit ? ServiceLevel.Inspect
                        : urgency is Urgency.Soon or Urgency.Next ? due?.Level
                        : null,
                    AmbientNowC = machine.Latest?.AirC ?? double.NaN,
                    SensorFindings = machine.Findings,
                    ServiceDue = due,
                    ByCalendar = symptoms.Count == 0 && !machine.AtItsLimit && urgency is Urgency.Soon or Urgency.Next,
                    MeasuredDay = machine.NewestDay,
                    MeasuredRun = machine.Latest?.Run,
                    AtItsLimit = machine.AtItsLimit,
                    Readings = machine.Readings,
                    Rhythm = machine.Rhythm,
                    Runs = machine.Runs.Count,
                    Symptoms = symptoms,
                    Operating = machine.Operating,
                },
                machine
            )
        );
    }

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
        if (Recommendation.LevelFor(_asset, parts, levels, policy, _asOf) is { } level)
            // What was just proven to change nothing is not done again: look first.
            return WasInVain(level) ? ServiceLevel.Inspect : level;
        return machine.Symptoms.Count > 0 || result is { Outcome: VerdictOutcome.Worse } ? ServiceLevel.Inspect
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
        if (machine.History.Results.Count == 0)
            return null;
        var result = machine.History.Results[^1];
        var done = UnixDay.Of(result.WorkDoneAt);
        if (_asset.Services.Any(s => s.Job != result.Job && s.Level != ServiceLevel.Inspect && s.Day > done))
            return null;
        var readings = model.Cells.OfReadings.Where(c => c.Day > UnixDay.Of(result.At)).Sum(c => c.Count);
        return readings >= MachineFacts.LeastReadings && worst.Split.Total + 2 * worst.SigmaKelvin < policy.MuchKelvin
            ? null
            : result;
    }

    private OperatingRise Operating(PartAssessment[] judged)
    {
        var (rise, air) = (new double[_asset.Parts.Count], new double[_asset.Parts.Count]);
        Array.Fill(rise, double.NaN);
        foreach (var part in judged)
        {
            var p = _asset.Parts.TakeWhile(x => x != part.Part).Count();
            (rise[p], air[p]) = (
                part.PresentRiseKelvin,
                (part.FreshRiseKelvin - part.FreshJointKelvin + part.Split.Dust) / part.PresentRiseKelvin
            );
        }
        return new OperatingRise(
            model.Reference.PowerW,
            model.Reference.HasPower,
            model.Reference.FanSpeed,
            model.Reference.SpeedIsRpm,
            rise,
            air
        );
    }

    /// <summary>What explains a warm machine that no service helps.</summary>
    private static Cause OutsideCause(OutsideCauses outside, double margin, SensorFinding[] findings) =>
        outside.Notable
        ?? (
            margin <= HotMarginKelvin ? Cause.CoolerLimited
            : findings.Length > 0 ? Cause.Sensor
            : Cause.None
        );

    /// <summary>Kelvins that more heat or other settings add against the settings before.</summary>
    private double SettingsNow(IReadOnlyList<int> measured)
    {
        var reference = model.Reference;
        var before = model.Cells.OfReadings.Select(c => c.Settings).LastOrDefault(s => s != reference.Settings && s >= 0, -1);
        if (before < 0)
            return 0;
        if (!reference.HasPower)
            return -measured.Select(p => model.SettingsOffset(p, before)).DefaultIfEmpty(0).MinBy(k => -Math.Abs(k));
        var earlier = model
            .Cells.OfReadings.Where(c => c.Settings == before && c.Workload == reference.Workload)
            .Select(c => c.Heat)
            .ToArray();
        return earlier.Length == 0 ? 0 : measured.Select(model.FreshRise).DefaultIfEmpty(0).Max() * (1 - Robust.Median(earlier));
    }
}
