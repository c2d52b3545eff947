using Google.OrTools.Sat;
using Pyrometron.Core.Cutting;

namespace Pyrometron.Planning.Cutting;

/// <summary>
/// Fills sheets and cuts them one by one in many ways, on one processor, while on the other the linear relaxation over all ways
/// to cut one sheet, made as they are needed (Gilmore and Gomory 1961, 1965), tells by its value rounded up how few sheets would
/// do; where they are not enough, a constraint solver chooses among all ways found.
/// </summary>
public sealed class SolverCutter : GreedyCutter
{
    /// <summary>
    /// Seconds for filling, for the relaxation, for cutting sheet by sheet (beside both and then on both processors), and for
    /// choosing, of one thickness.
    /// </summary>
    private const double FillingSeconds = 0.15,
        RelaxationSeconds = 0.8,
        SheetsSeconds = 1.5,
        ChoiceSeconds = 0.2;

    /// <summary>So many times as long may it think: 1 where somebody waits.</summary>
    public double Patience { get; init; } = 1;

    /// <summary>A missing piece costs more than any number of sheets.</summary>
    private const long OfMissing = 100_000_000_000,
        OfSheet = 1_000_000,
        OfArea = 500;

    /// <inheritdoc/>
    protected override (IReadOnlyList<Pattern> Patterns, int Bound) Cut(OneThickness part, CancellationToken cancel)
    {
        if (SmallCutting.Applies(part) && SmallCutting.Best(part) is { } small)
            return (small, small.Count);
        var bound = Math.Max(SheetBounds.ByArea(part), SheetBounds.ByLargePieces(part));
        using var over = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        over.CancelAfter(TimeSpan.FromSeconds(Patience * SheetsSeconds));
        var proven = bound;
        bool AtBound(IReadOnlyList<Pattern> plan) =>
            plan.Count <= Volatile.Read(ref proven) && plan.Sum(p => p.Spots.Count) == part.Needed.Sum();
        List<IReadOnlyList<Pattern>> SheetPlans(int seed)
        {
            var found = Until(SheetBySheet.Plans(part, new Random(seed), over.Token), AtBound);
            over.Cancel();
            return found;
        }
        var beside = Task.Run(() => SheetPlans(1), CancellationToken.None);
        using var enough = CancellationTokenSource.CreateLinkedTokenSource(over.Token);
        var knapsack = GuillotineKnapsack.For(part);
        if (knapsack is not null)
            enough.CancelAfter(TimeSpan.FromSeconds(Patience * FillingSeconds));
        var plans = Until(Filled(part, new Random(1), enough.Token), AtBound);
        IEnumerable<Pattern> ways = [];
        if (!plans.Exists(AtBound) && knapsack is not null)
        {
            using var relaxation = new Relaxation(part, knapsack, Better(part, plans));
            relaxation.Settle(Patience * RelaxationSeconds, over.Token);
            ways = [.. relaxation.Ways];
            Volatile.Write(ref proven, bound = Math.Max(bound, relaxation.Bound));
            if (!plans.Exists(AtBound))
                plans.AddRange(SheetPlans(2));
        }
        else
            over.Cancel();
        plans.AddRange(beside.GetAwaiter().GetResult());
        var best = Better(part, plans);
        if (!AtBound(best) && !cancel.IsCancellationRequested)
            best = Better(part, [best, Chosen(part, [.. plans.SelectMany(p => p), .. ways], best)]);
        return (best, bound);
    }

    /// <summary>The best choice of ways that the solver finds in its time; never worse than the plan it begins with.</summary>
    private List<Pattern> Chosen(OneThickness part, List<Pattern> pool, IReadOnlyList<Pattern> begin)
    {
        var types = part.Needed.Count;
        var ways = pool.GroupBy(p => (p.Sheet, string.Join(' ', p.Counts(types)))).Select(g => g.First()).ToList();
        var counts = ways.ConvertAll(w => w.Counts(types));
        var start = begin.GroupBy(p => (p.Sheet, string.Join(' ', p.Counts(types)))).ToDictionary(g => g.Key, g => g.Count());
        var model = new CpModel();
        var times = ways.ConvertAll(w => model.NewIntVar(0, part.Stock[w.Sheet], ""));
        var missing = part.Needed.Select(n => model.NewIntVar(0, n, "")).ToList();
        for (var t = 0; t < types; t++)
            model.Add(LinearExpr.WeightedSum(times, counts.Select(c => c[t])) + missing[t] >= part.Needed[t]);
        for (var s = 0; s < part.Sheets.Count; s++)
            model.Add(LinearExpr.Sum(times.Where((_, w) => ways[w].Sheet == s)) <= part.Stock[s]);
        var largest = part.Sheets.Max(s => s.Area);
        long Price(Pattern way) => OfSheet + (OfArea * part.Sheets[way.Sheet].Area / largest);
        model.Minimize(
            LinearExpr.WeightedSum(times, ways.Select(Price)) + LinearExpr.WeightedSum(missing, missing.Select(_ => OfMissing))
        );
        for (var w = 0; w < ways.Count; w++)
            model.AddHint(times[w], start.GetValueOrDefault((ways[w].Sheet, string.Join(' ', counts[w]))));
        var solver = ConstraintSolver.Of(
            FormattableString.Invariant($"max_time_in_seconds:{Patience * ChoiceSeconds} num_workers:1")
        );
        return solver.Solve(model) is CpSolverStatus.Optimal or CpSolverStatus.Feasible
            ? [.. ways.SelectMany((w, i) => Enumerable.Repeat(w, (int)solver.Value(times[i])))]
            : [.. begin];
    }
}
