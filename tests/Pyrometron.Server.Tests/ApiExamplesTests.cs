using System.Globalization;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using OtpNet;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Tests.Access;

namespace Pyrometron.Server.Tests;

/// <summary>
/// Every example of the description of the API is sent, in the order of the file, and answered as the description says. What no
/// file can know (a link that was just made, today) is put in before.
/// </summary>
public sealed class ApiExamplesTests
{
    private const string Json = "application/json";

    /// <summary>Calls about who may come in: they are sent to a house with accounts, all others to the demo.</summary>
    private static bool IsOfAccounts(string path) =>
        new[] { "/session", "/account", "/keys", "/own/", "/housekeeping/browsers" }.Any(p =>
            path.StartsWith("/api/v1" + p, StringComparison.Ordinal)
        );

    [Fact]
    public async Task EveryCallThatTakesSomethingHasAnExample()
    {
        using var server = new Server();
        var calls = await Calls(server.CreateClient());
        var taking = calls.Where(c => c.Value.TakesSomething).Select(c => c.Key).ToHashSet();
        Assert.True(taking.Count > 120);
        Assert.Equal(taking.Order(), ApiExamples.All.Select(e => e.Key).Order());
    }

    [Fact]
    public async Task TheExamplesOfTheDemoAreAnsweredAsDescribed()
    {
        using var server = new Server(new Dictionary<string, string> { ["demo"] = "true" });
        using var client = server.CreateClient();
        await Planned(client);
        var story = new Story(await Calls(client));
        foreach (var (name, example) in ApiExamples.All.Where(e => !IsOfAccounts(story.PathOf(e.Key))))
            await story.Send(client, name, await Filled(name, example, story, client));
        story.AssertAllAnswered();
    }

    [Fact]
    public async Task TheExamplesOfAccountsAreAnsweredAsDescribed()
    {
        using var server = new Server();
        using var house = new HouseWithAccounts();
        var story = new Story(await Calls(server.CreateClient()));
        var (browser, other) = (house.NewBrowser().Client, house.NewBrowser().Client);
        foreach (var (name, example) in ApiExamples.All.Where(e => IsOfAccounts(story.PathOf(e.Key))))
        {
            var filled = name switch
            {
                "post-session-link" or "post-session-enter" => example.WithMember("link", house.First.Token),
                "post-account-codes-begin" => example.WithMember(
                    "code",
                    new Totp(Base32Encoding.ToBytes((string)story.Answers["post-account-codes"]["secret"]!)).ComputeTotp()
                ),
                "delete-account-browsers-id" or "delete-housekeeping-browsers-id" => example.WithPath(
                    "id",
                    await OtherBrowser(browser)
                ),
                _ => example,
            };
            await story.Send(name == "post-session" ? other : browser, name, filled);
            if (name == "delete-account-browsers-id")
                await story.Send(
                    house.NewBrowser().Client,
                    "post-session",
                    ApiExamples.All.Single(e => e.Key == "post-session").Value
                );
        }
        story.AssertAllAnswered();
    }

    private static async Task<string> OtherBrowser(HttpClient client) =>
        (await Get(client, "/api/v1/account"))["browsers"]!.AsArray().First(b => !(bool)b!["here"]!)!["id"]!.ToString();

