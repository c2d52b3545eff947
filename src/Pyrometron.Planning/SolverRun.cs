using System.Diagnostics;
using Pyrometron.Core.Planning;

namespace Pyrometron.Planning;

/// <summary>One problem being solved: the time, the best plan and the best bound so far. Safe from several threads.</summary>
internal sealed class SolverRun
{
    /// <summary>The share of the time after which no other greedy plan is tried.</summary>
    private const double GreedyShare = 0.1;

    private readonly Lock _guard = new();
    private readonly Stopwatch _clock = Stopwatch.StartNew();
    private readonly double _seconds;
    private readonly IProgress<Plan>? _progress;
    private double _cost;

    public SolverRun(PlanProblem problem, double seconds, IProgress<Plan>? progress, CancellationToken cancel)
    {
        (Problem, _seconds, _progress, Cancel) = (problem, seconds, progress, cancel);
        Shifts = new Shifts(problem);
        Best = GreedyPlanner.Best(problem, () => Passed < GreedyShare && !cancel.IsCancellationRequested);
        if (problem.Jobs.Any(j => j.Before is not null) && GreedyPlanner.Kept(problem) is var kept && kept.Cost < Best.Cost)
            Best = kept;
        (_cost, Bound) = (Best.Cost, problem.Unavoidable);
        _progress?.Report(Made(Bound));
    }

    public PlanProblem Problem { get; }

    public Shifts Shifts { get; }

    public CancellationToken Cancel { get; }

    /// <summary>The best plan so far; is not changed any more.</summary>
    public Roster Best { get; private set; }

    /// <summary>The best bound so far.</summary>
    public double Bound { get; private set; }

    /// <summary>Seconds that are left.</summary>
    public double Left => _seconds - _clock.Elapsed.TotalSeconds;

    /// <summary>Whether no plan is cheaper than the best one.</summary>
    public bool Proven => _cost <= Bound + 1e-6;

    /// <summary>Whether there is anything to gain before this share of the time has passed.</summary>
    public bool GoesOn(double until) => Passed < until && !Proven && !Cancel.IsCancellationRequested;

    /// <summary>The share of the time that has passed.</summary>
    public double Passed => _seconds > 0 ? _clock.Elapsed.TotalSeconds / _seconds : 1;

    /// <summary>Takes a plan that is no dearer, and tells of it where it is better.</summary>
    public void Offer(Roster plan)
    {
        lock (_guard)
        {
            var cost = plan.Cost;
            if (cost > _cost)
                return;
            var better = cost < _cost - 1e-9;
            (Best, _cost) = (plan, cost);
            if (better)
                _progress?.Report(Made(Bound));
        }
    }

    /// <summary>Takes a bound that is higher.</summary>
    public void Raise(double bound)
    {
        lock (_guard)
            Bound = Math.Max(Bound, bound);
    }

    /// <summary>The best plan with a bound, which is never above its cost.</summary>
    public Plan Made(double bound) => new(Best, Math.Min(bound, _cost), "solver");
}
