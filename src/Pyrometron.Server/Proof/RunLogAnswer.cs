using Pyrometron.Core.Events;
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
/// <param name="FanRamp">Fan speed of the last quarter over that of the second, minus 1.</param>
/// <param name="StartCelsius">The hottest part at the first sample.</param>
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
    IReadOnlyList<Message> Messages,
    double? FanRamp,
    double? StartCelsius
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
            [.. Say(run)],
            Round(run.FanRamp, 3),
            Round(run.StartC, 1)
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
        if (run.FanRamp is { } ramp && Math.Abs(ramp) >= RunUncertainty.RampShare)
            yield return Message.Of(
                ramp > 0
                    ? "The fan was still speeding up: {share} from the first half to the end. Fix it, or run longer."
                    : "The fan was still slowing down: {share} from the first half to the end. Fix it, or run longer.",
                Value.Share("share", Math.Abs(ramp))
            );
        foreach (
            var alike in run
                .Parts.Where(p => !p.Settled.IsSettled)
                .GroupBy(p => (Math.Round(p.Settled.ShareReached, 2), Math.Round(p.Settled.LastSlopeKelvinPerMinute, 1)))
        )
            yield return Message.Of(
                "Still rising at the end: {parts}. {share} of the way, {slope} K a minute at the end. {settled} is where the curve leads, not what was measured; run longer to be sure.",
                Value.List("parts", ", ", [.. alike.Select(p => Message.Of("{part}", Value.Part("part", p.Part)))]),
                Value.Share("share", alike.First().Settled.ShareReached),
                Value.Figure("slope", alike.First().Settled.LastSlopeKelvinPerMinute, "0.00"),
                Value.List(
                    "settled",
                    ", ",
                    [.. alike.Select(p => Message.Of("{celsius}", Value.Celsius("celsius", p.Settled.SettledC)))]
                )
            );
    }

    private static double? Round(double? value, int digits) => value is { } v ? Math.Round(v, digits) : null;
}
