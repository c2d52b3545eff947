using Pyrometron.Core.Materials;
using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Stores;

/// <summary>A place of a cooler that takes a pad.</summary>
/// <param name="Name">What it serves.</param>
/// <param name="AreaMm2">Of the part.</param>
/// <param name="By">How its thickness was told.</param>
/// <param name="MeasuredMm">What was read.</param>
/// <param name="Watts">Heat through it; null where nobody said.</param>
/// <param name="OldConductivity">Of the pads that it had, W/(m·K); null where nobody said.</param>
public sealed record PadPlace(
    string Name,
    double AreaMm2,
    GapReading By,
    double MeasuredMm,
    double? Watts = null,
    double? OldConductivity = null
);

/// <summary>A pad that may be laid.</summary>
/// <param name="InStock">Whether it lies on the shelf.</param>
public sealed record PadOffer(Product Product, bool InStock);

/// <summary>What to do about a place.</summary>
public enum PadAdviceCode
{
    /// <summary>The right thickness is there.</summary>
    Take,

    /// <summary>
    /// The right one is not there; a thinner one that still exceeds the gap is, and its contact is to be checked.
    /// </summary>
    Thinner,

    /// <summary>Nothing that may be laid is there: order the right one, or putty.</summary>
    Wait,

    /// <summary>No sheet is sold that fits the gap: putty.</summary>
    Putty,
}

/// <summary>The pad for a place, with the reason.</summary>
/// <param name="NominalMm">The thickness as sold that fits best; null where none does.</param>
/// <param name="Take">What to lay; null where nothing is to be laid.</param>
/// <param name="Compression">Of what is laid, as a share.</param>
/// <param name="Kelvin">What it costs its part; null where watts or conductivity are not known.</param>
/// <param name="OldKelvin">What the old pads cost, pressed as much.</param>
public sealed record PadAdvised(
    PadPlace Place,
    PadGap Gap,
    double? NominalMm,
    PadAdviceCode Code,
    Product? Take,
    double? Compression,
    double? Kelvin,
    double? OldKelvin,
    Message Says
);

/// <summary>Which pad goes where: the exact one, else a thinner one that still exceeds the gap, never a thicker one.</summary>
public static class PadAdvice
{
    /// <summary>The pad for a place.</summary>
    public static PadAdvised Of(PadPlace place, IReadOnlyList<PadOffer> offers)
    {
        var gap = PadGap.Of(place.By, place.MeasuredMm);
        var thicknesses = offers.Select(o => o.Product.Facts.ThicknessMm).OfType<double>().Concat(PadGap.Sold);
        var nominal = thicknesses
            .Where(t => gap.Contact(t) == PadContact.Good)
            .OrderBy(gap.Misfit)
            .Cast<double?>()
            .FirstOrDefault();
        var there = offers
            .Where(o => o.InStock && o.Product.Facts.ThicknessMm is not null)
            .OrderByDescending(o => o.Product.Facts.ConductivityWPerMK ?? 0)
            .ToList();
        PadOffer? Best(PadContact contact) =>
            there
                .Where(o => gap.Contact(o.Product.Facts.ThicknessMm!.Value, o.Product.Facts.MostCompression) == contact)
                .OrderBy(o => gap.Misfit(o.Product.Facts.ThicknessMm!.Value))
                .FirstOrDefault();
        var (code, take) =
            Best(PadContact.Good) is { } exact ? (PadAdviceCode.Take, exact.Product)
            : Best(PadContact.Light) is { } thin ? (PadAdviceCode.Thinner, thin.Product)
            : (nominal is null ? PadAdviceCode.Putty : PadAdviceCode.Wait, null);
        double? laid = take?.Facts.ThicknessMm;
        return new PadAdvised(
            place,
            gap,
            nominal,
            code,
            take,
            laid is { } mm ? gap.Compression(mm) : null,
            Kelvin(place, gap, take?.Facts.ConductivityWPerMK),
            Kelvin(place, gap, place.OldConductivity),
            Says(place, gap, code, take?.Facts, nominal)
        );
    }

    /// <summary>What is to be thought of where one cooler takes several thicknesses; null where it takes one.</summary>
    public static Message? Mixed(IReadOnlyList<PadAdvised> places)
    {
        double[] thicknesses =
        [
            .. places.Select(p => p.Take?.Facts.ThicknessMm ?? p.NominalMm).OfType<double>().Distinct().Order(),
        ];
        return thicknesses.Length < 2
            ? null
            : Message.Of(
                "This cooler takes {count} thicknesses, from {least} to {most}. One that is too thick in one place lifts it off all others and off the chip: lay each where it belongs, set the cooler down dry and look at every imprint.",
                Value.Count("count", thicknesses.Length),
                Value.Millimetre("least", thicknesses[0]),
                Value.Millimetre("most", thicknesses[^1])
            );
    }

    private static double? Kelvin(PadPlace place, PadGap gap, double? conductivity) =>
        place.Watts is { } watts && conductivity is { } k ? gap.Kelvin(place.AreaMm2, k, watts) : null;

    private static Message Says(PadPlace place, PadGap gap, PadAdviceCode code, ProductFacts? laid, double? nominal)
    {
        var width = Value.Millimetre("gap", gap.GapMm);
        var says = code switch
        {
            PadAdviceCode.Take when laid!.MostCompression is { } allowed and < PadGap.MostCompression => Message.Of(
                "{thickness} in a gap of {gap} is pressed by {share}; its maker allows {allowed}.",
                Value.Millimetre("thickness", laid.ThicknessMm!.Value),
                width,
                Value.Share("share", gap.Compression(laid.ThicknessMm.Value)),
                Value.Share("allowed", allowed)
            ),
            PadAdviceCode.Take => Message.Of(
                "{thickness} in a gap of {gap} is pressed by {share}: 10 to 30 % is good.",
                Value.Millimetre("thickness", laid!.ThicknessMm!.Value),
                width,
                Value.Share("share", gap.Compression(laid.ThicknessMm.Value))
            ),
            PadAdviceCode.Thinner => Message.Of(
                "The right one is not there. {thickness} still exceeds the gap of {gap} and is pressed by {share} only: lay it, set the cooler down once without paste, and look whether its imprint shows all over. Never a thicker one: it lifts the cooler off the chip.",
                Value.Millimetre("thickness", laid!.ThicknessMm!.Value),
                width,
                Value.Share("share", gap.Compression(laid.ThicknessMm.Value))
            ),
            PadAdviceCode.Wait => Message.Of(
                "{thickness} is right for a gap of {gap} and is not there; thinner ones do not touch, and a thicker one lifts the cooler off the chip. Use putty where its maker allows it, or wait for the pad.",
                Value.Millimetre("thickness", nominal!.Value),
                width
            ),
            _ => Message.Of(
                "No pad that is sold fits a gap of {gap}: it would be pressed too little or too far. Use putty where its maker allows it.",
                width
            ),
        };
        return place.By == GapReading.Edge
            ? Message.Join(
                says,
                "The gap was not measured: it is reckoned from the old pad's edge, as if that had been pressed by a fifth. Measure an imprint where there is one."
            )!
            : says;
    }
}
