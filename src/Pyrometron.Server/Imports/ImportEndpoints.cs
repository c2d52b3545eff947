using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Pyrometron.Core.Fleet;
using Pyrometron.Formats;
using Pyrometron.Formats.Csv;
using Pyrometron.Formats.Fleet;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Judging;
using Pyrometron.Storage;

namespace Pyrometron.Server.Imports;

/// <summary>A line that was not taken.</summary>
public sealed record RefusedLine(int Line, string? Column, string Message);

/// <summary>What became of a readings or services file.</summary>
/// <param name="RejectedCount">All refused lines; <paramref name="Rejected"/> lists the first hundred, or as many as <c>listed</c> asks for.</param>
public sealed record ImportAnswer(
    long Accepted,
    long Duplicates,
    long RejectedCount,
    IReadOnlyList<RefusedLine> Rejected,
    IReadOnlyList<string> Warnings
);

/// <summary>What became of a fleet document, in machines.</summary>
public sealed record FleetAnswer(int Created, int Updated, int Unchanged, IReadOnlyList<string> Warnings);

/// <summary>Fleet document, readings and services coming in.</summary>
internal static class ImportEndpoints
{
    private const int MostListed = 100_000;

    public static void MapImports(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("").WithTags("Imports");
        group.MapPost("/fleet", PostFleet).WithMetadata(new Bodies.TakesFiles());
        group.MapGet("/fleet", GetFleet).Produces<object>(200, "application/json");
        group.MapPost("/readings", PostReadings).WithMetadata(new Bodies.TakesFiles());
        group.MapPost("/services", PostServices).WithMetadata(new Bodies.TakesFiles());
        group.MapGet(
            "/imports/{id:guid}",
            Results<Ok<ImportState>, ProblemHttpResult> (Guid id, ImportProgress progress) =>
                progress.Find(id) is { } state
                    ? TypedResults.Ok(state)
                    : Problems.Missing("This import has not begun or has ended.")
        );
    }

    private static async Task<FleetAnswer> PostFleet(
        HttpRequest request,
        FleetStore fleet,
        JudgementService judgement,
        CancellationToken cancellation
    )
    {
        using var spool = await GzipSpool.TakeAsync(request.Body, cancellation);
        if (spool.PlainLength > FleetDocument.LongestBytes)
            throw new RefusedInputException(
                new InputProblem(
                    $"The document is longer than {FleetDocument.LongestBytes / 1024 / 1024} MB; send it in parts.",
                    Pointer: ""
                )
            );
        var (register, warnings) = FleetDocument.Read(spool.Open());
        var change = fleet.Import(register);
        judgement.AllChanged();
        return new FleetAnswer(change.Created, change.Updated, change.Unchanged, warnings);
    }

    private static FileContentHttpResult GetFleet(FleetStore fleet)
    {
        using var json = new MemoryStream();
        FleetDocument.Write(json, fleet.Register());
        return TypedResults.File(json.ToArray(), "application/json");
    }

    private static async Task<ImportAnswer> PostReadings(
        HttpRequest request,
        [FromHeader(Name = "Import-Id")] Guid? importId,
        int? listed,
        FleetStore fleet,
        ReadingStore readings,
        ImportProgress progress,
        JudgementService judgement,
        TimeProvider clock,
        CancellationToken cancellation
    )
    {
        using var spool = await GzipSpool.TakeAsync(request.Body, cancellation);
        var import = new ReadingsImport(fleet, readings, clock.GetUtcNow(), Math.Clamp(listed ?? 100, 0, MostListed));
        try
        {
            return await import.RunAsync(
                spool.Open(),
                (bytes, lines) => progress.Report(importId, new ImportState(bytes, spool.PlainLength, lines)),
                cancellation
            );
        }
        finally
        {
            progress.End(importId);
            if (import.Touched.Count > 0)
                judgement.Changed(import.Touched);
        }
    }

    private static async Task<ImportAnswer> PostServices(
        HttpRequest request,
        int? listed,
        FleetStore fleet,
        ServiceStore services,
        JudgementService judgement,
        TimeProvider clock,
        CancellationToken cancellation
    )
    {
        using var spool = await GzipSpool.TakeAsync(request.Body, cancellation);
        var tags = fleet.All().Select(a => a.Asset.Tag).ToHashSet();
        var tally = new Tally(Math.Clamp(listed ?? 100, 0, MostListed));
        var good = new List<(string, ServiceDone)>();
        foreach (var line in ServicesCsv.Read(spool.Open(), tags.Contains, DateOnly.FromDateTime(clock.GetUtcNow().UtcDateTime)))
            if (line.Problem is { } problem)
                tally.Refuse(line.Line, problem.Column, problem.Message);
            else
                good.Add((line.Asset, line.Service!.Value));
        tally.Accepted = services.Add(good);
        tally.Duplicates = good.Count - tally.Accepted;
        if (tally.Accepted > 0)
            judgement.Changed(good.Select(g => g.Item1));
        return tally.Answer([]);
    }
}
