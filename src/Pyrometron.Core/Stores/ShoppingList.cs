using Pyrometron.Core.Cutting;
using Pyrometron.Core.Materials;
using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Stores;

/// <summary>Something to buy.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="ThicknessMm">Of pads.</param>
/// <param name="Model">The model that it has to fit; null for any.</param>
/// <param name="Missing">How much more is needed than is there, in the unit of the kind.</param>
/// <param name="Pieces">Of pads: how many pieces.</param>
/// <param name="Buy">The packs that hold enough and cost least; empty where no product of the house serves.</param>
/// <param name="NeededOn">The first day on which it is missed; null where none is known.</param>
/// <param name="OrderBy">The last day on which it is ordered in time.</param>
/// <param name="For">Machines that wait for it.</param>
/// <param name="Notes">What is to be thought of.</param>
public sealed record ShoppingLine(
    ProductKind Kind,
    double? ThicknessMm,
    string? Model,
    double Missing,
    int? Pieces,
    IReadOnlyList<PacksToBuy> Buy,
    DateOnly? NeededOn,
    DateOnly? OrderBy,
    IReadOnlyList<string> For,
    IReadOnlyList<Message> Notes
)
{
    /// <summary>What it costs; null where a price is not known.</summary>
    public double? Cost => Buy.Count == 0 || Buy.Any(b => b.Cost is null) ? null : Buy.Sum(b => b.Cost);
}

/// <summary>What to buy for the jobs ahead, and for products below their line.</summary>
public static class ShoppingList
{
    /// <summary>A pack that holds so many times what is needed is told of.</summary>
    private const double MuchMore = 4;

    private const double Rounding = 1e-9;

    /// <summary>Whose parts are of one model only.</summary>
    private static bool IsOfAModel(ProductKind kind) =>
        kind is ProductKind.Fan or ProductKind.Cooler or ProductKind.Stand or ProductKind.Filter;

    private readonly record struct Key(ProductKind Kind, double? ThicknessMm, string? Model);

    /// <summary>Makes it.</summary>
    /// <param name="jobs">In the order in which they are served.</param>
    /// <param name="cutter">Tells how many sheets the missing pads take.</param>
    /// <param name="cancel">Ends the cutting early.</param>
    public static IReadOnlyList<ShoppingLine> Of(
        Shelf shelf,
        IReadOnlyList<JobAhead> jobs,
        ICutter cutter,
        CancellationToken cancel
    )
    {
        var lines = Demands(shelf, jobs)
            .GroupBy(d => new Key(d.Need.Kind, d.Need.ThicknessMm, IsOfAModel(d.Need.Kind) ? d.Job.Model : null))
            .Select(g => Line(shelf, g.Key, [.. g], cutter, cancel))
            .OfType<ShoppingLine>()
            .ToList();
        foreach (var product in shelf.Products)
            if (BelowItsLine(shelf, product, lines) is { } line)
                lines.Add(line);
        return [.. lines.OrderBy(l => l.NeededOn ?? DateOnly.MaxValue).ThenBy(l => l.Kind).ThenBy(l => l.ThicknessMm)];
    }

    private static IEnumerable<(JobAhead Job, Need Need)> Demands(Shelf shelf, IReadOnlyList<JobAhead> jobs) =>
        from job in jobs
        from need in job.Needs
        where need.Known && shelf.Keeps(need.Kind)
        where need.ThicknessMm is not { } mm || shelf.CutPads.GetValueOrDefault((job.Asset, mm)) < need.Amount
        select (job, need);

    private static ShoppingLine? Line(
        Shelf shelf,
        Key key,
        List<(JobAhead Job, Need Need)> demands,
        ICutter cutter,
        CancellationToken cancel
    )
    {
        var left = shelf.Lots.ToDictionary(l => l.Id, l => l.Amount);
        var (missing, waiting) = (new List<Need>(), new List<JobAhead>());
        foreach (var (job, need) in demands)
        {
            var lacks = Take(shelf, job, need, left);
            if (lacks <= Rounding)
                continue;
            missing.Add(need.Kind == ProductKind.Pads ? need : need with { Amount = need.Amount * lacks });
            waiting.Add(job);
        }
        if (missing.Count == 0)
            return null;
        var offers = shelf
            .Products.Where(p =>
                p.Kind == key.Kind
                && (key.Model is null ? p.Fits.Count == 0 || key.Kind != ProductKind.Fan : p.IsFor(key.Model))
                && (key.ThicknessMm is not { } mm || p.IsOf(mm))
            )
            .ToList();
        var needed = waiting.Min(j => j.NeededOn);
        var buy =
            key.Kind == ProductKind.Pads ? Sheets(offers, missing, cutter, cancel) : Packs(offers, missing.Sum(n => n.Amount));
        var lead = buy.Select(b => b.Product.Pack.LeadDays).DefaultIfEmpty(0).Max();
        int? pieces = key.Kind == ProductKind.Pads ? (int)missing.Sum(n => n.Amount) : null;
        return new ShoppingLine(
            key.Kind,
            key.ThicknessMm,
            key.Model,
            pieces ?? missing.Sum(n => n.Amount),
            pieces,
            buy,
            needed,
            needed?.AddDays(-lead),
            [.. waiting.Select(j => j.Asset).Distinct()],
            [.. Notes(key, missing, waiting, buy)]
        );
    }

