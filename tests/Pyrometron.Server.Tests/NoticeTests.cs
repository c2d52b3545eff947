using System.Globalization;
using System.Text.Json;
using Microsoft.Extensions.DependencyInjection;
using Pyrometron.Application.Notices;
using Pyrometron.Core.Notices;
using Pyrometron.Devices;
using Pyrometron.Sending;
using Pyrometron.Storage;

namespace Pyrometron.Server.Tests;

/// <summary>What is new, as a client, a mail and a program of the house see it.</summary>
public sealed class NoticeTests : IDisposable
{
    private readonly MailStandIn _mail = new();
    private readonly WebhookStandIn _program = new();
    private readonly Server _server;

    public NoticeTests() =>
        _server = new Server(
            settings: new()
            {
                ["Mail:Host"] = "127.0.0.1",
                ["Mail:Port"] = _mail.Port.ToString(CultureInfo.InvariantCulture),
                ["Mail:Security"] = "none",
                ["Mail:From"] = "house@institute.example",
            }
        );

    public void Dispose()
    {
        _server.Dispose();
        _mail.Dispose();
        _program.Dispose();
    }

    private static DateOnly Today => DateOnly.FromDateTime(DateTime.UtcNow);

    /// <summary>A house that has been watched since yesterday, in which a fouled card turns up today.</summary>
    private async Task WithNews()
    {
        _server.Services.GetRequiredService<NoticeUseCases>().Notice(Today.AddDays(-1), []);
        await _server.LoadSmallFleet();
        await _server.Get("/api/v1/queue?wait=20");
        await Until(async () => (await News()).Count > 0, "news");
    }

    private async Task<List<JsonElement>> News(string query = "") =>
        [.. (await _server.Get("/api/v1/notices" + query)).Body.GetProperty("notices").EnumerateArray()];

    private static async Task Until(Func<Task<bool>> isSo, string what)
    {
        for (var i = 0; i < 300; i++, await Task.Delay(100))
            if (await isSo())
                return;
        Assert.Fail($"There is no {what} after 30 seconds");
    }

    private async Task Add(string code, object? more = null, string[]? sites = null)
    {
        var person = new
        {
            name = code,
            skills = Array.Empty<string>(),
            sites = sites ?? [],
            hours = Array.Empty<object>(),
        };
        Assert.Equal(204, (await _server.Put($"/api/v1/people/{code}", person)).Status);
        if (more is not null)
            Assert.Equal(204, (await _server.Put($"/api/v1/people/{code}/notices", more)).Status);
    }

    [Fact]
    public async Task What_a_house_begins_with_is_no_news()
    {
        await _server.LoadSmallFleet();
        await _server.Get("/api/v1/queue?wait=20");
        await Until(
            async () => (await _server.Get("/api/v1/notices")).Body.GetProperty("watchedSince").ValueKind == JsonValueKind.String,
            "first look"
        );
        Assert.Empty(await News());
    }

    [Fact]
    public async Task An_empty_house_is_not_watched_yet()
    {
        var (status, body) = await _server.Get("/api/v1/notices");
        Assert.Equal((200, JsonValueKind.Null), (status, body.GetProperty("watchedSince").ValueKind));
        Assert.Equal(400, (await _server.Get("/api/v1/notices?days=0")).Status);
        Assert.Equal(404, (await _server.Get("/api/v1/notices?person=nobody")).Status);
    }

    [Fact]
    public async Task A_machine_that_became_pressing_is_shown_to_whom_it_concerns()
    {
        await WithNews();
        var news = Assert.Single(await News(), n => n.GetProperty("kind").GetString() is "now" or "next");
        Assert.Equal(("GC-1", "Row"), (news.GetProperty("asset").GetString(), news.GetProperty("zoneName").GetString()));
        await Add("mira", new { shown = new[] { "silent" } });
        await Add("tomas", sites: ["S"]);
        Assert.Empty(await News("?person=mira"));
        Assert.Contains(await News("?person=tomas"), n => n.GetProperty("id").GetInt64() == news.GetProperty("id").GetInt64());
    }

    [Fact]
    public async Task A_program_is_called_once_with_a_signature_and_never_again_for_the_same()
    {
        await Add("tomas", new { webhookUrl = _program.Url });
        var (status, body) = await _server.Post("/api/v1/people/tomas/notices/secret", new { });
        Assert.Equal(200, status);
        var secret = body.GetProperty("secret").GetString()!;
        await WithNews();
        await Until(() => Task.FromResult(_program.Calls.Count > 0), "call");
        var call = _program.Calls[0];
        Assert.True(new WebhookSecret(secret).Signed(call.Signature, call.Id, call.Seconds, call.Body));
        using var sent = JsonDocument.Parse(call.Body);
        Assert.Equal("notices", sent.RootElement.GetProperty("type").GetString());
        Assert.Contains(
            sent.RootElement.GetProperty("data").GetProperty("notices").EnumerateArray(),
            n => n.GetProperty("asset").GetString() == "GC-1"
        );
        // Something else changes, and all is looked at again.
        await Add("mira");
        await Task.Delay(2500);
        Assert.Single(_program.Calls);
        // The secret is told once and stands in no other answer.
        foreach (var path in (string[])["/api/v1/notices/people", "/api/v1/notices/sent", "/api/v1/log?limit=50"])
            Assert.DoesNotContain(secret, (await _server.Get(path)).Body.ToString());
    }

