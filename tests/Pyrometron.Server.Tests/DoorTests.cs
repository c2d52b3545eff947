using System.Net;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json;
using System.Text.RegularExpressions;

namespace Pyrometron.Server.Tests;

/// <summary>
/// What comes to the door from elsewhere or in no usable form is refused as RFC 9110 and RFC 9457 say, with words for whoever
/// sent it, and never breaks the program.
/// </summary>
public sealed partial class DoorTests(Server server) : IClassFixture<Server>
{
    private async Task<(int Status, string Type, string Body, HttpResponseMessage Answer)> Call(
        string method,
        string path,
        string? body = null,
        Action<HttpRequestMessage>? with = null
    )
    {
        using var request = new HttpRequestMessage(new HttpMethod(method), path);
        if (body is not null)
            request.Content = new StringContent(body, Encoding.UTF8, "application/json");
        with?.Invoke(request);
        var answer = await server.Raw(request);
        var text = await answer.Content.ReadAsStringAsync();
        return ((int)answer.StatusCode, answer.Content.Headers.ContentType?.MediaType ?? "", text, answer);
    }

    /// <summary>
    /// RFC 9457: its own media type, a status that repeats the answer's, a title and a detail; no type of the program's.
    /// </summary>
    private static void IsProblem(string type, string body, int status)
    {
        Assert.Equal("application/problem+json", type);
        var problem = JsonDocument.Parse(body).RootElement;
        Assert.Equal(status, problem.GetProperty("status").GetInt32());
        Assert.False(string.IsNullOrWhiteSpace(problem.GetProperty("title").GetString()));
        Assert.False(string.IsNullOrWhiteSpace(problem.GetProperty("detail").GetString()));
        Assert.DoesNotMatch(TypeName(), body);
        Assert.True(body.Length < 60_000, "an error answer repeats what was sent");
    }

    [Theory]
    [InlineData("https://elsewhere.example", 403)]
    [InlineData("null", 403)]
    [InlineData("http://localhost:81", 403)]
    [InlineData("https://localhost", 403)]
    [InlineData("http://localhost", 404)]
    [InlineData(null, 404)]
    public async Task Writes_from_pages_of_other_origins_are_refused(string? origin, int expected)
    {
        var answer = await Call(
            "POST",
            "/api/v1/assets/NONE/symptoms",
            """{"kind":"crash"}""",
            r =>
            {
                if (origin is not null)
                    r.Headers.Add("Origin", origin);
            }
        );
        Assert.Equal(expected, answer.Status);
        IsProblem(answer.Type, answer.Body, expected);
        Assert.Equal(200, (await Call("GET", "/api/v1/health", with: r => r.Headers.Add("Origin", "null"))).Status);
    }

