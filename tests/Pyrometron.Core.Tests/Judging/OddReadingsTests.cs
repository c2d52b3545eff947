using Pyrometron.Core.Fleet;
using Pyrometron.Core.Readings;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Tests.Judging;

/// <summary>What is odd has a defined outcome with words, never a crash and never an invented figure.</summary>
public class OddReadingsTests
{
    private static Reading[] Weekly(Func<int, Reading> reading) => [.. Enumerable.Range(0, 50).Select(i => reading(i))];

    [Theory]
    [InlineData(0, "No readings yet")]
    [InlineData(1, "Only 1 reading:")]
    [InlineData(2, "Only 2 readings:")]
    public void Too_few_readings_say_what_is_missing(int count, string words)
    {
        var a = Hall.JudgeAlone(Handmade.Desktop, [.. Enumerable.Range(0, count).Select(i => Handmade.At(10 - i))]);
        Assert.Equal(Urgency.Unknown, a.Urgency);
        Assert.StartsWith(words, a.Reason.ToString(), StringComparison.Ordinal);
        Assert.Null(a.DriftKelvin);
        Assert.NotNull(a.ToBeSurer);
    }

    [Fact]
    public void Equal_readings_are_fine_and_have_no_date()
    {
        var a = Hall.JudgeAlone(Handmade.Desktop, Weekly(i => Handmade.At(350 - 7 * i)));
        Assert.Equal(Urgency.Fine, a.Urgency);
        Assert.Null(a.Action);
        Assert.InRange(a.DriftKelvin!.Value, 0, 0.5);
    }

    [Fact]
    public void Nothing_but_temperatures_is_judged_with_little_evidence()
    {
        var a = Hall.JudgeAlone(Handmade.Desktop, Weekly(i => Handmade.At(350 - 7 * i, ambient: double.NaN)));
        Assert.Equal(Urgency.Unknown, a.Urgency);
    }

    [Fact]
    public void Standing_fan_and_no_power_are_no_division_by_zero()
    {
        var a = Hall.JudgeAlone(
            Handmade.Desktop,
            Weekly(i => Handmade.At(350 - 7 * i, cpu: i > 40 ? 92 : 70, power: 0, rpm: i > 40 ? 0 : 1400, pct: 60))
        );
        Assert.True(a.Parts.All(p => double.IsFinite(p.Split.Total) && double.IsFinite(p.HottestC)));
        Assert.Contains(a.SensorFindings, f => f.Channel == "fan" && f.Readings == 9);
        Assert.Equal((Cause.Fan, ServiceLevel.FanSwap), (a.Cause, a.Service));
    }

    [Fact]
    public void A_fan_that_rests_because_nobody_asks_it_is_no_finding() =>
        Assert.DoesNotContain(
            Hall.JudgeAlone(
                Handmade.Desktop,
                Weekly(i => Handmade.At(350 - 7 * i, rpm: i % 2 == 0 ? 0 : 900, pct: i % 2 == 0 ? 0 : 40))
            ).SensorFindings,
            f => f.Channel == "fan"
        );

    [Fact]
    public void All_channels_but_one_missing_is_judged_by_what_is_left()
    {
        var two = Handmade.Desktop with
        {
            Parts = [new("cpu", new(95), JointMaterial.Paste), new("gpu", new(95), JointMaterial.Paste)],
        };
        var a = Hall.JudgeAlone(
            two,
            [
                .. Weekly(i => Handmade.At(350 - 7 * i, cpu: 70 + i * 0.3))
                    .Select(r => r with { PartsC = [r.PartsC[0], double.NaN] }),
            ]
        );
        Assert.Equal("cpu", Assert.Single(a.Parts).Part.Name);
        Assert.InRange(a.DriftKelvin!.Value, 9, 17);
    }

    [Fact]
    public void Nothing_measured_at_all_is_said_and_not_guessed()
    {
        var a = Hall.JudgeAlone(Handmade.Desktop, Weekly(i => Handmade.At(350 - 7 * i, cpu: double.NaN, ambient: double.NaN)));
        Assert.Equal((Urgency.Unknown, 50), (a.Urgency, a.Readings));
        Assert.Null(a.DriftKelvin);
    }

    /// <summary>
    /// The hour that comes twice in autumn is two instants: readings are kept in UTC, so none is lost or turned round.
    /// </summary>
    [Fact]
    public void The_hour_that_comes_twice_in_autumn_moves_nothing()
    {
        Reading[] Hourly(double shift) =>
            [.. Enumerable.Range(0, 24 * 40).Select(i => Handmade.At(40 - i / 24.0 + (i > 480 ? shift : 0), cpu: 70 + i % 3))];
        Assert.Equal(
            Hall.JudgeAlone(Handmade.Desktop, Hourly(0)).DriftKelvin!.Value,
            Hall.JudgeAlone(Handmade.Desktop, Hourly(1 / 24.0)).DriftKelvin!.Value,
            0.3
        );
    }

