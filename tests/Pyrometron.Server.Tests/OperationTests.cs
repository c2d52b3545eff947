using System.Globalization;
using System.Text.RegularExpressions;
using Microsoft.Extensions.Configuration;
using Pyrometron.Server.Operation;

namespace Pyrometron.Server.Tests;

/// <summary>What is told to whoever keeps the program running: that it lives, whether it can be used, figures, its log.</summary>
public sealed partial class OperationTests : IDisposable
{
    private readonly Server _server = new();

    public void Dispose() => _server.Dispose();

    [Fact]
    public async Task It_lives_at_once_and_is_ready_once_the_fleet_is_judged()
    {
        var (status, live) = await _server.Get("/health/live");
        Assert.Equal((200, "live"), (status, live.GetProperty("status").GetString()));
        for (var i = 0; ; i++)
        {
            var (code, ready) = await _server.Get("/health/ready");
            var judged = ready.GetProperty("checks").GetProperty("judgement").GetString();
            Assert.Equal(judged == "ok" ? (200, "ready") : (503, "not-ready"), (code, ready.GetProperty("status").GetString()));
            Assert.Equal("ok", ready.GetProperty("checks").GetProperty("database").GetString());
            Assert.Equal("ok", ready.GetProperty("checks").GetProperty("disk").GetString());
            if (code == 200)
                return;
            Assert.True(i < 100, "It never became ready.");
            await Task.Delay(100);
        }
    }

    /// <summary>
    /// A sample is a name, labels and a number; each name is told by a TYPE before it (the text format of Prometheus, version
    /// 0.0.4, from memory; <c>promtool check metrics</c> takes the same answer).
    /// </summary>
    [Fact]
    public async Task Its_figures_are_in_the_form_that_others_read_and_true()
    {
        await _server.Send(
            "/api/v1/fleet/table",
            "tag,kind,model,zone,inServiceSince\nPC-1,desktop,Petrel,Reading room,2026-01-10\nPC-2,desktop,Petrel,Reading room,2026-01-10\n",
            "text/csv"
        );
        await _server.Get("/api/v1/queue?wait=20");
        await _server.Get("/api/v1/assets/NOBODY");
        var answer = await _server.Raw(new HttpRequestMessage(HttpMethod.Get, "/metrics"));
        var lines = (await answer.Content.ReadAsStringAsync()).Split('\n', StringSplitOptions.RemoveEmptyEntries);
        var typed = lines.Where(l => l.StartsWith("# TYPE ", StringComparison.Ordinal)).Select(l => l.Split(' ')[2]).ToHashSet();
        var samples = lines.Where(l => l[0] != '#').Select(l => Sample().Match(l)).ToArray();
        Assert.All(samples, s => Assert.True(s.Success, s.Value));
        Assert.All(samples, s => Assert.Contains(typed, t => s.Groups["name"].Value.StartsWith(t, StringComparison.Ordinal)));
        double Value(string start) =>
            samples
                .Where(s => s.Value.StartsWith(start, StringComparison.Ordinal))
                .Sum(s => double.Parse(s.Groups["value"].Value, CultureInfo.InvariantCulture));
        Assert.Equal(2, Value("pyrometron_machines{"));
        Assert.Equal(0, Value("pyrometron_judgement_pending"));
        Assert.InRange(Value("pyrometron_judgement_age_seconds"), 0, 60);
        Assert.True(Value("pyrometron_database_bytes") > 100_000);
        Assert.Equal(1, Value("pyrometron_http_request_duration_seconds_count{method=\"GET\",code=\"404\"}"));
        Assert.Equal(1, Value("pyrometron_http_request_duration_seconds_count{method=\"POST\",code=\"200\"}"));
    }

    /// <summary>What a refusal was answered as is found in the log by it; two answers have two.</summary>
    [Fact]
    public async Task Every_error_carries_the_trace_that_its_log_lines_have()
    {
        var first = (await _server.Get("/api/v1/assets/NOBODY")).Body.GetProperty("traceId").GetString()!;
        var second = (await _server.Get("/api/v1/nothing-here")).Body.GetProperty("traceId").GetString()!;
        Assert.Matches("^[0-9a-f]{32}$", first);
        Assert.Matches("^[0-9a-f]{32}$", second);
        Assert.NotEqual(first, second);
        using var named = new HttpRequestMessage(HttpMethod.Get, "/api/v1/assets/NOBODY");
        // Who calls may bring one of their own (W3C Trace Context).
        named.Headers.Add("traceparent", "00-0af7651916cd43dd8448eb211c80319c-b7ad6b7169203331-01");
        Assert.Contains(
            "0af7651916cd43dd8448eb211c80319c",
            await (await _server.Raw(named)).Content.ReadAsStringAsync(),
            StringComparison.Ordinal
        );
    }

    [Theory]
    [InlineData(null, false, LogForm.Text)]
    [InlineData(null, true, LogForm.Journal)]
    [InlineData("json", true, LogForm.Json)]
    [InlineData("text", true, LogForm.Text)]
    internal void The_log_is_written_as_asked_and_for_a_journal_where_one_listens(string? said, bool journal, LogForm form) =>
        Assert.Equal(form, Logs.FormOf(said, journal));

    [Fact]
    public void A_log_of_no_known_form_says_which_there_are() =>
        Assert.Equal(
            "--log xml is no form of a log; use text, json or journal.",
            Assert.Throws<InvalidDataException>(() => Logs.FormOf("xml", false)).Message
        );

    /// <summary>A link that works once stands between no lines that programs collect.</summary>
    [Theory]
    [InlineData("json", true)]
    [InlineData("text", false)]
    [InlineData(null, false)]
    public void What_is_for_a_terminal_alone_does_not_stand_in_a_log_for_programs(string? said, bool apart) =>
        Assert.Same(
            apart ? Console.Error : Console.Out,
            Logs.ConsoleFor(new ConfigurationBuilder().AddInMemoryCollection([new("log", said)]).Build())
        );

    [GeneratedRegex("""^(?<name>[a-z_]+)(\{[a-z]+="[^"]*"(,[a-z]+="[^"]*")*\})? (?<value>NaN|[+-]?[0-9.]+([eE][+-]?[0-9]+)?)$""")]
    private static partial Regex Sample();
}
