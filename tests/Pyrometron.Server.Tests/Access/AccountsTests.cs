using System.Net.Http.Headers;
using Microsoft.AspNetCore.Routing;
using Microsoft.AspNetCore.Routing.Patterns;
using Microsoft.Extensions.DependencyInjection;

namespace Pyrometron.Server.Tests.Access;

/// <summary>Who may what, seen from outside.</summary>
public sealed class AccountsTests : IDisposable
{
    private readonly HouseWithAccounts _house = new();

    public void Dispose() => _house.Dispose();

    [Fact]
    public async Task A_reader_looks_and_changes_nothing()
    {
        var keeper = await _house.Keeper();
        await HouseWithAccounts.LayTwoSites(keeper);
        var reader = await _house.Of(keeper, "rea", "reader");
        Assert.Equal(200, (await reader.Get("/api/v1/queue")).Status);
        Assert.Equal(200, (await reader.Get("/api/v1/assets/DT-1")).Status);
        var (status, body) = await reader.Post("/api/v1/jobs", new { asset = "DT-1", level = "inspect" });
        Assert.Equal(403, status);
        Assert.Contains("the right to work", body.GetProperty("detail").GetString()!, StringComparison.Ordinal);
        Assert.Equal(403, (await reader.Get("/api/v1/accounts")).Status);
        Assert.Equal(403, (await reader.Get("/api/v1/backups")).Status);
        Assert.Equal(403, (await reader.Post("/api/v1/backups", new { })).Status);
    }

    [Fact]
    public async Task What_is_done_stands_under_the_name_of_who_signed_in()
    {
        var keeper = await _house.Keeper();
        await HouseWithAccounts.LayTwoSites(keeper);
        var technician = await _house.Of(keeper, "juno", "technician");
        var (status, job) = await technician.Post(
            "/api/v1/jobs",
            new
            {
                asset = "DT-1",
                level = "inspect",
                by = "Somebody Else",
                device = "phone",
            }
        );
        Assert.Equal(201, status);
        var entry = new
        {
            key = Guid.NewGuid(),
            version = job.GetProperty("version").GetInt32(),
            device = "phone",
            by = "Somebody Else",
            entry = new { kind = "noted", text = "hums" },
        };
        Assert.Equal(200, (await technician.Post($"/api/v1/jobs/{job.GetProperty("id").GetInt64()}/entries", entry)).Status);
        var (_, log) = await keeper.Get("/api/v1/changes?limit=500");
        var names = log.GetProperty("changes")
            .EnumerateArray()
            .Where(c =>
                c.GetProperty("asset").GetString() == "DT-1"
                && c.GetProperty("jobId").ValueKind != System.Text.Json.JsonValueKind.Null
            )
            .Select(c => c.GetProperty("actor").GetProperty("name").GetString())
            .Distinct();
        Assert.Equal(["Name of juno"], names);
    }

    [Fact]
    public async Task Sites_bound_what_somebody_changes()
    {
        var keeper = await _house.Keeper();
        await HouseWithAccounts.LayTwoSites(keeper);
        var technician = await _house.Of(keeper, "juno", "technician", sites: ["COVE"]);
        Assert.Equal(201, (await technician.Post("/api/v1/jobs", new { asset = "DT-1", level = "inspect" })).Status);
        var (status, body) = await technician.Post("/api/v1/jobs", new { asset = "DT-2", level = "inspect" });
        Assert.Equal(403, status);
        Assert.Contains("QUAY", body.GetProperty("detail").GetString()!, StringComparison.Ordinal);
        using var csv = new StringContent(
            "time,asset,ambient_c,processor_c\n2026-01-05T06:00Z,DT-1,22,60\n2026-01-05T06:00Z,DT-2,22,60\n"
        );
        csv.Headers.ContentType = new MediaTypeHeaderValue("text/csv");
        using var answer = await technician.Client.PostAsync(new Uri("/api/v1/readings", UriKind.Relative), csv);
        var taken = await answer.Content.ReadAsStringAsync();
        Assert.Contains("\"accepted\":1", taken, StringComparison.Ordinal);
        var planner = await _house.Of(keeper, "pia", "planner", sites: ["COVE"]);
        Assert.Equal(
            204,
            (await planner.Put("/api/v1/assets/DT-1/set-aside", new { reason = "in use", until = "2027-01-01" })).Status
        );
        Assert.Equal(
            403,
            (await planner.Put("/api/v1/assets/DT-2/set-aside", new { reason = "in use", until = "2027-01-01" })).Status
        );
    }

