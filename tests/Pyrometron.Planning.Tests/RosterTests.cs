using Pyrometron.Core.Planning;

namespace Pyrometron.Planning.Tests;

public sealed class RosterTests
{
    [Fact]
    public void Set_up_stands_before_the_first_job_of_a_shift_and_where_the_zone_changes()
    {
        var problem = Problems.Plain(1, Problems.Job("a", 60), Problems.Job("b", 30, zone: 1), Problems.Job("c", 30)) with
        {
            Zones = [new PlanZone("Z0", "S0", 15), new PlanZone("Z1", "S0", 20)],
        };
        var roster = new Roster(problem);
        Assert.False(roster.TryPut(new Assignment(0, 0, 480)));
        Assert.True(roster.TryPut(new Assignment(0, 0, 495)));
        Assert.False(roster.TryPut(new Assignment(1, 0, 555)));
        Assert.True(roster.TryPut(new Assignment(1, 0, 575)));
        // Back in the first zone it is set up again.
        Assert.False(roster.TryPut(new Assignment(2, 0, 605)));
        Assert.True(roster.TryPut(new Assignment(2, 0, 620)));
        Assert.Equal(0.01 * (15 + 20 + 15), roster.Cost, 9);
    }

    [Fact]
    public void What_follows_makes_room_where_it_may_and_a_locked_job_does_not()
    {
        var problem = Problems.Plain(1, Problems.Job("a", 60), Problems.Job("b", 60), Problems.Job("new", 30));
        foreach (var locked in new[] { false, true })
        {
            var jobs = locked
                ? [problem.Jobs[0], problem.Jobs[1] with { Locked = new PlanLock(0, 555) }, problem.Jobs[2]]
                : problem.Jobs;
            var roster = Roster.Of(problem with { Jobs = jobs }, [new Assignment(0, 0, 495), new Assignment(1, 0, 555)]);
            var places = new List<Place>();
            var opening = roster.Openings.Of(2).Single();
            roster.Places(2, opening, places);
            Assert.Equal(locked ? [2] : [0, 1, 2], places.Select(p => p.At));
            roster.Put(2, opening, places[0]);
            Assert.Equal(
                locked ? [(0, 495), (1, 555), (2, 615)] : [(2, 495), (0, 525), (1, 585)],
                roster.Assignments.Select(a => (a.Job, a.Start))
            );
        }
    }

    [Fact]
    public void No_more_machines_of_a_zone_are_down_than_its_limit()
    {
        var problem = Problems.Plain(1, Problems.Job("a", 60), Problems.Job("b", 60)) with
        {
            People = [Problems.Worker("mira", 1), Problems.Worker("sol", 1)],
            Zones = [new PlanZone("Z0", "S0", 15, MaxDown: 1)],
        };
        var roster = Roster.Of(problem, [new Assignment(0, 0, 495)]);
        Assert.False(roster.TryPut(new Assignment(1, 1, 500)));
        // Half open: the second may begin in the minute in which the first one ends.
        Assert.True(roster.TryPut(new Assignment(1, 1, 555)));
    }

    [Fact]
    public void Stretches_that_touch_are_one() =>
        Assert.Equal(
            [new Span(0, 30), new Span(40, 50)],
            Span.Merged([new Span(10, 30), new Span(40, 50), new Span(0, 10), new Span(45, 45)])
        );

    [Fact]
    public void A_job_that_is_left_out_says_the_first_thing_that_keeps_it_out()
    {
        var cards = new HashSet<string> { "cards" };
        var job = Problems.Job("x", 60) with { Skills = cards };
        var plain = Problems.Plain(2, job);
        LeftOut Of(PlanProblem problem, params Assignment[] others) =>
            LeftOutReasons.Of(Roster.Of(problem, others)).Single(l => problem.Jobs[l.Job].Id == "x");
        var elsewhere = plain.People[0] with { Sites = new HashSet<string> { "S9" } };
        var zone = plain.Zones[0];
        var busy = plain with { Jobs = [job, Problems.Job("day", 450), Problems.Job("next", 450)] };
        var two = plain with
        {
            People = [Problems.Worker("mira", 1), Problems.Worker("sol", 1)],
            Zones = [zone with { MaxDown = 1 }],
            Jobs = [job, Problems.Job("day", 450)],
        };

        Assert.Equal(
            LeftOutCode.NoSkill,
            Of(plain with { People = [plain.People[0] with { Skills = new HashSet<string>() }] }).Code
        );
        Assert.Equal(LeftOutCode.NoSite, Of(plain with { People = [elsewhere] }).Code);
        Assert.Equal(LeftOutCode.TooLong, Of(plain with { Jobs = [job with { Minutes = 466 }] }).Code);
        Assert.Equal(LeftOutCode.NoWindow, Of(plain with { Zones = [zone with { Windows = [new Span(480, 530)] }] }).Code);
        Assert.Equal(LeftOutCode.NotBefore, Of(plain with { Jobs = [job with { NotBefore = 1440 + 950 }] }).Code);
        Assert.Equal(LeftOutCode.NoRoom, Of(busy, new Assignment(1, 0, 495), new Assignment(2, 0, 1440 + 495)).Code);
        Assert.Equal(LeftOutCode.MaxDown, Of(two, new Assignment(1, 0, 495)).Code);
        Assert.Equal(LeftOutCode.TooDear, Of(plain).Code);
        Assert.Equal(
            "Nobody works at S0.",
            Of(plain with { People = [elsewhere], Jobs = [job with { Skills = new HashSet<string>() }] }).Reason.ToString()
        );
    }
}
