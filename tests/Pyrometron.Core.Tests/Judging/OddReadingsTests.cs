using Pyrometron.Core.Fleet;
using Pyrometron.Core.Readings;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Tests.Judging;

/// <summary>What is odd has a defined outcome with words, never a crash and never an invented figure.</summary>
public class OddReadingsTests
{
    private static readonly Asset Desktop = new("DT-1", AssetKind.Desktop, "Petrel", "ROW", null, 8, Hall.Today.AddDays(-400), null,
        [new("cpu", new(95), JointMaterial.Paste)], []);

    private static Reading At(double daysAgo, double cpu = 70, double ambient = 24, double power = double.NaN, double rpm = double.NaN, double pct = double.NaN) => new(
        (long)((Hall.Now - daysAgo) * 86_400_000), ambient, double.NaN, power, rpm, pct, double.NaN, double.NaN, double.NaN, "stock", "full", null, [cpu]);

    private static Reading[] Weekly(Func<int, Reading> reading) => [.. Enumerable.Range(0, 50).Select(i => reading(i))];

    [Theory]
    [InlineData(0, "No readings yet")]
    [InlineData(1, "Only 1 reading:")]
    [InlineData(2, "Only 2 readings:")]
    public void Too_few_readings_say_what_is_missing(int count, string words)
    {
        var a = Hall.JudgeAlone(Desktop, [.. Enumerable.Range(0, count).Select(i => At(10 - i))]);
        Assert.Equal(Urgency.Unknown, a.Urgency);
        Assert.StartsWith(words, a.Reason, StringComparison.Ordinal);
        Assert.Null(a.DriftKelvin);
        Assert.NotNull(a.ToBeSurer);
    }

    [Fact]
    public void Equal_readings_are_fine_and_have_no_date()
    {
        var a = Hall.JudgeAlone(Desktop, Weekly(i => At(350 - 7 * i)));
        Assert.Equal(Urgency.Fine, a.Urgency);
        Assert.Null(a.Action);
        Assert.InRange(a.DriftKelvin!.Value, 0, 0.5);
    }

    [Fact]
    public void Nothing_but_temperatures_is_judged_with_little_evidence()
    {
        var a = Hall.JudgeAlone(Desktop, Weekly(i => At(350 - 7 * i, ambient: double.NaN)));
        Assert.Equal(Urgency.Unknown, a.Urgency);
    }

    [Fact]
    public void Standing_fan_and_no_power_are_no_division_by_zero()
    {
        var a = Hall.JudgeAlone(Desktop, Weekly(i => At(350 - 7 * i, cpu: i > 40 ? 92 : 70, power: 0, rpm: i > 40 ? 0 : 1400, pct: 60)));
        Assert.True(a.Parts.All(p => double.IsFinite(p.Split.Total) && double.IsFinite(p.HottestC)));
    }

    [Fact]
    public void Air_warmer_than_the_part_is_a_sensor_and_not_cooling()
    {
        var a = Hall.JudgeAlone(Desktop, Weekly(i => At(350 - 7 * i, cpu: (i % 5 == 0 ? 12 : 70) + i % 3, ambient: 24 + i % 3)));
        Assert.Contains(a.SensorFindings, f => f.Channel == "cpu");
        Assert.InRange(a.DriftKelvin!.Value, 0, 1.5);
    }

    [Fact]
    public void A_frozen_sensor_is_dropped_and_told()
    {
        var random = new Random(3);
        var two = Desktop with { Parts = [new("cpu", new(95), JointMaterial.Paste), new("gpu", new(95), JointMaterial.Paste)] };
        Reading[] readings = [.. Enumerable.Range(0, 360).Select(i =>
        {
            var air = 20 + 6 * Math.Sin(i / 40.0);
            return new Reading((long)((Hall.Now - 360 + i) * 86_400_000), Math.Round(air, 1), double.NaN, 150, double.NaN, double.NaN, double.NaN, double.NaN, double.NaN, "stock", "full", null,
                [Math.Round(air + 45 + random.NextDouble()), i > 250 ? 71 : Math.Round(air + 40 + random.NextDouble())]);
        })];
        var a = Hall.JudgeAlone(two, readings);
        Assert.Contains(a.SensorFindings, f => f.Channel == "gpu" && f.What.Contains("stands at 71", StringComparison.Ordinal));
        Assert.True(a.DriftKelvin < 2.5);
    }

    [Fact]
    public void Two_services_on_one_day_and_one_in_the_future_are_taken_as_they_come()
    {
        var served = Desktop with { Services = [new(Hall.Today.AddDays(-100), ServiceLevel.DustOut), new(Hall.Today.AddDays(-100), ServiceLevel.Repaste), new(Hall.Today.AddDays(40), ServiceLevel.Repad)] };
        var a = Hall.JudgeAlone(served, Weekly(i => At(350 - 7 * i)));
        Assert.Equal(Urgency.Fine, a.Urgency);
    }

    [Fact]
    public void Days_count_from_1970_and_a_service_is_dated_at_noon()
    {
        Assert.Equal(0.5, UnixDay.Noon(new(1970, 1, 1)));
        Assert.Equal(new DateOnly(2026, 3, 1), UnixDay.DateOf(UnixDay.Noon(new(2026, 3, 1))));
    }
}
