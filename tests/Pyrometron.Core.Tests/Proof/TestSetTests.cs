using CsCheck;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Proof;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Tests.Proof;

/// <summary>Several loads, fans and repeats before and after, and what a careful person would say of them.</summary>
public class TestSetTests
{
    private static Run RunOf(string load, double core, double air = 25, FanMode fan = FanMode.Fixed, double? percent = 60) =>
        new(
            load,
            20,
            new Celsius(air),
            new RunFan(fan, fan == FanMode.Fixed ? percent : null),
            "stock",
            null,
            null,
            null,
            false,
            [new RunPart("core", new Celsius(core))]
        );

    private static Run With(Run run, params (string Part, double Celsius)[] parts) =>
        run with
        {
            Parts = [.. parts.Select(p => new RunPart(p.Part, new Celsius(p.Celsius)))],
        };

    private static Verdict Judge(
        Run[] before,
        Run[] after,
        ServiceLevel service = ServiceLevel.Repaste,
        TestedMachine? of = null
    ) => TestSet.Judge(service, before, after, of);

    private static bool Says(Verdict v, string words) =>
        v.Advice.Any(a => a.ToString().Contains(words, StringComparison.OrdinalIgnoreCase));

    [Fact]
    public void Like_is_paired_with_like_whatever_the_order_and_a_range_stands_over_the_loads()
    {
        var verdict = Judge([RunOf("game", 80), RunOf("render", 85)], [RunOf("Render ", 75), RunOf("game", 72)]);
        Assert.Equal(2, verdict.Pairs.Count);
        Assert.All(verdict.Pairs, p => Assert.True(p.Alike));
        var core = Assert.Single(verdict.Parts);
        Assert.Equal(VerdictOutcome.Improved, core.Outcome);
        Assert.Equal((-10, -8), (core.OverPairs!.Low, core.OverPairs.High));
        Assert.Contains("core by 8 K to 10 K (mean ± 2.3 K)", verdict.Says!.ToString(), StringComparison.Ordinal);
    }

    /// <summary>
    /// JCGM 100:2008 (GUM), 5.1.2, of two pairs that agree: U of the mean is U of one over √2. One pair: 3.27 K.
    /// </summary>
    [Fact]
    public void Two_pairs_that_agree_are_surer_than_one_by_the_root_of_two()
    {
        var verdict = Judge([RunOf("game", 80), RunOf("render", 85)], [RunOf("game", 71), RunOf("render", 76)]);
        Assert.Equal(3.27 / Math.Sqrt(2), verdict.Parts[0].UncertaintyKelvin, 0.005);
        var differ = Judge([RunOf("game", 80), RunOf("render", 85)], [RunOf("game", 78), RunOf("render", 70)]);
        Assert.True(differ.Parts[0].UncertaintyKelvin > 3.27, "loads that differ by more than each allows are less sure");
    }

    [Fact]
    public void Unlike_runs_are_paired_only_where_the_calculation_brings_them_together()
    {
        Run At(double core, double rpm) => RunOf("game", core) with { Fan = new RunFan(FanMode.Fixed, null, rpm) };
        var brought = Judge([At(80, 2000)], [RunOf("game", 70) with { Fan = new RunFan(FanMode.Auto, null, 2400) }]);
        Assert.False(brought.Pairs.Single().Alike);
        Assert.NotEqual(VerdictOutcome.NotComparable, brought.Outcome);
        Assert.True(brought.Parts[0].UncertaintyKelvin > 3.3, "what brings them together has its own uncertainty");

        var alone = Judge([RunOf("game", 80), RunOf("render", 90)], [RunOf("game", 70)]);
        Assert.Equal(VerdictOutcome.Improved, alone.Outcome);
        Assert.True(Says(alone, "The run before of “render”, fan fixed at 60 %, settings “stock” has no partner"));
    }

