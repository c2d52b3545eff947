using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Extensions.DependencyInjection;

namespace Pyrometron.Server.Tests;

/// <summary>The real server on an empty database of its own.</summary>
public sealed class Server : WebApplicationFactory<Program>
{
    /// <summary>Says from which address a call comes.</summary>
    internal const string FromHeader = "Test-From";

    private readonly DirectoryInfo _folder = Directory.CreateTempSubdirectory("pyrometron-");
    private readonly HttpClient _client;
    private readonly Dictionary<string, string> _settings;

    /// <summary>Where its database lies.</summary>
    public string Folder => _folder.FullName;

    public Server()
        : this(_ => { }) { }

    /// <summary>The same on data that is laid into its folder first.</summary>
    internal Server(Action<string> lay)
        : this([], lay) { }

    /// <summary>The same with settings of the house.</summary>
    internal Server(Dictionary<string, string> settings, Action<string>? lay = null)
    {
        _settings = settings;
        lay?.Invoke(_folder.FullName);
        _client = CreateClient();
    }

    /// <summary>The repository's own copy of the trial fleets.</summary>
    public static string Trial(string file) => OfRepository(Path.Combine("trial", file));

    /// <summary>A file of the repository.</summary>
    public static string OfRepository(string path)
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(folder.FullName, "Pyrometron.slnx")))
            folder = folder.Parent!;
        return Path.Combine(folder.FullName, path);
    }

    public async Task<(int Status, JsonElement Body)> Get(string path) =>
        await Answer(await _client.GetAsync(new Uri(path, UriKind.Relative)));

    public async Task<(int Status, JsonElement Body)> Post(string path, object body) =>
        await Answer(await _client.PostAsJsonAsync(path, body));

    public async Task<(int Status, JsonElement Body)> Put(string path, object body) =>
        await Answer(await _client.PutAsJsonAsync(path, body));

    public async Task<(int Status, JsonElement Body)> Patch(string path, object body) =>
        await Answer(await _client.PatchAsJsonAsync(path, body));

    public async Task<(int Status, JsonElement Body)> Send(string path, byte[] body, string? type = null, string? encoding = null)
    {
        type ??= path.Split('?')[0] is "/api/v1/readings" or "/api/v1/services" or "/api/v1/runs/log"
            ? "text/csv"
            : "application/json";
        using var content = new ByteArrayContent(body);
        content.Headers.ContentType = new(type);
        if (encoding is not null)
            content.Headers.ContentEncoding.Add(encoding);
        return await Answer(await _client.PostAsync(new Uri(path, UriKind.Relative), content));
    }

    public Task<(int Status, JsonElement Body)> Send(string path, string body, string? type = null) =>
        Send(path, Encoding.UTF8.GetBytes(body), type);

    public async Task<HttpResponseMessage> Raw(HttpRequestMessage request) => await _client.SendAsync(request);

    /// <summary>A small fleet with a year of daily readings: a fouled card among sound ones.</summary>
    public async Task LoadSmallFleet()
    {
        var assets = Enumerable
            .Range(1, 8)
            .Select(i => new
            {
                tag = $"GC-{i}",
                kind = "graphics-card",
                model = "Sorrel",
                zone = "Z",
                dutyHoursPerDay = 24,
                inServiceSince = DateTime.UtcNow.AddDays(-390).ToString("yyyy-MM-dd"),
                warrantyUntil = (string?)null,
                parts = new[]
                {
                    new
                    {
                        part = "core",
                        limitCelsius = 90,
                        @interface = "paste",
                    },
                    new
                    {
                        part = "memory",
                        limitCelsius = 105,
                        @interface = "pad",
                    },
                },
                services = Array.Empty<object>(),
            });
        var (status, _) = await Post(
            "/api/v1/fleet",
            new
            {
                format = "pyrometron-fleet/1",
                sites = new[]
                {
                    new
                    {
                        code = "S",
                        name = "Site",
                        altitudeMetres = 5,
                        zones = new[]
                        {
                            new
                            {
                                code = "Z",
                                name = "Row",
                                dust = "normal",
                                designAmbientCelsius = 33,
                            },
                        },
                    },
                },
                assets,
            }
        );
        Assert.Equal(200, status);
        var csv = new StringBuilder("time,asset,ambient_c,power_w,core_c,memory_c,fan_rpm,fan_pct,settings,workload\n");
        for (var day = 360; day > 0; day--)
        for (var i = 1; i <= 8; i++)
        {
            var air = 25 + 3 * Math.Sin(day / 58.0) + i % 3 * 0.5 + day % 2;
            var fouled = i == 1 ? 9.0 * Math.Max(0, 300 - day) / 300 : 0;
            csv.Append(
                FormattableString.Invariant(
                    $"{DateTime.UtcNow.Date.AddDays(-day):yyyy-MM-dd}T06:00Z,GC-{i},{air:0.0},{220 + day % 5},{Math.Round(air + 40 + i + fouled)},{Math.Round(air + 52 + fouled)},{1900 + day % 7 * 5},60,stock,steady\n"
                )
            );
        }
        (status, var body) = await Send("/api/v1/readings", csv.ToString());
        Assert.Equal((200, 2880), (status, body.GetProperty("accepted").GetInt32()));
    }

    protected override void ConfigureWebHost(IWebHostBuilder builder)
    {
        builder.UseSetting("data", _folder.FullName);
        foreach (var (name, value) in _settings)
            builder.UseSetting(name, value);
        builder.ConfigureServices(services => services.AddSingleton<IStartupFilter, PlacedCalls>());
    }

    /// <summary>The test server has no network: calls say by a header of their own from where they come.</summary>
    private sealed class PlacedCalls : IStartupFilter
    {
        public Action<IApplicationBuilder> Configure(Action<IApplicationBuilder> next) =>
            app =>
            {
                app.Use(
                    (context, following) =>
                    {
                        if (context.Request.Headers.TryGetValue(FromHeader, out var from))
                            context.Connection.RemoteIpAddress = IPAddress.Parse(from.ToString());
                        return following(context);
                    }
                );
                next(app);
            };
    }

    protected override void Dispose(bool disposing)
    {
        base.Dispose(disposing);
        if (disposing)
            Remove(_folder.FullName);
    }

    /// <summary>What still ends in the background may write a last file while the folder goes: it is tried again.</summary>
    private static void Remove(string folder)
    {
        for (var tries = 20; Directory.Exists(folder); tries--)
            try
            {
                Directory.Delete(folder, recursive: true);
            }
            catch (IOException) when (tries > 0)
            {
                Thread.Sleep(100);
            }
    }

    private static async Task<(int, JsonElement)> Answer(HttpResponseMessage response)
    {
        var text = await response.Content.ReadAsStringAsync();
        if (response.StatusCode >= System.Net.HttpStatusCode.BadRequest)
            Assert.Equal("application/problem+json", response.Content.Headers.ContentType?.MediaType);
        return ((int)response.StatusCode, text.Length > 0 ? JsonDocument.Parse(text).RootElement : default);
    }
}
