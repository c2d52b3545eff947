using Pyrometron.Core.Units;

namespace Pyrometron.Core.Events;

/// <summary>How the fan was driven during a run.</summary>
public enum FanMode
{
    Fixed,
    Auto,
}

/// <summary>The fan during a run.</summary>
/// <param name="Percent">Commanded speed, per cent, where known.</param>
/// <param name="Rpm">Turns a minute, where known.</param>
public sealed record RunFan(FanMode Mode, double? Percent = null, double? Rpm = null);

/// <summary>One part's settled temperature in a run.</summary>
/// <param name="ResolutionKelvin">The step in which the sensor reports.</param>
/// <param name="Maximum">The hottest sample, where it was read; never what is compared.</param>
public sealed record RunPart(string Part, Celsius Celsius, double ResolutionKelvin = 1, Celsius? Maximum = null);

/// <summary>A known load for a known time: what is measured before and after a service.</summary>
/// <param name="Ambient">Intake air; null when nobody wrote it down.</param>
/// <param name="Throttled">Whether the clock fell at equal load.</param>
/// <param name="AmbientSpread">Half-width of a guessed ambient, K; 0 for a measured one.</param>
/// <param name="Position">How it stood: in its rack, flat, propped; null when nobody wrote it down.</param>
/// <param name="FailedAfterMinutes">When it switched off or crashed; null when it ran through.</param>
public sealed record Run(
    string Workload,
    double Minutes,
    Celsius? Ambient,
    RunFan Fan,
    string Settings,
    double? PowerWatts,
    double? ClockMhz,
    double? Score,
    bool Throttled,
    IReadOnlyList<RunPart> Parts,
    double AmbientSpread = 0,
    string? Position = null,
    double? FailedAfterMinutes = null
);
