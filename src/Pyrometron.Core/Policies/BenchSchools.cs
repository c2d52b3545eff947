using System.Text.Json.Serialization;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Policies;

/// <summary>Which paste pattern is used.</summary>
public enum PasteSchool
{
    ByModel,
    Spread,
    Line,
    Dot,
    Cross,
}

/// <summary>What happens to pads.</summary>
public enum PadSchool
{
    KeepIfElastic,
    AlwaysRenew,
    Putty,
}

/// <summary>The alcohol in the bottle.</summary>
public enum AlcoholStrength
{
    Ninetynine,
    NinetyPlus,
    Seventy,
}

/// <summary>Where the air for blowing comes from.</summary>
public enum AirSource
{
    Compressor,
    Can,
    Blower,
    BrushOnly,
}

/// <summary>The order in which screws come out; when closing it is always the numbers, or crosswise.</summary>
public enum OpeningOrder
{
    ReverseOfNumbers,
    Free,
}

/// <summary>The house's ways at the bench; the first of each is the default. Common practice, no source.</summary>
/// <param name="ComebackDays">Within so many days of its last job a machine comes back; 0 for never.</param>
/// <param name="ComebacksFree">Whether comebacks are free of charge.</param>
/// <param name="OthersMachines">
/// Whether machines belong to others than the house: what was agreed is then written down before one is opened.
/// </param>
/// <param name="TellsDamage">Whether damage done by a job stands on its proof sheet; it does where the house sets
/// nothing.</param>
public sealed record BenchSchools(
    Extent Extent = Extent.LeastThatCures,
    WarrantySchool Warranty = WarrantySchool.AirOnly,
    PasteSchool Paste = PasteSchool.ByModel,
    PadSchool Pads = PadSchool.KeepIfElastic,
    AlcoholStrength Alcohol = AlcoholStrength.Ninetynine,
    AirSource Air = AirSource.Compressor,
    OpeningOrder Opening = OpeningOrder.ReverseOfNumbers,
    int? ComebackDays = null,
    bool? ComebacksFree = null,
    bool? OthersMachines = null,
    bool? TellsDamage = null
)
{
    /// <summary>
    /// A machine that is back within so many days of its last job comes back. Common practice, no source; used where the house
    /// sets nothing.
    /// </summary>
    public const int UsualComebackDays = 30;

    /// <summary>The most that a house may set, days.</summary>
    public const int MostComebackDays = 365;

    /// <summary>Whether a job begun on a day, after one filed on another, is a comeback.</summary>
    public bool IsComeback(DateTimeOffset filed, DateTimeOffset begun) =>
        begun - filed <= TimeSpan.FromDays(ComebackDays ?? UsualComebackDays);

    /// <summary>Whether comebacks are free of charge; they are where the house sets nothing.</summary>
    [JsonIgnore]
    public bool FreesComebacks => ComebacksFree ?? true;

    /// <summary>The house's defaults.</summary>
    public static BenchSchools Default { get; } = new();

    /// <summary>
    /// How long alcohol of a strength dries before paste goes on, seconds: strong alcohol is gone at once, the water of the
    /// weak one stays (common practice, no source).
    /// </summary>
    public static int DryingSeconds(AlcoholStrength strength) =>
        strength switch
        {
            AlcoholStrength.Ninetynine => 30,
            AlcoholStrength.NinetyPlus => 120,
            _ => 600,
        };

    /// <summary>Why a level may not be begun on a machine under warranty without a recorded answer, or null.</summary>
    public Message? RefusesUnderWarranty(ServiceLevel level, DateOnly until) =>
        !ServiceEffects.Opens(level)
            ? null
            : Warranty switch
            {
                WarrantySchool.AirOnly => Message.Of(
                    "It is under warranty until {until}, and this house then uses air only. Blow it out, or write down why it is opened all the same.",
                    Value.Day("until", until)
                ),
                WarrantySchool.AskFirst => Message.Of(
                    "It is under warranty until {until}: ask its maker or seller first, and write down the answer.",
                    Value.Day("until", until)
                ),
                _ => null,
            };
}
