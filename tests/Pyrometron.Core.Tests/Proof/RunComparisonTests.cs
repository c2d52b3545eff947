using CsCheck;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Proof;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Tests.Proof;

public class RunComparisonTests
{
    private static Run RunOf(double? ambient, params (string Part, double Celsius)[] parts) =>
        new(
            "steady compute",
            20,
            ambient is { } a ? new Celsius(a) : null,
            new RunFan(FanMode.Fixed, 100),
            "stock",
            null,
            null,
            null,
            false,
            [.. parts.Select(p => new RunPart(p.Part, new Celsius(p.Celsius)))]
        );

    private static Verdict Judge(Run before, Run after, ServiceLevel service = ServiceLevel.Repaste) =>
        RunComparison.Evaluate(service, before, after);

    private static string[] Codes(Verdict v) => [.. v.Reasons.Select(r => r.Code)];

    /// <summary>JCGM 100:2008 (GUM), 5.1.2 and F.2.2.1, with the budget of one run each: 1.0, 0.29 and 0.5 K; k = 2.</summary>
    [Fact]
    public void Uncertainty_of_two_ordinary_runs_is_3_27_K()
    {
        var part = Judge(RunOf(25, ("memory", 96)), RunOf(25, ("memory", 88)), ServiceLevel.Repad).Parts.Single();
        Assert.Equal(-8, part.ChangeKelvin, 1e-9);
        Assert.Equal(3.27, part.UncertaintyKelvin, 0.005);
        Assert.Equal(VerdictOutcome.Improved, part.Outcome);
    }

    [Fact]
    public void Without_the_air_it_is_7_66_K()
    {
        var verdict = Judge(RunOf(null, ("core", 80)), RunOf(null, ("core", 73)));
        Assert.Equal(7.66, verdict.Parts.Single().UncertaintyKelvin, 0.005);
        Assert.Equal(VerdictOutcome.NoChange, verdict.Outcome);
        Assert.Contains("ambient-unknown", Codes(verdict));
    }

    /// <summary>Common practice, no source (T6): 51 °C at 25 °C and 56 °C at 29 °C with nothing wrong.</summary>
    [Fact]
    public void Air_conditioning_off_is_no_change()
    {
        var verdict = Judge(RunOf(25, ("core", 51)), RunOf(29, ("core", 56)));
        Assert.Equal(VerdictOutcome.NoChange, verdict.Outcome);
        Assert.Contains("ambient-differs", Codes(verdict));
        Assert.Equal(5, verdict.Parts[0].RawChangeCelsius, 1e-9);
    }

    /// <summary>Common practice, no source (T5): 85 °C before, 87 °C after: the small cooler is the limit.</summary>
    [Fact]
    public void A_cooler_at_its_limit_wins_nothing_and_is_told_so()
    {
        var verdict = Judge(RunOf(25, ("cpu", 85)), RunOf(25, ("cpu", 87)));
        Assert.Equal(VerdictOutcome.NoChange, verdict.Outcome);
        Assert.Contains(verdict.Advice, a => a.ToString().Contains("the cooler itself is the limit", StringComparison.Ordinal));
    }

    /// <summary>Common practice, no source (T4): repadding memory wins 8–10, repasting 5–10, a powdered laptop 17.</summary>
    [Theory]
    [InlineData("memory", 98, 89, true)]
    [InlineData("core", 83, 77, true)]
    [InlineData("gpu", 94, 77, true)]
    [InlineData("core", 80, 78, false)]
    public void Gains_of_the_trade_stand_out_and_two_degrees_do_not(string part, double before, double after, bool improved) =>
        Assert.Equal(
            improved ? VerdictOutcome.Improved : VerdictOutcome.NoChange,
            Judge(RunOf(24, (part, before)), RunOf(24, (part, after))).Outcome
        );

