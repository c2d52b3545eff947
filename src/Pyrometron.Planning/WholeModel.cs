using Google.OrTools.Sat;
using Google.OrTools.Util;
using Pyrometron.Core.Planning;

namespace Pyrometron.Planning;

/// <summary>
/// A whole problem for the constraint solver: which job in which shift and when, and through each shift a tour over the jobs that
/// are in it, whose legs know their set-up. Nothing is left out of it: its bound is one of the problem.
/// </summary>
internal sealed class WholeModel
{
    private readonly CpModel _model = new();
    private readonly Shifts _shifts;
    private readonly PlanProblem _problem;
    private readonly IntVar[] _starts;
    private readonly List<(int Job, int Shift, BoolVar Var)> _chosen = [];
    private readonly List<(int Job, int Shift, BoolVar Var)> _helped = [];
    private readonly Dictionary<int, List<IntervalVar>> _down = [];
    private readonly List<BoolVar> _terms = [];
    private readonly List<long> _costs = [];

    /// <param name="shifts">The problem.</param>
    /// <param name="hint">A plan to begin with.</param>
    public WholeModel(Shifts shifts, Roster hint)
    {
        (_shifts, _problem) = (shifts, shifts.Problem);
        _starts = [.. _problem.Jobs.Select(_ => _model.NewIntVar(0, _problem.Horizon.To, ""))];
        var now = hint.Assignments.ToDictionary(a => a.Job);
        for (var j = 0; j < _problem.Jobs.Count; j++)
            Choices(j, now.TryGetValue(j, out var at) ? at : null);
        foreach (var shift in _chosen.Concat(_helped).GroupBy(c => c.Shift))
            Tour([.. shift.Select(c => (c.Job, c.Var))]);
        foreach (var (zone, intervals) in _down)
        {
            var limit = _model.AddCumulative(_problem.Zones[zone].MaxDown!.Value);
            foreach (var interval in intervals)
                limit.AddDemand(interval, 1);
        }
        _model.Minimize(LinearExpr.WeightedSum(_terms, _costs));
    }

    /// <summary>What was found.</summary>
    /// <param name="Placed">The jobs that found a place.</param>
    /// <param name="Bound">What every plan costs at least.</param>
    public sealed record Answer(IReadOnlyList<Assignment> Placed, double Bound);

    /// <summary>The best found in the time; null where nothing was.</summary>
    public Answer? Solve(double seconds, CancellationToken cancel)
    {
        var workers = Math.Clamp(Environment.ProcessorCount, 1, 8);
        var solver = ConstraintSolver.Of(
            FormattableString.Invariant($"max_time_in_seconds:{seconds:0.##} num_workers:{workers}")
        );
        using var stop = cancel.Register(solver.StopSearch);
        return solver.Solve(_model) is CpSolverStatus.Optimal or CpSolverStatus.Feasible
            ? new Answer(
                [
                    .. _chosen
                        .Where(c => solver.BooleanValue(c.Var))
                        .Select(c => new Assignment(
                            c.Job,
                            _shifts.All[c.Shift].Person,
                            (int)solver.Value(_starts[c.Job]),
                            Helper(solver, c.Job)
                        )),
                ],
                _shifts.Unscaled(solver.BestObjectiveBound)
            )
            : null;
    }

    private int? Helper(CpSolver solver, int job)
    {
        foreach (var h in _helped)
            if (h.Job == job && solver.BooleanValue(h.Var))
                return _shifts.All[h.Shift].Person;
        return null;
    }

