using System.Net.Http.Headers;
using System.Text;

namespace Pyrometron.Server.Tests.Access;

/// <summary>Programs that come with a key (RFC 6750).</summary>
public sealed class KeyTests : IDisposable
{
    private const string Csv = "time,asset,ambient_c,processor_c\n2026-01-05T06:00Z,DT-1,22,60\n";

    private readonly HouseWithAccounts _house = new();

    public void Dispose() => _house.Dispose();

    private static async Task<string> KeyFor(Browser keeper, string name, string scope, string? until = null)
    {
        var (status, given) = await keeper.Post(
            "/api/v1/keys",
            new
            {
                name,
                scope,
                until,
            }
        );
        Assert.Equal(200, status);
        return given.GetProperty("key").GetString()!;
    }

    private async Task<(int Status, string Body, string Told)> Call(string? key, string method, string path, string? csv = null)
    {
        using var request = new HttpRequestMessage(new HttpMethod(method), path);
        if (key is not null)
            request.Headers.Authorization = new AuthenticationHeaderValue("Bearer", key);
        if (csv is not null)
            request.Content = new StringContent(csv, Encoding.UTF8, "text/csv");
        using var answer = await _house.NewBrowser().Client.SendAsync(request);
        return ((int)answer.StatusCode, await answer.Content.ReadAsStringAsync(), answer.Headers.WwwAuthenticate.ToString());
    }

    [Fact]
    public async Task A_source_sends_readings_in_its_name_and_may_nothing_else()
    {
        var keeper = await _house.Keeper();
        await HouseWithAccounts.LayTwoSites(keeper);
        var key = await KeyFor(keeper, "hall logger", "readings");
        Assert.StartsWith("pyrometron_", key);
        var (status, body, _) = await Call(key, "POST", "/api/v1/readings", Csv);
        Assert.Equal(200, status);
        Assert.Contains("\"accepted\":1", body, StringComparison.Ordinal);
        foreach (
            var (method, path) in (IEnumerable<(string, string)>)
                [
                    ("GET", "/api/v1/queue"),
                    ("POST", "/api/v1/jobs"),
                    ("POST", "/api/v1/fleet"),
                    ("GET", "/api/v1/calendar.ics"),
                    ("GET", "/api/v1/keys"),
                    ("GET", "/api/v1/account"),
                ]
        )
        {
            var (refused, _, told) = await Call(key, method, path);
            Assert.Equal((403, path), (refused, path));
            Assert.Contains("insufficient_scope", told, StringComparison.Ordinal);
        }
        var (_, changes) = await keeper.Get("/api/v1/changes?limit=500");
        var sent = changes.GetProperty("changes").EnumerateArray().Last(c => c.GetProperty("kind").GetString() == "import");
        Assert.Equal("hall logger", sent.GetProperty("actor").GetProperty("name").GetString());
        Assert.Equal("device", sent.GetProperty("actor").GetProperty("kind").GetString());
    }

    [Fact]
    public async Task A_key_to_look_changes_nothing_and_sees_no_accounts()
    {
        var keeper = await _house.Keeper();
        await HouseWithAccounts.LayTwoSites(keeper);
        var key = await KeyFor(keeper, "report", "look");
        Assert.Equal(200, (await Call(key, "GET", "/api/v1/queue")).Status);
        Assert.Equal(403, (await Call(key, "POST", "/api/v1/readings", Csv)).Status);
        Assert.Equal(403, (await Call(key, "GET", "/api/v1/accounts")).Status);
        Assert.Equal(403, (await Call(key, "GET", "/api/v1/backups")).Status);
        Assert.Equal(403, (await Call(key, "GET", "/api/v1/account")).Status);
    }

    [Fact]
    public async Task A_calendar_takes_its_key_in_the_address_and_no_other_call_does()
    {
        var keeper = await _house.Keeper();
        await HouseWithAccounts.LayTwoSites(keeper);
        var key = await KeyFor(keeper, "wall", "calendar");
        Assert.Equal(200, (await Call(null, "GET", $"/api/v1/calendar.ics?key={key}")).Status);
        Assert.Equal(401, (await Call(null, "GET", $"/api/v1/queue?key={key}")).Status);
        Assert.Equal(401, (await Call(null, "GET", "/api/v1/calendar.ics")).Status);
        var looking = await KeyFor(keeper, "report", "look");
        Assert.Equal(200, (await Call(looking, "GET", "/api/v1/calendar.ics")).Status);
    }

    [Fact]
    public async Task Renewed_the_old_one_counts_a_day_more_and_ended_none_counts()
    {
        var keeper = await _house.Keeper();
        await HouseWithAccounts.LayTwoSites(keeper);
        var first = await KeyFor(keeper, "hall logger", "readings");
        Assert.Equal(409, (await keeper.Post("/api/v1/keys", new { name = "hall logger", scope = "look" })).Status);
        var (_, all) = await keeper.Get("/api/v1/keys");
        var id = all[0].GetProperty("id").GetInt64();
        var (_, given) = await keeper.Post($"/api/v1/keys/{id}/renew", new { });
        var second = given.GetProperty("key").GetString()!;
        Assert.Equal(200, (await Call(first, "POST", "/api/v1/readings", Csv)).Status);
        Assert.Equal(200, (await Call(second, "POST", "/api/v1/readings", Csv)).Status);
        (_, all) = await keeper.Get("/api/v1/keys");
        Assert.StartsWith(all[0].GetProperty("begins").GetString()!, second);
        Assert.NotEqual(System.Text.Json.JsonValueKind.Null, all[0].GetProperty("usedAt").ValueKind);
        Assert.DoesNotContain(second, all.ToString(), StringComparison.Ordinal);
        Assert.Equal(204, (await keeper.Delete($"/api/v1/keys/{id}")).Status);
        var (status, _, told) = await Call(second, "POST", "/api/v1/readings", Csv);
        Assert.Equal(401, status);
        Assert.Contains("invalid_token", told, StringComparison.Ordinal);
        Assert.Equal(404, (await keeper.Delete($"/api/v1/keys/{id}")).Status);
    }

    [Theory]
    [InlineData("")]
    [InlineData("pyrometron_")]
    [InlineData("pyrometron_forged")]
    [InlineData("' OR 1=1 --")]
    public async Task What_is_no_key_is_refused_even_beside_a_cookie(string forged)
    {
        var keeper = await _house.Keeper();
        using var request = new HttpRequestMessage(HttpMethod.Get, "/api/v1/queue");
        request.Headers.TryAddWithoutValidation("Authorization", $"Bearer {forged}");
        using var answer = await keeper.Client.SendAsync(request);
        Assert.Equal(401, (int)answer.StatusCode);
    }

    [Fact]
    public async Task What_does_not_make_a_key_is_told()
    {
        var keeper = await _house.Keeper();
        Assert.Equal(400, (await keeper.Post("/api/v1/keys", new { name = "logger" })).Status);
        Assert.Equal(409, (await keeper.Post("/api/v1/keys", new { name = "", scope = "look" })).Status);
        Assert.Equal(409, (await keeper.Post("/api/v1/keys", new { name = "log\u202eger", scope = "look" })).Status);
        Assert.Equal(
            409,
            (
                await keeper.Post(
                    "/api/v1/keys",
                    new
                    {
                        name = "logger",
                        scope = "look",
                        until = "2020-01-01",
                    }
                )
            ).Status
        );
    }
}
