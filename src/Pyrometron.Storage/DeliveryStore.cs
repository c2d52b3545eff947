using Microsoft.Data.Sqlite;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Notices;
using Pyrometron.Storage.Records;

namespace Pyrometron.Storage;

/// <summary>How far something that is to be sent is.</summary>
public enum DeliveryState
{
    /// <summary>Not sent yet.</summary>
    Waits,

    /// <summary>Taken by the other side.</summary>
    Sent,

    /// <summary>Not to be tried any more.</summary>
    GivenUp,
}

/// <summary>Something sent, or to be sent.</summary>
/// <param name="Message">Its name on the way: the same in all attempts, so that the other side can tell a second copy.</param>
/// <param name="Attempts">That were made.</param>
/// <param name="NextAt">When it is tried next; null when it is not.</param>
/// <param name="Says">Why the last attempt failed; null where none has.</param>
/// <param name="Notices">What it tells; none where it is a test.</param>
public sealed record Delivery(
    long Id,
    string Person,
    NoticeChannel Channel,
    string Message,
    DateTimeOffset MadeAt,
    DeliveryState State,
    int Attempts,
    DateTimeOffset? NextAt,
    DateTimeOffset? SentAt,
    Message? Says,
    IReadOnlyList<Notice> Notices
);

/// <summary>What is to be sent, and what was.</summary>
public sealed class DeliveryStore(Database database)
{
    /// <summary>What is closed is forgotten after so many days.</summary>
    private const int KeptDays = 90;

    /// <summary>What is older than this is no news any more where a kind is switched on, days.</summary>
    private const int NewsDays = 7;

    /// <summary>Notices that a person has not got by a channel yet and that still hold, the oldest first.</summary>
    public IReadOnlyList<Notice> Untold(string person, NoticeChannel channel, DateTimeOffset now) =>
        database.Read(connection =>
            connection.Query(
                $"""
                {NoticeStore.Columns}
                FROM person p JOIN subscription s ON s.person_id = p.id
                    JOIN notice n ON n.made_at >= max($oldest, s.{Since(channel)})
                WHERE p.code = $person AND n.is_news AND n.gone_on IS NULL AND NOT EXISTS (
                    SELECT 1 FROM delivery_notice d WHERE d.person_id = p.id AND d.channel = $channel AND d.notice_id = n.id
                )
                ORDER BY n.id
                """,
                NoticeStore.Read,
                ("$person", person),
                ("$channel", Words.Of(channel)),
                ("$oldest", Sql.Text(now.AddDays(-NewsDays)))
            )
        );

    /// <summary>Since when somebody gets mail, and when they got the last one; null where they get none.</summary>
    public DateTimeOffset? MailedLast(string person) =>
        database.Read(connection =>
            connection
                .Query(
                    """
                    SELECT coalesce(s.mailed_at, s.mail_since) FROM subscription s JOIN person p ON p.id = s.person_id
                    WHERE p.code = $person AND s.mail_to IS NOT NULL
                    """,
                    r => r.InstantOrNull(0),
                    ("$person", person)
                )
                .FirstOrDefault()
        );

    /// <summary>Notes that a mail's time has come, whether there was something to tell or not.</summary>
    public static void NoteMailTime(Transaction t, string person) =>
        t.Connection.Execute(
            "UPDATE subscription SET mailed_at = $now WHERE person_id = (SELECT id FROM person WHERE code = $person)",
            ("$person", person),
            ("$now", Sql.Text(t.Now))
        );

    /// <summary>Adds something to send, to be tried at once.</summary>
    /// <param name="message">Its name on the way.</param>
    /// <returns>Its number.</returns>
    public static long Add(Transaction t, string person, NoticeChannel channel, string message, IEnumerable<long> notices)
    {
        var id = (long)
            t.Connection.Scalar(
                """
                INSERT INTO delivery (person_id, channel, message, made_at, state, next_at)
                SELECT id, $channel, $message, $now, $state, $now FROM person WHERE code = $person RETURNING id
                """,
                ("$person", person),
                ("$channel", Words.Of(channel)),
                ("$message", message),
                ("$state", Words.Of(DeliveryState.Waits)),
                ("$now", Sql.Text(t.Now))
            )!;
        foreach (var notice in notices)
            t.Execute(
                """
                INSERT INTO delivery_notice (person_id, channel, notice_id, delivery_id)
                SELECT person_id, channel, $notice, id FROM delivery WHERE id = $id
                """,
                ("$id", id),
                ("$notice", notice)
            );
        t.Connection.Execute(
            "DELETE FROM delivery WHERE state <> $waits AND made_at < $last",
            ("$waits", Words.Of(DeliveryState.Waits)),
            ("$last", Sql.Text(t.Now.AddDays(-KeptDays)))
        );
        return id;
    }

