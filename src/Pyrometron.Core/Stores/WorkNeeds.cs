using Pyrometron.Core.Fleet;
using Pyrometron.Core.Materials;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Procedures;

namespace Pyrometron.Core.Stores;

/// <summary>What work takes from the shelf, by what its card is made from. Amounts are common practice, no source.</summary>
public static class WorkNeeds
{
    private const double AlcoholMl = 5,
        Wipes = 4,
        Swabs = 2,
        RemoverMl = 1;

    /// <summary>Density of putty where its product tells none, g/cm³.</summary>
    private const double PuttyGPerCm3 = 3;

    /// <summary>Putty for pads that nobody noted, g.</summary>
    private const double UnknownPuttyGrams = 5;

    /// <summary>Paste on one chip with what squeezes out, g; between a grain of rice and a pea.</summary>
    public static double UsualPasteGrams(AssetKind kind) => kind is AssetKind.Desktop or AssetKind.Server ? 0.5 : 0.4;

    /// <summary>What a job takes, what is hardest to come by first.</summary>
    /// <param name="card">What its card is made from: a fan that takes the cooler with it brings paste.</param>
    /// <param name="model">The machine's model.</param>
    /// <param name="used">What the house's own jobs used.</param>
    public static IReadOnlyList<Need> Of(CardBasis card, string model, UsedSoFar used)
    {
        var needs = new List<Need>();
        double Amount(MaterialKind material, double usual) => used.Of(card.Kind, model, card.Level, material, usual);
        if (card.ChangesFan)
            needs.Add(Need.Of(ProductKind.Fan, 1));
        if (card.Level == ServiceLevel.CoolerSwap)
            needs.Add(Need.Of(ProductKind.Cooler, 1));
        if (card.Level == ServiceLevel.AddOnFan)
            needs.Add(Need.Of(ProductKind.Fan, 1));
        if (card.Level == ServiceLevel.Stand)
            needs.Add(Need.Of(ProductKind.Stand, 1));
        if (card.Level == ServiceLevel.Filter)
            needs.Add(Need.Of(ProductKind.Filter, 1));
        if (card.RenewsPads)
            needs.AddRange(Pads(card, Amount));
        if (!card.LiftsCooler)
            return needs;
        needs.Add(Need.Of(ProductKind.Paste, Amount(MaterialKind.PasteGrams, UsualPasteGrams(card.Kind))));
        needs.Add(Need.Of(ProductKind.Alcohol, Amount(MaterialKind.AlcoholMillilitres, AlcoholMl)));
        needs.Add(Need.Of(ProductKind.Remover, RemoverMl));
        needs.Add(Need.Of(ProductKind.Wipes, Amount(MaterialKind.Wipes, Wipes)));
        needs.Add(Need.Of(ProductKind.Swabs, Amount(MaterialKind.Swabs, Swabs)));
        return needs;
    }

    private static IEnumerable<Need> Pads(CardBasis card, Func<MaterialKind, double, double> amount)
    {
        var pads = card.Notes.Pads;
        if (card.Schools.Pads == PadSchool.Putty)
        {
            var mm3 = pads.Sum(p => p.WidthMm * p.HeightMm * p.ThicknessMm);
            var grams = pads.Count == 0 ? UnknownPuttyGrams : mm3 / 1000 * PuttyGPerCm3;
            return [new Need(ProductKind.Putty, amount(MaterialKind.PuttyGrams, grams), null, [], pads.Count > 0)];
        }
        if (pads.Count == 0)
            return [new Need(ProductKind.Pads, 0, null, [], Known: false)];
        return pads.GroupBy(p => p.ThicknessMm)
            .OrderBy(g => g.Key)
            .Select(g => new Need(
                ProductKind.Pads,
                g.Count(),
                g.Key,
                [
                    .. g.GroupBy(p => (Math.Max(p.WidthMm, p.HeightMm), Math.Min(p.WidthMm, p.HeightMm)))
                        .Select(s => new PadCut(s.Key.Item1, s.Key.Item2, g.Key, s.Count())),
                ]
            ));
    }
}
