using Pyrometron.Core.Planning;

namespace Pyrometron.Planning.Tests;

public sealed class TwoPeopleTests
{
    private static readonly PlanProblem Pair = Problems.Plain(
        1,
        Problems.Job("lift", 60) with
        {
            HelperSkills = new HashSet<string> { "cards" },
        }
    ) with
    {
        People = [Problems.Worker("mira", 1), Problems.Worker("sol", 1)],
    };

    /// <summary>Both are set up, both are busy, and the machine is down once.</summary>
    [Fact]
    public void Work_for_two_takes_an_hour_of_both_and_one_machine()
    {
        var problem = Pair with
        {
            Zones = [new PlanZone("Z0", "S0", 15, MaxDown: 1)],
            Jobs = [Pair.Jobs[0], Problems.Job("alone", 30)],
        };
        var plan = new SolverPlanner().Solve(problem, 5, null, default);
        var lift = plan.Assignments.Single(a => a.Job == 0);
        Assert.Equal(1, lift.Person + lift.Helper);
        Assert.Equal(2, plan.Assignments.Count);
        Assert.Equal(0.01 * 30, plan.Cost, 9);
        Assert.Equal(plan.Cost, PlanCheck.Cost(problem, plan.Assignments), 9);
        Assert.Equal(plan.Cost, plan.Bound, 6);
        Assert.False(plan.Roster.Copy().TryPut(new Assignment(1, lift.Helper!.Value, lift.Start)));
    }

    [Fact]
    public void Whoever_is_busy_does_not_help()
    {
        var problem = Pair with { Jobs = [Pair.Jobs[0], Problems.Job("alone", 300)] };
        var roster = Roster.Of(problem, [new Assignment(1, 1, 495)]);
        var wanted = new Assignment(0, 0, 600);
        Assert.False(roster.TryPut(wanted));
        Assert.Contains("nobody else", Conflict.Of(roster, wanted).ToString(), StringComparison.Ordinal);
        Assert.True(roster.TryPut(wanted with { Start = 795 }));
        Assert.Equal([(1, null), (0, 1)], roster.Assignments.Select(a => (a.Job, a.Helper)));
    }

    [Fact]
    public void Nothing_is_moved_to_make_room_where_two_meet()
    {
        var problem = Pair with { Jobs = [Pair.Jobs[0], Problems.Job("alone", 30)] };
        var roster = Roster.Of(problem, [new Assignment(0, 0, 500, 1)]);
        var places = new List<Place>();
        foreach (var opening in roster.Openings.Of(1))
        {
            roster.Places(1, opening, places);
            Assert.Equal([1], places.Select(p => p.At));
        }
        roster.Take(0);
        Assert.Empty(roster.Assignments);
        Assert.Equal(problem.LeavingOut(problem.Jobs[0]) + problem.LeavingOut(problem.Jobs[1]), roster.Cost, 9);
    }

    [Fact]
    public void Where_only_one_may_it_is_said_that_it_takes_two()
    {
        var problem = Pair with { People = [Pair.People[0], Pair.People[1] with { Sites = new HashSet<string> { "S9" } }] };
        var left = Assert.Single(LeftOutReasons.Of(new GreedyPlanner().Solve(problem, 1, null, default).Roster));
        Assert.Equal(LeftOutCode.NoSkill, left.Code);
        Assert.Equal("It takes two, and nobody else who works at S0 may help: cards.", left.Reason.ToString());
    }

    /// <summary>Who does it needs its skills, who helps only what helping needs.</summary>
    [Fact]
    public void Who_helps_need_not_be_able_to_do_it()
    {
        var problem = Pair with
        {
            People = [Pair.People[0], Pair.People[1] with { Skills = new HashSet<string> { "cards" } }],
            Jobs = [Pair.Jobs[0] with { Skills = new HashSet<string> { "pads" } }],
        };
        var plan = new SolverPlanner().Solve(problem, 2, null, default);
        Assert.Equal([new Assignment(0, 0, 495, 1)], plan.Assignments);
        Assert.False(new Roster(problem).TryPut(new Assignment(0, 1, 495, 0)));
    }

    /// <summary>Who helps is locked with the job, and stays when it is planned anew.</summary>
    [Fact]
    public void A_locked_pair_stays()
    {
        var problem = Pair with
        {
            People = [.. Pair.People, Problems.Worker("ana", 1)],
            Jobs = [Pair.Jobs[0] with { Locked = new PlanLock(2, 700, 1) }, Problems.Job("a", 200), Problems.Job("b", 200)],
        };
        var plan = new SolverPlanner().Solve(problem, 3, null, default);
        Assert.Contains(new Assignment(0, 2, 700, 1), plan.Assignments);
        Assert.Equal(plan.Cost, PlanCheck.Cost(problem, plan.Assignments), 9);
    }

    [Fact]
    public void The_way_from_another_zone_adds_to_its_set_up()
    {
        var problem = Problems.Plain(
            1,
            Problems.Job("a", 60),
            Problems.Job("b", 60, zone: 1),
            Problems.Job("c", 60, zone: 2)
        ) with
        {
            Zones = [new PlanZone("Z0", "S0", 15), new PlanZone("Z1", "S0", 15), new PlanZone("Z2", "S1", 15)],
            Walking = new Walking(5, 40),
        };
        var roster = Roster.Of(problem, [new Assignment(0, 0, 495)]);
        Assert.False(roster.TryPut(new Assignment(1, 0, 574)));
        Assert.True(roster.TryPut(new Assignment(1, 0, 575)));
        Assert.False(roster.TryPut(new Assignment(2, 0, 689)));
        Assert.True(roster.TryPut(new Assignment(2, 0, 690)));
        Assert.Equal(0.01 * (15 + 20 + 55), roster.Cost, 9);
    }

    /// <summary>Its own times and its zone's: only what lies in both.</summary>
    [Fact]
    public void A_job_has_windows_of_its_own()
    {
        var problem = Problems.Plain(1, Problems.Job("a", 60) with { Windows = [new Span(0, 600), new Span(900, 1440)] }) with
        {
            Zones = [new PlanZone("Z0", "S0", 0, Windows: [new Span(550, 930)])],
        };
        var roster = new Roster(problem);
        Assert.Empty(roster.Openings.Of(0));
        var left = Assert.Single(LeftOutReasons.Of(roster));
        Assert.Equal(LeftOutCode.NoWindow, left.Code);
        Assert.Contains("its rules", left.Reason.ToString(), StringComparison.Ordinal);
        var wider = problem with { Zones = [new PlanZone("Z0", "S0", 0, Windows: [new Span(540, 930)])] };
        Assert.Equal([(540, 540)], new Roster(wider).Openings.Of(0).Single().Starts);
    }
}
