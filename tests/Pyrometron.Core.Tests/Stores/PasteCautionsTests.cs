using Pyrometron.Core.Stores;

namespace Pyrometron.Core.Tests.Stores;

/// <summary>Where a paste must not be used. Common practice, no source.</summary>
public sealed class PasteCautionsTests
{
    private static readonly ProductFacts LiquidMetal = new(38, 6.4, Nature: PasteNature.LiquidMetal);

    private static bool Forbids(ProductFacts paste, bool open, bool? aluminium, int redone = 0) =>
        PasteCautions.Of(paste, new PasteUse(open, aluminium, redone)).Any(c => c.Forbids);

    [Theory]
    [InlineData(PasteNature.Conducting, true, null, true)]
    [InlineData(PasteNature.Conducting, false, null, false)]
    [InlineData(PasteNature.LiquidMetal, true, false, true)]
    [InlineData(PasteNature.LiquidMetal, false, true, true)]
    [InlineData(PasteNature.LiquidMetal, false, null, false)]
    [InlineData(PasteNature.Capacitive, true, true, false)]
    [InlineData(PasteNature.NonConducting, true, true, false)]
    public void By_its_nature(PasteNature nature, bool open, bool? aluminium, bool forbidden) =>
        Assert.Equal(forbidden, Forbids(new(Nature: nature), open, aluminium));

    [Theory]
    [InlineData(2, false)]
    [InlineData(3, true)]
    public void What_scratches_is_not_for_a_machine_that_is_redone_often(int times, bool forbidden) =>
        Assert.Equal(forbidden, Forbids(new(Abrasive: true), false, false, times));

    [Fact]
    public void What_forbids_stands_first_and_nothing_is_said_twice()
    {
        var cautions = PasteCautions.Of(LiquidMetal with { NeedsWarming = true, NotOnAluminium = true }, new(true, null, 0));
        Assert.True(cautions[0].Forbids);
        Assert.Equal(3, cautions.Count);
        Assert.Empty(PasteCautions.Of(new(Nature: PasteNature.NonConducting), new(true, true, 9)));
    }
}