    [Fact]
    public void One_reading_from_a_clock_that_stood_at_1970_does_not_stretch_the_history()
    {
        var sound = Weekly(i => Handmade.At(350 - 7 * i, cpu: 70 + i * 0.2));
        var stray = sound[0] with { UnixMilliseconds = 0 };
        var (with, without) = (Hall.JudgeAlone(Handmade.Desktop, [stray, .. sound]), Hall.JudgeAlone(Handmade.Desktop, sound));
        Assert.Equal(without.DriftKelvin, with.DriftKelvin);
        Assert.Equal(without.Cause, with.Cause);
    }

    [Fact]
    public void A_service_dated_after_the_last_reading_is_credited_with_what_it_usually_wins()
    {
        var worn = Weekly(i => Handmade.At(360 - 7 * i, cpu: 70 + i * 0.3));
        var served = Handmade.Desktop with { Services = [new(Hall.Today, ServiceLevel.Repaste)] };
        Assert.True(Hall.JudgeAlone(Handmade.Desktop, worn).DriftKelvin > 9);
        // 15 % of dust stay in the fins: with one part nobody can tell dust from paste.
        Assert.True(Hall.JudgeAlone(served, worn).DriftKelvin < 0.16 * Hall.JudgeAlone(Handmade.Desktop, worn).DriftKelvin);
    }

    [Fact]
    public void Heat_of_zero_watts_everywhere_is_heat_that_was_not_measured()
    {
        var a = Hall.JudgeAlone(Handmade.Desktop, Weekly(i => Handmade.At(350 - 7 * i, cpu: 70 + i % 2, power: 0)));
        Assert.False(a.Reference!.HasPower);
        Assert.Equal(Urgency.Fine, a.Urgency);
    }

    [Fact]
    public void Absurd_temperatures_are_evidence_about_the_sensor()
    {
        var a = Hall.JudgeAlone(Handmade.Desktop, Weekly(i => Handmade.At(350 - 7 * i, cpu: i % 6 == 0 ? 999 : 70 + i % 2)));
        Assert.Contains(a.SensorFindings, f => f.Channel == "cpu");
        Assert.InRange(a.DriftKelvin!.Value, 0, 1.5);
    }

    [Fact]
    public void Air_warmer_than_the_part_is_a_sensor_and_not_cooling()
    {
        var a = Hall.JudgeAlone(
            Handmade.Desktop,
            Weekly(i => Handmade.At(350 - 7 * i, cpu: (i % 5 == 0 ? 12 : 70) + i % 3, ambient: 24 + i % 3))
        );
        Assert.Contains(a.SensorFindings, f => f.Channel == "cpu");
        Assert.InRange(a.DriftKelvin!.Value, 0, 1.5);
    }

    [Fact]
    public void A_frozen_sensor_is_dropped_and_told()
    {
        var random = new Random(3);
        var two = Handmade.Desktop with
        {
            Parts = [new("cpu", new(95), JointMaterial.Paste), new("gpu", new(95), JointMaterial.Paste)],
        };
        Reading[] readings =
        [
            .. Enumerable
                .Range(0, 360)
                .Select(i =>
                {
                    var air = 20 + 6 * Math.Sin(i / 40.0);
                    return new Reading(
                        (long)((Hall.Now - 360 + i) * 86_400_000),
                        Math.Round(air, 1),
                        double.NaN,
                        150,
                        double.NaN,
                        double.NaN,
                        double.NaN,
                        double.NaN,
                        double.NaN,
                        "stock",
                        "full",
                        null,
                        [Math.Round(air + 45 + random.NextDouble()), i > 250 ? 71 : Math.Round(air + 40 + random.NextDouble())]
                    );
                }),
        ];
        var a = Hall.JudgeAlone(two, readings);
        Assert.Contains(
            a.SensorFindings,
            f => f.Channel == "gpu" && f.What.ToString().Contains("stands at 71", StringComparison.Ordinal)
        );
        Assert.True(a.DriftKelvin < 2.5);
    }

    [Fact]
    public void Two_services_on_one_day_and_one_in_the_future_are_taken_as_they_come()
    {
        var served = Handmade.Desktop with
        {
            Services =
            [
                new(Hall.Today.AddDays(-100), ServiceLevel.DustOut),
                new(Hall.Today.AddDays(-100), ServiceLevel.Repaste),
                new(Hall.Today.AddDays(40), ServiceLevel.Repad),
            ],
        };
        var a = Hall.JudgeAlone(served, Weekly(i => Handmade.At(350 - 7 * i)));
        Assert.Equal(Urgency.Fine, a.Urgency);
    }

    [Fact]
    public void Days_count_from_1970_and_a_service_is_dated_at_noon()
    {
        Assert.Equal(0.5, UnixDay.Noon(new(1970, 1, 1)));
        Assert.Equal(new DateOnly(2026, 3, 1), UnixDay.DateOf(UnixDay.Noon(new(2026, 3, 1))));
    }
}
