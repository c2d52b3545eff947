using Pyrometron.Core.Drift;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Readings;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Simulation;

/// <summary>How a fault grows.</summary>
public enum GrowthShape { Steady, LateFast, Step }

/// <summary>Wear or a defect of a simulated machine.</summary>
/// <param name="FromDay">When it begins, days since 1970.</param>
/// <param name="FullDay">When it has reached its kelvins; growth stops there.</param>
/// <param name="Kelvin">What it costs at the reference point when full: on the part that feels it most.</param>
/// <param name="Part">The part, for a joint; null for all parts.</param>
public sealed record Fault(Cause Cause, double FromDay, double FullDay, double Kelvin, string? Part = null, GrowthShape Shape = GrowthShape.Steady)
{
    /// <summary>Kelvins on a day, before any service.</summary>
    public double At(double day)
    {
        if (day < FromDay)
            return 0;
        var grown = Shape == GrowthShape.Step || day >= FullDay ? 1 : (day - FromDay) / (FullDay - FromDay);
        return Kelvin * (Shape == GrowthShape.LateFast ? grown * grown : grown);
    }
}

/// <summary>A load the machine runs under.</summary>
/// <param name="PowerShare">Heat relative to the machine's usual power.</param>
/// <param name="Weight">How often it is met.</param>
public sealed record SimulatedLoad(string Name, double PowerShare, double Weight);

/// <summary>What is measured, and how often.</summary>
/// <param name="EveryDays">Days between readings.</param>
public sealed record Instruments(double EveryDays, bool Ambient = true, bool Power = true, bool Fan = true);

/// <summary>
/// A machine that does not exist: the two-resistance model of a cooler with parts on it, an automatic fan, faults that grow
/// and are removed by services, and sensors with noise and whole degrees.
/// </summary>
/// <param name="PowerW">Usual heat.</param>
/// <param name="AirRise">Fresh rise of the cooler over the air at usual heat and 60 % fan, K.</param>
/// <param name="JointRise">Fresh rise of each part over the cooler at usual heat, K.</param>
/// <param name="FanTargetC">Temperature of the hottest part that the automatic fan steers by; null for a fixed fan at 60 %.</param>
/// <param name="StuckSensor">A part whose sensor stands still from a day on, or null.</param>
/// <param name="SettingsChange">Day and power factor of a change of settings, or null.</param>
public sealed record SimulatedMachine(
    Asset Asset, double PowerW, double AirRise, IReadOnlyList<double> JointRise, double MaxRpm, double? FanTargetC,
    IReadOnlyList<SimulatedLoad> Loads, Instruments Instruments, IReadOnlyList<Fault> Faults, (double Day, double PowerFactor)? SettingsChange = null,
    (string Part, double FromDay)? StuckSensor = null)
{
    private const double ReferencePct = 60, LeastPct = 25;

    /// <summary>What a sensor shows that has stopped, °C.</summary>
    private const double StuckAtC = 47;

    /// <summary>How much wider the hot spot's gap grows than the core's when paste fails (common practice, no source).</summary>
    private const double HotspotGain = 2.3;

    /// <summary>What the machine would show at a moment: settled, with sensor noise.</summary>
    public Reading Measure(double day, SimulatedZone zone, Random random)
    {
        var load = Pick(random);
        var changed = SettingsChange is { } change && day >= change.Day;
        var heat = load.PowerShare * (changed ? SettingsChange!.Value.PowerFactor : 1) * (1 + Normal(random) * 0.015);
        var air = zone.FeltC(day) + Normal(random) * 0.3;
        var (parts, pct, rpm) = Settle(day, heat, air);
        if (StuckSensor is { } stuck && day >= stuck.FromDay)
            parts[Asset.Parts.ToList().FindIndex(p => p.Name == stuck.Part)] = StuckAtC;
        double Whole(double value, double noise) => Math.Round(value + Normal(random) * noise);
        return new Reading(
            (long)Math.Round(day * 86_400_000), Instruments.Ambient ? Math.Round((zone.SeenC(day) + Normal(random) * 0.3) * 2) / 2 : double.NaN, double.NaN,
            Instruments.Power ? Whole(heat * PowerW, 2) : double.NaN, Instruments.Fan ? Math.Round(rpm * (1 + Normal(random) * 0.01) / 10) * 10 : double.NaN,
            Instruments.Fan && Instruments.Power ? Math.Round(pct) : double.NaN, double.NaN, double.NaN, double.NaN,
            changed ? "raised" : "stock", load.Name, null, [.. parts.Select(c => c.Equals(StuckAtC) ? c : Whole(c, 0.8))]);
    }

    /// <summary>Settled temperatures, fan command and speed at a heat and an intake air.</summary>
    public (double[] PartsC, double FanPct, double FanRpm) Settle(double day, double heat, double airC)
    {
        // The automatic fan finds the lowest command that holds its target; a bisection, since hotter means faster.
        double low = LeastPct, high = 100;
        if (FanTargetC is not { } target)
            low = high = ReferencePct;
        else
            for (var i = 0; i < 20; i++)
            {
                var middle = (low + high) / 2;
                if (Temperatures(day, heat, airC, middle).Max() > target)
                    low = middle;
                else
                    high = middle;
            }
        var pct = (low + high) / 2;
        return (Temperatures(day, heat, airC, pct), pct, MaxRpm * pct / 100 * FanShare(day));
    }

    private double[] Temperatures(double day, double heat, double airC, double pct)
    {
        var flow = FanLaw.RelativeResistance(pct * FanShare(day), ReferencePct);
        var cooler = heat * flow * (AirRise + Remaining(Cause.Dust, null, day));
        var parts = new double[Asset.Parts.Count];
        for (var p = 0; p < parts.Length; p++)
        {
            var part = Asset.Parts[p];
            var joint = Remaining(part.Joint == JointMaterial.Pad ? Cause.Pads : Cause.Paste, part.Name, day) + Remaining(Cause.Mount, part.Name, day);
            if (part.Name == "hotspot")
                joint += HotspotGain * (Remaining(Cause.Paste, "core", day) + Remaining(Cause.Mount, "core", day));
            parts[p] = airC + cooler + heat * (JointRise[p] + joint);
        }
        return parts;
    }

    /// <summary>A worn fan's speed relative to its command: the fault's kelvins are what it costs at the reference command.</summary>
    private double FanShare(double day)
    {
        var kelvin = Remaining(Cause.Fan, null, day);
        return kelvin <= 0 ? 1 : Math.Pow(1 + kelvin / AirRise, -1 / FanLaw.Exponent);
    }

    /// <summary>What the services of the history have left of a cause's faults on a day, K.</summary>
    private double Remaining(Cause cause, string? part, double day)
    {
        var sum = 0.0;
        foreach (var fault in Faults)
        {
            if (fault.Cause != cause || (fault.Part is not null && fault.Part != part))
                continue;
            var removed = 0.0;
            foreach (var service in Asset.Services)
            {
                var on = UnixDay.Noon(service.Date);
                if (on <= day && on > fault.FromDay)
                    removed += (fault.At(on) - removed) * ServiceEffects.RemovedShare(service.Level, cause);
            }
            sum += fault.At(day) - removed;
        }
        return sum;
    }

    private SimulatedLoad Pick(Random random)
    {
        var place = random.NextDouble() * Loads.Sum(l => l.Weight);
        foreach (var load in Loads)
            if ((place -= load.Weight) <= 0)
                return load;
        return Loads[^1];
    }

    /// <summary>A standard normal deviate (Box &amp; Muller 1958).</summary>
    private static double Normal(Random random) =>
        Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());
}
