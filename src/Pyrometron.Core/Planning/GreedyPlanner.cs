namespace Pyrometron.Core.Planning;

/// <summary>
/// Plans without a solver: one job after the other into the place that costs least, in several orders, of which the best stays.
/// Fast, and never far off where there is room; says nothing of how good it is beyond what nobody can help.
/// </summary>
public sealed class GreedyPlanner : IPlanner
{
    /// <summary>What a minute of set-up is taken to cost while choosing: it takes room that other jobs need.</summary>
    private static readonly double[] Prices = [0.01, 0.05, 0.2];

    /// <inheritdoc/>
    public Plan Solve(PlanProblem problem, double seconds, IProgress<Plan>? progress, CancellationToken cancel)
    {
        var best = Best(problem, cancel);
        return new Plan(best.Assignments, best.Cost, problem.Unavoidable, "greedy");
    }

    /// <summary>The best of all orders and prices, locked jobs where they are.</summary>
    public static Roster Best(PlanProblem problem, CancellationToken cancel)
    {
        Roster? best = null;
        foreach (var order in Orders(problem))
        foreach (var price in Prices)
        {
            if (best is not null && cancel.IsCancellationRequested)
                return best;
            var roster = Roster.Of(problem, Locked(problem));
            Fill(roster, order, price);
            if (best is null || roster.Cost < best.Cost)
                best = roster;
        }
        return best!;
    }

    /// <summary>Puts each job that has no place where it costs least, if anywhere.</summary>
    /// <param name="roster">What is filled.</param>
    /// <param name="order">The jobs, in the order in which they choose.</param>
    /// <param name="setupPrice">What a minute of set-up is taken to cost.</param>
    public static void Fill(Roster roster, IEnumerable<int> order, double setupPrice = PlanProblem.SetupCost)
    {
        foreach (var job in order)
            if (!roster.Has(job) && Cheapest(roster, job, setupPrice) is { } place)
                roster.TryPut(place);
    }

    /// <summary>The locked jobs of a problem in their places.</summary>
    public static IEnumerable<Assignment> Locked(PlanProblem problem) =>
        problem.Jobs.Select((job, i) => (job, i)).Where(j => j.job.Locked is not null)
            .Select(j => new Assignment(j.i, j.job.Locked!.Value.Person, j.job.Locked.Value.Start));

    private static Assignment? Cheapest(Roster roster, int index, double setupPrice)
    {
        var problem = roster.Problem;
        var job = problem.Jobs[index];
        (double Cost, Assignment At)? best = null;
        for (var p = 0; p < problem.People.Count; p++)
        {
            if (!problem.May(problem.People[p], job))
                continue;
            for (var s = 0; s < problem.People[p].Shifts.Count; s++)
                foreach (var (start, setup) in roster.Places(index, p, s))
                {
                    // Among equals the earliest: what is done is done.
                    var cost =
                        PlanProblem.Lateness(job, start / PlanProblem.Day) + setupPrice * setup + 1e-6 * start;
                    if (best is null || cost < best.Value.Cost)
                        best = (cost, new Assignment(index, p, start));
                }
        }
        return best?.At;
    }

    /// <summary>The orders that are tried: by weight in an hour, by weight, by due day.</summary>
    private static IEnumerable<IReadOnlyList<int>> Orders(PlanProblem problem)
    {
        var all = Enumerable.Range(0, problem.Jobs.Count).ToList();
        PlanJob Job(int i) => problem.Jobs[i];
        yield return [.. all.OrderByDescending(i => Job(i).Weight / (Job(i).Minutes + 10)).ThenBy(i => Job(i).DueDay ?? int.MaxValue)];
        yield return [.. all.OrderByDescending(i => Job(i).Weight).ThenBy(i => Job(i).DueDay ?? int.MaxValue)];
        yield return
        [
            .. all.OrderBy(i => Math.Max(0, Job(i).DueDay ?? int.MaxValue)).ThenByDescending(i => Job(i).Weight / (Job(i).Minutes + 10)),
        ];
    }
}
