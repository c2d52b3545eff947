using Pyrometron.Core.Fleet;

namespace Pyrometron.Core.Policies;

/// <summary>Months between services of one kind of machine, before its surroundings are reckoned in; null where the calendar
/// asks for none.</summary>
/// <param name="Look">A look from outside, for machines whose readings do not arrive by themselves.</param>
/// <param name="DustOut">Dust out of the fins.</param>
/// <param name="Repaste">New paste: also the full service, since a lifted cooler is cleaned.</param>
/// <param name="LongestDustOut">Never longer than this between two dust-outs, however clean it stands.</param>
/// <param name="RepasteUsedHard">The full service of one that is used hard.</param>
/// <param name="Fan">The age at which a fan is changed before it fails.</param>
public sealed record KindIntervals(
    double? Look,
    double? DustOut,
    double? Repaste,
    double? LongestDustOut = null,
    double? RepasteUsedHard = null,
    double? Fan = null
);

/// <summary>
/// What multiplies an interval: below 1 shortens it. Common practice names the influences; the figures are chosen, no source.
/// </summary>
/// <param name="CleanAir">Zones of dust class clean.</param>
/// <param name="HeavyDust">Zones of dust class heavy.</param>
/// <param name="ServerCleanAir">The same for servers: their air is filtered or it is not, and that decides.</param>
/// <param name="ServerHeavyDust">The same for servers.</param>
/// <param name="PetsOrSmoke">Hair and tar clog fins.</param>
/// <param name="AllDay">Machines that work twenty hours a day and more.</param>
/// <param name="FewHours">Machines that work six hours a day and less.</param>
/// <param name="PerHotKelvin">Paste, for each kelvin of the zone's design ambient above 30 °C: subtracted from 1.</param>
/// <param name="PerKilometre">For each kilometre of altitude above the first: subtracted from 1.</param>
/// <param name="SaltAir">By the sea.</param>
/// <param name="DryAir">Paste, where the air is dry all year.</param>
public sealed record IntervalFactors(
    double CleanAir = 1.4,
    double HeavyDust = 0.65,
    double ServerCleanAir = 2,
    double ServerHeavyDust = 0.5,
    double PetsOrSmoke = 0.7,
    double AllDay = 0.85,
    double FewHours = 1.15,
    double PerHotKelvin = 0.02,
    double PerKilometre = 0.05,
    double SaltAir = 0.8,
    double DryAir = 0.85
);

/// <summary>How often the calendar asks for a service; the defaults are common practice, no source.</summary>
/// <param name="HardUseHours">A machine that works so many hours a day is used hard.</param>
public sealed record IntervalRules(double HardUseHours = 12)
{
    /// <summary>A look at cards every half year.</summary>
    public KindIntervals GraphicsCard { get; init; } = new(Look: 6, DustOut: 18, Repaste: 42);

    /// <summary>By the air that they breathe.</summary>
    public KindIntervals Server { get; init; } = new(Look: null, DustOut: 18, Repaste: 42);

    /// <summary>Small fins clog first.</summary>
    public KindIntervals Laptop { get; init; } =
        new(Look: null, DustOut: 8, Repaste: 42, LongestDustOut: 12, RepasteUsedHard: 12);

    /// <summary>With room for dust.</summary>
    public KindIntervals Desktop { get; init; } = new(Look: null, DustOut: 18, Repaste: 42);

    /// <summary>What shortens or lengthens them.</summary>
    public IntervalFactors Factors { get; init; } = new();

    /// <summary>The house's defaults.</summary>
    public static IntervalRules Default { get; } = new();

    /// <summary>Those of a kind of machine.</summary>
    public KindIntervals Of(AssetKind kind) =>
        kind switch
        {
            AssetKind.GraphicsCard => GraphicsCard,
            AssetKind.Server => Server,
            AssetKind.Laptop => Laptop,
            _ => Desktop,
        };

    /// <summary>The same with other ones for a kind.</summary>
    public IntervalRules With(AssetKind kind, KindIntervals intervals) =>
        kind switch
        {
            AssetKind.GraphicsCard => this with { GraphicsCard = intervals },
            AssetKind.Server => this with { Server = intervals },
            AssetKind.Laptop => this with { Laptop = intervals },
            _ => this with { Desktop = intervals },
        };
}

/// <summary>How a machine stands and works, where the fleet document does not say it.</summary>
/// <param name="UsedHard">Loaded for hours every day, whatever its duty hours say; null: by those.</param>
/// <param name="PetsOrSmoke">Pets or smoke about it.</param>
/// <param name="SaltAir">By the sea.</param>
/// <param name="DryAir">In air that is dry all year.</param>
public sealed record Surroundings(bool? UsedHard = null, bool PetsOrSmoke = false, bool SaltAir = false, bool DryAir = false)
{
    /// <summary>Nothing out of the usual.</summary>
    public static Surroundings Usual { get; } = new();
}
