using System.Net.Http.Headers;
using System.Text.Json;
using Microsoft.Extensions.DependencyInjection;
using Pyrometron.Storage;

namespace Pyrometron.Server.Tests.Access;

/// <summary>Who did what, when, from where.</summary>
public sealed class AuditTests : IDisposable
{
    private readonly HouseWithAccounts _house = new();

    public void Dispose() => _house.Dispose();

    private static async Task<JsonElement[]> Lines(Browser keeper, string query = "")
    {
        var (status, page) = await keeper.Get($"/api/v1/audit?{query}");
        Assert.Equal(200, status);
        var lines = page.GetProperty("lines").EnumerateArray().ToArray();
        Assert.Equal(page.GetProperty("total").GetInt32(), lines.Length);
        return lines;
    }

    private static string Says(JsonElement line) => line.GetProperty("says").GetString()!;

    private static async Task<string> Text(Browser browser, string path) =>
        await browser.Client.GetStringAsync(new Uri(path, UriKind.Relative));

    [Fact]
    public async Task A_change_says_who_made_it_from_where_and_what_stood_there()
    {
        var keeper = await _house.Keeper("10.0.0.7");
        await HouseWithAccounts.LayTwoSites(keeper);
        var phone = _house.NewBrowser("2001:db8:1:2:3:4:5:6");
        Assert.Equal(200, (await phone.SignIn("mira", HouseWithAccounts.Password)).Status);
        var (_, policy) = await phone.Get("/api/v1/policy");
        var changed = JsonSerializer.Deserialize<Dictionary<string, JsonElement>>(policy)!;
        changed["actionMarginKelvin"] = JsonSerializer.SerializeToElement(7);
        Assert.Equal(200, (await phone.Put("/api/v1/policy", changed)).Status);
        var rules = Assert.Single(await Lines(keeper, "kinds=rules"));
        Assert.Equal("Mira Larkspur", rules.GetProperty("actor").GetProperty("name").GetString());
        // Of the sixth version what one household has (RFC 6177): the rest changes from day to day.
        Assert.Equal("2001:db8:1:2::/64", rules.GetProperty("address").GetString());
        Assert.NotEqual(rules.GetProperty("before").GetString(), rules.GetProperty("after").GetString());
        var fleet = await Lines(keeper, "address=10.0.0.7&who=Mira%20Larkspur&kinds=import");
        Assert.NotEmpty(fleet);
        Assert.All(fleet, l => Assert.Equal("10.0.0.7", l.GetProperty("address").GetString()));
    }

    [Fact]
    public async Task What_was_refused_is_on_record_once()
    {
        var keeper = await _house.Keeper();
        await HouseWithAccounts.LayTwoSites(keeper);
        var reader = await _house.Of(keeper, "juno", "reader");
        // By the policy of a call, and by a use case.
        for (var i = 0; i < 3; i++)
        {
            Assert.Equal(403, (await reader.Get("/api/v1/accounts")).Status);
            Assert.Equal(403, (await reader.Post("/api/v1/jobs", new { asset = "DT-1", level = "dust-out" })).Status);
        }
        var refused = await Lines(keeper, "kinds=refused&who=Name%20of%20juno");
        Assert.Equal(["Refused: POST /api/v1/jobs", "Refused: GET /api/v1/accounts"], refused.Select(Says));
    }

