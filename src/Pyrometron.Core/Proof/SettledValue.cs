using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Proof;

/// <summary>What a run's log of samples settles at, and whether it has.</summary>
/// <param name="SettledC">T∞ of the fitted step response, °C: never simply the last sample.</param>
/// <param name="UncertaintyKelvin">Its standard uncertainty.</param>
/// <param name="TimeConstantMinutes">τ.</param>
/// <param name="ShareReached">Share of the rise reached at the end, 0 to 1.</param>
/// <param name="MaximumC">The hottest sample.</param>
/// <param name="LastSlopeKelvinPerMinute">Slope over the last quarter of the run.</param>
/// <param name="IsSettled">At most 0.5 K still to rise, and less than 0.1 K a minute at the end.</param>
public sealed record SettledValue(
    double SettledC, double UncertaintyKelvin, double TimeConstantMinutes, double ShareReached, double MaximumC, double LastSlopeKelvinPerMinute, bool IsSettled)
{
    private const double RemainingKelvin = 0.5, SlopeKelvinPerMinute = 0.1;

    /// <summary>Fits a run's samples.</summary>
    /// <param name="minutes">Minutes since the load began, ascending.</param>
    /// <param name="celsius">Temperatures, same length.</param>
    /// <returns>Null with fewer than six samples or no spread in time.</returns>
    public static SettledValue? Of(ReadOnlySpan<double> minutes, ReadOnlySpan<double> celsius)
    {
        if (minutes.Length < 6 || StepResponse.Fit(minutes, celsius) is not { } fit)
            return null;
        var tail = minutes.Length * 3 / 4;
        var slope = TheilSen.Fit(minutes[tail..], celsius[tail..])?.Slope ?? 0;
        var end = minutes[^1];
        var maximum = double.NegativeInfinity;
        foreach (var value in celsius)
            maximum = Math.Max(maximum, value);
        var remaining = Math.Abs(fit.Settled - fit.At(end));
        return new SettledValue(fit.Settled, fit.SettledUncertainty, fit.TimeConstant, fit.ShareAt(end), maximum, slope,
            remaining <= RemainingKelvin && Math.Abs(slope) < SlopeKelvinPerMinute);
    }
}
