using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Readings;
using Pyrometron.Core.Simulation;

namespace Pyrometron.Core.Tests.Judging;

/// <summary>What a machine's judgement makes of work that changes its cooling for good.</summary>
public class ChangedCoolingTests
{
    private const int DaysAgo = 150;

    private static ServiceDone Done(ServiceLevel level) => new(Hall.Today.AddDays(-DaysAgo), level);

    /// <summary>From the day of the work on, every part reads so much of its rise less.</summary>
    private static Func<Reading, Reading> LessRise(double share, double air = 26) =>
        r =>
            r.UnixMilliseconds < (Hall.Now - DaysAgo) * 86_400_000
                ? r
                : r with
                {
                    PartsC = [.. r.PartsC.Select(c => c - share * (c - air))],
                };

    private static Assessment Judge(
        ServiceLevel level,
        double share,
        Fault[] faults,
        Func<SimulatedMachine, SimulatedMachine>? like = null
    )
    {
        var hall = new Hall().WithHealthy(6).With("MINE", faults, [Done(level)], like);
        hall.Distorted["MINE"] = LessRise(share);
        return hall.Judge().ByTag["MINE"];
    }

    [Theory]
    [InlineData(ServiceLevel.Stand, 0.1)]
    [InlineData(ServiceLevel.Filter, -0.08)]
    public void A_stand_or_a_filter_is_neither_wear_nor_a_cure_of_it(ServiceLevel level, double share)
    {
        var healthy = Judge(level, share, []);
        Assert.Equal(Urgency.Fine, healthy.Urgency);
        Assert.InRange(healthy.DriftKelvin!.Value, 0, 2.5);
        // Dust that gathered before and since stays dust: the stand has not taken it away.
        var dusty = Judge(level, share, [new Fault(Cause.Dust, Hall.Now - 300, Hall.Now - 10, 12)]);
        Assert.Equal(Cause.Dust, dusty.Cause);
        Assert.InRange(dusty.DriftKelvin!.Value, 8, 15);
    }

    [Fact]
    public void Without_the_entry_the_filter_would_have_been_taken_for_wear()
    {
        var hall = new Hall().WithHealthy(6).With("MINE", []);
        hall.Distorted["MINE"] = LessRise(-0.15);
        var told = Judge(ServiceLevel.Filter, -0.15, []);
        Assert.True(hall.Judge().ByTag["MINE"].DriftKelvin > told.DriftKelvin + 2);
    }

    [Fact]
    public void Another_cooler_begins_a_new_baseline_and_is_compared_with_its_like_alone()
    {
        // Hard pads before; the new cooler came with new ones.
        var a = Judge(ServiceLevel.CoolerSwap, 0.3, [new Fault(Cause.Pads, Hall.Now - 340, Hall.Now - DaysAgo - 1, 10)]);
        Assert.Equal(Urgency.Fine, a.Urgency);
        Assert.InRange(a.DriftKelvin!.Value, 0, 2.5);
        Assert.Contains(
            a.Sentences,
            s => s.ToString().Contains("what was measured before does not count", StringComparison.Ordinal)
        );
        Assert.Null(a.Siblings);
        Assert.Equal("Sorrel + cooler-swap", a.Asset.Build);
    }

    [Fact]
    public void Just_after_it_there_is_too_little_to_say()
    {
        var hall = new Hall().WithHealthy(6).With("MINE", [], [Hall.ThisEvening(ServiceLevel.CoolerSwap)]);
        var a = hall.Judge().ByTag["MINE"];
        Assert.Equal(Urgency.Unknown, a.Urgency);
        Assert.Contains("cooler", a.Reason.ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public void Undervolting_without_measured_power_is_less_heat_not_a_cure()
    {
        static SimulatedMachine Blind(SimulatedMachine m) => m with { Instruments = m.Instruments with { Power = false } };
        var a = Judge(ServiceLevel.Undervolt, 0.15, [new Fault(Cause.Dust, Hall.Now - 300, Hall.Now - 10, 12)], Blind);
        Assert.Equal(Cause.Dust, a.Cause);
        Assert.InRange(a.DriftKelvin!.Value, 7, 15);
    }
}
