using System.Globalization;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Pyrometron.Storage.Records;

namespace Pyrometron.Storage;

/// <summary>A person whose name stands in the house.</summary>
/// <param name="Account">Their sign-in name; null without an account.</param>
/// <param name="Works">Whether plans are made for them.</param>
/// <param name="Lines">How many lines of the change log are theirs.</param>
public sealed record KnownName(string Name, string? Account, bool Works, long Lines);

/// <summary>What erasing a name changed.</summary>
/// <param name="As">What stands in its place.</param>
/// <param name="Lines">Lines of the change log that were written anew.</param>
/// <param name="Hash">The last hash of the log before that: whoever noted it can tell why it is another one now.</param>
/// <param name="Records">Other records and notes in which the name stood.</param>
public sealed record ErasedName(string As, long Lines, string? Hash, long Records);

/// <summary>
/// Takes the name of a person out of the house and leaves what they did. Lines of the change log name people by number; where a
/// name stands in their words they are written anew, and the chain of hashes from there on.
/// </summary>
public static class NameErasure
{
    /// <summary>Where people are named, and what people type; all other texts are codes, dates and names of things.</summary>
    internal static IReadOnlyList<(string Table, string Column)> Searched { get; } =
    [
        ("job_entry", "by"),
        ("job_entry", "device"),
        ("job_entry", "entry"),
        ("job", "history"),
        ("job", "outcome"),
        ("service", "record"),
        ("service", "voided_reason"),
        ("asset", "retired_reason"),
        ("asset_change", "before"),
        ("asset_change", "after"),
        ("reading_amendment", "reason"),
        ("set_aside", "reason"),
        ("symptom", "note"),
        ("symptom", "withdrawn_reason"),
        ("model_notes", "notes"),
        ("absence", "reason"),
        ("hold", "reason"),
        ("zone_closed", "reason"),
        ("refused_interval", "reason"),
        ("plan", "says"),
        ("plan", "planner"),
        ("plan_job", "reason"),
        ("product", "note"),
        ("stock_move", "note"),
        ("lot", "bad_because"),
        ("campaign", "ended_because"),
        ("campaign", "gone_on_by"),
        ("notice", "says"),
    ];

    /// <summary>All people who are named, by name.</summary>
    public static IReadOnlyList<KnownName> Names(Database database) =>
        database.Read(connection =>
            connection.Query(
                """
                WITH named (name) AS (
                    SELECT name FROM actor WHERE kind = 'person' UNION SELECT name FROM person UNION SELECT name FROM account
                )
                SELECT n.name, (SELECT code FROM account a WHERE a.name = n.name),
                    EXISTS (SELECT 1 FROM person p WHERE p.name = n.name),
                    (SELECT count(*) FROM change c JOIN actor o ON o.id = c.actor_id WHERE o.kind = 'person' AND o.name = n.name)
                FROM named n WHERE n.name <> '' ORDER BY n.name
                """,
                r => new KnownName(r.GetString(0), r.TextOrNull(1), r.GetBoolean(2), r.GetInt64(3))
            )
        );

    /// <summary>Takes a name out, with the account and the place on the list of who works.</summary>
    public static ErasedName Erase(Transaction t, string name)
    {
        var number = 1L;
        while (t.Connection.Scalar("SELECT 1 FROM actor WHERE name = $name", ("$name", Stands(number))) is not null)
            number++;
        var search = new Search(name, Stands(number), Codes(t, name));
        foreach (var code in search.Codes)
        {
            PeopleStore.Remove(t, code);
            foreach (var column in (string[])["person", "helper"])
                t.Connection.Execute(
                    $"UPDATE plan_job SET {column} = $as WHERE {column} = $code",
                    ("$as", $"erased-{number}"),
                    ("$code", code)
                );
        }
        t.Connection.Execute("DELETE FROM account WHERE name = $name", ("$name", name));
        t.Connection.CreateFunction<string?, string?>("without_name", search.Without, isDeterministic: true);
        var records = Searched.Sum(s =>
        {
            var anew = $"without_name({s.Column})";
            return (long)t.Execute($"UPDATE {s.Table} SET {s.Column} = {anew} WHERE {anew} IS NOT {s.Column}");
        });
        var (lines, hash) = WriteLogAnew(t, search);
        return new ErasedName(search.As, lines, hash, records);
    }

    private static string Stands(long number) => string.Create(CultureInfo.InvariantCulture, $"erased person {number}");

    private static List<string> Codes(Transaction t, string name) =>
        t.Connection.Query(
            "SELECT code FROM person WHERE name = $name UNION SELECT code FROM account WHERE name = $name",
            r => r.GetString(0),
            ("$name", name)
        );

    /// <summary>Writes lines anew that name the person or tell from where they worked, and all hashes from there on.</summary>
    private static (long Lines, string? Hash) WriteLogAnew(Transaction t, Search search)
    {
        var theirs = t
            .Connection.Query(
                "SELECT id FROM actor WHERE kind = 'person' AND name = $name",
                r => r.GetInt64(0),
                ("$name", search.Name)
            )
            .ToHashSet();
        t.Connection.Execute(
            "UPDATE actor SET name = $as WHERE kind = 'person' AND name = $name",
            ("$as", search.As),
            ("$name", search.Name)
        );
        var (changed, stored, before) = (0L, (string?)null, "");
        foreach (var (line, hash) in Lines(t))
        {
            var anew = Anew(line, search, theirs.Contains(line.ActorId));
            if (anew != line)
                changed++;
            before = changed == 0 ? hash : anew.HashAfter(before);
            stored = hash;
            if (changed > 0)
                Write(t, anew, before);
        }
        t.ForgetLast();
        return (changed, changed == 0 ? null : stored);
    }

