using Pyrometron.Core.Drift;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Readings;
using Pyrometron.Core.Tests.Judging;

namespace Pyrometron.Core.Tests.Drift;

/// <summary>
/// A sensor that jumps between two of a few test runs leaves the other part at once, by the same kelvins under every load.
/// </summary>
public class TestRunStepsTests
{
    private static Asset Laptop(params ServiceDone[] services) =>
        new(
            "LT-1",
            AssetKind.Laptop,
            "Teal",
            "ROW",
            null,
            8,
            Hall.Today.AddDays(-500),
            null,
            [new("cpu", new(97), JointMaterial.Paste), new("gpu", new(94), JointMaterial.Paste)],
            services
        );

    /// <summary>A run in four weeks, every third with the processor alone, each in air of its own.</summary>
    /// <param name="cpu">What the processor reads more, by month and load.</param>
    private static List<SensorStep> Find(Func<int, bool, double> cpu, Func<int, bool, double>? gpu = null, Asset? asset = null)
    {
        var random = new Random(5);
        var machine = asset ?? Laptop();
        var series = ReadingSeries.From(
            [
                .. Enumerable
                    .Range(0, 13)
                    .Select(month =>
                    {
                        var alone = month % 3 == 2;
                        var warmth = 3 * random.NextDouble();
                        return new Reading(
                            (long)((Hall.Now - 28 * (13 - month)) * 86_400_000),
                            22,
                            double.NaN,
                            double.NaN,
                            3000,
                            double.NaN,
                            double.NaN,
                            double.NaN,
                            double.NaN,
                            "stock",
                            alone ? "processor only" : "load",
                            null,
                            [
                                Math.Round((alone ? 70 : 80) + warmth + cpu(month, alone)),
                                Math.Round((alone ? 47 : 72) + warmth + (gpu?.Invoke(month, alone) ?? 0)),
                            ]
                        );
                    }),
            ],
            2
        );
        var channels = Channels.Clean(machine, series);
        var reference = ReferencePoint.Of(channels)!;
        return SensorSteps.Find(machine, reference, CellTable.Of(machine, channels, reference), testRuns: true);
    }

    [Theory]
    [InlineData(14)]
    [InlineData(-9)]
    public void A_jump_between_two_monthly_runs_is_found(double kelvin)
    {
        var step = Assert.Single(Find((month, _) => month >= 8 ? kelvin : 0));
        Assert.Equal(0, step.Part);
        Assert.InRange(step.Day, Hall.Now - 28 * 6.1, Hall.Now - 28 * 4.9);
    }

    [Fact]
    public void Paste_that_fails_over_months_is_none() => Assert.Empty(Find((month, _) => Math.Max(0, month - 5) * 2));

    /// <summary>The same resistance costs nothing where no heat goes through it: that is a joint, and no offset.</summary>
    [Fact]
    public void What_shows_under_load_alone_is_none() =>
        Assert.Empty(Find((_, _) => 0, (month, alone) => month >= 8 && !alone ? 12 : 0));

    [Fact]
    public void What_came_with_a_service_is_its_mount() =>
        Assert.Empty(
            Find(
                (month, _) => month >= 8 ? 12 : 0,
                asset: Laptop(new ServiceDone(Hall.Today.AddDays(-28 * 5 - 12), ServiceLevel.Repaste))
            )
        );

    [Fact]
    public void Warmer_air_for_both_is_none() =>
        Assert.Empty(Find((month, _) => month >= 8 ? 9 : 0, (month, _) => month >= 8 ? 9 : 0));
}
