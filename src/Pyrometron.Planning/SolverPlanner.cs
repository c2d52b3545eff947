using Google.OrTools.Sat;
using Pyrometron.Core.Planning;

namespace Pyrometron.Planning;

/// <summary>
/// Plans with a constraint solver. First a plan is bettered by ruin and recreate while a bound is worked out beside; a problem
/// that is small enough then goes to the solver as a whole, which proves its optimum or comes near; a larger one is bettered on
/// by two at once until the time is over.
/// </summary>
public sealed class SolverPlanner : IPlanner
{
    /// <summary>Legs of all tours up to which the solver is given a problem as a whole.</summary>
    private const int LegsAtOnce = 60_000;

    /// <summary>The share of the time, and the seconds at most, before a small problem goes to the solver.</summary>
    private const double HeadStart = 0.15,
        HeadSeconds = 0.5;

    /// <summary>
    /// By how much dearer a plan may become in the mean and be gone on from, at first and in the end: about what a job costs a
    /// day, and what a minute of set-up does.
    /// </summary>
    private const double HeatAtFirst = 0.6,
        HeatInTheEnd = 0.005;

    /// <summary>Whether the solver's native library is there and can be loaded.</summary>
    public static bool Available { get; } = Try();

    /// <inheritdoc/>
    public Plan Solve(PlanProblem problem, double seconds, IProgress<Plan>? progress, CancellationToken cancel)
    {
        var run = new SolverRun(problem, seconds, progress, cancel);
        if (run.Shifts.All.Count == 0 || problem.Jobs.Count == 0)
            return run.Made(run.Best.Cost);
        var whole = Legs(run.Shifts) <= LegsAtOnce;
        var until = whole ? Math.Min(HeadStart, HeadSeconds / Math.Max(seconds, HeadSeconds)) : 1;
        Task.WaitAll(
            Task.Run(() => Ruin(run, 1, until), CancellationToken.None),
            Task.Run(
                () =>
                {
                    Bound(run, until);
                    Ruin(run, 2, until);
                },
                CancellationToken.None
            )
        );
        if (whole && !run.Proven && !cancel.IsCancellationRequested)
            SolveWhole(run);
        FillUp(run);
        return run.Made(run.Bound);
    }

    /// <summary>Whatever still fits and saves more than it costs is put in.</summary>
    private static void FillUp(SolverRun run)
    {
        var filled = run.Best.Copy();
        var jobs = run.Problem.Jobs;
        GreedyPlanner.Fill(filled, Enumerable.Range(0, jobs.Count).OrderByDescending(j => run.Problem.LeavingOut(jobs[j])));
        run.Offer(filled);
    }

    private static void SolveWhole(SolverRun run)
    {
        var model = new WholeModel(run.Shifts, run.Best);
        if (model.Solve(Math.Max(0.1, run.Left), run.Cancel) is not { } answer)
            return;
        run.Raise(answer.Bound);
        if (run.Best.With(answer.Placed) is not { } plan)
            return;
        // The model does not care when a day's work begins; people do.
        var early = plan.Copy();
        for (var p = 0; p < run.Problem.People.Count; p++)
        for (var s = 0; s < run.Problem.People[p].Shifts.Count; s++)
            early.Compact(p, s);
        run.Offer(early.Cost <= plan.Cost ? early : plan);
    }

    private static void Bound(SolverRun run, double until)
    {
        var bound = new LagrangianBound(run.Best);
        while (run.GoesOn(until) && bound.Round(run.Best.Cost))
            run.Raise(bound.Best);
    }

    private static void Ruin(SolverRun run, int seed, double until)
    {
        var (ruin, from) = (new RuinAndRecreate(run.Best, seed), run.Passed);
        while (run.GoesOn(until))
        {
            var left = 1 - ((run.Passed - from) / (until - from));
            if (ruin.Round((HeatAtFirst * left * left) + HeatInTheEnd))
                run.Offer(ruin.Best);
        }
    }

    private static int Legs(Shifts shifts) =>
        shifts.All.Sum(s =>
        {
            var n = shifts.Problem.Jobs.Count(j => shifts.Places(j, s).Any());
            return n * n;
        });

    private static bool Try()
    {
        try
        {
            return new CpModel() is { } model
                && model.NewBoolVar("") is not null
                && ConstraintSolver.Of().Solve(model) is CpSolverStatus.Optimal;
        }
        catch (Exception error) when (error is DllNotFoundException or TypeInitializationException or BadImageFormatException)
        {
            return false;
        }
    }
}
