using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Tests.Statistics;

public class CusumTests
{
    private static readonly double[] Montgomery =
    [
        9.45,
        7.99,
        9.29,
        11.66,
        12.16,
        10.18,
        8.04,
        11.46,
        9.20,
        10.34,
        9.03,
        11.47,
        10.51,
        9.40,
        10.08,
        9.37,
        10.62,
        10.31,
        8.52,
        10.84,
        10.90,
        9.33,
        12.29,
        11.50,
        10.60,
        11.08,
        10.38,
        11.62,
        11.31,
        10.52,
    ];

    /// <summary>
    /// Montgomery, Introduction to Statistical Quality Control, table 9.1: signal at period 29, shift after 22.
    /// </summary>
    [Fact]
    public void Worked_series_signals_where_the_book_says()
    {
        var chart = new Cusum(0.5, 5);
        for (var period = 1; period <= 28; period++)
        {
            Assert.Equal(0, chart.Add(Montgomery[period - 1] - 10));
            if (period == 2)
                Assert.Equal(Reference.Value("4.9-Cmax-"), chart.Down, 1e-9);
        }
        Assert.Equal(1, chart.Add(Montgomery[28] - 10));
        Assert.Equal(Reference.Value("4.9-C"), chart.Up, 1e-9);
        Assert.Equal(Reference.Value("4.9-N"), chart.RunLength);
        chart.Reset();
        Assert.Equal(0, chart.Up + chart.Down);
    }

    /// <summary>
    /// Average run lengths of the two-sided chart, k 0.5, h 4 (Hawkins 1993; Montgomery table 9.3), by simulation.
    /// </summary>
    [Theory]
    [InlineData(1.0, "4.1-h4-d1")]
    [InlineData(2.0, "4.1-h4-d2")]
    public void Average_run_length_agrees_with_the_published_table(double shift, string id)
    {
        var random = new Random(7);
        var total = 0L;
        const int runs = 20_000;
        for (var run = 0; run < runs; run++)
        {
            var chart = new Cusum(0.5, 4);
            do total++;
            while (chart.Add(shift + random.Normal()) == 0);
        }
        Assert.Equal(1, (double)total / runs / Reference.Value(id), 0.03);
    }
}
