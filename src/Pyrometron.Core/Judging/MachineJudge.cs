using Pyrometron.Core.Causes;
using Pyrometron.Core.Drift;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Forecast;
using Pyrometron.Core.Priority;
using Pyrometron.Core.Statistics;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Judging;

/// <summary>Reads one fitted machine: parts, split, trend, forecast, evidence.</summary>
internal sealed class MachineJudge(Asset asset, Zone zone, Channels channels, WearModel model, ZoneRoom room, bool ownAir, DateOnly asOf, JudgementPolicy policy)
{
    /// <summary>Window in which a pace of wear is taken, days.</summary>
    private const double TrendDays = 130;

    private const double RecentDays = 14;

    private readonly double _last = model.Cells[^1].Day;
    private readonly FanHealth _fan = FanHealth.Of(model.Cells, LastRenewal(asset, Cause.Fan, asOf));

    public EvidenceGrade Evidence => (model.Reference.HasPower, model.Reference.FanSpeed > 0, ownAir) switch
    {
        (true, true, true) => EvidenceGrade.A,
        (true, _, _) => EvidenceGrade.B,
        (false, true, true) => EvidenceGrade.C,
        (false, _, true) or (false, true, _) => EvidenceGrade.D,
        _ => EvidenceGrade.E,
    };

    public IReadOnlyList<PartAssessment> Parts() => [.. Enumerable.Range(0, asset.Parts.Count).Where(HasData).Select(Judge)];

    /// <summary>What the room adds at present, K.</summary>
    public double RoomNow
    {
        get
        {
            var recent = Enumerable.Range(0, 4).Select(b => Cell.BinOf(_last) - b).Select(room.At).Where(k => k != 0).ToArray();
            return recent.Length == 0 ? 0 : Robust.Median(recent);
        }
    }

    /// <summary>Kelvins that more heat or other settings add against the settings before.</summary>
    public double SettingsNow
    {
        get
        {
            var reference = model.Reference;
            var before = model.Cells.LastOrDefault(c => c.Settings != reference.Settings && c.Settings >= 0);
            if (before is null)
                return 0;
            var hottest = Enumerable.Range(0, asset.Parts.Count).Where(HasData).Select(p => model.FreshRise(p)).DefaultIfEmpty(0).Max();
            var earlier = model.Cells.Where(c => c.Settings == before.Settings && c.Workload == reference.Workload).Select(c => c.Heat).ToArray();
            if (reference.HasPower)
                return earlier.Length == 0 ? 0 : hottest * (1 - Robust.Median(earlier));
            return -Enumerable.Range(0, asset.Parts.Count).Where(HasData).Select(p => model.SettingsOffset(p, before.Settings)).DefaultIfEmpty(0).MinBy(k => -Math.Abs(k));
        }
    }

    /// <summary>Whether the machine throttled or stood at a limit in its newest readings.</summary>
    public bool AtItsLimit
    {
        get
        {
            var s = channels.Series;
            var recent = Enumerable.Range(0, s.Count).Where(i => s.Day[i] > _last - RecentDays).ToArray();
            return recent.Count(i => s.Throttled[i]) >= Math.Max(1, recent.Length / 20)
                || Enumerable.Range(0, asset.Parts.Count).Any(p => recent.Count(i => channels.Parts[p][i] >= asset.Parts[p].Limit.Value) > Math.Max(1, recent.Length / 5));
        }
    }

    /// <summary>Intake air of the newest readings, °C.</summary>
    public double AmbientNow => Robust.Median(model.Cells.Where(c => c.Day > _last - RecentDays).Select(c => c.AmbientC).ToArray());

