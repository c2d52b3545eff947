using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Readings;

namespace Pyrometron.Core.Tests.Judging;

/// <summary>
/// Twenty kelvin within a week, with no service, no new settings and no report, are a sensor until somebody shows otherwise:
/// nobody is sent at once for them. The figure is common practice, no source.
/// </summary>
public class ImplausibleStepsTests
{
    /// <summary>Weekly runs of a year, the newest yesterday.</summary>
    private static Reading[] Weekly(Func<int, Reading> at) => [.. Enumerable.Range(0, 50).Select(i => at(344 - 7 * i))];

    /// <summary>A desktop's runs, warmer by some kelvins from so many days ago on.</summary>
    private static Reading[] Jumping(double kelvin, int daysAgo = 60) =>
        Weekly(ago => Handmade.At(ago, 66 + ago % 2 + (ago < daysAgo ? kelvin : 0)));

    private static Assessment Judge(Asset asset, Reading[] readings, params Symptom[] symptoms) =>
        Hall.JudgeReported(asset, readings, symptoms);

    private static bool IsDoubted(Assessment a) => a.SensorFindings.Any(f => f.Implausible is not null);

    [Theory]
    [InlineData(25)]
    [InlineData(45)] // Reads past its limit.
    [InlineData(-24)]
    public void Is_looked_at_soon_and_wins_nothing(double kelvin)
    {
        var a = Judge(Handmade.Desktop, Jumping(kelvin));
        Assert.Equal((Urgency.Soon, Cause.Sensor, ServiceLevel.Inspect), (a.Urgency, a.Cause, a.Service));
        Assert.InRange(a.DriftKelvin!.Value, 0, 3);
        Assert.NotNull(a.Measure);
        Assert.InRange(a.DoubtedSensor!.Implausible!.Value, kelvin - 2, kelvin + 2);
        Assert.InRange(a.DoubtedSensor.FromDay, Hall.Now - 67, Hall.Now - 57);
        Assert.Contains("taken for its sensor", a.Reason.ToString(), StringComparison.Ordinal);
    }

    /// <summary>
    /// Daily readings stand in cells of several days, and the jump comes on any day of one: it is dated within that cell, and no
    /// cell before it is taken for one after it.
    /// </summary>
    [Theory]
    [InlineData(20)]
    [InlineData(21)]
    [InlineData(22)]
    [InlineData(23)]
    [InlineData(24)]
    public void Is_dated_and_measured_whatever_day_of_a_cell_it_comes_on(int daysAgo)
    {
        var daily = Enumerable
            .Range(1, 300)
            .Reverse()
            .Select(ago => Handmade.At(ago, 66 + ago % 2 + (ago < daysAgo ? 24 : 0)))
            .ToArray();
        var a = Judge(Handmade.Desktop, daily);
        Assert.InRange(a.DoubtedSensor!.Implausible!.Value, 22.5, 25.5);
        Assert.InRange(a.DoubtedSensor.FromDay, Hall.Now - daysAgo - 4, Hall.Now - daysAgo + 4);
        Assert.InRange(a.Parts[0].Path!.Layers.Single(l => l.Name == "sensor").Kelvin, 22.5, 25.5);
        Assert.InRange(a.DriftKelvin!.Value, 0, 1.5);
    }

    [Fact]
    public void Comes_after_all_that_is_soon_for_what_was_seen()
    {
        var register = Hall.Register(DustClass.Normal, Handmade.Desktop, Handmade.Desktop with { Tag = "DT-2" });
        var queue = new FleetJudge(
            new JudgementBasis(
                register,
                Hall.Today,
                JudgementPolicy.Default,
                a => ReadingSeries.From(a.Tag == "DT-1" ? Jumping(45) : Jumping(0), 1)
            )
            {
                History = a =>
                    a.Tag == "DT-1"
                        ? MachineHistory.Empty
                        : MachineHistory.Empty with
                        {
                            Symptoms = [new Symptom(Hall.Today.AddDays(-2), SymptomKind.Noise, null)],
                        },
            }
        )
            .JudgeAll()
            .Queue;
        Assert.Equal(["DT-2", "DT-1"], queue.Select(a => a.Asset.Tag));
        Assert.All(queue, a => Assert.Equal(Urgency.Soon, a.Urgency));
    }

