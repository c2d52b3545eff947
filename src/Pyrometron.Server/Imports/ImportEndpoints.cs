using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Pyrometron.Application.Fleet;
using Pyrometron.Application.Imports;
using Pyrometron.Core.Messages;
using Pyrometron.Formats;
using Pyrometron.Formats.Csv;
using Pyrometron.Formats.Fleet;
using Pyrometron.Server.Access;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

namespace Pyrometron.Server.Imports;

/// <summary>What became of a fleet document, in machines.</summary>
public sealed record FleetAnswer(
    int Created,
    int Updated,
    int Unchanged,
    IReadOnlyList<string> Warnings,
    IReadOnlyList<Message> WarningMessages
);

/// <summary>Fleet document, readings and services coming in.</summary>
internal static class ImportEndpoints
{
    private const int MostListed = 100_000;

    public static void MapImports(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("").WithTags("Imports");
        group.MapPost("/fleet", PostFleet).WithMetadata(Bodies.Documents);
        group.MapGet("/fleet", GetFleet).Produces<object>(200, "application/json");
        group.MapPost("/readings", PostReadings).WithMetadata(Bodies.Tables).ForKeys(KeyScope.Readings);
        group.MapPost("/services", PostServices).WithMetadata(Bodies.Tables);
        group
            .MapGet("/imports", (ImportStore imports, int? count) => imports.Newest(Math.Clamp(count ?? 20, 1, 200)).ToArray())
            .WithSummary("The newest imports.");
        group
            .MapPost(
                "/imports/{id:long}/undo",
                (Caller caller, long id, ImportUseCases imports) =>
                {
                    imports.Undo(caller.Actor, id);
                    return TypedResults.NoContent();
                }
            )
            .WithSummary("Undoes an import as far as nothing was built on it since.");
        group
            .MapGet(
                "/imports/{id:guid}",
                Results<Ok<ImportState>, ProblemHttpResult> (Guid id, ImportProgress progress) =>
                    progress.Find(id) is { } state
                        ? TypedResults.Ok(state)
                        : Problems.Missing("This import has not begun or has ended.")
            )
            .WithSummary("How far an import is that is going on.");
    }

    /// <summary>Takes in a fleet document: sites, zones and machines. Again the same changes nothing.</summary>
    internal static async Task<FleetAnswer> PostFleet(
        Caller caller,
        HttpRequest request,
        DataFolder folder,
        FleetUseCases fleet,
        TimeProvider clock,
        CancellationToken cancellation
    )
    {
        using var spool = await GzipSpool.TakeAsync(request.Body, folder.Uploads, cancellation);
        var today = DateOnly.FromDateTime(clock.GetUtcNow().UtcDateTime);
        var (register, warnings) = FleetDocument.Read(spool.ReadAll(FleetDocument.LongestBytes), today);
        var change = fleet.Import(caller.Actor, register, cancellation);
        return new FleetAnswer(
            change.Created,
            change.Updated,
            change.Unchanged,
            [.. warnings.Select(w => w.ToString())],
            warnings
        );
    }

    /// <summary>The fleet as a document of the same form.</summary>
    internal static FileContentHttpResult GetFleet(FleetStore fleet)
    {
        using var json = new MemoryStream();
        FleetDocument.Write(json, fleet.Register());
        return TypedResults.File(json.ToArray(), "application/json");
    }

    /// <summary>Takes in readings, CSV: a line that cannot be read is refused by itself, and told.</summary>
    /// <param name="listed">How many refused lines the answer lists; default 100.</param>
    /// <param name="delimiter">
    /// What parts the cells; default comma. With another, numbers may have a decimal comma. A file that looks like another is
    /// refused with a question that names it.
    /// </param>
    internal static async Task<ImportAnswer> PostReadings(
        Caller caller,
        HttpRequest request,
        DataFolder folder,
        [FromHeader(Name = "Import-Id")] Guid? importId,
        int? listed,
        string? delimiter,
        Database database,
        ImportProgress progress,
        TimeProvider clock,
        CancellationToken cancellation
    )
    {
        using var spool = await GzipSpool.TakeAsync(request.Body, folder.Uploads, cancellation);
        var import = new ReadingsImport(
            database,
            caller.Actor,
            clock.GetUtcNow(),
            Math.Clamp(listed ?? 100, 0, MostListed),
            CsvForm.Delimiter(delimiter)
        );
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
        }
    }

    /// <summary>Takes in services that were done, CSV.</summary>
    /// <param name="listed">How many refused lines the answer lists; default 100.</param>
    /// <param name="delimiter">What parts the cells; default comma. With another, days may be written 1.5.2026.</param>
    internal static async Task<ImportAnswer> PostServices(
        Caller caller,
        HttpRequest request,
        DataFolder folder,
        int? listed,
        string? delimiter,
        ServicesImport services,
        CancellationToken cancellation
    )
    {
        using var spool = await GzipSpool.TakeAsync(request.Body, folder.Uploads, cancellation);
        return services.Run(
            caller.Actor,
            spool.Open(),
            Math.Clamp(listed ?? 100, 0, MostListed),
            CsvForm.Delimiter(delimiter),
            cancellation
        );
    }
}
