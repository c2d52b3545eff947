using Pyrometron.Core.Materials;

namespace Pyrometron.Core.Tests.Materials;

/// <summary>Pads in gaps: compression (t − gap)/t, good between 10 and 30 % (common practice, no source).</summary>
public sealed class PadGapTests
{
    [Theory]
    [InlineData(1.2, 1.0, PadContact.None)]
    [InlineData(1.2, 1.2, PadContact.None)]
    [InlineData(1.2, 1.3, PadContact.Light)]
    [InlineData(1.35, 1.5, PadContact.Good)]
    [InlineData(1.2, 1.5, PadContact.Good)]
    [InlineData(1.4, 2.0, PadContact.Good)]
    [InlineData(1.2, 2.0, PadContact.TooThick)]
    public void Contact(double gap, double pad, PadContact expected) => Assert.Equal(expected, new PadGap(gap).Contact(pad));

    [Fact]
    public void Band_ends_where_contact_changes()
    {
        var gap = new PadGap(1.26);
        var (from, to) = gap.Band;
        Assert.Equal(PadContact.Good, gap.Contact(from));
        Assert.Equal(PadContact.Good, gap.Contact(to));
        Assert.Equal(PadContact.Light, gap.Contact(from - 1e-6));
        Assert.Equal(PadContact.TooThick, gap.Contact(to + 1e-6));
    }

    /// <summary>An edge that nothing pressed tells what was sold, an imprint the gap.</summary>
    [Fact]
    public void Edge_tells_the_sold_thickness_and_imprint_the_gap()
    {
        Assert.Equal(1.6, PadGap.Of(GapReading.Edge, 1.9).GapMm, 9);
        Assert.Equal(1.9, PadGap.Of(GapReading.Imprint, 1.9).GapMm);
        Assert.Equal(PadContact.Good, PadGap.Of(GapReading.Edge, 1.9).Contact(2.0));
    }

    /// <summary>R = t/(k·A) (reference sheet, section 6.2: 50 µm, 8.5 W/(m·K), 628 mm²).</summary>
    [Fact]
    public void Kelvin_is_gap_over_conductivity_and_area() =>
        Assert.Equal(Reference.Value("6.2-dT"), new PadGap(0.05).Kelvin(628, 8.5, 250), 5e-6);

    /// <summary>
    /// Repadding memory wins 8 to 10 K (common practice, no source): pads of 3 W/(m·K) changed for ones of 12.8 in a gap of
    /// 1.2 mm,
    /// at the 5 W of one memory chip of 12 × 14 mm.
    /// </summary>
    [Fact]
    public void Better_pads_win_what_people_report()
    {
        var gap = new PadGap(1.2);
        Assert.InRange(gap.Kelvin(12 * 14, 3, 5) - gap.Kelvin(12 * 14, 12.8, 5), 8, 10);
    }
}
