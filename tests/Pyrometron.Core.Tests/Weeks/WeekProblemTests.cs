using Pyrometron.Core.Fleet;
using Pyrometron.Core.Planning;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Units;
using Pyrometron.Core.Weeks;

namespace Pyrometron.Core.Tests.Weeks;

/// <summary>A house's weeks as a planning problem, and a plan made anew after something has changed.</summary>
public sealed class WeekProblemTests
{
    private static readonly DateOnly Monday = new(2026, 12, 7);

    private static readonly House Institute = new(
        [new Site("QUAY", "Quay", 4, [Zone("READ", "Reading room"), Zone("WAVE", "Wave hall")]) { TimeZone = "Europe/Lisbon" }],
        [Person("mira", Skill.OpenCards, Skill.ChangePads, Skill.LiftWithTwo), Person("tomas", Skill.LiftWithTwo)],
        [],
        [],
        TimeZoneInfo.Utc
    );

    private static Zone Zone(string code, string name) => new(code, name, DustClass.Normal, new Celsius(28));

    private static Person Person(string code, params Skill[] skills) =>
        new(
            code,
            code,
            skills.ToHashSet(),
            [],
            [.. Enumerable.Range(1, 5).Select(d => new WeeklyTime((DayOfWeek)d, 8 * 60, 12 * 60))]
        );

    private static Wanted Job(string id, int minutes = 60, string zone = "READ", DateOnly? due = null, params Skill[] skills) =>
        new(
            id,
            WantedKind.Service,
            "",
            zone,
            [new WantedStep(id, ServiceLevel.DustOut, minutes, Cause.Dust, 4)],
            skills.ToHashSet(),
            null,
            "",
            due,
            1
        );

    private static WeekProblem Week(House house, IReadOnlyList<Wanted> wanted, IReadOnlyList<Placed>? before = null) =>
        new(house, Monday, 7, wanted, before ?? [], null);

    private static IReadOnlyList<Placed> Plan(WeekProblem week) =>
        week.Placed(new GreedyPlanner().Solve(week.Problem, 1, null, CancellationToken.None).Assignments);

    [Fact]
    public void Shifts_are_those_of_the_week_without_absences()
    {
        var week = Week(Institute with { Absences = [new Absence("mira", Monday.AddDays(1), Monday.AddDays(2), "ill")] }, []);
        Assert.Equal(3, week.Problem.People[0].Shifts.Count);
        Assert.Equal(5, week.Problem.People[1].Shifts.Count);
        Assert.Equal(new Span(8 * 60, 12 * 60), week.Problem.People[0].Shifts[0]);
        Assert.Equal((Monday, 8 * 60), (week.Shifts[0].Day, week.Shifts[0].From));
    }

    [Fact]
    public void Windows_are_those_of_the_week_without_closed_days()
    {
        ZoneTimes[] times =
        [
            new("READ", 5, 2, [], [new ClosedDays(Monday, Monday.AddDays(3), "exams")]),
            new("WAVE", 20, null, [new WeeklyTime(DayOfWeek.Tuesday, 22 * 60, 30 * 60)], []),
        ];
        var zones = Week(Institute with { Zones = times }, []).Problem.Zones;
        Assert.Equal([new Span(4 * 1440, 7 * 1440)], zones[0].Windows);
        Assert.Equal([new Span(1440 + (22 * 60), 2880 + (6 * 60))], zones[1].Windows);
        Assert.Equal((5, 20, (int?)2), (zones[0].SetupMinutes, zones[1].SetupMinutes, zones[0].MaxDown));
    }

    /// <summary>By the wall of the site: Lisbon is an hour ahead of UTC until 25 October 2026.</summary>
    [Fact]
    public void Downtime_rules_are_windows_of_the_job_by_the_clock_of_its_site()
    {
        IReadOnlyList<Span>? Windows(DowntimeRules rules, DateOnly start) =>
            new WeekProblem(Institute, start, 2, [Job("DT-1") with { Downtime = rules }], [], null).Problem.Jobs[0].Windows;
        Assert.Null(new WeekProblem(Institute, Monday, 2, [Job("DT-1")], [], null).Problem.Jobs[0].Windows);
        // A Friday and a Saturday in winter: Lisbon's wall shows UTC.
        var friday = Windows(new DowntimeRules(DownHours.OutOfHours), new DateOnly(2026, 12, 11))!;
        Assert.Contains(friday, w => w.Holds(new Span(18 * 60, 2 * 1440)));
        Assert.DoesNotContain(friday, w => w.Overlaps(new Span(8 * 60, 18 * 60)));
        // In summer eight o'clock is seven by UTC.
        var summer = Windows(new DowntimeRules(DownHours.OutOfHours), new DateOnly(2026, 7, 6))!;
        Assert.DoesNotContain(summer, w => w.Overlaps(new Span(7 * 60, 17 * 60)));
        Assert.Contains(summer, w => w.Holds(new Span(17 * 60, 24 * 60)));
        Assert.All(
            Windows(new DowntimeRules(DownHours.Weekends), new DateOnly(2026, 12, 10))!,
            w => Assert.False(w.Overlaps(new Span(0, 2 * 1440)))
        );
        Assert.All(
            Windows(new DowntimeRules(SparesQuarterEnd: true), new DateOnly(2026, 12, 24))!,
            w => Assert.False(w.Overlaps(new Span(1440, 2 * 1440)))
        );
    }

