using Pyrometron.Core.Causes;
using Pyrometron.Core.Drift;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Readings;
using Pyrometron.Core.Simulation;

namespace Pyrometron.Core.Tests.Judging;

/// <summary>The steps between readings and a judgement, each by itself.</summary>
public class DriftTests
{
    private static readonly Asset Card = new(
        "GC-1",
        AssetKind.GraphicsCard,
        "Sorrel",
        "ROW",
        null,
        24,
        Hall.Today.AddDays(-400),
        null,
        [new("core", new(90), JointMaterial.Paste), new("memory", new(105), JointMaterial.Pad)],
        []
    );

    private static Reading At(
        double day,
        double core,
        double memory,
        double ambient = 25,
        double power = 200,
        double rpm = 1800,
        double pct = 60,
        string load = "steady",
        string settings = "stock"
    ) =>
        new(
            (long)((Hall.Now + day) * 86_400_000),
            ambient,
            double.NaN,
            power,
            rpm,
            pct,
            double.NaN,
            double.NaN,
            double.NaN,
            settings,
            load,
            null,
            [core, memory]
        );

    private static Channels Clean(IEnumerable<Reading> readings) => Channels.Clean(Card, ReadingSeries.From([.. readings], 2));

    [Fact]
    public void Columns_keep_what_was_measured_and_number_the_labels()
    {
        var series = ReadingSeries.From([At(-2, 60, 80), At(-1, 61, 81, load: "light"), At(0, double.NaN, 82)], 2);
        Assert.Equal([0, 1, 0], series.Workload);
        Assert.Equal([1, 0], series.Since(series.Day[1]).Workload);
        Assert.True(double.IsNaN(series.Parts[0][2]));
        Assert.Equal(1, series.Day[1] - series.Day[0], 1e-9);
    }

    [Fact]
    public void A_single_spike_is_dropped_and_an_idle_window_is_none()
    {
        var readings = Enumerable
            .Range(0, 40)
            .Select(i =>
                At(
                    -40 + i,
                    i == 20 ? 110 : 60 + i % 2,
                    80 + i % 2,
                    load: i % 10 == 5 ? "idle" : "steady",
                    power: i % 10 == 5 ? 30 : 200
                )
            )
            .Select(r => r.Workload == "idle" ? r with { PartsC = [32, 35] } : r);
        var clean = Clean(readings);
        Assert.True(double.IsNaN(clean.Parts[0][20]));
        Assert.Equal(32, clean.Parts[0][15]);
        Assert.Single(clean.Findings);
    }

    [Fact]
    public void The_reference_point_is_the_usual_heat_under_the_present_settings()
    {
        var reference = ReferencePoint.Of(
            Clean(
                Enumerable
                    .Range(0, 200)
                    .Select(i =>
                        At(
                            -200 + i,
                            60,
                            80,
                            power: i < 120 ? 200 : 230,
                            settings: i < 120 ? "stock" : "raised",
                            load: i % 5 == 0 ? "light" : "steady"
                        )
                    )
            )
        )!;
        Assert.Equal((230.0, true), (reference.PowerW, reference.HasPower));
        Assert.True(reference.FanFixed);
        Assert.Equal(0, ReferencePoint.Of(Clean([At(0, 60, 80)]))!.Workload);
        Assert.Null(ReferencePoint.Of(Clean([])));
    }

    [Fact]
    public void An_automatic_fan_is_brought_to_25_degrees()
    {
        // The command follows the weather: 60 % at 25 °C, two per cent more for each kelvin.
        var reference = ReferencePoint.Of(
            Clean(
                Enumerable
                    .Range(0, 300)
                    .Select(i =>
                    {
                        var air = 27 + 4 * Math.Sin(i / 15.0);
                        return At(-300 + i, 60, 80, ambient: air, pct: 60 + 2 * (air - 25), rpm: 30 * (60 + 2 * (air - 25)));
                    })
            )
        )!;
        Assert.False(reference.FanFixed);
        Assert.Equal(60, reference.FanPct, 1.0);
        Assert.Equal(1800, reference.FanSpeed, 30.0);
        Assert.Equal(3000, reference.FullSpeed, 60.0);
    }

