using CsCheck;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Proof;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Tests.Proof;

/// <summary>
/// Runs that no machine makes, and those that only a broken one does: nothing is scaled further than the method bears.
/// </summary>
public class EdgeOfPhysicsTests
{
    private static Run Of(
        double celsius,
        double? watts = null,
        RunFan? fan = null,
        double? air = 25,
        string settings = "stock"
    ) =>
        new(
            "steady",
            20,
            air is { } a ? new Celsius(a) : null,
            fan ?? new RunFan(FanMode.Fixed, 100, null),
            settings,
            watts,
            null,
            null,
            false,
            [new RunPart("core", new Celsius(celsius), 1)]
        );

    private static Verdict Judge(Run before, Run after) => RunComparison.Evaluate(ServiceLevel.DustOut, before, after);

    [Theory]
    [InlineData(250.0, 0.0)]
    [InlineData(0.0, 250.0)]
    [InlineData(250.0, 1e-300)]
    [InlineData(1e-300, 250.0)]
    [InlineData(250.0, 100.0)]
    public void Heat_too_far_apart_is_told_and_not_compared(double before, double after)
    {
        var verdict = Judge(Of(85, before), Of(45, after));
        Assert.Equal(VerdictOutcome.NotComparable, verdict.Outcome);
        Assert.Contains(verdict.Reasons, r => r.Code == "power-differs");
        Assert.All(verdict.Parts, p => Assert.True(double.IsFinite(p.ChangeKelvin) && double.IsFinite(p.UncertaintyKelvin)));
        // Nor does such a power stand in for other settings.
        Assert.Equal(VerdictOutcome.NotComparable, Judge(Of(85, before), Of(45, after, settings: "eco")).Outcome);
    }

    [Fact]
    public void Heat_within_a_factor_of_two_is_brought_to_one()
    {
        var verdict = Judge(Of(85, 250), Of(55, 150));
        // 30 K at 150 W are 50 K at 250 W: 10 K less than 60.
        Assert.Equal(-10, verdict.Parts[0].ChangeKelvin, 9);
        Assert.NotEqual(VerdictOutcome.NotComparable, verdict.Outcome);
    }

    [Fact]
    public void A_fan_from_standing_is_neither_scaled_nor_trusted()
    {
        var (stood, turns) = (new RunFan(FanMode.Auto, null, 0), new RunFan(FanMode.Auto, null, 1800));
        foreach (var (before, after) in new[] { (stood, turns), (turns, stood) })
        {
            var verdict = Judge(Of(85, fan: before), Of(60, fan: after));
            Assert.Equal(VerdictOutcome.NotComparable, verdict.Outcome);
            Assert.Equal(-25, verdict.Parts[0].ChangeKelvin, 9);
            Assert.Contains(verdict.Reasons, r => r.Code == "fan-differs");
        }
        // At one fixed command a changed fan has won what it has won.
        var swapped = Judge(Of(95, fan: new(FanMode.Fixed, 100, 0)), Of(60, fan: new(FanMode.Fixed, 100, 1800)));
        Assert.Equal((VerdictOutcome.Improved, -35.0), (swapped.Outcome, swapped.Parts[0].ChangeKelvin));
    }

    [Fact]
    public void Speeds_beyond_a_factor_of_two_are_not_brought_together()
    {
        var verdict = Judge(Of(85, fan: new(FanMode.Fixed, 30, 600)), Of(60, fan: new(FanMode.Fixed, 100, 1900)));
        Assert.Equal((VerdictOutcome.NotComparable, -25.0), (verdict.Outcome, verdict.Parts[0].ChangeKelvin));
        Assert.Equal(2, verdict.Reasons.Count(r => r.Code == "fan-differs"));
    }

    [Fact]
    public void A_part_below_its_air_is_left_out_with_a_reason()
    {
        var verdict = Judge(Of(20), Of(70));
        Assert.Equal(VerdictOutcome.NotComparable, verdict.Outcome);
        var reason = Assert.Single(verdict.Reasons, r => r.Code == "below-air");
        Assert.Equal(
            "Core read 20 °C before, below the air of 25 °C: its sensor or the air is wrong, and it is left out.",
            reason.Says.ToString()
        );
    }

    /// <summary>
    /// Whatever two runs say: finite figures, and no rise scaled by more than two in heat and by what two in speed make of it.
    /// </summary>
    [Fact]
    public void Nothing_is_scaled_beyond_what_the_method_bears() =>
        Gen.Select(
                Gen.Double[-50, 200],
                Gen.Double[-50, 200],
                Gen.OneOf(Gen.Const(0.0), Gen.Double[0, 1e6], Gen.Const(1e-300)),
                Gen.OneOf(Gen.Const(0.0), Gen.Double[0, 1e6], Gen.Const(1e-300)),
                Gen.Double[0, 1e5],
                Gen.Double[0, 1e5]
            )
            .Sample(
                (b, a, wb, wa, rb, ra) =>
                {
                    var part = Judge(
                        Of(b, wb, new RunFan(FanMode.Auto, null, Math.Floor(rb))),
                        Of(a, wa, new RunFan(FanMode.Auto, null, Math.Floor(ra)))
                    ).Parts[0];
                    var most = Math.Abs(b - 25) + Math.Abs(a - 25) * 2 * 1.75;
                    Assert.True(Math.Abs(part.ChangeKelvin) <= most + 1e-9 && double.IsFinite(part.UncertaintyKelvin));
                }
            );
}
