namespace Pyrometron.Core.Notices;

/// <summary>A way to tell somebody.</summary>
public enum NoticeChannel
{
    /// <summary>One mail a day.</summary>
    Mail,

    /// <summary>A call to a program of theirs, at once.</summary>
    Webhook,
}

/// <summary>Hours of a day in which nothing is sent.</summary>
/// <param name="From">Minute of the day by the clock on the wall, 0 to 1439.</param>
/// <param name="To">Minute of the day; where it is not later than <paramref name="From"/>, of the next one.</param>
public sealed record QuietHours(int From, int To)
{
    /// <summary>Whether a minute of the day lies in them.</summary>
    public bool Contains(int minute) => From < To ? minute >= From && minute < To : minute >= From || minute < To;
}

/// <summary>What somebody wants to be told of, and how.</summary>
/// <param name="Person">Their code.</param>
/// <param name="Shown">What is shown to them in the program.</param>
/// <param name="Mailed">What stands in their mail.</param>
/// <param name="Called">What their program is called for.</param>
/// <param name="MailTo">Their address; null for no mail.</param>
/// <param name="MailMinute">When the mail is sent, minute of the day by the clock on their wall.</param>
/// <param name="WebhookUrl">The address of their program; null for none.</param>
public sealed record Subscription(
    string Person,
    IReadOnlySet<NoticeKind> Shown,
    IReadOnlySet<NoticeKind> Mailed,
    IReadOnlySet<NoticeKind> Called,
    string? MailTo,
    int MailMinute,
    string? WebhookUrl,
    QuietHours? Quiet
)
{
    /// <summary>When mail is sent where nobody chose, 07:30.</summary>
    public const int UsualMailMinute = 450;

    /// <summary>What somebody gets who has chosen nothing: all of it, in the program only.</summary>
    public static Subscription Usual(string person) => new(person, All, All, All, null, UsualMailMinute, null, null);

    /// <summary>What goes to them by a channel.</summary>
    public IReadOnlySet<NoticeKind> Of(NoticeChannel channel) => channel == NoticeChannel.Mail ? Mailed : Called;

    private static IReadOnlySet<NoticeKind> All { get; } = Enum.GetValues<NoticeKind>().ToHashSet();
}
