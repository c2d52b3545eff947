using Pyrometron.Core.Units;

namespace Pyrometron.Core.Materials;

/// <summary>
/// Paste between a chip and its cooler: a flat layer that conducts across its thickness, where it covers the chip.
/// </summary>
/// <param name="WidthMm">Of the chip, in millimetres.</param>
/// <param name="HeightMm">Of the chip, in millimetres.</param>
/// <param name="BondLineMicrometres">Thickness of the layer.</param>
/// <param name="Conductivity">Of the paste, in W/(m·K).</param>
/// <param name="Coverage">The share of the chip that paste covers, above 0 to 1; heat through the rest is not counted.</param>
public sealed record PasteJoint(double WidthMm, double HeightMm, double BondLineMicrometres, double Conductivity, double Coverage)
{
    /// <summary>The covered area, in mm².</summary>
    public double CoveredMm2 => WidthMm * HeightMm * Coverage;

    /// <summary>The paste in the layer, in mm³; what squeezes out comes on top.</summary>
    public double VolumeMm3 => CoveredMm2 * BondLineMicrometres / 1000;

    /// <summary>
    /// Thermal resistance across the layer, R = t/(k·A) in K/W (Fourier's law for a plane layer).
    /// </summary>
    public double ResistanceKPerW => BondLineMicrometres * 1e-6 / (Conductivity * CoveredMm2 * 1e-6);

    /// <summary>The mass of the paste in grams.</summary>
    /// <param name="densityGPerCm3">Of the paste.</param>
    public double MassGrams(double densityGPerCm3) => VolumeMm3 / 1000 * densityGPerCm3;

    /// <summary>What the layer adds to the chip's temperature.</summary>
    /// <param name="watts">Heat through it.</param>
    public KelvinDifference RiseAt(double watts) => new(ResistanceKPerW * watts);
}
