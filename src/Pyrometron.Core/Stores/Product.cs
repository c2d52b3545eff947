using Pyrometron.Core.Materials;

namespace Pyrometron.Core.Stores;

/// <summary>What a paste does to electricity and metals.</summary>
public enum PasteNature
{
    /// <summary>Does no harm beside the chip.</summary>
    NonConducting,

    /// <summary>Conducts nothing but holds charge: it must not lie between open contacts.</summary>
    Capacitive,

    /// <summary>Shorts what it touches.</summary>
    Conducting,

    /// <summary>Shorts what it touches and dissolves aluminium.</summary>
    LiquidMetal,
}

/// <summary>How thick a paste is. Common practice, no source.</summary>
public enum Viscosity
{
    Thin,
    Medium,
    Thick,
}

/// <summary>What is printed on a product, as far as somebody wrote it down.</summary>
/// <param name="ConductivityWPerMK">Of paste, pads and putty.</param>
/// <param name="DensityGPerCm3">Of paste and putty.</param>
/// <param name="ThicknessMm">Of a sheet of pad, as sold.</param>
/// <param name="SheetWidthMm">Of a sheet of pad.</param>
/// <param name="SheetHeightMm">Of a sheet of pad.</param>
/// <param name="MostCompression">The share of its thickness by which its maker allows a pad to be pressed.</param>
/// <param name="StrengthPercent">Of alcohol.</param>
/// <param name="ShelfMonths">How long it keeps from the day it came in, where its lot tells no date.</param>
/// <param name="OpenMonths">How long it keeps once it is open.</param>
/// <param name="Note">What else is to be known of it.</param>
public sealed record ProductFacts(
    double? ConductivityWPerMK = null,
    double? DensityGPerCm3 = null,
    Viscosity? Viscosity = null,
    PasteNature? Nature = null,
    bool Abrasive = false,
    bool NeedsWarming = false,
    bool NotOnAluminium = false,
    double? ThicknessMm = null,
    double? SheetWidthMm = null,
    double? SheetHeightMm = null,
    double? MostCompression = null,
    double? StrengthPercent = null,
    int? ShelfMonths = null,
    int? OpenMonths = null,
    string? Note = null
);

/// <summary>How a product is bought.</summary>
/// <param name="Amount">What a pack holds, in the product's unit; positive.</param>
/// <param name="Price">In the house's currency; null where nobody said.</param>
/// <param name="LeadDays">From the order to the day it is on the shelf.</param>
public sealed record Pack(double Amount, double? Price, int LeadDays);

/// <summary>Something that the stores keep.</summary>
/// <param name="Code">Its address.</param>
/// <param name="Fits">Models that it is for, such as a fan; empty for any.</param>
/// <param name="LowAt">With less than this it is low; null where nobody drew a line.</param>
public sealed record Product(
    string Code,
    ProductKind Kind,
    string Name,
    ProductFacts Facts,
    Pack Pack,
    IReadOnlyList<string> Fits,
    double? LowAt = null
)
{
    /// <summary>The unit in which a kind is counted: <c>g</c>, <c>ml</c>, <c>sheet</c> or <c>piece</c>.</summary>
    public static string UnitOf(ProductKind kind) =>
        kind switch
        {
            ProductKind.Paste or ProductKind.Putty => "g",
            ProductKind.Alcohol or ProductKind.Remover => "ml",
            ProductKind.Pads => "sheet",
            _ => "piece",
        };

    /// <summary>The area of a sheet, mm²; 0 where it is none or its size is not known.</summary>
    public double SheetMm2 => (Facts.SheetWidthMm ?? 0) * (Facts.SheetHeightMm ?? 0);

    /// <summary>The price of one unit; null where nobody said.</summary>
    public double? PricePerUnit => Pack.Price / Pack.Amount;

    /// <summary>Whether it is for a model.</summary>
    public bool IsFor(string model) => Fits.Count == 0 || Fits.Contains(model);

    /// <summary>Whether a thickness is the one it is sold in.</summary>
    public bool IsOf(double thicknessMm) => Facts.ThicknessMm is { } own && Math.Abs(own - thicknessMm) < 0.005;
}
