using Pyrometron.Core.Materials;

namespace Pyrometron.Core.Tests.Materials;

public sealed class PasteJointTests
{
    /// <summary>R = t/(k·A) for 628 mm² (reference sheet, section 6.2, recomputed by a script in SI units).</summary>
    [Theory]
    [InlineData("6.2-R", 50, 8.5, 5e-9)]
    [InlineData("6.2-t25k8.5", 25, 8.5, 5e-8)]
    [InlineData("6.2-t100k8.5", 100, 8.5, 5e-8)]
    [InlineData("6.2-t50k4", 50, 4, 5e-8)]
    [InlineData("6.2-t50k12.5", 50, 12.5, 5e-8)]
    [InlineData("6.2-t150k2", 150, 2, 5e-8)]
    public void Resistance_of_a_layer(string id, double bondLine, double conductivity, double tolerance) =>
        Assert.Equal(Reference.Value(id), new PasteJoint(31.4, 20, bondLine, conductivity, 1).ResistanceKPerW, tolerance);

    /// <summary>The same at 250 W: 2.3417 K (reference sheet, 6.2-dT).</summary>
    [Fact]
    public void Rise_across_a_layer() =>
        Assert.Equal(Reference.Value("6.2-dT"), new PasteJoint(31.4, 20, 50, 8.5, 1).RiseAt(250).Value, 5e-6);

    /// <summary>
    /// 628 mm² at 50 µm take 31.4 mm³ (the drop of section 14.2 of the reference sheet), with 2.5 g/cm³ 78.5 mg: a line of paste.
    /// </summary>
    [Fact]
    public void Volume_and_mass_of_a_layer()
    {
        var joint = new PasteJoint(31.4, 20, 50, 8.5, 1);
        Assert.Equal(31.4, joint.VolumeMm3, 9);
        Assert.Equal(0.0785, joint.MassGrams(2.5), 9);
    }

    /// <summary>A tenth left bare costs a ninth more across the layer and saves a tenth of the paste.</summary>
    [Fact]
    public void What_is_not_covered_does_not_conduct()
    {
        var (full, bare) = (new PasteJoint(30, 20, 60, 6, 1), new PasteJoint(30, 20, 60, 6, 0.9));
        Assert.Equal(full.ResistanceKPerW / 0.9, bare.ResistanceKPerW, 12);
        Assert.Equal(full.VolumeMm3 * 0.9, bare.VolumeMm3, 12);
    }

    /// <summary>
    /// A thin spread reads about 1 K better than a blob (common practice, no source): 35 against 70 µm of a paste of 8.5 W/(m·K)
    /// under 100 W on a chip of 20 × 20 mm.
    /// </summary>
    [Fact]
    public void Thin_wins_what_people_report() =>
        Assert.InRange(
            new PasteJoint(20, 20, 70, 8.5, 1).RiseAt(100).Value - new PasteJoint(20, 20, 35, 8.5, 1).RiseAt(100).Value,
            0.5,
            1.5
        );

    /// <summary>
    /// Bubbles cost a third of a degree at most (common practice, no source): of a tenth of the area in a usual layer.
    /// </summary>
    [Fact]
    public void Bubbles_do_not_matter() =>
        Assert.InRange(
            new PasteJoint(30, 20, 50, 8.5, 0.9).RiseAt(200).Value - new PasteJoint(30, 20, 50, 8.5, 1).RiseAt(200).Value,
            0,
            0.34
        );

    /// <summary>
    /// Between a grain of rice and a pea (common practice, no source; about 20 and 200 mm³): what a lidded processor of
    /// 30 × 30 mm takes at 50 µm and half as much again.
    /// </summary>
    [Fact]
    public void A_lidded_processor_takes_between_rice_and_pea() =>
        Assert.InRange(new PasteJoint(30, 30, 50, 8.5, 1).VolumeMm3 * 1.5, 20, 200);
}
