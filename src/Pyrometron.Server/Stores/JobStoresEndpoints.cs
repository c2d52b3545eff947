using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Application.Bench;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Stores;
using Pyrometron.Core.Worth;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

namespace Pyrometron.Server.Stores;

/// <summary>What to take along for some machines.</summary>
/// <param name="Bits">Driver bits of their screws, by the notes on their models.</param>
/// <param name="Tools">Tools that their models ask for beyond the usual ones.</param>
/// <param name="WithoutNotes">Models of which nobody noted any screw.</param>
public sealed record BringAnswer(
    IReadOnlyList<JobAheadAnswer> Jobs,
    IReadOnlyList<string> Bits,
    IReadOnlyList<string> Tools,
    IReadOnlyList<string> WithoutNotes
);

/// <summary>What jobs need from the shelf, and what they cost.</summary>
internal static class JobStoresEndpoints
{
    private const int MostAssets = 300,
        AllJobs = 200;

    public static void MapJobStores(this RouteGroupBuilder api)
    {
        api.MapGet("/jobs/{id:long}/stores", AtBenchAsync).WithTags("Stores");
        api.MapGet("/jobs/{id:long}/cost", Cost).WithTags("Stores");
        api.MapGet("/stores/bring", BringAsync).WithTags("Stores");
    }

    /// <summary>What a job at the bench needs from the shelf, with lot and place.</summary>
    internal static async Task<Results<Ok<JobStoresAnswer>, ProblemHttpResult>> AtBenchAsync(
        long id,
        JobStore jobs,
        WorkAhead ahead,
        LotStore lots,
        CancellationToken cancellation
    )
    {
        if (jobs.Find(id) is null)
            return Problems.Missing($"There is no job {id}.");
        var reading = StoresReading.Of(lots.Shelf(ahead.Today), await ahead.NextAsync(AllJobs, cancellation));
        return reading.AtBench(id) is { } answer
            ? TypedResults.Ok(answer)
            : Problems.Conflict($"Job {id} is not at the bench any more: it takes nothing from the shelf.");
    }

    /// <summary>What a job cost: material by the lots it used, minutes as booked, downtime.</summary>
    internal static Results<Ok<JobCostAnswer>, ProblemHttpResult> Cost(
        long id,
        BenchQueries bench,
        FleetStore fleet,
        LotStore lots,
        PolicyStore policy,
        RuleStore rules,
        ProductStore products
    )
    {
        if (bench.Find(id) is not { } found || fleet.Find(found.Row.Tag)?.Asset is not { } asset)
            return Problems.Missing($"There is no job {id}.");
        var site = fleet.Sites().FirstOrDefault(s => s.Zones.Any(z => z.Code == asset.Zone))?.Code ?? "";
        var values = new Core.Policies.HouseRules(policy.Current(), rules.All()).For(asset, site).Values;
        var used = lots.TakenBy(id);
        var known = used.Count > 0 && used.All(u => u.Cost is not null);
        var material = known ? used.Sum(u => u.Cost!.Value) : Prices.Of(products.All()).Of(found.Job.Level);
        var work = found.Job.Minutes / 60 * values.TechnicianHour;
        var downtime = BenchCosts.Downtime(asset, found.Job.Minutes, values);
        return TypedResults.Ok(
            new JobCostAnswer(
                values.Currency,
                material,
                known,
                found.Job.Minutes,
                work,
                downtime,
                material + work + downtime,
                [.. used.Select(u => new UsedAnswer(u.Product, u.Amount, u.Cost))]
            )
        );
    }

    /// <summary>What to take along to some machines: from the shelf, driver bits, tools.</summary>
    /// <param name="asset">The machines, up to 300.</param>
    internal static async Task<Results<Ok<BringAnswer>, ProblemHttpResult>> BringAsync(
        string[] asset,
        WorkAhead ahead,
        LotStore lots,
        FleetStore fleet,
        NotesStore notes,
        CancellationToken cancellation
    )
    {
        if (asset.Length is 0 or > MostAssets)
            return Problems.Input("/asset", $"asset is needed: 1 to {MostAssets} machines");
        if (Array.Find(asset, tag => fleet.Find(tag) is null) is { } none)
            return Problems.Input("/asset", $"There is no machine '{none}'.");
        var chosen = asset.ToHashSet();
        var jobs = (await ahead.NextAsync(int.MaxValue, cancellation)).Where(j => chosen.Contains(j.Asset)).ToList();
        var models = jobs.Where(j => ServiceEffects.Opens(j.Level)).Select(j => j.Model).Distinct().ToList();
        var known = models.ConvertAll(m => notes.Find(m).Notes);
        var reading = StoresReading.Of(lots.Shelf(ahead.Today), jobs);
        return TypedResults.Ok(
            new BringAnswer(
                reading.Jobs,
                [.. known.SelectMany(n => n.Screws.Select(s => s.Driver)).Distinct().Order()],
                [.. known.SelectMany(n => n.Tools ?? []).Distinct().Order()],
                [.. known.Where(n => n.Screws.Count == 0).Select(n => n.Model).Order()]
            )
        );
    }
}
