using System.Globalization;
using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Learning;
using Pyrometron.Core.Materials;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Stores;
using Pyrometron.Formats.Csv;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Judging;
using Pyrometron.Storage;

namespace Pyrometron.Server.Proof;

/// <summary>Whether stated dates have held.</summary>
/// <param name="Dates">Null while the machines are still being judged as of then: ask again.</param>
public sealed record StatedDatesAnswer(StatedDates? Dates);

/// <summary>What the house's own jobs have won, with how sure that is.</summary>
internal static class WonEndpoints
{
    private const int LeastDaysAgo = 30,
        UsualDaysAgo = 90,
        MostDaysAgo = 365;

    /// <summary>How long a call waits for a fleet to be judged.</summary>
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(20);

    public static void MapWon(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("").WithTags("Proof");
        group.MapGet("/proof", Get);
        group.MapGet("/proof/dates", DatesAsync);
        group.MapGet("/proof.csv", Csv).Produces<string>(200, contentType: "text/csv");
    }

    /// <summary>What work has won: in all, by groups, and where it won nothing.</summary>
    /// <param name="by">level where it is missing.</param>
    /// <param name="from">The first day on which work was done that counts.</param>
    /// <param name="until">The last one.</param>
    internal static Results<Ok<WonAnswer>, ProblemHttpResult> Get(
        string? by,
        DateOnly? from,
        DateOnly? until,
        JobStore jobs,
        FleetStore fleet,
        PolicyStore policy,
        RuleStore rules,
        ProductStore products
    )
    {
        if (!Words.TryRead<WonBy>(by ?? Words.Of(WonBy.Level), out var grouping))
            return Problems.Input("/by", $"by is one of {Words.List<WonBy>()}");
        if (from > until)
            return Problems.Input("/until", "until cannot be before from");
        var places = Places.Of(fleet.Sites());
        var assets = fleet.All().ToDictionary(a => a.Asset.Tag, a => a.Asset);
        var house = new HouseRules(policy.Current(), rules.All());
        (Asset, JudgementPolicy)? RulesFor(string tag) =>
            assets.TryGetValue(tag, out var asset) ? (asset, house.For(asset, places.SiteOf(asset.Zone))) : null;
        return TypedResults.Ok(
            WonAnswer.Of(
                jobs.Finished(from, until),
                grouping,
                places.ZoneName,
                (from, until),
                new HouseOfJobs(policy.Current(), RulesFor, Prices.Of(products.All()))
            )
        );
    }

    /// <summary>Whether the dates that were stated some time ago have held.</summary>
    /// <param name="days">How long ago, 30 to 365 days; 90 where it is missing.</param>
    internal static async Task<Results<Ok<StatedDatesAnswer>, ProblemHttpResult>> DatesAsync(
        int? days,
        JudgementService judgement,
        CancellationToken cancellation
    )
    {
        if (days is < LeastDaysAgo or > MostDaysAgo)
            return Problems.Input("/days", $"days must be a whole number from {LeastDaysAgo} to {MostDaysAgo}");
        var now = (await judgement.GetAsync(null, Patience, cancellation)).Judgement;
        if (now is null)
            return Problems.Conflict("The machines are still being judged.");
        var then = await judgement.GetAsync(now.AsOf.AddDays(-(days ?? UsualDaysAgo)), Patience, cancellation);
        return TypedResults.Ok(new StatedDatesAnswer(then.Judgement is { } known ? StatedDates.Of(known, now) : null));
    }

    /// <summary>The same jobs one by one.</summary>
    internal static ContentHttpResult Csv(DateOnly? from, DateOnly? until, JobStore jobs)
    {
        static string Number(double value) => value.ToString("0.0#", CultureInfo.InvariantCulture);
        string Line(FinishedJob j) =>
            CsvWriter.Record(
                j.Id.ToString(CultureInfo.InvariantCulture),
                j.Tag,
                j.Model,
                j.Zone,
                Words.Of(j.Level),
                j.Done.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
                j.Outcome is { } outcome ? Words.Of(outcome) : "",
                WorkWon.IsCompared(j) ? Number(j.WonKelvin) : "",
                WorkWon.IsCompared(j) ? Number(j.ExpandedKelvin) : "",
                j.Predicted is { } cause ? Words.Of(cause) : "",
                j.Found is { } found ? string.Join(' ', found.Select(Words.Of)) : "",
                j.CameBack ? "1" : "0",
                j.BrokenParts.ToString(CultureInfo.InvariantCulture),
                j.Minutes is { } minutes ? Number(minutes) : "",
                j.MaterialCost is { } material ? Number(material) : "",
                j.Product(ProductKind.Paste)?.Name ?? "",
                j.Product(ProductKind.Paste)?.Batch ?? "",
                j.Product(ProductKind.Paste)?.Pattern is { } pattern ? Words.Of(pattern) : "",
                j.Product(ProductKind.Pads)?.Name ?? "",
                j.Product(ProductKind.Alcohol)?.Name ?? ""
            );
        var head = CsvWriter.Record(
            "job",
            "asset",
            "model",
            "zone",
            "level",
            "done",
            "outcome",
            "won_k",
            "expanded_uncertainty_k",
            "predicted",
            "found",
            "came_back",
            "broken_parts",
            "minutes",
            "material_cost",
            "paste",
            "paste_batch",
            "paste_pattern",
            "pads",
            "alcohol"
        );
        return TypedResults.Content(head + string.Concat(jobs.Finished(from, until).Select(Line)), "text/csv; charset=utf-8");
    }
}
