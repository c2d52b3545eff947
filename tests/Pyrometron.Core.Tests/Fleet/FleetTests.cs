using Pyrometron.Core.Cooling;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Tests.Fleet;

public class FleetTests
{
    private static readonly Asset Card = new(
        "GC-1",
        AssetKind.GraphicsCard,
        "Sorrel",
        "Z",
        null,
        24,
        new(2023, 1, 1),
        new(2026, 1, 1),
        [new("core", new(90), JointMaterial.Paste)],
        [new(new(2024, 1, 1), ServiceLevel.Repaste), new(new(2025, 1, 1), ServiceLevel.DustOut)]
    );

    [Fact]
    public void Words_are_those_of_the_files()
    {
        Assert.Equal("graphics-card", Words.Of(AssetKind.GraphicsCard));
        Assert.Equal("cooler-limited", Words.Of(Cause.CoolerLimited));
        Assert.Equal("no-change", Words.Of(VerdictOutcome.NoChange));
        Assert.True(Words.TryRead<ServiceLevel>("blow-out", out var level) && level == ServiceLevel.BlowOut);
        Assert.False(Words.TryRead<ServiceLevel>("Blow-Out", out _));
        Assert.False(Words.TryRead<ServiceLevel>("0", out _));
    }

    [Fact]
    public void A_difference_is_no_temperature()
    {
        Assert.Equal(new KelvinDifference(5), new Celsius(30) - new Celsius(25));
        Assert.Equal(new Celsius(30), new Celsius(25) + new KelvinDifference(5));
        Assert.Equal(298.15, new Celsius(25).ToAbsoluteKelvin(), 1e-12);
    }

    /// <summary>Common practice, no source: a dust-out does not renew the paste; a lifted cooler always gets new paste.</summary>
    [Fact]
    public void Services_renew_what_they_open()
    {
        Assert.Equal(new DateOnly(2025, 1, 1), Card.RenewedOn(Cause.Dust, new(2026, 1, 1)));
        Assert.Equal(new DateOnly(2024, 1, 1), Card.RenewedOn(Cause.Paste, new(2026, 1, 1)));
        Assert.Equal(new DateOnly(2023, 1, 1), Card.RenewedOn(Cause.Pads, new(2026, 1, 1)));
        Assert.Equal(new DateOnly(2023, 1, 1), Card.RenewedOn(Cause.Dust, new(2023, 6, 1)));
        Assert.All(
            [ServiceLevel.Repaste, ServiceLevel.Repad],
            l => Assert.True(new ServiceDone(new(2026, 1, 1), l).Renews(Cause.Paste) && ServiceEffects.LiftsCooler(l))
        );
        Assert.False(new ServiceDone(new(2026, 1, 1), ServiceLevel.BlowOut).Renews(Cause.Dust));
    }

    [Fact]
    public void Warranty_includes_its_last_day()
    {
        Assert.True(Card.UnderWarranty(new(2026, 1, 1)));
        Assert.False(Card.UnderWarranty(new(2026, 1, 2)));
    }

    /// <summary>Heat-sink law θ ∝ n^−0.8 (Incropera &amp; DeWitt, ch. 7) and pressure by ISO 2533:1975.</summary>
    [Fact]
    public void Fan_law_and_thin_air()
    {
        Assert.Equal(Reference.Value("7.4-0.8-0.8-R"), FanLaw.RelativeResistance(0.8, 1), 2e-6);
        Assert.Equal(Reference.Value("8.1-2000-p") / 101325, FanLaw.PressureRatio(2000), 1e-6);
        Assert.Equal(1, FanLaw.AltitudeFactor(0), 1e-12);
        Assert.Equal(FanLaw.RelativeResistance(0.15, 1), FanLaw.RelativeResistance(0, 1), 1e-12);
    }
}
