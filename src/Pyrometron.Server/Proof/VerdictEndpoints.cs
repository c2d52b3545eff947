using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Proof;
using Pyrometron.Formats;
using Pyrometron.Formats.Csv;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

namespace Pyrometron.Server.Proof;

/// <summary>A log of samples of one part.</summary>
/// <param name="Minutes">Since the load began, ascending.</param>
/// <param name="Celsius">Temperatures, as many.</param>
public sealed record RunLog(IReadOnlyList<double>? Minutes, IReadOnlyList<double>? Celsius);

/// <summary>Two runs in, a verdict out; nothing is stored.</summary>
internal static class VerdictEndpoints
{
    private const int MostSamples = 20_000;

    public static void MapVerdicts(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("").WithTags("Proof");
        group.MapPost("/verdicts/evaluate", Evaluate);
        group.MapPost("/runs/settle", Settle);
        group.MapPost("/runs/log", ReadLog).WithMetadata(Bodies.Tables);
    }

    /// <summary>A sensor log (CSV) in, what the run settles at out; nothing is stored.</summary>
    internal static async Task<Results<Ok<RunLogAnswer>, ProblemHttpResult>> ReadLog(
        HttpRequest request,
        DataFolder folder,
        CancellationToken cancellation
    )
    {
        using var spool = await GzipSpool.TakeAsync(request.Body, folder.Uploads, cancellation);
        return RunReading.Of(SensorLogCsv.Read(spool.Open(), cancellation), cancellation) is { } run
            ? TypedResults.Ok(RunLogAnswer.From(run))
            : Problems.Input(
                "",
                $"Fewer than {RunReading.LeastSamples} samples under load: nothing can be said about where it settles."
            );
    }

    /// <summary>A log of one part's samples in, what it settles at out; nothing is stored.</summary>
    internal static Results<Ok<SettledValue>, ProblemHttpResult> Settle(RunLog log)
    {
        if (
            log.Minutes is not { Count: >= 6 and <= MostSamples } minutes
            || log.Celsius is not { } celsius
            || celsius.Count != minutes.Count
        )
            return Problems.Input(
                "/minutes",
                $"minutes and celsius are needed: as many of one as of the other, 6 to {MostSamples}"
            );
        for (var i = 0; i < minutes.Count; i++)
            if (!(minutes[i] >= 0) || (i > 0 && minutes[i] < minutes[i - 1]) || celsius[i] is not (>= -273.15 and <= 1000))
                return Problems.Input(
                    $"/minutes/{i}",
                    "minutes ascend from the start of the load, and temperatures lie between −273.15 and 1000 °C"
                );
        return SettledValue.Of(minutes.ToArray(), celsius.ToArray()) is { } settled
            ? TypedResults.Ok(settled)
            : Problems.Input("/minutes", "these samples do not spread over any time");
    }

    /// <summary>Judges a pair of runs, before and after a service: what it won, and with which uncertainty.</summary>
    internal static Results<Ok<VerdictAnswer>, ProblemHttpResult> Evaluate(VerdictRequest request)
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
