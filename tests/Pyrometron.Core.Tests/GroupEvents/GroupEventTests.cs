using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.GroupEvents;
using Pyrometron.Core.Simulation;
using Pyrometron.Core.Tests.Judging;

namespace Pyrometron.Core.Tests.GroupEvents;

/// <summary>What happens to many machines on one day is one event, and no wear of each.</summary>
public class GroupEventTests
{
    private const string Updated = "Tansy";

    /// <summary>Six cards of each of two models in one room; those of one report otherwise from a day on.</summary>
    private static Hall TwoModels(double kelvin, double daysAgo, int reportingOtherwise = 6)
    {
        var hall = new Hall();
        for (var i = 0; i < 6; i++)
        {
            hall.With($"S-{i}", []);
            hall.With($"T-{i}", [], change: m => m with { Asset = m.Asset with { Model = Updated } });
            if (i < reportingOtherwise)
                hall.Distorted[$"T-{i}"] = r =>
                    r.UnixMilliseconds / 86_400_000.0 < Hall.Now - daysAgo
                        ? r
                        : r with
                        {
                            PartsC = [.. r.PartsC.Select(c => c + kelvin)],
                        };
        }
        return hall;
    }

    [Theory]
    [InlineData(7)]
    [InlineData(-5)]
    public void New_firmware_of_a_model_is_found_with_its_day_and_size_and_sends_nobody(double kelvin)
    {
        var judgement = TwoModels(kelvin, daysAgo: 100).Judge();
        var found = Assert.Single(judgement.Events);
        Assert.Equal((GroupEventKind.Readings, Updated), (found.Kind, found.Group));
        Assert.InRange(found.Day, Hall.Now - 108, Hall.Now - 92);
        Assert.InRange(found.Kelvin, kelvin - 0.7, kelvin + 0.7);
        Assert.Equal(6, found.Members.Count);
        Assert.All(
            judgement.Queue,
            a => Assert.True(a.DriftKelvin < 2.5 && a.Urgency > Urgency.Next, $"{a.Asset.Tag} {a.DriftKelvin} {a.Urgency}")
        );
        Assert.InRange(judgement.Zones.Single().NowKelvin, -1, 1);
        Assert.Contains(judgement.ByTag["T-0"].Sentences, m => m.ToString().Contains("no heat", StringComparison.Ordinal));
        Assert.DoesNotContain(judgement.ByTag["S-0"].Sentences, m => m.ToString().Contains("no heat", StringComparison.Ordinal));
    }

    /// <summary>Judged again by itself, a member is judged as among the others.</summary>
    [Fact]
    public void A_member_judged_again_alone_keeps_the_event()
    {
        var hall = TwoModels(7, daysAgo: 100);
        var all = hall.Judge();
        Assert.Equal(all.ByTag["T-1"].DriftKelvin!.Value, hall.JudgeOne("T-1").DriftKelvin!.Value, 1e-6);
    }

    [Fact]
    public void Two_of_six_are_no_event_and_neither_is_a_room()
    {
        Assert.Empty(TwoModels(7, daysAgo: 100, reportingOtherwise: 2).Judge().Events);
        var warm = TwoModels(0, daysAgo: 100);
        warm.Room.Add(new RoomEvent(Hall.Now - 100, double.PositiveInfinity, 6, Seen: false));
        Assert.Empty(warm.Judge().Events);
    }

    /// <summary>Too near to either end there is nothing to compare, and nothing may fail.</summary>
    [Theory]
    [InlineData(363)]
    [InlineData(2)]
    public void An_event_on_the_first_or_last_days_is_none_yet(double daysAgo) =>
        Assert.Empty(TwoModels(7, daysAgo).Judge().Events);

    [Fact]
    public void Wear_of_all_machines_of_a_model_at_their_own_pace_is_no_event()
    {
        var hall = new Hall();
        for (var i = 0; i < 6; i++)
        {
            hall.With($"S-{i}", []);
            hall.With(
                $"T-{i}",
                [new Fault(Cause.Pads, Hall.Now - 250 + 20 * i, Hall.Now, 8, "memory")],
                change: m => m with { Asset = m.Asset with { Model = Updated } }
            );
        }
        Assert.Empty(hall.Judge().Events);
    }

    [Fact]
    public void A_hall_that_fouls_together_is_told_once_and_every_machine_in_it_is_dusty()
    {
        var hall = new Hall();
        for (var i = 0; i < 8; i++)
            hall.With($"D-{i}", [new Fault(Cause.Dust, Hall.Now - 130, Hall.Now - 20, 8 + i % 3)]);
        var judgement = hall.Judge();
        var dust = Assert.Single(judgement.Events);
        Assert.Equal((GroupEventKind.Dust, "ROW"), (dust.Kind, dust.Group));
        Assert.InRange(dust.Day, Hall.Now - 170, Hall.Now - 90);
        Assert.True(dust.Members.Count >= 6);
        Assert.True(judgement.Queue.Count(a => a is { Cause: Cause.Dust, Urgency: <= Urgency.Next }) >= 6);
        Assert.Contains("cleaning", EventWords.Of(dust, "Row").ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public void One_dusty_machine_among_healthy_ones_is_no_event() =>
        Assert.Empty(new Hall().WithHealthy(8).With("D", [new Fault(Cause.Dust, Hall.Now - 130, Hall.Now, 9)]).Judge().Events);
}