    [Theory]
    [InlineData("/api/v1/assets/NONE/symptoms", "text/plain", 415)]
    [InlineData("/api/v1/assets/NONE/symptoms", "application/x-www-form-urlencoded", 415)]
    [InlineData("/api/v1/assets/NONE/symptoms", "multipart/form-data", 415)]
    [InlineData("/api/v1/assets/NONE/symptoms", "application/json", 404)]
    [InlineData("/api/v1/assets/NONE/symptoms", null, 404)]
    [InlineData("/api/v1/readings", "text/plain", 415)]
    [InlineData("/api/v1/readings", "application/json", 415)]
    [InlineData("/api/v1/readings", "text/csv", 400)]
    [InlineData("/api/v1/readings", "application/gzip", 400)]
    [InlineData("/api/v1/readings", "application/octet-stream", 400)]
    [InlineData("/api/v1/readings", null, 400)]
    [InlineData("/api/v1/services", "application/x-www-form-urlencoded", 415)]
    [InlineData("/api/v1/fleet", "text/plain", 415)]
    [InlineData("/api/v1/fleet", "application/json", 400)]
    public async Task A_body_of_a_type_that_the_call_does_not_take_is_refused(string path, string? type, int expected)
    {
        var answer = await Call(
            "POST",
            path,
            """{"kind":"crash"}""",
            r => r.Content!.Headers.ContentType = type is null ? null : new MediaTypeHeaderValue(type)
        );
        Assert.Equal(expected, answer.Status);
        IsProblem(answer.Type, answer.Body, expected);
        if (expected == 415)
            Assert.Contains("send ", answer.Body, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("GET", "/api/v1/nowhere", 404)]
    [InlineData("GET", "/api/nowhere", 404)]
    [InlineData("GET", "/api", 404)]
    [InlineData("GET", "/openapi/v7.json", 404)]
    [InlineData("DELETE", "/api/v1/fleet", 405)]
    [InlineData("PATCH", "/api/v1/jobs/1", 405)]
    [InlineData("GET", "/api/v1/verdicts/evaluate", 405)]
    [InlineData("POST", "/queue", 405)]
    [InlineData("TRACE", "/api/v1/queue", 405)]
    [InlineData("GET", "/queue", 404)]
    [InlineData("GET", "/assets/app.js", 404)]
    [InlineData("GET", "/api/v1/queue?wait=NaN", 400)]
    [InlineData("GET", "/api/v1/queue?wait=-1", 400)]
    [InlineData("GET", "/api/v1/zones?wait=Infinity", 400)]
    [InlineData("GET", "/api/v1/zones?asOf=9999-12-31", 400)]
    [InlineData("GET", "/api/v1/zones?asOf=yesterday", 400)]
    [InlineData("GET", "/api/v1/assets/X/assessment?wait=NaN", 400)]
    [InlineData("GET", "/api/v1/assets/X/assessment?asOf=9999-12-31", 400)]
    [InlineData("GET", "/api/v1/assets/X/assessment?asOf=0001-01-01", 400)]
    [InlineData("GET", "/api/v1/log?until=9999-12-31", 200)]
    [InlineData("GET", "/api/v1/log.json?until=9999-12-31", 200)]
    [InlineData("GET", "/api/v1/log.csv?until=9999-12-31", 200)]
    [InlineData("GET", "/api/v1/log?from=0001-01-01", 200)]
    [InlineData("GET", "/api/v1/changes?after=-5", 200)]
    [InlineData("GET", "/api/v1/jobs/99999999999999999999", 404)]
    [InlineData("POST", "/api/v1/verdicts/evaluate", 400)]
    public async Task What_cannot_be_answered_says_so_in_one_form(string method, string path, int expected)
    {
        var answer = await Call(method, path);
        Assert.Equal(expected, answer.Status);
        if (expected >= 400)
            IsProblem(answer.Type, answer.Body, expected);
        if (expected == 405)
            Assert.NotEmpty(answer.Answer.Content.Headers.Allow);
    }

    /// <summary>
    /// An answer, a page, what is not there, a refused input, a write of another site and a name that is not the house's.
    /// Names and meanings: CSP level 3, Fetch, Referrer Policy, HTML (cross-origin opener), RFC 6797.
    /// </summary>
    [Theory]
    [InlineData("GET", "/api/v1/health", null, null, 200)]
    [InlineData("GET", "/openapi/v1.json", null, null, 200)]
    [InlineData("GET", "/api/nowhere", null, null, 404)]
    [InlineData("GET", "/api/v1/queue?wait=NaN", null, null, 400)]
    [InlineData("POST", "/api/v1/verdicts/evaluate", "https://elsewhere.example", null, 403)]
    [InlineData("GET", "/api/v1/health", null, "elsewhere.example", 400)]
    public async Task Every_answer_tells_a_browser_what_it_may_do_with_it(
        string method,
        string path,
        string? origin,
        string? host,
        int expected
    )
    {
        var answer = await Call(
            method,
            path,
            with: r =>
            {
                if (origin is not null)
                    r.Headers.Add("Origin", origin);
                r.Headers.Host = host;
            }
        );
        Assert.Equal(expected, answer.Status);
        string Header(string name) => string.Join(';', answer.Answer.Headers.GetValues(name));
        Assert.Equal("nosniff", Header("X-Content-Type-Options"));
        Assert.Equal("same-origin", Header("Referrer-Policy"));
        Assert.Equal("same-origin", Header("Cross-Origin-Opener-Policy"));
        Assert.Equal("same-origin", Header("Cross-Origin-Resource-Policy"));
        var policy = Header("Content-Security-Policy");
        foreach (var part in new[] { "default-src 'self'", "object-src 'none'", "frame-ancestors 'none'", "base-uri 'self'" })
            Assert.Contains(part, policy, StringComparison.Ordinal);
        Assert.DoesNotContain("unsafe", policy, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_page_is_served_where_a_browser_asks_for_one()
    {
        var answer = await Call("GET", "/machines/GC.1", with: r => r.Headers.Add("Accept", "text/html,*/*;q=0.8"));
        Assert.True(answer.Type == "text/html" || answer.Body.Contains("front end", StringComparison.Ordinal), answer.Body);
    }

    [Fact]
    public async Task Under_a_name_that_is_not_this_machines_nothing_is_answered()
    {
        var answer = await Call("GET", "/api/v1/health", with: r => r.Headers.Host = "elsewhere.example");
        Assert.Equal(400, answer.Status);
        IsProblem(answer.Type, answer.Body, 400);
        Assert.Equal(200, (await Call("GET", "/api/v1/health", with: r => r.Headers.Host = "127.0.0.1:5117")).Status);
    }

    /// <summary>Every kind of entry with each of its members left out, or turned into what it is not.</summary>
    [Fact]
    public async Task An_entry_without_what_it_needs_is_refused_and_leaves_the_job_as_it_was()
    {
        await server.LoadSmallFleet();
        var job = (await server.Post("/api/v1/jobs", new { asset = "GC-1", level = "repaste" })).Body;
        var id = job.GetProperty("id").GetInt64();
        foreach (var file in Directory.EnumerateFiles(Server.OfRepository("tests/golden/entries"), "*.json"))
        {
            var entry = JsonDocument.Parse(await File.ReadAllTextAsync(file)).RootElement;
            var members = entry.EnumerateObject().Select(m => m.Name).ToArray();
            foreach (var left in members)
            foreach (var other in (object?[])["absent", null, 1e308, -1, "\u0000", Array.Empty<object>()])
            {
                var sent = entry.EnumerateObject().Where(m => m.Name != left).ToDictionary(m => m.Name, m => (object?)m.Value);
                if (other is not "absent")
                    sent[left] = other;
                var (status, _) = await server.Post(
                    $"/api/v1/jobs/{id}/entries",
                    new
                    {
                        key = Guid.NewGuid(),
                        version = 1,
                        device = "bench",
                        entry = sent,
                    }
                );
                Assert.True(status < 500, $"{Path.GetFileName(file)} with {left} {other ?? "null"} is a {status}");
            }
        }
        Assert.Equal(200, (await server.Get($"/api/v1/jobs/{id}")).Status);
    }

    [Fact]
    public async Task An_error_answer_is_short_whatever_was_sent()
    {
        var huge = new string('x', 3_000_000);
        foreach (
            var (path, body) in (ValueTuple<string, string>[])
                [
                    ("/api/v1/jobs", $$"""{"asset":"{{huge}}","level":"repaste"}"""),
                    ("/api/v1/verdicts/evaluate", $$"""{"{{huge}}":{{huge}}"""),
                    ("/api/v1/fleet", $$"""{"format":"pyrometron-fleet/1","{{huge}}":1}"""),
                    ("/api/v1/assets/NONE/symptoms", $$"""{"kind":"{{huge}}"}"""),
                ]
        )
        {
            var answer = await Call("POST", path, body);
            Assert.InRange(answer.Status, 400, 499);
            IsProblem(answer.Type, answer.Body, answer.Status);
        }
        var long_ = await Call("GET", "/api/v1/queue?asOf=" + huge[..5000]);
        Assert.Equal(HttpStatusCode.BadRequest, (HttpStatusCode)long_.Status);
        IsProblem(long_.Type, long_.Body, 400);
    }

    [GeneratedRegex("(System|Microsoft|Pyrometron)\\.[A-Z]|`1")]
    private static partial Regex TypeName();
}
