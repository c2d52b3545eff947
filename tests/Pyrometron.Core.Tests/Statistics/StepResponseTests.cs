using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Tests.Statistics;

public class StepResponseTests
{
    [Fact]
    public void Whole_degree_readings_give_back_the_curve_they_came_from()
    {
        var data = Reference.List("5.5-data");
        var fit = StepResponse.Fit([.. Enumerable.Range(0, data.Length).Select(i => 15.0 * i)], data)!.Value;
        Assert.Equal(Reference.Value("5.5-T0"), fit.Start, 1e-3);
        Assert.Equal(Reference.Value("5.5-Tinf"), fit.Settled, 1e-3);
        Assert.Equal(Reference.Value("5.5-tau"), fit.TimeConstant, 1e-3);
        Assert.Equal(Reference.Value("5.5-rss"), fit.ResidualSumOfSquares, 1e-6);
        Assert.InRange(fit.SettledUncertainty, 0.05, 0.5);
    }

    /// <summary>NIST/ITL StRD: Misra1a and BoxBOD, the step response from zero, certified values.</summary>
    [Theory]
    [InlineData(
        "2.7",
        new[] { 77.6, 114.9, 141.1, 190.8, 239.9, 289.0, 332.8, 378.4, 434.8, 477.3, 536.8, 593.1, 689.1, 760.0 },
        new[] { 10.07, 14.73, 17.94, 23.93, 29.61, 35.18, 40.02, 44.82, 50.76, 55.05, 61.01, 66.40, 75.47, 81.78 }
    )]
    [InlineData("2.8", new[] { 1.0, 2, 3, 5, 7, 10 }, new[] { 109.0, 149, 149, 191, 213, 224 })]
    public void Certified_nonlinear_fits(string id, double[] x, double[] y)
    {
        var fit = StepResponse.Fit(x, y, knownStart: 0)!.Value;
        Assert.Equal(1, fit.Settled / Reference.Value(id + "-b1"), 1e-5);
        Assert.Equal(1, 1 / fit.TimeConstant / Reference.Value(id + "-b2"), 1e-5);
        Assert.Equal(1, fit.ResidualSumOfSquares / Reference.Value(id + "-rss"), 1e-6);
        Assert.Equal(1, fit.SettledUncertainty / Reference.Value(id + "-sd1"), 1e-4);
    }

    /// <summary>Incropera &amp; DeWitt, ch. 5: 63.2 % after one time constant, 95 % after three.</summary>
    [Fact]
    public void Share_of_the_rise_follows_the_time_constant()
    {
        var fit = new StepFit(20, 80, 90, 0, 0);
        Assert.Equal(0.632121, fit.ShareAt(90), 1e-6);
        Assert.Equal(0.950213, fit.ShareAt(270), 1e-6);
        Assert.Equal(20, fit.At(0), 1e-12);
    }

    [Fact]
    public void Too_few_samples_are_no_fit()
    {
        Assert.Null(StepResponse.Fit([0, 1, 2], [1, 2, 3]));
        Assert.Null(StepResponse.Fit([1, 1, 1, 1], [1, 2, 3, 4]));
    }
}
