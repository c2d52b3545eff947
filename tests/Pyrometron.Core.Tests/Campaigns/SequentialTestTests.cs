using Pyrometron.Core.Campaigns;

namespace Pyrometron.Core.Tests.Campaigns;

/// <summary>
/// Wald's test (Wald 1945; Wald, Sequential Analysis, 1947, chapters 3 and 7): its error rates, and the mean number of
/// observations that it takes.
/// </summary>
public sealed class SequentialTestTests
{
    private const double Scatter = 2.5,
        Least = 4;

    private static readonly SequentialTest Test = new(Least, Scatter);

    private static double Normal(Random random) =>
        Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());

    /// <summary>Measures one after the other until it decides; the verdict, and after how many.</summary>
    private static (SequentialVerdict Verdict, int Jobs) Run(double mean, double sigma, Random random)
    {
        var wins = new List<Measured>();
        while (wins.Count < 500)
        {
            wins.Add(new Measured(mean + (Math.Sqrt((Scatter * Scatter) + (sigma * sigma)) * Normal(random)), sigma));
            if (Test.Of(wins).Verdict is not SequentialVerdict.Open and var verdict)
                return (verdict, wins.Count);
        }
        return (SequentialVerdict.Open, wins.Count);
    }

    /// <summary>
    /// 2,000 campaigns: wrong in at most 5 of 100, whether proofs are sharp or not, looked at after every job.
    /// </summary>
    [Theory]
    [InlineData(Least, 0.5, SequentialVerdict.NotWorthwhile)]
    [InlineData(Least, 2, SequentialVerdict.NotWorthwhile)]
    [InlineData(Least / 2, 0.5, SequentialVerdict.Worthwhile)]
    [InlineData(Least / 2, 2, SequentialVerdict.Worthwhile)]
    [InlineData(0, 0.5, SequentialVerdict.Worthwhile)]
    public void It_errs_as_seldom_as_it_says(double mean, double sigma, SequentialVerdict wrong)
    {
        var random = new Random(11);
        const int Campaigns = 2000;
        var errors = Enumerable.Range(0, Campaigns).Count(_ => Run(mean, sigma, random).Verdict == wrong);
        Assert.InRange(errors / (double)Campaigns, 0, SequentialTest.ErrorRate);
    }

    /// <summary>
    /// Wald's mean number of observations under the worthwhile mean, ((1 − β)·A + β·B)/E(z) with E(z) = δ²/2σ²; the excess over
    /// the bound, which that leaves out, makes it larger by some.
    /// </summary>
    [Fact]
    public void It_takes_as_many_jobs_as_the_theory_says()
    {
        var random = new Random(12);
        const double Delta = Least / 2;
        var bound = Math.Log(1 / SequentialTest.ErrorRate);
        var expected = (1 - (2 * SequentialTest.ErrorRate)) * bound / (Delta * Delta / (2 * ((Scatter * Scatter) + (0.5 * 0.5))));
        var mean = Enumerable.Range(0, 2000).Average(_ => Run(Least, 0.5, random).Jobs);
        Assert.InRange(mean / expected, 0.95, 1.45);
    }

    [Fact]
    public void Nothing_is_decided_on_two()
    {
        Assert.Equal(SequentialVerdict.Open, Test.Of([new(40, 0.1), new(40, 0.1)]).Verdict);
        Assert.Equal(SequentialVerdict.Worthwhile, Test.Of([new(14, 0.1), new(14, 0.1), new(14, 0.1)]).Verdict);
        Assert.Equal(SequentialVerdict.NotWorthwhile, Test.Of([new(-8, 0.1), new(-8, 0.1), new(-8, 0.1)]).Verdict);
        Assert.Equal((SequentialVerdict.Open, 0.0), (Test.Of([]).Verdict, Test.Of([]).Evidence));
    }

    /// <summary>Wins that differ more than was thought decide later.</summary>
    [Fact]
    public void Where_wins_differ_more_that_is_reckoned_with()
    {
        var wild = Test.Of([new(16, 0.1), new(1, 0.1), new(16, 0.1), new(1, 0.1)]);
        Assert.Equal(8.66, wild.Scatter, 2);
        Assert.Equal(SequentialVerdict.Open, wild.Verdict);
    }
}
