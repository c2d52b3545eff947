using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Procedures;

/// <summary>
/// A caution at a step. Local codes, the maker's instructions and licensed practice come first; published figures are named
/// with their source and were written down from memory: check the current edition.
/// </summary>
/// <param name="Text">One or two sentences.</param>
/// <param name="Source">The published source of the figure in it, or null for common practice.</param>
public sealed record Caution(Message Text, string? Source = null)
{
    /// <summary>What somebody wrote down about the model or the machine.</summary>
    /// <param name="template">With the place <c>{note}</c>.</param>
    internal static Caution Noted(string template, string note) => new(Message.Of(template, Value.Text("note", note)));

    /// <summary>Air for cleaning stays below this, psi (29 CFR 1910.242(b), from memory).</summary>
    public const double MostAirPsi = 30;

    /// <summary>The same in kPa.</summary>
    public const double MostAirKilopascals = MostAirPsi * 6.894757;

    /// <summary>Flash point of 2-propanol, closed cup, °C (NIOSH Pocket Guide, from memory).</summary>
    public const double AlcoholFlashPointC = 12;

    /// <summary>The heaviest load for one person in the best posture, kg (NIOSH 94-110; Waters et al. 1993).</summary>
    public const double MostLiftedKg = 23;

    /// <summary>A wrist strap system stays below this, Ω (ANSI/ESD S20.20, from memory).</summary>
    public const double MostStrapOhm = 3.5e7;

    /// <summary>
    /// Hot surfaces may be held for a minute below this, °C, whatever they are made of (ISO 13732-1:2006, from memory).
    /// </summary>
    public const double HeldForAMinuteC = 51;

    /// <summary>The alcohol, ml, whose vapour fills a closed case of a volume to a tenth of its lower explosive limit.</summary>
    /// <param name="litres">Volume of the case.</param>
    public static double MillilitresToTenthOfLowerLimit(double litres) =>
        0.1 * LowerLimitGramsPerCubicMetre * litres / 1000 / AlcoholGramsPerMillilitre;

    /// <summary>
    /// 2.0 % by volume of 2-propanol at 25 °C: 60.096 g/mol over 24.4654 l/mol (lower explosive limit: NIOSH Pocket Guide, from
    /// memory).
    /// </summary>
    private const double LowerLimitGramsPerCubicMetre = 0.02 * 60.096 / 24.4654e-3;

    private const double AlcoholGramsPerMillilitre = 0.785;

    internal static readonly Caution Mains = new(
        "Capacitors keep charge. A power supply unit is never opened here; mains and fixed wiring are a licensed electrician's. Lock out where the site demands it."
    );
    internal static readonly Caution Battery = new(
        "Swollen, hot or leaking: stop, do not press or pierce it, make the area safe and follow the site's procedure."
    );
    internal static readonly Caution Static = new(
        Message.Of(
            "Static charge destroys parts without a sign: no fingers on contacts. A wrist strap system stays below {megohm} MΩ.",
            Value.Figure("megohm", MostStrapOhm / 1e6, "0")
        ),
        "ANSI/ESD S20.20"
    );
    internal static readonly Caution Burn = new(
        Message.Of(
            "Hot coolers burn: above {celsius} °C a surface cannot be held for a minute.",
            Value.Figure("celsius", HeldForAMinuteC, "0")
        ),
        "ISO 13732-1:2006"
    );
    internal static readonly Caution Lifting = new(
        Message.Of(
            "{kilograms} kg is the most for one person in the best posture, and far less when reaching or turning. Off its rails or heavier: two people or a lift.",
            Value.Figure("kilograms", MostLiftedKg, "0")
        ),
        "NIOSH 94-110"
    );
    internal static readonly Caution ScrewLengths = new("Lengths differ: a long screw in a short hole ruins the board.");
    internal static readonly Caution BareChip = new("Bare chips chip: no tool near them, no prying, even pressure only.");
    internal static readonly Caution PerhapsBareChip = new(
        "Nobody has written down yet whether this chip carries a lid. A bare one chips: no tool near it, even pressure only."
    );
    internal static readonly Caution Fins = new("Fins cut. Dust in the fins costs everything, on the blades little.");
    internal static readonly Caution FansBite = new("Fans bite: nothing powered while fingers are near.");
    internal static readonly Caution Dust = new("Dust mask and eye protection; outdoors or extracted.");
    internal static readonly Caution CompressedAir = new(
        Message.Of(
            "Regulate the air below {psi} psi ({kilopascals} kPa), with eye protection. Hold the fan still: a free one over-speeds and generates.",
            Value.Figure("psi", MostAirPsi, "0"),
            Value.Figure("kilopascals", MostAirKilopascals, "0")
        ),
        "29 CFR 1910.242(b)"
    );
    internal static readonly Caution CanAir = new(
        "Hold the can upright: tipped, it spits cold liquid. Hold the fan still: a free one over-speeds and generates."
    );
    internal static readonly Caution Alcohol = new(
        Message.Of(
            "Alcohol vapour burns, and its liquid gives it off from {flashpoint} °C on: ventilate, no flame or hot surface, gloves. On the cloth, never poured; off polycarbonate; dry before power. In a closed 60-litre case {millilitres} ml already make a tenth of the explosive limit.",
            Value.Figure("flashpoint", AlcoholFlashPointC, "0"),
            Value.Figure("millilitres", MillilitresToTenthOfLowerLimit(60), "0.0")
        ),
        "NIOSH Pocket Guide"
    );
    internal static readonly Caution LiquidMetal = new(
        "Conductive paste or liquid metal: trained hands only, never near open parts, never on aluminium."
    );
    internal static readonly Caution PadThickness = new(
        "Too thick lifts the cooler off the chip, too thin does not touch. The exact one not to be had: the next thinner, if it still exceeds the gap; never a thicker."
    );
    internal static readonly Caution PasteIsNoPad = new(
        "Paste smeared over memory bridges no gap. If you see that, write it down as a deviation and offer pads."
    );
    internal static readonly Caution Undervolting = new(
        "It can crash while it is tried. Only ever lower, never raise a voltage; what its maker's terms and the site allow comes first."
    );
    internal static readonly Caution Noise = new("Halls are loud: ear protection where the site asks for it.");
    internal static readonly Caution Loop = new("A liquid loop is refilled and bled once it was opened, and cools down slowly.");
}
