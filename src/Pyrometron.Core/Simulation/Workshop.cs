using Pyrometron.Core.Readings;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Simulation;

/// <summary>Lets simulated machines run for a while and writes down what they show.</summary>
public static class Workshop
{
    private const double LocalAirDays = 8;

    /// <summary>A machine's readings from one day (included) to another (excluded), oldest first.</summary>
    /// <param name="seed">The same seed gives the same readings.</param>
    /// <param name="gapShare">Share of readings that are missing, as in life.</param>
    public static List<Reading> Run(
        SimulatedMachine machine,
        SimulatedZone zone,
        double fromDay,
        double untilDay,
        int seed,
        double gapShare = 0.04
    )
    {
        var random = new Random(seed);
        var readings = new List<Reading>();
        var step = machine.Instruments.EveryDays;
        var (localAir, before) = (0.0, double.NegativeInfinity);
        // Rare runs are done when somebody has time, not at midnight sharp.
        for (
            var day = fromDay + random.NextDouble() * Math.Min(step, 1);
            day < untilDay;
            day += step >= 1 ? step * (0.7 + 0.6 * random.NextDouble()) : step
        )
            if (random.NextDouble() >= gapShare)
            {
                // An Ornstein–Uhlenbeck process: what the air was yesterday it half is today.
                var kept = Math.Exp((before - day) / LocalAirDays);
                localAir = kept * localAir + Math.Sqrt(1 - kept * kept) * machine.Scatter.LocalAirKelvin * random.Normal();
                before = day;
                readings.Add(machine.Measure(step >= 1 ? day : Math.Round(day / step) * step, zone, localAir, random));
            }
        return readings;
    }
}
