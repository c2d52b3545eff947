using Google.OrTools.Sat;
using Google.OrTools.Util;
using Pyrometron.Core.Planning;

namespace Pyrometron.Planning;

/// <summary>Some shifts of a plan arranged anew, the others as they are: which of some jobs stand in them, and when.</summary>
/// <remarks>
/// By sequence, every order of the jobs of a shift is looked at, and the answer's bound is one for these shifts. By visits, jobs of
/// one zone stand together with their set-up before them, and a zone is visited only so often in a shift: that is much smaller, and
/// hardly ever misses anything.
/// </remarks>
internal sealed class ShiftModel
{
    private readonly CpModel _model = new();
    private readonly Shifts _shifts;
    private readonly PlanProblem _problem;
    private readonly Dictionary<int, IntVar> _starts = [];
    private readonly List<(int Job, int Shift, BoolVar Var)> _chosen = [];
    private readonly Dictionary<int, List<IntervalVar>> _down = [];
    private readonly List<BoolVar> _terms = [];
    private readonly List<long> _costs = [];

    /// <param name="shifts">The problem.</param>
    /// <param name="around">The plan; what stands in other shifts stays.</param>
    /// <param name="arranged">The shifts that are arranged anew.</param>
    /// <param name="jobs">The jobs that may stand in them: at least those that do now.</param>
    /// <param name="leavingOut">What it costs to leave one of them out of these shifts.</param>
    /// <param name="bySequence">Whether every order is looked at.</param>
    public ShiftModel(
        Shifts shifts,
        Roster around,
        IReadOnlyCollection<int> arranged,
        IReadOnlyCollection<int> jobs,
        Func<int, double> leavingOut,
        bool bySequence = false
    )
    {
        (_shifts, _problem) = (shifts, shifts.Problem);
        var now = around.Assignments.ToDictionary(a => a.Job);
        var inShift = arranged.ToDictionary(s => s, _ => new Dictionary<int, List<(int Job, BoolVar Var)>>());
        foreach (var j in jobs)
            Choices(j, arranged, inShift, now, leavingOut(j));
        foreach (var s in arranged)
            if (bySequence)
                Sequence(s, inShift[s]);
            else
                Visits(s, inShift[s], now);
        foreach (var (zone, intervals) in _down)
            if (_problem.Zones[zone].MaxDown is { } most)
            {
                var limit = _model.AddCumulative(most);
                foreach (var interval in intervals)
                    limit.AddDemand(interval, 1);
                foreach (var a in around.Assignments)
                    if (_problem.Jobs[a.Job].Zone == zone && !_starts.ContainsKey(a.Job))
                        limit.AddDemand(_model.NewFixedSizeIntervalVar(a.Start, _problem.Jobs[a.Job].Minutes, ""), 1);
            }
        _model.Minimize(LinearExpr.WeightedSum(_terms, _costs));
    }

    /// <summary>What was found.</summary>
    /// <param name="Placed">The jobs of the model that found a place.</param>
    /// <param name="Bound">What these shifts and jobs cost at least, as they are modelled.</param>
    public sealed record Answer(IReadOnlyList<Assignment> Placed, double Bound);

    /// <summary>The best found in the time; null where nothing was.</summary>
    public Answer? Solve(double seconds, int seed, CancellationToken cancel)
    {
        var solver = new CpSolver
        {
            StringParameters = $"max_time_in_seconds:{seconds:0.##},num_workers:{Workers.Count},random_seed:{seed}",
        };
        using var stop = cancel.Register(solver.StopSearch);
        return solver.Solve(_model) is CpSolverStatus.Optimal or CpSolverStatus.Feasible
            ? new Answer(
                [
                    .. _chosen
                        .Where(c => solver.BooleanValue(c.Var))
                        .Select(c => new Assignment(c.Job, _shifts.All[c.Shift].Person, (int)solver.Value(_starts[c.Job]))),
                ],
                _shifts.Unscaled(solver.BestObjectiveBound)
            )
            : null;
    }

    private void Choices(
        int j,
        IReadOnlyCollection<int> arranged,
        Dictionary<int, Dictionary<int, List<(int Job, BoolVar Var)>>> inShift,
        Dictionary<int, Assignment> now,
        double leavingOut
    )
    {
        var job = _problem.Jobs[j];
        var start = _starts[j] = _model.NewIntVar(0, _problem.Horizon.To, "");
        var all = new List<ILiteral>();
        foreach (var s in arranged)
        {
            var days = _shifts.Places(job, _shifts.All[s]).ToList();
            if (days.Count == 0)
                continue;
            var x = _model.NewBoolVar("");
            _chosen.Add((j, s, x));
            all.Add(x);
            var ofDays = days.Select(d => days.Count == 1 ? x : _model.NewBoolVar("")).ToList();
            if (days.Count > 1)
                _model.Add(LinearExpr.Sum(ofDays) == x);
            for (var d = 0; d < days.Count; d++)
            {
                _model.AddLinearExpressionInDomain(start, Domain.FromFlatIntervals(days[d].Starts)).OnlyEnforceIf(ofDays[d]);
                Costs(ofDays[d], PlanProblem.Lateness(job, days[d].Day));
            }
            var zones = inShift[s];
            if (!zones.TryGetValue(job.Zone, out var here))
                zones[job.Zone] = here = [];
            here.Add((j, x));
            _model.AddHint(x, now.TryGetValue(j, out var a) && _shifts.All[s].Person == a.Person && _shifts.All[s].Span.Holds(Of(a)));
        }
        if (job.Locked is null)
        {
            var left = _model.NewBoolVar("");
            Costs(left, leavingOut);
            all.Add(left);
        }
        _model.AddExactlyOne(all);
        if (now.TryGetValue(j, out var at))
            _model.AddHint(start, at.Start);
        if (_problem.Zones[job.Zone].MaxDown is not null)
        {
            var placed = _model.NewBoolVar("");
            _model.Add(LinearExpr.Sum(all.Take(job.Locked is null ? all.Count - 1 : all.Count)) == placed);
            if (!_down.TryGetValue(job.Zone, out var intervals))
                _down[job.Zone] = intervals = [];
            intervals.Add(_model.NewOptionalFixedSizeIntervalVar(start, job.Minutes, placed, ""));
        }
    }

