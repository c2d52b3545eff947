namespace Pyrometron.Core.Fleet;

/// <summary>What the parts that machines report are called in a sentence; any other part by its own name.</summary>
public static class PartNames
{
    private static readonly Dictionary<string, string> Known = new()
    {
        ["cpu"] = "processor",
        ["gpu"] = "graphics chip",
        ["hotspot"] = "hot spot",
        ["vrm"] = "regulators",
    };

    /// <summary>The name within a sentence.</summary>
    public static string Of(string part) => Known.GetValueOrDefault(part, part);

    /// <summary>The name at the head of a sentence.</summary>
    public static string AtHead(string part) =>
        Of(part) is { Length: > 0 } name ? char.ToUpperInvariant(name[0]) + name[1..] : part;
}
