using CsCheck;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Tests.Statistics;

public class IsotonicRegressionTests
{
    private static double[] Fitted(params double[] y)
    {
        var curve = IsotonicRegression.Fit(y.Select((value, i) => ((double)i, value)));
        return [.. y.Select((_, i) => curve.At(i))];
    }

    /// <summary>
    /// The example of scipy.optimize.isotonic_regression in SciPy's manual (from memory; the pooled means are checked by hand:
    /// (1.5 + 1)/2, (6 + 5.7 + 5)/3, (9 + 7.5)/2, (9.5 + 9)/2).
    /// </summary>
    [Fact]
    public void Adjacent_violators_are_pooled_to_their_mean()
    {
        double[] expected = [1.25, 1.25, 4, 16.7 / 3, 16.7 / 3, 16.7 / 3, 7.8, 8.25, 8.25, 9.25, 9.25];
        Assert.All(
            expected.Zip(Fitted(1.5, 1, 4, 6, 5.7, 5, 7.8, 9, 7.5, 9.5, 9)),
            pair => Assert.Equal(pair.First, pair.Second, 1e-12)
        );
    }

    [Fact]
    public void A_rising_series_is_left_alone_and_a_falling_one_is_its_mean()
    {
        Assert.Equal([1, 2, 5], Fitted(1, 2, 5));
        Assert.Equal([3, 3, 3], Fitted(5, 3, 1));
    }

    [Fact]
    public void Between_points_the_curve_is_a_step_and_before_the_first_it_is_not_known()
    {
        var curve = IsotonicRegression.Fit([(10, 1), (20, 3), (20, 5), (30, 9)]);
        Assert.Equal([1, 4, 4, 9, 9], new[] { 15.0, 20, 29.9, 30, 1000 }.Select(curve.At));
        Assert.True(double.IsNaN(curve.At(9.9)));
    }

    [Fact]
    public void It_never_falls_keeps_the_mean_and_no_other_rising_curve_is_nearer() =>
        Gen.Select(Gen.Double[-50, 50].Array[2, 25], Gen.Double[-50, 50].Array[25])
            .Sample(
                (y, other) =>
                {
                    var fitted = Fitted(y);
                    double Distance(IEnumerable<double> curve) => curve.Zip(y, (c, v) => (c - v) * (c - v)).Sum();
                    Assert.All(fitted.Zip(fitted.Skip(1)), pair => Assert.True(pair.First <= pair.Second + 1e-9));
                    Assert.Equal(y.Average(), fitted.Average(), 1e-9);
                    Assert.True(Distance(fitted) <= Distance(other.Take(y.Length).Order()) + 1e-9);
                }
            );
}
