using Pyrometron.Core.Fleet;
using Pyrometron.Core.Procedures;

namespace Pyrometron.Core.Priority;

/// <summary>When a house has its machines served.</summary>
public enum School
{
    /// <summary>By evidence or by the calendar, whichever comes first.</summary>
    WhicheverFirst,

    /// <summary>By the calendar; evidence only when a machine is already in trouble.</summary>
    Calendar,

    /// <summary>By evidence alone.</summary>
    Evidence,

    /// <summary>Only when a machine is in trouble.</summary>
    Failure,
}

/// <summary>The house's rules for judging; the defaults are common practice, no source.</summary>
/// <param name="ActionMarginKelvin">The action line lies this far below a part's limit.</param>
/// <param name="WorthKelvin">Less than this is not worth opening a machine for, whatever the date.</param>
/// <param name="School">When machines are served.</param>
/// <param name="MuchKelvin">This much to win is worth opening a machine at once.</param>
/// <param name="Warranty">What may be done to a machine under warranty.</param>
public sealed record JudgementPolicy(
    double ActionMarginKelvin = 5, double WorthKelvin = 2.5, double MuchKelvin = 6, School School = School.WhicheverFirst, WarrantySchool Warranty = WarrantySchool.AirOnly)
{
    /// <summary>What the house's proven jobs have taught.</summary>
    public ProvenGains Proven { get; init; } = ProvenGains.None;

    /// <summary>Days to the action line for "next".</summary>
    public const int NextDays = 45;

    /// <summary>Days to the action line for "soon".</summary>
    public const int SoonDays = 120;

    /// <summary>The house's defaults.</summary>
    public static JudgementPolicy Default { get; } = new();

    /// <summary>Usual bench time of a level on a kind of machine, minutes (common practice, no source).</summary>
    public static int Minutes(AssetKind kind, ServiceLevel level) => (kind, level) switch
    {
        (_, ServiceLevel.Inspect) => 10,
        (_, ServiceLevel.BlowOut) => 15,
        (AssetKind.GraphicsCard, ServiceLevel.DustOut) => 35,
        (AssetKind.Server, ServiceLevel.DustOut) => 30,
        (AssetKind.Laptop, ServiceLevel.DustOut) => 40,
        (_, ServiceLevel.DustOut) => 25,
        (AssetKind.Laptop, ServiceLevel.FanSwap) => 50,
        (_, ServiceLevel.FanSwap) => 30,
        (AssetKind.GraphicsCard, ServiceLevel.Repaste) => 60,
        (AssetKind.Laptop, ServiceLevel.Repaste) => 90,
        (_, ServiceLevel.Repaste) => 45,
        (_, ServiceLevel.Repad) => 75,
        _ => 30,
    };
}
