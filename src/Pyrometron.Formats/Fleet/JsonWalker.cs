using System.Globalization;
using System.Text.Json;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;

namespace Pyrometron.Formats.Fleet;

/// <summary>
/// Walks one JSON object by its known members and collects, with JSON Pointers, what is missing or wrong (problems) and
/// what is not known (warnings). A value that is wrong yields a stand-in; the caller refuses the document in the end.
/// </summary>
internal sealed class JsonWalker
{
    private const int MostWarnings = 100,
        LongestName = 80;

    private readonly JsonElement _element;
    private readonly string _pointer;
    private readonly List<InputProblem> _problems;
    private readonly List<Message> _warnings;
    private readonly HashSet<string> _known = [];

    private JsonWalker(JsonElement element, string pointer, List<InputProblem> problems, List<Message> warnings) =>
        (_element, _pointer, _problems, _warnings) = (element, pointer, problems, warnings);

    /// <summary>Reads one object that stands for itself.</summary>
    /// <param name="notes">Where problems and warnings are put.</param>
    public static void Item(
        ReadOnlyMemory<byte> utf8,
        JsonDocumentOptions options,
        string pointer,
        (List<InputProblem> Problems, List<Message> Warnings) notes,
        Action<JsonWalker> read
    )
    {
        try
        {
            using var item = JsonDocument.Parse(utf8, options);
            Item(item.RootElement, pointer, notes.Problems, notes.Warnings, read);
        }
        catch (InvalidOperationException)
        {
            // Half of a surrogate pair: JSON may write it, but no text can hold it.
            notes.Problems.Add(new InputProblem("holds text that is no Unicode", Pointer: pointer));
        }
    }

    /// <summary>Reads one object, and warns of the members that nobody asked for.</summary>
    private static void Item(
        JsonElement element,
        string pointer,
        List<InputProblem> problems,
        List<Message> warnings,
        Action<JsonWalker> read
    )
    {
        if (element.ValueKind != JsonValueKind.Object)
        {
            problems.Add(new InputProblem("must be an object", Pointer: pointer));
            return;
        }
        var walker = new JsonWalker(element, pointer, problems, warnings);
        read(walker);
        foreach (var member in element.EnumerateObject().Where(m => !walker._known.Contains(m.Name)))
            WarnOf($"{pointer}/{member.Name}", warnings);
    }

    /// <summary>Warns of a member that is not known.</summary>
    public static void WarnOf(string pointer, List<Message> warnings)
    {
        if (warnings.Count < MostWarnings)
            warnings.Add(
                $"Unknown member '{(pointer.Length > LongestName ? pointer[..LongestName] + "…" : pointer)}' was kept out."
            );
        else if (warnings.Count == MostWarnings)
            warnings.Add("More unknown members were kept out.");
    }

    /// <summary>Text without control characters, and without spaces around it.</summary>
    public string Text(string name, int longest = 80) =>
        Member(name, JsonValueKind.String) is { } value
        && value.GetString() is { Length: > 0 } text
        && text.Length <= longest
        && !text.Any(char.IsControl)
        && text == text.Trim()
            ? text
            : Wrong(name, $"must be text of 1 to {longest} characters, without spaces around it", "");

    /// <summary>A tag: text that can stand in an address.</summary>
    public string Tag(string name)
    {
        var text = Text(name);
        return text.Length == 0 || Asset.IsTag(text) ? text : Wrong(name, Asset.TagRule, "");
    }

    public string? OptionalText(string name) => Optional(name) ? Text(name) : null;

    public bool? OptionalFlag(string name) =>
        !Optional(name) ? null
        : Member(name, JsonValueKind.True) is not null ? true
        : Member(name, JsonValueKind.False) is not null ? false
        : Wrong(name, "must be true or false", false);

    public double Number(string name, double low, double high) =>
        Member(name, JsonValueKind.Number) is { } value && value.TryGetDouble(out var number) && number >= low && number <= high
            ? number
            : Wrong(name, $"must be a number from {low} to {high}", low);

    public DateOnly Date(string name, DateOnly first, DateOnly last) =>
        Member(name, JsonValueKind.String) is { } value
        && DateOnly.TryParseExact(
            value.GetString(),
            "yyyy-MM-dd",
            CultureInfo.InvariantCulture,
            DateTimeStyles.None,
            out var date
        )
            ? date >= first && date <= last
                ? date
                : Wrong(name, $"must lie between {first} and {last}", first)
            : Wrong(name, "must be a date such as 2026-05-01", first);

    public DateOnly? OptionalDate(string name, DateOnly first, DateOnly last) => Optional(name) ? Date(name, first, last) : null;

    public T Word<T>(string name)
        where T : struct, Enum =>
        Member(name, JsonValueKind.String) is { } value && Words.TryRead<T>(value.GetString(), out var word)
            ? word
            : Wrong(name, $"must be one of {Words.List<T>()}", default(T));

    /// <summary>The objects of an array member; an optional one may be missing.</summary>
    /// <param name="most">One more is a problem, and the rest is not read.</param>
    public List<TItem> Items<TItem>(string name, int most, Func<JsonWalker, TItem> read, bool optional = false)
    {
        var items = new List<TItem>();
        if (optional && !Optional(name))
            return items;
        if (Member(name, JsonValueKind.Array) is not { } array)
            return Wrong(name, "must be an array", items);
        var index = 0;
        foreach (var entry in array.EnumerateArray())
        {
            if (index == most)
                return Wrong(name, $"lists more than {most}", items);
            Item(entry, $"{_pointer}/{name}/{index++}", _problems, _warnings, walker => items.Add(read(walker)));
        }
        return items;
    }

    /// <summary>An object member that may be missing.</summary>
    public T? OptionalItem<T>(string name, Func<JsonWalker, T> read)
        where T : struct
    {
        T? found = null;
        if (Optional(name))
            Item(_element.GetProperty(name), $"{_pointer}/{name}", _problems, _warnings, walker => found = read(walker));
        return found;
    }

    /// <summary>Records a problem of a member and returns the stand-in.</summary>
    public T Wrong<T>(string name, Message message, T standIn)
    {
        _problems.Add(new InputProblem($"{name} {message}", Pointer: $"{_pointer}/{name}"));
        return standIn;
    }

    private bool Optional(string name)
    {
        _known.Add(name);
        return _element.TryGetProperty(name, out var value) && value.ValueKind != JsonValueKind.Null;
    }

    private JsonElement? Member(string name, JsonValueKind kind)
    {
        _known.Add(name);
        return _element.TryGetProperty(name, out var value) && value.ValueKind == kind ? value : null;
    }
}
