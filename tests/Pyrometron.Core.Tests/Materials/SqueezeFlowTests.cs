using Pyrometron.Core.Materials;

namespace Pyrometron.Core.Tests.Materials;

/// <summary>Paste under a cooler against the closed forms of squeeze flow.</summary>
public sealed class SqueezeFlowTests
{
    /// <summary>
    /// A drop of fixed volume with no pressure at its rim: t = (3µV²/(8πF))·(1/h⁴ − 1/h0⁴), and its radius (Dienes and Klemm
    /// 1946;
    /// reference sheet, section 14.2). The drop begins a little higher than in the sheet, which takes no time that counts.
    /// </summary>
    [Theory]
    [InlineData("14.2-1", 31.4, 50, 200, 50, 40)]
    [InlineData("14.2-2", 31.4, 200, 200, 50, 40)]
    [InlineData("14.2-3", 50, 100, 100, 100, 36)]
    public void Drop(string id, double volume, double viscosity, double force, double micrometres, double chip)
    {
        var flow = SqueezeFlow.Laid(new(new(PastePattern.Dot, chip, chip), volume, viscosity, force, 1));
        flow.PressTo(micrometres / 1000);
        var expected = Reference.Value(id);
        Assert.InRange(flow.Seconds, expected * 0.95, expected * 1.05);
        var radius = Math.Sqrt(flow.Coverage * chip * chip / Math.PI);
        var exact = Math.Sqrt(volume / (Math.PI * micrometres / 1000));
        Assert.InRange(radius, exact * 0.985, exact * 1.015);
    }

    /// <summary>The thickness of the drop of 14.2-1 after 1, 5 and 60 s (reference sheet, section 14.3).</summary>
    [Theory]
    [InlineData("14.3-1", 1)]
    [InlineData("14.3-5", 5)]
    [InlineData("14.3-60", 60)]
    public void Drop_after_a_time(string id, double seconds)
    {
        var flow = SqueezeFlow.Laid(new(new(PastePattern.Dot, 56, 56), 31.4, 50, 200, 1));
        var expected = Reference.Value(id);
        flow.PressTo(expected / 1000);
        Assert.InRange(flow.Seconds, seconds * 0.93, seconds * 1.07);
    }

    /// <summary>
    /// A chip that is full from the start is Stefan's case: t = (6µJ/F)·(1/h² − 1/h0²) with J = 0.03515·a⁴, a quarter of the
    /// torsion constant 0.1406·a⁴ of a square bar, which solves the same equation (Timoshenko and Goodier, Theory of
    /// Elasticity; from memory).
    /// </summary>
    [Fact]
    public void Full_square()
    {
        const double a = 20;
        // A drop on a chip that it is wider than: full at once.
        var paste = new PastePressed(new(PastePattern.Dot, a, a), 9_500, 50, 100, 1);
        var flow = SqueezeFlow.Laid(paste);
        Assert.Equal(1, flow.Coverage, 9);
        flow.PressTo(0.2);
        var (seconds, squeezed) = (flow.Seconds, flow.SqueezedOutMm3);
        flow.PressTo(0.1);
        var expected = 6 * 50 * 0.03515 * Math.Pow(a, 4) / 100 * ((1 / (0.1 * 0.1)) - (1 / (0.2 * 0.2))) * 1e-6;
        Assert.InRange(flow.Seconds - seconds, expected * 0.98, expected * 1.02);
        Assert.Equal(a * a * 0.1, flow.SqueezedOutMm3 - squeezed, 0.1);
    }

    /// <summary>Whatever leaves the chip is missing on it.</summary>
    [Theory]
    [InlineData(PastePattern.Dot)]
    [InlineData(PastePattern.Line)]
    [InlineData(PastePattern.Cross)]
    [InlineData(PastePattern.Spread)]
    public void Paste_is_neither_made_nor_lost(PastePattern pattern)
    {
        var paste = new PastePressed(new(pattern, 30, 20), 40, 80, 150, 30);
        var flow = SqueezeFlow.Laid(paste);
        Assert.Equal(40, flow.VolumeMm3, 6);
        flow.PressTo(0.05);
        Assert.Equal(40, flow.VolumeMm3 + flow.SqueezedOutMm3, 0.04);
    }

    /// <summary>A thin spread covers from the start, a dot must flow; more force brings the same picture sooner.</summary>
    [Fact]
    public void What_is_spread_covers_at_once_and_force_only_hurries()
    {
        List<PasteFrame> Play(PastePattern pattern, double newtons) =>
            [.. SqueezeFlow.Frames(new(new(pattern, 20, 20), 24, 100, newtons, 30), 12, 1e9, CancellationToken.None)];
        var (spread, dot, harder) = (Play(PastePattern.Spread, 100), Play(PastePattern.Dot, 100), Play(PastePattern.Dot, 200));
        Assert.True(spread[0].Coverage > 0.7 && dot[0].Coverage < 0.2);
        Assert.True(dot[^1].Coverage > 0.95);
        Assert.Equal(dot[^1].Seconds / 2, harder[^1].Seconds, dot[^1].Seconds * 1e-3);
        Assert.Equal(dot[^1].Fill, harder[^1].Fill);
        Assert.True(dot.Zip(dot.Skip(1)).All(p => p.First.GapMicrometres > p.Second.GapMicrometres));
    }

    /// <summary>Less paste than the grains let be pressed out stays where it was laid.</summary>
    [Fact]
    public void Too_little_does_not_flow()
    {
        var frames = SqueezeFlow
            .Frames(new(new(PastePattern.Spread, 20, 20), 1, 100, 100, 30), 10, 1e9, CancellationToken.None)
            .ToList();
        Assert.True(Assert.Single(frames).Coverage < 0.1);
    }
}
