using Pyrometron.Core.Materials;
using UnitsNet;

namespace Pyrometron.Core.Tests.Materials;

/// <summary>Conversions of units against a units library.</summary>
public sealed class UnitTests
{
    [Theory]
    [InlineData(31.4, 20, 50, 2.5)]
    [InlineData(12, 9, 35, 3.1)]
    public void Volume_and_mass_of_paste(double width, double height, double micrometres, double density)
    {
        var joint = new PasteJoint(width, height, micrometres, 8.5, 1);
        var volume = Length.FromMillimeters(width) * Length.FromMillimeters(height) * Length.FromMicrometers(micrometres);
        Assert.Equal(volume.CubicMillimeters, joint.VolumeMm3, 9);
        Assert.Equal((volume * Density.FromGramsPerCubicCentimeter(density)).Grams, joint.MassGrams(density), 9);
    }

    [Fact]
    public void Rise_across_a_layer()
    {
        var joint = new PasteJoint(31.4, 20, 50, 8.5, 1);
        var area = Length.FromMillimeters(31.4) * Length.FromMillimeters(20);
        var metres = Length.FromMicrometers(50).Meters;
        var conductivity = ThermalConductivity.FromWattsPerMeterKelvin(8.5).WattsPerMeterKelvin;
        Assert.Equal(metres / (conductivity * area.SquareMeters), joint.ResistanceKPerW, 12);
        var gap = new PadGap(Length.FromInches(0.05).Millimeters);
        Assert.Equal(
            Length.FromInches(0.05).Meters / (conductivity * area.SquareMeters) * (double)Power.FromMilliwatts(5_000).Watts,
            gap.Kelvin(area.SquareMillimeters, 8.5, 5),
            9
        );
    }

    /// <summary>Imperial gauges and sheets come out in the millimetres and sheets that the stores count in.</summary>
    [Fact]
    public void Sheets_by_area()
    {
        var lot = Stores.Shelves.Of(Stores.Shelves.Pad(1.5), 1, 3) with
        {
            WidthMm = Length.FromInches(4).Millimeters,
            HeightMm = Length.FromInches(4).Millimeters,
        };
        var need = Stores.Shelves.PadNeed(1.5, 4, Length.FromInches(1).Millimeters, Length.FromInches(0.8).Millimeters);
        // 4 × 0.8 of 16 square inches, a fifth lost in cutting.
        Assert.Equal(4 * 0.8 / 16 / 0.8, need.From(lot)!.Value, 9);
        Assert.Equal(Area.FromSquareInches(16).SquareMillimeters, lot.SheetMm2, 6);
    }
}
