using Pyrometron.Core.Proof;
using Pyrometron.Devices;

namespace Pyrometron.Server.Tests;

/// <summary>The stand-in for a probe: what the program reads from it must be what it was told to be.</summary>
public class BenchProbeTests
{
    private static readonly Dictionary<string, double> Rises = new() { ["core"] = 42, ["memory"] = 55 };

    private static (double[] Minutes, double[] Celsius) Run(BenchProbe probe, string part, double minutes)
    {
        var samples = Enumerable.Range(0, (int)(minutes * 6)).Select(i => probe.At(i / 6.0)).ToArray();
        return ([.. samples.Select(s => s.Minute)], [.. samples.Select(s => s.Celsius[part])]);
    }

    /// <summary>Incropera &amp; DeWitt, ch. 5 (lumped capacitance), twice: the fit finds what the probe settles at.</summary>
    [Theory]
    [InlineData("core", 42)]
    [InlineData("memory", 55)]
    public void A_run_of_it_settles_where_it_was_told_to(string part, double rise)
    {
        var (minutes, celsius) = Run(new BenchProbe(Rises, 24, 228, 5), part, 25);
        var settled = SettledValue.Of(minutes, celsius)!;
        Assert.Equal(24 + rise, settled.SettledC, 0.5);
        Assert.True(settled.IsSettled);
        Assert.InRange(celsius[0], 24 - 1, 24 + 2);
    }

    [Fact]
    public void After_five_minutes_it_is_still_rising_and_said_to_be()
    {
        var (minutes, celsius) = Run(new BenchProbe(Rises, 24, 228, 5), "memory", 5);
        var settled = SettledValue.Of(minutes, celsius)!;
        Assert.False(settled.IsSettled);
        Assert.InRange(settled.SettledC, 24 + 55 - 4, 24 + 55 + 4);
    }

    [Fact]
    public void The_same_seed_gives_the_same_run_and_its_sensor_reads_in_steps()
    {
        var (_, one) = Run(new BenchProbe(Rises, 24, 228, 9), "core", 10);
        Assert.Equal(one, Run(new BenchProbe(Rises, 24, 228, 9), "core", 10).Celsius);
        Assert.NotEqual(one, Run(new BenchProbe(Rises, 24, 228, 10), "core", 10).Celsius);
        Assert.All(one, c => Assert.Equal(0, c * 2 % 1, 1e-9));
    }
}
