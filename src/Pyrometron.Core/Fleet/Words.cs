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

/// <summary>
/// What is done to a machine: a service that takes wear away, from the lightest to the deepest, or a change that makes its
/// cooling another one than before. Compare them by what they do (<see cref="ServiceEffects"/>), not by their order.
/// </summary>
public enum ServiceLevel
{
    Inspect,
    BlowOut,
    DustOut,
    FanSwap,
    Repaste,
    Repad,

    /// <summary>New paste of another kind than the machine had.</summary>
    OtherPaste,

    /// <summary>New pads of another kind or thickness; new paste with them.</summary>
    OtherPads,

    /// <summary>Another cooler.</summary>
    CoolerSwap,

    /// <summary>A fan more than the machine had.</summary>
    AddOnFan,

    /// <summary>Less voltage, or a lower limit of power: less heat at nearly the same work.</summary>
    Undervolt,

    /// <summary>A stand that lets it breathe from below.</summary>
    Stand,

    /// <summary>A dust filter before its intake.</summary>
    Filter,
}

/// <summary>What a job makes different for good about the way a machine is cooled.</summary>
public enum CoolingChange
{
    /// <summary>Nothing: it gives back what wear took.</summary>
    None,

    /// <summary>What was measured before tells nothing of the machine as it is now.</summary>
    NewBaseline,

    /// <summary>Less heat; cooler and air stay.</summary>
    Settings,

    /// <summary>More or less air; heat and joints stay.</summary>
    AirSide,
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
