using Pyrometron.Core.Messages;
using Pyrometron.Core.Notices;
using Pyrometron.Storage;

namespace Pyrometron.Server.Notices;

/// <summary>Something that is new.</summary>
/// <param name="On">The day on which it was noticed.</param>
/// <param name="Asset">The machine that it is about; null for several or none.</param>
/// <param name="Gone">The day from which on it was not so any more; null while it is.</param>
public sealed record NoticeAnswer(
    long Id,
    NoticeKind Kind,
    DateOnly On,
    Message Says,
    string? Asset,
    string? Zone,
    string? ZoneName,
    DateOnly? Gone
);

/// <summary>What is new.</summary>
/// <param name="WatchedSince">What was so on this day already is no news; null while nothing was judged yet.</param>
/// <param name="Days">How many days back the notices go.</param>
/// <param name="Notices">The newest first.</param>
public sealed record NoticesAnswer(DateOnly? WatchedSince, DateOnly Today, int Days, IReadOnlyList<NoticeAnswer> Notices);

/// <summary>What somebody wants to be told of, and how.</summary>
/// <param name="Shown">What is shown to them in the program; all where missing.</param>
/// <param name="Mailed">What stands in their mail; all where missing.</param>
/// <param name="Called">What their program is called for; all where missing.</param>
/// <param name="MailTo">Their address; null for no mail.</param>
/// <param name="MailAt">When the mail of a day is sent by the clock on their wall; 07:30 where missing.</param>
/// <param name="WebhookUrl">The address of their program; null for none.</param>
/// <param name="QuietFrom">Nothing is sent from then on; null for at any time.</param>
/// <param name="QuietTo">Until then; needed with <paramref name="QuietFrom"/>.</param>
public sealed record SubscriptionDto(
    IReadOnlyList<NoticeKind>? Shown,
    IReadOnlyList<NoticeKind>? Mailed,
    IReadOnlyList<NoticeKind>? Called,
    string? MailTo,
    string? MailAt,
    string? WebhookUrl,
    string? QuietFrom,
    string? QuietTo
);

/// <summary>What somebody chose.</summary>
/// <param name="HasSecret">Whether their program has a secret; without one it is not called.</param>
public sealed record SubscriptionAnswer(
    string Person,
    string Name,
    IReadOnlyList<NoticeKind> Shown,
    IReadOnlyList<NoticeKind> Mailed,
    IReadOnlyList<NoticeKind> Called,
    string? MailTo,
    string MailAt,
    string? WebhookUrl,
    bool HasSecret,
    string? QuietFrom,
    string? QuietTo
);

/// <summary>Who is told of what.</summary>
/// <param name="MailServer">The mail server of the house; null where none is set.</param>
/// <param name="StandIns">Whether the demo's stand-ins take mails and calls instead.</param>
public sealed record SubscriptionsAnswer(IReadOnlyList<SubscriptionAnswer> People, string? MailServer, bool StandIns);

/// <summary>A secret, told once.</summary>
public sealed record SecretAnswer(string Secret);

/// <summary>By which channel something is tried out.</summary>
public sealed record TestRequest(NoticeChannel? Channel);

/// <summary>Something sent, or to be sent.</summary>
/// <param name="Says">Why the last attempt failed; null where none has.</param>
/// <param name="Notices">How many it tells; none where it is a test.</param>
public sealed record DeliveryAnswer(
    long Id,
    string Person,
    NoticeChannel Channel,
    DateTimeOffset MadeAt,
    DeliveryState State,
    int Attempts,
    DateTimeOffset? NextAt,
    DateTimeOffset? SentAt,
    Message? Says,
    int Notices
)
{
    internal static DeliveryAnswer From(Delivery d) =>
        new(d.Id, d.Person, d.Channel, d.MadeAt, d.State, d.Attempts, d.NextAt, d.SentAt, d.Says, d.Notices.Count);
}

/// <summary>What was sent, the newest first.</summary>
public sealed record DeliveriesAnswer(IReadOnlyList<DeliveryAnswer> Deliveries);

/// <summary>A call as the demo's stand-in took it.</summary>
public sealed record StandInCall(string Id, string Body);

/// <summary>What the demo's stand-ins took, the newest first; nothing in a house of one's own.</summary>
public sealed record StandInsAnswer(IReadOnlyList<string> Mails, IReadOnlyList<StandInCall> Calls);
