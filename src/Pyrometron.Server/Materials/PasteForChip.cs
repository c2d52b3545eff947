using Pyrometron.Core.Materials;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Procedures;
using Pyrometron.Core.Stores;
using Pyrometron.Server.Hosting;

namespace Pyrometron.Server.Materials;

/// <summary>A paste of the stores on a chip.</summary>
/// <param name="Product">Code of the paste.</param>
/// <param name="Asset">The machine whose chip it is: its heat, its kind of chip and how often it was redone are then known.</param>
/// <param name="ChipWidthMm">1 to 100 mm.</param>
/// <param name="ChipHeightMm">1 to 100 mm.</param>
/// <param name="BondLineMicrometres">5 to 500 µm; 50 where missing.</param>
/// <param name="Watts">Heat through the chip, 0 to 2,000 W; the machine's own where missing.</param>
/// <param name="SqueezeOut">Paste beyond the layer, as a share of it, 0 to 5; 0.5 where missing.</param>
/// <param name="AluminiumPlate">Whether the cooler's plate is of aluminium; null where nobody knows.</param>
public sealed record PasteForChip(
    string? Product,
    string? Asset,
    double? ChipWidthMm,
    double? ChipHeightMm,
    double? BondLineMicrometres,
    double? Watts,
    double? SqueezeOut,
    bool? AluminiumPlate
);

/// <summary>What a better paste would win.</summary>
public sealed record BetterPaste(string Code, string Name, double ConductivityWPerMK, double WinsKelvin);

/// <summary>A caution.</summary>
/// <param name="Forbids">Whether the paste must not be used there.</param>
public sealed record PasteCautionAnswer(bool Forbids, Message Says);

/// <summary>A paste of the stores on a chip.</summary>
/// <param name="Grams">With what squeezes out; null where its density is not written down.</param>
/// <param name="ShareOfPack">Of a full pack.</param>
/// <param name="UsesLeft">So often what is on the shelf does; null where its density is not written down.</param>
/// <param name="Watts">The heat it was reckoned with; null where it is not known.</param>
/// <param name="WattsMeasured">Whether that is the machine's own, as measured.</param>
/// <param name="Kelvin">What the layer adds to the chip; null without heat or conductivity.</param>
/// <param name="BareTenthKelvin">What a tenth that is left bare costs on top.</param>
/// <param name="Better">The paste of the stores that conducts best of those that may be used there; null for none.</param>
/// <param name="Missing">What is not written down of the paste and would tell more.</param>
public sealed record PasteForChipAnswer(
    double VolumeMm3,
    double? Grams,
    double? ShareOfPack,
    double? UsesLeft,
    double? Watts,
    bool WattsMeasured,
    double? Kelvin,
    double? BareTenthKelvin,
    BetterPaste? Better,
    IReadOnlyList<PasteCautionAnswer> Cautions,
    IReadOnlyList<Message> Missing
);

/// <summary>What is known of a machine whose chip gets paste.</summary>
/// <param name="Watts">As measured; null where it is not.</param>
internal sealed record ChipOf(ChipKind? Chip, double? Watts, int TimesRedone);

/// <summary>Reads a question about paste and answers it.</summary>
/// <param name="machine">Null where none is asked about.</param>
internal sealed class PasteForChipReader(PasteForChip question, Shelf shelf, ChipOf? machine) : RequestReader
{
    private const double UsualBondLine = 50,
        UsualSqueezeOut = 0.5;

    /// <summary>The answer; null where anything is wrong with the question.</summary>
    public PasteForChipAnswer? Read()
    {
        var product = shelf.Products.FirstOrDefault(p => p.Code == question.Product && p.Kind == ProductKind.Paste);
        if (product is null)
            Wrong("/product", $"product is needed: the code of a paste of the stores; there is no paste '{question.Product}'", 0);
        var width = Number("/chipWidthMm", question.ChipWidthMm, 1, 100);
        var height = Number("/chipHeightMm", question.ChipHeightMm, 1, 100);
        var bond = Number("/bondLineMicrometres", question.BondLineMicrometres ?? UsualBondLine, 5, 500);
        var squeezeOut = Number("/squeezeOut", question.SqueezeOut ?? UsualSqueezeOut, 0, 5);
        double? watts = question.Watts is null ? machine?.Watts : Number("/watts", question.Watts, 0, 2_000);
        return product is null || Problems.Count > 0 ? null : Answer(product, (width, height, bond), squeezeOut, watts);
    }

    private PasteForChipAnswer Answer(
        Product product,
        (double Width, double Height, double Bond) chip,
        double beyond,
        double? watts
    )
    {
        var facts = product.Facts;
        PasteJoint Joint(double conductivity, double coverage) => new(chip.Width, chip.Height, chip.Bond, conductivity, coverage);
        double? Rise(double? conductivity, double coverage) =>
            conductivity is { } k && watts is { } w ? Joint(k, coverage).RiseAt(w).Value : null;
        var volume = Joint(1, 1).VolumeMm3 * (1 + beyond);
        var grams = volume / 1000 * facts.DensityGPerCm3;
        var there = shelf
            .Lots.Where(l => l.Product == product.Code && l.BadBecause is null && !l.IsExpired(product, shelf.Day))
            .Sum(l => l.Amount);
        var kelvin = Rise(facts.ConductivityWPerMK, 1);
        var use = new PasteUse(machine?.Chip == ChipKind.Bare, question.AluminiumPlate, machine?.TimesRedone ?? 0);
        var best = shelf
            .Products.Where(p => p.Kind == ProductKind.Paste && p.Facts.ConductivityWPerMK > facts.ConductivityWPerMK)
            .Where(p => !PasteCautions.Of(p.Facts, use).Any(c => c.Forbids))
            .MaxBy(p => p.Facts.ConductivityWPerMK);
        return new PasteForChipAnswer(
            volume,
            grams,
            grams / product.Pack.Amount,
            there / grams,
            watts,
            question.Watts is null && watts is not null,
            kelvin,
            Rise(facts.ConductivityWPerMK, 0.9) - kelvin,
            best is null || kelvin is null
                ? null
                : new BetterPaste(
                    best.Code,
                    best.Name,
                    best.Facts.ConductivityWPerMK!.Value,
                    kelvin.Value - Rise(best.Facts.ConductivityWPerMK, 1)!.Value
                ),
            [.. PasteCautions.Of(facts, use).Select(c => new PasteCautionAnswer(c.Forbids, c.Says))],
            [.. Missing(facts, watts)]
        );
    }

    private static IEnumerable<Message> Missing(ProductFacts facts, double? watts)
    {
        if (facts.DensityGPerCm3 is null)
            yield return "Its density is not written down: grams and uses are not told.";
        if (facts.ConductivityWPerMK is null)
            yield return "Its conductivity is not written down: kelvins are not told.";
        if (watts is null)
            yield return "No power is known: kelvins are not told. Give watts, or choose a machine whose power is measured.";
    }

    private double Number(string at, double? sent, double least, double most) =>
        sent >= least && sent <= most ? sent.Value : Wrong(at, $"{Member(at)} must be a number from {least} to {most}", least);
}
