using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Simulation;

namespace Pyrometron.Core.Tests.Judging;

public class FleetJudgeTests
{
    private static Assessment Of(FleetJudgement judgement, string tag) => judgement.Queue.Single(a => a.Asset.Tag == tag);

    [Fact]
    public void Each_cause_is_told_from_the_others_by_what_it_does_to_the_parts()
    {
        var judgement = new Hall()
            .WithHealthy(10)
            .With("DUST", [Hall.Grown(Cause.Dust, 9)])
            .With("PASTE", [Hall.Grown(Cause.Paste, 4.5, "core")])
            .With("PADS", [Hall.Grown(Cause.Pads, 10, "memory")])
            .With("FAN", [new Fault(Cause.Fan, Hall.Now - 150, Hall.Now - 20, 8)])
            .With(
                "MOUNT",
                [new Fault(Cause.Mount, Hall.Now - 60.5, Hall.Now - 60.5, 4, "core", GrowthShape.Step)],
                [new(Hall.Today.AddDays(-60), ServiceLevel.Repaste)]
            )
            .Judge();

        foreach (
            var (tag, cause, level, kelvin) in ((string, Cause, ServiceLevel, double)[])
                [
                    ("DUST", Cause.Dust, ServiceLevel.DustOut, 9),
                    ("PASTE", Cause.Paste, ServiceLevel.Repaste, 4.5 * 2.3),
                    ("PADS", Cause.Pads, ServiceLevel.Repad, 10),
                    ("FAN", Cause.Fan, ServiceLevel.FanSwap, 8),
                    ("MOUNT", Cause.Mount, ServiceLevel.Repaste, 4 * 2.3),
                ]
        )
        {
            var a = Of(judgement, tag);
            Assert.Equal((cause, level), (a.Cause, a.Service));
            Assert.InRange(a.DriftKelvin!.Value, kelvin - 2.2, kelvin + 2.2);
            Assert.True(a.Urgency <= Urgency.Next, $"{tag} is {a.Urgency}");
        }
        // What each level would win: the advised one nearly all of it, a lighter one little.
        double Worth(string tag, ServiceLevel level) => Of(judgement, tag).Levels.Single(l => l.Level == level).Kelvin;
        Assert.Equal(Of(judgement, "PADS").DriftKelvin!.Value, Worth("PADS", ServiceLevel.Repad), 0.01);
        Assert.True(
            Worth("PADS", ServiceLevel.Repaste) < 3
                && Worth("DUST", ServiceLevel.DustOut) > 6
                && Worth("FAN", ServiceLevel.DustOut) < 3
        );
        Assert.All(
            judgement.Queue.Where(a => a.Levels.Count > 0),
            a =>
                Assert.True(
                    a.Levels.Single(l => l.Level == ServiceLevel.Repad).Kelvin
                        >= a.Levels.Single(l => l.Level == ServiceLevel.BlowOut).Kelvin
                )
        );
        Assert.All(
            judgement.Queue.Where(a => a.Asset.Tag.StartsWith("OK", StringComparison.Ordinal)),
            a => Assert.True(a.DriftKelvin < 2.5 && a.Service is null, $"{a.Asset.Tag} {a.DriftKelvin}")
        );
    }

    /// <summary>
    /// Common practice, no source (T6): a hall's air conditioning is worth 3–5 K to every machine, and no machine's fault.
    /// </summary>
    [Fact]
    public void A_hall_that_warms_up_unseen_is_one_room_and_not_forty_machines()
    {
        var hall = new Hall().WithHealthy(40);
        hall.Room.Add(new RoomEvent(Hall.Now - 30, double.PositiveInfinity, 5, Seen: false));
        var judgement = hall.Judge();
        Assert.InRange(judgement.Zones.Single().NowKelvin, 3, 6);
        Assert.DoesNotContain(judgement.Queue, a => a.Urgency <= Urgency.Next);
        Assert.All(judgement.Queue, a => Assert.Equal(Cause.Room, a.Cause));
    }

    [Fact]
    public void A_dusty_hall_that_fouls_together_stays_with_its_machines()
    {
        var hall = new Hall();
        for (var i = 0; i < 16; i++)
            hall.With($"D-{i:00}", [Hall.Grown(Cause.Dust, 8 + i % 4, days: 330)]);
        var judgement = hall.Judge();
        Assert.InRange(judgement.Queue.Average(a => a.DriftKelvin!.Value), 6.5, 11);
    }

