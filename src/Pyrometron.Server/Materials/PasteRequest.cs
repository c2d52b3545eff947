using Pyrometron.Core.Materials;
using Pyrometron.Formats;

namespace Pyrometron.Server.Materials;

/// <summary>Paste between a chip and its cooler.</summary>
/// <param name="DieWidthMm">Of the chip, up to 500 mm.</param>
/// <param name="BondLineMicrometres">How thick the layer of paste is, up to 5,000 µm; 20 to 100 is usual.</param>
/// <param name="ConductivityWPerMK">Of the paste, up to 500 W/(m·K).</param>
/// <param name="DensityGPerCm3">Of the paste, up to 25 g/cm³.</param>
/// <param name="PowerWatts">Heat through the layer, 0 to 10,000 W.</param>
/// <param name="CoverageFraction">The share of the chip that paste covers, above 0 to 1; 1 where it is missing.</param>
/// <param name="TubeGrams">What the tube holds, up to 10,000 g.</param>
public sealed record PasteRequest(
    double? DieWidthMm,
    double? DieHeightMm,
    double? BondLineMicrometres,
    double? ConductivityWPerMK,
    double? DensityGPerCm3,
    double? PowerWatts,
    double? CoverageFraction,
    double? TubeGrams
)
{
    internal IReadOnlyList<InputProblem> Problems()
    {
        var problems = new List<InputProblem>();
        void Above0(string name, double? value, double most, string unit)
        {
            if (!(value > 0 && value <= most))
                problems.Add(new InputProblem($"{name} must lie above 0 and up to {most} {unit}", Pointer: $"/{name}"));
        }
        Above0("dieWidthMm", DieWidthMm, 500, "mm");
        Above0("dieHeightMm", DieHeightMm, 500, "mm");
        Above0("bondLineMicrometres", BondLineMicrometres, 5_000, "µm");
        Above0("conductivityWPerMK", ConductivityWPerMK, 500, "W/(m·K)");
        Above0("densityGPerCm3", DensityGPerCm3, 25, "g/cm³");
        if (!(CoverageFraction is null or (> 0 and <= 1)))
            problems.Add(new InputProblem("coverageFraction must lie above 0 and up to 1", Pointer: "/coverageFraction"));
        Above0("tubeGrams", TubeGrams, 10_000, "g");
        if (!(PowerWatts >= 0 && PowerWatts <= 10_000))
            problems.Add(new InputProblem("powerWatts must lie between 0 and 10000 W", Pointer: "/powerWatts"));
        return problems;
    }

    internal PasteJoint Joint() =>
        new(DieWidthMm!.Value, DieHeightMm!.Value, BondLineMicrometres!.Value, ConductivityWPerMK!.Value, CoverageFraction ?? 1);
}

/// <summary>How much paste a chip takes, and what the layer costs.</summary>
/// <param name="VolumeMm3">In the layer; what squeezes out comes on top.</param>
/// <param name="ApplicationsPerTube">So many such layers are in the tube; whole ones are fewer by the fraction.</param>
/// <param name="ResistanceKPerW">Across the layer, where it covers the chip.</param>
/// <param name="TemperatureRiseKelvin">What the layer adds to the chip's temperature at this power.</param>
public sealed record PasteAnswer(
    double VolumeMm3,
    double MassGrams,
    double ApplicationsPerTube,
    double ResistanceKPerW,
    double TemperatureRiseKelvin
)
{
    internal static PasteAnswer From(PasteRequest request)
    {
        var joint = request.Joint();
        var grams = joint.MassGrams(request.DensityGPerCm3!.Value);
        return new PasteAnswer(
            joint.VolumeMm3,
            grams,
            request.TubeGrams!.Value / grams,
            joint.ResistanceKPerW,
            joint.RiseAt(request.PowerWatts!.Value).Value
        );
    }
}
