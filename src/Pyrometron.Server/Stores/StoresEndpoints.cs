using System.Globalization;
using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Application.Stores;
using Pyrometron.Core.Cutting;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Stores;
using Pyrometron.Formats.Csv;
using Pyrometron.Server.Access;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Materials;
using Pyrometron.Storage;

namespace Pyrometron.Server.Stores;

/// <summary>The shelf: what is there, who takes it, what to buy, how pads are cut.</summary>
internal static class StoresEndpoints
{
    internal const int UsualJobs = 30;

    private const int MostJobs = 200,
        MostAssets = 300;

    private const double MostKerfMm = 5;

    /// <summary>How long the cutting of a shopping list may think.</summary>
    private static readonly TimeSpan ListPatience = TimeSpan.FromSeconds(3);

    public static void MapStores(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/stores").WithTags("Stores");
        group.MapGet("", GetAsync);
        group.MapPut("/products/{code}", PutProduct);
        group.MapDelete("/products/{code}", RemoveProduct);
        group.MapGet("/shopping", ShoppingAsync);
        group.MapGet("/shopping.csv", ShoppingCsvAsync).Produces<string>(200, contentType: "text/csv");
        group.MapPost("/cutting", CutAsync);
        group.MapPost("/cutting/{id:guid}/book", BookCut);
    }

    /// <summary>What is on the shelf, and for which of the next jobs it is enough.</summary>
    /// <param name="jobs">How many jobs ahead, 1 to 200; 30 where missing.</param>
    internal static async Task<Results<Ok<StoresAnswer>, ProblemHttpResult>> GetAsync(
        int? jobs,
        WorkAhead ahead,
        LotStore lots,
        PolicyStore policy,
        CancellationToken cancellation
    )
    {
        if (TooMany(jobs) is { } problem)
            return problem;
        var next = await ahead.NextAsync(jobs ?? UsualJobs, cancellation);
        return TypedResults.Ok(
            StoresReading.Of(lots.Shelf(ahead.Today), next).Answer(policy.Current().Values.Currency, lots.LastCount())
        );
    }

    /// <summary>Adds a product, or changes what is known of it.</summary>
    internal static Results<NoContent, ProblemHttpResult> PutProduct(
        Caller caller,
        string code,
        ProductDraft product,
        StoresUseCases stores
    )
    {
        var reader = new ProductReader(code, product);
        if (reader.Read() is not { } read)
            return Problems.Input(reader.Problems);
        stores.Keep(caller.Actor, read);
        return TypedResults.NoContent();
    }

    /// <summary>Takes a product off the list; one that has lots stays.</summary>
    internal static NoContent RemoveProduct(Caller caller, string code, StoresUseCases stores)
    {
        stores.Remove(caller.Actor, code);
        return TypedResults.NoContent();
    }

    /// <summary>What to buy for the next jobs, the cheapest packs, and the last day on which to order them.</summary>
    /// <param name="jobs">How many jobs ahead, 1 to 200; 30 where missing.</param>
    internal static async Task<Results<Ok<ShoppingAnswer>, ProblemHttpResult>> ShoppingAsync(
        int? jobs,
        WorkAhead ahead,
        LotStore lots,
        PolicyStore policy,
        CancellationToken cancellation
    ) =>
        TooMany(jobs) is { } problem
            ? problem
            : TypedResults.Ok(await ListAsync(jobs, ahead, lots, policy.Current().Values.Currency, cancellation));