    /// <summary>A tour from the shift's beginning over the jobs that are in it and back; each leg knows its set-up.</summary>
    private void Sequence(int s, Dictionary<int, List<(int Job, BoolVar Var)>> zones)
    {
        var jobs = zones.Values.SelectMany(z => z).ToList();
        var tour = _model.AddCircuit();
        var empty = _model.NewBoolVar("");
        tour.AddArc(0, 0, empty);
        for (var b = 0; b < jobs.Count; b++)
        {
            var (job, here) = jobs[b];
            var setup = _problem.Zones[_problem.Jobs[job].Zone].SetupMinutes;
            tour.AddArc(b + 1, b + 1, here.Not());
            _model.AddImplication(here, empty.Not());
            tour.AddArc(b + 1, 0, _model.NewBoolVar(""));
            var first = _model.NewBoolVar("");
            tour.AddArc(0, b + 1, first);
            Costs(first, PlanProblem.SetupCost * setup);
            for (var a = 0; a < jobs.Count; a++)
                if (a != b)
                {
                    var before = _problem.Jobs[jobs[a].Job];
                    var needed = before.Zone == _problem.Jobs[job].Zone ? 0 : setup;
                    var leg = _model.NewBoolVar("");
                    tour.AddArc(a + 1, b + 1, leg);
                    _model.Add(_starts[job] >= _starts[jobs[a].Job] + before.Minutes + needed).OnlyEnforceIf(leg);
                    Costs(leg, PlanProblem.SetupCost * needed);
                }
        }
    }

    private void Visits(int s, Dictionary<int, List<(int Job, BoolVar Var)>> zones, Dictionary<int, Assignment> now)
    {
        var span = _shifts.All[s].Span;
        var visits = new List<IntervalVar>();
        var work = new List<IntervalVar>();
        foreach (var (zone, jobs) in zones)
        {
            var setup = _problem.Zones[zone].SetupMinutes;
            var count = Math.Min(jobs.Count, Most(s, zone, now));
            var of = jobs.Select(j => count == 1 ? [j.Var] : Enumerable.Range(0, count).Select(_ => _model.NewBoolVar("")).ToArray()).ToList();
            for (var i = 0; i < jobs.Count; i++)
            {
                if (count > 1)
                    _model.Add(LinearExpr.Sum(of[i]) == jobs[i].Var);
                work.Add(_model.NewOptionalFixedSizeIntervalVar(_starts[jobs[i].Job], _problem.Jobs[jobs[i].Job].Minutes, jobs[i].Var, ""));
            }
            for (var v = 0; v < count; v++)
            {
                var made = _model.NewBoolVar("");
                var from = _model.NewIntVar(span.From + setup, span.To, "");
                var to = _model.NewIntVar(span.From + setup, span.To, "");
                var length = _model.NewIntVar(0, span.Minutes, "");
                visits.Add(_model.NewOptionalIntervalVar(from - setup, length, to, made, ""));
                Costs(made, PlanProblem.SetupCost * setup);
                var load = new List<BoolVar>();
                for (var i = 0; i < jobs.Count; i++)
                {
                    var start = _starts[jobs[i].Job];
                    load.Add(of[i][v]);
                    _model.AddImplication(of[i][v], made);
                    _model.Add(start >= from).OnlyEnforceIf(of[i][v]);
                    _model.Add(start + _problem.Jobs[jobs[i].Job].Minutes <= to).OnlyEnforceIf(of[i][v]);
                }
                _model.AddBoolOr([.. load.Cast<ILiteral>(), made.Not()]);
                // What is done in a visit fits into it: follows from the rest, and is found sooner so.
                _model.Add(LinearExpr.WeightedSum(load, jobs.Select(j => (long)_problem.Jobs[j.Job].Minutes)) + setup <= length).OnlyEnforceIf(made);
            }
        }
        _model.AddNoOverlap(visits);
        _model.AddNoOverlap(work);
    }

    /// <summary>How often a zone may be visited in a shift: for each stretch in which it is open, and for each run of locked jobs.</summary>
    private int Most(int s, int zone, Dictionary<int, Assignment> now)
    {
        var span = _shifts.All[s].Span;
        var open = _problem.Zones[zone].Windows?.Count(w => w.And(span).Minutes > 0) ?? 1;
        var runs = 0;
        var last = -1;
        foreach (var a in now.Values.Where(a => a.Person == _shifts.All[s].Person && span.Holds(Of(a))).OrderBy(a => a.Start))
            if (_problem.Jobs[a.Job] is { Locked: not null, Zone: var of })
            {
                runs += of == zone && last != zone ? 1 : 0;
                last = of;
            }
        return Math.Max(1, Math.Min(4, open)) + runs - (runs > 0 ? 1 : 0);
    }

    private Span Of(Assignment a) => new(a.Start, a.Start + _problem.Jobs[a.Job].Minutes);

    private void Costs(BoolVar variable, double cost)
    {
        _terms.Add(variable);
        _costs.Add(_shifts.Scaled(cost));
    }
}
