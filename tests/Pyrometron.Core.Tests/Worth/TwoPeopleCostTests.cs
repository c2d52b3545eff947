using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Learning;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Simulation;
using Pyrometron.Core.Stores;
using Pyrometron.Core.Tests.Judging;

namespace Pyrometron.Core.Tests.Worth;

/// <summary>Work that takes two costs the time of both, wherever it is counted; looking and blowing out take one.</summary>
public sealed class TwoPeopleCostTests
{
    private static readonly JudgementPolicy Two = JudgementPolicy.Default with { TwoPeople = true };

    private static FleetJudgement Judged(JudgementPolicy policy) =>
        new Hall().With("GC-1", [new Fault(Cause.Dust, Hall.Now - 300, Hall.Now, 14)]).Judge(policy: policy);

    [Fact]
    public void Levels_that_open_a_machine_cost_two_hours_for_one_and_are_ranked_by_that()
    {
        var (alone, both) = (Judged(JudgementPolicy.Default).Queue[0], Judged(Two).Queue[0]);
        foreach (var (one, two) in alone.Levels.Zip(both.Levels))
        {
            var hands = ServiceEffects.Opens(one.Level) ? 2 : 1;
            Assert.Equal(hands, two.Hands);
            Assert.Equal(hands * one.Value.Work, two.Value.Work, 9);
            Assert.Equal(one.Value.Downtime, two.Value.Downtime, 9);
            Assert.Equal(two.Value.Net * 60 / (hands * two.Minutes), two.PerHour, 9);
        }
        Assert.Contains(both.Levels, l => l.Hands == 1);
        Assert.Contains(both.Levels, l => l.Hands == 2);
    }

    [Fact]
    public void The_work_of_a_quarter_counts_both()
    {
        var (alone, both) = (Judged(JudgementPolicy.Default).Queue[0], Judged(Two).Queue[0]);
        Assert.True(ServiceEffects.Opens(both.Service!.Value));
        Assert.Equal(2 * WorkAsked.MinutesWithinQuarter(alone), WorkAsked.MinutesWithinQuarter(both));
    }

    /// <summary>By the card of the job: a rule that came later does not make past work dearer.</summary>
    [Fact]
    public void What_jobs_have_cost_counts_those_who_were_there()
    {
        var asset = Judged(JudgementPolicy.Default).Queue[0].Asset;
        FinishedJob job = new(1, "GC-1", "Sorrel", "ROW", ServiceLevel.Repaste, Hall.Today, null, 0, 0, null, null, false, 0)
        {
            Minutes = 50,
        };
        WorkSpent Spent(bool two) => WorkSpent.Of([job with { TookTwo = two }], _ => (asset, Two), MaterialCosts.Usual);
        Assert.Equal((50, 100), (Spent(false).Minutes, Spent(true).Minutes));
        Assert.Equal(2 * Spent(false).Work, Spent(true).Work, 9);
        Assert.Equal(Spent(false).Downtime, Spent(true).Downtime, 9);
    }
}
