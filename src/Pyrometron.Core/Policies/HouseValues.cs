using Pyrometron.Core.Fleet;
using Pyrometron.Core.Forecast;

namespace Pyrometron.Core.Policies;

/// <summary>What a machine of a kind is worth, in the house's currency.</summary>
/// <param name="MachineHour">An hour of its full work: what is lost while it stands, or in part while it is slowed down.</param>
/// <param name="Replacement">A new one, work of exchanging it included.</param>
public sealed record KindValues(double MachineHour, double Replacement);

/// <summary>
/// What hours, machines and electricity are worth to the house. The defaults are common practice, no source: every house has its
/// own.
/// </summary>
/// <param name="Currency">The word or sign behind amounts.</param>
/// <param name="TechnicianHour">An hour of a technician.</param>
/// <param name="KilowattHour">Electricity.</param>
/// <param name="DecibelYear">A decibel less for a year, on a machine that people sit beside (laptops and desktops).</param>
/// <param name="CrashHours">Machine hours that a crash or shutdown costs.</param>
/// <param name="LifeYears">Years that a machine lasts which stays as cool as a fresh one.</param>
/// <param name="ActivationEnergyEv">Of ageing, eV.</param>
/// <param name="PayBackYears">Years within which a service has to pay: what it brings is summed over them.</param>
/// <param name="DowntimeShare">
/// Share of a machine-hour that is lost while it stands for a service: 1 where nobody else does its work, 0 where it stands idle
/// anyway.
/// </param>
public sealed record HouseValues(
    string Currency = "EUR",
    double TechnicianHour = 45,
    double KilowattHour = 0.30,
    double DecibelYear = 2,
    double CrashHours = 2,
    double LifeYears = 7,
    double ActivationEnergyEv = Ageing.ActivationEnergyEv,
    int PayBackYears = 2,
    double DowntimeShare = 1
)
{
    /// <summary>Cards at paid work around the clock.</summary>
    public KindValues GraphicsCard { get; init; } = new(0.50, 1200);

    /// <summary>Servers that others wait for.</summary>
    public KindValues Server { get; init; } = new(1.00, 4000);

    /// <summary>A person waits at it.</summary>
    public KindValues Laptop { get; init; } = new(3.00, 1100);

    /// <summary>A person waits at it.</summary>
    public KindValues Desktop { get; init; } = new(3.00, 800);

    /// <summary>The house's defaults.</summary>
    public static HouseValues Default { get; } = new();

    /// <summary>What machines of a kind are worth.</summary>
    public KindValues Of(AssetKind kind) =>
        kind switch
        {
            AssetKind.GraphicsCard => GraphicsCard,
            AssetKind.Server => Server,
            AssetKind.Laptop => Laptop,
            _ => Desktop,
        };

    /// <summary>The same with another worth of a kind.</summary>
    public HouseValues With(AssetKind kind, KindValues worth) =>
        kind switch
        {
            AssetKind.GraphicsCard => this with { GraphicsCard = worth },
            AssetKind.Server => this with { Server = worth },
            AssetKind.Laptop => this with { Laptop = worth },
            _ => this with { Desktop = worth },
        };
}