    [Fact]
    public void Nineteen_kelvin_are_judged_like_any_wear() => Assert.False(IsDoubted(Judge(Handmade.Desktop, Jumping(16))));

    [Fact]
    public void A_report_shows_otherwise()
    {
        var a = Judge(Handmade.Desktop, Jumping(25), new Symptom(Hall.Today.AddDays(-5), SymptomKind.Noise, null));
        Assert.False(IsDoubted(a));
        Assert.True(a.DriftKelvin > 10, $"drift {a.DriftKelvin}");
    }

    [Fact]
    public void Once_somebody_has_looked_it_is_left_in_peace()
    {
        ServiceDone looked = new(Hall.Today.AddDays(-20), ServiceLevel.Inspect),
            before = new(Hall.Today.AddDays(-90), ServiceLevel.Inspect);
        var young = Handmade.Desktop with { InServiceSince = Hall.Today.AddDays(-345) };
        var a = Judge(young with { Services = [before, looked] }, Jumping(25));
        Assert.Equal((Cause.Sensor, false), (a.Cause, a.Urgency <= Urgency.Soon && !a.ByCalendar));
        Assert.Null(a.Measure);
        Assert.NotNull(Judge(young with { Services = [before] }, Jumping(25)).Measure);
    }

    [Fact]
    public void What_grows_over_months_or_in_a_gap_of_weeks_is_no_step()
    {
        Assert.False(
            IsDoubted(Judge(Handmade.Desktop, Weekly(ago => Handmade.At(ago, 66 + ago % 2 + 30 * (344 - ago) / 344.0))))
        );
        Assert.False(IsDoubted(Judge(Handmade.Desktop, [.. Jumping(25).Where(r => r.UnixMilliseconds is var t && !InGap(t))])));

        static bool InGap(long t) => t / 86_400_000.0 is var day && day > Hall.Now - 90 && day < Hall.Now - 50;
    }

    [Fact]
    public void A_service_on_the_day_explains_it_and_one_that_took_it_away_shows_that_it_was_the_machine()
    {
        var onTheDay = Handmade.Desktop with { Services = [new ServiceDone(Hall.Today.AddDays(-60), ServiceLevel.Repaste)] };
        Assert.False(IsDoubted(Judge(onTheDay, Jumping(25))));
        var cured = Handmade.Desktop with { Services = [new ServiceDone(Hall.Today.AddDays(-30), ServiceLevel.FanSwap)] };
        var readings = Weekly(ago => Handmade.At(ago, 66 + ago % 2 + (ago is < 60 and > 30 ? 25 : 0)));
        Assert.False(IsDoubted(Judge(cured, readings)));
    }

    [Fact]
    public void All_parts_at_once_are_held_against_it_too()
    {
        var two = Handmade.Desktop with
        {
            Parts = [new("cpu", new(95), JointMaterial.Paste), new("gpu", new(95), JointMaterial.Paste)],
        };
        var a = Judge(two, [.. Jumping(25).Select(r => r with { PartsC = [r.PartsC[0], r.PartsC[0] - 4] })]);
        Assert.Equal(2, a.SensorFindings.Count(f => f.Implausible is not null));
        Assert.Equal(Urgency.Soon, a.Urgency);
    }

    [Fact]
    public void New_settings_and_a_slower_fan_explain_it()
    {
        Assert.False(
            IsDoubted(
                Judge(Handmade.Desktop, [.. Jumping(25).Select((r, i) => r with { Settings = i < 41 ? "stock" : "raised" })])
            )
        );
        // A rise of 42 K, all of it over the fins, at 40 instead of 100 % of its speed.
        Assert.False(
            IsDoubted(
                Judge(
                    Handmade.Desktop,
                    Weekly(ago => Handmade.At(ago, ago < 60 ? 91 : 66, rpm: ago < 60 ? 800 : 2000, pct: ago < 60 ? 40 : 100))
                )
            )
        );
    }
}
