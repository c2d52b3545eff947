using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Core.Fleet;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Judging;
using Pyrometron.Storage;

namespace Pyrometron.Server.Materials;

/// <summary>Reckoning with paste and pads; nothing is stored.</summary>
internal static class MaterialEndpoints
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(2);

    public static void MapMaterials(this RouteGroupBuilder api)
    {
        var materials = api.MapGroup("/materials").WithTags("Materials");
        materials.MapPost("/pad-plan", PadPlanAsync);
        materials.MapPost("/paste", Paste);
        materials.MapPost("/paste-for-chip", PasteForChipAsync);
        materials.MapPost("/pads", Pads);
        materials.MapPost("/spread", Spread);
    }

    /// <summary>
    /// Which pad is cut where: few sheets first, then small ones and off-cuts, by cuts from edge to edge as a knife makes them;
    /// with the number of sheets that are needed at least.
    /// </summary>
    internal static async Task<Results<Ok<PadPlanAnswer>, ProblemHttpResult>> PadPlanAsync(
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
    internal static Results<Ok<PasteAnswer>, ProblemHttpResult> Paste(PasteRequest request) =>
        request.Problems() is { Count: > 0 } problems ? Problems.Input(problems) : TypedResults.Ok(PasteAnswer.From(request));

    /// <summary>
    /// A paste of the stores on a chip: how much, how often it does, what its layer costs at the machine's own power, what a
    /// better
    /// one would win beside what a bare tenth costs, and where it must not be used.
    /// </summary>
    internal static async Task<Results<Ok<PasteForChipAnswer>, ProblemHttpResult>> PasteForChipAsync(
        PasteForChip question,
        LotStore lots,
        FleetStore fleet,
        NotesStore notes,
        JudgementService judgement,
        TimeProvider clock,
        CancellationToken cancellation
    )
    {
        var today = DateOnly.FromDateTime(clock.GetUtcNow().UtcDateTime);
        ChipOf? machine = null;
        if (question.Asset is { } tag)
        {
            if (fleet.Find(tag)?.Asset is not { } asset)
                return Problems.Input("/asset", $"There is no machine '{tag}'.");
            var judged = (await judgement.GetAsync(null, Patience, cancellation)).Judgement?.ByTag.GetValueOrDefault(tag);
            machine = new ChipOf(
                notes.Find(asset.Model).Notes.Chip,
                judged?.Reference is { HasPower: true } reference ? Math.Round(reference.PowerW) : null,
                asset.Services.Count(s => ServiceEffects.LiftsCooler(s.Level) && s.Date >= today.AddYears(-3))
            );
        }
        var reader = new PasteForChipReader(question, lots.Shelf(today), machine);
        return reader.Read() is { } answer ? TypedResults.Ok(answer) : Problems.Input(reader.Problems);
    }

    /// <summary>
    /// Which pad goes where on a cooler: the exact one, else a thinner one that still touches, never a thicker one.
    /// </summary>
    internal static Results<Ok<PadAdviceAnswer>, ProblemHttpResult> Pads(PadQuestion question, LotStore lots, TimeProvider clock)
    {
        var reader = new PadQuestionReader(question);
        return reader.Read() is { } places
            ? TypedResults.Ok(PadAdviceAnswer.Of(places, lots.Shelf(DateOnly.FromDateTime(clock.GetUtcNow().UtcDateTime))))
            : Problems.Input(reader.Problems);
    }

    /// <summary>How paste spreads under a cooler, picture by picture.</summary>
    internal static Results<Ok<SpreadAnswer>, ProblemHttpResult> Spread(SpreadRequest request, CancellationToken cancellation) =>
        request.Problems() is { Count: > 0 } problems
            ? Problems.Input(problems)
            : TypedResults.Ok(SpreadAnswer.From(request.Play(cancellation)));
}
