namespace Pyrometron.Core.Fleet;

/// <summary>What each service level removes. A lifted cooler always brings new paste; dusting never renews it.</summary>
public static class ServiceEffects
{
    /// <summary>Share of the dust that a cleaning leaves deep in the fins. Common practice, no source.</summary>
    public const double DustLeftBehind = 0.15;

    /// <summary>
    /// The share of a cause that a level takes away, 0 to 1. Common practice, no source: a blow-out reaches only loose
    /// dust; every level that takes the fans off cleans the fins on the way.
    /// </summary>
    public static double RemovedShare(ServiceLevel level, Cause cause) =>
        (level, cause) switch
        {
            (ServiceLevel.BlowOut, Cause.Dust) => 0.5,
            (ServiceLevel.DustOut or ServiceLevel.FanSwap or ServiceLevel.Repaste or ServiceLevel.Repad, Cause.Dust) => 1
                - DustLeftBehind,
            (ServiceLevel.FanSwap, Cause.Fan) => 1,
            (ServiceLevel.Repaste or ServiceLevel.Repad, Cause.Paste or Cause.Mount) => 1,
            (ServiceLevel.Repad, Cause.Pads) => 1,
            _ => 0,
        };

    /// <summary>Whether a service of this level starts the age of a cause anew.</summary>
    public static bool Renews(ServiceLevel level, Cause cause) => RemovedShare(level, cause) >= 1 - DustLeftBehind;

    /// <summary>Whether a service of this level takes some of a cause away, and not enough to start its age anew.</summary>
    public static bool Eases(ServiceLevel level, Cause cause) => RemovedShare(level, cause) > 0 && !Renews(level, cause);

    /// <summary>Whether the cooler comes off, so that a bad mount can begin here.</summary>
    public static bool LiftsCooler(ServiceLevel level) => level is ServiceLevel.Repaste or ServiceLevel.Repad;

    /// <summary>
    /// The lightest level that removes a cause, or null where no service helps. Where pads sit too thick or a joint sits
    /// crooked, <paramref name="padJoint"/> tells whether the pads have to be renewed with it.
    /// </summary>
    public static ServiceLevel? LightestFor(Cause cause, bool padJoint = false) =>
        cause switch
        {
            Cause.Dust => ServiceLevel.DustOut,
            Cause.Fan => ServiceLevel.FanSwap,
            Cause.Paste => ServiceLevel.Repaste,
            Cause.Pads => ServiceLevel.Repad,
            Cause.Mount => padJoint ? ServiceLevel.Repad : ServiceLevel.Repaste,
            _ => null,
        };
}
