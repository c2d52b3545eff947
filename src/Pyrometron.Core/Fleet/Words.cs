using System.Collections.Frozen;
using System.Text.Json;

namespace Pyrometron.Core.Fleet;

/// <summary>The kinds of machine that are looked after.</summary>
public enum AssetKind
{
    GraphicsCard,
    Server,
    Laptop,
    Desktop,
}

/// <summary>How dusty the air of a zone is.</summary>
public enum DustClass
{
    Clean,
    Normal,
    Heavy,
}

/// <summary>What carries the heat from a part to its cooler.</summary>
public enum JointMaterial
{
    Paste,
    Pad,
}

/// <summary>What a service opens and renews, from the lightest to the deepest; see <see cref="ServiceEffects"/>.</summary>
public enum ServiceLevel
{
    Inspect,
    BlowOut,
    DustOut,
    FanSwap,
    Repaste,
    Repad,
}

/// <summary>Why a machine runs warmer than it should.</summary>
public enum Cause
{
    Dust,
    Paste,
    Pads,
    Fan,
    Mount,
    Room,
    Settings,
    Sensor,
    CoolerLimited,
    None,
}

/// <summary>How pressing work on the machine is, most pressing first.</summary>
public enum Urgency
{
    Now,
    Next,
    Soon,
    Watch,
    Fine,
    Unknown,
}

/// <summary>The outcome of comparing a run before a service with one after it.</summary>
public enum VerdictOutcome
{
    Improved,
    NoChange,
    Worse,
    NotComparable,
}

/// <summary>What follows from a joint's material.</summary>
public static class JointMaterials
{
    /// <summary>The cause that a worn joint of this material is.</summary>
    public static Cause WornCause(this JointMaterial material) => material == JointMaterial.Pad ? Cause.Pads : Cause.Paste;
}

/// <summary>The written form of the values above: lower case with hyphens, as in files and in the API.</summary>
public static class Words
{
    /// <summary>The word of a value, such as <c>graphics-card</c>.</summary>
    public static string Of<T>(T value)
        where T : struct, Enum => Table<T>.Written[value];

    /// <summary>Reads a word; letter case and surrounding spaces must match exactly.</summary>
    /// <returns>False when it is none of the words.</returns>
    public static bool TryRead<T>(string? word, out T value)
        where T : struct, Enum
    {
        value = default;
        return word is not null && Table<T>.Read.TryGetValue(word, out value);
    }

    /// <summary>All words of a kind, for messages: <c>clean, normal, heavy</c>.</summary>
    public static string List<T>()
        where T : struct, Enum => string.Join(", ", Enum.GetValues<T>().Select(Of));

    private static class Table<T>
        where T : struct, Enum
    {
        public static readonly FrozenDictionary<T, string> Written = Enum.GetValues<T>()
            .ToFrozenDictionary(v => v, v => JsonNamingPolicy.KebabCaseLower.ConvertName(v.ToString()));

        public static readonly FrozenDictionary<string, T> Read = Written.ToFrozenDictionary(
            p => p.Value,
            p => p.Key,
            StringComparer.Ordinal
        );
    }
}