    [Fact]
    public async Task A_key_that_does_not_count_is_told_by_how_it_begins_alone()
    {
        var keeper = await _house.Keeper();
        var (_, given) = await keeper.Post("/api/v1/keys", new { name = "probe", scope = "readings" });
        var key = given.GetProperty("key").GetString()!;
        var (_, keys) = await keeper.Get("/api/v1/keys");
        var id = keys.EnumerateArray().Single().GetProperty("id").GetInt64();
        async Task<int> Show(string shown, string from)
        {
            var program = _house.NewBrowser(from);
            program.Client.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue("Bearer", shown);
            return (await program.Get("/api/v1/queue")).Status;
        }
        Assert.Equal(403, await Show(key, "10.0.0.8"));
        Assert.Equal(204, (await keeper.Delete($"/api/v1/keys/{id}")).Status);
        Assert.Equal(401, await Show(key, "10.0.0.8"));
        Assert.Equal(401, await Show(HouseWithAccounts.Password, "10.0.0.9"));
        var said = (await Lines(keeper, "kinds=refused")).Select(l => (l.GetProperty("address").GetString(), Says(l))).ToArray();
        Assert.Contains(("10.0.0.8", "Refused: GET /api/v1/queue"), said);
        Assert.Contains(("10.0.0.8", $"Refused: the key {key[..17]}… is none, or has ended"), said);
        Assert.Contains(("10.0.0.9", "Refused: a text that is no key"), said);
    }

    /// <summary>
    /// Secrets of every kind are used, rightly and wrongly; then none of them is found in any line, nor in the file.
    /// </summary>
    [Fact]
    public async Task No_secret_is_in_what_is_taken_along()
    {
        var link = _house.First.Token;
        var keeper = await _house.Keeper();
        var (_, invited) = await keeper.Post("/api/v1/accounts/juno", new { name = "Juno", role = "technician" });
        var (_, given) = await keeper.Post("/api/v1/keys", new { name = "probe", scope = "readings" });
        var (_, offer) = await keeper.Post("/api/v1/account/codes", new { password = HouseWithAccounts.Password });
        Assert.Equal(409, (await keeper.Post("/api/v1/account/codes", new { password = "quite another password" })).Status);
        await _house.NewBrowser().SignIn("mira", "quite another password");
        string[] secrets =
        [
            link,
            HouseWithAccounts.TokenOf(invited),
            given.GetProperty("key").GetString()!,
            offer.GetProperty("secret").GetString()!,
            HouseWithAccounts.Password,
            "quite another password",
        ];
        var (csv, json) = (await Text(keeper, "/api/v1/audit.csv"), await Text(keeper, "/api/v1/audit.jsonl"));
        Assert.Contains("asked for again", csv);
        foreach (var secret in secrets)
            Assert.True(!csv.Contains(secret, StringComparison.Ordinal) && !json.Contains(secret, StringComparison.Ordinal));
        // Each line of the one is a line of the other, and a JSON text of its own (RFC 8259).
        var lines = json.TrimEnd('\n').Split('\n').Select(l => JsonDocument.Parse(l).RootElement).ToArray();
        Assert.Equal((await Lines(keeper, "take=500")).Length, lines.Length);
        Assert.Equal(Enumerable.Range(1, lines.Length), lines.Select(l => l.GetProperty("id").GetInt32()));
        Assert.All(lines, l => Assert.Contains(l.GetProperty("hash").GetString()!, csv));
    }

    [Fact]
    public async Task It_is_searched_by_day_and_word_and_told_what_there_is()
    {
        var keeper = await _house.Keeper("10.0.0.7");
        await HouseWithAccounts.LayTwoSites(keeper);
        var today = DateTime.UtcNow.ToString("yyyy-MM-dd");
        var all = await Lines(keeper);
        Assert.Equal(all.Length, (await Lines(keeper, $"from={today}&until={today}")).Length);
        Assert.Empty(await Lines(keeper, "until=2020-01-01"));
        Assert.Contains(await Lines(keeper, "text=first%20account"), l => Says(l) == "First account: mira");
        // What LIKE takes for any letter is looked for as it stands.
        Assert.Empty(await Lines(keeper, "text=%25_%25"));
        var (_, choices) = await keeper.Get("/api/v1/audit/choices");
        string[] Of(string what) => [.. choices.GetProperty(what).EnumerateArray().Select(c => c.GetString()!)];
        Assert.Contains("Mira Larkspur", Of("who"));
        Assert.Equal(all.Select(l => l.GetProperty("kind").GetString()).Distinct().Order(), Of("kinds"));
        Assert.Equal(["10.0.0.7"], Of("addresses"));
        Assert.Equal(400, (await keeper.Get("/api/v1/audit?from=yesterday")).Status);
    }

