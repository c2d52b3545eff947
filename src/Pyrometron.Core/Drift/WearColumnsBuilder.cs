using Pyrometron.Core.Cooling;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Drift;

/// <summary>
/// Lays out the unknowns of one machine's wear model: what can have grown, jumped or changed between its first and its last cell.
/// </summary>
/// <param name="asOf">Days since 1970; later services are not known yet.</param>
/// <param name="levels">Usual rise of each part, K.</param>
/// <param name="share">In what proportion the parts feel the air side.</param>
internal sealed class WearColumnsBuilder(
    Asset asset,
    ReferencePoint reference,
    CellTable cells,
    double asOf,
    double[] levels,
    double[] share,
    IReadOnlyList<SensorStep> sensorSteps,
    IReadOnlyList<GroupEvent> events
)
{
    /// <summary>
    /// How much a pace of wear changes from one piece of its curve to the next, K a piece: dust that closes fins and paste that
    /// pumps out go slowly at first and fast at the end.
    /// </summary>
    public const double PaceSigma = 1;

    /// <summary>
    /// Prices of a kelvin of wear, in log-likelihood: an exponential prior, under which no wear is likelier than any. Shared by
    /// all parts is one cause and cheapest; what was there before the first reading, or came with a lifted cooler, costs more.
    /// Chosen on the practice fleets and on invented ones.
    /// </summary>
    private const double SharedPrice = 0.15,
        OwnPrice = 0.3,
        MountPrice = 0.4,
        CarriedPrice = 1;

    /// <summary>Length of a piece of the growing curves, days.</summary>
    private const double PieceDays = 60;

    /// <summary>Spread of the prior of wear, K: wide, the prices decide.</summary>
    private const double WearSigma = 30;

    /// <summary>How much a stand, a filter or less voltage changes of a rise. Common practice, no source.</summary>
    private const double ChangedShare = 0.2;

    /// <summary>How much alike machines of one model report at the best, K: half a step of a sensor in whole degrees.</summary>
    private const double LeastEventSigma = 0.5;

    private readonly List<WearColumn> _columns = [];
    private readonly List<(int, int)> _successive = [];
    private readonly double _first = cells[0].Day;
    private readonly double _last = cells[cells.Count - 1].Day;

    /// <summary>
    /// Whether the machine is known by runs alone: its first run after a service is then its fresh state, whatever that service
    /// may have left, since nothing older tells how much that was.
    /// </summary>
    private readonly bool _runsAlone = !cells.OfReadings.Any();

    /// <summary>The columns.</summary>
    public WearColumns Build()
    {
        AddFreshState();
        AddChanges();
        foreach (var step in sensorSteps)
            _columns.Add(
                new WearColumn(WearTerm.SensorOffset, step.Part)
                {
                    From = step.Day,
                    Full = step.Day,
                    Sigma = 20,
                }
            );
        AddEvents();
        AddGrowth(WearTerm.Shared, -1, Cause.Dust, SharedPrice);
        for (var p = 0; p < asset.Parts.Count; p++)
        {
            AddGrowth(WearTerm.Own, p, asset.Parts[p].JointCause, OwnPrice);
            AddMounts(p);
        }
        return new WearColumns(_columns, _successive, levels, LoadLevels.Of(cells, levels));
    }

    /// <summary>What does not change with time: fresh joints and air side, other loads, other settings, an unseen fan.</summary>
    private void AddFreshState()
    {
        var workloads = cells.All.Select(c => c.Workload).Distinct().Where(w => w != reference.Workload).ToArray();
        var settings = cells.All.Select(c => c.Settings).Distinct().Where(s => s != reference.Settings).ToArray();
        // Parts on one cooler stand on the same air rise: it is part of the least of theirs.
        var least = levels.Select((level, p) => level / share[p]).Min();
        var air = AirSide.ShareOfRise * least;
        _columns.Add(new WearColumn(WearTerm.Air, -1) { Mean = air, Sigma = Math.Max(0.5, AirSide.Spread * least) });
        for (var p = 0; p < asset.Parts.Count; p++)
        {
            _columns.Add(
                new WearColumn(WearTerm.Joint, p) { Mean = levels[p] - share[p] * air, Sigma = Math.Max(5, 0.5 * levels.Max()) }
            );
            foreach (var w in workloads)
                _columns.Add(new WearColumn(WearTerm.WorkloadOffset, p) { Label = w, Sigma = reference.HasPower ? 15 : 30 });
            foreach (var s in settings)
                _columns.Add(new WearColumn(WearTerm.SettingsOffset, p) { Label = s, Sigma = 0.5 });
        }
        if (!reference.HasPower)
            foreach (var s in settings)
            foreach (var w in cells.All.Where(c => c.Settings == s).Select(c => c.Workload).Distinct())
                _columns.Add(
                    new WearColumn(WearTerm.SettingsHeat, -1)
                    {
                        Label = s,
                        Workload = w,
                        Sigma = 0.3,
                    }
                );
        if (double.IsNaN(reference.FanSpeed))
            foreach (var w in workloads.Append(reference.Workload))
                _columns.Add(new WearColumn(WearTerm.UnseenFan, -1) { Label = w, Sigma = 0.2 });
    }

    /// <summary>
    /// What was changed of air and heat for good: a step of either sign on the day, beside the wear that goes on growing through
    /// it. Where power is measured, that tells what undervolting took.
    /// </summary>
    private void AddChanges()
    {
        foreach (var change in asset.Services.Where(s => s.Day > _first && s.Day <= Math.Min(_last, asOf)))
        {
            var step = new WearColumn(default, -1) { From = change.Day, Full = change.Day };
            if (ServiceEffects.Changes(change.Level) == CoolingChange.AirSide)
                _columns.Add(step with { Term = WearTerm.AirChange, Sigma = ChangedShare * levels.Max() });
            else if (ServiceEffects.Changes(change.Level) == CoolingChange.Settings && !reference.HasPower)
                _columns.Add(step with { Term = WearTerm.HeatChange, Sigma = ChangedShare });
        }
    }

    /// <summary>What happened to many machines at once: what the others showed of it is known here already.</summary>
    private void AddEvents()
    {
        foreach (var e in events.Where(e => e.Day > _first && e.Day <= _last))
            if (e.Kind == GroupEventKind.Readings)
                _columns.Add(
                    new WearColumn(WearTerm.ReadingsOffset, -1)
                    {
                        From = e.Day,
                        Full = e.Day,
                        Mean = e.Kelvin,
                        Sigma = Math.Max(LeastEventSigma, e.SigmaKelvin),
                    }
                );
    }

    /// <summary>A lifted cooler can sit badly afterwards, on every part it covers, until it is lifted again.</summary>
    private void AddMounts(int part)
    {
        var lifts = asset
            .Services.Where(s => s.LiftedCooler)
            .Select(s => s.Day)
            .Where(d => d > _first && d <= _last)
            .Distinct()
            .Order()
            .ToArray();
        for (var l = 0; l < lifts.Length; l++)
            _columns.Add(
                new WearColumn(WearTerm.Mount, part)
                {
                    From = lifts[l],
                    Full = lifts[l],
                    Ends = [.. lifts[(l + 1)..].Select(day => new Renewal(day, 0, false))],
                    Sigma = WearSigma,
                    Price = MountPrice,
                }
            );
    }

    /// <summary>
    /// Pieces of growth in every span between renewals; before the first one in the history also what was there already. How much
    /// a service that only eases leaves, loose dust blown out, the readings tell: it begins a column like what was there already.
    /// </summary>
    private void AddGrowth(WearTerm term, int part, Cause cause, double price)
    {
        var renewals = Renewals(cause);
        var marks = renewals.Where(r => r.Day > _first && r.Day <= _last).ToArray();
        var fresh = renewals
            .Where(r => !r.Eased && r.Day <= _first)
            .Select(r => r.Day)
            .DefaultIfEmpty(double.NegativeInfinity)
            .Max();
        var wear = new WearColumn(term, part) { Sigma = WearSigma };
        // What had time to gather before the first cell; with no renewal to show it, only siblings can.
        if (marks.Length > 0 || _first - Math.Max(UnixDay.Noon(asset.InServiceSince), fresh) >= PieceDays)
            _columns.Add(wear with { Ends = marks, Price = CarriedPrice });
        var (from, before) = (_first, -1);
        for (var m = 0; m <= marks.Length; m++)
        {
            var end = m < marks.Length ? marks[m].Day : _last;
            var pieces = Math.Max(1, (int)Math.Round((end - from) / PieceDays));
            var length = Math.Max(1, (end - from) / pieces);
            for (var k = 0; k < pieces; k++)
            {
                // The same air goes on depositing at its pace after a cleaning, and the next paste is pumped by the same joint.
                if (before >= 0)
                    _successive.Add((before, _columns.Count));
                before = _columns.Count;
                _columns.Add(
                    wear with
                    {
                        From = from + k * length,
                        Full = from + (k + 1) * length,
                        Ends = marks[m..],
                        Price = price,
                    }
                );
            }
            if (m < marks.Length && marks[m].Eased)
                _columns.Add(wear with { From = end, Full = end, Ends = marks[(m + 1)..], Price = price });
            from = end;
        }
    }

    /// <summary>The services that took some of a cause away, one a day: the one that left least.</summary>
    private Renewal[] Renewals(Cause cause) =>
        [
            .. asset
                .Services.Where(s => s.Removed(cause) > 0 && s.Day <= asOf)
                .GroupBy(s => s.Date, (_, same) => same.MaxBy(s => s.Removed(cause))!)
                .OrderBy(s => s.Day)
                .Select(s =>
                    s.Eases(cause)
                        ? new Renewal(s.Day, 0, true)
                        : new Renewal(s.Day, _runsAlone ? 0 : 1 - s.Removed(cause), false)
                ),
        ];
}
