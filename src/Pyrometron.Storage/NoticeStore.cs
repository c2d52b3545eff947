using Microsoft.Data.Sqlite;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Notices;
using Pyrometron.Storage.Records;

namespace Pyrometron.Storage;

/// <summary>What was noticed, and what people want to be told of.</summary>
public sealed class NoticeStore(Database database)
{
    /// <summary>Notices of what has been gone for so long are forgotten, days.</summary>
    private const int KeptDays = 365;

    internal const string Columns =
        "SELECT n.id, n.kind, n.key, n.says, n.tag, n.zone, n.first_on, n.gone_on, n.is_news, n.made_at";

    /// <summary>All notices within a use case, the oldest first.</summary>
    public static IReadOnlyList<Notice> All(Transaction t) => t.Connection.Query($"{Columns} FROM notice n ORDER BY n.id", Read);

    /// <summary>News, the newest first.</summary>
    /// <param name="from">Noticed on this day or later.</param>
    public IReadOnlyList<Notice> News(DateOnly from, int most) =>
        database.Read(connection =>
            connection.Query(
                $"{Columns} FROM notice n WHERE n.is_news AND n.first_on >= $from ORDER BY n.id DESC LIMIT $most",
                Read,
                ("$from", Sql.Text(from)),
                ("$most", most)
            )
        );

    /// <summary>The day from which on the house is watched; null before that.</summary>
    public DateOnly? WatchedSince() => database.Read(AboutStore.WatchedSince);

    /// <summary>Stores what a day changes.</summary>
    /// <param name="areNews">False while what is met is what the house begins with.</param>
    public static void Keep(Transaction t, DateOnly day, LedgerChange change, bool areNews)
    {
        foreach (var c in change.New)
            t.Execute(
                """
                INSERT INTO notice (kind, key, says, tag, zone, first_on, is_news, made_at)
                VALUES ($kind, $key, $says, $tag, $zone, $day, $news, $now)
                """,
                ("$kind", Words.Of(c.Kind)),
                ("$key", c.Key),
                ("$says", StoredJson.Write(MessageRecord.Of(c.Says))),
                ("$tag", c.Tag),
                ("$zone", c.Zone),
                ("$day", Sql.Text(day)),
                ("$news", areNews && c.IsNews ? 1 : 0),
                ("$now", Sql.Text(t.Now))
            );
        foreach (var id in change.Back)
            t.Execute("UPDATE notice SET gone_on = NULL WHERE id = $id", ("$id", id));
        foreach (var id in change.Gone)
            t.Execute("UPDATE notice SET gone_on = $day WHERE id = $id", ("$id", id), ("$day", Sql.Text(day)));
        t.Execute("DELETE FROM notice WHERE gone_on < $last", ("$last", Sql.Text(day.AddDays(-KeptDays))));
    }

    /// <summary>What people chose, by their codes; who chose nothing is not among them.</summary>
    public IReadOnlyDictionary<string, Subscription> Subscriptions() =>
        database.Read(connection => Subscriptions(connection)).ToDictionary(s => s.Person);

    /// <summary>What somebody chose, within a use case.</summary>
    public static Subscription? Of(Transaction t, string person) =>
        Subscriptions(t.Connection).FirstOrDefault(s => s.Person == person);

    /// <summary>Keeps what somebody chose. A channel that is new to them begins with what is noticed from now on.</summary>
    public static void Keep(Transaction t, Subscription s) =>
        t.Connection.Execute(
            """
            INSERT INTO subscription (person_id, shown, mailed, called, mail_to, mail_minute, mail_since, webhook_url,
                webhook_since, quiet_from, quiet_to)
            SELECT id, $shown, $mailed, $called, $to, $minute, iif($to IS NULL, NULL, $now), $url,
                iif($url IS NULL, NULL, $now), $from, $until
            FROM person WHERE code = $person
            ON CONFLICT (person_id) DO UPDATE SET shown = excluded.shown, mailed = excluded.mailed, called = excluded.called,
                mail_since = iif(mail_to IS excluded.mail_to, mail_since, excluded.mail_since), mail_to = excluded.mail_to,
                mail_minute = excluded.mail_minute,
                webhook_since = iif(webhook_url IS excluded.webhook_url, webhook_since, excluded.webhook_since),
                webhook_url = excluded.webhook_url, quiet_from = excluded.quiet_from, quiet_to = excluded.quiet_to
            """,
            ("$person", s.Person),
            ("$shown", Listed(s.Shown)),
            ("$mailed", Listed(s.Mailed)),
            ("$called", Listed(s.Called)),
            ("$to", s.MailTo),
            ("$minute", s.MailMinute),
            ("$url", s.WebhookUrl),
            ("$from", s.Quiet?.From),
            ("$until", s.Quiet?.To),
            ("$now", Sql.Text(t.Now))
        );

    /// <summary>The secret that calls of somebody's program are signed with; null without one.</summary>
    public string? SecretOf(string person) =>
        database.Read(connection =>
            connection.Scalar(
                "SELECT s.webhook_secret FROM subscription s JOIN person p ON p.id = s.person_id WHERE p.code = $person",
                ("$person", person)
            ) as string
        );

    /// <summary>Keeps a new secret.</summary>
    public static void KeepSecret(Transaction t, string person, string secret) =>
        t.Connection.Execute(
            "UPDATE subscription SET webhook_secret = $secret WHERE person_id = (SELECT id FROM person WHERE code = $person)",
            ("$person", person),
            ("$secret", secret)
        );

    internal static Notice Read(SqliteDataReader r) =>
        new(
            r.GetInt64(0),
            new Condition(
                StoredWords.Read<NoticeKind>(r.GetString(1)),
                r.GetString(2),
                StoredJson.Read<MessageRecord>(r.GetString(3)).ToMessage(),
                r.TextOrNull(4),
                r.TextOrNull(5)
            ),
            r.Date(6),
            r.DateOrNull(7),
            r.GetBoolean(8),
            Sql.ReadInstant(r.GetString(9))
        );

    private static List<Subscription> Subscriptions(SqliteConnection connection) =>
        connection.Query(
            """
            SELECT p.code, s.shown, s.mailed, s.called, s.mail_to, s.mail_minute, s.webhook_url, s.quiet_from, s.quiet_to
            FROM subscription s JOIN person p ON p.id = s.person_id
            """,
            r => new Subscription(
                r.GetString(0),
                Kinds(r.GetString(1)),
                Kinds(r.GetString(2)),
                Kinds(r.GetString(3)),
                r.TextOrNull(4),
                r.GetInt32(5),
                r.TextOrNull(6),
                r.LongOrNull(7) is { } from && r.LongOrNull(8) is { } to ? new QuietHours((int)from, (int)to) : null
            )
        );

    private static string Listed(IEnumerable<NoticeKind> kinds) => string.Join(' ', kinds.Order().Select(Words.Of));

    private static HashSet<NoticeKind> Kinds(string words) =>
        [.. words.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(StoredWords.Read<NoticeKind>)];
}
