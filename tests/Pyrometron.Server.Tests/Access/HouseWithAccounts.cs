using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Extensions.DependencyInjection;
using Pyrometron.Server.Access;

namespace Pyrometron.Server.Tests.Access;

/// <summary>The real server started for a house, with browsers that keep their cookies.</summary>
internal sealed class HouseWithAccounts : IDisposable
{
    public const string Password = "kelp lantern tide rope";

    private readonly Server _server;

    public HouseWithAccounts(params (string Name, string Value)[] settings)
    {
        var all = new Dictionary<string, string> { ["solo"] = "false", ["name"] = "house.test" };
        foreach (var (name, value) in settings)
            all[name] = value;
        _server = new Server(all);
    }

    public IServiceProvider Services => _server.Services;

    public FirstLink First => Services.GetRequiredService<FirstLink>();

    /// <summary>A browser that nobody has signed in with.</summary>
    /// <param name="from">Its address on the network; null for none.</param>
    public Browser NewBrowser(string? from = null)
    {
        var client = _server.CreateClient(
            new WebApplicationFactoryClientOptions
            {
                BaseAddress = new Uri("https://localhost"),
                AllowAutoRedirect = false,
                HandleCookies = true,
            }
        );
        if (from is not null)
            client.DefaultRequestHeaders.Add(Server.FromHeader, from);
        return new Browser(client);
    }

    /// <summary>A browser of whoever set the house up.</summary>
    public async Task<Browser> Keeper(string? from = null)
    {
        var browser = NewBrowser(from);
        var (status, _) = await browser.Post(
            "/api/v1/session/enter",
            new
            {
                link = First.Token,
                password = Password,
                account = "mira",
                name = "Mira Larkspur",
            }
        );
        Assert.Equal(200, status);
        return browser;
    }

    /// <summary>A browser of somebody new with a role.</summary>
    public async Task<Browser> Of(Browser keeper, string code, string role, string[]? sites = null, string[]? machines = null)
    {
        var (status, link) = await keeper.Post(
            $"/api/v1/accounts/{code}",
            new
            {
                name = $"Name of {code}",
                role,
                sites,
                machines,
            }
        );
        Assert.Equal(201, status);
        var browser = NewBrowser();
        (status, _) = await browser.Post("/api/v1/session/enter", new { link = TokenOf(link), password = Password });
        Assert.Equal(200, status);
        return browser;
    }

    /// <summary>Two sites with a machine each.</summary>
    public static async Task LayTwoSites(Browser keeper)
    {
        object Site(string code) =>
            new
            {
                code,
                name = code,
                altitudeMetres = 5,
                zones = new[]
                {
                    new
                    {
                        code = $"{code}-1",
                        name = "Room",
                        dust = "normal",
                        designAmbientCelsius = 30,
                    },
                },
            };
        object Machine(string tag, string zone) =>
            new
            {
                tag,
                kind = "desktop",
                model = "Whelk",
                zone,
                dutyHoursPerDay = 8,
                inServiceSince = "2024-01-01",
                parts = new[]
                {
                    new
                    {
                        part = "processor",
                        limitCelsius = 95,
                        @interface = "paste",
                    },
                },
                services = Array.Empty<object>(),
            };
        var (status, _) = await keeper.Post(
            "/api/v1/fleet",
            new
            {
                format = "pyrometron-fleet/1",
                sites = new[] { Site("COVE"), Site("QUAY") },
                assets = new[] { Machine("DT-1", "COVE-1"), Machine("DT-2", "QUAY-1") },
            }
        );
        Assert.Equal(200, status);
    }

    /// <summary>The token of a link that was given out.</summary>
    public static string TokenOf(JsonElement link) => link.GetProperty("path").GetString()!.Split('#')[1];

    public void Dispose() => _server.Dispose();
}

/// <summary>A browser: a client that keeps its cookies.</summary>
internal sealed class Browser(HttpClient client)
{
    public HttpClient Client => client;

    public async Task<(int Status, JsonElement Body)> Get(string path) =>
        await Read(await client.GetAsync(new Uri(path, UriKind.Relative)));

    public async Task<(int Status, JsonElement Body)> Post(string path, object body) =>
        await Read(await client.PostAsJsonAsync(path, body));

    public async Task<(int Status, JsonElement Body)> Put(string path, object body) =>
        await Read(await client.PutAsJsonAsync(path, body));

    public async Task<(int Status, JsonElement Body)> Delete(string path) =>
        await Read(await client.DeleteAsync(new Uri(path, UriKind.Relative)));

    public async Task<(int Status, JsonElement Body)> SignIn(string account, string password, string? code = null) =>
        await Post(
            "/api/v1/session",
            new
            {
                account,
                password,
                code,
            }
        );

    private static async Task<(int, JsonElement)> Read(HttpResponseMessage answer)
    {
        var text = await answer.Content.ReadAsStringAsync();
        var isJson = answer.Content.Headers.ContentType?.MediaType?.EndsWith("json", StringComparison.Ordinal) == true;
        return ((int)answer.StatusCode, isJson ? JsonDocument.Parse(text).RootElement : default);
    }
}
