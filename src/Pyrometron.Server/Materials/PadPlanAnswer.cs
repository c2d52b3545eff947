using Pyrometron.Core.Cutting;
using Pyrometron.Core.Messages;

namespace Pyrometron.Server.Materials;

/// <summary>A piece in its place, measured from the upper left corner of its sheet.</summary>
/// <param name="WidthMm">As it lies.</param>
/// <param name="HeightMm">As it lies.</param>
public sealed record PlacedPadAnswer(string Name, double XMm, double YMm, double WidthMm, double HeightMm);

/// <summary>A sheet and what is cut from it, each cut from edge to edge of what it divides.</summary>
/// <param name="Index">Which of the sheets that are alike, from 0.</param>
/// <param name="WasteFraction">The share of the sheet that no piece takes; off-cuts count as waste here.</param>
public sealed record CutSheetAnswer(string SheetId, int Index, IReadOnlyList<PlacedPadAnswer> Placements, double WasteFraction);

/// <summary>Pieces that are not in the plan.</summary>
/// <param name="Count">How many of them.</param>
/// <param name="Reason">Why, in plain English.</param>
public sealed record LeftPadAnswer(string Name, int Count, NotCut Code, string Reason, Message Message);

/// <summary>Which pad is cut where.</summary>
/// <param name="Unplaced">What is not in it, and why.</param>
/// <param name="LowerBoundSheets">
/// Fewer sheets are proven not to do. Where the stock is too small for all that fits some sheet: what would be needed at least.
/// </param>
public sealed record PadPlanAnswer(
    IReadOnlyList<CutSheetAnswer> SheetsUsed,
    IReadOnlyList<LeftPadAnswer> Unplaced,
    int LowerBoundSheets
)
{
    internal static PadPlanAnswer From(CuttingProblem problem, CuttingPlan plan) =>
        new(
            [.. plan.Sheets.Select(s => Sheet(problem, s))],
            [
                .. plan.Left.Select(l =>
                {
                    var why = Why(problem, l);
                    return new LeftPadAnswer(problem.Pieces[l.Piece].Name, l.Count, l.Why, why.ToString(), why);
                }),
            ],
            plan.LowerBound
        );

    private static CutSheetAnswer Sheet(CuttingProblem problem, CutSheet cut)
    {
        var sheet = problem.Sheets[cut.Sheet];
        return new CutSheetAnswer(
            sheet.Id,
            cut.Index,
            [
                .. cut.Pieces.Select(p => new PlacedPadAnswer(
                    problem.Pieces[p.Piece].Name,
                    Mm(p.X),
                    Mm(p.Y),
                    Mm(p.Size.Width),
                    Mm(p.Size.Height)
                )),
            ],
            Math.Round(1 - (cut.Pieces.Sum(p => p.Size.Area) / (double)sheet.Size.Area), 6)
        );
    }

    private static Message Why(CuttingProblem problem, LeftPieces left)
    {
        var piece = problem.Pieces[left.Piece];
        return left.Why switch
        {
            NotCut.NoThickness => Message.Of(
                "No sheet is {thickness} thick. A thicker one lifts the cooler off the chip; a thinner one must still exceed the gap.",
                Value.Millimetre("thickness", Mm(piece.Thickness))
            ),
            NotCut.TooLarge => Message.Of(
                "Every sheet of {thickness} is too small for a piece of {width} by {height}.",
                Value.Millimetre("thickness", Mm(piece.Thickness)),
                Value.Millimetre("width", Mm(piece.Size.Width)),
                Value.Millimetre("height", Mm(piece.Size.Height))
            ),
            _ => Message.Of("The sheets of {thickness} are used up.", Value.Millimetre("thickness", Mm(piece.Thickness))),
        };
    }

    private static double Mm(int hundredths) => hundredths / (double)Size.PerMillimetre;
}
