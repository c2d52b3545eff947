using System.Text.RegularExpressions;

namespace Pyrometron.Core.Fleet;

/// <summary>What the parts that machines report are called in a sentence; any other part by its own name.</summary>
public static partial class PartNames
{
    private static readonly Dictionary<string, string> Known = new()
    {
        ["cpu"] = "processor",
        ["gpu"] = "graphics chip",
        ["hotspot"] = "hot spot",
        ["vrm"] = "regulators",
    };

    /// <summary>Characters of the longest name.</summary>
    public const int Longest = 40;

    /// <summary>What makes a name, for messages.</summary>
    public const string Rule = "must be a lower-case word such as core or memory, and not ambient or outlet",
        RuleOfPart = "part " + Rule;

    /// <summary>Whether a text can name a part: it heads a column of readings.</summary>
    public static bool IsName(string text) =>
        text.Length <= Longest && Word().IsMatch(text) && text is not ("ambient" or "outlet");

    /// <summary>The name within a sentence.</summary>
    public static string Of(string part) => Known.GetValueOrDefault(part, part);

    /// <summary>The name at the head of a sentence.</summary>
    public static string AtHead(string part) =>
        Of(part) is { Length: > 0 } name ? char.ToUpperInvariant(name[0]) + name[1..] : part;

    [GeneratedRegex(@"^[a-z][a-z0-9_-]*\z")]
    private static partial Regex Word();
}
