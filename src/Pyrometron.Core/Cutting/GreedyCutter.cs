namespace Pyrometron.Core.Cutting;

/// <summary>What makes cutting plans.</summary>
public interface ICutter
{
    /// <summary>A plan for a problem with at least one piece.</summary>
    /// <param name="cancel">Ends the search early: the best plan so far is the answer.</param>
    CuttingPlan Cut(CuttingProblem problem, CancellationToken cancel);
}

/// <summary>Plans without a solver: a few pieces by trying everything, many by filling sheets in many ways.</summary>
public class GreedyCutter : ICutter
{
    private const int Tries = 40,
        CutSheetBySheet = 3;

    /// <inheritdoc/>
    public CuttingPlan Cut(CuttingProblem problem, CancellationToken cancel)
    {
        var index = new int[problem.Sheets.Count];
        var sheets = new List<CutSheet>();
        var bound = 0;
        foreach (var part in OneThickness.Of(problem))
        {
            var (patterns, atLeast) = Cut(part, cancel);
            bound += atLeast;
            sheets.AddRange(part.Cut(patterns, index));
        }
        return new CuttingPlan(sheets, [.. Left(problem, sheets)], bound);
    }

    /// <summary>A plan of one thickness with its bound.</summary>
    protected virtual (IReadOnlyList<Pattern> Patterns, int Bound) Cut(OneThickness part, CancellationToken cancel)
    {
        var bound = Math.Max(SheetBounds.ByArea(part), SheetBounds.ByLargePieces(part));
        if (SmallCutting.Applies(part) && SmallCutting.Best(part) is { } best)
            return (best, best.Count);
        var random = new Random(1);
        var filled = Filled(part, random, cancel).ToList();
        return (Better(part, [.. filled, .. SheetBySheet.Plans(part, random, cancel).Take(CutSheetBySheet)]), bound);
    }

    /// <summary>Plans by filling sheets, the first of them even where it is cancelled.</summary>
    protected static IEnumerable<IReadOnlyList<Pattern>> Filled(OneThickness part, Random random, CancellationToken cancel)
    {
        var fill = new GuillotineFill(part, random);
        var areas = part.Pieces.Select(p => (double)p.Area).ToArray();
        for (var i = 0; i < Tries && (i == 0 || !cancel.IsCancellationRequested); i++)
            // Large pieces are harder to place than their area tells: more so in one try than in another.
            yield return fill.Plan([.. areas.Select(a => Math.Pow(a, 1 + (0.5 * random.NextDouble())))]);
    }

    /// <summary>Plans up to the first that is as good as can be.</summary>
    protected static List<T> Until<T>(IEnumerable<T> plans, Func<T, bool> last)
    {
        var taken = new List<T>();
        foreach (var plan in plans)
        {
            taken.Add(plan);
            if (last(plan))
                break;
        }
        return taken;
    }

    /// <summary>The plan that leaves the fewest pieces out, needs the fewest sheets, and of them the smallest.</summary>
    protected static IReadOnlyList<Pattern> Better(OneThickness part, IEnumerable<IReadOnlyList<Pattern>> plans) =>
        plans
            .OrderBy(p => -p.Sum(s => s.Spots.Count))
            .ThenBy(p => p.Count)
            .ThenBy(p => p.Sum(s => part.Sheets[s.Sheet].Area))
            .First();

    private static IEnumerable<LeftPieces> Left(CuttingProblem problem, List<CutSheet> sheets)
    {
        var cut = sheets.SelectMany(s => s.Pieces).CountBy(p => p.Piece).ToDictionary();
        for (var i = 0; i < problem.Pieces.Count; i++)
        {
            var piece = problem.Pieces[i];
            if (piece.Count - cut.GetValueOrDefault(i) is var missing and > 0)
                yield return new LeftPieces(i, missing, Why(problem, piece));
        }
    }

    private static NotCut Why(CuttingProblem problem, PadPiece piece)
    {
        var same = problem.Sheets.Where(s => s.Thickness == piece.Thickness).ToList();
        return same.Count == 0 ? NotCut.NoThickness
            : same.Exists(s => piece.Size.Within(s.Size) || (problem.Rotate && piece.Size.Turned.Within(s.Size))) ? NotCut.UsedUp
            : NotCut.TooLarge;
    }
}
