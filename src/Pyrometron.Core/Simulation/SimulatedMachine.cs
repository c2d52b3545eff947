using Pyrometron.Core.Cooling;
using Pyrometron.Core.Drift;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Readings;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Simulation;

/// <summary>How a fault grows.</summary>
public enum GrowthShape
{
    Steady,
    LateFast,
    Step,
}

/// <summary>Wear or a defect of a simulated machine.</summary>
/// <param name="FromDay">When it begins, days since 1970.</param>
/// <param name="FullDay">When it has reached its kelvins; growth stops there.</param>
/// <param name="Kelvin">What it costs at the reference point when full: on the part that feels it most.</param>
/// <param name="Part">The part, for a joint; null for all parts.</param>
public sealed record Fault(
    Cause Cause,
    double FromDay,
    double FullDay,
    double Kelvin,
    string? Part = null,
    GrowthShape Shape = GrowthShape.Steady
)
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
/// <param name="IdlePart">A part that this load leaves idle, or null.</param>
public sealed record SimulatedLoad(string Name, double PowerShare, double Weight, string? IdlePart = null)
{
    /// <summary>Heat through an idle part's joint, relative to its usual heat.</summary>
    private const double IdleShare = 0.1;

    /// <summary>Heat through a part's joint, relative to usual.</summary>
    public double Through(string part) =>
        part == IdlePart ? IdleShare
        : IdlePart is null ? PowerShare
        : 1;
}

/// <summary>How a fan is commanded.</summary>
public abstract record FanControl
{
    /// <summary>Always the same.</summary>
    public sealed record Fixed(double Percent) : FanControl;

    /// <summary>The hottest part is held at a temperature, as long as the fan can.</summary>
    public sealed record Holds(double Celsius) : FanControl;

    /// <summary>The speed follows the hottest part: the least command below one temperature, all of it above the other.</summary>
    public sealed record Follows(double FromC, double FullC) : FanControl;

    /// <summary>The least command of an automatic fan, per cent.</summary>
    public const double LeastPercent = 25;

    /// <summary>What is asked of the fan when the hottest part stands at a temperature, per cent.</summary>
    internal double Asked(double hottestC) =>
        this switch
        {
            Fixed alone => alone.Percent,
            // Anything hotter than the target asks for more than there is, anything cooler for less.
            Holds target => hottestC > target.Celsius ? 100 : LeastPercent,
            Follows curve => LeastPercent
                + (100 - LeastPercent) * Math.Clamp((hottestC - curve.FromC) / (curve.FullC - curve.FromC), 0, 1),
            _ => throw new InvalidOperationException($"No such fan control: {GetType().Name}"),
        };
}

/// <summary>How readings scatter beside what the sensors do.</summary>
/// <param name="RunKelvin">
/// From one reading to the next, all parts alike: seldom is a run warmed through as the last one was.
/// </param>
/// <param name="LocalAirKelvin">The air in front of the machine against the zone's, for days at a time.</param>
public readonly record struct Scatter(double RunKelvin, double LocalAirKelvin);

