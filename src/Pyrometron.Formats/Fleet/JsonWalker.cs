using System.Globalization;
using System.Text.Json;
using Pyrometron.Core.Fleet;

namespace Pyrometron.Formats.Fleet;

/// <summary>
/// Walks one JSON object by its known members and collects, with JSON Pointers, what is missing or wrong (problems) and
/// what is not known (warnings). A value that is wrong yields a stand-in; the caller refuses the document in the end.
/// </summary>
internal sealed class JsonWalker(JsonElement element, string pointer, List<InputProblem> problems, List<string> warnings)
{
    private readonly HashSet<string> _known = [];

    public string Pointer => pointer;

    public string Text(string name, int longest = 80) =>
        Member(name, JsonValueKind.String) is { } value
        && value.GetString() is { Length: > 0 } text
        && text.Length <= longest
        && !text.Any(char.IsControl)
            ? text
            : Wrong(name, $"must be text of 1 to {longest} characters", "");

    public string? OptionalText(string name) => Optional(name) ? Text(name) : null;

    public double Number(string name, double low, double high) =>
        Member(name, JsonValueKind.Number) is { } value && value.TryGetDouble(out var number) && number >= low && number <= high
            ? number
            : Wrong(name, string.Create(CultureInfo.InvariantCulture, $"must be a number from {low} to {high}"), low);

    public DateOnly Date(string name) =>
        Member(name, JsonValueKind.String) is { } value
        && DateOnly.TryParseExact(
            value.GetString(),
            "yyyy-MM-dd",
            CultureInfo.InvariantCulture,
            DateTimeStyles.None,
            out var date
        )
            ? date
            : Wrong(name, "must be a date such as 2026-05-01", DateOnly.MinValue);

    public DateOnly? OptionalDate(string name) => Optional(name) ? Date(name) : null;

    public T Word<T>(string name)
        where T : struct, Enum =>
        Member(name, JsonValueKind.String) is { } value && Words.TryRead<T>(value.GetString(), out var word)
            ? word
            : Wrong(name, $"must be one of {Words.List<T>()}", default(T));

    /// <summary>The objects of an array member; an optional one may be missing.</summary>
    public List<TItem> Items<TItem>(string name, Func<JsonWalker, TItem> read, bool optional = false)
    {
        var items = new List<TItem>();
        if (optional && !Optional(name))
            return items;
        if (Member(name, JsonValueKind.Array) is not { } array)
        {
            Wrong(name, "must be an array", 0);
            return items;
        }
        var index = 0;
        foreach (var entry in array.EnumerateArray())
        {
            var at = $"{pointer}/{name}/{index++}";
            if (entry.ValueKind != JsonValueKind.Object)
            {
                problems.Add(new InputProblem("must be an object", Pointer: at));
                continue;
            }
            var walker = new JsonWalker(entry, at, problems, warnings);
            items.Add(read(walker));
            walker.WarnOfUnknown();
        }
        return items;
    }

    /// <summary>Records a problem of a member and returns the stand-in.</summary>
    public T Wrong<T>(string name, string message, T standIn)
    {
        problems.Add(new InputProblem($"{name} {message}", Pointer: $"{pointer}/{name}"));
        return standIn;
    }

    public void WarnOfUnknown()
    {
        foreach (var member in element.EnumerateObject().Where(m => !_known.Contains(m.Name)).Take(20))
            warnings.Add($"Unknown member '{pointer}/{member.Name}' was kept out.");
    }

    private bool Optional(string name)
    {
        _known.Add(name);
        return element.TryGetProperty(name, out var value) && value.ValueKind != JsonValueKind.Null;
    }

    private JsonElement? Member(string name, JsonValueKind kind)
    {
        _known.Add(name);
        return element.TryGetProperty(name, out var value) && value.ValueKind == kind ? value : null;
    }
}
