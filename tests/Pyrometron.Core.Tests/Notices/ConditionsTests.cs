using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Forecast;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Materials;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Notices;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Stores;

namespace Pyrometron.Core.Tests.Notices;

/// <summary>What of a house somebody may want to be told of.</summary>
public sealed class ConditionsTests
{
    private static readonly DateOnly Today = new(2026, 12, 1);

    private static Assessment Machine(string tag, Urgency urgency, DateOnly? line = null) =>
        new(
            new Asset(tag, AssetKind.GraphicsCard, "Sorrel", "ROW", null, 24, new(2024, 1, 1), null, [], []),
            Today,
            new Zone("ROW", "Row", DustClass.Normal, new(33)),
            JudgementPolicy.Default
        )
        {
            Urgency = urgency,
            Service = ServiceLevel.DustOut,
            Action = line is { } day ? new ActionDate(day, day, day) : null,
            Reason = Message.Of("All parts are warmer."),
        };

    private static HouseToday House(
        IReadOnlyList<Assessment>? machines = null,
        IReadOnlyList<GroupEvent>? events = null,
        IReadOnlyList<JobInHand>? jobs = null,
        IReadOnlyList<JobSupply>? supply = null
    ) =>
        new(
            Today,
            machines ?? [],
            events ?? [],
            [],
            jobs ?? [],
            supply ?? [],
            new Dictionary<string, string> { ["ROW"] = "Kelp row" }
        );

    [Fact]
    public void A_machine_now_is_told_once_and_not_as_next_too()
    {
        var found = Conditions.Of(House([Machine("A", Urgency.Now), Machine("B", Urgency.Next), Machine("C", Urgency.Fine)]));
        Assert.Equal([("now:A", true), ("next:A", false), ("next:B", true)], found.Select(c => (c.Key, c.IsNews)));
        Assert.Equal("A needs work now. All parts are warmer.", found[0].Says.ToString());
    }

    [Theory]
    [InlineData(7, "A: dust-out is due by 8 Dec 2026.")]
    [InlineData(8, null)]
    [InlineData(-3, "A: dust-out has been due since 28 Nov 2026.")]
    public void What_is_due_within_a_week_is_told(int days, string? says) =>
        Assert.Equal(
            says,
            Conditions.Of(House([Machine("A", Urgency.Soon, Today.AddDays(days))])).SingleOrDefault()?.Says.ToString()
        );

    [Fact]
    public void An_event_stays_the_same_where_its_day_moves()
    {
        GroupEvent Event(double day) => new(GroupEventKind.Dust, "ROW", day, 4, 0.5, 0.5, ["A", "B"]);
        string[] Keys(params double[] days) => [.. Conditions.Of(House(events: [.. days.Select(Event)])).Select(c => c.Key)];
        Assert.Equal(Keys(20_000), Keys(20_004));
        Assert.Equal(["event:Dust:ROW:1", "event:Dust:ROW:2"], Keys(20_100, 20_000));
        Assert.Contains("Kelp row", Conditions.Of(House(events: [Event(20_000)]))[0].Says.ToString());
    }

    [Theory]
    [InlineData(JobState.Open, 2, false)]
    [InlineData(JobState.Open, 3, true)]
    [InlineData(JobState.WaitingForProof, 13, false)]
    [InlineData(JobState.WaitingForProof, 14, true)]
    [InlineData(JobState.Proven, 300, false)]
    public void A_job_that_nobody_touches_is_told(JobState state, int days, bool told) =>
        Assert.Equal(
            told,
            Conditions.Of(House(jobs: [new(7, "A", "ROW", ServiceLevel.Repaste, state, Today.AddDays(-days))])).Count == 1
        );

    [Theory]
    [InlineData(7, true)]
    [InlineData(8, false)]
    public void Stock_that_will_not_reach_is_told_a_week_ahead(int days, bool told)
    {
        var job = new JobAhead("A", "Sorrel", ServiceLevel.Repad, AheadBy.Plan, Today.AddDays(days), null, null, []);
        var supply = new JobSupply(job, [], [new Need(ProductKind.Pads, 4, 1.5, []), Need.Of(ProductKind.Paste, 2)], false);
        var found = Conditions.Of(House([Machine("A", Urgency.Fine)], supply: [supply]));
        Assert.Equal(told, found.Count == 1);
        if (told)
            Assert.Equal("The shelf does not hold enough for the repad of A: pads of 1.5 mm, paste.", found[0].Says.ToString());
    }

    [Fact]
    public void An_empty_house_has_nothing_to_tell() => Assert.Empty(Conditions.Of(House()));
}
