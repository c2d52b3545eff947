using Pyrometron.Core.Assessments;
using Pyrometron.Core.Causes;
using Pyrometron.Core.Cooling;
using Pyrometron.Core.Drift;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Judging;

/// <summary>
/// Reads the parts of one fitted machine: split over the causes, trend, forecast, and the heat path of what was measured last.
/// </summary>
internal sealed class PartJudge(
    MachineFacts machine,
    WearModel model,
    Zone zone,
    ZoneRoom room,
    EvidenceGrade evidence,
    UnmeasuredServices since
)
{
    /// <summary>Window in which a trend is taken, days. Chosen on the practice fleets.</summary>
    private const double TrendDays = 130;

    /// <summary>
    /// Relative standard uncertainty of bringing a wear to the reference point: fan law, air side, heat. Chosen on the practice
    /// fleets.
    /// </summary>
    private const double ScaleShare = 0.12;

    /// <summary>
    /// Share of what the room adds that may be its machines' own, or the other way round. Chosen on invented fleets.
    /// </summary>
    private const double RoomShare = 0.3;

    /// <summary>Cells of readings that a part needs to be judged.</summary>
    private const int LeastCells = 3;

    private readonly Asset _asset = machine.Asset;
    private readonly double _last = model.LastDay;
    private readonly FanHealth _fan = FanHealth.Of(model.Cells, MachineFacts.LastServed(machine.Asset, Cause.Fan));
    private readonly int[] _now = CellsOfNow(machine.Latest, model);

    /// <summary>The parts that were measured often enough, by their index.</summary>
    public IReadOnlyList<int> Measured { get; } =
    [
        .. Enumerable
            .Range(0, model.Cells.Parts)
            .Where(p =>
                model.Cells.All.Any(c => c.IsRun && !double.IsNaN(c.Rise(p)))
                || model.Cells.All.Count(c => !double.IsNaN(c.Rise(p))) >= LeastCells
            ),
    ];

    /// <summary>What the zone's room adds at present, K; 0 where the air was read at the machine.</summary>
    public double RoomNow
    {
        get
        {
            if (machine.Latest?.Run is not null)
                return 0;
            var recent = Enumerable.Range(0, 4).Select(b => Cell.BinOf(_last) - b).Select(room.At).Where(k => k != 0).ToArray();
            return recent.Length == 0 ? 0 : Robust.Median(recent);
        }
    }

    /// <summary>The judgement of a part, its action line at its limit.</summary>
    /// <param name="scatter">How sure its causes are: then its past is told too. Null for a whole fleet.</param>
    public PartAssessment Judge(int p, WearScatter? scatter)
    {
        var measured = Shown(p, _ => 1);
        var left = Shown(p, since.Left);
        var trend = TrendOf(p);
        // What shows is what an unseen fan leaves; at full fan it hides nothing more, and it may be there already.
        var visible = model.ShownByUnseenFan;
        var (split, before) = (left.Times(1 / visible), measured.Times(1 / visible));
        var sigma = SigmaOf(p, split, before);
        var hottestRise = RiseAtFullFan(p, left);
        var hottest = zone.DesignAmbient.Value + hottestRise;
        var rate = Pace(p) + FanCost(p).PerDay * since.Left(Cause.Fan);
        return new PartAssessment(
            _asset.Parts[p],
            model.FreshRise(p),
            model.At(WearTerm.Joint, p, 0),
            split,
            sigma,
            machine.Latest!.PartsC[p],
            hottest,
            hottestRise,
            _asset.Parts[p].Limit.Value - hottest,
            trend,
            rate,
            null,
            scatter is null ? [] : History(p)
        )
        {
            SplitSigma = scatter is { } s ? SigmasOf(p, split, s) : null,
            HiddenKelvin = split.Total - left.Total,
            DustPace = PaceOf(WearTerm.Shared, Cause.Dust, p),
            JointPace = PaceOf(WearTerm.Own, _asset.Parts[p].JointCause, p),
            FullFanResistance = FullFanResistance,
            Path = PathOf(p, split, before),
        };
    }

    /// <summary>What each cause costs a part by what was measured, in the shares that services since have left.</summary>
    private CauseSplit Shown(int p, Func<Cause, double> left) =>
        new(
            left(Cause.Dust) * model.At(WearTerm.Shared, p, _last),
            left(_asset.Parts[p].JointCause) * model.At(WearTerm.Own, p, _last),
            left(Cause.Fan) * FanCost(p).Kelvin,
            left(Cause.Mount) * model.At(WearTerm.Mount, p, _last),
            _asset.Parts[p].Joint
        );

    /// <summary>The temperature measured last, taken apart; null where it was not measured.</summary>
    /// <param name="before">The split without what services since are credited with.</param>
    private HeatPath? PathOf(int p, CauseSplit split, CauseSplit before)
    {
        var (celsius, air) = (machine.Latest!.PartsC[p], machine.Latest.AirsC[p]);
        if (double.IsNaN(celsius) || double.IsNaN(air))
            return null;
        var (joint, fins) = (model.At(WearTerm.Joint, p, 0), model.At(WearTerm.Air, p, 0));
        var conditions =
            _now.Length == 0 ? 0 : Robust.Median([.. _now.Select(c => Conditions(c, p))]) - before.Fan * model.ShownByUnseenFan;
        HeatLayer[] layers =
        [
            new("joint", joint + split.Joint + split.Mount, joint),
            new("fins", fins + split.Dust, fins),
            new("fan", split.Fan, 0),
            new("served", before.Total - split.Total, 0),
            new("hidden", before.Total * (model.ShownByUnseenFan - 1), 0),
            new("conditions", conditions, 0),
            new("sensor", SensorOff(p, _last), 0),
            new("room", RoomNow, 0),
        ];
        return new HeatPath(air, [.. layers, new("unexplained", celsius - air - layers.Sum(l => l.Kelvin), 0)]);
    }

    /// <summary>What a cell's heat, load, settings and fan add to a part against the reference point, by the model, K.</summary>
    private double Conditions(int cell, int p)
    {
        var day = model.Cells[cell].Day;
        return model.Predict(cell, p)
            - model.FreshRise(p)
            - model.Grown(p, day)
            - model.At(WearTerm.Mount, p, day)
            - SensorOff(p, day);
    }

    /// <summary>What a part reads more than it is, by a jump of its sensor or by what its model's firmware reports, K.</summary>
    private double SensorOff(int p, double day) =>
        model.At(WearTerm.SensorOffset, p, day) + model.At(WearTerm.ReadingsOffset, p, day);

    /// <summary>The cells that what is shown now was condensed into.</summary>
    private static int[] CellsOfNow(Latest? latest, WearModel model) =>
        latest is null
            ? []
            :
            [
                .. Enumerable
                    .Range(0, model.Cells.Count)
                    .Where(c =>
                        latest.Run is not null
                            ? model.Cells[c].IsRun && model.Cells[c].Day == latest.Day
                            : !model.Cells[c].IsRun
                                && model.Cells[c].Workload == model.Reference.Workload
                                && model.Cells[c].Day > latest.FromDay - Cell.Days / 2
                    ),
            ];

    /// <summary>What the fan's lost speed costs a part, K, and what it costs more every day.</summary>
    private (double Kelvin, double PerDay) FanCost(int p)
    {
        if (_fan.SpeedShare >= 1)
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

    /// <summary>When anything was renewed on a part: before it other wear was growing.</summary>
    private double Renewed(int p) =>
        Math.Max(MachineFacts.LastServed(_asset, Cause.Dust), MachineFacts.LastServed(_asset, _asset.Parts[p].JointCause));

    private Trend? TrendOf(int p)
    {
        var points = Observed(p, Math.Max(_last - TrendDays, Renewed(p))).ToArray();
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
                yield return (model.Cells[c].Day, model.AtReference(c, p, model.RoomAt(c, room)));
    }

    private List<DriftPoint> History(int p)
    {
        var points = new List<DriftPoint>();
        for (var c = 0; c < model.Cells.Count; c++)
        {
            var cell = model.Cells[c];
            if (double.IsNaN(cell.Rise(p)) || (!cell.IsRun && cell.Workload != model.Reference.Workload && cell.Heat < 0.5))
                continue;
            var outside = model.RoomAt(c, room);
            var fitted = model.FreshRise(p) + model.Grown(p, cell.Day) + model.At(WearTerm.Mount, p, cell.Day);
            points.Add(new DriftPoint(cell.Day, model.AtReference(c, p, outside) + outside, outside, fitted, cell.IsRun));
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
        var from = Math.Max(_last - days, Renewed(p) + 0.01);
        var pace = _last - from < leastDays ? 0 : (model.Grown(p, _last) - model.Grown(p, from)) / (_last - from);
        return pace > leastPace ? pace : 0;
    }

    /// <summary>
    /// What one cause gathers a day, over at most a year, since it was renewed; null over less than two months.
    /// </summary>
    private Gathering? PaceOf(WearTerm term, Cause cause, int p)
    {
        const double mostDays = 365,
            leastDays = 60;
        var from = Math.Max(Math.Max(_last - mostDays, model.Cells[0].Day), MachineFacts.LastServed(_asset, cause) + 0.01);
        return _last - from < leastDays
            ? null
            : new Gathering(
                (model.At(term, p, _last) - model.At(term, p, from)) / model.ShownByUnseenFan / (_last - from),
                _last - from
            );
    }

    /// <summary>
    /// Standard uncertainties of a part's causes: scatter, the scale, and for the fan a hundredth of its speed.
    /// </summary>
    private CauseSplit SigmasOf(int p, CauseSplit split, WearScatter scatter)
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

    /// <summary>
    /// Standard uncertainty of the wear: scatter and seasons about the model; what services since are credited with; and where
    /// readings of daily work are compared, the scale and what is not measured. Runs carry all of that in their own budget.
    /// </summary>
    private double SigmaOf(int p, CauseSplit split, CauseSplit before)
    {
        var scatter = model.SigmaOf(p) / model.ShownByUnseenFan;
        var credited = since.Sigma * Math.Max(0, before.Total - split.Total);
        var readings = machine.RunsAlone ? 0 : Math.Pow(ScaleShare * split.Total, 2) + Math.Pow(NotMeasured(evidence), 2);
        var ofRoom = RoomShare * RoomNow;
        return Math.Sqrt(scatter * scatter + credited * credited + readings + ofRoom * ofRoom);
    }

    /// <summary>What the channels that are missing can hide, K. Chosen on the practice fleets.</summary>
    private static double NotMeasured(EvidenceGrade evidence) =>
        evidence switch
        {
            EvidenceGrade.A => 0.5,
            EvidenceGrade.B => 0.7,
            EvidenceGrade.C => 1.0,
            EvidenceGrade.D => 1.5,
            _ => 2.5,
        };
}