    /// <summary>Who helps with a job that takes two: somebody in each plan that has it, and not who does it.</summary>
    private void Helpers(int j, Assignment? now, IReadOnlyList<BoolVar> does)
    {
        var (job, helps) = (_problem.Jobs[j], new List<BoolVar>());
        for (var s = 0; s < _shifts.All.Count; s++)
        {
            var starts = _shifts.Places(job, _shifts.All[s], helps: true).SelectMany(d => d.Starts).ToArray();
            if (starts.Length == 0)
                continue;
            var y = _model.NewBoolVar("");
            _model.AddLinearExpressionInDomain(_starts[j], Domain.FromFlatIntervals(starts)).OnlyEnforceIf(y);
            foreach (var same in _chosen.Where(c => c.Job == j && c.Shift == s))
                _model.AddBoolOr([y.Not(), same.Var.Not()]);
            _model.AddHint(
                y,
                now is { Helper: { } helper } a
                    && _shifts.All[s].Person == helper
                    && _shifts.All[s].Span.Holds(new Span(a.Start, a.Start + job.Minutes))
            );
            helps.Add(y);
            _helped.Add((j, s, y));
        }
        _model.Add(LinearExpr.Sum(helps) == LinearExpr.Sum(does));
    }

    private void Choices(int j, Assignment? now)
    {
        var (job, start) = (_problem.Jobs[j], _starts[j]);
        var all = new List<BoolVar>();
        for (var s = 0; s < _shifts.All.Count; s++)
        {
            var days = _shifts.Places(job, _shifts.All[s]).ToList();
            if (days.Count == 0)
                continue;
            var x = _model.NewBoolVar("");
            _chosen.Add((j, s, x));
            all.Add(x);
            var ofDays = days.Select(_ => days.Count == 1 ? x : _model.NewBoolVar("")).ToList();
            if (days.Count > 1)
                _model.Add(LinearExpr.Sum(ofDays) == x);
            for (var d = 0; d < days.Count; d++)
            {
                _model.AddLinearExpressionInDomain(start, Domain.FromFlatIntervals(days[d].Starts)).OnlyEnforceIf(ofDays[d]);
                Costs(ofDays[d], PlanProblem.Placing(job, _shifts.All[s].Person, days[d].Day));
            }
            _model.AddHint(
                x,
                now is { } a
                    && _shifts.All[s].Person == a.Person
                    && _shifts.All[s].Span.Holds(new Span(a.Start, a.Start + job.Minutes))
            );
        }
        if (job.TakesTwo)
            Helpers(j, now, all);
        if (now is { } at)
            _model.AddHint(start, at.Start);
        if (_problem.Zones[job.Zone].MaxDown is not null && all.Count > 0)
        {
            var placed = _model.NewBoolVar("");
            _model.Add(LinearExpr.Sum(all) == placed);
            if (!_down.TryGetValue(job.Zone, out var intervals))
                _down[job.Zone] = intervals = [];
            intervals.Add(_model.NewOptionalFixedSizeIntervalVar(start, job.Minutes, placed, ""));
        }
        if (job.Locked is null)
        {
            var left = _model.NewBoolVar("");
            Costs(left, _problem.LeavingOut(job));
            all.Add(left);
        }
        _model.AddExactlyOne(all);
    }

    private void Tour(IReadOnlyList<(int Job, BoolVar Here)> jobs)
    {
        var tour = _model.AddCircuit();
        var empty = _model.NewBoolVar("");
        tour.AddArc(0, 0, empty);
        for (var b = 0; b < jobs.Count; b++)
        {
            var (job, here) = jobs[b];
            var zone = _problem.Jobs[job].Zone;
            tour.AddArc(b + 1, b + 1, here.Not());
            _model.AddImplication(here, empty.Not());
            tour.AddArc(b + 1, 0, _model.NewBoolVar(""));
            var first = _model.NewBoolVar("");
            tour.AddArc(0, b + 1, first);
            Costs(first, PlanProblem.SetupCost * _problem.Setup(zone, null));
            for (var a = 0; a < jobs.Count; a++)
                if (a != b)
                {
                    var before = _problem.Jobs[jobs[a].Job];
                    var needed = _problem.Setup(zone, before.Zone);
                    var leg = _model.NewBoolVar("");
                    tour.AddArc(a + 1, b + 1, leg);
                    _model.Add(_starts[job] >= _starts[jobs[a].Job] + before.Minutes + needed).OnlyEnforceIf(leg);
                    Costs(leg, PlanProblem.SetupCost * needed);
                }
        }
    }

    private void Costs(BoolVar variable, double cost)
    {
        _terms.Add(variable);
        _costs.Add(_shifts.Scaled(cost));
    }
}
