using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Application.Notices;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Notices;
using Pyrometron.Formats;
using Pyrometron.Sending;
using Pyrometron.Server.Access;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Judging;
using Pyrometron.Server.Weeks;
using Pyrometron.Storage;

namespace Pyrometron.Server.Notices;

/// <summary>What is new, who is told of it how, and what was sent.</summary>
internal static class NoticeEndpoints
{
    private const int UsualDays = 14,
        MostDays = 365,
        MostNotices = 500,
        MostDeliveries = 100,
        LongestUrl = 500;

    public static void MapNotices(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("").WithTags("Notices");
        group.MapGet("/notices", News);
        group.MapGet("/notices/people", People);
        group.MapPut("/people/{code}/notices", Put);
        group.MapPost("/people/{code}/notices/secret", GiveSecret);
        group.MapPost("/people/{code}/notices/test", TestAsync).Needs(Right.KeepPeople);
        group.MapGet("/notices/sent", Sent);
        group.MapPost("/notices/sent/{id:long}/again", Again);
        group
            .MapGet("/notices/stand-ins", (StandIns standIns) => standIns.Took)
            .WithSummary("What the demo's own mail server and webhook took: nothing leaves this machine.");
    }

    /// <summary>What is new.</summary>
    /// <param name="days">How many days back, 1 to 365; 14 where missing.</param>
    /// <param name="person">The code of somebody, for what is shown to them; all of it where missing.</param>
    internal static Results<Ok<NoticesAnswer>, ProblemHttpResult> News(
        int? days,
        string? person,
        NoticeStore notices,
        PeopleStore people,
        FleetStore fleet,
        JudgementService judgement
    )
    {
        if (days is < 1 or > MostDays)
            return Problems.Input("/days", $"days must be a whole number from 1 to {MostDays}");
        var (today, back) = (judgement.Today(), days ?? UsualDays);
        IEnumerable<Notice> news = notices.News(today.AddDays(-back), MostNotices);
        var sites = fleet.Sites();
        if (person is not null)
        {
            if (people.All().FirstOrDefault(p => p.Code == person) is not { } who)
                return Problems.Missing($"Nobody has the code '{person}'.");
            var (chosen, concern) = (Chosen(notices, person), Concern.Of(sites));
            news = news.Where(n => chosen.Shown.Contains(n.Condition.Kind) && concern.IsFor(who, n));
        }
        var places = Places.Of(sites);
        return TypedResults.Ok(new NoticesAnswer(notices.WatchedSince(), today, back, [.. news.Select(n => Told(n, places))]));
    }

    private static NoticeAnswer Told(Notice n, Places places) =>
        new(
            n.Id,
            n.Condition.Kind,
            n.First,
            n.Condition.Says,
            n.Condition.Tag,
            n.Condition.Zone,
            n.Condition.Zone is { } zone ? places.ZoneName(zone) : null,
            n.Gone
        );

    /// <summary>Who is told of what, and how.</summary>
    internal static SubscriptionsAnswer People(NoticeStore notices, PeopleStore people, NoticePost post, StandIns standIns) =>
        new(
            [
                .. people
                    .All()
                    .Select(p =>
                    {
                        var chosen = Chosen(notices, p.Code);
                        return new SubscriptionAnswer(
                            p.Code,
                            p.Name,
                            [.. chosen.Shown.Order()],
                            [.. chosen.Mailed.Order()],
                            [.. chosen.Called.Order()],
                            chosen.MailTo,
                            WallTimes.Write(chosen.MailMinute),
                            chosen.WebhookUrl,
                            notices.SecretOf(p.Code) is not null,
                            chosen.Quiet is { } from ? WallTimes.Write(from.From) : null,
                            chosen.Quiet is { } to ? WallTimes.Write(to.To) : null
                        );
                    }),
            ],
            post.MailServer is { } server ? FormattableString.Invariant($"{server.Host}:{server.Port}") : null,
            standIns.MailServer is not null
        );

