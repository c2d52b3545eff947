using Pyrometron.Core.Materials;

namespace Pyrometron.Core.Stores;

/// <summary>What is on the shelf.</summary>
/// <param name="Day">The day that it is looked at.</param>
/// <param name="CutPads">Pads that lie ready for machines: how many of a thickness.</param>
public sealed record Shelf(
    IReadOnlyList<Product> Products,
    IReadOnlyList<Lot> Lots,
    IReadOnlyDictionary<(string Asset, double ThicknessMm), int> CutPads,
    DateOnly Day
)
{
    private readonly Dictionary<string, Product> _byCode = Products.ToDictionary(p => p.Code);

    /// <summary>A product by its code.</summary>
    public Product Product(string code) => _byCode[code];

    /// <summary>How much of a product may be used today, in its unit.</summary>
    public double Usable(Product product) =>
        Lots.Where(l => l.Product == product.Code && l.BadBecause is null && !l.IsExpired(product, Day))
            .Sum(l => l.InUnits(product, l.Amount));

    /// <summary>Whether the house keeps anything of a kind: of small things only what it keeps is asked for.</summary>
    public bool Keeps(ProductKind kind) =>
        kind is ProductKind.Paste or ProductKind.Pads or ProductKind.Fan || Products.Any(p => p.Kind == kind);

    /// <summary>Lots that may be used for a need, what is open and expires first before the rest.</summary>
    public IEnumerable<Lot> For(Need need, string model) =>
        Lots.Where(l => l.BadBecause is null && l.Amount > 0)
            .Select(l => (Lot: l, Product: Product(l.Product)))
            .Where(l =>
                l.Product.Kind == need.Kind
                && l.Product.IsFor(model)
                && !l.Lot.IsExpired(l.Product, Day)
                && (need.ThicknessMm is not { } mm || l.Product.IsOf(mm))
                && need.From(l.Lot) is not null
            )
            .OrderBy(l => l.Lot.OpenedOn is null)
            .ThenBy(l => l.Lot.LastDay(l.Product) ?? DateOnly.MaxValue)
            .ThenBy(l => l.Lot.SheetMm2)
            .ThenBy(l => l.Lot.Id)
            .Select(l => l.Lot);
}

/// <summary>What a job takes from a lot.</summary>
/// <param name="Amount">In the unit of its product.</param>
public sealed record Take(Need Need, Lot Lot, double Amount);

/// <summary>What a job has and lacks.</summary>
/// <param name="Takes">What is spoken for; empty where something is missing: then it waits and takes nothing.</param>
/// <param name="Missing">What is not to be had.</param>
/// <param name="Unknown">Whether it takes something of which nobody noted how much.</param>
public sealed record JobSupply(JobAhead Job, IReadOnlyList<Take> Takes, IReadOnlyList<Need> Missing, bool Unknown);

/// <summary>Who gets what, in the order of the work: a job takes all that it needs or waits and takes nothing.</summary>
public static class Supply
{
    private const double Rounding = 1e-9;

    /// <summary>Hands out what is on the shelf.</summary>
    /// <param name="jobs">In the order in which they are served.</param>
    public static IReadOnlyList<JobSupply> Of(Shelf shelf, IEnumerable<JobAhead> jobs)
    {
        var left = shelf.Lots.ToDictionary(l => l.Id, l => l.Amount);
        return [.. jobs.Select(job => Serve(shelf, job, left))];
    }

    private static JobSupply Serve(Shelf shelf, JobAhead job, Dictionary<long, double> left)
    {
        var (takes, missing) = (new List<Take>(), new List<Need>());
        foreach (var asked in job.Needs.Where(n => shelf.Keeps(n.Kind) && n.Known))
        {
            if (ToCut(shelf, job.Asset, asked) is not { } need)
                continue;
            var from = Between(shelf, job.Model, need, left, takes);
            if (from is null)
                missing.Add(need);
            else
                takes.AddRange(from);
        }
        var unknown = job.Needs.Any(n => !n.Known);
        if (missing.Count > 0)
            return new JobSupply(job, [], missing, unknown);
        foreach (var take in takes)
            left[take.Lot.Id] -= take.Amount;
        return new JobSupply(job, takes, [], unknown);
    }

    /// <summary>What is still to be cut; null where all of it lies ready.</summary>
    private static Need? ToCut(Shelf shelf, string asset, Need need) =>
        need.ThicknessMm is { } mm && shelf.CutPads.GetValueOrDefault((asset, mm)) >= need.Amount ? null : need;

    /// <summary>The lots that a need takes from; null where they do not hold enough.</summary>
    private static List<Take>? Between(Shelf shelf, string model, Need need, Dictionary<long, double> left, List<Take> already)
    {
        var (takes, share) = (new List<Take>(), 1.0);
        foreach (var lot in shelf.For(need, model))
        {
            var whole = need.From(lot)!.Value;
            var free = left[lot.Id] - already.Where(t => t.Lot.Id == lot.Id).Sum(t => t.Amount);
            var part = Math.Min(share, whole > 0 ? free / whole : 1);
            if (part <= Rounding)
                continue;
            takes.Add(new Take(need, lot, part * whole));
            share -= part;
            if (share <= Rounding)
                return takes;
        }
        return null;
    }
}