    /// <summary>Where the history jumps: at lifted coolers, and where a sensor did.</summary>
    public IEnumerable<StepFinding> Steps()
    {
        const double worthTelling = 1;
        foreach (var (day, p, kelvin) in model.Steps(WearTerm.Mount).Where(s => s.Kelvin >= worthTelling))
            yield return new StepFinding(UnixDay.DateOf(day), asset.Parts[p].Name, kelvin, "mount");
        foreach (var (day, p, kelvin) in model.Steps(WearTerm.SensorOffset))
            yield return new StepFinding(UnixDay.DateOf(day), asset.Parts[p].Name, kelvin, "sensor");
        foreach (var step in Enumerable.Range(0, asset.Parts.Count).Where(HasData).SelectMany(Unexplained).Where(s => Math.Abs(s.Kelvin) >= worthTelling))
            yield return step;
    }

    /// <summary>
    /// Where a part leaves its fitted wear for good, with no service, no sensor and no settings to explain it: a CUSUM on
    /// what the model leaves, wide enough (h = 12) that chance hardly ever signals in a year.
    /// </summary>
    private IEnumerable<StepFinding> Unexplained(int p)
    {
        var left = Enumerable.Range(0, model.Cells.Count).Where(c => !double.IsNaN(model.Cells[c].Rise[p]) && model.Cells[c].AirHeat[p] > 0.5)
            .Select(c => (model.Cells[c].Day, Kelvin: model.Cells[c].Rise[p] - room.At(model.Cells[c].Bin) - model.Predict(c, p))).ToArray();
        var scale = Robust.MadScale(left.Select(l => l.Kelvin).ToArray());
        if (left.Length < 12 || !(scale > 0))
            yield break;
        var chart = new Cusum(0.5, 12);
        for (var i = 0; i < left.Length; i++)
            if (chart.Add(left[i].Kelvin / scale) is var sign && sign != 0)
            {
                var began = Math.Max(0, i + 1 - chart.RunLength);
                yield return new StepFinding(UnixDay.DateOf(left[began].Day), asset.Parts[p].Name, Robust.Median(left[began..(i + 1)].Select(l => l.Kelvin).ToArray()), "unexplained");
                yield break;
            }
    }

    private bool HasData(int part) => model.Cells.Count(c => !double.IsNaN(c.Rise[part])) >= 3;

    private PartAssessment Judge(int p)
    {
        var split = new CauseSplit(
            Renewed(Cause.Dust) ? 0 : model.At(WearTerm.Shared, p, _last),
            Renewed(asset.Parts[p].Joint == JointMaterial.Pad ? Cause.Pads : Cause.Paste) ? 0 : model.At(WearTerm.Own, p, _last),
            Renewed(Cause.Fan) ? 0 : FanKelvin(p),
            Renewed(Cause.Mount) ? 0 : model.At(WearTerm.Mount, p, _last),
            asset.Parts[p].Joint);
        var trend = TrendOf(p);
        var sigma = SigmaOf(p);
        var hottest = zone.DesignAmbient.Value + RiseAtFullFan(p, split);
        var margin = asset.Parts[p].Limit.Value - policy.ActionMarginKelvin - hottest;
        var rate = trend is { IsRising: true } t ? t.KelvinPerDay : 0;
        var rateSigma = trend is { } spread ? (spread.High - spread.Low) / (2 * 1.2816) : 0;
        return new PartAssessment(asset.Parts[p], model.FreshRise(p), model.At(WearTerm.Joint, p, 0), split, sigma, Latest(p), hottest, margin, trend,
            ActionForecast.Of(asOf, margin, sigma, rate, rateSigma), History(p));
    }

    /// <summary>Whether the cause was renewed after the newest reading, so that the readings no longer speak of it.</summary>
    private bool Renewed(Cause cause) => LastRenewal(asset, cause, asOf) > _last;

    private static double LastRenewal(Asset asset, Cause cause, DateOnly asOf) =>
        asset.Services.Where(s => s.Date <= asOf && ServiceEffects.Renews(s.Level, cause)).Select(s => UnixDay.Noon(s.Date)).DefaultIfEmpty(double.NegativeInfinity).Max();

