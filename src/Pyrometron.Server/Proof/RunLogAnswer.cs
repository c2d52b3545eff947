using Pyrometron.Core.Messages;
using Pyrometron.Core.Proof;

namespace Pyrometron.Server.Proof;

/// <summary>A sample of a log and the fitted curve there.</summary>
public sealed record CurvePoint(double Minute, double Celsius, double Fitted);

/// <summary>What one part of a log settles at.</summary>
/// <param name="UncertaintyKelvin">Expanded, k = 2.</param>
/// <param name="FastConstantMinutes">The chip's own time constant, where the curve has two.</param>
public sealed record SettledPartAnswer(
    string Part,
    double SettledCelsius,
    double UncertaintyKelvin,
    double TimeConstantMinutes,
    double? FastConstantMinutes,
    double ShareReached,
    double MaximumCelsius,
    double LastSlopeKelvinPerMinute,
    bool Settled,
    IReadOnlyList<CurvePoint> Curve
);

/// <summary>What a sensor log tells of a run.</summary>
/// <param name="StoppedAt">Minute at which the load broke off, or null.</param>
/// <param name="ThrottledFrom">Minute from which it throttled, or null.</param>
/// <param name="Sentences">The same in words.</param>
/// <param name="Messages">The words as templates and values.</param>
public sealed record RunLogAnswer(
    double Minutes,
    double? StoppedAt,
    double? ThrottledFrom,
    double? AmbientCelsius,
    double? PowerWatts,
    double? ClockMhz,
    double? FanRpm,
    double? FanPercent,
    IReadOnlyList<SettledPartAnswer> Parts,
    IReadOnlyList<string> Sentences,
    IReadOnlyList<Message> Messages
)
{
    internal static RunLogAnswer From(RunReading run) =>
        new(
            Math.Round(run.Minutes, 2),
            Round(run.StoppedAt, 2),
            Round(run.ThrottledFrom, 2),
            Round(run.AmbientC, 1),
            Round(run.PowerWatts, 1),
            Round(run.ClockMhz, 0),
            Round(run.FanRpm, 0),
            Round(run.FanPct, 1),
            [
                .. run.Parts.Select(p => new SettledPartAnswer(
                    p.Part,
                    Math.Round(p.Settled.SettledC, 2),
                    Math.Round(2 * Math.Min(p.Settled.UncertaintyKelvin, 1000), 2),
                    Math.Round(p.Settled.TimeConstantMinutes, 2),
                    Round(p.Settled.FastConstantMinutes, 3),
                    Math.Round(p.Settled.ShareReached, 3),
                    p.Settled.MaximumC,
                    Math.Round(p.Settled.LastSlopeKelvinPerMinute, 3),
                    p.Settled.IsSettled,
                    [.. p.Curve.Select(c => new CurvePoint(Math.Round(c.Minute, 3), c.Celsius, Math.Round(c.Fitted, 2)))]
                )),
            ],
            [.. Say(run).Select(m => m.ToString())],
            [.. Say(run)]
        );

    private static IEnumerable<Message> Say(RunReading run)
    {
        if (run.StoppedAt is { } stopped)
            yield return Message.Of(
                "The load broke off after {minutes}; what came later is left out. If nobody stopped it, it crashed: record that.",
                Value.Minutes("minutes", stopped)
            );
        if (run.ThrottledFrom is { } throttled)
            yield return Message.Of(
                "It throttled from minute {minute} on: the clock fell while a part stood at its hottest. Its settled value is a lower bound.",
                Value.Figure("minute", throttled)
            );
        foreach (var part in run.Parts.Where(p => !p.Settled.IsSettled))
            yield return Message.Of(
                "{part} was still rising: {share} of its way, {slope} K a minute at the end. {settled} is where the curve leads, not what was measured; run longer to be sure.",
                Value.PartFirst("part", part.Part),
                Value.Share("share", part.Settled.ShareReached),
                Value.Figure("slope", part.Settled.LastSlopeKelvinPerMinute, "0.00"),
                Value.Celsius("settled", part.Settled.SettledC)
            );
    }

    private static double? Round(double? value, int digits) => value is { } v ? Math.Round(v, digits) : null;
}
