using CsCheck;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Tests.Statistics;

public class TrendTests
{
    private static readonly double[] SenTimes = [1, 2, 3, 4, 10, 12, 18],
        SenValues = [9, 15, 19, 20, 45, 55, 78];

    /// <summary>Sen 1968 (JASA 63, 1379–1389), example after Graybill 1961.</summary>
    [Fact]
    public void Line_of_Sens_own_example()
    {
        var line = TheilSen.Fit(SenTimes, SenValues, 0.93)!.Value;
        Assert.Equal(Reference.Value("1.1-N"), line.Pairs);
        Assert.Equal(Reference.Value("1.1-slope"), line.Slope, 1e-9);
        Assert.Equal(Reference.Value("1.1-intercept"), line.Intercept, 1e-9);
        Assert.Equal(Reference.Value("1.1-low"), line.Low, 1e-9);
        Assert.Equal(Reference.Value("1.1-high"), line.High, 1e-9);
    }

    /// <summary>Open series of the R datasets package and MASS; values recomputed with SciPy and R.</summary>
    [Theory]
    [InlineData("1.6.1", "nile.csv")]
    [InlineData("1.6.2", "nhtemp.csv")]
    [InlineData("1.6.3", "co2_annual.csv")]
    [InlineData("1.6.4", "phones.csv")]
    public void Line_and_test_on_open_series(string id, string file)
    {
        var series = Reference.Series(file);
        var line = TheilSen.Fit(series[0], series[1])!.Value;
        var test = MannKendall.Test(series[0], series[1]);
        Assert.Equal(Reference.Value(id + "-slope"), line.Slope, 1e-8);
        Assert.Equal(Reference.Value(id + "-low"), line.Low, 1e-8);
        Assert.Equal(Reference.Value(id + "-high"), line.High, 1e-8);
        Assert.Equal(Reference.Value(id + "-intercept"), line.Intercept, 1e-6);
        Assert.Equal(Reference.Value(id + "-S"), test.S);
        Assert.Equal(Reference.Value(id + "-V"), test.Variance, 1e-5);
        Assert.Equal(Reference.Value(id + "-Z"), test.Z, 1e-8);
        Assert.Equal(1, test.P / Reference.Value(id + "-p"), 1e-7);
    }

    /// <summary>Gilbert 1987, ch. 16: ties in times as well as in values.</summary>
    [Fact]
    public void Ties_in_time_and_value_are_counted_for_neither_side()
    {
        double[] t = [0, 7, 7, 14, 30, 30, 45, 60, 90, 120],
            y = [58.0, 58.5, 58.0, 59.0, 59.0, 60.0, 60.0, 61.5, 63.0, 64.5];
        var line = TheilSen.Fit(t, y)!.Value;
        Assert.Equal(2.5 / 46, line.Slope, 1e-9);
        Assert.Equal(43, line.Pairs);
        Assert.Equal(0.05, line.Low, 1e-9);
        Assert.Equal(1 / 15.0, line.High, 1e-9);
        Assert.Equal(120.1333333, MannKendall.Test(t, y).Variance, 1e-6);
    }

    /// <summary>Yue and Wang 2004, lag 1.</summary>
    [Theory]
    [InlineData("1.7.1-YW1", "nile.csv")]
    [InlineData("1.7.2-YW1", "nhtemp.csv")]
    public void Autocorrelation_widens_the_variance(string id, string file)
    {
        var series = Reference.Series(file);
        Assert.Equal(Reference.Value(id), MannKendall.YueWangFactor(series[0], series[1]), 1e-7);
    }

    [Fact]
    public void A_quarter_of_wild_points_does_not_turn_the_line() =>
        Gen.Double[-3, 3]
            .Select(Gen.Int[0, 1_000_000])
            .Sample(
                (slope, seed) =>
                {
                    var random = new Random(seed);
                    var t = Enumerable.Range(0, 40).Select(i => (double)i).ToArray();
                    var wild = t.OrderBy(_ => random.Next()).Take(10).ToHashSet();
                    var y = t.Select(x => slope * x + 5 + (wild.Contains(x) ? random.NextDouble() * 1000 : 0)).ToArray();
                    // 435 of the 780 pairs are without one: their slope is the middle one.
                    return Math.Abs(TheilSen.Fit(t, y)!.Value.Slope - slope) < 1e-6;
                },
                iter: 200
            );

    [Fact]
    public void Nothing_to_fit_is_null_and_different_lengths_are_an_error()
    {
        Assert.Null(TheilSen.Fit([1, 1, 1], [1, 2, 3]));
        Assert.Null(TheilSen.Fit([], []));
        Assert.Throws<ArgumentException>(() => TheilSen.Fit([1, 2], [1]));
    }
}
