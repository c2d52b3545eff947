using System.Text.Json.Nodes;

namespace Pyrometron.Server.Tests;

/// <summary>A planning problem from outside: the plan, why something is left out, and what is wrong with what was sent.</summary>
public sealed class PlanTests(Server server) : IClassFixture<Server>
{
    private static JsonObject Problem() =>
        JsonNode
            .Parse(
                """
                { "start": "2026-12-01", "days": 10, "seconds": 2,
                  "people": [ { "id": "mira", "skills": ["open-cards"], "sites": ["QUAY"],
                                "shifts": [ { "start": "2026-12-01T08:00Z", "end": "2026-12-01T16:00Z" },
                                            { "start": "2026-12-02T09:00+01:00", "end": "2026-12-02T17:00+01:00" } ] } ],
                  "zones": [ { "code": "QUAY-2", "site": "QUAY", "setupMinutes": 15, "maxDown": 2,
                               "windows": [ { "start": "2026-12-01T00:00Z", "end": "2026-12-11T00:00Z" } ] } ],
                  "jobs": [ { "id": "j1", "zone": "QUAY-2", "minutes": 65, "skills": ["open-cards"], "notBefore": null,
                              "dueBy": "2026-12-03", "weight": 3, "locked": null },
                            { "id": "j2", "zone": "QUAY-2", "minutes": 60, "skills": ["lift"], "weight": 2 } ] }
                """
            )!
            .AsObject();

    [Fact]
    public async Task A_problem_is_planned_and_what_is_left_out_says_why()
    {
        var (status, plan) = await server.Send("/api/v1/plan/solve", Problem().ToJsonString(), "application/json");
        Assert.Equal(200, status);
        var placed = Assert.Single(plan.GetProperty("assignments").EnumerateArray());
        Assert.Equal(
            ("j1", "mira", "2026-12-01T08:15Z", "2026-12-01T09:20Z"),
            (
                placed.GetProperty("job").GetString(),
                placed.GetProperty("person").GetString(),
                placed.GetProperty("start").GetString(),
                placed.GetProperty("end").GetString()
            )
        );
        var left = Assert.Single(plan.GetProperty("unplanned").EnumerateArray());
        Assert.Equal("no-skill", left.GetProperty("code").GetString());
        Assert.Equal("Nobody has all the skills that it needs: lift.", left.GetProperty("reason").GetString());
        // A set-up of 15 minutes, and 10 days of weight 2 for the one that is left out and never late.
        Assert.Equal(20.15, plan.GetProperty("cost").GetDouble(), 6);
        Assert.Equal(20.15, plan.GetProperty("bound").GetDouble(), 4);
        Assert.Equal("solver", plan.GetProperty("planner").GetString());
    }

    public static TheoryData<string, string, string> Wrong =>
        new()
        {
            { "/start", "\"1 Dec\"", "/start" },
            { "/days", "0", "/days" },
            { "/seconds", "61", "/seconds" },
            { "/people", "null", "/people" },
            { "/people/0/shifts/1", "{ \"start\": \"2026-12-01T15:00Z\", \"end\": \"2026-12-01T17:00Z\" }", "/people/0/shifts" },
            { "/people/0/shifts/0/end", "\"2026-12-01T08:00Z\"", "/people/0/shifts/0/end" },
            { "/people/0/shifts/0/start", "\"2026-12-01T08:00:30Z\"", "/people/0/shifts/0/start" },
            { "/people/0/shifts/0", "null", "/people/0/shifts/0" },
            { "/zones/0/setupMinutes", "-1", "/zones/0/setupMinutes" },
            { "/zones/0/windows/0/end", "\"2026-11-30T00:00Z\"", "/zones/0/windows/0/end" },
            { "/jobs/0/zone", "\"ELSEWHERE\"", "/jobs/0/zone" },
            { "/jobs/0/minutes", "-5", "/jobs/0/minutes" },
            { "/jobs/0/weight", "-1", "/jobs/0/weight" },
            { "/jobs/0/weight", "null", "/jobs/0/weight" },
            { "/jobs/1/id", "\"j1\"", "/jobs/1/id" },
            { "/jobs/0/locked", "{ \"person\": \"nobody\", \"start\": \"2026-12-01T09:00Z\" }", "/jobs/0/locked/person" },
            { "/jobs/0/locked", "{ \"person\": \"mira\", \"start\": \"2026-12-01T08:00Z\" }", "/jobs/0/locked" },
            { "/jobs/1/locked", "{ \"person\": \"mira\", \"start\": \"2026-12-01T09:00Z\" }", "/jobs/1/locked" },
        };

    [Theory, MemberData(nameof(Wrong))]
    public async Task What_is_wrong_is_refused_with_its_place(string at, string value, string pointer)
    {
        var problem = Problem();
        var steps = at[1..].Split('/');
        JsonNode parent = problem;
        foreach (var step in steps[..^1])
            parent = int.TryParse(step, out var index) ? parent[index]! : parent[step]!;
        if (int.TryParse(steps[^1], out var last))
            parent[last] = JsonNode.Parse(value);
        else
            parent[steps[^1]] = JsonNode.Parse(value);
        var (status, body) = await server.Send("/api/v1/plan/solve", problem.ToJsonString(), "application/json");
        Assert.Equal(400, status);
        Assert.Contains(pointer, body.GetProperty("errors").EnumerateArray().Select(e => e.GetProperty("pointer").GetString()));
    }
}
