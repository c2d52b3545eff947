namespace Pyrometron.Core.Assessments;

/// <summary>One layer of a heat path.</summary>
/// <param name="Name">
/// <c>joint</c> between chip and cooler, <c>fins</c> between cooler and air, <c>fan</c> its lost speed, <c>served</c> what a
/// service since is credited with, <c>hidden</c> what an unseen fan makes up for, <c>conditions</c> today's heat, load and fan
/// against the reference point, <c>sensor</c> what it reads more than it is, <c>room</c> air that the sensors do not see,
/// <c>unexplained</c> what is left.
/// </param>
/// <param name="Kelvin">What it adds now; the last six may be negative.</param>
/// <param name="FreshKelvin">What it would add with everything fresh.</param>
public readonly record struct HeatLayer(string Name, double Kelvin, double FreshKelvin);

/// <summary>
/// A part's temperature as it was measured last, taken apart from the air at the intake up to the chip. Air and layers always add
/// up to what was measured.
/// </summary>
/// <param name="AirC">Intake air then, °C.</param>
/// <param name="Layers">From the chip down to the air.</param>
public sealed record HeatPath(double AirC, IReadOnlyList<HeatLayer> Layers)
{
    /// <summary>What was measured, °C.</summary>
    public double PartC => AirC + Layers.Sum(l => l.Kelvin);

    /// <summary>What no cause explains, K.</summary>
    public double UnexplainedKelvin => Layers.Where(l => l.Name == "unexplained").Sum(l => l.Kelvin);
}