    private static Subscription Chosen(NoticeStore notices, string person) =>
        notices.Subscriptions().GetValueOrDefault(person) ?? Subscription.Usual(person);

    /// <summary>Keeps what somebody wants to be told of, and how.</summary>
    internal static Results<NoContent, ProblemHttpResult> Put(
        Caller caller,
        string code,
        SubscriptionDto sent,
        NoticeUseCases useCases
    )
    {
        var wrong = new List<InputProblem>();
        void Wrong(string pointer, Message what) => wrong.Add(new(what, Pointer: pointer));
        var usual = Subscription.Usual(code);
        if (sent.MailTo is not null && !MailSender.IsAddress(sent.MailTo))
            Wrong("/mailTo", "mailTo must be one mail address, such as mira@institute.example");
        if (sent.WebhookUrl is { } url)
        {
            if (url.Length > LongestUrl)
                Wrong("/webhookUrl", $"webhookUrl has {LongestUrl} characters at most");
            else if (WebhookSender.Refuses(url) is { } why)
                Wrong("/webhookUrl", why);
        }
        var at = sent.MailAt is null ? usual.MailMinute : WallTimes.Read(sent.MailAt);
        if (at is null)
            Wrong("/mailAt", "mailAt must be a time of the day, such as 07:30");
        var (from, to) = (WallTimes.Read(sent.QuietFrom), WallTimes.Read(sent.QuietTo));
        var quiet = from is { } f && to is { } u ? new QuietHours(f, u) : null;
        if (sent.QuietFrom is not null || sent.QuietTo is not null)
        {
            if (quiet is null || quiet.From == quiet.To)
                Wrong("/quietFrom", "quietFrom and quietTo must be two times of the day, such as 20:00 and 06:00");
            else if (sent.MailTo is not null && at is { } minute && quiet.Contains(minute))
                Wrong("/mailAt", "the mail would be sent within the quiet hours: choose another time for one of them");
        }
        if (wrong.Count > 0)
            return Problems.Input(wrong);
        useCases.Keep(
            caller.Actor,
            new Subscription(
                code,
                sent.Shown?.ToHashSet() ?? usual.Shown,
                sent.Mailed?.ToHashSet() ?? usual.Mailed,
                sent.Called?.ToHashSet() ?? usual.Called,
                sent.MailTo?.Trim(),
                at!.Value,
                sent.WebhookUrl,
                quiet
            )
        );
        return TypedResults.NoContent();
    }

    /// <summary>Makes a new secret for somebody's program and tells it once; the one before ends.</summary>
    internal static SecretAnswer GiveSecret(Caller caller, string code, NoticeUseCases useCases)
    {
        var secret = WebhookSecret.Make();
        useCases.GiveSecret(caller.Actor, code, secret);
        return new SecretAnswer(secret);
    }

    /// <summary>Sends a test at once and tells how it went.</summary>
    internal static async Task<Results<Ok<DeliveryAnswer>, ProblemHttpResult>> TestAsync(
        string code,
        TestRequest request,
        NoticePost post,
        CancellationToken cancellation
    ) =>
        request.Channel is { } channel
            ? TypedResults.Ok(DeliveryAnswer.From(await post.TestAsync(code, channel, cancellation)))
            : Problems.Input("/channel", "channel is needed: mail or webhook");

    /// <summary>What was sent or is to be, the newest first.</summary>
    internal static DeliveriesAnswer Sent(DeliveryStore deliveries) =>
        new([.. deliveries.Newest(MostDeliveries).Select(DeliveryAnswer.From)]);

    /// <summary>Has something that was given up tried again.</summary>
    internal static async Task<NoContent> Again(
        Caller caller,
        long id,
        NoticeUseCases useCases,
        NoticePost post,
        CancellationToken cancellation
    )
    {
        useCases.TryAgain(caller.Actor, id);
        await post.RunAsync(cancellation);
        return TypedResults.NoContent();
    }
}