    private double FanKelvin(int p)
    {
        if (_fan.SpeedShare >= 1)
            return 0;
        var air = model.At(WearTerm.Air, p, 0) + model.At(WearTerm.Shared, p, _last);
        return air * (FanLaw.RelativeResistance(_fan.SpeedShare, 1) - 1);
    }

    private double RiseAtFullFan(int p, CauseSplit split)
    {
        var reference = model.Reference;
        var air = model.At(WearTerm.Air, p, 0) + split.Dust;
        var full = reference.FanSpeed > 0 ? FanLaw.RelativeResistance(reference.FullSpeed, reference.FanSpeed) : 1;
        return model.At(WearTerm.Joint, p, 0) + split.Joint + split.Mount + (air + split.Fan) * full;
    }

    private Trend? TrendOf(int p)
    {
        // A pace is taken since the last service that renewed anything on this part: before it other wear was growing.
        var joint = asset.Parts[p].Joint == JointMaterial.Pad ? Cause.Pads : Cause.Paste;
        var from = new[] { _last - TrendDays, LastRenewal(asset, Cause.Dust, asOf), LastRenewal(asset, joint, asOf) }.Max();
        var points = Observed(p).Where(o => o.Day > from).ToArray();
        if (points.Length < 8 || points[^1].Day - points[0].Day < 25)
            return null;
        var days = points.Select(o => o.Day).ToArray();
        var values = points.Select(o => Math.Round(o.Value, 2)).ToArray();
        if (TheilSen.Fit(days, values, 0.8) is not { } line)
            return null;
        var test = MannKendall.Test(days, values, MannKendall.YueWangFactor(days, values));
        return new Trend(line.Slope, line.Low, line.High, test.P, points[0].Day);
    }

    private IEnumerable<(double Day, double Value)> Observed(int p)
    {
        for (var c = 0; c < model.Cells.Count; c++)
            if (!double.IsNaN(model.Cells[c].Rise[p]) && model.Cells[c].Heat > 0.5)
                yield return (model.Cells[c].Day, model.AtReference(c, p, room.At(model.Cells[c].Bin)));
    }

    private List<DriftPoint> History(int p)
    {
        var points = new List<DriftPoint>();
        for (var c = 0; c < model.Cells.Count; c++)
        {
            var cell = model.Cells[c];
            if (double.IsNaN(cell.Rise[p]) || (cell.Workload != model.Reference.Workload && cell.Heat < 0.5))
                continue;
            var outside = room.At(cell.Bin);
            var fitted = model.FreshRise(p) + model.At(WearTerm.Shared, p, cell.Day) + model.At(WearTerm.Own, p, cell.Day) + model.At(WearTerm.Mount, p, cell.Day);
            points.Add(new DriftPoint(cell.Day, model.AtReference(c, p, outside) + outside, outside, fitted));
        }
        return points;
    }

    /// <summary>Standard uncertainty of the wear: scatter of the newest cells about the model, and what is not measured.</summary>
    private double SigmaOf(int p)
    {
        var residuals = Observed(p).TakeLast(12).Select(o => o.Value).ToArray();
        var scatter = residuals.Length >= 4 ? Robust.MadScale(residuals) / Math.Sqrt(residuals.Length) : 2;
        var notMeasured = Evidence switch { EvidenceGrade.A => 0.5, EvidenceGrade.B => 0.7, EvidenceGrade.C => 1.0, EvidenceGrade.D => 1.5, _ => 2.5 };
        return Math.Sqrt(scatter * scatter + notMeasured * notMeasured);
    }

    private double Latest(int p)
    {
        var s = channels.Series;
        var main = Enumerable.Range(0, s.Count).Where(i => s.Workload[i] == model.Reference.Workload && !double.IsNaN(channels.Parts[p][i])).ToArray();
        var recent = main.Where(i => s.Day[i] > _last - RecentDays).ToArray();
        return Robust.Median((recent.Length >= 3 ? recent : main.TakeLast(3)).Select(i => channels.Parts[p][i]).ToArray());
    }
}