    [Fact]
    public void Core_worse_and_memory_better_after_a_repad_means_thick_pads()
    {
        var verdict = Judge(RunOf(25, ("core", 70), ("memory", 96)), RunOf(25, ("core", 79), ("memory", 86)), ServiceLevel.Repad);
        Assert.Equal(VerdictOutcome.Worse, verdict.Outcome);
        Assert.Contains(verdict.Advice, a => a.ToString().Contains("too thick", StringComparison.Ordinal));
        Assert.StartsWith("First ask about the room", verdict.Advice[0].ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public void All_parts_up_alike_is_the_room_before_it_is_the_joint() =>
        Assert.Contains(
            "room",
            Judge(RunOf(25, ("core", 70), ("memory", 80)), RunOf(25, ("core", 76), ("memory", 86))).Advice[0].ToString(),
            StringComparison.Ordinal
        );

    [Fact]
    public void Another_load_fan_mode_or_setting_cannot_be_compared()
    {
        var (before, after) = (RunOf(25, ("core", 80)), RunOf(25, ("core", 70)));
        foreach (
            var (changed, code) in ((Run, string)[])
                [
                    (after with { Workload = "light" }, "workload-differs"),
                    (after with { Settings = "undervolted" }, "settings-differ"),
                    (after with { Fan = new RunFan(FanMode.Auto) }, "fan-differs"),
                ]
        )
        {
            var verdict = Judge(before, changed);
            Assert.Equal(VerdictOutcome.NotComparable, verdict.Outcome);
            Assert.Contains(code, Codes(verdict));
        }
    }

    [Fact]
    public void What_can_be_brought_to_one_operating_point_is_compared_with_more_uncertainty()
    {
        var before = RunOf(25, ("core", 75)) with { PowerWatts = 200 };
        var after = RunOf(25, ("core", 85)) with { PowerWatts = 240, Settings = "raised" };
        var verdict = Judge(before, after);
        Assert.Equal(0, verdict.Parts[0].ChangeKelvin, 1e-9);
        Assert.True(verdict.Parts[0].UncertaintyKelvin > 2.8);
        Assert.Contains("power-differs", Codes(verdict));
    }

    [Fact]
    public void An_automatic_fan_that_slowed_down_has_won_something_too()
    {
        var auto = RunOf(25, ("core", 75)) with { Fan = new RunFan(FanMode.Auto, null, 2400) };
        var verdict = Judge(auto, auto with { Fan = new RunFan(FanMode.Auto, null, 1600) });
        Assert.True(verdict.Parts[0].ChangeKelvin < -3);
        Assert.Contains("fan-not-fixed", Codes(verdict));
    }

    [Fact]
    public void Throttled_after_is_never_improved_throttled_before_may_be()
    {
        var (before, after) = (RunOf(25, ("core", 95)), RunOf(25, ("core", 80)));
        Assert.Equal(VerdictOutcome.NoChange, Judge(before, after with { Throttled = true }).Outcome);
        Assert.Equal(VerdictOutcome.Improved, Judge(before with { Throttled = true }, after).Outcome);
    }

    [Fact]
    public void Short_or_unequal_runs_and_missing_parts_are_told()
    {
        var verdict = Judge(RunOf(25, ("core", 80), ("memory", 90)), RunOf(25, ("core", 79)) with { Minutes = 8 });
        Assert.Equal(
            ["part-missing", "duration-differs", "not-settled"],
            Codes(verdict).OrderByDescending(c => c == "part-missing")
        );
        Assert.Equal(VerdictOutcome.NotComparable, Judge(RunOf(25, ("core", 80)), RunOf(25, ("cpu", 80))).Outcome);
    }

    [Fact]
    public void Percent_of_clock_and_score_are_not_rounded_in_anyones_favour() =>
        Assert.Contains(
            Judge(RunOf(25, ("core", 80)) with { ClockMhz = 1780 }, RunOf(25, ("core", 70)) with { ClockMhz = 2011 }).Advice,
            a => a.ToString().Contains("+13.0 %", StringComparison.Ordinal)
        );

    [Fact]
    public void Swapping_the_runs_turns_the_sign_and_keeps_the_uncertainty() =>
        Gen.Double[30, 100]
            .Select(Gen.Double[30, 100], Gen.Double[10, 35], Gen.Double[10, 35])
            .Sample(
                (c1, c2, a1, a2) =>
                {
                    var (x, y) = (RunOf(a1, ("core", c1)), RunOf(a2, ("core", c2)));
                    var (there, back) = (Judge(x, y).Parts[0], Judge(y, x).Parts[0]);
                    return Math.Abs(there.ChangeKelvin + back.ChangeKelvin) < 1e-9
                        && Math.Abs(there.UncertaintyKelvin - back.UncertaintyKelvin) < 1e-9;
                }
            );

    /// <summary>JEDEC JEP122; constants of SI 2019.</summary>
    [Theory]
    [InlineData(0.7, 55, 125)]
    [InlineData(0.7, 60, 70)]
    [InlineData(0.5, 55, 125)]
    public void Heat_ages_by_Arrhenius(double energy, int from, int to) =>
        Assert.Equal(
            1,
            Core.Forecast.Ageing.Acceleration(new(from), new(to), energy)
                / Reference.Value(FormattableString.Invariant($"9.1-{energy}-{from}-{to}")),
            5e-5
        );

    /// <summary>
    /// Incropera &amp; DeWitt, ch. 5 (lumped capacitance): a run of two time constants is extrapolated and said to be unsettled.
    /// </summary>
    [Fact]
    public void A_short_run_is_extrapolated_and_not_called_settled()
    {
        double[] Minutes(int count) => [.. Enumerable.Range(0, count).Select(i => i / 4.0)];
        double[] Celsius(double[] at) => [.. at.Select(t => Math.Round(32 + 42 * (1 - Math.Exp(-t / 3.0))))];
        var (brief, whole) = (Minutes(24), Minutes(120));
        var early = SettledValue.Of(brief, Celsius(brief))!;
        Assert.False(early.IsSettled);
        Assert.InRange(early.SettledC, 72, 76);
        Assert.True(early.MaximumC < 69);
        var late = SettledValue.Of(whole, Celsius(whole))!;
        Assert.True(late.IsSettled && late.ShareReached > 0.99 && late.UncertaintyKelvin < early.UncertaintyKelvin);
        Assert.Equal(74, late.SettledC, 0.3);
        Assert.Null(SettledValue.Of([0, 1, 2], [1, 2, 3]));
    }
}