    /// <summary>Common practice, no source (T3): 4 K in two months at the same settings is a reason to repad.</summary>
    [Fact]
    public void Four_kelvin_in_two_months_is_seen_with_a_pace_and_a_date()
    {
        var a = Of(
            new Hall().WithHealthy(8).With("PADS", [new Fault(Cause.Pads, Hall.Now - 90, Hall.Now, 6, "memory")]).Judge(),
            "PADS"
        );
        var memory = a.Parts.Single(p => p.Part.Name == "memory");
        Assert.Equal(Cause.Pads, a.Cause);
        Assert.InRange(memory.Trend!.Value.KelvinPerDay * 60, 2.5, 5.5);
        Assert.NotNull(a.Action);
        Assert.True(
            a.Action.Value.Early <= a.Action.Value.Day
                && (a.Action.Value.Late is null || a.Action.Value.Day <= a.Action.Value.Late)
        );
    }

    /// <summary>Common practice, no source (T5): hot from its first day and not drifting: the cooler, not the paste.</summary>
    [Fact]
    public void A_cooler_that_was_always_too_small_gets_no_service()
    {
        var a = Of(new Hall().WithHealthy(8).With("HOT", [], change: m => m with { JointRise = [27, 38, 36] }).Judge(), "HOT");
        Assert.Equal((Cause.CoolerLimited, Urgency.Watch), (a.Cause, a.Urgency));
        Assert.Null(a.Service);
    }

    [Fact]
    public void More_power_under_new_settings_is_settings_and_not_wear()
    {
        var a = Of(
            new Hall().WithHealthy(8).With("SET", [], change: m => m with { SettingsChange = (Hall.Now - 90, 1.15) }).Judge(),
            "SET"
        );
        Assert.Equal(Cause.Settings, a.Cause);
        Assert.InRange(a.Outside.Settings, 4, 12);
    }

    [Fact]
    public void A_service_after_the_newest_reading_moves_the_machine_out_of_the_way()
    {
        var worn = new Hall().WithHealthy(6).With("D", [Hall.Grown(Cause.Dust, 9)]);
        Assert.Equal(Urgency.Next, Of(worn.Judge(), "D").Urgency);
        var done = new Hall().WithHealthy(6).With("D", [Hall.Grown(Cause.Dust, 9)], [Hall.ThisEvening(ServiceLevel.DustOut)]);
        var a = Of(done.Judge(), "D");
        Assert.InRange(a.Parts[0].Split.Dust, 0, 0.16 * 9);
        // Nobody has measured it since: that is said.
        Assert.Contains("is not measured yet", a.Reason.ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public void The_split_adds_up_and_its_kelvins_are_never_negative()
    {
        var judgement = new Hall()
            .WithHealthy(5)
            .With("D", [Hall.Grown(Cause.Dust, 5), Hall.Grown(Cause.Pads, 4, "memory")])
            .Judge();
        foreach (var part in judgement.Queue.SelectMany(a => a.Parts))
        {
            Assert.Equal(part.Split.Total, part.Split.Ranked().Sum(c => c.Kelvin), 1e-9);
            Assert.All(part.Split.Ranked(), c => Assert.True(c.Kelvin >= -1e-9));
        }
    }

    /// <summary>
    /// What machines say of their room is summed in parts, by several threads, and comes to the same to the last bit.
    /// </summary>
    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(7)]
    public void The_same_input_gives_the_same_answer_on_any_number_of_threads(int threads)
    {
        Hall Fleet(int on) =>
            new Hall { Threads = on }
                .WithHealthy(40)
                .With("D", [Hall.Grown(Cause.Dust, 7)]);
        Assert.Equal(
            Fleet(1).Judge().Queue.Select(a => (a.Asset.Tag, a.DriftKelvin)),
            Fleet(threads).Judge().Queue.Select(a => (a.Asset.Tag, a.DriftKelvin))
        );
    }

    /// <summary>Whatever fails on one machine is its own row; the others are judged as if it were not there.</summary>
    [Fact]
    public void A_machine_whose_data_cannot_be_read_is_one_row_that_says_so()
    {
        var hall = new Hall().WithHealthy(9).With("D", [Hall.Grown(Cause.Dust, 9)]);
        hall.Unreadable.Add("OK-03");
        var judgement = hall.Judge();
        Assert.Equal(10, judgement.Queue.Count);
        Assert.Equal("D", judgement.Queue[0].Asset.Tag);
        var row = judgement.ByTag["OK-03"];
        Assert.Equal((Urgency.Unknown, null), (row.Urgency, row.DriftKelvin));
        Assert.StartsWith("It cannot be judged", row.Reason.ToString(), StringComparison.Ordinal);
        Assert.Contains("OK-03", hall.Failed);
    }
}
