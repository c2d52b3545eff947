using System.Collections.Concurrent;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json.Nodes;
using CsCheck;

namespace Pyrometron.Bench.Fuzzing;

/// <summary>What became of requests made by chance.</summary>
/// <param name="ByStatus">How many were answered how.</param>
/// <param name="Faults">Those that were answered 5xx, by no problem document, or not in time.</param>
internal sealed record FuzzRun(IReadOnlyDictionary<int, int> ByStatus, IReadOnlyList<string> Faults)
{
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(60);

    /// <summary>Sends requests to a server: the same seed makes the same requests.</summary>
    /// <param name="atOnce">How many are under way at the same time.</param>
    public static async Task<FuzzRun> AgainstAsync(HttpClient server, int seed, int count, int atOnce)
    {
        var document = (JsonObject)JsonNode.Parse(await server.GetStringAsync("/openapi/v1.json"))!;
        await LayAsync(server);
        var any = new FuzzedRequests(document, Tags).Any;
        var random = new PCG((uint)seed);
        var requests = Enumerable.Range(0, count).Select(_ => any.Generate(random, null, out var _)).ToArray();
        var byStatus = new ConcurrentDictionary<int, int>();
        var faults = new ConcurrentQueue<string>();
        await Parallel.ForEachAsync(
            requests,
            new ParallelOptions { MaxDegreeOfParallelism = atOnce },
            async (request, cancellation) =>
            {
                var fault = await FaultOf(
                    server,
                    request,
                    status => byStatus.AddOrUpdate(status, 1, (_, n) => n + 1),
                    cancellation
                );
                if (fault is not null)
                    faults.Enqueue(
                        $"{request.Method} {request.Path} {Encoding.UTF8.GetString(request.Body ?? [])[..Math.Min(300, request.Body?.Length ?? 0)]}: {fault}"
                    );
            }
        );
        return new FuzzRun(new SortedDictionary<int, int>(byStatus), [.. faults]);
    }

    private static readonly string[] Tags = ["GC-1", "DT-1"];

    /// <summary>A machine of two kinds and a job, so that calls find something.</summary>
    private static async Task LayAsync(HttpClient server)
    {
        var fleet = """
            {"format":"pyrometron-fleet/1","sites":[{"code":"S","name":"S","altitudeMetres":1,"zones":[
              {"code":"Z","name":"Z","dust":"clean","designAmbientCelsius":30}]}],
             "assets":[{"tag":"GC-1","kind":"graphics-card","model":"M","zone":"Z","dutyHoursPerDay":24,"inServiceSince":"2024-01-10",
               "parts":[{"part":"core","limitCelsius":90,"interface":"paste"}]},
              {"tag":"DT-1","kind":"desktop","model":"N","zone":"Z","dutyHoursPerDay":8,"inServiceSince":"2024-01-10",
               "parts":[{"part":"cpu","limitCelsius":95,"interface":"paste"}]}]}
            """;
        foreach (
            var (path, body) in new[] { ("/api/v1/fleet", fleet), ("/api/v1/jobs", """{"asset":"GC-1","level":"repaste"}""") }
        )
        {
            using var content = new StringContent(body, Encoding.UTF8, "application/json");
            (await server.PostAsync(new Uri(path, UriKind.Relative), content)).EnsureSuccessStatusCode();
        }
    }

    private static async Task<string?> FaultOf(
        HttpClient server,
        FuzzedRequest request,
        Action<int> answered,
        CancellationToken cancellation
    )
    {
        using var message = new HttpRequestMessage(new HttpMethod(request.Method), request.Path);
        if (request.Body is { } bytes)
        {
            message.Content = new ByteArrayContent(bytes);
            if (request.Type is { } type && MediaTypeHeaderValue.TryParse(type, out var parsed))
                message.Content.Headers.ContentType = parsed;
            if (request.Encoding is { } encoding)
                message.Content.Headers.ContentEncoding.Add(encoding);
        }
        if (request.Origin is { } origin)
            message.Headers.TryAddWithoutValidation("Origin", origin);
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(cancellation);
        limit.CancelAfter(Longest);
        try
        {
            using var answer = await server.SendAsync(message, limit.Token);
            var text = await answer.Content.ReadAsStringAsync(limit.Token);
            var status = (int)answer.StatusCode;
            answered(status);
            return status >= 500 ? $"{status} {text}"
                : status >= 400 && answer.Content.Headers.ContentType?.MediaType != "application/problem+json"
                    ? $"{status} without a problem document"
                : status >= 400 && text.Length > 60_000 ? $"{status} of {text.Length} characters"
                : null;
        }
        catch (OperationCanceledException)
        {
            return $"no answer within {Longest.TotalSeconds} s";
        }
        catch (HttpRequestException error)
        {
            return error.Message;
        }
    }
}
