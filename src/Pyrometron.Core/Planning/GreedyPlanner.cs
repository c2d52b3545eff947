namespace Pyrometron.Core.Planning;

/// <summary>
/// Plans without a solver: one job after the other into the place that costs least, in several orders, of which the best stays.
/// Says nothing of how good it is beyond what nobody can help.
/// </summary>
public sealed class GreedyPlanner : IPlanner
{
    /// <summary>What a minute of set-up is taken to cost while choosing: it takes room that other jobs need.</summary>
    private static readonly double[] Prices = [0.01, 0.05, 0.2];

    /// <summary>Differences of cost that decide between places that cost the same.</summary>
    private const double Near = 0.02;

    /// <inheritdoc/>
    public Plan Solve(PlanProblem problem, double seconds, IProgress<Plan>? progress, CancellationToken cancel)
    {
        var best = Best(problem, () => !cancel.IsCancellationRequested);
        var kept = Kept(problem);
        return new Plan(kept.Cost <= best.Cost ? kept : best, problem.Unavoidable, "greedy");
    }

    /// <summary>The best of all orders and prices that there is time for, one at least; locked jobs where they are.</summary>
    /// <param name="goesOn">Whether there is time for another one.</param>
    public static Roster Best(PlanProblem problem, Func<bool> goesOn)
    {
        Roster? best = null;
        var locked = Roster.Of(problem, Locked(problem));
        foreach (var order in Orders(problem))
        foreach (var price in Prices)
        {
            if (best is not null && !goesOn())
                return best;
            var roster = locked.Copy();
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
        var places = new List<Place>();
        foreach (var job in order)
            if (!roster.Has(job) && Cheapest(roster, job, setupPrice, places) is { } best)
                roster.Put(job, best.Opening, best.Place);
    }

    /// <summary>
    /// The plan before as far as it can still stand, and the rest put in where it costs least; the one to better where little
    /// is to move.
    /// </summary>
    public static Roster Kept(PlanProblem problem)
    {
        var roster = Roster.Of(problem, Locked(problem));
        var before = problem
            .Jobs.Select((job, i) => (job, i))
            .Where(j => j.job.Before is not null && !roster.Has(j.i))
            .OrderBy(j => j.job.Before!.Value.Start);
        foreach (var (job, i) in before)
            roster.TryPut(At(i, job.Before!.Value));
        Fill(roster, Orders(problem).First());
        return roster;
    }

    /// <summary>The locked jobs of a problem in their places.</summary>
    public static IEnumerable<Assignment> Locked(PlanProblem problem) =>
        problem.Jobs.Select((job, i) => (job, i)).Where(j => j.job.Locked is not null).Select(j => At(j.i, j.job.Locked!.Value));

    private static Assignment At(int job, PlanLock place) => new(job, place.Person, place.Start, place.Helper);

    /// <summary>The place of a job that costs least; null where it has none.</summary>
    /// <param name="places">Used while looking; what is in it is of no use afterwards.</param>
    /// <param name="pass">Whether a place is passed over.</param>
    /// <param name="late">Whether of places that cost the same the latest is taken, so that early ones stay free for what is
    /// urgent.</param>
    internal static (Opening Opening, Place Place)? Cheapest(
        Roster roster,
        int index,
        double setupPrice,
        List<Place> places,
        Func<bool>? pass = null,
        bool late = false
    )
    {
        var job = roster.Problem.Jobs[index];
        var nudge = late ? -1e-6 : 1e-6;
        (double Cost, Opening Opening, Place Place)? best = null;
        foreach (var opening in roster.Openings.Of(index))
        {
            var least = PlanProblem.Lateness(job, opening.Starts[0].First / PlanProblem.Day);
            var room = best is null ? double.PositiveInfinity : best.Value.Cost + Near - least;
            if (room < 0)
                continue;
            roster.Places(index, opening, places, mostSetup: (int)Math.Min(int.MaxValue, room / setupPrice));
            foreach (var place in places)
            {
                var cost =
                    PlanProblem.Placing(job, opening.Person, place.Start / PlanProblem.Day)
                    + (setupPrice * place.Setup)
                    + (nudge * place.Start);
                if ((best is null || cost < best.Value.Cost) && pass?.Invoke() != true)
                    best = (cost, opening, place);
            }
        }
        return best is { } found ? (found.Opening, found.Place) : null;
    }

    /// <summary>The orders that are tried: by weight in an hour, by weight, by due day.</summary>
    private static IEnumerable<IReadOnlyList<int>> Orders(PlanProblem problem)
    {
        var all = Enumerable.Range(0, problem.Jobs.Count).ToList();
        PlanJob Job(int i) => problem.Jobs[i];
        yield return
        [
            .. all.OrderByDescending(i => Job(i).Weight / (Job(i).Minutes + 10)).ThenBy(i => Job(i).DueDay ?? int.MaxValue),
        ];
        yield return [.. all.OrderByDescending(i => Job(i).Weight).ThenBy(i => Job(i).DueDay ?? int.MaxValue)];
        yield return
        [
            .. all.OrderBy(i => Math.Max(0, Job(i).DueDay ?? int.MaxValue))
                .ThenByDescending(i => Job(i).Weight / (Job(i).Minutes + 10)),
        ];
    }
}