/// <summary>A sensor that does not tell the truth from a day on.</summary>
/// <param name="OffsetKelvin">What it adds; null for one that stands still.</param>
public sealed record SensorFault(string Part, double FromDay, double? OffsetKelvin);

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
/// <param name="Fan">How its fan is commanded.</param>
/// <param name="SettingsChange">Day and power factor of a change of settings, or null.</param>
/// <param name="Sensor">A sensor that is wrong, or null.</param>
public sealed record SimulatedMachine(
    Asset Asset,
    double PowerW,
    double AirRise,
    IReadOnlyList<double> JointRise,
    double MaxRpm,
    FanControl Fan,
    IReadOnlyList<SimulatedLoad> Loads,
    Instruments Instruments,
    IReadOnlyList<Fault> Faults,
    (double Day, double PowerFactor)? SettingsChange = null,
    SensorFault? Sensor = null
)
{
    private const double ReferencePct = 60;

    /// <summary>What a sensor shows that has stopped, °C.</summary>
    private const double StuckAtC = 47;

    /// <summary>How much wider the hot spot's gap grows than the core's when paste fails (common practice, no source).</summary>
    private const double HotspotGain = 2.3;

    /// <summary>Share of its dust that every cleaning leaves in the fins.</summary>
    public double DustLeftBehind { get; init; } = ServiceEffects.DustLeftBehind;

    /// <summary>In what proportion its parts feel the air side; null for all alike, as on one cooler.</summary>
    public IReadOnlyList<double>? AirShare { get; init; }

    /// <summary>How its readings scatter.</summary>
    public Scatter Scatter { get; init; } = new(0.3, 0);

    /// <summary>Heat relative to the usual under the settings of a day.</summary>
    private double SettingsHeat(double day) => SettingsChange is { } change && day >= change.Day ? change.PowerFactor : 1;

    /// <summary>What the machine would show at a moment: settled, with sensor noise.</summary>
    /// <param name="localAir">What the air in front of it differs by from the zone's, K.</param>
    public Reading Measure(double day, SimulatedZone zone, double localAir, Random random)
    {
        var load = Pick(random);
        var changed = SettingsHeat(day);
        var heat = load.PowerShare * changed * (1 + random.Normal() * 0.015);
        var air = zone.FeltC(day) + localAir + random.Normal() * Scatter.RunKelvin;
        var (parts, pct, rpm) = Settle(day, heat, air, load);
        if (Sensor is { } wrong && day >= wrong.FromDay && Asset.Parts.ToList().FindIndex(p => p.Name == wrong.Part) is var at)
            parts[at] = wrong.OffsetKelvin is { } offset ? parts[at] + offset : StuckAtC;
        double Whole(double value, double noise) => Math.Round(value + random.Normal() * noise);
        return new Reading(
            (long)Math.Round(day * 86_400_000),
            Instruments.Ambient ? Math.Round((zone.SeenC(day) + random.Normal() * 0.3) * 2) / 2 : double.NaN,
            double.NaN,
            Instruments.Power ? Whole(heat * PowerW, 2) : double.NaN,
            Instruments.Fan ? Math.Round(rpm * (1 + random.Normal() * 0.01) / 10) * 10 : double.NaN,
            Instruments.Fan && Instruments.Power ? Math.Round(pct) : double.NaN,
            double.NaN,
            double.NaN,
            double.NaN,
            changed > 1 ? "raised"
                : changed < 1 ? "lowered"
                : "stock",
            load.Name,
            null,
            [.. parts.Select(c => c.Equals(StuckAtC) ? c : Whole(c, 0.8))]
        );
    }

    /// <summary>Settled temperatures, fan command and speed at a heat and an intake air.</summary>
    /// <param name="load">Which parts work; null for all.</param>
    public (double[] PartsC, double FanPct, double FanRpm) Settle(
        double day,
        double heat,
        double airC,
        SimulatedLoad? load = null
    )
    {
        // The fan finds the command that asks for itself; a bisection, since faster means cooler.
        var (low, high) = Fan is FanControl.Fixed alone ? (alone.Percent, alone.Percent) : (FanControl.LeastPercent, 100);
        for (var i = 0; i < 20 && high > low; i++)
        {
            var middle = (low + high) / 2;
            if (Fan.Asked(Temperatures(day, heat, airC, middle, load).Max()) > middle)
                low = middle;
            else
                high = middle;
        }
        var pct = (low + high) / 2;
        return (Temperatures(day, heat, airC, pct, load), pct, MaxRpm * pct / 100 * FanShare(day));
    }

    /// <summary>
    /// What each serviceable cause adds to each part on a day, K: at 25 °C intake, the heat of the day's settings, and the
    /// command that the fan of the fresh machine would have there.
    /// </summary>
    public IReadOnlyList<IReadOnlyDictionary<Cause, double>> Wear(double day)
    {
        var heat = SettingsHeat(day);
        var fresh = this with { Faults = [] };
        var pct = fresh.Settle(day, heat, ReferencePoint.AmbientC).FanPct;
        var whole = fresh.Temperatures(day, heat, ReferencePoint.AmbientC, pct, null);
        double[] With(params Cause[] causes) =>
            (this with { Faults = [.. Faults.Where(f => causes.Contains(f.Cause))] }).Temperatures(
                day,
                heat,
                ReferencePoint.AmbientC,
                pct,
                null
            );
        var alone = ((Cause[])[Cause.Dust, Cause.Paste, Cause.Pads, Cause.Mount]).ToDictionary(c => c, c => With(c));
        // A tired fan costs the more, the more dust it blows against.
        var (dusty, tired) = (alone[Cause.Dust], With(Cause.Dust, Cause.Fan));
        return
        [
            .. Asset.Parts.Select(
                (_, p) =>
                    (IReadOnlyDictionary<Cause, double>)
                        alone
                            .Select(c => (c.Key, Kelvin: c.Value[p] - whole[p]))
                            .Append((Cause.Fan, tired[p] - dusty[p]))
                            .ToDictionary(c => c.Item1, c => c.Item2)
            ),
        ];
    }

    /// <summary>Temperatures on a day with all parts at work and all the speed that the fan has, °C.</summary>
    public IReadOnlyList<double> Hottest(double day, double airC) =>
        Temperatures(day, SettingsHeat(day), airC, Fan is FanControl.Fixed alone ? alone.Percent : 100, null);

    private double[] Temperatures(double day, double heat, double airC, double pct, SimulatedLoad? load)
    {
        var flow = FanLaw.RelativeResistance(pct * FanShare(day), ReferencePct);
        var cooler = flow * (AirRise + Remaining(Cause.Dust, null, day));
        var parts = new double[Asset.Parts.Count];
        for (var p = 0; p < parts.Length; p++)
        {
            var part = Asset.Parts[p];
            var joint =
                Remaining(part.Joint == JointMaterial.Pad ? Cause.Pads : Cause.Paste, part.Name, day)
                + Remaining(Cause.Mount, part.Name, day);
            if (part.Name == "hotspot")
                joint += HotspotGain * (Remaining(Cause.Paste, "core", day) + Remaining(Cause.Mount, "core", day));
            var through = load is { IdlePart: not null } ? heat / load.PowerShare * load.Through(part.Name) : heat;
            // In a desktop each part has a cooler of its own, elsewhere they share one.
            parts[p] =
                airC
                + (Asset.Kind == AssetKind.Desktop ? through : heat) * (AirShare?[p] ?? 1) * cooler
                + through * (JointRise[p] + joint);
        }
        return parts;
    }

    /// <summary>
    /// A worn fan's speed relative to its command: the fault's kelvins are what it costs at the reference command.
    /// </summary>
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
                var on = service.Day;
                if (on <= day && on > fault.FromDay)
                    removed +=
                        (fault.At(on) - removed)
                        * (cause == Cause.Dust && service.Renews(cause) ? 1 - DustLeftBehind : service.Renewed.Of(cause));
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
}
