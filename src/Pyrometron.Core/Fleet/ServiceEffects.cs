namespace Pyrometron.Core.Fleet;

/// <summary>What each service level usually removes; what one service really did is in <see cref="ServiceDone"/>.</summary>
public static class ServiceEffects
{
    /// <summary>Share of the dust that a cleaning leaves deep in the fins. Common practice, no source.</summary>
    public const double DustLeftBehind = 0.15;

    /// <summary>Share of the dust that a blow-out reaches: what lies loose. Common practice, no source.</summary>
    public const double LooseDust = 0.5;

    /// <summary>
    /// The share of a cause that a level takes away, 0 to 1. Common practice, no source: every level that takes the fans off
    /// cleans the fins on the way; a lifted cooler always gets new paste.
    /// </summary>
    public static double RemovedShare(ServiceLevel level, Cause cause) =>
        (level, cause) switch
        {
            (ServiceLevel.BlowOut, Cause.Dust) => LooseDust,
            (ServiceLevel.CoolerSwap, Cause.Dust) => 1,
            (_, Cause.Dust) => CleansInside(level) ? 1 - DustLeftBehind : 0,
            (ServiceLevel.FanSwap or ServiceLevel.CoolerSwap, Cause.Fan) => 1,
            (_, Cause.Paste or Cause.Mount) => LiftsCooler(level) ? 1 : 0,
            (_, Cause.Pads) => RenewsPads(level) ? 1 : 0,
            _ => 0,
        };

    /// <summary>Whether what was done does another work's part too: the same, or one that takes away all that it takes.</summary>
    public static bool Covers(ServiceLevel done, ServiceLevel other) =>
        done == other
        || (
            AgainstWear.Contains(other)
            && Enum.GetValues<Cause>().All(cause => RemovedShare(done, cause) >= RemovedShare(other, cause))
        );

    /// <summary>Whether removing this share of a cause starts its age anew.</summary>
    public static bool IsRenewal(double removedShare) => removedShare >= 1 - DustLeftBehind;

    /// <summary>The services that take wear away, the lightest first: what a judgement can advise.</summary>
    public static IReadOnlyList<ServiceLevel> AgainstWear { get; } =
    [ServiceLevel.BlowOut, ServiceLevel.DustOut, ServiceLevel.FanSwap, ServiceLevel.Repaste, ServiceLevel.Repad];

    /// <summary>Whether a level always takes the cooler off.</summary>
    public static bool LiftsCooler(ServiceLevel level) =>
        level
            is ServiceLevel.Repaste
                or ServiceLevel.Repad
                or ServiceLevel.OtherPaste
                or ServiceLevel.OtherPads
                or ServiceLevel.CoolerSwap;

    /// <summary>Whether pads are always renewed.</summary>
    public static bool RenewsPads(ServiceLevel level) => level is ServiceLevel.Repad or ServiceLevel.OtherPads;

    /// <summary>
    /// Whether the fins are cleaned from inside: with every level that opens the machine for its cooler or fans.
    /// </summary>
    public static bool CleansInside(ServiceLevel level) =>
        level is ServiceLevel.DustOut or ServiceLevel.FanSwap || LiftsCooler(level);

    /// <summary>Whether the machine is opened to do it.</summary>
    public static bool Opens(ServiceLevel level) => CleansInside(level) || level == ServiceLevel.AddOnFan;

    /// <summary>What a level makes different for good.</summary>
    public static CoolingChange Changes(ServiceLevel level) =>
        level switch
        {
            ServiceLevel.CoolerSwap or ServiceLevel.AddOnFan => CoolingChange.NewBaseline,
            ServiceLevel.Undervolt => CoolingChange.Settings,
            ServiceLevel.Stand or ServiceLevel.Filter => CoolingChange.AirSide,
            _ => CoolingChange.None,
        };

    /// <summary>All that can be done to a kind of machine, services first.</summary>
    public static IReadOnlyList<ServiceLevel> For(AssetKind kind) =>
        [.. Enum.GetValues<ServiceLevel>().Where(level => Suits(level, kind))];

    /// <summary>Whether a level is done on a kind of machine at all. Common practice, no source.</summary>
    public static bool Suits(ServiceLevel level, AssetKind kind) =>
        (level, kind) switch
        {
            (ServiceLevel.Stand, _) => kind == AssetKind.Laptop,
            (ServiceLevel.Filter, _) => kind is AssetKind.Desktop or AssetKind.Server,
            (ServiceLevel.CoolerSwap or ServiceLevel.AddOnFan, _) => kind != AssetKind.Laptop,
            _ => true,
        };
}
