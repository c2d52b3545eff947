using System.Globalization;
using System.Text.Json;
using Microsoft.Data.Sqlite;
using Pyrometron.Core.Messages;
using Pyrometron.Storage.Records;

namespace Pyrometron.Storage;

/// <summary>A line of the change log as read.</summary>
/// <param name="Actor">Who; looked up now, so that a name that was taken out is gone.</param>
/// <param name="Tag">The machine; null for the fleet, or for several.</param>
/// <param name="Before">JSON or words; null for nothing.</param>
/// <param name="Address">From where on the network; null for the program itself.</param>
public sealed record LoggedChange(
    long Id,
    DateTimeOffset At,
    DateTimeOffset StoredAt,
    long ActorId,
    Actor Actor,
    string Kind,
    string? Tag,
    long? JobId,
    string? Before,
    string? After,
    Message Says,
    string Hash,
    string? Address
);

/// <summary>What some lines of the change log touch.</summary>
/// <param name="Last">The newest line.</param>
/// <param name="Tags">Machines; null where the whole fleet is touched.</param>
/// <param name="Rules">Whether the rules changed.</param>
public sealed record TouchedSince(long Last, IReadOnlySet<string>? Tags, bool Rules);

/// <summary>What is looked for in the log; null means all.</summary>
/// <param name="Kinds">Kinds of line.</param>
/// <param name="Text">Anywhere in tag or words.</param>
public sealed record LogFilter(string? Tag, IReadOnlyList<string>? Kinds, DateOnly? From, DateOnly? Until, string? Text);

/// <summary>
/// The change log: who changed what, when, from what to what. The log book and the background judgement read it.
/// </summary>
public sealed class ChangeStore(Database database)
{
    internal const string Lines = """
        SELECT c.id, c.at, c.stored_at, c.actor_id, p.kind, p.name, c.kind, a.tag, c.job_id, c.before, c.after, c.says, c.hash,
            c.address
        FROM change c JOIN actor p ON p.id = c.actor_id LEFT JOIN asset a ON a.id = c.asset_id
        """;

    private const string Filtered = """
        WHERE c.asset_id IS NOT NULL AND ($tag IS NULL OR c.asset_id = (SELECT id FROM asset WHERE tag = $tag))
            AND ($kinds IS NULL OR c.kind IN (SELECT value FROM json_each($kinds)))
            AND ($from IS NULL OR c.at >= $from) AND ($until IS NULL OR c.at < $until)
            AND ($text IS NULL OR c.plain LIKE $text ESCAPE '\' OR a.tag LIKE $text ESCAPE '\')
        """;

    /// <summary>Number of the newest line; 0 without any.</summary>
    public long Last() => database.Read(connection => (long)(connection.Scalar("SELECT coalesce(max(id), 0) FROM change") ?? 0L));

    /// <summary>Whether readings came in, or were corrected, after a line.</summary>
    public bool HasReadingsSince(long id) =>
        database.Read(connection =>
            connection.Scalar("SELECT 1 FROM change WHERE id > $id AND kind IN ('import', 'reading') LIMIT 1", ("$id", id))
                is not null
        );

    /// <summary>Lines after one, oldest first.</summary>
    public IReadOnlyList<LoggedChange> After(long id, int most) =>
        database.Read(connection =>
            connection.Query($"{Lines} WHERE c.id > $id ORDER BY c.id LIMIT $most", Read, ("$id", id), ("$most", most))
        );