    /// <summary>The example with what only the running house knows: its numbers, and days that are still to come.</summary>
    private static async Task<ApiExample> Filled(string name, ApiExample example, Story story, HttpClient client)
    {
        if (example.Body is JsonObject body && body.ContainsKey("seen"))
            example = example.WithMember("seen", (long)(await Get(client, "/api/v1/weeks"))["plan"]!["id"]!);
        var soon = DateTime.UtcNow.AddDays(20).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
        return name switch
        {
            "put-assets-tag-set-aside" => example.WithMember("until", soon),
            "get-weeks-hours" => example.WithPath("until", soon),
            "post-assets-tag-services-service-void" => example.WithPath(
                "service",
                (await Get(client, "/api/v1/assets/AC-0002"))["services"]![0]!["id"]!.ToString()
            ),
            "post-assets-tag-symptoms-id-withdraw" => example.WithPath(
                "id",
                (await Get(client, "/api/v1/assets/AC-0001"))["symptoms"]![0]!["id"]!.ToString()
            ),
            "post-stores-cutting-id-book" => example.WithPath("id", (string)story.Answers["post-stores-cutting"]["id"]!),
            "post-weeks-jobs-id-place" => await Placeable(
                client,
                example.WithPath("id", (string)story.Answers["post-weeks-jobs"]["id"]!)
            ),
            "post-weeks-jobs-id-lock" or "post-weeks-jobs-id-leave-out" => example.WithPath(
                "id",
                (string)story.Answers["post-weeks-jobs"]["id"]!
            ),
            "get-backups-name-restore" or "post-backups-name-restore" => example.WithPath("name", await Backup(client)),
            "delete-zones-code" => example.WithPath("code", (string)story.Answers["post-zones"]["code"]!),
            _ => example,
        };
    }

    /// <summary>With a day and a minute that are free.</summary>
    private static async Task<ApiExample> Placeable(HttpClient client, ApiExample example)
    {
        var days = (await Get(client, "/api/v1/weeks"))["plan"]!["jobs"]!.AsArray().Select(j => (string)j!["day"]!).Distinct();
        foreach (var day in days.OrderDescending())
        foreach (var minute in new[] { 480, 600, 720, 840, 900 })
        {
            var tried = example.WithMember("day", day).WithMember("from", minute).WithMember("tryOnly", true);
            using var answer = await client.PostAsJsonAsync($"/api/v1/weeks/jobs/{example.Path!["id"]}/place", tried.Body);
            if (JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["conflict"] is null)
                return tried.WithMember("tryOnly", false);
        }
        throw new InvalidOperationException("The demo's plan has no room for half an hour.");
    }

    private static async Task<string> Backup(HttpClient client)
    {
        using var asked = await client.PostAsync(new Uri("/api/v1/backups", UriKind.Relative), null);
        for (var tries = 0; tries < 120; tries++)
        {
            if ((await Get(client, "/api/v1/backups"))["backups"]!.AsArray() is [{ } newest, ..])
                return (string)newest["name"]!;
            await Task.Delay(250);
        }
        return "none";
    }

    private static async Task<JsonNode> Get(HttpClient client, string path) =>
        JsonNode.Parse(await client.GetStringAsync(new Uri(path, UriKind.Relative)))!;

    /// <summary>The demo is judged, and planned, in the background.</summary>
    private static async Task Planned(HttpClient client)
    {
        for (var tries = 0; (await Get(client, "/api/v1/weeks"))["plan"] is null; tries++)
        {
            Assert.True(tries < 240, "The demo was not planned within a minute.");
            await Task.Delay(250);
        }
    }

    private static async Task<Dictionary<string, Described>> Calls(HttpClient client)
    {
        var document = await Get(client, "/openapi/v1.json");
        return document["paths"]!
            .AsObject()
            .SelectMany(path => path.Value!.AsObject().Select(call => Described.From(path.Key, call.Key, call.Value!.AsObject())))
            .ToDictionary(c => c.Name);
    }

    /// <summary>A call as the document describes it.</summary>
    private sealed record Described(string Name, string Path, HttpMethod Method, JsonObject Call)
    {
        public static Described From(string path, string method, JsonObject call) =>
            new((string)call["operationId"]!, path, HttpMethod.Parse(method.ToUpperInvariant()), call);

        public bool TakesSomething => Call.ContainsKey("requestBody") || Call["parameters"]?.AsArray().Count > 0;

        public IEnumerable<(string Name, string In)> Parameters =>
            Call["parameters"]?.AsArray().Select(p => ((string)p!["name"]!, (string)p["in"]!)) ?? [];