    [Fact]
    public void Five_days_under_one_load_become_one_cell()
    {
        var channels = Clean(
            Enumerable
                .Range(0, 80)
                .Select(i =>
                    At(-20 + i * 0.25, 60 + i % 3, 80, load: i % 4 == 3 ? "light" : "steady", power: i % 4 == 3 ? 160 : 200)
                )
        );
        var table = CellTable.Of(Card, channels, ReferencePoint.Of(channels)!);
        Cell[] cells = [.. table.All];
        Assert.InRange(table.Count, 8, 10);
        Assert.All(
            cells.Where(c => c.Workload == 0),
            c => Assert.Equal((1.0, 36.0), (Math.Round(c.Heat, 6), Math.Round(c.Rise(0))))
        );
        Assert.All(cells.Where(c => c.Workload == 1), c => Assert.Equal(0.8, c.Heat, 1e-6));
        Assert.Equal(80, cells.Sum(c => c.Count));
    }

    [Fact]
    public void Without_power_the_unloaded_chip_tells_the_heat_of_one_cooler_and_not_of_two()
    {
        var readings = Enumerable
            .Range(0, 60)
            .Select(i => At(-300 + 5 * i, 75, i % 2 == 0 ? 75 : 50, power: double.NaN, load: i % 2 == 0 ? "full" : "one chip"))
            .ToArray();
        var channels = Clean(readings);
        var reference = ReferencePoint.Of(channels)!;
        var laptop = CellTable.Of(Card with { Kind = AssetKind.Laptop }, channels, reference).All.First(c => c.Workload == 1);
        Assert.Equal([0.5, 0.5], new[] { 0, 1 }.Select(p => Math.Round(laptop.AirHeat(p), 2)));
        Assert.Equal([1, 0], new[] { 0, 1 }.Select(p => Math.Round(laptop.JointHeat(p), 2)));
        var desktop = CellTable.Of(Card with { Kind = AssetKind.Desktop }, channels, reference).All.First(c => c.Workload == 1);
        Assert.Equal([1, 0.5], new[] { 0, 1 }.Select(p => Math.Round(desktop.AirHeat(p), 2)));
    }

    [Fact]
    public void A_machine_without_its_own_air_takes_the_zones_and_one_that_strays_is_not_believed()
    {
        Reading[] Year(Func<int, double> air) => [.. Enumerable.Range(0, 300).Select(i => At(-300 + i, 60, 80, ambient: air(i)))];
        double Season(int i) => 22 + 5 * Math.Sin(i / 50.0);
        var sound = Enumerable.Range(0, 6).Select(_ => Clean(Year(Season))).ToArray();
        var blind = Clean(Year(_ => double.NaN));
        var strayed = Clean(Year(i => Season(i) + 1 + (i > 200 ? 8 : 0)));
        var zone = ZoneAir.Of([.. sound, blind, strayed]);
        Assert.False(zone.Complete(blind));
        Assert.Equal(Season(150), blind.Ambient[150], 0.6);
        Assert.True(zone.Complete(strayed));
        Assert.Equal(Season(280) + 1, strayed.Ambient[280], 0.8);
        Assert.Contains(strayed.Findings, f => f.Channel == "ambient");
        Assert.True(double.IsNaN(ZoneAir.Of([]).At(20_000)));
    }

    [Fact]
    public void A_fan_that_turns_slower_than_its_command_asks_has_lost_that_share()
    {
        FanHealth Judge(double lost, double renewed = double.NegativeInfinity)
        {
            var channels = Clean(
                Enumerable.Range(0, 60).Select(i => At(-300 + 5 * i, 60, 80, pct: 60, rpm: 60 * (i < 40 ? 30 : 30 * (1 - lost))))
            );
            var reference = ReferencePoint.Of(channels)!;
            return FanHealth.Of(CellTable.Of(Card, channels, reference), renewed);
        }
        Assert.Equal(0.8, Judge(0.2).SpeedShare, 1e-6);
        Assert.Equal(1, Judge(0.02).SpeedShare);
        Assert.Equal(1, Judge(0.2, Hall.Now - 90).SpeedShare, 0.3);
    }

    private static FanHealth Listening(Func<int, (double PartC, double Rpm)> at)
    {
        var channels = Clean(
            Enumerable.Range(0, 60).Select(i => at(i) is var (c, n) ? At(-300 + 5 * i, 60, c, pct: double.NaN, rpm: n) : null!)
        );
        var reference = ReferencePoint.Of(channels)!;
        return FanHealth.Of(CellTable.Of(Card with { Kind = AssetKind.Desktop }, channels, reference), double.NegativeInfinity);
    }

