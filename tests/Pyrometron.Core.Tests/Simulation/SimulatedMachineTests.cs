using Pyrometron.Core.Fleet;
using Pyrometron.Core.Simulation;
using Pyrometron.Core.Tests.Judging;

namespace Pyrometron.Core.Tests.Simulation;

public class SimulatedMachineTests
{
    private static readonly SimulatedLoad[] Steady = [new("steady", 1, 1)];

    private static Asset Of(AssetKind kind, params ServiceDone[] services) =>
        new(
            "M-1",
            kind,
            "Type",
            "Z",
            null,
            24,
            Hall.Today.AddDays(-400),
            null,
            kind is AssetKind.GraphicsCard
                ?
                [
                    new("core", new(90), JointMaterial.Paste),
                    new("hotspot", new(105), JointMaterial.Paste),
                    new("memory", new(105), JointMaterial.Pad),
                ]
                : [new("cpu", new(95), JointMaterial.Paste), new("gpu", new(93), JointMaterial.Paste)],
            services
        );

    private static SimulatedMachine Card(FanControl fan, params Fault[] faults) =>
        new(Of(AssetKind.GraphicsCard), 200, 25, [12, 24, 22], 3000, fan, Steady, new Instruments(0.25), faults);

    [Fact]
    public void A_following_fan_is_at_its_least_when_cool_and_at_full_speed_when_hot()
    {
        double Percent(double airC) => Card(new FanControl.Follows(50, 80)).Settle(0, 1, airC).FanPct;
        Assert.Equal(FanControl.LeastPercent, Percent(-30), 0.01);
        Assert.Equal(100, Percent(60), 0.01);
        Assert.True(Percent(22) < Percent(26) && Percent(26) < 100);
        // It stands where its own curve asks for it: (T − 50) / 30 of the way from 25 to 100 %.
        var (parts, pct, _) = Card(new FanControl.Follows(50, 80)).Settle(0, 1, 20);
        Assert.Equal(25 + 75 * (parts.Max() - 50) / 30, pct, 0.01);
    }

    [Fact]
    public void A_kelvin_of_warmer_air_warms_a_fixed_fan_by_one_a_following_one_by_less_and_a_holding_one_not_at_all()
    {
        double Warmed(FanControl fan) => Card(fan).Settle(0, 1, 26).PartsC.Max() - Card(fan).Settle(0, 1, 25).PartsC.Max();
        Assert.Equal(1, Warmed(new FanControl.Fixed(60)), 1e-9);
        Assert.InRange(Warmed(new FanControl.Follows(50, 90)), 0.4, 0.9);
        Assert.Equal(0, Warmed(new FanControl.Holds(75)), 0.01);
    }

    [Fact]
    public void What_each_cause_costs_is_told_at_the_command_that_the_fresh_machine_would_have()
    {
        var machine = Card(
            new FanControl.Follows(50, 90),
            new Fault(Cause.Dust, -1, 0, 5),
            new Fault(Cause.Paste, -1, 0, 2, "core"),
            new Fault(Cause.Pads, -1, 0, 3, "memory"),
            new Fault(Cause.Fan, -1, 0, 4)
        );
        var fresh = (machine with { Faults = [] }).Settle(10, 1, 25);
        var wear = machine.Wear(10);
        // At a fixed fan of that command the causes add up to what the machine is warmer by.
        var worn = (machine with { Fan = new FanControl.Fixed(fresh.FanPct) }).Settle(10, 1, 25).PartsC;
        Assert.All(Enumerable.Range(0, 3), p => Assert.Equal(worn[p] - fresh.PartsC[p], wear[p].Values.Sum(), 1e-6));
        Assert.Equal(
            (2, 0),
            (wear[0][Cause.Paste], wear[2][Cause.Paste]),
            (a, b) => Math.Abs(a.Item1 - b.Item1) + Math.Abs(a.Item2 - b.Item2) < 1e-9
        );
        Assert.Equal(3, wear[2][Cause.Pads], 1e-9);
        Assert.Equal(wear[0][Cause.Dust], wear[2][Cause.Dust], 1e-9);
        // Paste on a card widens the hot spot's gap more than the core's.
        Assert.True(wear[1][Cause.Paste] > 2 * wear[0][Cause.Paste]);
    }

    [Fact]
    public void On_a_hot_day_an_automatic_fan_has_all_its_speed_and_a_fixed_one_what_it_has()
    {
        Assert.Equal(
            Card(new FanControl.Fixed(100)).Settle(0, 1, 33).PartsC,
            Card(new FanControl.Follows(50, 90)).Hottest(0, 33)
        );
        Assert.Equal(Card(new FanControl.Fixed(60)).Settle(0, 1, 33).PartsC, Card(new FanControl.Fixed(60)).Hottest(0, 33));
    }

