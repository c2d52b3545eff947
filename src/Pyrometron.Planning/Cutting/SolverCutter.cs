using Google.OrTools.Sat;
using Pyrometron.Core.Cutting;

namespace Pyrometron.Planning.Cutting;

/// <summary>
/// Plans by the linear relaxation over all ways to cut one sheet, made as they are needed (Gilmore and Gomory 1961, 1965), whose
/// value rounded up is the bound; a constraint solver then chooses among these ways and those of many filled plans.
/// </summary>
public sealed class SolverCutter : GreedyCutter
{
    /// <summary>
    /// Seconds for filling, for the relaxation, for rounding it, for choosing, and beside these three for repacking, of one
    /// thickness.
    /// </summary>
    private const double FillingSeconds = 0.15,
        RelaxationSeconds = 0.5,
        DivingSeconds = 0.85,
        ChoiceSeconds = 0.2,
        RepackingSeconds = 1.5;

    /// <summary>A missing piece costs more than any number of sheets.</summary>
    private const long OfMissing = 100_000_000_000,
        OfSheet = 1_000_000,
        OfArea = 500;

    /// <summary>Plans filled by the prices of the relaxation.</summary>
    private const int PricedPlans = 10;

    /// <inheritdoc/>
    protected override (IReadOnlyList<Pattern> Patterns, int Bound) Cut(OneThickness part, CancellationToken cancel)
    {
        if (SmallCutting.Applies(part) && SmallCutting.Best(part) is { } small)
            return (small, small.Count);
        var bound = Math.Max(SheetBounds.ByArea(part), SheetBounds.ByLargePieces(part));
        var random = new Random(1);
        using var enough = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        enough.CancelAfter(TimeSpan.FromSeconds(FillingSeconds));
        var filled = Filled(part, random, enough.Token).ToList();
        var best = Better(part, filled);
        bool Proven() => best.Count <= bound && best.Sum(p => p.Spots.Count) == part.Needed.Sum();
        if (Proven() || cancel.IsCancellationRequested)
            return (best, bound);
        using var over = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        over.CancelAfter(TimeSpan.FromSeconds(RepackingSeconds));
        var (begin, atLeast) = (best, bound);
        var repacked = Task.Run(() => Repacked(part, begin, atLeast, over.Token), CancellationToken.None);
        var pool = filled.SelectMany(p => p).ToList();
        if (GuillotineKnapsack.For(part) is { } knapsack)
        {
            using var relaxation = new Relaxation(part, knapsack, best);
            relaxation.Settle(RelaxationSeconds, cancel);
            bound = Math.Max(bound, relaxation.Bound);
            var fill = new GuillotineFill(part, random);
            var priced = Enumerable.Range(0, PricedPlans).Select(_ => fill.Plan(relaxation.Prices)).ToList();
            best = Better(part, [best, .. priced]);
            if (!Proven())
                best = Better(part, [best, relaxation.Dive(fill, DivingSeconds, cancel)]);
            pool = [.. pool, .. relaxation.Ways, .. priced.SelectMany(p => p), .. best];
        }
        if (!Proven())
            best = Better(part, [best, Chosen(part, pool, best)]);
        if (Proven())
            over.Cancel();
        return (Better(part, [best, repacked.GetAwaiter().GetResult()]), bound);
    }

    /// <summary>Repacks on another processor, with chance of its own.</summary>
    private static IReadOnlyList<Pattern> Repacked(
        OneThickness part,
        IReadOnlyList<Pattern> plan,
        int bound,
        CancellationToken over
    )
    {
        var random = new Random(2);
        return new Repacking(part, new GuillotineFill(part, random), random).Fewer(plan, bound, over);
    }

    /// <summary>The best choice of ways that the solver finds in its time; never worse than the plan it begins with.</summary>
    private static List<Pattern> Chosen(OneThickness part, List<Pattern> pool, IReadOnlyList<Pattern> begin)
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
        var solver = new CpSolver
        {
            StringParameters = FormattableString.Invariant($"max_time_in_seconds:{ChoiceSeconds} num_workers:1"),
        };
        return solver.Solve(model) is CpSolverStatus.Optimal or CpSolverStatus.Feasible
            ? [.. ways.SelectMany((w, i) => Enumerable.Repeat(w, (int)solver.Value(times[i])))]
            : [.. begin];
    }
}