    /// <summary>The machines that the judgement has to look at again since a line.</summary>
    public TouchedSince TouchedSince(long id) =>
        database.Read(connection =>
        {
            var last = (long)(connection.Scalar("SELECT coalesce(max(id), 0) FROM change") ?? 0L);
            var whole =
                connection.Scalar(
                    """
                    SELECT 1 FROM change c WHERE c.id > $id AND c.asset_id IS NULL
                        AND c.kind NOT IN ('notes', 'rules', 'prices', 'bench-rules', 'people', 'plan', 'zone-times', 'stores',
                            'account', 'sign-in', 'refused', 'export')
                        AND NOT EXISTS (SELECT 1 FROM change_touches t WHERE t.change_id = c.id) LIMIT 1
                    """,
                    ("$id", id)
                )
                is not null;
            return new TouchedSince(
                last,
                whole
                    ? null
                    : connection
                        .Query(
                            """
                            SELECT a.tag FROM change c JOIN asset a ON a.id = c.asset_id WHERE c.id > $id
                            UNION SELECT a.tag FROM change_touches t JOIN asset a ON a.id = t.asset_id WHERE t.change_id > $id
                            """,
                            r => r.GetString(0),
                            ("$id", id)
                        )
                        .ToHashSet(),
                connection.Scalar("SELECT 1 FROM change WHERE id > $id AND kind IN ('rules', 'prices') LIMIT 1", ("$id", id))
                    is not null
            );
        });

    /// <summary>How many lines of the log book there are.</summary>
    public int Count(LogFilter filter) =>
        database.Read(connection =>
            Convert.ToInt32(
                connection.Scalar(
                    $"SELECT count(*) FROM change c LEFT JOIN asset a ON a.id = c.asset_id {Filtered}",
                    Parameters(filter)
                ),
                CultureInfo.InvariantCulture
            )
        );

    /// <summary>Lines of the log book, newest first.</summary>
    public IReadOnlyList<LoggedChange> Page(LogFilter filter, int skip, int take) =>
        database.Read(connection =>
            connection.Query(
                $"{Lines} {Filtered} ORDER BY c.at DESC, c.id DESC LIMIT $take OFFSET $skip",
                Read,
                [.. Parameters(filter), ("$take", take), ("$skip", skip)]
            )
        );

    /// <summary>All lines of the log book, newest first, read as they are asked for.</summary>
    public IEnumerable<LoggedChange> All(LogFilter filter)
    {
        using var connection = database.Connect();
        using var command = connection.Command($"{Lines} {Filtered} ORDER BY c.at DESC, c.id DESC", Parameters(filter));
        using var reader = command.ExecuteReader();
        while (reader.Read())
            yield return Read(reader);
    }

    internal static LoggedChange Read(SqliteDataReader r) =>
        new(
            r.GetInt64(0),
            Sql.ReadInstant(r.GetString(1)),
            Sql.ReadInstant(r.GetString(2)),
            r.GetInt64(3),
            new Actor(StoredWords.Read<ActorKind>(r.GetString(4)), r.GetString(5)),
            r.GetString(6),
            r.TextOrNull(7),
            r.LongOrNull(8),
            r.TextOrNull(9),
            r.TextOrNull(10),
            StoredJson.Read<MessageRecord>(r.GetString(11)).ToMessage(),
            r.GetString(12),
            r.TextOrNull(13)
        );

    private static (string, object?)[] Parameters(LogFilter filter) =>
        [
            ("$tag", filter.Tag),
            ("$kinds", Any(filter.Kinds)),
            ("$from", filter.From is { } from ? Sql.Text(from) : null),
            ("$until", EndOf(filter.Until)),
            ("$text", Holding(filter.Text)),
        ];

    /// <summary>Words as a JSON array for <c>json_each</c>; null for none, which asks for all.</summary>
    internal static string? Any(IReadOnlyList<string>? words) => words is { Count: > 0 } ? JsonSerializer.Serialize(words) : null;

    /// <summary>The instant at which a day has ended, UTC.</summary>
    internal static string? EndOf(DateOnly? day) =>
        day is { } until && until < DateOnly.MaxValue ? Sql.Text(until.AddDays(1)) : null;

    /// <summary>A pattern for LIKE that finds a text anywhere; null for no text.</summary>
    internal static string? Holding(string? text) => text is { Length: > 0 } ? $"%{Escaped(text)}%" : null;

    private static string Escaped(string text) =>
        text.Replace(@"\", @"\\", StringComparison.Ordinal)
            .Replace("%", @"\%", StringComparison.Ordinal)
            .Replace("_", @"\_", StringComparison.Ordinal);
}
