using Pyrometron.Core.Fleet;
using Pyrometron.Core.Materials;
using Pyrometron.Core.Stores;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Weeks;

namespace Pyrometron.Server.Stores;

/// <summary>A product as it is sent.</summary>
/// <param name="Facts">What is printed on it; nothing of it is needed.</param>
/// <param name="PackAmount">What a pack holds, in the unit of the kind: g, ml, sheets or pieces.</param>
/// <param name="PackPrice">In the house's currency, 0 to 100,000.</param>
/// <param name="LeadDays">From the order to the day it is on the shelf, 0 to 365; 7 where missing.</param>
/// <param name="Fits">Models that it is for; empty for any.</param>
/// <param name="LowAt">With less than this it is low.</param>
public sealed record ProductDraft(
    ProductKind? Kind,
    string? Name,
    ProductFactsDto? Facts,
    double? PackAmount,
    double? PackPrice,
    int? LeadDays,
    IReadOnlyList<string>? Fits,
    double? LowAt
);

/// <summary>What is printed on a product.</summary>
/// <param name="ConductivityWPerMK">Above 0 to 500 W/(m·K).</param>
/// <param name="DensityGPerCm3">Above 0 to 25 g/cm³.</param>
/// <param name="ThicknessMm">Of a pad, 0.1 to 10 mm.</param>
/// <param name="SheetWidthMm">Of a pad, 1 to 2,000 mm.</param>
/// <param name="SheetHeightMm">Of a pad, 1 to 2,000 mm.</param>
/// <param name="MostCompression">Above 0 to 0.9 of its thickness.</param>
/// <param name="StrengthPercent">Of alcohol, above 0 to 100 %.</param>
/// <param name="ShelfMonths">1 to 240.</param>
/// <param name="OpenMonths">1 to 240.</param>
/// <param name="Note">Up to 300 characters.</param>
public sealed record ProductFactsDto(
    double? ConductivityWPerMK,
    double? DensityGPerCm3,
    Viscosity? Viscosity,
    PasteNature? Nature,
    bool? Abrasive,
    bool? NeedsWarming,
    bool? NotOnAluminium,
    double? ThicknessMm,
    double? SheetWidthMm,
    double? SheetHeightMm,
    double? MostCompression,
    double? StrengthPercent,
    int? ShelfMonths,
    int? OpenMonths,
    string? Note
);

/// <summary>Makes a product of what was sent, and says of all that is wrong where and what.</summary>
/// <param name="code">Its address.</param>
internal sealed class ProductReader(string code, ProductDraft draft) : RequestReader
{
    private const int LongestCode = 40,
        LongestName = 80,
        LongestNote = 300,
        MostMonths = 240,
        MostModels = 100;

    private const double LargestMm = 2_000,
        MostPrice = 100_000;

    /// <summary>The product; null where anything is wrong with it.</summary>
    public Product? Read()
    {
        if (!Texts.IsCode(code, LongestCode))
            Wrong("", $"a code is letters, digits and hyphens, {LongestCode} at most", 0);
        if (draft.Kind is not { } kind)
            Wrong("/kind", $"kind is needed: one of {Words.List<ProductKind>()}", 0);
        if (!Texts.IsLine(draft.Name, LongestName))
            Wrong("/name", $"name is needed: {LongestName} characters at most, on one line", 0);
        if (draft.PackAmount is not (> 0 and <= Application.Stores.StoresUseCases.MostAmount))
            Wrong("/packAmount", "packAmount is needed: what a pack holds, above 0 and up to 100000", 0);
        if (draft.Fits?.Count > MostModels || draft.Fits?.Any(m => !Texts.IsLine(m, LongestName)) == true)
            Wrong("/fits", $"fits lists up to {MostModels} models by their names", 0);
        var facts = Facts(draft.Facts);
        if (
            draft.Kind == ProductKind.Pads
            && (facts.ThicknessMm is null || facts.SheetWidthMm is null || facts.SheetHeightMm is null)
        )
            Wrong("/facts/thicknessMm", "a pad needs thickness, width and height of its sheet", 0);
        var product = new Product(
            code,
            draft.Kind ?? default,
            draft.Name?.Trim() ?? "",
            facts,
            new Pack(
                draft.PackAmount ?? 1,
                Above("/packPrice", draft.PackPrice, 0, MostPrice, mayBeLeast: true),
                draft.LeadDays is null ? 7 : Within("/leadDays", draft.LeadDays, 0, 365)
            ),
            [.. (draft.Fits ?? []).Distinct()],
            Above("/lowAt", draft.LowAt, 0, Application.Stores.StoresUseCases.MostAmount, mayBeLeast: true)
        );
        return Problems.Count == 0 ? product : null;
    }

    private ProductFacts Facts(ProductFactsDto? sent) =>
        sent is null
            ? new()
            : new(
                Above("/facts/conductivityWPerMK", sent.ConductivityWPerMK, 0, 500),
                Above("/facts/densityGPerCm3", sent.DensityGPerCm3, 0, 25),
                sent.Viscosity,
                sent.Nature,
                sent.Abrasive ?? false,
                sent.NeedsWarming ?? false,
                sent.NotOnAluminium ?? false,
                Above("/facts/thicknessMm", sent.ThicknessMm, 0.1, 10, mayBeLeast: true),
                Above("/facts/sheetWidthMm", sent.SheetWidthMm, 1, LargestMm, mayBeLeast: true),
                Above("/facts/sheetHeightMm", sent.SheetHeightMm, 1, LargestMm, mayBeLeast: true),
                Above("/facts/mostCompression", sent.MostCompression, 0, 0.9),
                Above("/facts/strengthPercent", sent.StrengthPercent, 0, 100),
                sent.ShelfMonths is null ? null : Within("/facts/shelfMonths", sent.ShelfMonths, 1, MostMonths),
                sent.OpenMonths is null ? null : Within("/facts/openMonths", sent.OpenMonths, 1, MostMonths),
                string.IsNullOrWhiteSpace(sent.Note) ? null
                    : Texts.IsLine(sent.Note, LongestNote) ? sent.Note.Trim()
                    : Wrong("/facts/note", $"a note is {LongestNote} characters at most, on one line", "")
            );

    private double? Above(string at, double? sent, double least, double most, bool mayBeLeast = false)
    {
        if (sent is null || (sent > least && sent <= most) || (mayBeLeast && sent == least))
            return sent;
        return mayBeLeast
            ? Wrong(at, $"{Member(at)} must be a number from {least} to {most}", (double?)null)
            : Wrong(at, $"{Member(at)} must lie above {least} and up to {most}", (double?)null);
    }
}
