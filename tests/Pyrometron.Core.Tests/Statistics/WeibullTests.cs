using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Tests.Statistics;

/// <summary>
/// Lives and the age at which to replace: Weibull 1951; Barlow &amp; Hunter 1960; Lawless 1982; Abernethy, The New Weibull
/// Handbook. Expected values from the reference sheet, section 11.
/// </summary>
public class WeibullTests
{
    [Theory]
    [InlineData(0.5, "0.5")]
    [InlineData(1.0, "1.0")]
    [InlineData(1.5, "1.5")]
    [InlineData(2.0, "2.0")]
    [InlineData(2.5, "2.5")]
    [InlineData(3.0, "3.0")]
    [InlineData(3.5, "3.5")]
    public void Moments_and_ages(double shape, string id)
    {
        var life = new WeibullLife(shape, 1000);
        void Check(string what, double found) => Assert.Equal(1, found / Reference.Value($"11.1-{id}-{what}"), 1e-6);
        Check("mean", life.Mean);
        Check("sd", life.Deviation);
        Check("median", life.AgeOf(0.5));
        Check("B10", life.AgeOf(0.1));
        Check("B1", life.AgeOf(0.01));
        Assert.Equal(1 - Math.Exp(-1), 1 - life.Survival(1000), 12);
    }

    [Fact]
    public void Hazard_and_failure_within_a_span()
    {
        var life = new WeibullLife(2.5, 1000);
        Assert.Equal(Reference.Value("11.1-haz"), life.Hazard(600), 5e-10);
        Assert.Equal(Reference.Value("11.1-cond"), 1 - life.Survival(700) / life.Survival(600), 5e-8);
    }

    [Theory]
    [InlineData(1.5, 5)]
    [InlineData(2, 5)]
    [InlineData(2, 10)]
    [InlineData(2.5, 5)]
    [InlineData(2.5, 10)]
    [InlineData(3, 5)]
    [InlineData(3, 10)]
    public void The_age_to_replace_at_and_what_it_costs(double shape, double ratio)
    {
        var replacement = new AgeReplacement(new WeibullLife(shape, 1000), 1, ratio);
        var id = FormattableString.Invariant($"11.2-{shape}-{ratio}");
        Assert.Equal(Reference.Value($"{id}-T"), replacement.BestAge!.Value, 1e-4);
        Assert.Equal(Reference.Value($"{id}-g"), 1000 * replacement.CostRate(replacement.BestAge.Value), 1e-6);
        Assert.Equal(
            Reference.Value($"{id}-r"),
            replacement.CostRate(replacement.BestAge.Value) / replacement.CostRateOfFailure,
            1e-6
        );
    }

    [Fact]
    public void The_optimum_is_flat_and_there_is_none_without_wear_or_without_a_dearer_failure()
    {
        var replacement = new AgeReplacement(new WeibullLife(2.5, 1000), 1, 5);
        var best = replacement.BestAge!.Value;
        Assert.Equal(Reference.Value("11.2-sens"), replacement.CostRate(1.2 * best) / replacement.CostRate(best), 1e-6);
        Assert.Null(new AgeReplacement(new WeibullLife(1, 1000), 1, 5).BestAge);
        Assert.Null(new AgeReplacement(new WeibullLife(0.7, 1000), 1, 5).BestAge);
        Assert.Null(new AgeReplacement(new WeibullLife(2.5, 1000), 5, 5).BestAge);
    }

    /// <summary>Ball bearings, Lieblein &amp; Zelen 1956; the published fit in Lawless 1982.</summary>
    [Fact]
    public void Ball_bearings_by_maximum_likelihood()
    {
        double[] millions =
        [
            17.88,
            28.92,
            33.00,
            41.52,
            42.12,
            45.60,
            48.48,
            51.84,
            51.96,
            54.12,
            55.56,
            67.80,
            68.64,
            68.64,
            68.88,
            84.12,
            93.12,
            98.64,
            105.12,
            105.84,
            127.92,
            128.04,
            173.40,
        ];
        var life = WeibullLife.Fit([.. millions.Select(t => new Lifetime(t, true))])!.Value;
        Assert.Equal(Reference.Value("11.3-beta"), life.Shape, 5e-4);
        Assert.Equal(Reference.Value("11.3-eta"), life.Scale, 5e-3);
    }

    [Fact]
    public void Parts_that_still_run_make_lives_longer()
    {
        Lifetime[] failed = [new(400, true), new(700, true), new(900, true)];
        var alone = WeibullLife.Fit(failed)!.Value;
        var all = WeibullLife.Fit([.. failed, new(1000, false), new(1000, false)])!.Value;
        Assert.True(all.Mean > alone.Mean);
        // At the likeliest values the score of both parameters is nothing: (Σt^β)/r = η^β.
        Assert.Equal(
            Math.Pow(all.Scale, all.Shape),
            (Math.Pow(400, all.Shape) + Math.Pow(700, all.Shape) + Math.Pow(900, all.Shape) + 2 * Math.Pow(1000, all.Shape)) / 3,
            Math.Pow(all.Scale, all.Shape) * 1e-9
        );
        Assert.Null(WeibullLife.Fit([new(400, true), new(400, true), new(900, false)]));
        Assert.Null(WeibullLife.Fit([]));
    }

    [Theory]
    [InlineData(0, 0.632120558828558, "11.4-r0-0.632")]
    [InlineData(0, 0.9, "11.4-r0-0.900")]
    [InlineData(1, 0.9, "11.4-r1-0.900")]
    public void Bound_of_a_life_with_few_failures(int failures, double confidence, string id)
    {
        double[] times = [1000, 1000, 1000, 800, 600];
        var lives = times.Select((t, i) => new Lifetime(t, i < failures)).ToArray();
        Assert.Equal(
            Reference.Value(id),
            WeibullLife.LeastScale(2, lives, confidence),
            id.Contains("632", StringComparison.Ordinal) ? 1 : 1e-4
        );
    }

    /// <summary>
    /// Without a spread of their own the pooled mean is the weighted one; with one, equal weights in the limit (DerSimonian &amp;
    /// Laird 1986).
    /// </summary>
    [Fact]
    public void Values_that_differ_are_pooled_with_their_spread()
    {
        var alike = RandomEffects.Of([new(1, 1), new(1.2, 2)]);
        Assert.Equal((1 + 1.2 / 4) / 1.25, alike.Mean, 12);
        Assert.Equal((1 / Math.Sqrt(1.25), 0.0), (alike.Sigma, alike.Spread));
        var apart = RandomEffects.Of([new(0, 0.01), new(10, 0.01), new(20, 0.01)]);
        Assert.Equal(10, apart.Mean, 6);
        Assert.Equal(10, apart.Spread, 3);
        Assert.Equal(10 / Math.Sqrt(3), apart.Sigma, 3);
        Assert.Equal(new RandomEffects(4, 2, 0), RandomEffects.Of([new(4, 2)]));
    }
}