    [Fact]
    public void Repeats_give_the_mean_and_tell_how_well_this_bench_repeats()
    {
        var once = Judge([RunOf("game", 80)], [RunOf("game", 75)]);
        Assert.Null(once.RepeatabilityKelvin);
        Run[] before = [RunOf("game", 79.5), RunOf("game", 80.5), RunOf("game", 80)],
            after = [RunOf("game", 75), RunOf("game", 75.2)];
        var repeated = Judge(before, after);
        Assert.Equal((3, 2), (repeated.Pairs[0].BeforeRuns, repeated.Pairs[0].AfterRuns));
        Assert.Equal(-4.9, repeated.Parts[0].ChangeKelvin, 1e-9);
        // Pooled with the usual 1 K as four degrees of freedom: (4·1² + 0.5 + 0.02) / (4 + 3).
        Assert.Equal(Math.Sqrt(4.52 / 7), repeated.RepeatabilityKelvin!.Value, 1e-9);
        Assert.True(repeated.Parts[0].UncertaintyKelvin < once.Parts[0].UncertaintyKelvin);

        var wild = Judge([RunOf("game", 74), RunOf("game", 86)], [RunOf("game", 71), RunOf("game", 79)]);
        Assert.True(wild.RepeatabilityKelvin > 3);
        Assert.Equal(VerdictOutcome.NoChange, wild.Outcome);
    }

    [Fact]
    public void Two_readings_of_a_minute_prove_nothing_and_that_is_said()
    {
        Run Short(double core) => RunOf("game", core) with { Minutes = 1 };
        var verdict = Judge([Short(95)], [Short(60)]);
        Assert.Equal(VerdictOutcome.NoChange, verdict.Outcome);
        Assert.Contains(
            verdict.Reasons,
            r => r.Code == "not-settled" && r.Says.ToString().Contains("proves nothing", StringComparison.Ordinal)
        );
        Assert.True(Says(verdict, "Too short to tell"));
        Assert.False(Says(verdict, "did not need this"));
    }

    /// <summary>Half of what is left of the rise: 18 % of 60 K, and the slope is told.</summary>
    [Fact]
    public void What_the_log_knew_of_settling_stays_with_the_run()
    {
        var rising = RunOf("game", 85) with { Settled = false, ShareOfRise = 0.82, SlopeAtEnd = 1.05 };
        var verdict = Judge([rising], [RunOf("game", 78)]);
        var expected = 2 * Math.Sqrt(2 * (1 + 1 / 12.0 + 0.25) + Math.Pow(0.18 * 60 / 2, 2));
        Assert.Equal(expected, verdict.Parts[0].UncertaintyKelvin, 1e-9);
        Assert.Contains(
            verdict.Reasons,
            r => r.Says.ToString().Contains("82 % of its rise, 1.05 K a minute", StringComparison.Ordinal)
        );
        Assert.Equal(VerdictOutcome.NoChange, verdict.Outcome);
    }

    [Fact]
    public void A_fan_that_ramps_and_a_warm_start_are_told_and_make_it_less_sure()
    {
        var plain = Judge([RunOf("game", 85)], [RunOf("game", 78)]).Parts[0].UncertaintyKelvin;
        var ramped = Judge([RunOf("game", 85)], [RunOf("game", 78) with { FanRamp = 0.4 }]);
        Assert.True(ramped.Parts[0].UncertaintyKelvin > plain);
        Assert.Contains(ramped.Reasons, r => r.Code == "fan-ramped");

        var cold = RunOf("game", 85) with { Start = new Celsius(28), Settled = false, ShareOfRise = 0.9 };
        var warm = RunOf("game", 78) with { Start = new Celsius(55), Settled = false, ShareOfRise = 0.9 };
        var unlike = Judge([cold], [warm]);
        Assert.Contains(unlike.Reasons, r => r.Code == "start-differs");
        Assert.True(
            unlike.Parts[0].UncertaintyKelvin > Judge([cold], [warm with { Start = new Celsius(28) }]).Parts[0].UncertaintyKelvin
        );
        // Settled runs have forgotten where they began.
        var settled = Judge([cold with { Settled = true }], [warm with { Settled = true }]);
        Assert.Equal(plain, settled.Parts[0].UncertaintyKelvin, 1e-9);
    }

