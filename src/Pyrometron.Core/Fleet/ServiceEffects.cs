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
            (ServiceLevel.DustOut or ServiceLevel.FanSwap or ServiceLevel.Repaste or ServiceLevel.Repad, Cause.Dust) => 1
                - DustLeftBehind,
            (ServiceLevel.FanSwap, Cause.Fan) => 1,
            (ServiceLevel.Repaste or ServiceLevel.Repad, Cause.Paste or Cause.Mount) => 1,
            (ServiceLevel.Repad, Cause.Pads) => 1,
            _ => 0,
        };

    /// <summary>Whether removing this share of a cause starts its age anew.</summary>
    public static bool IsRenewal(double removedShare) => removedShare >= 1 - DustLeftBehind;

    /// <summary>Whether a level always takes the cooler off.</summary>
    public static bool LiftsCooler(ServiceLevel level) => level is ServiceLevel.Repaste or ServiceLevel.Repad;
}