    [Fact]
    public async Task Others_see_neither_it_nor_addresses()
    {
        var keeper = await _house.Keeper("10.0.0.7");
        await HouseWithAccounts.LayTwoSites(keeper);
        var reader = await _house.Of(keeper, "juno", "reader");
        foreach (var path in (string[])["audit", "audit.csv", "audit.jsonl", "audit/chain", "audit/choices"])
            Assert.Equal(403, (await reader.Get($"/api/v1/{path}")).Status);
        var (_, changes) = await reader.Get("/api/v1/changes");
        Assert.All(
            changes.GetProperty("changes").EnumerateArray(),
            c =>
            {
                Assert.Equal(JsonValueKind.Null, c.GetProperty("address").ValueKind);
                Assert.DoesNotContain(c.GetProperty("kind").GetString(), (string[])["account", "sign-in", "refused"]);
            }
        );
    }

    [Fact]
    public async Task The_chain_is_followed_and_the_line_that_was_tampered_with_named()
    {
        var keeper = await _house.Keeper("10.0.0.7");
        await HouseWithAccounts.LayTwoSites(keeper);
        var (_, chain) = await keeper.Get("/api/v1/audit/chain");
        Assert.Equal(JsonValueKind.Null, chain.GetProperty("firstBroken").ValueKind);
        Assert.Equal((await Lines(keeper)).First().GetProperty("hash").GetString(), chain.GetProperty("last").GetString());
        using (var connection = _house.Services.GetRequiredService<Database>().Connect())
        using (var command = connection.CreateCommand())
        {
            command.CommandText = "UPDATE change SET address = '10.0.0.9' WHERE id = 2";
            command.ExecuteNonQuery();
        }
        (_, chain) = await keeper.Get("/api/v1/audit/chain");
        Assert.Equal(2, chain.GetProperty("firstBroken").GetInt64());
    }

    /// <summary>
    /// RFC 7239 warns of forged headers (section 8.1): they count from the proxy that was named alone, and the address is the one
    /// that the proxy saw.
    /// </summary>
    [Fact]
    public async Task Behind_a_proxy_the_address_is_the_one_that_it_saw()
    {
        using var house = new HouseWithAccounts(("proxy", "10.0.0.1"));
        var proxied = house.NewBrowser("10.0.0.1");
        proxied.Client.DefaultRequestHeaders.Add("X-Forwarded-For", "198.51.100.4, 203.0.113.9");
        var forged = house.NewBrowser("192.0.2.66");
        forged.Client.DefaultRequestHeaders.Add("X-Forwarded-For", "203.0.113.77");
        var keeper = await house.Keeper("192.0.2.5");
        await proxied.SignIn("mira", "a guess that is long enough");
        await forged.SignIn("mira", "a guess that is long enough");
        var from = (await Lines(keeper, "kinds=sign-in"))
            .Where(l => Says(l).StartsWith("Sign-in refused", StringComparison.Ordinal))
            .Select(l => l.GetProperty("address").GetString());
        Assert.Equal(["192.0.2.66", "203.0.113.9"], from);
    }

    [Fact]
    public async Task Who_took_everything_along_is_on_record()
    {
        var keeper = await _house.Keeper("10.0.0.7");
        await HouseWithAccounts.LayTwoSites(keeper);
        var reader = await _house.Of(keeper, "juno", "planner");
        Assert.Equal(403, (await reader.Get("/api/v1/backups/house.zip")).Status);
        await using var file = await keeper.Client.GetStreamAsync(new Uri("/api/v1/backups/house.zip", UriKind.Relative));
        using var bytes = new MemoryStream();
        await file.CopyToAsync(bytes);
        using var zip = new System.IO.Compression.ZipArchive(bytes);
        Assert.Contains("tables/asset.jsonl", zip.Entries.Select(e => e.FullName));
        Assert.Equal(
            "Mira Larkspur",
            Assert.Single(await Lines(keeper, "kinds=export")).GetProperty("actor").GetProperty("name").GetString()
        );
    }
}