    /// <summary>
    /// The fan laws (Madison, Fan Engineering; Bies &amp; Hansen, Engineering Noise Control, ch. 10; from memory): half the speed
    /// is 50·lg 2 = 15.05 dB less.
    /// </summary>
    [Theory]
    [InlineData(2000, 1000, -15.05)]
    [InlineData(2000, 1620, -4.58)]
    [InlineData(1000, 1260, 5.02)]
    public void Noise_follows_the_fifth_power_of_speed(double before, double after, double decibel) =>
        Assert.Equal(decibel, SideResults.NoiseOf(before, after).Decibel, 0.01);

    [Fact]
    public void The_same_temperature_at_less_speed_is_a_result_in_kelvins_and_decibels()
    {
        Run Auto(double rpm) => RunOf("game", 80, fan: FanMode.Auto) with { Fan = new RunFan(FanMode.Auto, null, rpm) };
        var verdict = Judge([Auto(2000)], [Auto(1620)]);
        Assert.Contains(AlsoBetter.Quieter, verdict.AlsoBetter);
        Assert.True(verdict.IsSuccess);
        Assert.InRange(verdict.Parts[0].ChangeKelvin, -7, -3);
        var fan = Assert.Single(verdict.Parts[0].Corrections);
        Assert.Equal(CorrectionFor.Fan, fan.What);
        Assert.Equal(verdict.Parts[0].ChangeKelvin, fan.Kelvin, 1e-9);
        Assert.True(Says(verdict, "19 % slower by itself: about 4.6 dB (± 1.1) quieter"));
    }

    [Fact]
    public void Corrections_lead_line_by_line_from_what_was_read_to_the_change() =>
        Gen.Select(
                Gen.Double[45, 95],
                Gen.Double[45, 95],
                Gen.Double[15, 35],
                Gen.Double[15, 35],
                Gen.Double[150, 250],
                Gen.Double[150, 250],
                Gen.Double[1500, 2500]
            )
            .Sample(
                (before, after, airBefore, airAfter, wattBefore, wattAfter, rpm) =>
                {
                    var then = RunOf("game", before, airBefore) with
                    {
                        PowerWatts = wattBefore,
                        Fan = new RunFan(FanMode.Auto, null, 2000),
                    };
                    var now = RunOf("game", after, airAfter) with
                    {
                        PowerWatts = wattAfter,
                        Fan = new RunFan(FanMode.Auto, null, rpm),
                    };
                    var part = Judge([then], [now]).Parts[0];
                    // Lines below a twentieth of a kelvin are left out.
                    Assert.Equal(part.ChangeKelvin, part.RawChangeCelsius + part.Corrections.Sum(c => c.Kelvin), 0.151);
                },
                iter: 200
            );

    [Fact]
    public void What_it_came_for_decides_first()
    {
        var failed = Judge([RunOf("game", 90)], [RunOf("game", 75) with { FailedAfterMinutes = 12 }]);
        Assert.Equal(VerdictOutcome.NoChange, failed.Outcome);
        Assert.StartsWith("It failed after 12 minutes", failed.Says!.ToString(), StringComparison.Ordinal);
        Assert.False(failed.IsSuccess);

        var throttles = Judge([RunOf("game", 95) with { Throttled = true }], [RunOf("game", 82) with { Throttled = true }]);
        Assert.Contains("but it still throttles", throttles.Says!.ToString(), StringComparison.Ordinal);
        Assert.False(Says(throttles, "did not need"));

        // Fails in one load of two: the other does not make up for it.
        var one = Judge(
            [RunOf("game", 90), RunOf("render", 90)],
            [RunOf("game", 75), RunOf("render", 75) with { FailedAfterMinutes = 3 }]
        );
        Assert.Equal(VerdictOutcome.NoChange, one.Outcome);
        Assert.DoesNotContain(AlsoBetter.NoLongerFailing, one.AlsoBetter);
    }

    /// <summary>Common practice, no source: fixed only once it has run twice as long as it took to fail.</summary>
    [Theory]
    [InlineData(15, 20, false)]
    [InlineData(8, 20, true)]
    public void A_crash_is_gone_after_twice_its_time(double failedAfter, double ran, bool gone)
    {
        var verdict = Judge(
            [RunOf("game", 80) with { FailedAfterMinutes = failedAfter, Minutes = failedAfter, Settled = true }],
            [RunOf("game", 79) with { Minutes = ran, Settled = true }]
        );
        Assert.Equal(gone, verdict.AlsoBetter.Contains(AlsoBetter.NoLongerFailing));
        Assert.Equal(gone, verdict.IsSuccess);
        Assert.False(Says(verdict, "did not need this"));
    }

