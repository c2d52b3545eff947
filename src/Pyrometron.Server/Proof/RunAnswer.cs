using Pyrometron.Core.Events;

namespace Pyrometron.Server.Proof;

/// <summary>The fan during a kept run.</summary>
public sealed record RunFanAnswer(FanMode Mode, double? Percent, double? Rpm);

/// <summary>One part in a kept run.</summary>
/// <param name="MaximumCelsius">The hottest sample, where it was read; never what is compared.</param>
public sealed record RunPartAnswer(string Part, double Celsius, double ResolutionKelvin, double? MaximumCelsius);

/// <summary>A run that was kept: what must be there is there. Its members are those of <see cref="RunDto"/>.</summary>
public sealed record RunAnswer(
    string Workload,
    double Minutes,
    double? AmbientCelsius,
    double? AmbientSpreadKelvin,
    RunFanAnswer Fan,
    string Settings,
    double? PowerWatts,
    double? ClockMhz,
    double? Score,
    bool Throttled,
    IReadOnlyList<RunPartAnswer> Parts,
    string? Position,
    double? FailedAfterMinutes,
    RunSource? Source,
    bool? Settled,
    double? ShareOfRise,
    double? StartCelsius,
    double? SlopeKelvinPerMinute,
    double? FanRamp,
    string? ScoreUnit
)
{
    internal static RunAnswer From(Run run) =>
        new(
            run.Workload,
            run.Minutes,
            run.Ambient?.Value,
            run.AmbientSpread > 0 ? run.AmbientSpread : null,
            new RunFanAnswer(run.Fan.Mode, run.Fan.Percent, run.Fan.Rpm),
            run.Settings,
            run.PowerWatts,
            run.ClockMhz,
            run.Score,
            run.Throttled,
            [.. run.Parts.Select(p => new RunPartAnswer(p.Part, p.Celsius.Value, p.ResolutionKelvin, p.Maximum?.Value))],
            run.Position,
            run.FailedAfterMinutes,
            run.Source == RunSource.Typed ? null : run.Source,
            run.Settled,
            run.ShareOfRise,
            run.Start?.Value,
            run.SlopeAtEnd,
            run.FanRamp,
            run.ScoreUnit
        );
}
