using Pyrometron.Core.Fleet;
using Pyrometron.Core.Materials;
using Pyrometron.Core.Policies;

namespace Pyrometron.Core.Stores;

/// <summary>What material costs by the prices of the stores.</summary>
public static class Prices
{
    /// <summary>The pads of a card: eleven for memory, with what cutting loses, mm². Common practice, no source.</summary>
    private const double PadsMm2 = 2_300;

    private const double PasteGrams = 0.4,
        AlcoholMl = 5,
        Wipes = 4;

    /// <summary>What each level uses up; where a price is missing the usual cost stands.</summary>
    public static MaterialCosts Of(IReadOnlyList<Product> products)
    {
        double? PerUnit(ProductKind kind) => Mean(products.Where(p => p.Kind == kind).Select(p => p.PricePerUnit));
        var costs = new Dictionary<ServiceLevel, double>();
        if (PerUnit(ProductKind.Fan) is { } fan)
            costs[ServiceLevel.FanSwap] = fan;
        if (PerUnit(ProductKind.Paste) is not { } paste)
            return new MaterialCosts(costs);
        costs[ServiceLevel.Repaste] =
            (paste * PasteGrams)
            + ((PerUnit(ProductKind.Alcohol) ?? 0) * AlcoholMl)
            + ((PerUnit(ProductKind.Wipes) ?? 0) * Wipes);
        var sheets = products.Where(p => p.Kind == ProductKind.Pads && p.SheetMm2 > 0).Select(p => p.PricePerUnit / p.SheetMm2);
        if (Mean(sheets) is { } mm2)
            costs[ServiceLevel.Repad] = costs[ServiceLevel.Repaste] + (mm2 * PadsMm2);
        return new MaterialCosts(costs);
    }

    private static double? Mean(IEnumerable<double?> prices) =>
        prices.OfType<double>().DefaultIfEmpty(double.NaN).Average() is var mean && double.IsNaN(mean) ? null : mean;
}
