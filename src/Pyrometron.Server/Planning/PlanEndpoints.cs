using System.Diagnostics;
using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Server.Hosting;

namespace Pyrometron.Server.Planning;

/// <summary>A planning problem in, a plan out; nothing is stored.</summary>
internal static class PlanEndpoints
{
    private const double UsualSeconds = 20;

    public static void MapPlans(this RouteGroupBuilder api) =>
        api.MapGroup("/plan").WithTags("Plan").MapPost("/solve", SolveAsync);

    /// <summary>The best plan that is found in the time; one problem at a time, since each takes the whole machine.</summary>
    internal static async Task<Results<Ok<PlanAnswer>, ProblemHttpResult>> SolveAsync(
        PlanRequest request,
        PlanningDesk desk,
        CancellationToken cancellation
    )
    {
        var reader = new PlanReader(request);
        if (reader.Read() is not { } problem)
            return Problems.Input(reader.Problems);
        var clock = Stopwatch.StartNew();
        var plan = await desk.SolveAsync(problem, request.Seconds ?? UsualSeconds, null, default, cancellation);
        return TypedResults.Ok(PlanAnswer.From(problem, plan, clock.Elapsed.TotalSeconds));
    }
}
