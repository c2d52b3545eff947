using Pyrometron.Application.Notices;
using Pyrometron.Core.Notices;
using Pyrometron.Core.Weeks;
using Pyrometron.Sending;
using Pyrometron.Server.Weeks;
using Pyrometron.Storage;

namespace Pyrometron.Server.Notices;

/// <summary>
/// Sends what is new: calls at once, mails once a day, none in quiet hours. What could not be sent is tried again, after a
/// restart too.
/// </summary>
internal sealed class NoticePost(
    NoticeStore notices,
    DeliveryStore deliveries,
    NoticeUseCases useCases,
    WeeksDesk weeks,
    HouseMail houseMail,
    StandIns standIns,
    WebhookSender webhooks,
    TimeProvider clock
) : IDisposable
{
    private readonly SemaphoreSlim _one = new(1, 1);

    /// <summary>Where mail goes; null where no server is set.</summary>
    public MailServer? MailServer => houseMail.Server ?? standIns.MailServer;

    /// <summary>Makes what is due and tries what waits.</summary>
    public async Task RunAsync(CancellationToken cancellation)
    {
        await _one.WaitAsync(cancellation);
        try
        {
            var house = weeks.House;
            var chosen = notices.Subscriptions();
            var concern = Concern.Of(house.Sites);
            foreach (var person in house.People)
                if (chosen.TryGetValue(person.Code, out var subscription))
                    Prepare(person, subscription, concern, house.ClockOf(person));
            foreach (var delivery in deliveries.Due(clock.GetUtcNow()))
                await TryAsync(delivery, chosen, house, cancellation);
        }
        finally
        {
            _one.Release();
        }
    }

    /// <summary>Sends a test at once, whatever the hour, and waits for how it ends.</summary>
    public async Task<Delivery> TestAsync(string person, NoticeChannel channel, CancellationToken cancellation)
    {
        await _one.WaitAsync(cancellation);
        try
        {
            var id = useCases.Prepare(person, channel, []);
            await SendAsync(deliveries.Find(id)!, notices.Subscriptions().GetValueOrDefault(person), cancellation);
            return deliveries.Find(id)!;
        }
        finally
        {
            _one.Release();
        }
    }

    /// <inheritdoc/>
    public void Dispose() => _one.Dispose();

    private void Prepare(Person person, Subscription chosen, Concern concern, TimeZoneInfo zone)
    {
        var now = clock.GetUtcNow();
        List<Notice> Untold(NoticeChannel channel) =>
            [
                .. deliveries
                    .Untold(person.Code, channel, now)
                    .Where(n => chosen.Of(channel).Contains(n.Condition.Kind) && concern.IsFor(person, n)),
            ];
        if (
            MailServer is not null
            && deliveries.MailedLast(person.Code) is { } last
            && SendTimes.NextAt(chosen.MailMinute, last, zone) <= now
        )
            useCases.PrepareMail(person.Code, Untold(NoticeChannel.Mail));
        if (
            chosen.WebhookUrl is not null
            && notices.SecretOf(person.Code) is not null
            && SendTimes.NotQuiet(now, chosen.Quiet, zone) == now
            && Untold(NoticeChannel.Webhook) is { Count: > 0 } news
        )
            useCases.Prepare(person.Code, NoticeChannel.Webhook, news);
    }

    private async Task TryAsync(
        Delivery delivery,
        IReadOnlyDictionary<string, Subscription> chosen,
        House house,
        CancellationToken cancellation
    )
    {
        var subscription = chosen.GetValueOrDefault(delivery.Person);
        var now = clock.GetUtcNow();
        if (house.People.FirstOrDefault(p => p.Code == delivery.Person) is { } person)
        {
            var from = SendTimes.NotQuiet(now, subscription?.Quiet, house.ClockOf(person));
            if (from > now)
            {
                useCases.PutOff(delivery.Id, from);
                return;
            }
        }
        await SendAsync(delivery, subscription, cancellation);
    }

    private async Task SendAsync(Delivery delivery, Subscription? chosen, CancellationToken cancellation)
    {
        var attempt =
            delivery.Channel == NoticeChannel.Mail
                ? await MailAsync(delivery, chosen, cancellation)
                : await CallAsync(delivery, chosen, cancellation);
        var next = attempt.MayTryAgain ? SendTimes.NextAttempt(delivery.Attempts + 1, clock.GetUtcNow()) : null;
        var state =
            attempt.Sent ? DeliveryState.Sent
            : next is null ? DeliveryState.GivenUp
            : DeliveryState.Waits;
        useCases.Note(delivery.Id, state, next, attempt.Says);
    }

    private async Task<Attempt> MailAsync(Delivery delivery, Subscription? chosen, CancellationToken cancellation) =>
        MailServer is not { } server ? Attempt.Later("No mail server is set: see Mail:Host in the guide to running it.")
        : chosen?.MailTo is not { } to ? Attempt.Never("No address is set.")
        : await MailSender.SendAsync(
            server,
            new Mail(to, NoticeText.Subject(delivery), NoticeText.Mail(delivery), delivery.Message, clock.GetUtcNow()),
            cancellation
        );

    private async Task<Attempt> CallAsync(Delivery delivery, Subscription? chosen, CancellationToken cancellation) =>
        chosen?.WebhookUrl is not { } url ? Attempt.Never("No program is set.")
        : notices.SecretOf(delivery.Person) is not { } secret ? Attempt.Never("Its program has no secret yet: make one.")
        : await webhooks.SendAsync(
            new WebhookCall(new Uri(url), secret, delivery.Message, NoticeText.Call(delivery)),
            clock.GetUtcNow(),
            cancellation
        );
}
