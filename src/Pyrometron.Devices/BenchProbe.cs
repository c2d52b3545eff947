namespace Pyrometron.Devices;

/// <summary>One sample of a run.</summary>
/// <param name="Celsius">By part.</param>
public sealed record ProbeSample(
    double Minute,
    IReadOnlyDictionary<string, double> Celsius,
    double AmbientCelsius,
    double PowerWatts,
    double FanPercent
);

/// <summary>
/// A simulated stand-in for a probe on the bench: a machine put under load from cold. Each part follows its chip in seconds
/// and the cooler in minutes, with a sensor that reads in steps.
/// </summary>
/// <param name="rises">The settled rise over ambient of each part, K.</param>
/// <param name="seed">The same seed gives the same run.</param>
public sealed class BenchProbe(IReadOnlyDictionary<string, double> rises, double ambientCelsius, double powerWatts, int seed)
{
    private const double ChipMinutes = 0.25,
        CoolerMinutes = 3.2,
        ChipShare = 0.35,
        StepKelvin = 0.5,
        NoiseKelvin = 0.25;

    private readonly Random _random = new(seed);

    /// <summary>The next sample; minutes ascend from call to call.</summary>
    public ProbeSample At(double minute)
    {
        var share = 1 - ChipShare * Math.Exp(-minute / ChipMinutes) - (1 - ChipShare) * Math.Exp(-minute / CoolerMinutes);
        // A sum of uniform numbers is near enough to a normal one for a sensor.
        double Noise() => (_random.NextDouble() + _random.NextDouble() + _random.NextDouble() - 1.5) * 2 * NoiseKelvin;
        return new ProbeSample(
            minute,
            rises.ToDictionary(
                r => r.Key,
                r => Math.Round((ambientCelsius + r.Value * share + Noise()) / StepKelvin) * StepKelvin
            ),
            ambientCelsius,
            powerWatts,
            100
        );
    }
}
