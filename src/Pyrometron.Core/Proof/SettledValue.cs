using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Proof;

/// <summary>What a run's log of samples settles at, and whether it has.</summary>
/// <param name="SettledC">T∞ of the fitted step response, °C: never simply the last sample.</param>
/// <param name="UncertaintyKelvin">Its standard uncertainty.</param>
/// <param name="TimeConstantMinutes">τ; of the slower part where the curve has two.</param>
/// <param name="FastConstantMinutes">τ of the chip itself, where one time constant misfits; else null.</param>
/// <param name="ShareReached">Share of the rise reached at the end, 0 to 1.</param>
/// <param name="MaximumC">The hottest sample.</param>
/// <param name="LastSlopeKelvinPerMinute">Slope over the last quarter of the run.</param>
/// <param name="IsSettled">At most 0.5 K still to rise, and less than 0.1 K a minute at the end.</param>
public sealed record SettledValue(
    double SettledC,
    double UncertaintyKelvin,
    double TimeConstantMinutes,
    double? FastConstantMinutes,
    double ShareReached,
    double MaximumC,
    double LastSlopeKelvinPerMinute,
    bool IsSettled
)
{
    /// <summary>With at most this much still to rise a part has settled, K.</summary>
    public const double RemainingKelvin = 0.5;

    private const double SlopeKelvinPerMinute = 0.1;

    /// <summary>A second time constant must leave less than this share of what one leaves.</summary>
    private const double WorthASecond = 0.6;

    /// <summary>
    /// More samples than these are averaged in blocks first: a second of a run has no more to tell than its mean.
    /// </summary>
    private const int MostFitted = 1000;

    private Func<double, double> _curve = _ => double.NaN;

    /// <summary>The fitted curve at a minute, °C.</summary>
    public double At(double minute) => _curve(minute);

    /// <summary>Fits a run's samples.</summary>
    /// <param name="minutes">Minutes since the load began, ascending.</param>
    /// <param name="celsius">Temperatures, same length.</param>
    /// <returns>Null with fewer than six samples or no spread in time.</returns>
    public static SettledValue? Of(ReadOnlySpan<double> minutes, ReadOnlySpan<double> celsius)
    {
        var maximum = double.NegativeInfinity;
        foreach (var value in celsius)
            maximum = Math.Max(maximum, value);
        if (minutes.Length > MostFitted)
        {
            minutes = BlockMeans(minutes);
            celsius = BlockMeans(celsius);
        }
        if (minutes.Length < 6 || StepResponse.Fit(minutes, celsius) is not { } one)
            return null;
        var tail = minutes.Length * 3 / 4;
        var slope = TheilSen.Fit(minutes[tail..], celsius[tail..])?.Slope ?? 0;
        // Chips answer in seconds, their cooler in minutes: the chip's jump is left to itself where it spoils the fit.
        if (
            StepResponse.FitTwo(minutes, celsius) is { } two
            && two.ResidualSumOfSquares < WorthASecond * one.ResidualSumOfSquares
        )
            return Of(two.Settled, two.SettledUncertainty, two.SlowTau, two.FastTau, two.At, minutes, slope, maximum);
        return Of(one.Settled, one.SettledUncertainty, one.TimeConstant, null, one.At, minutes, slope, maximum);
    }

    private static double[] BlockMeans(ReadOnlySpan<double> values)
    {
        var size = (values.Length + MostFitted - 1) / MostFitted;
        var means = new double[(values.Length + size - 1) / size];
        for (var b = 0; b < means.Length; b++)
        {
            var block = values[(b * size)..Math.Min(values.Length, (b + 1) * size)];
            means[b] = System.Numerics.Tensors.TensorPrimitives.Sum<double>(block) / block.Length;
        }
        return means;
    }

    private static SettledValue Of(
        double settled,
        double uncertainty,
        double tau,
        double? fast,
        Func<double, double> curve,
        ReadOnlySpan<double> minutes,
        double slope,
        double maximum
    )
    {
        var (start, end) = (curve(minutes[0]), curve(minutes[^1]));
        var rise = settled - start;
        return new SettledValue(
            settled,
            uncertainty,
            tau,
            fast,
            Math.Abs(rise) < 1e-9 ? 1 : Math.Clamp((end - start) / rise, 0, 1),
            maximum,
            slope,
            Math.Abs(settled - end) <= RemainingKelvin && Math.Abs(slope) < SlopeKelvinPerMinute
        )
        {
            _curve = curve,
        };
    }
}
