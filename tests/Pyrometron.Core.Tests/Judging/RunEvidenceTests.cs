using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Readings;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Tests.Judging;

/// <summary>Runs at the bench are evidence: in the history, in the judgement, in the words.</summary>
public class RunEvidenceTests
{
    private static readonly DateOnly First = new(2025, 1, 1);

    private static readonly Asset Laptop = Handmade.Laptop(limitC: 95, daysOld: 0) with
    {
        DutyHoursPerDay = 6,
        InServiceSince = First,
    };

    private static DateTimeOffset On(int day, int hour = 12) =>
        new(First.AddDays(day - 1).ToDateTime(new TimeOnly(hour, 0)), TimeSpan.Zero);

    private static MeasuredRun Run(
        int day,
        double celsius,
        double? air,
        RunPhase phase = RunPhase.Before,
        int hour = 12,
        double minutes = 20
    ) =>
        new(
            On(day, hour),
            phase,
            new Run(
                "full",
                minutes,
                air is { } c ? new Celsius(c) : null,
                new RunFan(FanMode.Fixed, 100),
                "stock",
                null,
                null,
                null,
                false,
                [new("cpu", new(celsius))]
            ),
            1
        );

    private static Assessment Judge(int day, Asset asset, MachineHistory history, params Reading[] readings) =>
        new FleetJudge(
            new JudgementBasis(
                Hall.Register(DustClass.Normal, asset),
                First.AddDays(day - 1),
                JudgementPolicy.Default,
                _ => ReadingSeries.From(readings, 1)
            )
            {
                History = _ => history,
            }
        )
            .JudgeAll()
            .Queue.Single();

    private static MachineHistory Of(params MeasuredRun[] runs) => MachineHistory.Empty with { Runs = runs };

    /// <summary>
    /// One laptop from its first day to its four hundredth, run by run; limit 95 °C, action line 90 °C, its zone planned for 33
    /// °C. The arithmetic: rise = temperature − air; drift = rise − rise of the fresh state (the first run: 71 − 21 = 50 K). The
    /// fitted wear stays below the plain difference by about half a kelvin, since no wear is likelier than any.
    /// </summary>
    [Fact]
    public void A_laptop_measured_by_runs_alone_tells_one_story_for_four_hundred_days()
    {
        var runs = new List<MeasuredRun>();
        var asset = Laptop;
        Assessment After(int day, MeasuredRun? run)
        {
            if (run is not null)
                runs.Add(run);
            return Judge(day, asset, Of([.. runs]));
        }

        var a = After(1, null);
        Assert.Equal(Urgency.Unknown, a.Urgency);
        Assert.Equal(
            "No readings yet. One loaded run with the air temperature written down would be a start.",
            a.Reason.ToString()
        );

        // Day 2, 71 °C at 21 °C: a rise of 50 K, the fresh state.
        a = After(2, Run(2, 71, 21));
        Assert.Equal((Urgency.Fine, 71.0), (a.Urgency, a.Parts[0].LatestC));
        Assert.Equal("Within 1 K of its fresh state.", a.Reason.ToString());

        // Day 180, 76 °C at 23 °C: a rise of 53 K, 3 K more: within what two runs differ by (U = 3.27 K).
        a = After(180, Run(180, 76, 23));
        Assert.InRange(a.DriftKelvin!.Value, 3 - 1, 3);
        Assert.Equal(Urgency.Fine, a.Urgency);

        // Day 365, 85 °C at 22 °C: a rise of 63 K, 13 K more; on a hot day 33 + 63 = 96 °C, past the line.
        a = After(365, Run(365, 85, 22, hour: 9));
        Assert.InRange(a.DriftKelvin!.Value, 13 - 1.5, 13);
        Assert.Equal(Urgency.Now, a.Urgency);
        Assert.Equal(85, a.Parts[0].LatestC);
        Assert.EndsWith("is past its action line on a hot day.", a.Reason.ToString(), StringComparison.Ordinal);

        // Day 365, afternoon: new paste, not measured yet. Of 13 K, 15 % of what may be dust stay.
        asset = asset with
        {
            Services = [new ServiceDone(First.AddDays(364), ServiceLevel.Repaste) { At = On(365, 14), Job = 1 }],
        };
        a = After(365, null);
        Assert.InRange(a.DriftKelvin!.Value, 0, 0.16 * 13);
        Assert.Contains("is not measured yet", a.Reason.ToString(), StringComparison.Ordinal);

        // The after-run: 71 °C at 22 °C, a rise of 49 K.
        a = After(365, Run(365, 71, 22, RunPhase.After, hour: 16));
        Assert.Equal((Urgency.Fine, 71.0), (a.Urgency, a.Parts[0].LatestC));
        Assert.InRange(a.DriftKelvin!.Value, 0, 0.5);
        Assert.Equal("Within 1 K of its fresh state.", a.Reason.ToString());
        Assert.Contains("Measured last at the bench on 31 Dec 2025: 20 minutes of full.", a.Said());

        // Day 400, the second look: 72 °C at 23 °C, a rise of 49 K again. A year's pace says that a kelvin may have gathered
        // meanwhile.
        a = After(400, Run(400, 72, 23, RunPhase.Recheck));
        Assert.Equal((Urgency.Fine, 72.0), (a.Urgency, a.Parts[0].LatestC));
        Assert.InRange(a.DriftKelvin!.Value, 0, 1);
        Assert.Equal("Within 1 K of its fresh state.", a.Reason.ToString());
    }

