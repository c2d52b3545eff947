using Pyrometron.Formats.Tables;

namespace Pyrometron.Formats.Logs;

/// <summary>
/// Whose samples a log holds: one machine's, named by the caller; or several ones', told by a column of tags or by tags in the
/// headers.
/// </summary>
internal sealed class LogMachines
{
    /// <summary>Words of a header that a tag can fill.</summary>
    private const int MostWords = 5;

    /// <summary>Tags that a question offers.</summary>
    private const int MostOffered = 200;

    private readonly LogHead _head;
    private readonly LogSettings _settings;
    private readonly string?[] _tagOf;
    private readonly Dictionary<string, string> _tags;

    private LogMachines(LogHead head, LogSettings settings)
    {
        (_head, _settings) = (head, settings);
        _tags = settings.Machines.Keys.ToDictionary(t => t, t => t, StringComparer.OrdinalIgnoreCase);
        TagColumn = FindTagColumn();
        _tagOf = TagColumn >= 0 ? new string?[head.Headers.Length] : FindTagsInHeaders();
    }

    /// <summary>The column with the tag of each line; −1 without one.</summary>
    public int TagColumn { get; }

    /// <summary>Machines that every line has a sample of; empty where a column names them.</summary>
    public IReadOnlyList<string> InEveryLine { get; private init; } = [];

    /// <summary>Finds the machines of a log.</summary>
    /// <exception cref="RefusedInputException">Nothing says which machine it was written on.</exception>
    public static LogMachines Of(LogHead head, LogSettings settings)
    {
        var found = new LogMachines(head, settings);
        if (found.TagColumn >= 0)
            return found;
        string[] named = settings.Asset is { } one ? [one] : [.. found._tagOf.OfType<string>().Distinct(StringComparer.Ordinal)];
        return named.Length > 0
            ? new LogMachines(head, settings) { InEveryLine = named }
            : throw new RefusedInputException(
                new InputProblem(
                    "Neither a column nor the headers name the machine that the log was written on.",
                    head.HeaderLine
                )
            )
            {
                Question = InputQuestion.Of(
                    "asset",
                    "On which machine was the log written?",
                    [.. settings.Machines.Keys.Order(StringComparer.Ordinal).Take(MostOffered)]
                ),
            };
    }

    /// <summary>The machine of a line with a tag; null where it is not in the fleet.</summary>
    public string? Known(string cell) => _tags.GetValueOrDefault(cell.Trim());

    /// <summary>The log's columns as they are for one machine.</summary>
    public LogColumn[] ColumnsOf(string tag)
    {
        string?[] names =
        [
            .. _head.Headers.Select(
                (header, c) =>
                    _tagOf[c] is not { } owner ? header
                    : owner == tag ? WithoutTag(header, owner)
                    : null
            ),
        ];
        var columns = LogColumns.Match(
            _head.Headers,
            names,
            _head.Units,
            _head.First,
            _settings.Machines[tag],
            _settings.Headers
        );
        if (TagColumn >= 0)
            columns[TagColumn] = columns[TagColumn] with { Field = new LogField(LogRole.Asset) };
        return columns;
    }

    /// <summary>The column that somebody settled, else the one whose first cells are mostly tags of the fleet.</summary>
    private int FindTagColumn()
    {
        var settled = Array.FindIndex(
            _head.Headers,
            h => _settings.Headers.GetValueOrDefault(TableMeanings.KeyOf(h)) == new LogField(LogRole.Asset).Name
        );
        return settled >= 0
            ? settled
            : Array.FindIndex(
                [.. Enumerable.Range(0, _head.Headers.Length)],
                c =>
                    _head.First.Count(r => c < r.Length && r[c].Length > 0) is > 0 and var filled
                    && 2 * _head.First.Count(r => c < r.Length && _tags.ContainsKey(r[c].Trim())) >= filled
            );
    }

    private string?[] FindTagsInHeaders()
    {
        // A tag without a digit, or of two letters, may be any word.
        var folded = _settings
            .Machines.Keys.Where(t => t.Length > 2 && t.Any(char.IsAsciiDigit))
            .GroupBy(Folded.Of)
            .ToDictionary(g => g.Key, g => g.First());
        return [.. _head.Headers.Select(h => TagIn(h, folded))];
    }

    private static string? TagIn(string header, Dictionary<string, string> folded)
    {
        var words = Folded.Of(header).Split(' ');
        for (var length = Math.Min(MostWords, words.Length); length > 0; length--)
        for (var at = 0; at + length <= words.Length; at++)
            if (folded.TryGetValue(string.Join(' ', words.AsSpan(at, length)!), out var tag))
                return tag;
        return null;
    }

    private static string WithoutTag(string header, string tag) =>
        header.Contains(tag, StringComparison.OrdinalIgnoreCase)
            ? header.Replace(tag, " ", StringComparison.OrdinalIgnoreCase)
            : $" {Folded.Of(header)} ".Replace($" {Folded.Of(tag)} ", " ", StringComparison.Ordinal);
}