    [Fact]
    public async Task The_house_is_never_left_without_a_keeper()
    {
        var keeper = await _house.Keeper();
        object Administrator(bool suspended = false) =>
            new
            {
                name = "Mira Larkspur",
                role = "administrator",
                suspended,
            };
        Assert.Equal(409, (await keeper.Delete("/api/v1/accounts/mira")).Status);
        Assert.Equal(409, (await keeper.Put("/api/v1/accounts/mira", new { name = "Mira Larkspur", role = "reader" })).Status);
        Assert.Equal(409, (await keeper.Put("/api/v1/accounts/mira", Administrator(suspended: true))).Status);
        // One who has not come in cannot keep it.
        await keeper.Post("/api/v1/accounts/late", new { name = "Late", role = "administrator" });
        Assert.Equal(409, (await keeper.Delete("/api/v1/accounts/mira")).Status);
        var second = await _house.Of(keeper, "odo", "administrator");
        // Two who remove each other: the second finds the door closed.
        Assert.Equal(204, (await second.Delete("/api/v1/accounts/mira")).Status);
        Assert.Equal(401, (await keeper.Delete("/api/v1/accounts/odo")).Status);
        Assert.Equal(409, (await second.Delete("/api/v1/accounts/odo")).Status);
    }

    [Fact]
    public async Task A_role_that_is_taken_away_is_gone_at_once()
    {
        var keeper = await _house.Keeper();
        await HouseWithAccounts.LayTwoSites(keeper);
        var technician = await _house.Of(keeper, "juno", "technician");
        await keeper.Put("/api/v1/accounts/juno", new { name = "Juno", role = "reader" });
        Assert.Equal(403, (await technician.Post("/api/v1/jobs", new { asset = "DT-1", level = "inspect" })).Status);
        await keeper.Put(
            "/api/v1/accounts/juno",
            new
            {
                name = "Juno",
                role = "reader",
                suspended = true,
            }
        );
        Assert.Equal(401, (await technician.Get("/api/v1/queue")).Status);
        Assert.Equal(401, (await _house.NewBrowser().SignIn("juno", HouseWithAccounts.Password)).Status);
        await keeper.Put("/api/v1/accounts/juno", new { name = "Juno", role = "reader" });
        Assert.Equal(200, (await _house.NewBrowser().SignIn("juno", HouseWithAccounts.Password)).Status);
    }

    [Theory]
    [InlineData("juno", "Mira  Larkspur", 409)]
    [InlineData("juno", "Mira Larkspur-Wren", 201)]
    [InlineData("juno", "ＭIRA LARKSPUR", 409)]
    [InlineData("juno", "Juno\u202e", 409)]
    [InlineData("Juno", "Juno", 409)]
    [InlineData("mira", "Juno", 409)]
    [InlineData("juno", "", 409)]
    public async Task Names_that_could_be_mistaken_are_not_given(string code, string name, int expected)
    {
        var keeper = await _house.Keeper();
        Assert.Equal(expected, (await keeper.Post($"/api/v1/accounts/{code}", new { name, role = "reader" })).Status);
    }

    [Fact]
    public async Task Without_accounts_the_one_person_may_everything_and_is_told_that_there_are_none()
    {
        using var server = new Server();
        var (_, session) = await server.Get("/api/v1/session");
        Assert.True(session.GetProperty("solo").GetBoolean());
        Assert.Equal(Enum.GetValues<Right>().Length, session.GetProperty("rights").GetArrayLength());
        var (status, body) = await server.Get("/api/v1/account");
        Assert.Equal(409, status);
        Assert.StartsWith("There are no accounts here", body.GetProperty("detail").GetString());
        Assert.Equal(409, (await server.Post("/api/v1/session", new { account = "mira", password = "x" })).Status);
        Assert.Equal(404, (await server.Get("/api/v1/house/root.crt")).Status);
    }

    [Fact]
    public async Task What_does_not_go_together_is_refused()
    {
        var keeper = await _house.Keeper();
        await HouseWithAccounts.LayTwoSites(keeper);
        async Task<int> Add(object body) => (await keeper.Post("/api/v1/accounts/juno", body)).Status;
        Assert.Equal(400, await Add(new { name = "Juno" }));
        Assert.Equal(400, await Add(new { name = "Juno", role = "captain" }));
        Assert.Equal(409, await Add(new { name = "Juno", role = "owner" }));
        Assert.Equal(
            404,
            await Add(
                new
                {
                    name = "Juno",
                    role = "owner",
                    machines = new[] { "NONE" },
                }
            )
        );
        Assert.Equal(
            409,
            await Add(
                new
                {
                    name = "Juno",
                    role = "reader",
                    machines = new[] { "DT-1" },
                }
            )
        );
        Assert.Equal(
            409,
            await Add(
                new
                {
                    name = "Juno",
                    role = "reader",
                    sites = new[] { "NOWHERE" },
                }
            )
        );
        Assert.Equal(
            409,
            await Add(
                new
                {
                    name = "Juno",
                    role = "administrator",
                    sites = new[] { "COVE" },
                }
            )
        );
        Assert.Equal(
            201,
            await Add(
                new
                {
                    name = "Juno",
                    role = "owner",
                    machines = new[] { "DT-1" },
                }
            )
        );
    }

