using System.Globalization;
using Microsoft.Data.Sqlite;

namespace Pyrometron.Storage;

/// <summary>A line of the log book.</summary>
/// <param name="Kind">Of a job's entry, or <c>service</c>, <c>report</c>, <c>change</c>, <c>reading</c>, <c>job</c>.</param>
/// <param name="Detail">JSON of an entry; words of all others.</param>
public sealed record LogLine(DateTimeOffset At, string Tag, string Kind, string Detail, string? By, long? JobId);

/// <summary>What is looked for in the log book; null means all.</summary>
/// <param name="Kinds">Kinds of line.</param>
/// <param name="Text">Anywhere in tag or detail.</param>
public sealed record LogFilter(string? Tag, IReadOnlyList<string>? Kinds, DateOnly? From, DateOnly? Until, string? Text);

/// <summary>The log book: every service, run, finding, photo and change of every machine, newest first.</summary>
public sealed class LogStore(Database database)
{
    private const string Lines = """
        SELECT e.made_at AS at, a.tag, e.kind, e.entry AS detail, e.by, e.job_id, e.version FROM job_entry e JOIN job j ON j.id = e.job_id JOIN asset a ON a.id = j.asset_id
        UNION ALL
        SELECT j.started_at, a.tag, 'job', 'Job started: ' || coalesce(j.started_level, j.level), NULL, j.id, 1 FROM job j JOIN asset a ON a.id = j.asset_id
        UNION ALL
        SELECT s.date || 'T00:00:00.000Z', a.tag, 'service', 'Service: ' || s.level || coalesce(' (struck out: ' || s.voided_reason || ')', ''), NULL, (SELECT id FROM job WHERE service_id = s.id), 0
        FROM service s JOIN asset a ON a.id = s.asset_id
        UNION ALL
        SELECT r.date || 'T00:00:00.000Z', a.tag, 'report', 'Reported: ' || r.kind || coalesce(', ' || r.note, '') || coalesce(' (struck out: ' || r.withdrawn_reason || ')', ''), NULL, NULL, 0
        FROM symptom r JOIN asset a ON a.id = r.asset_id
        UNION ALL
        SELECT c.made_at, a.tag, 'change', c.field || ': ' || coalesce(c.before, '–') || ' → ' || coalesce(c.after, '–'), NULL, NULL, 0 FROM asset_change c JOIN asset a ON a.id = c.asset_id
        UNION ALL
        SELECT m.made_at, a.tag, 'reading', 'Reading ' || m.kind || coalesce(', ' || m."column" || ' from ' || coalesce(m.before, '–') || ' to ' || coalesce(m.after, '–'), '') || ': ' || m.reason, NULL, NULL, 0
        FROM reading_amendment m JOIN asset a ON a.id = m.asset_id
        """;

    private const string Filtered = $"""
        FROM ({Lines}) WHERE ($tag IS NULL OR tag = $tag) AND ($kinds IS NULL OR kind IN (SELECT value FROM json_each($kinds)))
            AND ($from IS NULL OR at >= $from) AND ($until IS NULL OR at < $until)
            AND ($text IS NULL OR detail LIKE $text ESCAPE '\' OR tag LIKE $text ESCAPE '\')
        """;

    /// <summary>How many lines there are.</summary>
    public int Count(LogFilter filter) =>
        database.Read(connection =>
            Convert.ToInt32(connection.Scalar($"SELECT count(*) {Filtered}", Parameters(filter)), CultureInfo.InvariantCulture)
        );

    /// <summary>Lines, newest first.</summary>
    public IReadOnlyList<LogLine> Page(LogFilter filter, int skip, int take) =>
        database.Read(connection =>
            connection.Query(
                $"SELECT at, tag, kind, detail, by, job_id {Filtered} ORDER BY at DESC, job_id DESC, version DESC LIMIT $take OFFSET $skip",
                Read,
                [.. Parameters(filter), ("$take", take), ("$skip", skip)]
            )
        );

    /// <summary>All lines, newest first, read as they are asked for.</summary>
    public IEnumerable<LogLine> All(LogFilter filter)
    {
        using var connection = database.Connect();
        using var command = connection.Command(
            $"SELECT at, tag, kind, detail, by, job_id {Filtered} ORDER BY at DESC, job_id DESC, version DESC",
            Parameters(filter)
        );
        using var reader = command.ExecuteReader();
        while (reader.Read())
            yield return Read(reader);
    }

    private static LogLine Read(SqliteDataReader r) =>
        new(
            Sql.ReadInstant(r.GetString(0)),
            r.GetString(1),
            r.GetString(2),
            r.GetString(3),
            r.TextOrNull(4),
            r.IsDBNull(5) ? null : r.GetInt64(5)
        );

    private static (string, object?)[] Parameters(LogFilter filter) =>
        [
            ("$tag", filter.Tag),
            ("$kinds", filter.Kinds is { Count: > 0 } kinds ? System.Text.Json.JsonSerializer.Serialize(kinds) : null),
            ("$from", filter.From is { } from ? Sql.Text(from) : null),
            ("$until", filter.Until is { } until ? Sql.Text(until.AddDays(1)) : null),
            (
                "$text",
                filter.Text is { Length: > 0 } text
                    ? $"%{text.Replace(@"\", @"\\", StringComparison.Ordinal).Replace("%", @"\%", StringComparison.Ordinal).Replace("_", @"\_", StringComparison.Ordinal)}%"
                    : null
            ),
        ];
}
