using Pyrometron.Core.Proof;

namespace Pyrometron.Core.Tests.Proof;

/// <summary>A run read from a sensor log: never the last sample, and what went wrong is seen.</summary>
public class RunLogTests
{
    private static double[] Minutes(double until, double every = 0.25) =>
        [.. Enumerable.Range(0, (int)(until / every) + 1).Select(i => i * every)];

    private static double[] Rise(double[] minutes, double settled, double tau, Random random) =>
        [.. minutes.Select(t => Math.Round(settled - (settled - 30) * Math.Exp(-t / tau) + random.NextDouble() - 0.5))];

    private static RunReading Read(
        double minutes,
        Func<double, double>? clock = null,
        Func<double, double>? power = null,
        double tau = 4
    )
    {
        var t = Minutes(minutes);
        return RunReading.Of(
            new RunLog(
                t,
                [("core", Rise(t, 82, tau, new Random(1)))],
                [.. t.Select(_ => 24.5)],
                power is null ? null : [.. t.Select(power)],
                clock is null ? null : [.. t.Select(clock)]
            )
        )!;
    }

    [Fact]
    public void A_long_run_settles_where_the_curve_does()
    {
        var run = Read(25);
        var core = run.Parts.Single().Settled;
        Assert.Equal(82, core.SettledC, 0.4);
        Assert.Equal(4, core.TimeConstantMinutes, 0.3);
        Assert.True(core.IsSettled);
        Assert.InRange(core.ShareReached, 0.99, 1);
        Assert.Equal((25.0, 24.5), (run.Minutes, run.AmbientC));
        Assert.Null(run.StoppedAt ?? run.ThrottledFrom);
        Assert.InRange(run.Parts[0].Curve.Count, 50, 241);
    }

    /// <summary>
    /// Common practice, no source: three time constants for 95 % of the rise. A run of one and a half is no result.
    /// </summary>
    [Fact]
    public void A_run_that_stopped_too_early_says_so_and_how_unsure_its_end_is()
    {
        var core = Read(6).Parts.Single().Settled;
        Assert.False(core.IsSettled);
        Assert.InRange(core.ShareReached, 0.7, 0.85);
        Assert.True(core.SettledC > core.MaximumC + 5, $"{core.SettledC} beyond {core.MaximumC}");
        Assert.True(core.UncertaintyKelvin > 0.2);
    }

    [Fact]
    public void A_clock_that_falls_while_it_is_hot_is_throttling_and_a_dip_is_not()
    {
        Assert.Equal(12, Read(25, clock: t => t < 12 ? 1850 : 1500).ThrottledFrom!.Value, 0.3);
        Assert.Null(Read(25, clock: t => t is > 12 and < 12.6 ? 1500 : 1850).ThrottledFrom);
        Assert.Null(Read(25, clock: t => t < 1 ? 1500 : 1850).ThrottledFrom);
    }

    [Fact]
    public void A_load_that_breaks_off_ends_the_run_there()
    {
        var run = Read(30, power: t => t < 20 ? 228 : 30);
        Assert.Equal(20, run.StoppedAt!.Value, 0.3);
        Assert.InRange(run.Minutes, 19.5, 20);
        Assert.Equal(228, run.PowerWatts);
    }

    [Fact]
    public void A_log_that_goes_silent_and_comes_back_broke_off()
    {
        var t = Minutes(12).Concat(Minutes(5).Select(m => m + 31)).ToArray();
        var run = RunReading.Of(new RunLog(t, [("core", Rise(t, 82, 4, new Random(2)))]))!;
        Assert.Equal(31, run.StoppedAt!.Value, 0.3);
        Assert.Equal(12, run.Minutes, 0.3);
    }

    [Fact]
    public void A_part_that_was_not_measured_is_left_out_and_too_few_samples_are_none()
    {
        var t = Minutes(20);
        var run = RunReading.Of(
            new RunLog(t, [("core", Rise(t, 82, 4, new Random(3))), ("memory", [.. t.Select(_ => double.NaN)])])
        )!;
        Assert.Equal("core", Assert.Single(run.Parts).Part);
        Assert.Null(RunReading.Of(new RunLog([0, 1, 2], [("core", [30, 40, 50])])));
    }
}
