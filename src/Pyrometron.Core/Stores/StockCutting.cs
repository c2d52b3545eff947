using System.Globalization;
using Pyrometron.Core.Cutting;
using Pyrometron.Core.Materials;

namespace Pyrometron.Core.Stores;

/// <summary>Pads of jobs to be cut from what is on the shelf.</summary>
/// <param name="Problem">Its sheets are lots by their number, its pieces machines by their tag.</param>
/// <param name="Begun">Lots of which part of a sheet is left, of a shape that nobody noted: they are not planned with.</param>
public sealed record StockCutting(CuttingProblem Problem, IReadOnlyList<Lot> Begun)
{
    /// <summary>Narrower off-cuts are not kept, mm. Common practice, no source.</summary>
    public const double LeastOffCutMm = 10;

    /// <summary>The pads of some jobs that do not lie ready.</summary>
    /// <param name="kerfMm">What each cut takes away.</param>
    public static StockCutting Of(Shelf shelf, IEnumerable<JobAhead> jobs, double kerfMm)
    {
        var lots = shelf
            .Lots.Select(l => (Lot: l, Product: shelf.Product(l.Product)))
            .Where(l =>
                l.Product.Kind == ProductKind.Pads
                && l.Product.Facts.ThicknessMm is not null
                && l.Lot.SheetMm2 > 0
                && l.Lot.BadBecause is null
                && !l.Lot.IsExpired(l.Product, shelf.Day)
            )
            .ToList();
        var pieces = jobs.SelectMany(j =>
                j.Needs.Where(n => n.ThicknessMm is { } mm && shelf.CutPads.GetValueOrDefault((j.Asset, mm)) < n.Amount)
                    .SelectMany(n => n.Cuts.Select(c => Piece(j.Asset, c)))
            )
            .ToList();
        return new StockCutting(
            new CuttingProblem(
                [
                    .. lots.Where(l => l.Lot.Amount >= 1)
                        .Select(l =>
                            Sheet(
                                l.Lot.Id.ToString(CultureInfo.InvariantCulture),
                                (l.Lot.WidthMm!.Value, l.Lot.HeightMm!.Value),
                                l.Product.Facts.ThicknessMm!.Value,
                                (int)Math.Floor(l.Lot.Amount + 1e-9)
                            )
                        ),
                ],
                pieces,
                Hundredths(kerfMm),
                Rotate: true
            ),
            [.. lots.Where(l => l.Lot.Amount - Math.Floor(l.Lot.Amount + 1e-9) > 0.01).Select(l => l.Lot)]
        );
    }

    /// <summary>A pad as a piece to cut.</summary>
    public static PadPiece Piece(string name, PadCut cut) =>
        new(name, new(Hundredths(cut.WidthMm), Hundredths(cut.HeightMm)), Hundredths(cut.ThicknessMm), cut.Count);

    /// <summary>Sheets to cut from.</summary>
    internal static PadSheet Sheet(string id, (double WidthMm, double HeightMm) size, double thicknessMm, int count) =>
        new(id, new(Hundredths(size.WidthMm), Hundredths(size.HeightMm)), Hundredths(thicknessMm), count);

    private static int Hundredths(double mm) => (int)Math.Round(mm * Size.PerMillimetre);
}
