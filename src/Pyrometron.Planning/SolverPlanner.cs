using System.Diagnostics;
using Google.OrTools.Sat;
using Pyrometron.Core.Planning;

namespace Pyrometron.Planning;

/// <summary>
/// Plans with a constraint solver. A small problem is solved as a whole. A large one first says which job goes into which shift
/// (<see cref="Relaxation"/>, which also gives the bound), then day by day when, then ever again some shifts are arranged anew
/// while the others stay, as long as there is time.
/// </summary>
public sealed class SolverPlanner : IPlanner
{
    /// <summary>Legs of all tours up to which a problem is solved as a whole.</summary>
    private const int LegsAtOnce = 12_000;

    /// <summary>Jobs that are arranged anew at once.</summary>
    private const int JobsAtOnce = 60;

    /// <summary>Whether the solver's native library is there and can be loaded.</summary>
    public static bool Available { get; } = Try();

    /// <inheritdoc/>
    public Plan Solve(PlanProblem problem, double seconds, IProgress<Plan>? progress, CancellationToken cancel)
    {
        var clock = Stopwatch.StartNew();
        double Left() => seconds - clock.Elapsed.TotalSeconds;
        var shifts = new Shifts(problem);
        var best = GreedyPlanner.Best(problem, cancel);
        var bound = problem.Unavoidable;
        void Told() => progress?.Report(Made(best, bound));
        bool Better(Roster? candidate)
        {
            if (candidate is null || candidate.Cost > best.Cost)
                return false;
            var gained = candidate.Cost < best.Cost - 1e-9;
            best = candidate;
            if (gained)
                Told();
            return gained;
        }

        Told();
        if (shifts.All.Count == 0 || problem.Jobs.Count == 0)
            return Made(best, best.Cost);
        if (Legs(shifts) <= LegsAtOnce)
        {
            var all = Enumerable.Range(0, shifts.All.Count).ToList();
            var jobs = Enumerable.Range(0, problem.Jobs.Count).ToList();
            var model = new ShiftModel(shifts, best, all, jobs, j => problem.LeavingOut(problem.Jobs[j]), bySequence: true);
            if (model.Solve(Math.Max(0.1, Left()), 1, cancel) is { } whole)
            {
                Better(Rebuilt(problem, whole.Placed));
                bound = Math.Max(bound, whole.Bound);
            }
            return Made(best, bound);
        }
        if (Relaxation.Solve(shifts, best, Left() * 0.4, cancel) is { } relaxed)
        {
            bound = Math.Max(bound, relaxed.Bound);
            if (relaxed.Shift.Length > 0)
                Better(DayByDay(shifts, relaxed.Shift, Left() * 0.5, cancel));
        }
        Improve(shifts, () => best, Better, Left, cancel);
        return Made(best, bound);
    }

    private static Plan Made(Roster roster, double bound) =>
        new(roster.Assignments, roster.Cost, Math.Min(bound, roster.Cost), "solver");

    private static int Legs(Shifts shifts) =>
        shifts.All.Sum(s =>
        {
            var n = shifts.Problem.Jobs.Count(j => shifts.Places(j, s).Any());
            return n * n;
        });

    /// <summary>Jobs where a model put them, and each that then still has no place where it costs least.</summary>
    private static Roster Rebuilt(PlanProblem problem, IEnumerable<Assignment> placed)
    {
        var roster = Roster.Of(problem, placed);
        GreedyPlanner.Fill(
            roster,
            Enumerable.Range(0, problem.Jobs.Count).OrderByDescending(j => problem.LeavingOut(problem.Jobs[j]))
        );
        return roster;
    }

