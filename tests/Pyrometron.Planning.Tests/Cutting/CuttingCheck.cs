using Pyrometron.Core.Cutting;

namespace Pyrometron.Planning.Tests.Cutting;

/// <summary>Checks a cutting plan by its rules alone, with none of the code that made it.</summary>
internal static class CuttingCheck
{
    /// <summary>
    /// Asserts that a plan can be cut: counts, stock, thickness, sheets' edges, kerf and cuts from edge to edge.
    /// </summary>
    public static void Holds(CuttingProblem problem, CuttingPlan plan)
    {
        for (var i = 0; i < problem.Pieces.Count; i++)
        {
            var cut = plan.Sheets.SelectMany(s => s.Pieces).Count(p => p.Piece == i);
            Assert.Equal(problem.Pieces[i].Count, cut + plan.Left.Where(l => l.Piece == i).Sum(l => l.Count));
        }
        Assert.Equal(plan.Sheets.Count, plan.Sheets.DistinctBy(s => (s.Sheet, s.Index)).Count());
        foreach (var sheet in plan.Sheets)
        {
            var of = problem.Sheets[sheet.Sheet];
            Assert.InRange(sheet.Index, 0, of.Count - 1);
            foreach (var placed in sheet.Pieces)
            {
                var piece = problem.Pieces[placed.Piece];
                Assert.Equal(of.Thickness, piece.Thickness);
                Assert.True(placed.Size == piece.Size || (problem.Rotate && placed.Size == piece.Size.Turned));
                Assert.InRange(placed.X, 0, of.Size.Width - placed.Size.Width);
                Assert.InRange(placed.Y, 0, of.Size.Height - placed.Size.Height);
            }
            Assert.True(
                Cuttable(sheet.Pieces, problem.Kerf),
                $"sheet {sheet.Sheet}.{sheet.Index} cannot be cut from edge to edge"
            );
        }
    }

    /// <summary>Whether pieces can be parted by cuts from edge to edge, each as wide as the kerf.</summary>
    private static bool Cuttable(IReadOnlyList<PlacedPiece> pieces, int kerf)
    {
        if (pieces.Count < 2)
            return true;
        return Parted(pieces, p => p.X, p => p.X + p.Size.Width, kerf)
            || Parted(pieces, p => p.Y, p => p.Y + p.Size.Height, kerf);
    }

    private static bool Parted(
        IReadOnlyList<PlacedPiece> pieces,
        Func<PlacedPiece, int> from,
        Func<PlacedPiece, int> to,
        int kerf
    )
    {
        var end = int.MinValue;
        var sorted = pieces.OrderBy(from).ToList();
        for (var i = 1; i < sorted.Count; i++)
        {
            end = Math.Max(end, to(sorted[i - 1]));
            // Whatever can be parted can be parted at any such place: the first will do.
            if (from(sorted[i]) - end >= kerf)
                return Cuttable(sorted[..i], kerf) && Cuttable(sorted[i..], kerf);
        }
        return false;
    }
}
