using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Server.Hosting;

namespace Pyrometron.Server.Materials;

/// <summary>Reckoning with paste and pads; nothing is stored.</summary>
internal static class MaterialEndpoints
{
    public static void MapMaterials(this RouteGroupBuilder api)
    {
        var materials = api.MapGroup("/materials").WithTags("Materials");
        materials.MapPost("/pad-plan", PadPlanAsync);
        materials.MapPost("/paste", Paste);
    }

    /// <summary>
    /// Which pad is cut where: few sheets first, then small ones and off-cuts, by cuts from edge to edge as a knife makes them;
    /// with the number of sheets that are needed at least.
    /// </summary>
    private static async Task<Results<Ok<PadPlanAnswer>, ProblemHttpResult>> PadPlanAsync(
        PadPlanRequest request,
        CuttingDesk desk,
        CancellationToken cancellation
    )
    {
        var reader = new PadPlanReader(request);
        return reader.Read() is { } problem
            ? TypedResults.Ok(PadPlanAnswer.From(problem, await desk.CutAsync(problem, cancellation)))
            : Problems.Input(reader.Problems);
    }

    /// <summary>
    /// How much paste a chip takes, how often the tube does, and what the layer adds to the chip's temperature.
    /// </summary>
    private static Results<Ok<PasteAnswer>, ProblemHttpResult> Paste(PasteRequest request) =>
        request.Problems() is { Count: > 0 } problems ? Problems.Input(problems) : TypedResults.Ok(PasteAnswer.From(request));
}