    [Fact]
    public async Task A_call_that_failed_waits_for_its_next_attempt_and_what_was_given_up_is_tried_again_on_request()
    {
        _program.Answers = 503;
        await Add("tomas", new { webhookUrl = _program.Url });
        await _server.Post("/api/v1/people/tomas/notices/secret", new { });
        var (_, test) = await _server.Post("/api/v1/people/tomas/notices/test", new { channel = "webhook" });
        Assert.Equal(("waits", 1), (test.GetProperty("state").GetString(), test.GetProperty("attempts").GetInt32()));
        Assert.Contains("503", test.GetProperty("says").ToString());
        var again = $"/api/v1/notices/sent/{test.GetProperty("id").GetInt64()}/again";
        Assert.Equal(409, (await _server.Post(again, new { })).Status);

        _program.Answers = 410;
        (_, test) = await _server.Post("/api/v1/people/tomas/notices/test", new { channel = "webhook" });
        Assert.Equal("given-up", test.GetProperty("state").GetString());
        _program.Answers = 204;
        again = $"/api/v1/notices/sent/{test.GetProperty("id").GetInt64()}/again";
        Assert.Equal(204, (await _server.Post(again, new { })).Status);
        var sent = (await _server.Get("/api/v1/notices/sent")).Body.GetProperty("deliveries").EnumerateArray();
        Assert.Equal(
            "sent",
            sent.Single(d => d.GetProperty("id").GetInt64() == test.GetProperty("id").GetInt64()).GetProperty("state").GetString()
        );
        // Both attempts bear one name, so that the other side can tell.
        Assert.Equal(2, _program.Calls.Count(c => c.Id == _program.Calls[^1].Id));
    }

    [Fact]
    public async Task A_mail_a_day_tells_all_that_is_new()
    {
        await Add("mira");
        // Chosen two days ago: its time has come since.
        _server
            .Services.GetRequiredService<Database>()
            .Write(
                Actor.Program,
                DateTimeOffset.UtcNow.AddDays(-2),
                t => NoticeStore.Keep(t, Subscription.Usual("mira") with { MailTo = "mira@institute.example" })
            );
        // The first look may find nothing yet: then the day's mail is none.
        _server.Services.GetRequiredService<NoticeUseCases>().Notice(Today.AddDays(-1), []);
        _server
            .Services.GetRequiredService<NoticeUseCases>()
            .Notice(Today, [new(NoticeKind.Silent, "silent:X", "X is silent.", "X", null)]);
        await Until(
            async () =>
            {
                await Add("wakes-the-watch");
                return _mail.Mails.Count > 0;
            },
            "mail"
        );
        Assert.Contains("- X is silent.", Assert.Single(_mail.Mails));
        await Add("mira");
        await Task.Delay(2500);
        Assert.Single(_mail.Mails);
    }

    [Fact]
    public async Task Tests_tell_how_they_went()
    {
        await Add("mira", new { mailTo = "mira@institute.example" });
        var (_, mail) = await _server.Post("/api/v1/people/mira/notices/test", new { channel = "mail" });
        Assert.Equal("sent", mail.GetProperty("state").GetString());
        Assert.Contains("This is a test", _mail.Mails[^1]);
        var (_, call) = await _server.Post("/api/v1/people/mira/notices/test", new { channel = "webhook" });
        Assert.Equal("given-up", call.GetProperty("state").GetString());
        Assert.Equal(404, (await _server.Post("/api/v1/people/nobody/notices/test", new { channel = "mail" })).Status);
        Assert.Equal(400, (await _server.Post("/api/v1/people/mira/notices/test", new { })).Status);
        Assert.Equal(409, (await _server.Post("/api/v1/people/mira/notices/secret", new { })).Status);
    }

    [Fact]
    public async Task What_makes_no_sense_is_told_member_by_member()
    {
        await Add("mira");
        var (status, problem) = await _server.Put(
            "/api/v1/people/mira/notices",
            new
            {
                mailTo = "mira",
                mailAt = "25:00",
                webhookUrl = "http://169.254.169.254/",
                quietFrom = "20:00",
            }
        );
        Assert.Equal(400, status);
        Assert.Equal(
            ["/mailTo", "/webhookUrl", "/mailAt", "/quietFrom"],
            problem.GetProperty("errors").EnumerateArray().Select(e => e.GetProperty("pointer").GetString())
        );
        var quiet = new
        {
            mailTo = "mira@institute.example",
            mailAt = "05:00",
            quietFrom = "20:00",
            quietTo = "06:00",
        };
        Assert.Equal(400, (await _server.Put("/api/v1/people/mira/notices", quiet)).Status);
        Assert.Equal(404, (await _server.Put("/api/v1/people/nobody/notices", new { })).Status);
    }

    [Fact]
    public async Task Who_is_removed_takes_their_choice_with_them()
    {
        await Add("mira", new { mailTo = "mira@institute.example" });
        await _server.Post("/api/v1/people/mira/notices/test", new { channel = "mail" });
        await _server.Raw(new HttpRequestMessage(HttpMethod.Delete, "/api/v1/people/mira"));
        Assert.Empty((await _server.Get("/api/v1/notices/people")).Body.GetProperty("people").EnumerateArray());
        Assert.Empty((await _server.Get("/api/v1/notices/sent")).Body.GetProperty("deliveries").EnumerateArray());
    }
}