    /// <summary>A line without the name.</summary>
    /// <param name="isTheirs">Whether it is of what the person did: from where goes too.</param>
    private static ChangeLine Anew(ChangeLine line, Search search, bool isTheirs)
    {
        var says = search.WithoutInMessage(line.Says);
        return line with
        {
            Before = search.Without(line.Before),
            After = search.Without(line.After),
            Says = says,
            Plain = says == line.Says ? line.Plain : StoredJson.Read<MessageRecord>(says).ToMessage().ToString(),
            Address = isTheirs ? null : line.Address,
        };
    }

    /// <summary>All lines of the log, so many at a time: they are written to while they are gone through.</summary>
    private static IEnumerable<(ChangeLine Line, string Hash)> Lines(Transaction t)
    {
        const int atOnce = 1000;
        for (var last = 0L; ; )
        {
            var some = t.Connection.Query(
                $"{AuditStore.Chain} WHERE id > $last ORDER BY id LIMIT {atOnce}",
                r => (AuditStore.ReadLine(r), r.GetString(12)),
                ("$last", last)
            );
            foreach (var line in some)
                yield return line;
            if (some.Count < atOnce)
                yield break;
            last = some[^1].Item1.Id;
        }
    }

    private static void Write(Transaction t, ChangeLine line, string hash) =>
        t.Execute(
            """
            UPDATE change SET before = $before, after = $after, plain = $plain, says = $says, address = $address, hash = $hash
            WHERE id = $id
            """,
            ("$id", line.Id),
            ("$before", line.Before),
            ("$after", line.After),
            ("$plain", line.Plain),
            ("$says", line.Says),
            ("$address", line.Address),
            ("$hash", hash)
        );

    /// <summary>A name that is looked for, and what takes its place.</summary>
    private sealed class Search(string name, string stands, IReadOnlyList<string> codes)
    {
        /// <summary>The name by itself, and not as a part of a longer word.</summary>
        private readonly Regex _alone = new(
            $@"(?<![\p{{L}}\p{{N}}]){Regex.Escape(name)}(?![\p{{L}}\p{{N}}])",
            RegexOptions.CultureInvariant
        );

        /// <summary>
        /// A name in small letters could be a word of the program's own in a record: it is looked for as a whole and under the
        /// members that name people alone.
        /// </summary>
        private readonly bool _isLikeWord = Regex.IsMatch(name, "^[a-z0-9-]+$");

        public string Name => name;

        public string As => stands;

        public IReadOnlyList<string> Codes => codes;

        /// <summary>A text without the name: words, or a record as JSON.</summary>
        public string? Without(string? text) =>
            text is null
            || !text.Contains(name, StringComparison.Ordinal) && !codes.Any(c => text.Contains(c, StringComparison.Ordinal))
                ? text
            : text.Length > 0 && text[0] is '{' or '[' && Parsed(text) is { } record
                ? InRecord(record, null) ? record.ToJsonString(StoredJson.Options)
                    : text
            : InWords(text);

        /// <summary>A sentence without the name: its template stays as it is.</summary>
        public string WithoutInMessage(string says)
        {
            if (!Holds(says))
                return says;
            var message = JsonNode.Parse(says)!;
            return message["values"] is { } values && InRecord(values, null) ? message.ToJsonString(StoredJson.Options) : says;
        }

        private bool Holds(string text) =>
            text.Contains(name, StringComparison.Ordinal) || codes.Any(c => text.Contains(c, StringComparison.Ordinal));

        private string InWords(string words) =>
            words == name ? stands
            : _isLikeWord ? words
            : _alone.Replace(words, stands);

        /// <summary>Takes the name out of a record.</summary>
        /// <returns>Whether it stood there.</returns>
        private bool InRecord(JsonNode node, string? member)
        {
            switch (node)
            {
                case JsonObject o:
                    var found = false;
                    foreach (var (key, value) in o.ToArray())
                        found |= value is not null && key != "template" && InRecord(value, key);
                    return found;
                case JsonArray a:
                    // Each of them is gone through, whether or not one before it held the name.
                    return a.ToArray().Aggregate(false, (held, value) => (value is not null && InRecord(value, member)) | held);
                case JsonValue v when v.TryGetValue<string>(out var text):
                    var names = member is "by" or "text" or "plain" or "name" or "person" or "helper";
                    var without =
                        names && (text == name || codes.Contains(text)) ? stands
                        : _isLikeWord ? text
                        : InWords(text);
                    if (without == text)
                        return false;
                    v.ReplaceWith(without);
                    return true;
                default:
                    return false;
            }
        }

        private static JsonNode? Parsed(string text)
        {
            try
            {
                return JsonNode.Parse(text);
            }
            catch (System.Text.Json.JsonException)
            {
                return null;
            }
        }
    }
}
