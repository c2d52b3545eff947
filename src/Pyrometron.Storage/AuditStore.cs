using System.Globalization;
using Microsoft.Data.Sqlite;

namespace Pyrometron.Storage;

/// <summary>What is looked for in the audit log; null means all.</summary>
/// <param name="Who">The name of the person, device or program; empty for a person who is not named.</param>
/// <param name="Kinds">Kinds of line.</param>
/// <param name="Tag">A machine: lines about it, or about several of which it is one.</param>
/// <param name="From">The first day on which it was written, UTC.</param>
/// <param name="Until">The last one.</param>
/// <param name="Address">From where on the network.</param>
/// <param name="Text">Anywhere in the words, or in what stood there before and after.</param>
public sealed record AuditFilter(
    string? Who = null,
    IReadOnlyList<string>? Kinds = null,
    string? Tag = null,
    DateOnly? From = null,
    DateOnly? Until = null,
    string? Address = null,
    string? Text = null
);

/// <summary>What there is to choose from.</summary>
public sealed record AuditChoices(IReadOnlyList<string> Who, IReadOnlyList<string> Kinds, IReadOnlyList<string> Addresses);

/// <summary>How the chain of hashes stands.</summary>
/// <param name="Lines">How many lines were looked at.</param>
/// <param name="FirstBroken">The first line whose hash does not follow from the one before it; null when the chain holds.</param>
/// <param name="Last">The hash of the last line; null without any. Noted elsewhere, it shows later that no line is missing.</param>
public sealed record AuditChain(long Lines, long? FirstBroken, string? Last);

/// <summary>
/// The change log as a whole house is audited by it: also lines that are about no machine, in the order in which they were
/// written.
/// </summary>
public sealed class AuditStore(Database database)
{
    private const string Filtered = """
        WHERE ($who IS NULL OR p.name = $who)
            AND ($kinds IS NULL OR c.kind IN (SELECT value FROM json_each($kinds)))
            AND ($tag IS NULL OR a.tag = $tag OR EXISTS (
                SELECT 1 FROM change_touches t JOIN asset x ON x.id = t.asset_id WHERE t.change_id = c.id AND x.tag = $tag))
            AND ($from IS NULL OR c.stored_at >= $from) AND ($until IS NULL OR c.stored_at < $until)
            AND ($address IS NULL OR c.address = $address)
            AND ($text IS NULL OR c.plain LIKE $text ESCAPE '\' OR c.before LIKE $text ESCAPE '\'
                OR c.after LIKE $text ESCAPE '\')
        """;

    /// <summary>How many lines there are.</summary>
    public int Count(AuditFilter filter) =>
        database.Read(connection =>
            Convert.ToInt32(
                connection.Scalar(
                    $"""
                    SELECT count(*) FROM change c JOIN actor p ON p.id = c.actor_id LEFT JOIN asset a ON a.id = c.asset_id
                    {Filtered}
                    """,
                    Parameters(filter)
                ),
                CultureInfo.InvariantCulture
            )
        );

    /// <summary>Lines, newest first.</summary>
    public IReadOnlyList<LoggedChange> Page(AuditFilter filter, int skip, int take) =>
        database.Read(connection =>
            connection.Query(
                $"{ChangeStore.Lines} {Filtered} ORDER BY c.id DESC LIMIT $take OFFSET $skip",
                ChangeStore.Read,
                [.. Parameters(filter), ("$take", take), ("$skip", skip)]
            )
        );

    /// <summary>All lines, oldest first, read as they are asked for.</summary>
    public IEnumerable<LoggedChange> All(AuditFilter filter)
    {
        using var connection = database.Connect();
        using var command = connection.Command($"{ChangeStore.Lines} {Filtered} ORDER BY c.id", Parameters(filter));
        using var reader = command.ExecuteReader();
        while (reader.Read())
            yield return ChangeStore.Read(reader);
    }

    /// <summary>Who, which kinds and which addresses there are.</summary>
    public AuditChoices Choices() =>
        database.Read(connection =>
        {
            IReadOnlyList<string> Texts(string sql) => connection.Query(sql, r => r.GetString(0));
            return new AuditChoices(
                Texts("SELECT DISTINCT name FROM actor WHERE id IN (SELECT DISTINCT actor_id FROM change) ORDER BY name"),
                Texts("SELECT DISTINCT kind FROM change ORDER BY kind"),
                Texts("SELECT DISTINCT address FROM change WHERE address IS NOT NULL ORDER BY address")
            );
        });

    /// <summary>Lines as their hashes are made from them, with the hash last.</summary>
    internal const string Chain = """
        SELECT id, at, stored_at, actor_id, kind, asset_id, job_id, before, after, plain, says, address, hash FROM change
        """;

    /// <summary>A line out of <see cref="Chain"/>.</summary>
    internal static ChangeLine ReadLine(SqliteDataReader r) =>
        new(
            r.GetInt64(0),
            r.GetString(1),
            r.GetString(2),
            r.GetInt64(3),
            r.GetString(4),
            r.LongOrNull(5),
            r.LongOrNull(6),
            r.TextOrNull(7),
            r.TextOrNull(8),
            r.GetString(9),
            r.GetString(10),
            r.TextOrNull(11)
        );

    /// <summary>Follows the chain of hashes from the first line to the last.</summary>
    public AuditChain Follow(CancellationToken cancellation) =>
        database.Read(connection =>
        {
            var (before, lines, broken) = ("", 0L, (long?)null);
            using var command = connection.Command($"{Chain} ORDER BY id");
            using var r = command.ExecuteReader();
            while (r.Read())
            {
                cancellation.ThrowIfCancellationRequested();
                var line = ReadLine(r);
                if (line.HashAfter(before) != r.GetString(12))
                    broken ??= line.Id;
                (before, lines) = (r.GetString(12), lines + 1);
            }
            return new AuditChain(lines, broken, lines == 0 ? null : before);
        });

    private static (string, object?)[] Parameters(AuditFilter filter) =>
        [
            ("$who", filter.Who),
            ("$kinds", ChangeStore.Any(filter.Kinds)),
            ("$tag", filter.Tag),
            ("$from", filter.From is { } from ? Sql.Text(from) : null),
            ("$until", ChangeStore.EndOf(filter.Until)),
            ("$address", filter.Address),
            ("$text", ChangeStore.Holding(filter.Text)),
        ];
}