    [Fact]
    public async Task An_owner_sees_what_is_theirs_and_says_whether_it_may_be_opened()
    {
        var keeper = await _house.Keeper();
        await HouseWithAccounts.LayTwoSites(keeper);
        var owner = await _house.Of(keeper, "own", "owner", machines: ["DT-1"]);
        var (_, mine) = await keeper.Post("/api/v1/jobs", new { asset = "DT-1", level = "dust-out" });
        var (_, theirs) = await keeper.Post("/api/v1/jobs", new { asset = "DT-2", level = "dust-out" });
        var (status, machines) = await owner.Get("/api/v1/own/machines");
        Assert.Equal(200, status);
        var machine = Assert.Single(machines.EnumerateArray());
        Assert.Equal("DT-1", machine.GetProperty("asset").GetString());
        var job = Assert.Single(machine.GetProperty("jobs").EnumerateArray());
        Assert.Equal(mine.GetProperty("id").GetInt64(), job.GetProperty("id").GetInt64());
        Assert.Equal(System.Text.Json.JsonValueKind.Null, job.GetProperty("mayOpen").ValueKind);
        string Order(System.Text.Json.JsonElement of) => $"/api/v1/own/jobs/{of.GetProperty("id").GetInt64()}/order";
        Assert.Equal(204, (await owner.Post(Order(mine), new { mayOpen = true })).Status);
        Assert.Equal(404, (await owner.Post(Order(theirs), new { mayOpen = true })).Status);
        Assert.Equal(400, (await owner.Post(Order(mine), new { })).Status);
        Assert.Equal(403, (await keeper.Post(Order(mine), new { mayOpen = true })).Status);
        var (_, seen) = await keeper.Get($"/api/v1/jobs/{mine.GetProperty("id").GetInt64()}");
        Assert.True(seen.GetProperty("order").GetProperty("mayOpen").GetBoolean());
        Assert.Equal("Name of own", seen.GetProperty("order").GetProperty("owner").GetString());
    }

    /// <summary>
    /// Every call of the interface, by everybody who may not: nothing answers that should not. What needs no sign-in is listed
    /// here.
    /// </summary>
    [Fact]
    public async Task Nothing_answers_to_nobody_and_to_an_owner_only_what_is_theirs()
    {
        var keeper = await _house.Keeper();
        await HouseWithAccounts.LayTwoSites(keeper);
        var owner = await _house.Of(keeper, "own", "owner", machines: ["DT-1"]);
        string[] open =
        [
            "/api/v1/health",
            "/health/live",
            "/health/ready",
            "/api/v1/session",
            "/api/v1/session/link",
            "/api/v1/session/enter",
            "/api/v1/house/address",
            "/api/v1/house/root.crt",
        ];
        string[] ofOwners = [.. open, "/api/v1/account", "/api/v1/own/machines", "/api/v1/own/jobs/1/order"];
        var walked = 0;
        foreach (var endpoint in _house.Services.GetRequiredService<EndpointDataSource>().Endpoints.OfType<RouteEndpoint>())
        {
            var path = PathOf(endpoint.RoutePattern);
            if (!((string[])["/api/v1", "/openapi", "/health"]).Any(p => path.StartsWith(p, StringComparison.Ordinal)))
                continue;
            foreach (var method in endpoint.Metadata.GetMetadata<IHttpMethodMetadata>()?.HttpMethods ?? [])
            {
                if (!open.Contains(path))
                    Assert.Equal((401, path), (await Call(_house.NewBrowser(), method, path), path));
                if (!ofOwners.Any(o => path == o || path.StartsWith("/api/v1/account/", StringComparison.Ordinal)))
                    Assert.Equal((403, path), (await Call(owner, method, path), path));
                walked++;
            }
        }
        Assert.True(walked > 120, $"only {walked} calls were found");
        // Takes every method, and so is no call of the walk.
        Assert.Equal(401, await Call(_house.NewBrowser(), "GET", "/metrics"));
        Assert.Equal(403, await Call(owner, "GET", "/metrics"));
        Assert.Equal(200, await Call(keeper, "GET", "/metrics"));
    }

    private static string PathOf(RoutePattern pattern) =>
        "/"
        + string.Join(
            '/',
            pattern.PathSegments.Select(s =>
                string.Concat(
                    s.Parts.Select(p =>
                        p switch
                        {
                            RoutePatternLiteralPart literal => literal.Content,
                            RoutePatternParameterPart { ParameterPolicies: [{ Content: "guid" }, ..] } => Guid.Empty.ToString(),
                            _ => "1",
                        }
                    )
                )
            )
        );

    private static async Task<int> Call(Browser browser, string method, string path)
    {
        using var request = new HttpRequestMessage(new HttpMethod(method), path);
        if (method is not ("GET" or "DELETE"))
            request.Content = new StringContent("{}", System.Text.Encoding.UTF8, "application/json");
        using var answer = await browser.Client.SendAsync(request);
        return (int)answer.StatusCode;
    }
}
