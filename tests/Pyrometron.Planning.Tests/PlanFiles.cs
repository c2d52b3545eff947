using System.Globalization;
using System.Text.Json;
using Pyrometron.Core.Planning;

namespace Pyrometron.Planning.Tests;

/// <summary>Planning problems with what is known of them: <c>trial/plan/</c>.</summary>
/// <param name="Known">The cost of the optimum, or of the first free slot by due day.</param>
public sealed record KnownProblem(string Name, PlanProblem Problem, double Known)
{
    /// <summary>The problems of a file, each with the member that says what is known.</summary>
    public static IReadOnlyList<KnownProblem> Of(string file, string member)
    {
        using var json = JsonDocument.Parse(File.ReadAllBytes(Path.Combine(AppContext.BaseDirectory, "plan", file)));
        return
        [
            .. json
                .RootElement.EnumerateArray()
                .Select(p => new KnownProblem(
                    p.GetProperty("name").GetString()!,
                    Read(p.GetProperty("problem")),
                    p.GetProperty(member).GetDouble()
                )),
        ];
    }

    private static PlanProblem Read(JsonElement problem)
    {
        var start = DateOnly.Parse(problem.GetProperty("start").GetString()!, CultureInfo.InvariantCulture);
        int Minute(string text) =>
            (int)
                (
                    DateTimeOffset.Parse(text.Length == 10 ? $"{text}T00:00Z" : text, CultureInfo.InvariantCulture)
                    - new DateTimeOffset(start, TimeOnly.MinValue, TimeSpan.Zero)
                ).TotalMinutes;
        Span SpanOf(JsonElement s) => new(Minute(s.GetProperty("start").GetString()!), Minute(s.GetProperty("end").GetString()!));
        HashSet<string> Names(JsonElement of, string member) => [.. Items(of, member).Select(s => s.GetString()!)];

        var people = Items(problem, "people")
            .Select(p => new PlanPerson(
                p.GetProperty("id").GetString()!,
                Names(p, "skills"),
                Names(p, "sites"),
                [.. Items(p, "shifts").Select(SpanOf)]
            ))
            .ToList();
        var zones = Items(problem, "zones")
            .Select(z => new PlanZone(
                z.GetProperty("code").GetString()!,
                z.GetProperty("site").GetString()!,
                z.GetProperty("setupMinutes").GetInt32(),
                Given(z, "maxDown")?.GetInt32(),
                Given(z, "windows") is null ? null : Span.Merged(Items(z, "windows").Select(SpanOf))
            ))
            .ToList();
        return new PlanProblem(
            start,
            problem.GetProperty("days").GetInt32(),
            people,
            zones,
            [
                .. Items(problem, "jobs")
                    .Select(j => new PlanJob(
                        j.GetProperty("id").GetString()!,
                        zones.FindIndex(z => z.Code == j.GetProperty("zone").GetString()),
                        j.GetProperty("minutes").GetInt32(),
                        Names(j, "skills"),
                        Given(j, "notBefore") is { } from ? Math.Max(0, Minute(from.GetString()!)) : 0,
                        Given(j, "dueBy") is { } due ? Minute(due.GetString()!) / PlanProblem.Day : null,
                        j.GetProperty("weight").GetDouble(),
                        null
                    )),
            ]
        );
    }

    private static JsonElement? Given(JsonElement of, string member) =>
        of.TryGetProperty(member, out var value) && value.ValueKind != JsonValueKind.Null ? value : null;

    private static JsonElement[] Items(JsonElement of, string member) => Given(of, member)?.EnumerateArray().ToArray() ?? [];
}
