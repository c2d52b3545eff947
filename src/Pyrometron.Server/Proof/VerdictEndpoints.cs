using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Proof;
using Pyrometron.Formats;
using Pyrometron.Server.Hosting;

namespace Pyrometron.Server.Proof;

/// <summary>Two runs in, a verdict out; nothing is stored.</summary>
internal static class VerdictEndpoints
{
    public static void MapVerdicts(this RouteGroupBuilder api) => api.MapPost("/verdicts/evaluate", Evaluate).WithTags("Proof");

    private static Results<Ok<VerdictAnswer>, ProblemHttpResult> Evaluate(VerdictRequest request)
    {
        var problems = new List<InputProblem>();
        if (request.Before is null)
            problems.Add(new InputProblem("before is needed: the run before the service", Pointer: "/before"));
        if (request.After is null)
            problems.Add(new InputProblem("after is needed: the run after the service", Pointer: "/after"));
        var (before, after) = (request.Before?.ToRun("/before", problems), request.After?.ToRun("/after", problems));
        return before is null || after is null
            ? Problems.Input(problems)
            : TypedResults.Ok(VerdictAnswer.From(RunComparison.Evaluate(request.Service ?? ServiceLevel.Inspect, before, after)));
    }
}