    [Fact]
    public void Without_a_command_a_fan_is_known_by_its_speed_at_equal_temperature()
    {
        // It follows the part, 40 turns a kelvin; from the fortieth reading it turns a fifth slower at every temperature.
        Assert.Equal(0.8, Listening(i => (76 + i % 9, (1400 + 40 * (i % 9)) * (i < 40 ? 1 : 0.8))).SpeedShare, 0.01);
        Assert.Equal(1, Listening(i => (76 + i % 9, 1400 + 40 * (i % 9))).SpeedShare);
        // One that loses a little every day has a pace: a thousandth a day, of five days a reading.
        Assert.Equal(
            0.001,
            Listening(i => (76 + i % 9, (1400 + 40 * (i % 9)) * (1 - 0.005 * Math.Max(0, i - 30)))).LostPerDay,
            0.0002
        );
    }

    [Fact]
    public void Without_a_command_a_fan_that_slows_because_it_is_cooler_is_sound()
    {
        // Late readings are cooler than any early one: nothing to hold the speed against.
        Assert.Equal(
            1,
            Listening(i => (i < 40 ? 80 + i % 9 : 70 + i % 9, i < 40 ? 1800 + 40 * (i % 9) : 1400 + 40 * (i % 9))).SpeedShare
        );
        // A fan that holds its part at one temperature turns at any speed there.
        Assert.Equal(1, Listening(i => (78, 1800 - 400 * Math.Sin(i / 9.0))).SpeedShare);
    }

    [Fact]
    public void A_service_wins_what_it_removes_and_the_split_ranks_its_causes()
    {
        var split = new CauseSplit(4, 6, 1, 2, JointMaterial.Pad);
        Assert.Equal(13, split.Total);
        Assert.Equal([Cause.Pads, Cause.Dust, Cause.Mount, Cause.Fan, Cause.Paste], split.Ranked().Select(c => c.Cause));
        // A cleaning leaves 15 % of the dust (common practice, no source).
        Assert.Equal([2, 3.4, 4.4, 5.4, 11.4], ServiceEffects.AgainstWear.Select(l => Math.Round(split.WonBy(l), 9)));
        Assert.Equal(0, split.WonBy(ServiceLevel.Inspect));
        Assert.Equal(0, split.Of(Cause.Room));
    }

    [Fact]
    public void Simulated_faults_cost_what_they_say_and_services_take_them_away()
    {
        var fault = new Fault(Cause.Dust, Hall.Now - 200, Hall.Now - 100, 8);
        Assert.Equal([0, 4, 8], new[] { -200.0, -150, -50 }.Select(d => fault.At(Hall.Now + d)));
        var machine = new SimulatedMachine(
            Card with
            {
                Services = [new(Hall.Today.AddDays(-60), ServiceLevel.DustOut)],
            },
            200,
            25,
            [12, 25],
            3000,
            new FanControl.Fixed(60),
            [new SimulatedLoad("steady", 1, 1)],
            new Instruments(1),
            [fault]
        );
        double Core(double day) => machine.Settle(Hall.Now + day, 1, 25).PartsC[0];
        Assert.Equal(8, Core(-80) - Core(-250), 1e-9);
        Assert.Equal(8 * ServiceEffects.DustLeftBehind, Core(-10) - Core(-250), 1e-9);
    }

    [Fact]
    public void A_simulated_automatic_fan_hides_dust_until_it_is_at_full_speed()
    {
        SimulatedMachine With(double dust) =>
            new(
                Card,
                200,
                25,
                [12, 25],
                3000,
                new FanControl.Holds(70),
                [new SimulatedLoad("steady", 1, 1)],
                new Instruments(1),
                [new Fault(Cause.Dust, 0, 1, dust)]
            );
        var (clean, dusty, choked) = (With(0).Settle(100, 1, 25), With(2).Settle(100, 1, 25), With(60).Settle(100, 1, 25));
        Assert.Equal(clean.PartsC.Max(), dusty.PartsC.Max(), 0.1);
        Assert.True(dusty.FanPct > clean.FanPct + 3);
        Assert.Equal(100, choked.FanPct, 0.1);
        Assert.True(choked.PartsC.Max() > 75);
    }
}
