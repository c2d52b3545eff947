using CsCheck;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Tests.Statistics;

public class RobustTests
{
    /// <summary>Venables &amp; Ripley 2002 (MASS), 5.5: chem and abbey.</summary>
    [Theory]
    [InlineData("3.1", "chem.csv")]
    [InlineData("3.2", "abbey.csv")]
    public void Location_and_scale_of_published_samples(string id, string file)
    {
        var values = Reference.Series(file)[^1];
        Assert.Equal(Reference.Value(id + "-median"), Robust.Median(values), 1e-9);
        // The sheet rounds the factor to 1.4826, as the book does.
        Assert.Equal(Reference.Value(id + "-mad"), Robust.MadScale(values), 1e-5);
        Assert.Equal(Reference.Value(id + "-huber"), Robust.HuberLocation(values), 1e-5);
    }

    [Fact]
    public void A_quantile_by_selection_is_the_one_by_sorting() =>
        Gen.Select(Gen.OneOf(Gen.Int[0, 5].Select(i => (double)i), Gen.Double[-50, 50]).Array[1, 60], Gen.Double[0, 1])
            .Sample(
                (values, fraction) =>
                {
                    var before = values.ToArray();
                    Assert.Equal(
                        Robust.QuantileOfSorted(values.Order().ToArray(), fraction),
                        Robust.Quantile(values, fraction),
                        1e-12
                    );
                    Assert.Equal(before, values);
                    Assert.Equal(Robust.Median(values), Robust.MedianInPlace(values));
                }
            );

    [Fact]
    public void One_stuck_reading_moves_nothing_and_is_seen()
    {
        double[] readings = [61, 62, 61.5, 63, 62.5, 61, 62, 95, 62.5];
        Assert.Equal(Reference.Value("3.3-median"), Robust.Median(readings), 1e-12);
        Assert.Equal(Reference.Value("3.3-huber"), Robust.HuberLocation(readings), 1e-6);
        Assert.Equal(Reference.Value("3.3-z"), Robust.ZScore(95, readings), 1e-3);
    }

    /// <summary>MASS 6.5, phones and stackloss; converged values, not the early stops that books print.</summary>
    [Fact]
    public void Robust_regression_of_published_data()
    {
        var phones = Reference.Series("phones.csv");
        var fit = HuberRegression.Fit([.. phones[0].Select(x => new[] { 1, x })], phones[1])!;
        Assert.Equal(Reference.Value("3.5-b0"), fit.Coefficients[0], 1e-4);
        Assert.Equal(Reference.Value("3.5-b1"), fit.Coefficients[1], 1e-5);
        var stack = Reference.Series("stackloss.csv");
        fit = HuberRegression.Fit(
            [.. Enumerable.Range(0, stack[0].Length).Select(i => new[] { 1, stack[0][i], stack[1][i], stack[2][i] })],
            stack[3]
        )!;
        for (var b = 0; b < 4; b++)
            Assert.Equal(Reference.Value($"3.6-b{b}"), fit.Coefficients[b], 1e-4);
    }

    /// <summary>NIST/ITL Statistical Reference Datasets: Norris, Pontius, Longley and Filip (degree 10).</summary>
    [Theory]
    [InlineData("2.1", "nist_norris.csv", 1, 1e-9)]
    [InlineData("2.4", "nist_pontius.csv", 2, 1e-8)]
    [InlineData("2.6", "nist_filip.csv", 10, 1e-6)]
    public void Certified_polynomials(string id, string file, int degree, double relative)
    {
        var series = Reference.Series(file);
        var fit = HuberRegression.Fit(
            [.. series[0].Select(x => Enumerable.Range(0, degree + 1).Select(p => Math.Pow(x, p)).ToArray())],
            series[1],
            double.PositiveInfinity
        )!;
        for (var b = 0; b <= degree; b++)
            Assert.Equal(1, fit.Coefficients[b] / Reference.Value($"{id}-b{b}"), relative);
    }

    [Fact]
    public void Certified_multiple_regression()
    {
        var s = Reference.Series("nist_longley.csv");
        var fit = HuberRegression.Fit(
            [.. Enumerable.Range(0, s[0].Length).Select(i => new[] { 1, s[1][i], s[2][i], s[3][i], s[4][i], s[5][i], s[6][i] })],
            s[0],
            double.PositiveInfinity
        )!;
        for (var b = 0; b < 7; b++)
            Assert.Equal(1, fit.Coefficients[b] / Reference.Value($"2.5-b{b}"), 1e-7);
    }

    [Fact]
    public void Columns_that_depend_on_each_other_cannot_be_fitted() =>
        Assert.Null(
            HuberRegression.Fit(
                [
                    [1, 2],
                    [2, 4],
                    [3, 6],
                ],
                [1, 2, 3]
            )
        );

    [Fact]
    public void Bounded_least_squares_meets_its_optimality_conditions() =>
        Gen.Double[-2, 2]
            .Array[30]
            .Select(Gen.Double[-3, 3].Array[6])
            .Sample(
                (entries, target) =>
                {
                    // H = AᵀA + I, g: the gradient is zero where x is free or positive and not negative where x stands at zero.
                    const int n = 5;
                    var h = new double[n * n];
                    for (var i = 0; i < n; i++)
                    for (var j = 0; j < n; j++)
                        h[i * n + j] =
                            Enumerable.Range(0, 6).Sum(r => entries[r * n + i] * entries[r * n + j]) + (i == j ? 1 : 0);
                    var g = Enumerable
                        .Range(0, n)
                        .Select(i => Enumerable.Range(0, 6).Sum(r => entries[r * n + i] * target[r]))
                        .ToArray();
                    bool[] bounded = [true, true, true, false, false];
                    var x = new double[n];
                    new BoundedLeastSquares().Solve(h, g, bounded, x);
                    return Enumerable
                        .Range(0, n)
                        .All(i =>
                        {
                            var slope = Enumerable.Range(0, n).Sum(j => h[i * n + j] * x[j]) - g[i];
                            return bounded[i] && x[i] == 0 ? slope >= -1e-6 : Math.Abs(slope) < 1e-6 && (!bounded[i] || x[i] > 0);
                        });
                },
                iter: 200
            );
}
