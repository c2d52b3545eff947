using Pyrometron.Core.Materials;

namespace Pyrometron.Core.Stores;

/// <summary>Pads of one size that a machine takes.</summary>
public readonly record struct PadCut(double WidthMm, double HeightMm, double ThicknessMm, int Count)
{
    /// <summary>Of all of them, mm².</summary>
    public double AreaMm2 => WidthMm * HeightMm * Count;
}

/// <summary>What a job takes of one kind.</summary>
/// <param name="Amount">In the unit of the kind; of pads how many pieces.</param>
/// <param name="ThicknessMm">Of pads.</param>
/// <param name="Cuts">Of pads, their sizes.</param>
/// <param name="Known">False where nobody noted how much it is: then at least some.</param>
public sealed record Need(ProductKind Kind, double Amount, double? ThicknessMm, IReadOnlyList<PadCut> Cuts, bool Known = true)
{
    /// <summary>How much of a sheet is used where pads are cut from it by hand. Common practice, no source.</summary>
    private const double UsedOfASheet = 0.8;

    /// <summary>A need that is no pad.</summary>
    public static Need Of(ProductKind kind, double amount) => new(kind, amount, null, []);

    /// <summary>How much of a lot it takes, in the unit of its product; null where it cannot be had from it.</summary>
    public double? From(Lot lot)
    {
        if (Kind != ProductKind.Pads)
            return Amount;
        var (width, height) = (lot.WidthMm ?? 0, lot.HeightMm ?? 0);
        bool Fits(PadCut c) => (c.WidthMm <= width && c.HeightMm <= height) || (c.HeightMm <= width && c.WidthMm <= height);
        return lot.SheetMm2 > 0 && Cuts.All(Fits) ? SheetsOf(lot) : null;
    }

    /// <summary>How many sheets of a lot pads take by their area.</summary>
    internal double SheetsOf(Lot lot) => Cuts.Sum(c => c.AreaMm2) / UsedOfASheet / lot.SheetMm2;
}
