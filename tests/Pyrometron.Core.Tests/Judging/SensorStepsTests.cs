using Pyrometron.Core.Drift;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Readings;

namespace Pyrometron.Core.Tests.Judging;

/// <summary>A sensor that jumps is no wear: it leaves all the others at once, and heat cannot do that.</summary>
public class SensorStepsTests
{
    private static Asset Card(params ServiceDone[] services) =>
        new(
            "GC-1",
            AssetKind.GraphicsCard,
            "Sorrel",
            "ROW",
            null,
            24,
            Hall.Today.AddDays(-400),
            null,
            [
                new("core", new(90), JointMaterial.Paste),
                new("hotspot", new(105), JointMaterial.Paste),
                new("memory", new(105), JointMaterial.Pad),
            ],
            services
        );

    private static List<SensorStep> Find(Asset asset, Func<int, double[]> parts, Func<int, string>? settings = null)
    {
        var series = ReadingSeries.From(
            [
                .. Enumerable
                    .Range(0, 330)
                    .Select(day => new Reading(
                        (long)((Hall.Now - 330 + day) * 86_400_000),
                        25,
                        double.NaN,
                        200,
                        1800,
                        60,
                        double.NaN,
                        double.NaN,
                        double.NaN,
                        settings?.Invoke(day) ?? "stock",
                        "steady",
                        null,
                        parts(day)
                    )),
            ],
            asset.Parts.Count
        );
        var channels = Channels.Clean(asset, series);
        var reference = ReferencePoint.Of(channels)!;
        return SensorSteps.Find(asset, reference, CellTable.Of(asset, channels, reference), testRuns: false);
    }

    [Fact]
    public void One_sensor_that_jumps_alone_is_found_on_its_day()
    {
        var steps = Find(Card(), day => [60 + day % 2, 74 + day % 2, 80 + day % 2 + (day >= 180 ? 9 : 0)]);
        var step = Assert.Single(steps);
        Assert.Equal(2, step.Part);
        Assert.InRange(step.Day, Hall.Now - 330 + 174, Hall.Now - 330 + 186);
    }

    [Fact]
    public void A_jump_that_goes_back_again_is_two()
    {
        var steps = Find(Card(), day => [60 + day % 2, 74 + day % 2 - (day is >= 80 and < 140 ? 7 : 0), 80 + day % 2]);
        Assert.Equal([1, 1], steps.Select(s => s.Part));
        Assert.InRange(steps[1].Day - steps[0].Day, 50, 70);
    }

    [Fact]
    public void Pads_that_harden_over_months_are_no_jump() =>
        Assert.Empty(Find(Card(), day => [60 + day % 2, 74 + day % 2, 80 + day % 2 + 12.0 * day / 330]));

    [Fact]
    public void What_all_parts_do_together_is_no_sensor() =>
        Assert.Empty(
            Find(
                Card(),
                day =>
                    [60 + day % 2 + (day > 200 ? 8 : 0), 74 + day % 2 + (day > 200 ? 8 : 0), 80 + day % 2 + (day > 200 ? 8 : 0)]
            )
        );

    [Fact]
    public void A_jump_on_the_day_of_a_service_or_of_new_settings_is_theirs()
    {
        double[] Parts(int day) => [60 + day % 2, 74 + day % 2, 80 + day % 2 + (day >= 180 ? 9 : 0)];
        Assert.Empty(Find(Card(new ServiceDone(Hall.Today.AddDays(-150), ServiceLevel.Repad)), Parts));
        Assert.Empty(Find(Card(), Parts, day => day < 180 ? "stock" : "raised"));
    }

    [Fact]
    public void With_two_sensors_the_one_whose_own_reading_jumped_is_to_blame()
    {
        var laptop = Card() with
        {
            Kind = AssetKind.Laptop,
            Parts = [new("cpu", new(95), JointMaterial.Paste), new("gpu", new(92), JointMaterial.Paste)],
        };
        Assert.Equal(0, Assert.Single(Find(laptop, day => [70 + day % 2 + (day >= 120 ? 8 : 0), 64 + day % 2])).Part);
        Assert.Equal(1, Assert.Single(Find(laptop, day => [70 + day % 2, 64 + day % 2 - (day >= 120 ? 8 : 0)])).Part);
    }

    /// <summary>Sensors that step at random once sent the search in circles.</summary>
    [Fact]
    public void Sensors_that_step_again_and_again_bring_the_search_to_an_end()
    {
        for (var seed = 0; seed < 40; seed++)
        {
            var random = new Random(seed);
            double[] at = [60, 74, 80];
            double[] Next(int day)
            {
                if (random.NextDouble() < 0.06)
                    at[random.Next(3)] += 24 * random.NextDouble() - 12;
                return [.. at.Select(c => Math.Round(c + random.NextDouble()))];
            }
            Assert.InRange(Find(Card(), Next).Count, 0, 12);
        }
    }

    [Fact]
    public void One_sensor_alone_cannot_be_judged_against_others() =>
        Assert.Empty(
            Find(Card() with { Parts = [new("cpu", new(95), JointMaterial.Paste)] }, day => [70 + (day >= 120 ? 15 : 0)])
        );
}