        /// <summary>The statuses that are described.</summary>
        public IEnumerable<int> Answers =>
            Call["responses"]!.AsObject().Select(r => int.Parse(r.Key, CultureInfo.InvariantCulture));

        /// <summary>The one that says it went well.</summary>
        public int Answer => Answers.First(s => s < 300);
    }

    /// <summary>Examples that no story can bring to a good end: how they are refused, and why.</summary>
    private static readonly Dictionary<string, int[]> Refused = new()
    {
        // An import of three lines has ended before anybody can ask how far it is.
        ["get-imports-id"] = [404],
        // Nothing is given up within a test.
        ["post-notices-sent-id-again"] = [409],
        // At some hours of the day nobody has a shift.
        ["post-weeks-late"] = [200, 409],
        // Who set the house up owns no machine.
        ["post-own-jobs-id-order"] = [403],
    };

    /// <summary>The examples one after the other, and how they were answered.</summary>
    private sealed class Story(Dictionary<string, Described> calls)
    {
        private readonly List<string> _wrong = [];
        private int _sent;

        /// <summary>By call, the last one in JSON.</summary>
        public Dictionary<string, JsonNode> Answers { get; } = [];

        public string PathOf(string name) => calls[name].Path;

        public async Task Send(HttpClient client, string name, ApiExample example)
        {
            var call = calls[name];
            using var request = RequestOf(call, example);
            if (client.BaseAddress is { Scheme: "https" } address)
                request.Headers.Add("Origin", address.GetLeftPart(UriPartial.Authority));
            using var answer = await client.SendAsync(request, HttpCompletionOption.ResponseHeadersRead);
            _sent++;
            var status = (int)answer.StatusCode;
            if (!(Refused.GetValueOrDefault(name) ?? [call.Answer]).Contains(status))
                _wrong.Add($"{name}: {status} instead of {call.Answer}: {await answer.Content.ReadAsStringAsync()}");
            else if (!call.Answers.Contains(status))
                _wrong.Add($"{name}: {status} is not described");
            else if (answer.Content.Headers.ContentType?.MediaType == Json)
                Answers[name] = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;
        }

        public void AssertAllAnswered()
        {
            Assert.True(_sent > 10);
            Assert.True(_wrong.Count == 0, string.Join('\n', _wrong));
        }

        private static HttpRequestMessage RequestOf(Described call, ApiExample example)
        {
            var path = call.Path;
            var query = new List<string>();
            var request = new HttpRequestMessage { Method = call.Method };
            foreach (var (parameter, place) in call.Parameters)
                if (example.Path?.GetValueOrDefault(parameter) is { } value)
                {
                    if (place == "path")
                        path = path.Replace($"{{{parameter}}}", Uri.EscapeDataString(value), StringComparison.Ordinal);
                    else if (place == "query")
                        query.Add($"{parameter}={Uri.EscapeDataString(value)}");
                    else
                        request.Headers.Add(parameter, value);
                }
            request.RequestUri = new Uri(query.Count > 0 ? $"{path}?{string.Join('&', query)}" : path, UriKind.Relative);
            var body =
                example.Bytes
                ?? (
                    example.Body is null ? null
                    : example.Type == Json ? Encoding.UTF8.GetBytes(example.Body.ToJsonString())
                    : Encoding.UTF8.GetBytes((string)example.Body!)
                );
            if (body is not null)
                request.Content = new ByteArrayContent(body)
                {
                    Headers = { ContentType = new MediaTypeHeaderValue(example.Type) },
                };
            return request;
        }
    }
}

/// <summary>Examples with values put in.</summary>
internal static class FilledExamples
{
    public static ApiExample WithPath(this ApiExample example, string name, string value) =>
        example with
        {
            Path = new Dictionary<string, string>(example.Path ?? new Dictionary<string, string>()) { [name] = value },
        };

    public static ApiExample WithMember(this ApiExample example, string name, JsonNode value)
    {
        var body = example.Body!.DeepClone();
        body[name] = value;
        return example with { Body = body };
    }
}