    /// <summary>The same as a table.</summary>
    /// <param name="jobs">How many jobs ahead, 1 to 200; 30 where missing.</param>
    internal static async Task<Results<ContentHttpResult, ProblemHttpResult>> ShoppingCsvAsync(
        int? jobs,
        WorkAhead ahead,
        LotStore lots,
        PolicyStore policy,
        CancellationToken cancellation
    )
    {
        if (TooMany(jobs) is { } problem)
            return problem;
        static string Number(double? value) => value?.ToString("0.##", CultureInfo.InvariantCulture) ?? "";
        static string Day(DateOnly? day) => day?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture) ?? "";
        var list = await ListAsync(jobs, ahead, lots, policy.Current().Values.Currency, cancellation);
        var head = CsvWriter.Record(
            "what",
            "thickness_mm",
            "model",
            "missing",
            "unit",
            "product",
            "packs",
            "cost",
            "needed_on",
            "order_by",
            "for"
        );
        var lines =
            from line in list.Lines
            from pack in line.Buy.DefaultIfEmpty()
            select CsvWriter.Record(
                Words.Of(line.Kind),
                Number(line.ThicknessMm),
                line.Model ?? "",
                Number(line.Missing),
                line.Unit,
                pack?.Name ?? "",
                pack?.Packs.ToString(CultureInfo.InvariantCulture) ?? "",
                Number(pack?.Cost),
                Day(line.NeededOn),
                Day(line.OrderBy),
                string.Join(' ', line.For)
            );
        return TypedResults.Content(head + string.Concat(lines), "text/csv; charset=utf-8");
    }

    private static async Task<ShoppingAnswer> ListAsync(
        int? jobs,
        WorkAhead ahead,
        LotStore lots,
        string currency,
        CancellationToken cancellation
    )
    {
        var next = await ahead.NextAsync(jobs ?? UsualJobs, cancellation);
        using var over = CancellationTokenSource.CreateLinkedTokenSource(cancellation);
        over.CancelAfter(ListPatience);
        var lines = ShoppingList.Of(lots.Shelf(ahead.Today), next, new GreedyCutter(), over.Token);
        return new ShoppingAnswer(
            next.Count,
            currency,
            lines.Sum(l => l.Cost ?? 0),
            lines.Count(l => l.Cost is null),
            [
                .. lines.Select(l => new ShoppingLineAnswer(
                    l.Kind,
                    l.ThicknessMm,
                    l.Model,
                    l.Missing,
                    l.Pieces is null ? Product.UnitOf(l.Kind) : "piece",
                    [
                        .. l.Buy.Select(b => new PacksAnswer(
                            b.Product.Code,
                            b.Product.Name,
                            b.Packs,
                            b.Product.Pack.Amount,
                            Product.UnitOf(b.Product.Kind),
                            b.Cost
                        )),
                    ],
                    l.Cost,
                    l.NeededOn,
                    l.OrderBy,
                    l.OrderBy < ahead.Today,
                    l.For,
                    l.Notes
                )),
            ]
        );
    }

    /// <summary>A plan of cuts for pads of jobs ahead from the sheets and off-cuts on the shelf; nothing is booked yet.</summary>
    internal static async Task<Results<Ok<CuttingAnswer>, ProblemHttpResult>> CutAsync(
        CuttingRequest request,
        WorkAhead ahead,
        LotStore lots,
        CuttingDesk desk,
        CuttingPlans plans,
        CancellationToken cancellation
    )
    {
        if (TooMany(request.Jobs) is { } problem)
            return problem;
        if (request.Assets is { Count: 0 or > MostAssets })
            return Problems.Input("/assets", $"assets lists 1 to {MostAssets} machines");
        if (request.KerfMm is not (null or (>= 0 and <= MostKerfMm)))
            return Problems.Input("/kerfMm", $"kerfMm must be a number from 0 to {MostKerfMm}");
        var next = request.Assets is { } tags
            ? await ahead.OnAsync(tags, cancellation)
            : await ahead.NextAsync(request.Jobs ?? UsualJobs, cancellation);
        if (request.ThicknessMm is { } mm)
            next =
            [
                .. next.Select(j =>
                    j with
                    {
                        Needs = [.. j.Needs.Where(n => n.ThicknessMm is { } own && Math.Abs(own - mm) < 0.005)],
                    }
                ),
            ];
        var shelf = lots.Shelf(ahead.Today);
        var stock = StockCutting.Of(shelf, next, request.KerfMm ?? 0);
        return TypedResults.Ok(plans.Keep(shelf, stock, await desk.CutAsync(stock.Problem, cancellation)));
    }

    /// <summary>
    /// Books a plan of cuts: sheets leave the shelf, off-cuts come onto it, the pads lie ready for their machines.
    /// </summary>
    internal static Results<NoContent, ProblemHttpResult> BookCut(
        Caller caller,
        Guid id,
        CuttingPlans plans,
        StoresUseCases stores
    )
    {
        if (plans.Take(id) is not { } done)
            return Problems.Conflict("This plan of cuts is booked already, or older than an hour. Make it anew.");
        stores.Cut(caller.Actor, done);
        return TypedResults.NoContent();
    }

    private static ProblemHttpResult? TooMany(int? jobs) =>
        jobs is null or (>= 1 and <= MostJobs)
            ? null
            : Problems.Input("/jobs", $"jobs must be a whole number from 1 to {MostJobs}");
}
