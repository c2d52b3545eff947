using CsCheck;
using Pyrometron.Core.Planning;

namespace Pyrometron.Planning.Tests;

public sealed class PlannerTests
{
    private static readonly SolverPlanner Solver = new();

    public static TheoryData<string> Small => [.. KnownProblem.Of("small.json", "optimum").Select(p => p.Name)];

    /// <summary>Twelve small problems whose optimum was found by trying everything (<c>trial/plan/small.json</c>).</summary>
    [Theory, MemberData(nameof(Small))]
    public void Small_problems_are_solved_to_their_known_optimum_and_proven(string name)
    {
        var known = KnownProblem.Of("small.json", "optimum").Single(p => p.Name == name);
        var plan = Solver.Solve(known.Problem, 20, null, default);
        Assert.Equal(known.Known, plan.Cost, 6);
        Assert.Equal(known.Known, plan.Bound, 5);
        Assert.Equal(plan.Cost, PlanCheck.Cost(known.Problem, plan.Assignments), 6);
    }

    [Fact]
    public void Any_problem_gets_a_plan_that_keeps_every_rule_and_says_its_true_cost() =>
        Problems.Any.Sample(
            problem =>
            {
                var greedy = new GreedyPlanner().Solve(problem, 1, null, default);
                Assert.Equal(PlanCheck.Cost(problem, greedy.Assignments), greedy.Cost, 6);
                var plan = Solver.Solve(problem, 0.8, null, default);
                Assert.Equal(PlanCheck.Cost(problem, plan.Assignments), plan.Cost, 6);
                Assert.True(plan.Cost <= greedy.Cost + 1e-6);
                Assert.True(plan.Bound <= plan.Cost + 1e-6);
                Assert.Equal(problem.Jobs.Count, plan.Assignments.Count + LeftOutReasons.Of(plan.Roster).Count);
            },
            iter: 20,
            threads: 1
        );

    /// <summary>The bound that is worked out beside is one: never above the optimum that the solver proves.</summary>
    [Fact]
    public void The_bound_by_prices_never_lies_above_the_proven_optimum() =>
        Problems.Any.Sample(
            problem =>
            {
                var plan = Solver.Solve(problem, 0.8, null, default);
                var bound = new LagrangianBound(GreedyPlanner.Best(problem, () => true));
                for (var i = 0; i < 200 && bound.Round(plan.Cost); i++) { }
                Assert.True(bound.Best <= plan.Cost + 1e-6, $"{bound.Best} > {plan.Cost}");
            },
            iter: 20,
            threads: 1
        );

    [Fact]
    public void Three_hundred_jobs_are_planned_better_than_by_first_free_slot_and_near_their_bound()
    {
        var (_, problem, firstFreeSlot) = KnownProblem.Of("large.json", "firstFreeSlotCost")[0];
        var plan = Solver.Solve(problem, 12, null, default);
        Assert.Equal(PlanCheck.Cost(problem, plan.Assignments), plan.Cost, 4);
        // Of what somebody can help, at most a tenth of what the first free slot costs is left.
        Assert.InRange(plan.Cost - problem.Unavoidable, 0, 0.1 * (firstFreeSlot - problem.Unavoidable));
        Assert.InRange(plan.Gap, 0, 0.01);
    }

    [Fact]
    public void A_locked_job_stays_and_the_others_go_round_it()
    {
        var locked = Problems.Job("fixed", 60) with { Locked = new PlanLock(0, 480 + 100) };
        var problem = Problems.Plain(1, Problems.Job("a", 80), Problems.Job("b", 200), locked);
        var plan = Solver.Solve(problem, 5, null, default);
        Assert.Contains(new Assignment(2, 0, 580), plan.Assignments);
        Assert.Equal(3, plan.Assignments.Count);
        Assert.Equal(PlanCheck.Cost(problem, plan.Assignments), plan.Cost, 6);
    }

    [Fact]
    public void A_plan_that_nobody_waits_for_ends_with_the_best_so_far()
    {
        var problem = KnownProblem.Of("large.json", "firstFreeSlotCost")[0].Problem;
        using var stop = new CancellationTokenSource();
        var told = 0;
        var plan = Solver.Solve(
            problem,
            60,
            new Told(() =>
            {
                if (++told == 3)
                    stop.Cancel();
            }),
            stop.Token
        );
        Assert.True(told >= 3);
        Assert.Equal(PlanCheck.Cost(problem, plan.Assignments), plan.Cost, 4);
    }

    [Fact]
    public void Nobody_and_nothing_are_planned_at_once()
    {
        var nobody = Problems.Plain(2, Problems.Job("a", 60)) with { People = [] };
        Assert.Equal(nobody.LeavingOut(nobody.Jobs[0]), Solver.Solve(nobody, 5, null, default).Bound);
        Assert.Equal(0, Solver.Solve(Problems.Plain(2), 5, null, default).Cost);
    }

    private sealed class Told(Action what) : IProgress<Plan>
    {
        public void Report(Plan value) => what();
    }
}