    /// <summary>When each job stands on the day that it was given; what does not fit goes to the next day.</summary>
    private static Roster DayByDay(Shifts shifts, int[] given, double seconds, CancellationToken cancel)
    {
        var problem = shifts.Problem;
        var roster = Roster.Of(problem, GreedyPlanner.Locked(problem));
        var clock = Stopwatch.StartNew();
        var waiting = new List<int>();
        for (var g = 0; g < shifts.Groups.Count; g++)
        {
            var group = shifts.Groups[g];
            var jobs = Enumerable.Range(0, given.Length).Where(j => group.Contains(given[j])).Concat(waiting).ToList();
            if (jobs.Count == 0)
                continue;
            var tomorrow = (shifts.All[group[0]].Span.From / PlanProblem.Day) + 1;
            double Waiting(int j) => PlanProblem.Lateness(problem.Jobs[j], tomorrow) + (0.05 * problem.Jobs[j].Weight) + 0.1;
            var time = Math.Max(0.2, (seconds - clock.Elapsed.TotalSeconds) / (shifts.Groups.Count - g));
            var placed = new ShiftModel(shifts, roster, group, jobs, Waiting).Solve(time, 1, cancel)?.Placed ?? [];
            foreach (var a in placed.Where(a => !roster.Has(a.Job)).OrderBy(a => a.Start))
                roster.TryPut(a);
            waiting = [.. jobs.Where(j => !roster.Has(j))];
        }
        return Rebuilt(problem, roster.Assignments);
    }

    private static void Improve(Shifts shifts, Func<Roster> best, Func<Roster?, bool> better, Func<double> left, CancellationToken cancel)
    {
        var chance = new Random(1);
        for (var round = 1; left() > 0.3 && !cancel.IsCancellationRequested; round++)
        {
            var now = best();
            var arranged = Neighbourhood(shifts, now, chance);
            var jobs = arranged
                .SelectMany(s => now.Of(shifts.All[s].Person, shifts.All[s].Index).Select(a => a.Job))
                .Concat(Enumerable.Range(0, shifts.Problem.Jobs.Count).Where(j => !now.Has(j)).Take(JobsAtOnce / 2))
                .ToList();
            if (jobs.Count == 0)
                continue;
            var model = new ShiftModel(shifts, now, arranged, jobs, j => shifts.Problem.LeavingOut(shifts.Problem.Jobs[j]));
            if (model.Solve(Math.Min(left(), 2), round, cancel) is { } answer)
                better(Rebuilt(shifts.Problem, now.Assignments.Where(a => !jobs.Contains(a.Job)).Concat(answer.Placed)));
        }
    }

    /// <summary>
    /// Shifts that may gain by being arranged together: of one day and a day near it, or those in which one zone is visited.
    /// </summary>
    private static List<int> Neighbourhood(Shifts shifts, Roster now, Random chance)
    {
        IEnumerable<int> from;
        if (chance.Next(2) == 0)
        {
            var g = chance.Next(shifts.Groups.Count);
            var near = Math.Clamp(g + chance.Next(-2, 3), 0, shifts.Groups.Count - 1);
            from = shifts.Groups[g].Union(shifts.Groups[near]);
        }
        else
        {
            var zone = shifts.Problem.Jobs[chance.Next(shifts.Problem.Jobs.Count)].Zone;
            from = Enumerable.Range(0, shifts.All.Count)
                .Where(s => now.Of(shifts.All[s].Person, shifts.All[s].Index).Any(a => shifts.Problem.Jobs[a.Job].Zone == zone));
        }
        var arranged = new List<int>();
        var count = 0;
        foreach (var s in from.OrderBy(_ => chance.Next()))
        {
            var here = now.Of(shifts.All[s].Person, shifts.All[s].Index).Count;
            if (arranged.Count > 0 && count + here > JobsAtOnce)
                continue;
            arranged.Add(s);
            count += here;
        }
        return arranged;
    }

    private static bool Try()
    {
        try
        {
            return new CpModel() is { } model && model.NewBoolVar("") is not null && new CpSolver().Solve(model) is CpSolverStatus.Optimal;
        }
        catch (Exception error) when (error is DllNotFoundException or TypeInitializationException or BadImageFormatException)
        {
            return false;
        }
    }
}
