using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

namespace Pyrometron.Server.Bench;

/// <summary>Where a scanned label leads.</summary>
/// <param name="Asset">The machine; empty where a lot of the stores was scanned.</param>
/// <param name="Job">The job in hand on it, or the job that was scanned; null for none.</param>
/// <param name="Lot">The lot of the stores that was scanned; null where it is a machine.</param>
public sealed record ScanAnswer(string Asset, long? Job, long? Lot);

/// <summary>QR codes for labels and work cards, and what a scanned one means.</summary>
internal static class LabelEndpoints
{
    private const int LongestText = 300;

    public static void MapLabels(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("").WithTags("Labels");
        group.MapGet("/qr.svg", Draw).Produces(200, contentType: "image/svg+xml");
        group.MapGet("/scan", Scan);
    }

    /// <summary>A text as a QR code, SVG.</summary>
    internal static Results<ContentHttpResult, ProblemHttpResult> Draw(string text)
    {
        if (text.Length is 0 or > LongestText)
            return Problems.Input("/text", $"text is 1 to {LongestText} characters.");
        return TypedResults.Content(QrCode.Svg(text), "image/svg+xml");
    }

    /// <summary>
    /// Reads a label: a tag as it stands, or an address of this program that ends in a machine, a job or a lot.
    /// </summary>
    internal static Results<Ok<ScanAnswer>, ProblemHttpResult> Scan(string text, FleetStore fleet, JobStore jobs, LotStore lots)
    {
        var word = text.Trim();
        var path = word.Split('/', StringSplitOptions.RemoveEmptyEntries);
        if (path.Length > 1 && path[^2] == "bench" && long.TryParse(path[^1], out var id))
            return jobs.Find(id) is { } job
                ? TypedResults.Ok(new ScanAnswer(job.Tag, id, null))
                : Problems.Missing($"There is no job {id}.");
        if (path.Length > 1 && path[^2] == "lots" && long.TryParse(path[^1], out var number))
            return lots.Find(number) is not null
                ? TypedResults.Ok(new ScanAnswer("", null, number))
                : Problems.Missing($"There is no lot {number}.");
        var tag = path.Length > 1 && path[^2] == "machines" ? Uri.UnescapeDataString(path[^1]) : word;
        return fleet.Find(tag) is { } machine
            ? TypedResults.Ok(
                new ScanAnswer(tag, jobs.Of(machine.Id).FirstOrDefault(j => j.State is Core.Jobs.JobState.Open)?.Id, null)
            )
            : Problems.Missing($"No machine carries the label '{(tag.Length > 60 ? tag[..60] + "…" : tag)}'.");
    }
}
