using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Simulation;

namespace Pyrometron.Core.Tests.Judging;

/// <summary>What a warranty means for the work advised. Common practice, no source.</summary>
public class WarrantyAdviceTests
{
    private static Assessment Judge(int daysLeft, WarrantySchool school, double kelvin = 9) =>
        new Hall()
            .WithHealthy(4)
            .With(
                "MINE",
                [new Fault(Cause.Pads, Hall.Now - 300, Hall.Now - 10, kelvin)],
                change: m => m with { Asset = m.Asset with { WarrantyUntil = Hall.Today.AddDays(daysLeft) } }
            )
            .Judge(policy: JudgementPolicy.Default with { Warranty = school })
            .ByTag["MINE"];

    [Theory]
    [InlineData(WarrantySchool.AirOnly)]
    [InlineData(WarrantySchool.AskFirst)]
    public void Its_end_near_is_waited_for_with_the_date_from_which_it_may_be_opened(WarrantySchool school)
    {
        var advice = Judge(30, school).Warranty!;
        Assert.True(advice.Wait);
        Assert.Equal(Hall.Today.AddDays(31), advice.OpenableFrom);
        Assert.Contains("wait for that", advice.Says.ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public void Its_end_far_away_is_not_and_after_it_there_is_nothing_to_say()
    {
        var far = Judge(WarrantyAdvice.WaitDays, WarrantySchool.AskFirst).Warranty!;
        Assert.False(far.Wait);
        Assert.Contains("asked before it is opened", far.Says.ToString(), StringComparison.Ordinal);
        Assert.Null(Judge(-1, WarrantySchool.AskFirst).Warranty);
        Assert.Null(Judge(30, WarrantySchool.OpenWhereAllowed).Warranty);
    }

    [Fact]
    public void What_is_pressing_now_does_not_wait()
    {
        var a = Judge(30, WarrantySchool.AskFirst, kelvin: 30);
        Assert.Equal(Urgency.Now, a.Urgency);
        Assert.False(a.Warranty!.Wait);
    }
}
