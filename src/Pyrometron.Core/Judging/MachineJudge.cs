using Pyrometron.Core.Assessments;
using Pyrometron.Core.Causes;
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

/// <summary>Reads one fitted machine: parts, split, trend, forecast, evidence, and what to do.</summary>
internal sealed class MachineJudge(
    MachineFacts machine,
    WearModel model,
    Zone zone,
    ZoneRoom room,
    DateOnly asOf,
    JudgementPolicy policy
)
{
    /// <summary>Window in which a pace of wear is taken, days.</summary>
    private const double TrendDays = 130;

    private const double RecentDays = 14;

    /// <summary>How well the reference point, the fan's law and the air side are known that a wear is brought to, as a share of it.</summary>
    private const double ScaleShare = 0.12;

    /// <summary>Fewer readings than this cannot tell wear from chance.</summary>
    public const int LeastReadings = 5;

    private readonly Asset asset = machine.Asset;
    private readonly bool[] _hasData =
    [
        .. Enumerable.Range(0, model.Cells.Parts).Select(p => model.Cells.All.Count(c => !double.IsNaN(c.Rise(p))) >= 3),
    ];
    private readonly double _last = model.LastDay;
    private readonly FanHealth _fan = FanHealth.Of(model.Cells, LastServed(machine.Asset, Cause.Fan, asOf));

    /// <summary>The whole judgement.</summary>
    /// <param name="scatter">
    /// How sure each part's fouling, joint and mount are: then every part's past is told too. For one machine's page; null for a
    /// whole fleet.
    /// </param>
    public Assessment Assess((double Shared, double Own, double Mount)[]? scatter)
    {
        var withHistory = scatter is not null;
        var parts = Enumerable.Range(0, asset.Parts.Count).Where(HasData).Select(p => Judge(p, scatter)).ToArray();
        if (parts.Length == 0 || machine.Readings < LeastReadings)
            return Unknown(machine, zone, asOf, policy);
        var due = ServiceIntervals.FirstDue(asset, zone.Dust, asOf);
        var worst = parts.MaxBy(p => p.Split.Total)!;
        var limiting = parts.MinBy(p => p.MarginKelvin)!;
        var winnable = worst.Split.Total;
        var worth = winnable >= policy.WorthKelvin;
        var action = parts.Where(p => p.Action is not null).Select(p => p.Action).MinBy(a => a!.Value.Day);
        var symptoms = Symptom.Standing(machine.Symptoms, asset, asOf);
        var urgency = UrgencyRule.Of(
            new Winnable(winnable, worst.SigmaKelvin, worst.PaceKelvinPerDay),
            machine.AtItsLimit,
            action,
            due,
            symptoms,
            asOf,
            policy
        );
        var outside = new OutsideCauses(RoomNow, SettingsNow);
        var findings = machine
            .Findings.Concat(
                model.SensorSteps.Select(s => new SensorFinding(
                    asset.Parts[s.Part].Name,
                    "jumped from one day to the next, alone",
                    s.Day,
                    0
                ))
            )
            .ToArray();
        var cause = worth ? worst.Split.Ranked().First().Cause : OutsideCause(outside, limiting.MarginKelvin, findings);
        // Asked where something is to win, and on a machine's own page.
        IReadOnlyList<LevelWorth> levels =
            worth || withHistory
                ? new LevelValuation(
                    asset,
                    parts,
                    YearAhead.Of(model.Cells),
                    FanAtWork.Of(model, worst),
                    symptoms,
                    asOf,
                    policy
                ).Levels()
                : [];
        var service =
            worth ? Recommendation.LevelFor(asset, parts, levels, policy, asOf)
            // Somebody saw something that the temperatures do not explain: look inside before anything is replaced.
            : symptoms.Count > 0 ? ServiceLevel.Inspect
            : urgency == Urgency.Soon ? due?.Level
            : null;
        var draft = new Assessment(
            asset,
            asOf,
            urgency,
            cause,
            winnable,
            action,
            service,
            service is { } level ? policy.Times.Of(asset, level).Minutes : null,
            Evidence,
            model.Reference,
            parts,
            outside,
            AmbientNow,
            [
                .. StepSearch.Of(
                    asset,
                    model,
                    room,
                    unexplained: [.. Enumerable.Range(0, withHistory ? asset.Parts.Count : 0).Where(HasData)]
                ),
            ],
            findings,
            due,
            machine.NewestDay,
            machine.Readings,
            symptoms,
            "",
            null
        )
        {
            Policy = policy,
            Levels = levels,
            Operating = Operating(parts),
            FanEnd = model.Reference.FanFixed
                ? null
                : FanEnd.Of(
                    asOf,
                    model.Reference.FanPct,
                    machine.LatestFanPct,
                    worst.FreshRiseKelvin - worst.FreshJointKelvin + worst.Split.Dust,
                    parts.Max(p => p.PaceKelvinPerDay)
                ),
        };
        return Reasons.Complete(draft, zone);
    }

    /// <summary>The judgement of a machine with too few readings: that nothing can be said, and what would help. A symptom speaks for itself.</summary>
    public static Assessment Unknown(MachineFacts machine, Zone zone, DateOnly asOf, JudgementPolicy policy)
    {
        var symptoms = Symptom.Standing(machine.Symptoms, machine.Asset, asOf);
        ServiceLevel? service = symptoms.Count > 0 ? ServiceLevel.Inspect : null;
        return Reasons.Complete(
            new Assessment(
                machine.Asset,
                asOf,
                UrgencyRule.Of(symptoms) ?? Urgency.Unknown,
                Cause.None,
                null,
                null,
                service,
                service is { } level ? policy.Times.Of(machine.Asset, level).Minutes : null,
                null,
                null,
                [],
                default,
                double.NaN,
                [],
                machine.Findings,
                ServiceIntervals.FirstDue(machine.Asset, zone.Dust, asOf),
                machine.NewestDay,
                machine.Readings,
                symptoms,
                "",
                null
            )
            {
                Operating = machine.Operating,
            },
            zone
        );
    }

    private OperatingRise Operating(PartAssessment[] judged)
    {
        var (rise, air) = (new double[asset.Parts.Count], new double[asset.Parts.Count]);
        Array.Fill(rise, double.NaN);
        foreach (var part in judged)
        {
            var p = asset.Parts.TakeWhile(x => x != part.Part).Count();
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

    /// <summary>What explains a warm machine that no service helps, largest first.</summary>
    private static Cause OutsideCause(OutsideCauses outside, double margin, SensorFinding[] findings)
    {
        const double notable = 2;
        var (air, settings) = (outside.Room, outside.Settings);
        if (air >= notable && air >= settings)
            return Cause.Room;
        if (settings >= notable)
            return Cause.Settings;
        if (margin <= 2)
            return Cause.CoolerLimited;
        return findings.Length > 0 ? Cause.Sensor : Cause.None;
    }

    private EvidenceGrade Evidence =>
        (model.Reference.HasPower, model.Reference.FanSpeed > 0, machine.OwnAir) switch
        {
            (true, true, true) => EvidenceGrade.A,
            (true, _, _) => EvidenceGrade.B,
            (false, true, true) => EvidenceGrade.C,
            (false, _, true) or (false, true, _) => EvidenceGrade.D,
            _ => EvidenceGrade.E,
        };

    /// <summary>What the room adds at present, K.</summary>
    private double RoomNow
    {
        get
        {
            var recent = Enumerable.Range(0, 4).Select(b => Cell.BinOf(_last) - b).Select(room.At).Where(k => k != 0).ToArray();
            return recent.Length == 0 ? 0 : Robust.Median(recent);
        }
    }

    /// <summary>Kelvins that more heat or other settings add against the settings before.</summary>
    private double SettingsNow
    {
        get
        {
            var reference = model.Reference;
            var before = model.Cells.All.Select(c => c.Settings).LastOrDefault(s => s != reference.Settings && s >= 0, -1);
            if (before < 0)
                return 0;
            var hottest = Enumerable
                .Range(0, asset.Parts.Count)
                .Where(HasData)
                .Select(p => model.FreshRise(p))
                .DefaultIfEmpty(0)
                .Max();
            var earlier = model
                .Cells.All.Where(c => c.Settings == before && c.Workload == reference.Workload)
                .Select(c => c.Heat)
                .ToArray();
            if (reference.HasPower)
                return earlier.Length == 0 ? 0 : hottest * (1 - Robust.Median(earlier));
            return -Enumerable
                .Range(0, asset.Parts.Count)
                .Where(HasData)
                .Select(p => model.SettingsOffset(p, before))
                .DefaultIfEmpty(0)
                .MinBy(k => -Math.Abs(k));
        }
    }

    /// <summary>Intake air of the newest readings, °C.</summary>
    private double AmbientNow =>
        Robust.Median(model.Cells.All.Where(c => c.Day > _last - RecentDays).Select(c => c.AmbientC).ToArray());

    private bool HasData(int part) => _hasData[part];

    private PartAssessment Judge(int p, (double Shared, double Own, double Mount)[]? scatter)
    {
        var fan = FanCost(p);
        var shown = new CauseSplit(
            Left(Cause.Dust) * model.At(WearTerm.Shared, p, _last),
            Left(JointCause(p)) * model.At(WearTerm.Own, p, _last),
            fan.Kelvin,
            Left(Cause.Mount) * model.At(WearTerm.Mount, p, _last),
            asset.Parts[p].Joint
        );
        var trend = TrendOf(p);
        // What shows is what an unseen fan leaves; at full fan it hides nothing more, and it may be there already.
        var split = shown.Times(1 / model.ShownByUnseenFan);
        var sigma = SigmaOf(p, split.Total);
        var hottestRise = RiseAtFullFan(p, shown);
        var hottest = zone.DesignAmbient.Value + hottestRise;
        var margin = asset.Parts[p].Limit.Value - policy.ActionMarginKelvin - hottest;
        var rate = Pace(p) + fan.PerDay;
        var rateSigma = trend is { } spread ? (spread.High - spread.Low) / (2 * 1.2816) : 0;
        return new PartAssessment(
            asset.Parts[p],
            model.FreshRise(p),
            model.At(WearTerm.Joint, p, 0),
            split,
            sigma,
            machine.LatestC[p],
            hottest,
            hottestRise,
            margin,
            trend,
            rate,
            ActionForecast.Of(asOf, margin, sigma, rate, rateSigma),
            scatter is null ? [] : History(p)
        )
        {
            SplitSigma = scatter is null ? null : SigmasOf(p, split, scatter[p]),
            UnexplainedKelvin = UnexplainedNow(p),
            HiddenKelvin = split.Total - shown.Total,
            FullFanResistance = FullFanResistance,
        };
    }

    /// <summary>
    /// The share of a cause that services after the newest reading have left: the readings no longer speak of it. A renewal is believed
    /// to have done it all until readings say otherwise; one that eases leaves what such services leave.
    /// </summary>
    private double Left(Cause cause) =>
        asset
            .Services.Where(s => s.Date <= asOf && UnixDay.Noon(s.Date) > _last)
            .Aggregate(
                1.0,
                (left, s) => ServiceEffects.Renews(s.Level, cause) ? 0 : left * (1 - ServiceEffects.RemovedShare(s.Level, cause))
            );

    /// <summary>When a service last took some of a cause away, or minus infinity.</summary>
    private static double LastServed(Asset asset, Cause cause, DateOnly asOf) =>
        asset
            .Services.Where(s => s.Date <= asOf && ServiceEffects.RemovedShare(s.Level, cause) > 0)
            .Select(s => UnixDay.Noon(s.Date))
            .DefaultIfEmpty(double.NegativeInfinity)
            .Max();

    /// <summary>What the fan's lost speed costs a part, K, and what it costs more every day.</summary>
    private (double Kelvin, double PerDay) FanCost(int p)
    {
        if (_fan.SpeedShare >= 1 || Left(Cause.Fan) == 0)
            return default;
        var air = model.At(WearTerm.Air, p, 0) + model.At(WearTerm.Shared, p, _last);
        var resistance = FanLaw.RelativeResistance(_fan.SpeedShare, 1);
        return (air * (resistance - 1), air * resistance * FanLaw.Exponent * _fan.LostPerDay / _fan.SpeedShare);
    }

    private double RiseAtFullFan(int p, CauseSplit split)
    {
        var air = model.At(WearTerm.Air, p, 0) + split.Dust;
        return model.At(WearTerm.Joint, p, 0) + split.Joint + split.Mount + (air + split.Fan) * FullFanResistance;
    }

    private double FullFanResistance =>
        model.Reference.FanSpeed > 0 ? FanLaw.RelativeResistance(model.Reference.FullSpeed, model.Reference.FanSpeed) : 1;

    private Trend? TrendOf(int p)
    {
        // A pace is taken since the last service that renewed anything on this part: before it other wear was growing.
        var from = new[] { _last - TrendDays, LastServed(asset, Cause.Dust, asOf), LastServed(asset, JointCause(p), asOf) }.Max();
        var points = Observed(p, from).ToArray();
        if (points.Length < 8 || points[^1].Day - points[0].Day < 25)
            return null;
        var days = points.Select(o => o.Day).ToArray();
        var values = points.Select(o => Math.Round(o.Value, 2)).ToArray();
        if (TheilSen.Fit(days, values, 0.8) is not { } line)
            return null;
        var test = MannKendall.Test(days, values, MannKendall.YueWangFactor(days, values));
        return new Trend(line.Slope, line.Low, line.High, test.P, points[0].Day);
    }

    private IEnumerable<(double Day, double Value)> Observed(int p, double after)
    {
        for (var c = 0; c < model.Cells.Count; c++)
            if (
                model.Cells[c].Day > after
                && model.Cells[c].Workload == model.Reference.Workload
                && !double.IsNaN(model.Cells[c].Rise(p))
            )
                yield return (model.Cells[c].Day, model.AtReference(c, p, room.At(model.Cells[c].Bin)));
    }

    private List<DriftPoint> History(int p)
    {
        var points = new List<DriftPoint>();
        for (var c = 0; c < model.Cells.Count; c++)
        {
            var cell = model.Cells[c];
            if (double.IsNaN(cell.Rise(p)) || (cell.Workload != model.Reference.Workload && cell.Heat < 0.5))
                continue;
            var outside = room.At(cell.Bin);
            var fitted =
                model.FreshRise(p)
                + model.At(WearTerm.Shared, p, cell.Day)
                + model.At(WearTerm.Own, p, cell.Day)
                + model.At(WearTerm.Mount, p, cell.Day);
            points.Add(new DriftPoint(cell.Day, model.AtReference(c, p, outside) + outside, outside, fitted));
        }
        return points;
    }

    /// <summary>
    /// The present pace of wear by the fitted curve, K a day: over eighty days, or since the last service that renewed
    /// anything. Zero, and so no date, below what a sound machine gathers.
    /// </summary>
    private double Pace(int p)
    {
        const double days = 80,
            leastDays = 20,
            leastPace = 3 / 365.25;
        var renewed = Math.Max(LastServed(asset, Cause.Dust, asOf), LastServed(asset, JointCause(p), asOf));
        var from = Math.Max(_last - days, renewed + 0.01);
        var pace = _last - from < leastDays ? 0 : (model.Grown(p, _last) - model.Grown(p, from)) / (_last - from);
        return pace > leastPace ? pace : 0;
    }

    private Cause JointCause(int p) => asset.Parts[p].Joint == JointMaterial.Pad ? Cause.Pads : Cause.Paste;

    /// <summary>What the newest cells show beyond everything that was found, K at the reference point: no cause explains it, or none for long enough.</summary>
    private double UnexplainedNow(int p)
    {
        var recent = Observed(p, _last - RecentDays)
            .Select(o => o.Value - model.FreshRise(p) - model.Grown(p, o.Day) - model.At(WearTerm.Mount, p, o.Day))
            .ToArray();
        return recent.Length == 0 ? 0 : Robust.Median(recent);
    }

    /// <summary>Standard uncertainties of a part's causes: the readings' scatter, the scale, and for the fan a hundredth of its speed.</summary>
    private CauseSplit SigmasOf(int p, CauseSplit split, (double Shared, double Own, double Mount) scatter)
    {
        double With(double found, double kelvin) =>
            Math.Sqrt(Math.Pow(found / model.ShownByUnseenFan, 2) + Math.Pow(ScaleShare * kelvin, 2));
        var fan = split.Fan == 0 ? 0 : With(0.01 * FanLaw.Exponent * model.At(WearTerm.Air, p, 0), split.Fan);
        return new CauseSplit(
            With(scatter.Shared, split.Dust),
            With(scatter.Own, split.Joint),
            fan,
            With(scatter.Mount, split.Mount),
            split.Material
        );
    }

    /// <summary>Standard uncertainty of the wear: scatter and seasons about the model, its scale, and what is not measured.</summary>
    private double SigmaOf(int p, double total)
    {
        var (scatter, scale) = (model.SigmaOf(p) / model.ShownByUnseenFan, ScaleShare * total);
        var notMeasured = Evidence switch
        {
            EvidenceGrade.A => 0.5,
            EvidenceGrade.B => 0.7,
            EvidenceGrade.C => 1.0,
            EvidenceGrade.D => 1.5,
            _ => 2.5,
        };
        return Math.Sqrt(scatter * scatter + scale * scale + notMeasured * notMeasured);
    }
}