    [Fact]
    public void Work_for_two_has_both_in_the_plan_and_keeps_them()
    {
        Wanted[] wanted = [Job("SRV-1") with { TakesTwo = true }, Job("SRV-2")];
        var placed = Plan(Week(Institute, wanted));
        var two = placed.Single(p => p.Work.Id == "SRV-1");
        Assert.True(two.Has("mira") && two.Has("tomas"));
        Assert.Null(placed.Single(p => p.Work.Id == "SRV-2").Helper);
        var again = Week(Institute, wanted, [two with { Locked = true }]);
        Assert.Equal(two with { Locked = true }, Plan(again).Single(p => p.Work.Id == "SRV-1"));
        // Who helped is not there any more: somebody else, or nobody.
        var alone = Week(Institute with { People = [.. Institute.People.Where(p => p.Code == two.Person)] }, wanted, placed);
        Assert.DoesNotContain(Plan(alone), p => p.Work.Id == "SRV-1");
    }

    [Fact]
    public void What_is_left_out_says_why_in_the_houses_words()
    {
        var house = Institute with { Zones = [new("READ", 0, null, [], [new ClosedDays(Monday, Monday.AddDays(6), "exams")])] };
        var waits = Job("LT-1", zone: "WAVE") with { NotBefore = Monday.AddDays(20), WaitsFor = "2.0 mm pads" };
        var nobody = Job("LT-2", zone: "WAVE", skills: Skill.OpenLaptops);
        var week = Week(house, [Job("DT-1"), waits, nobody]);
        var reasons = LeftOutReasons.Of(new Roster(week.Problem)).Select(l => week.Reason(l).ToString()).ToArray();
        Assert.Equal(
            "No window of Reading room holds its 60 minutes within a shift of somebody who may do it. Closed until 13 Dec 2026: exams.",
            reasons[0]
        );
        Assert.Equal(
            "It may not begin before 27 Dec 2026, and the plan ends before that. It waits for: 2.0 mm pads.",
            reasons[1]
        );
        Assert.Equal("Nobody has all the skills that it needs: open laptops.", reasons[2]);
    }

    [Fact]
    public void A_plan_made_anew_moves_what_cannot_stay_and_nothing_else()
    {
        var wanted = Enumerable.Range(1, 12).Select(i => Job($"DT-{i}", due: Monday.AddDays(1))).ToArray();
        var before = Plan(Week(Institute, wanted));
        Assert.Equal(12, before.Count);
        var ill = Institute with { Absences = [new Absence("mira", Monday, Monday, "ill")] };
        var after = Plan(Week(ill, wanted, before)).ToDictionary(p => p.Work.Id);
        Assert.Equal(12, after.Count);
        foreach (var old in before)
        {
            var now = after[old.Work.Id];
            if (old.Person == "mira" && old.Start.Day == Monday.Day)
                Assert.NotEqual((old.Person, old.Start.Day), (now.Person, now.Start.Day));
            else
                Assert.Equal((old.Person, old.Start.Day), (now.Person, now.Start.Day));
        }
    }

    [Fact]
    public void A_lock_holds_and_falls_only_where_it_cannot_stand()
    {
        var start = new DateTimeOffset(Monday.AddDays(2), new TimeOnly(10, 0), TimeSpan.Zero);
        Placed[] before =
        [
            new(Job("DT-1"), "tomas", start, Locked: true),
            new(Job("DT-2"), "tomas", start.AddMinutes(30), Locked: true),
            new(Job("DT-3"), "gone", start, Locked: true),
        ];
        var week = Week(Institute, [.. before.Select(p => p.Work)], before);
        Assert.Equal(new PlanLock(1, (2 * 1440) + 600), week.Problem.Jobs[0].Locked);
        Assert.Null(week.Problem.Jobs[1].Locked);
        Assert.Null(week.Problem.Jobs[2].Locked);
        var placed = Plan(week).ToDictionary(p => p.Work.Id);
        Assert.Equal(("tomas", start, true), (placed["DT-1"].Person, placed["DT-1"].Start, placed["DT-1"].Locked));
        Assert.False(placed["DT-2"].Locked);
    }

    [Fact]
    public void Nothing_begins_before_now_and_what_lies_before_is_planned_again()
    {
        var now = new DateTimeOffset(Monday, new TimeOnly(10, 30), TimeSpan.Zero);
        Placed[] before = [new(Job("DT-1"), "mira", now.AddHours(-2), Locked: true)];
        var week = new WeekProblem(Institute, Monday, 7, [Job("DT-1")], before, now);
        Assert.Equal(new Span(630, 720), week.Problem.People[0].Shifts[0]);
        Assert.Equal(10 * 60 + 30, week.Shifts[0].From);
        Assert.True(Assert.Single(Plan(week)).Start >= now);
    }
}
