using Pyrometron.Core.Materials;
using Pyrometron.Core.Stores;
using static Pyrometron.Core.Tests.Stores.Shelves;

namespace Pyrometron.Core.Tests.Stores;

/// <summary>The exact pad, else a thinner one that still touches, never a thicker one.</summary>
public sealed class PadAdviceTests
{
    private static PadAdvised Of(double gap, params double[] inStock) =>
        PadAdvice.Of(
            new PadPlace("memory", 12 * 14, GapReading.Gap, gap, 5, 3),
            [.. inStock.Select(mm => new PadOffer(Pad(mm), true))]
        );

    [Theory]
    [InlineData(1.2, new[] { 1.0, 1.5, 2.0 }, PadAdviceCode.Take, 1.5)]
    [InlineData(1.9, new[] { 1.5, 2.0 }, PadAdviceCode.Thinner, 2.0)]
    [InlineData(1.2, new[] { 1.0, 2.0 }, PadAdviceCode.Wait, null)]
    [InlineData(2.0, new[] { 2.0, 3.0 }, PadAdviceCode.Putty, null)]
    [InlineData(1.2, new double[0], PadAdviceCode.Wait, null)]
    public void Which(double gap, double[] inStock, PadAdviceCode code, double? take)
    {
        var advised = Of(gap, inStock);
        Assert.Equal((code, take), (advised.Code, advised.Take?.Facts.ThicknessMm));
    }

    /// <summary>Whatever lies on the shelf, nothing is laid that does not touch or lifts the cooler.</summary>
    [Fact]
    public void Never_a_thicker_one_and_never_one_that_does_not_touch()
    {
        for (var gap = 0.3; gap < 3.2; gap += 0.05)
            foreach (
                var stock in (double[][])
                    [
                        [0.5],
                        [3],
                        [0.5, 3],
                        [1, 2],
                        [0.5, 1, 1.5, 2, 3],
                    ]
            )
                if (Of(gap, stock) is { Take: { } take } advised)
                    Assert.True(advised.Gap.Contact(take.Facts.ThicknessMm!.Value) is PadContact.Good or PadContact.Light);
    }

    [Fact]
    public void Of_two_that_fit_the_one_nearest_to_a_fifth() =>
        Assert.Equal(1.5, Of(1.2, 1.7, 1.5, 1.35).Take!.Facts.ThicknessMm);

    [Fact]
    public void Kelvins_against_the_old_pads_and_none_without_watts()
    {
        var advised = Of(1.2, 1.5);
        Assert.InRange(advised.OldKelvin!.Value - advised.Kelvin!.Value, 8, 10);
        var unknown = PadAdvice.Of(new PadPlace("vrm", 100, GapReading.Gap, 1.2), [new PadOffer(Pad(1.5), true)]);
        Assert.Equal((null, null), (unknown.Kelvin, unknown.OldKelvin));
    }

    [Fact]
    public void A_reading_at_an_edge_says_that_the_gap_was_not_measured()
    {
        var advised = PadAdvice.Of(new PadPlace("memory", 168, GapReading.Edge, 1.55), [new PadOffer(Pad(1.5), true)]);
        Assert.Equal(1.5, advised.Take!.Facts.ThicknessMm);
        Assert.Contains("not measured", advised.Says.ToString(), StringComparison.Ordinal);
    }

    /// <summary>1.5 mm in a gap of 1.2 mm is pressed by a fifth: too far for a pad whose maker allows 15 %.</summary>
    [Theory]
    [InlineData(0.15, PadAdviceCode.Wait)]
    [InlineData(0.25, PadAdviceCode.Take)]
    public void What_its_maker_allows_narrows_the_band(double allowed, PadAdviceCode code)
    {
        var pad = Pad(1.5);
        var stiff = pad with { Facts = pad.Facts with { MostCompression = allowed } };
        var advised = PadAdvice.Of(new PadPlace("memory", 168, GapReading.Gap, 1.2), [new PadOffer(stiff, true)]);
        Assert.Equal(code, advised.Code);
        Assert.Equal(code == PadAdviceCode.Take, advised.Says.ToString().Contains("maker allows 25", StringComparison.Ordinal));
    }

    [Fact]
    public void Several_thicknesses_of_one_cooler_are_told_together()
    {
        Assert.NotNull(PadAdvice.Mixed([Of(1.2, 1.5), Of(0.8, 1.0)]));
        Assert.Null(PadAdvice.Mixed([Of(1.2, 1.5), Of(1.25, 1.5)]));
    }
}