    /// <summary>Takes what is there.</summary>
    /// <returns>The share of the need that is not.</returns>
    private static double Take(Shelf shelf, JobAhead job, Need need, Dictionary<long, double> left)
    {
        var share = 1.0;
        foreach (var lot in shelf.For(need, job.Model))
        {
            var whole = need.From(lot)!.Value;
            var part = Math.Min(share, whole > 0 ? left[lot.Id] / whole : share);
            left[lot.Id] -= part * whole;
            share -= part;
            if (share <= Rounding)
                return 0;
        }
        return share;
    }

    private static IReadOnlyList<PacksToBuy> Packs(List<Product> offers, double amount) =>
        offers.Count == 0 ? [] : PackChoice.Cheapest(offers, amount);

    /// <summary>The product whose sheets cost least for these pads, by a plan of cuts for each.</summary>
    private static IReadOnlyList<PacksToBuy> Sheets(
        List<Product> offers,
        List<Need> missing,
        ICutter cutter,
        CancellationToken cancel
    )
    {
        var best = offers
            .Where(p => p.SheetMm2 > 0)
            .Select(p => (Product: p, Sheets: SheetsOf(p, missing, cutter, cancel)))
            .Where(o => o.Sheets > 0)
            .Select(o => new PacksToBuy(o.Product, (int)Math.Ceiling((o.Sheets / o.Product.Pack.Amount) - Rounding)))
            .OrderBy(b => b.Cost is null)
            .ThenBy(b => b.Cost ?? b.Packs)
            .FirstOrDefault();
        return best is null ? [] : [best];
    }

    /// <summary>How many sheets of a product the pads take; 0 where one of them does not fit.</summary>
    private static int SheetsOf(Product product, List<Need> missing, ICutter cutter, CancellationToken cancel)
    {
        var pieces = missing.SelectMany(n => n.Cuts).Select(c => StockCutting.Piece("", c)).ToList();
        var facts = product.Facts;
        var sheet = StockCutting.Sheet(
            product.Code,
            (facts.SheetWidthMm!.Value, facts.SheetHeightMm!.Value),
            facts.ThicknessMm!.Value,
            pieces.Sum(p => p.Count)
        );
        var plan = cutter.Cut(new CuttingProblem([sheet], pieces, 0, Rotate: true), cancel);
        return plan.Left.Count > 0 ? 0 : plan.Sheets.Count;
    }

    private static IEnumerable<Message> Notes(Key key, List<Need> missing, List<JobAhead> waiting, IReadOnlyList<PacksToBuy> buy)
    {
        if (buy.Count == 0 && key.Kind == ProductKind.Pads)
            yield return "No product of this thickness is known to the stores: add one. Never take a thicker one in its place: it lifts the cooler off the chip.";
        else if (buy.Count == 0)
            yield return "No product that serves is known to the stores: add one.";
        if (key.Kind != ProductKind.Pads)
            yield break;
        var area = missing.Sum(n => n.Cuts.Sum(c => c.AreaMm2));
        if (buy is [var packs] && packs.Packs * packs.Product.Pack.Amount * packs.Product.SheetMm2 > MuchMore * area)
            yield return Message.Of(
                "A whole pack for {pads}: putty serves such a place too, where its maker allows it.",
                Value.Counted("pads", (int)missing.Sum(n => n.Amount), "pad")
            );
        if (waiting.Select(j => j.Needs.Count(n => n.Kind == ProductKind.Pads)).Max() is > 1 and var thicknesses)
            yield return Message.Of(
                "A cooler takes {thicknesses} thicknesses: all of them have to be there before it is opened.",
                Value.Count("thicknesses", thicknesses)
            );
    }

    private static ShoppingLine? BelowItsLine(Shelf shelf, Product product, List<ShoppingLine> lines)
    {
        if (product.LowAt is not { } line || lines.Exists(l => l.Buy.Any(b => b.Product.Code == product.Code)))
            return null;
        var there = shelf.Usable(product);
        if (there >= line)
            return null;
        return new ShoppingLine(
            product.Kind,
            product.Facts.ThicknessMm,
            null,
            line - there,
            null,
            PackChoice.Cheapest([product], line - there),
            null,
            null,
            [],
            ["Below its line; no job ahead waits for it."]
        );
    }
}
