using System.Collections.Concurrent;
using System.Globalization;
using Pyrometron.Application.Stores;
using Pyrometron.Core.Cutting;
using Pyrometron.Core.Stores;
using Pyrometron.Server.Materials;
using Pyrometron.Storage;

namespace Pyrometron.Server.Stores;

/// <summary>Pads of jobs ahead to be cut from what is on the shelf.</summary>
/// <param name="Jobs">How many of the next jobs, 1 to 200; 30 where missing.</param>
/// <param name="Assets">Only of these machines; of all of them where missing.</param>
/// <param name="ThicknessMm">Only of this thickness; of all where missing.</param>
/// <param name="KerfMm">What each cut takes away, 0 to 5 mm; 0 where missing: a knife takes nothing.</param>
public sealed record CuttingRequest(int? Jobs, IReadOnlyList<string>? Assets, double? ThicknessMm, double? KerfMm);

/// <summary>A pad in its place on a sheet, from its upper left.</summary>
public sealed record CutPieceAnswer(string Asset, double XMm, double YMm, double WidthMm, double HeightMm);

/// <summary>A cut from edge to edge.</summary>
public sealed record KnifeCutAnswer(double FromXMm, double FromYMm, double ToXMm, double ToYMm);

/// <summary>What is left over and kept.</summary>
public sealed record OffCutAnswer(double XMm, double YMm, double WidthMm, double HeightMm);

/// <summary>A sheet to cut.</summary>
/// <param name="Cuts">In their order.</param>
/// <param name="LostFraction">The share that is neither pad nor off-cut.</param>
public sealed record SheetToCutAnswer(
    long Lot,
    string Product,
    string Place,
    double ThicknessMm,
    double WidthMm,
    double HeightMm,
    IReadOnlyList<CutPieceAnswer> Pieces,
    IReadOnlyList<KnifeCutAnswer> Cuts,
    IReadOnlyList<OffCutAnswer> OffCuts,
    double LostFraction
);

/// <summary>What is cut from what.</summary>
/// <param name="Id">By which it is booked, for an hour.</param>
/// <param name="LowerBoundSheets">Fewer sheets are proven not to do.</param>
/// <param name="Left">Pads that cannot be cut, and why.</param>
/// <param name="Begun">Lots with part of a sheet of no noted shape: not planned with until it is put in as an off-cut.</param>
public sealed record CuttingAnswer(
    Guid Id,
    int Pads,
    int LowerBoundSheets,
    double KerfMm,
    IReadOnlyList<SheetToCutAnswer> Sheets,
    IReadOnlyList<LeftPadAnswer> Left,
    IReadOnlyList<long> Begun
);

/// <summary>Plans of cuts that were shown and may be booked.</summary>
internal sealed class CuttingPlans(TimeProvider clock)
{
    private const int Most = 50;

    private static readonly TimeSpan Kept = TimeSpan.FromHours(1);

    private readonly ConcurrentDictionary<Guid, (DateTimeOffset At, CutDone Done)> _plans = new();

    /// <summary>Makes an answer of a plan and keeps what booking it means.</summary>
    public CuttingAnswer Keep(Shelf shelf, StockCutting stock, CuttingPlan plan)
    {
        var (problem, id) = (stock.Problem, Guid.NewGuid());
        var least = (int)(StockCutting.LeastOffCutMm * Size.PerMillimetre);
        var sheets = plan
            .Sheets.Select(s =>
            {
                var sheet = problem.Sheets[s.Sheet];
                var lot = shelf.Lots.First(l => l.Id == long.Parse(sheet.Id, CultureInfo.InvariantCulture));
                return (Cut: s, Sheet: sheet, Lot: lot, Order: KnifeCuts.Of(sheet.Size, problem.Kerf, s.Pieces, least));
            })
            .ToList();
        var pads =
            from s in sheets
            from p in s.Cut.Pieces
            group p by (problem.Pieces[p.Piece].Name, s.Lot.Id, s.Sheet.Thickness) into g
            select new CutPads(g.Key.Name, g.Key.Id, Mm(g.Key.Thickness), g.Count());
        _plans[id] = (
            clock.GetUtcNow(),
            new CutDone(
                sheets.GroupBy(s => s.Lot.Id).ToDictionary(g => g.Key, g => g.Count()),
                [.. sheets.SelectMany(s => s.Order.OffCuts.Select(o => (s.Lot.Id, Mm(o.Size.Width), Mm(o.Size.Height))))],
                [.. pads]
            )
        );
        foreach (var old in _plans.OrderByDescending(p => p.Value.At).Skip(Most).Select(p => p.Key).ToList())
            _plans.TryRemove(old, out _);
        var padPlan = PadPlanAnswer.From(problem, plan);
        return new CuttingAnswer(
            id,
            plan.Sheets.Sum(s => s.Pieces.Count),
            plan.LowerBound,
            Mm(problem.Kerf),
            [.. sheets.Select(s => Sheet(shelf, problem, s.Cut, s.Sheet, s.Lot, s.Order))],
            padPlan.Unplaced,
            [.. stock.Begun.Select(l => l.Id)]
        );
    }

    /// <summary>What booking a plan means; null where it was not shown within the hour, or is booked.</summary>
    public CutDone? Take(Guid id) => _plans.TryRemove(id, out var plan) && clock.GetUtcNow() - plan.At <= Kept ? plan.Done : null;

    private static SheetToCutAnswer Sheet(
        Shelf shelf,
        CuttingProblem problem,
        CutSheet cut,
        PadSheet sheet,
        Lot lot,
        CutOrder order
    )
    {
        var kept = cut.Pieces.Sum(p => p.Size.Area) + order.OffCuts.Sum(o => o.Size.Area);
        return new SheetToCutAnswer(
            lot.Id,
            shelf.Product(lot.Product).Name,
            lot.Place,
            Mm(sheet.Thickness),
            Mm(sheet.Size.Width),
            Mm(sheet.Size.Height),
            [
                .. cut.Pieces.Select(p => new CutPieceAnswer(
                    problem.Pieces[p.Piece].Name,
                    Mm(p.X),
                    Mm(p.Y),
                    Mm(p.Size.Width),
                    Mm(p.Size.Height)
                )),
            ],
            [.. order.Cuts.Select(c => new KnifeCutAnswer(Mm(c.FromX), Mm(c.FromY), Mm(c.ToX), Mm(c.ToY)))],
            [.. order.OffCuts.Select(o => new OffCutAnswer(Mm(o.X), Mm(o.Y), Mm(o.Size.Width), Mm(o.Size.Height)))],
            Math.Round(1 - (kept / (double)sheet.Size.Area), 6)
        );
    }

    private static double Mm(int hundredths) => hundredths / (double)Size.PerMillimetre;
}
