using Pyrometron.Core.Fleet;
using Pyrometron.Core.Learning;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Worth;

namespace Pyrometron.Core.Tests.Worth;

/// <summary>What proven jobs won in money, in figures that can be reckoned by hand.</summary>
public sealed class MoneyWonTests
{
    /// <summary>
    /// Two years count; a machine lasts 4 years and costs 1000, an hour of it 1, a decibel for a year 3, a crash 5 hours.
    /// </summary>
    private static readonly JudgementPolicy House = JudgementPolicy.Default with
    {
        Values = HouseValues.Default with
        {
            PayBackYears = 2,
            LifeYears = 4,
            DecibelYear = 3,
            CrashHours = 5,
            Desktop = new KindValues(1, 1000),
            Server = new KindValues(1, 1000),
        },
    };

    private static FinishedJob Job(MeasuredSides sides, double won = 0, double within = 0, string tag = "D") =>
        new(
            1,
            tag,
            "Petrel",
            "Z",
            ServiceLevel.Repaste,
            new(2026, 11, 1),
            VerdictOutcome.Improved,
            won,
            within,
            null,
            null,
            false,
            0
        )
        {
            Sides = sides,
        };

    private static (Asset, JudgementPolicy)? Rules(string tag) =>
        tag == "GONE"
            ? null
            : (
                new Asset(
                    tag,
                    tag == "D" ? AssetKind.Desktop : AssetKind.Server,
                    "Petrel",
                    "Z",
                    null,
                    12,
                    new(2024, 1, 1),
                    null,
                    [],
                    []
                ),
                House
            );

    private static MoneyWon Of(params FinishedJob[] jobs) => MoneyWon.Of(jobs, Rules);

    /// <summary>
    /// At 0.7 eV a part at 75 °C ages 1.893 times as fast as at 65 °C: exp(0.7/8.617333262e-5 · (1/338.15 − 1/348.15)),
    /// 8123.1727 · 8.4942e-5 = 0.69000, e^0.69 = 1.9937 (JEDEC JEP122, the constant by CODATA 2018; reckoned by hand).
    /// </summary>
    [Fact]
    public void Slower_ageing_is_a_share_of_a_new_machine_in_the_hours_it_works()
    {
        var won = Of(Job(MeasuredSides.None with { AfterCelsius = 65 }, won: 10));
        Assert.Equal(1.9937, 1 + won.Ageing / (1000.0 / 4 * 2 * 0.5), 3);
        Assert.Equal((1, won.Ageing), (won.Jobs, won.All));
        // Nobody knows how warm it was: nothing is counted.
        Assert.Equal(0, Of(Job(MeasuredSides.None, won: 10)).All);
        Assert.True(Of(Job(MeasuredSides.None with { AfterCelsius = 65 }, won: -10)).Ageing < 0);
    }

    [Fact]
    public void Performance_quiet_and_crashes_are_counted_where_they_were_measured()
    {
        var sides = new MeasuredSides(null, -4, 1, 0.02, true, true);
        var desktop = Of(Job(sides));
        // 12 hours a day for two years of 365 days, two hundredths of them; 4 dB for two years; five hours of a crash.
        Assert.Equal((8760 * 0.02, 24, 5), (desktop.Performance, desktop.Noise, desktop.Crashes));
        Assert.Equal(8760 * 0.02 + 24 + 5, desktop.All, 9);
        // Nobody sits beside a server.
        Assert.Equal(0, Of(Job(sides, tag: "S")).Noise);
        // Half a per cent of the clock, one decibel for two years.
        Assert.Equal(Math.Sqrt(Math.Pow(8760 * 0.005, 2) + 36), desktop.Expanded, 9);
    }

    [Fact]
    public void Uncertainties_of_several_jobs_add_as_squares_and_unproven_jobs_count_for_nothing()
    {
        var one = Of(Job(new MeasuredSides(60, null, null, null, false, false), 6, 3));
        Assert.True(one.Expanded > 0);
        var four = Of([.. Enumerable.Repeat(Job(new MeasuredSides(60, null, null, null, false, false), 6, 3), 4)]);
        Assert.Equal(2 * one.Expanded, four.Expanded, 9);
        Assert.Equal(4 * one.All, four.All, 9);
        var unproven = Job(new MeasuredSides(60, -4, 1, 0.02, true, true), 6, 3) with { Outcome = VerdictOutcome.NotComparable };
        Assert.Equal(new MoneyWon(0, 0, 0, 0, 0, 0, 0), Of(unproven, Job(MeasuredSides.None, tag: "GONE")));
        Assert.Equal(new SidesWon(0, null, 0, null, 0, 0), SidesWon.Of([unproven]));
    }

    [Fact]
    public void Sides_are_told_over_the_jobs_in_which_they_were_measured()
    {
        var sides = SidesWon.Of([
            Job(new MeasuredSides(60, -4, 1, 0.02, true, false)),
            Job(new MeasuredSides(60, -1, 1, null, false, true)),
            Job(MeasuredSides.None),
        ]);
        Assert.Equal(new SidesWon(2, -2.5, 1, 0.02, 1, 1), sides);
    }
}