    [Fact]
    public void An_idle_part_is_cold_on_its_own_cooler_and_half_warm_on_a_shared_one()
    {
        double Gpu(AssetKind kind, SimulatedLoad load) =>
            new SimulatedMachine(Of(kind), 100, 25, [20, 20], 3000, new FanControl.Fixed(60), [load], new Instruments(7), [])
                .Settle(0, load.PowerShare, 25, load)
                .PartsC[1] - 25;
        var (all, one) = (new SimulatedLoad("all", 1, 1), new SimulatedLoad("one", 0.6, 1, "gpu"));
        Assert.Equal(45, Gpu(AssetKind.Desktop, all), 1e-9);
        Assert.Equal(45 * 0.1, Gpu(AssetKind.Desktop, one), 1e-9);
        Assert.Equal(0.6 * 25 + 0.1 * 20, Gpu(AssetKind.Laptop, one), 1e-9);
    }

    [Fact]
    public void Every_cleaning_leaves_its_share_and_new_paste_none()
    {
        var services = new[]
        {
            new ServiceDone(Hall.Today.AddDays(-100), ServiceLevel.DustOut),
            new ServiceDone(Hall.Today.AddDays(-50), ServiceLevel.Repaste),
        };
        var machine = Card(
            new FanControl.Fixed(60),
            new Fault(Cause.Dust, Hall.Now - 300, Hall.Now - 200, 10),
            new Fault(Cause.Paste, Hall.Now - 300, Hall.Now - 200, 4, "core")
        ) with
        {
            Asset = Of(AssetKind.GraphicsCard, services),
            DustLeftBehind = 0.2,
        };
        Assert.Equal(
            [10, 2, 0.4],
            new[] { -150.0, -70, -10 }.Select(d => Math.Round(machine.Wear(Hall.Now + d)[0][Cause.Dust], 9))
        );
        Assert.Equal(
            [4, 4, 0],
            new[] { -150.0, -70, -10 }.Select(d => Math.Round(machine.Wear(Hall.Now + d)[0][Cause.Paste], 9))
        );
    }

    [Fact]
    public void Readings_scatter_as_much_as_they_are_told_to()
    {
        var zone = new SimulatedZone("Z", 25, 0, []);
        double[] Cores(Scatter scatter) =>
            [
                .. Workshop
                    .Run(Card(new FanControl.Fixed(60)) with { Scatter = scatter }, zone, 0, 500, 3, 0)
                    .Select(r => r.PartsC[0] - r.PowerW / 200 * 37),
            ];
        double Sd(double[] v) => Math.Sqrt(v.Sum(x => Math.Pow(x - v.Average(), 2)) / v.Length);
        var (quiet, loud, airy) = (Cores(new(0, 0)), Cores(new(3, 0)), Cores(new(0, 3)));
        Assert.InRange(Sd(loud) / Math.Sqrt(9 + Sd(quiet) * Sd(quiet)), 0.93, 1.07);
        Assert.InRange(Sd(airy), 2, 4.5);
        // Runs are independent of each other, the air in front of a machine is not.
        double Lag(double[] v) =>
            v.Skip(1).Zip(v, (a, b) => (a - v.Average()) * (b - v.Average())).Sum() / v.Sum(x => Math.Pow(x - v.Average(), 2));
        Assert.InRange(Lag(loud), -0.1, 0.1);
        Assert.True(Lag(airy) > 0.7);
    }

    [Fact]
    public void A_wrong_sensor_is_off_or_stands_still_and_the_others_are_right()
    {
        var zone = new SimulatedZone("Z", 25, 0, []);
        double[][] Read(double? offset) =>
            [
                .. Workshop
                    .Run(
                        Card(new FanControl.Fixed(60)) with
                        {
                            Sensor = new SensorFault("memory", 10, offset),
                        },
                        zone,
                        0,
                        20,
                        5,
                        0
                    )
                    .Select(r => r.PartsC),
            ];
        var (sound, off, stuck) = (Read(0), Read(8), Read(null));
        Assert.All(
            sound.Zip(off).Select((pair, i) => (pair, i)),
            x => Assert.Equal(x.i < 40 ? 0 : 8, x.pair.Second[2] - x.pair.First[2])
        );
        Assert.Equal(sound.Average(r => r[0]), stuck.Average(r => r[0]), 0.4);
        Assert.Single(stuck.Skip(40).Select(r => r[2]).Distinct());
    }

    [Fact]
    public void A_season_that_the_sensors_do_not_see_is_felt_all_the_same()
    {
        var zone = new SimulatedZone("Z", 24, 4, [new RoomEvent(100, 110, 3, Seen: true)]) { SeasonSeen = false };
        Assert.Equal([24, 27, 24], new[] { 50.0, 105, 200 }.Select(zone.SeenC));
        Assert.True(
            Enumerable.Range(0, 365).Max(d => zone.FeltC(d)) > 27 && Enumerable.Range(0, 365).Min(d => zone.FeltC(d)) < 21
        );
    }
}
