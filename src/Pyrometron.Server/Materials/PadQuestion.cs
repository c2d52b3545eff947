using Pyrometron.Core.Materials;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Stores;
using Pyrometron.Server.Hosting;

namespace Pyrometron.Server.Materials;

/// <summary>Places of one cooler that take pads.</summary>
/// <param name="Places">1 to 40 of them.</param>
public sealed record PadQuestion(IReadOnlyList<PadPlaceDto?>? Places);

/// <summary>A place that takes a pad.</summary>
/// <param name="Name">What it serves.</param>
/// <param name="WidthMm">Of the part, 1 to 500 mm; 12 where missing.</param>
/// <param name="HeightMm">Of the part, 1 to 500 mm; 14 where missing.</param>
/// <param name="By">How the thickness was told; imprint where missing.</param>
/// <param name="MeasuredMm">What was read, 0.1 to 10 mm.</param>
/// <param name="Watts">Heat through it, 0 to 1,000 W; nothing is told of kelvins where missing.</param>
/// <param name="OldConductivity">Of the old pads, above 0 to 100 W/(m·K).</param>
public sealed record PadPlaceDto(
    string? Name,
    double? WidthMm,
    double? HeightMm,
    GapReading? By,
    double? MeasuredMm,
    double? Watts,
    double? OldConductivity
);

/// <summary>The pad for a place.</summary>
/// <param name="Says">What to do and why.</param>
/// <param name="NominalMm">The thickness as sold that fits best; null where none does.</param>
/// <param name="FromMm">The thinnest pad that is pressed as it should be.</param>
/// <param name="Take">Code of the product to lay; null for none.</param>
/// <param name="Compression">Of what is laid, as a share.</param>
/// <param name="Kelvin">What it costs its part.</param>
/// <param name="OldKelvin">What the old pads cost it, pressed as much.</param>
public sealed record PadPlaceAnswer(
    string Name,
    PadAdviceCode Code,
    Message Says,
    double GapMm,
    double? NominalMm,
    double FromMm,
    double ToMm,
    string? Take,
    string? TakeName,
    double? TakeMm,
    double? Compression,
    double? Kelvin,
    double? OldKelvin
);

/// <summary>The pads for a cooler.</summary>
/// <param name="Mixed">What is to be thought of where it takes several thicknesses; null where it takes one.</param>
public sealed record PadAdviceAnswer(IReadOnlyList<PadPlaceAnswer> Places, Message? Mixed)
{
    internal static PadAdviceAnswer Of(IReadOnlyList<PadPlace> places, Shelf shelf)
    {
        var offers = shelf
            .Products.Where(p => p.Kind == ProductKind.Pads)
            .Select(p => new PadOffer(
                p,
                shelf.Lots.Any(l => l.Product == p.Code && l.Amount > 0 && l.BadBecause is null && !l.IsExpired(p, shelf.Day))
            ))
            .ToList();
        var advised = places.Select(p => PadAdvice.Of(p, offers)).ToList();
        return new([.. advised.Select(Answer)], PadAdvice.Mixed(advised));
    }

    private static PadPlaceAnswer Answer(PadAdvised a) =>
        new(
            a.Place.Name,
            a.Code,
            a.Says,
            a.Gap.GapMm,
            a.NominalMm,
            a.Gap.Band.From,
            a.Gap.Band.To,
            a.Take?.Code,
            a.Take?.Name,
            a.Take?.Facts.ThicknessMm,
            a.Compression,
            a.Kelvin,
            a.OldKelvin
        );
}

/// <summary>Reads a question about pads.</summary>
internal sealed class PadQuestionReader(PadQuestion question) : RequestReader
{
    private const int MostPlaces = 40;

    private const double UsualWidthMm = 12,
        UsualHeightMm = 14;

    /// <summary>The places; null where anything is wrong with them.</summary>
    public IReadOnlyList<PadPlace>? Read()
    {
        var places = All(
            "/places",
            question.Places,
            MostPlaces,
            (dto, at) =>
                new PadPlace(
                    Name($"{at}/name", dto.Name),
                    Number($"{at}/widthMm", dto.WidthMm ?? UsualWidthMm, 1, 500)
                        * Number($"{at}/heightMm", dto.HeightMm ?? UsualHeightMm, 1, 500),
                    dto.By ?? GapReading.Imprint,
                    Number($"{at}/measuredMm", dto.MeasuredMm, 0.1, 10),
                    dto.Watts is null ? null : Number($"{at}/watts", dto.Watts, 0, 1_000),
                    dto.OldConductivity is null ? null : Number($"{at}/oldConductivity", dto.OldConductivity, 0.01, 100)
                )
        );
        if (places.Count == 0 && Problems.Count == 0)
            Wrong("/places", "places is needed: one at least", 0);
        return Problems.Count == 0 ? places : null;
    }

    private double Number(string at, double? sent, double least, double most) =>
        sent >= least && sent <= most ? sent.Value : Wrong(at, $"{Member(at)} must be a number from {least} to {most}", least);
}
