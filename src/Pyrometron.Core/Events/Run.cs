using Pyrometron.Core.Units;

namespace Pyrometron.Core.Events;

/// <summary>How the fan was driven during a run.</summary>
public enum FanMode
{
    Fixed,
    Auto,
}

/// <summary>Where a run's figures come from.</summary>
public enum RunSource
{
    /// <summary>Read off and typed in.</summary>
    Typed,

    /// <summary>A sensor log of the run.</summary>
    Log,

    /// <summary>A probe that sent samples while the run went on.</summary>
    Probe,

    /// <summary>The machine's own newest readings, which are in its history already.</summary>
    Readings,
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
    IReadOnlyList<RunPart> Parts
)
{
    /// <summary>Half-width of a guessed ambient, K; 0 for a measured one.</summary>
    public double AmbientSpread { get; init; }

    /// <summary>How it stood: in its rack, flat, propped; null when nobody wrote it down.</summary>
    public string? Position { get; init; }

    /// <summary>When it switched off or crashed, minutes; null when it ran through.</summary>
    public double? FailedAfterMinutes { get; init; }

    /// <summary>Where the figures come from.</summary>
    public RunSource Source { get; init; }

    /// <summary>Whether the temperatures had settled, as a log or a person says; null when nobody said.</summary>
    public bool? Settled { get; init; }

    /// <summary>The share of its rise that it had reached at the end, 0 to 1; null where not known.</summary>
    public double? ShareOfRise { get; init; }

    /// <summary>The slope at its end, K a minute, of the part that rose fastest; null where not known.</summary>
    public double? SlopeAtEnd { get; init; }

    /// <summary>The temperature it started from, °C; null when nobody wrote it down.</summary>
    public Celsius? Start { get; init; }

    /// <summary>
    /// Fan speed at the end over that in the middle of the run, minus 1: a fan that was still speeding up, or slowing down. Null
    /// where not known.
    /// </summary>
    public double? FanRamp { get; init; }

    /// <summary>What <see cref="Score"/> counts: frames a second, hashes, points; null when nobody said.</summary>
    public string? ScoreUnit { get; init; }
}