    /// <summary>Notes how an attempt ended.</summary>
    /// <param name="next">When to try again; null where it is not tried any more.</param>
    /// <param name="says">Why it failed; null where it did not.</param>
    public static void Note(Transaction t, long id, DeliveryState state, DateTimeOffset? next, Message? says) =>
        t.Connection.Execute(
            """
            UPDATE delivery SET state = $state, attempts = attempts + 1, next_at = $next, says = $says,
                sent_at = iif($state = 'sent', $now, NULL)
            WHERE id = $id
            """,
            ("$id", id),
            ("$state", Words.Of(state)),
            ("$next", next is { } at ? Sql.Text(at) : null),
            ("$says", says is null ? null : StoredJson.Write(MessageRecord.Of(says))),
            ("$now", Sql.Text(t.Now))
        );

    /// <summary>Puts off an attempt.</summary>
    public static void PutOff(Transaction t, long id, DateTimeOffset next) =>
        t.Connection.Execute("UPDATE delivery SET next_at = $next WHERE id = $id", ("$id", id), ("$next", Sql.Text(next)));

    /// <summary>Has something that was given up tried again.</summary>
    /// <returns>False where it is not there, or was not given up.</returns>
    public static bool TryAgain(Transaction t, long id) =>
        t.Execute(
            "UPDATE delivery SET state = $waits, attempts = 0, next_at = $now WHERE id = $id AND state = $given",
            ("$id", id),
            ("$waits", Words.Of(DeliveryState.Waits)),
            ("$given", Words.Of(DeliveryState.GivenUp)),
            ("$now", Sql.Text(t.Now))
        ) == 1;

    /// <summary>What is to be tried by now, the oldest first.</summary>
    public IReadOnlyList<Delivery> Due(DateTimeOffset now) =>
        Read("WHERE d.state = 'waits' AND d.next_at <= $at ORDER BY d.id", ("$at", Sql.Text(now)));

    /// <summary>One of them, or null.</summary>
    public Delivery? Find(long id) => Read("WHERE d.id = $id", ("$id", id)).FirstOrDefault();

    /// <summary>The newest first.</summary>
    public IReadOnlyList<Delivery> Newest(int most) => Read("ORDER BY d.id DESC LIMIT $most", ("$most", most));

    private List<Delivery> Read(string filter, (string, object?) parameter) =>
        database.Read(connection =>
            connection.Query(
                $"""
                SELECT d.id, p.code, d.channel, d.message, d.made_at, d.state, d.attempts, d.next_at, d.sent_at, d.says
                FROM delivery d JOIN person p ON p.id = d.person_id {filter}
                """,
                r => new Delivery(
                    r.GetInt64(0),
                    r.GetString(1),
                    StoredWords.Read<NoticeChannel>(r.GetString(2)),
                    r.GetString(3),
                    Sql.ReadInstant(r.GetString(4)),
                    StoredWords.Read<DeliveryState>(r.GetString(5)),
                    r.GetInt32(6),
                    r.InstantOrNull(7),
                    r.InstantOrNull(8),
                    r.TextOrNull(9) is { } says ? StoredJson.Read<MessageRecord>(says).ToMessage() : null,
                    NoticesOf(connection, r.GetInt64(0))
                ),
                parameter
            )
        );

    private static List<Notice> NoticesOf(SqliteConnection connection, long delivery) =>
        connection.Query(
            $"""
            {NoticeStore.Columns}
            FROM delivery_notice d JOIN notice n ON n.id = d.notice_id WHERE d.delivery_id = $id ORDER BY n.id
            """,
            NoticeStore.Read,
            ("$id", delivery)
        );

    private static string Since(NoticeChannel channel) => channel == NoticeChannel.Mail ? "mail_since" : "webhook_since";
}
