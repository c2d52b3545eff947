using Pyrometron.Core.Fleet;
using Pyrometron.Core.Learning;

namespace Pyrometron.Core.Policies;

/// <summary>The house's rules for judging; the defaults are common practice, no source.</summary>
/// <param name="ActionMarginKelvin">The action line lies this far below a part's limit.</param>
/// <param name="WorthKelvin">Less than this is not worth opening a machine for, whatever the date.</param>
/// <param name="School">When machines are served.</param>
/// <param name="MuchKelvin">This much to win is worth opening a machine at once.</param>
/// <param name="Warranty">What may be done to a machine under warranty.</param>
public sealed record JudgementPolicy(
    double ActionMarginKelvin = 5,
    double WorthKelvin = 2.5,
    double MuchKelvin = 6,
    School School = School.WhicheverFirst,
    WarrantySchool Warranty = WarrantySchool.AirOnly
)
{
    /// <summary>What goes first within one urgency.</summary>
    public Precedence Precedence { get; init; } = Precedence.Evidence;

    /// <summary>How much is done once a machine is open.</summary>
    public Extent Extent { get; init; } = Extent.LeastThatCures;

    /// <summary>What machines, hours and electricity are worth to the house.</summary>
    public HouseValues Values { get; init; } = HouseValues.Default;

    /// <summary>How often the calendar asks.</summary>
    public IntervalRules Intervals { get; init; } = IntervalRules.Default;

    /// <summary>When machines may be down for work.</summary>
    public DowntimeRules Downtime { get; init; } = DowntimeRules.Default;

    /// <summary>Whether it takes two to open one: it is lifted out of its rack, or off a high shelf.</summary>
    public bool TwoPeople { get; init; }

    /// <summary>How many people a level takes: a machine that two lift is not lifted to look at it or to blow it out.</summary>
    public int HandsFor(ServiceLevel level) => TwoPeople && ServiceEffects.Opens(level) ? 2 : 1;

    /// <summary>How the machine stands and works.</summary>
    public Surroundings Surroundings { get; init; } = Surroundings.Usual;

    /// <summary>What the house's proven jobs have taught.</summary>
    public ProvenGains Proven { get; init; } = ProvenGains.None;

    /// <summary>How long the house's jobs have taken.</summary>
    public ProvenMinutes Times { get; init; } = ProvenMinutes.None;

    /// <summary>What material costs by the prices of the stores.</summary>
    public MaterialCosts Materials { get; init; } = MaterialCosts.Usual;

    /// <summary>Whether the house's way with the warranty allows air only on a machine now.</summary>
    public bool AirOnly(Asset asset, DateOnly day) => Warranty == WarrantySchool.AirOnly && asset.UnderWarranty(day);

    /// <summary>
    /// Whether a level would forfeit the maker's cover: it is not asked first, and nothing says that opening is allowed.
    /// </summary>
    public bool ForfeitsCover(Asset asset, ServiceLevel level, DateOnly day) =>
        ServiceEffects.Opens(level) && AirOnly(asset, day);

    /// <summary>The least that any house may call worth opening a machine for, K.</summary>
    public const double LeastWorthKelvin = 0.5;

    /// <summary>Days to the action line for "next".</summary>
    public const int NextDays = 45;

    /// <summary>Days to the action line for "soon".</summary>
    public const int SoonDays = 120;

    /// <summary>The house's defaults.</summary>
    public static JudgementPolicy Default { get; } = new();
}
