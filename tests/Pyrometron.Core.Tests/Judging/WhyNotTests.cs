using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Simulation;

namespace Pyrometron.Core.Tests.Judging;

/// <summary>Why this and nothing else: every explanation with its kelvins, on simulated machines whose truth is known.</summary>
public class WhyNotTests
{
    private static Dictionary<Explaining, Alternative> Of(Assessment a) => a.WhyNot.ToDictionary(w => w.What);

    [Fact]
    public void A_dusty_card_in_a_warm_hall_names_the_dust_and_takes_the_hall_out()
    {
        var hall = new Hall().WithHealthy(8).With("DUST", [new Fault(Cause.Dust, Hall.Now - 300, Hall.Now, 10)]);
        hall.Room.Add(new RoomEvent(Hall.Now - 60, double.PositiveInfinity, 5, Seen: false));
        var (dusty, healthy) = (Of(hall.JudgeOne("DUST")), Of(hall.JudgeOne("OK-01")));
        Assert.Equal(Weighed.Found, dusty[Explaining.Dust].Weighed);
        Assert.InRange(dusty[Explaining.Dust].Kelvin!.Value, 7, 12);
        Assert.Equal(Weighed.TakenOut, dusty[Explaining.Room].Weighed);
        Assert.InRange(dusty[Explaining.Room].Kelvin!.Value, 3, 6);
        Assert.Equal(Weighed.TakenOut, healthy[Explaining.Room].Weighed);
        Assert.DoesNotContain(healthy.Values, w => w.Weighed == Weighed.Found);
        Assert.All(
            (Explaining[])[Explaining.Sensor, Explaining.GroupEvent, Explaining.Settings, Explaining.CoolerLimited],
            what => Assert.Equal(Weighed.RuledOut, dusty[what].Weighed)
        );
        // Every kind of explanation stands there once, and each has its sentence.
        Assert.Equal(Enum.GetValues<Explaining>(), dusty.Keys.Order());
        Assert.All(dusty.Values, w => Assert.NotEmpty(w.Evidence.ToString()));
    }

    [Fact]
    public void What_is_not_measured_is_not_ruled_out()
    {
        var alone = new Hall().With(
            "GC-1",
            [],
            change: m => m with { Instruments = m.Instruments with { Fan = false, Power = false } }
        );
        var found = Of(alone.JudgeOne("GC-1"));
        Assert.Equal(Weighed.NotTold, found[Explaining.Room].Weighed);
        Assert.Equal(Weighed.NotTold, found[Explaining.Fan].Weighed);
        Assert.Equal(Weighed.NotTold, found[Explaining.Settings].Weighed);
        Assert.All((Explaining[])[Explaining.Room, Explaining.Fan, Explaining.Settings], what => Assert.Null(found[what].Kelvin));
    }

    [Fact]
    public void A_sensor_that_jumped_is_taken_out_and_says_which()
    {
        var hall = new Hall()
            .WithHealthy(6)
            .With("JUMP", [], change: m => m with { Sensor = new SensorFault("memory", Hall.Now - 40, 12) });
        var sensor = Of(hall.JudgeOne("JUMP"))[Explaining.Sensor];
        Assert.Equal(Weighed.TakenOut, sensor.Weighed);
        Assert.StartsWith("Memory sensor:", sensor.Evidence.ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public void Without_measurements_there_is_nothing_to_weigh() => Assert.Empty(Hall.JudgeAlone(Handmade.Laptop(95, 10)).WhyNot);
}
