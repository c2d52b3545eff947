using Pyrometron.Core.Fleet;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Priority;
using Pyrometron.Core.Tests.Judging;

namespace Pyrometron.Core.Tests.Priority;

/// <summary>The chance that a machine needs work, and what follows from it.</summary>
public class NeedsWorkTests
{
    private static double Chance(double kelvin, double sigma, double near) =>
        NeedsWork.Chance(kelvin, sigma, near, JudgementPolicy.Default);

    /// <summary>Values of the standard normal distribution: any table, for example JCGM 100:2008, annex G.</summary>
    [Theory]
    [InlineData(6, 1, 0, 0.5)]
    [InlineData(7.645, 1, 0, 0.95)]
    [InlineData(4.04, 1, 0, 0.025)]
    [InlineData(2.5, 1, 1, 0.5)]
    [InlineData(4.145, 1, 1, 0.95)]
    [InlineData(2.5, 0.1, 0.4, 0.2)]
    public void It_is_the_normal_tail_beyond_either_threshold(double kelvin, double sigma, double near, double expected) =>
        Assert.Equal(expected, Chance(kelvin, sigma, near), 1e-3);

    [Fact]
    public void It_grows_with_what_is_to_win_and_with_a_nearer_line()
    {
        for (var kelvin = 0.0; kelvin < 12; kelvin += 0.5)
        {
            Assert.True(Chance(kelvin + 0.5, 1.5, 0.3) >= Chance(kelvin, 1.5, 0.3));
            Assert.True(Chance(kelvin, 1.5, 0.9) >= Chance(kelvin, 1.5, 0.1));
            Assert.InRange(Chance(kelvin, 1.5, 0.5), 0, 1);
        }
    }

    [Fact]
    public void A_middling_chance_asks_for_the_run_that_decides_it()
    {
        var judgement = new Hall()
            .WithHealthy(10)
            .With("MUCH", [Hall.Grown(Cause.Dust, 11)])
            .With("SOME", [Hall.Grown(Cause.Pads, 5.6, "memory")])
            .Judge();
        Assert.True(judgement.ByTag["MUCH"] is { NeedsWorkProbability: > 0.9, Measure: null, Urgency: <= Urgency.Next });
        Assert.All(
            judgement.Queue,
            a => Assert.Equal(a.NeedsWorkProbability is >= NeedsWork.Possible and < NeedsWork.Likely, a.Measure is not null)
        );
        Assert.All(judgement.Queue.Where(a => a.Measure is not null), a => Assert.Equal(Urgency.Soon, a.Urgency));
        Assert.All(
            judgement.Queue.Where(a => a.Urgency == Urgency.Next),
            a => Assert.True(a.NeedsWorkProbability >= NeedsWork.Likely)
        );
    }

    [Fact]
    public void Nobody_states_a_chance_for_what_was_not_measured() =>
        Assert.Null(Hall.JudgeAlone(Handmade.Desktop).NeedsWorkProbability);
}
