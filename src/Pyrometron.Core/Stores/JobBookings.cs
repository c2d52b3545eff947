using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Materials;

namespace Pyrometron.Core.Stores;

/// <summary>What a job takes off the shelf once it is filed.</summary>
/// <param name="Lot">Number of the lot.</param>
/// <param name="Amount">In the unit of its product.</param>
/// <param name="Estimated">Whether the job noted no amount, and the usual one stands for it.</param>
public sealed record Booking(long Lot, double Amount, bool Estimated);

/// <summary>What a filed job has used, lot by lot.</summary>
/// <param name="Lots">What leaves the shelf.</param>
/// <param name="CutPads">Pads that lay ready, by thickness.</param>
public sealed record JobBookings(IReadOnlyList<Booking> Lots, IReadOnlyDictionary<double, int> CutPads)
{
    /// <summary>
    /// The size of a pad where nobody noted one, mm². A pad for a small chip is 7 × 12 mm; common practice, no source.
    /// </summary>
    private const double UsualPadMm2 = 7 * 12;

    /// <summary>
    /// Reckons it: amounts as the job noted them, else the usual ones; lots as the job chose them, else the one in use.
    /// </summary>
    /// <param name="shelf">With lots as they would be without this job.</param>
    /// <param name="needs">What its card takes.</param>
    public static JobBookings Of(Job job, string model, Shelf shelf, IReadOnlyList<Need> needs)
    {
        var (lots, cut) = (new List<Booking>(), new Dictionary<double, int>());
        var noted = job.Materials.Select(m => (Need: Noted(m, needs), Noted: true)).ToList();
        var rest = needs
            .Where(n =>
                n.Known
                && !noted.Exists(o => o.Need.Kind == n.Kind && (o.Need.ThicknessMm == n.ThicknessMm || n.ThicknessMm is null))
            )
            .Where(n => !(n.Kind == ProductKind.Pads && noted.Exists(o => o.Need.Kind == ProductKind.Pads)))
            .Select(n => (Need: n, Noted: false));
        foreach (var (need, isNoted) in noted.Concat(rest))
        {
            var left = need;
            if (need.ThicknessMm is { } mm && shelf.CutPads.GetValueOrDefault((job.Head.Asset, mm)) is > 0 and var ready)
            {
                cut[mm] = (int)Math.Min(ready, need.Amount);
                left = Less(need, cut[mm]);
            }
            if (left.Amount > 0)
                lots.AddRange(From(job, model, shelf, left).Select(t => new Booking(t.Lot, t.Amount, !isNoted)));
        }
        return new JobBookings([.. lots.GroupBy(b => b.Lot).Select(Sum)], cut);
    }

    private static Booking Sum(IGrouping<long, Booking> of) => new(of.Key, of.Sum(b => b.Amount), of.Any(b => b.Estimated));

    private static Need Noted(MaterialUsed used, IReadOnlyList<Need> needs)
    {
        var kind = KindOf(used.Material);
        if (kind != ProductKind.Pads)
            return Need.Of(kind, used.Amount);
        var cuts = needs.FirstOrDefault(n => n.Kind == ProductKind.Pads && n.ThicknessMm == used.ThicknessMm)?.Cuts ?? [];
        var pads = cuts.Sum(c => c.Count);
        var side = Math.Sqrt(pads > 0 ? cuts.Sum(c => c.AreaMm2) / pads : UsualPadMm2);
        var pieces = (int)Math.Ceiling(used.Amount);
        return new Need(kind, pieces, used.ThicknessMm, [new PadCut(side, side, used.ThicknessMm ?? 0, pieces)]);
    }

    private static Need Less(Need need, int pieces) =>
        need with
        {
            Amount = need.Amount - pieces,
            Cuts = [.. need.Cuts.Select(c => c with { Count = (int)Math.Round(c.Count * (1 - (pieces / need.Amount))) })],
        };

    private static List<(long Lot, double Amount)> From(Job job, string model, Shelf shelf, Need need)
    {
        var chosen = job.Products.FirstOrDefault(p => p.Product == need.Kind)?.Lot is { } id
            ? shelf.Lots.FirstOrDefault(l =>
                l.Id == id
                && shelf.Product(l.Product) is var product
                && product.Kind == need.Kind
                && (need.ThicknessMm is not { } mm || product.IsOf(mm))
            )
            : null;
        if (chosen is not null)
            return [(chosen.Id, Whole(need, chosen))];
        var (taken, share) = (new List<(long, double)>(), 1.0);
        foreach (var lot in shelf.For(need, model))
        {
            var whole = need.From(lot)!.Value;
            var part = Math.Min(share, whole > 0 ? lot.Amount / whole : share);
            taken.Add((lot.Id, part * whole));
            share -= part;
            if (share <= 1e-9)
                break;
        }
        return taken;
    }

    /// <summary>All of it, even where the lot's sheets are smaller than the pads as noted.</summary>
    private static double Whole(Need need, Lot lot) => need.From(lot) ?? (lot.SheetMm2 > 0 ? need.SheetsOf(lot) : 0);

    private static ProductKind KindOf(MaterialKind material) =>
        material switch
        {
            MaterialKind.PasteGrams => ProductKind.Paste,
            MaterialKind.PadPieces => ProductKind.Pads,
            MaterialKind.PuttyGrams => ProductKind.Putty,
            MaterialKind.Wipes => ProductKind.Wipes,
            MaterialKind.Swabs => ProductKind.Swabs,
            MaterialKind.AlcoholMillilitres => ProductKind.Alcohol,
            _ => ProductKind.Fan,
        };
}
