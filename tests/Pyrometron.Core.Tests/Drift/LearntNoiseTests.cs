using Pyrometron.Core.Drift;
using Pyrometron.Core.Simulation;
using Pyrometron.Core.Statistics;
using Pyrometron.Core.Tests.Judging;

namespace Pyrometron.Core.Tests.Drift;

/// <summary>Scatter is learnt: of machines that scatter more, less is sure.</summary>
public class LearntNoiseTests
{
    /// <summary>
    /// The median of absolute differences has 37 % of the efficiency of the standard deviation on normal values (Rousseeuw and
    /// Croux 1993): the variance of the logarithm of its square is 2/0.37 over their number.
    /// </summary>
    [Fact]
    public void The_scale_of_few_values_is_as_uncertain_as_is_reckoned_with()
    {
        const int count = 400,
            draws = 2000;
        var random = new Random(1);
        var logs = new double[draws];
        for (var i = 0; i < draws; i++)
        {
            var values = Enumerable.Range(0, count).Select(_ => Math.Abs(random.Normal())).ToArray();
            logs[i] = 2 * Math.Log(Robust.MadToSigma * Robust.Median(values));
        }
        var mean = logs.Average();
        Assert.Equal(0, mean, 0.02);
        Assert.Equal(LearntNoise.SamplingVariance, count * logs.Average(l => (l - mean) * (l - mean)), 0.6);
    }

    [Fact]
    public void A_hall_that_scatters_twice_as_much_is_judged_less_surely_and_no_differently()
    {
        double SigmaOf(Scatter scatter)
        {
            var hall = new Hall();
            for (var i = 0; i < 10; i++)
                hall.With($"M-{i}", [], change: m => m with { Scatter = scatter });
            return Robust.Median([.. hall.Judge().Queue.Select(a => a.WorstPart!.SigmaKelvin)]);
        }
        var (usual, rough) = (SigmaOf(new Scatter(1, 0.9)), SigmaOf(new Scatter(3, 2.7)));
        Assert.True(rough > 1.3 * usual, $"{rough} {usual}");
    }
}
