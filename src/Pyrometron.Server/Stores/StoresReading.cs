using Pyrometron.Core.Stores;

namespace Pyrometron.Server.Stores;

/// <summary>The shelf and the jobs that take from it, as answers.</summary>
/// <param name="shelf">What is there.</param>
/// <param name="supply">Who gets what.</param>
internal sealed class StoresReading(Shelf shelf, IReadOnlyList<JobSupply> supply)
{
    private readonly Dictionary<long, double> _reserved = supply
        .SelectMany(s => s.Takes)
        .GroupBy(t => t.Lot.Id)
        .ToDictionary(g => g.Key, g => g.Sum(t => t.Amount));

    /// <summary>The shelf and who gets what of it.</summary>
    public static StoresReading Of(Shelf shelf, IEnumerable<JobAhead> jobs) => new(shelf, Supply.Of(shelf, jobs));

    /// <summary>All of it.</summary>
    public StoresAnswer Answer(string currency, (DateTimeOffset At, string By)? counted) =>
        new(
            shelf.Day,
            currency,
            supply.Count,
            supply.Count(s => s.Missing.Count == 0),
            counted?.At,
            counted?.By,
            [.. shelf.Products.Select(Product)],
            [.. shelf.Lots.Where(l => l.Amount > 0).Select(Lot)],
            Jobs,
            [.. shelf.CutPads.Keys.Select(c => c.Asset).Distinct().Order(StringComparer.Ordinal)]
        );

    /// <summary>One lot.</summary>
    public LotAnswer Lot(Lot lot)
    {
        var product = shelf.Product(lot.Product);
        return new LotAnswer(
            lot.Id,
            lot.Product,
            product.Name,
            product.Kind,
            Core.Stores.Product.UnitOf(product.Kind),
            product.Facts.ThicknessMm,
            lot.Batch,
            lot.Place,
            lot.CameOn,
            lot.OpenedOn,
            lot.ExpiresOn,
            lot.LastDay(product),
            lot.IsExpired(product, shelf.Day),
            lot.PricePerUnit,
            lot.WidthMm,
            lot.HeightMm,
            lot.BadBecause,
            lot.Amount,
            _reserved.GetValueOrDefault(lot.Id)
        );
    }

    /// <summary>What a job at the bench needs, with the lots that may be chosen.</summary>
    public JobStoresAnswer? AtBench(long job)
    {
        if (supply.FirstOrDefault(s => s.Job.Job == job) is not { } mine)
            return null;
        var kinds = mine.Job.Needs.Select(n => n.Kind).ToHashSet();
        var lots = shelf
            .Lots.Where(l => l.Amount > 0 && l.BadBecause is null && kinds.Contains(shelf.Product(l.Product).Kind))
            .Where(l => shelf.Product(l.Product).IsFor(mine.Job.Model))
            .Select(Lot)
            .OrderBy(l => l.Expired)
            .ThenBy(l => l.OpenedOn is null)
            .ThenBy(l => l.LastDay ?? DateOnly.MaxValue);
        return new JobStoresAnswer(Job(mine), [.. lots]);
    }

    /// <summary>What each job gets.</summary>
    public IReadOnlyList<JobAheadAnswer> Jobs => [.. supply.Select(Job)];

    private JobAheadAnswer Job(JobSupply of) =>
        new(
            of.Job.Asset,
            of.Job.Model,
            of.Job.Level,
            of.Job.By,
            of.Job.Day,
            of.Job.DueBy,
            of.Job.Job,
            [.. of.Takes.Select(Take)],
            [
                .. of.Missing.Select(n => new MissingAnswer(
                    n.Kind,
                    n.Amount,
                    n.ThicknessMm is null ? Core.Stores.Product.UnitOf(n.Kind) : "piece",
                    n.ThicknessMm
                )),
            ],
            [
                .. shelf
                    .CutPads.Where(c => c.Key.Asset == of.Job.Asset)
                    .Select(c => new ReadyPads(c.Key.ThicknessMm, c.Value))
                    .OrderBy(c => c.ThicknessMm),
            ],
            of.Unknown
        );

    private TakeAnswer Take(Take take) =>
        new(
            take.Need.Kind,
            take.Lot.Id,
            shelf.Product(take.Lot.Product).Name,
            take.Lot.Place,
            take.Lot.Batch,
            take.Amount,
            Core.Stores.Product.UnitOf(take.Need.Kind),
            take.Need.ThicknessMm,
            take.Need.ThicknessMm is null ? null : (int)take.Need.Amount
        );

    private ProductAnswer Product(Product product)
    {
        var lots = shelf.Lots.Where(l => l.Product == product.Code);
        var usable = shelf.Usable(product);
        return new ProductAnswer(
            product.Code,
            product.Kind,
            product.Name,
            Core.Stores.Product.UnitOf(product.Kind),
            product.Facts,
            product.Pack,
            product.Fits,
            product.LowAt,
            usable,
            lots.Sum(l => l.InUnits(product, _reserved.GetValueOrDefault(l.Id))),
            usable < product.LowAt
        );
    }
}