    [Fact]
    public void Performance_can_make_it_a_success_by_itself()
    {
        Run Scored(double score) => RunOf("game", 80) with { Score = score, ScoreUnit = "frames", ClockMhz = 1500 };
        var verdict = Judge([Scored(100)], [Scored(106)]);
        Assert.Equal([AlsoBetter.Faster], verdict.AlsoBetter);
        Assert.True(verdict.IsSuccess);
        Assert.True(Says(verdict, "from 100 to 106 frames, +6.0 %"));
        Assert.Empty(Judge([Scored(100)], [Scored(106) with { ScoreUnit = "hashes" }]).AlsoBetter);
    }

    [Fact]
    public void It_did_not_need_this_stands_only_where_that_was_seen()
    {
        Run[] cool = [RunOf("game", 60)];
        Assert.True(Says(Judge(cool, cool), "did not need this"));
        Assert.False(Says(Judge(cool, cool, ServiceLevel.Inspect), "did not need this"));
        Assert.False(Says(Judge(cool, cool, of: TestedMachine.Unknown with { Complaint = true }), "did not need this"));
        Assert.False(Says(Judge(cool, [RunOf("game", 60) with { Ambient = null }]), "did not need this"));
        Assert.Contains(
            "Too uncertain",
            Judge(cool, [RunOf("game", 60) with { Ambient = null }]).Says!.ToString(),
            StringComparison.Ordinal
        );
        Assert.False(Says(Judge([.. cool, RunOf("render", 62)], cool), "did not need this"));
    }

    [Fact]
    public void Advice_fits_what_was_done()
    {
        var (hot, hotter) = (RunOf("game", 90), RunOf("game", 96));
        Assert.False(Says(Judge([hot], [hot], ServiceLevel.Inspect), "cooler"));
        Assert.True(Says(Judge([hot], [hot], ServiceLevel.BlowOut), "Air from outside"));
        Assert.True(Says(Judge([hot], [hot], ServiceLevel.DustOut), "the paste is next"));
        Assert.False(Says(Judge([hot], [hotter], ServiceLevel.BlowOut), "open again"));

        // 14 K before, 21 K after: told although the core won.
        var before = With(RunOf("game", 0), ("core", 80), ("hotspot", 94));
        var after = With(RunOf("game", 0), ("core", 72), ("hotspot", 93));
        var gap = Judge([before], [after]);
        Assert.Equal(VerdictOutcome.Improved, gap.Outcome);
        Assert.True(Says(gap, "14 K above the core before and 21 K after"));
        Assert.False(Says(Judge([before], [after], ServiceLevel.BlowOut), "sits crooked"));

        var alike = Judge([before], [With(RunOf("game", 0), ("core", 71), ("hotspot", 85))]);
        Assert.True(Says(alike, "dust that came out on the way"));
        Assert.False(Says(Judge([before], [With(RunOf("game", 0), ("core", 71), ("hotspot", 80))]), "dust that came out"));
    }

    [Fact]
    public void Still_within_ten_kelvin_of_its_limit_brings_what_else_helps()
    {
        var laptop = new TestedMachine(AssetKind.Laptop, new Dictionary<string, double> { ["core"] = 95 });
        var verdict = Judge([RunOf("game", 96)], [RunOf("game", 90)], of: laptop);
        Assert.Equal(VerdictOutcome.Improved, verdict.Outcome);
        Assert.Equal([Remedy.Stand, Remedy.Undervolt, Remedy.CoolerRoom], verdict.Remedies);
        Assert.True(Says(verdict, "still hot: core 90 °C of 95 °C. What else helps: a stand, undervolting, a cooler room."));
        Assert.Empty(Judge([RunOf("game", 90)], [RunOf("game", 80)], of: laptop).Remedies);
    }
}