    /// <summary>
    /// JCGM 100:2008 (GUM), 5.1.2 and 6.2: two runs, each with repeatability 1.0 K, resolution 1 K as a rectangle (0.289 K) and
    /// air 0.5 K, give u = √(2·(1.0² + 1/12 + 0.5²)) = 1.633 K; with unknown air of 2.5 K, √(2·(1.0² + 1/12 + 2.5²)) = 3.829 K.
    /// </summary>
    [Theory]
    [InlineData(22.0, 1.633)]
    [InlineData(null, 3.829)]
    public void A_machine_known_by_runs_alone_is_as_uncertain_as_a_verdict(double? air, double expected)
    {
        var a = Judge(200, Laptop, Of(Run(2, 71, air), Run(200, 85, air)));
        Assert.Equal(expected, a.Parts[0].SigmaKelvin, expected * 0.03);
    }

    [Fact]
    public void One_run_of_a_machine_that_is_not_new_is_no_baseline_and_says_so()
    {
        var a = Judge(200, Laptop, Of(Run(200, 82, 22)));
        Assert.Equal((Urgency.Unknown, 1), (a.Urgency, a.Runs));
        Assert.Equal(
            "Measured once, on 19 Jul 2025: processor 82 °C. Nothing older is there to compare with; its next run will show whether it drifts.",
            a.Reason.ToString()
        );
        var overdue = Judge(300, Laptop, Of(Run(300, 82, 22)));
        Assert.Equal((Urgency.Soon, ServiceLevel.DustOut), (overdue.Urgency, overdue.Service));
        var again = Judge(240, Laptop, Of(Run(160, 70, 22), Run(240, 70, 22)));
        Assert.Equal(Urgency.Unknown, again.Urgency);
        Assert.Contains("What it had gathered before is not known", again.Reason.ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public void One_run_at_its_limit_asks_for_a_look()
    {
        var a = Judge(300, Laptop, Of(Run(300, 96, 22)));
        Assert.Equal((Urgency.Soon, ServiceLevel.Inspect), (a.Urgency, a.Service));
        Assert.StartsWith("Processor stood at its limit", a.Reason.ToString(), StringComparison.Ordinal);
    }

    private static Reading Weekly(int day, double celsius) => Handmade.On(On(day).ToUnixTimeMilliseconds(), celsius, ambient: 22);

    /// <summary>
    /// A laptop with a year of weekly readings, 71 to 85 °C, repasted and measured at 71 °C: now is the after-run.
    /// </summary>
    [Theory]
    [InlineData("full")]
    [InlineData("bench load")]
    public void Right_after_filing_now_is_the_after_run_whatever_else_is_measured(string load)
    {
        Reading[] year = [.. Enumerable.Range(0, 50).Select(i => Weekly(1 + 7 * i, 71 + 14 * i / 49.0))];
        MeasuredRun Under(MeasuredRun run) => run with { Run = run.Run with { Workload = load } };
        var asset = Laptop with
        {
            Services = [new ServiceDone(First.AddDays(349), ServiceLevel.Repaste) { At = On(350, 14), Job = 1 }],
        };
        var a = Judge(350, asset, Of(Under(Run(350, 85, 22, hour: 9)), Under(Run(350, 71, 22, RunPhase.After, hour: 16))), year);
        Assert.Equal((71.0, 22.0), (a.Parts[0].LatestC, a.AmbientNowC));
        Assert.Equal(UnixDay.Of(On(350, 16)), a.MeasuredDay!.Value, 1e-9);
        Assert.Equal(71, a.Parts[0].Path!.PartC, 1e-9);
        Assert.InRange(a.DriftKelvin!.Value, 0, 2.5);
        Assert.Equal(Urgency.Fine, a.Urgency);
    }

    [Theory]
    [InlineData(0, 0.7)]
    [InlineData(1, 3)]
    public void A_run_from_the_machines_own_readings_does_not_count_twice(int source, double most)
    {
        Reading[] year = [.. Enumerable.Range(0, 50).Select(i => Weekly(1 + 7 * i, 75))];
        var run = Run(345, 85, 22) with { };
        run = run with { Run = run.Run with { Source = source == 0 ? RunSource.Readings : RunSource.Typed } };
        var with = Judge(350, Laptop, Of(run), year);
        Assert.Equal(source == 0 ? 75 : 85, with.Parts[0].LatestC);
        Assert.True(source == 0 || with.Parts[0].UnexplainedKelvin + with.DriftKelvin > most);
    }
}
