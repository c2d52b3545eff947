using Pyrometron.Core.Fleet;
using Pyrometron.Core.Learning;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Tests.Learning;

/// <summary>Whether stated chances hold.</summary>
public class StatedChancesTests
{
    private static FinishedJob Job(double? stated, double won, VerdictOutcome? outcome = VerdictOutcome.Improved) =>
        new(1, "A", "M", "Z", ServiceLevel.DustOut, new(2026, 1, 1), outcome, won, 2, null, null, false, 0)
        {
            StatedChance = stated,
        };

    /// <summary>Newcombe 1998, Statistics in Medicine 17, 857–872, table I, score method; from memory.</summary>
    [Theory]
    [InlineData(81, 263, 0.2553, 0.3662)]
    [InlineData(15, 148, 0.0624, 0.1605)]
    [InlineData(0, 20, 0.0000, 0.1611)]
    [InlineData(1, 29, 0.0061, 0.1718)]
    public void Wilsons_interval(int hits, int cases, double low, double high)
    {
        var (found, to) = Wilson.Interval(hits, cases);
        Assert.Equal(low, found, 5e-5);
        Assert.Equal(high, to, 5e-5);
    }

    [Fact]
    public void Jobs_are_held_against_what_was_stated_when_they_began()
    {
        FinishedJob[] jobs =
        [
            .. Enumerable.Repeat(Job(0.9, 8), 9),
            Job(1, 1, VerdictOutcome.NoChange),
            Job(0.3, 5),
            Job(0.3, 0.4, VerdictOutcome.NoChange),
            Job(0.2, -3, VerdictOutcome.Worse),
            // Nothing to learn from: not stated, or not compared.
            Job(null, 9),
            Job(0.7, 0, VerdictOutcome.NotComparable),
            Job(0.7, 0, null),
        ];
        var chances = StatedChances.Of(jobs, 2.5);
        Assert.Equal(13, chances.Jobs);
        Assert.Equal([(0.2, 3, 1), (0.8, 10, 9)], chances.Groups.Select(g => (g.From, g.Cases, g.CameTrue)));
        Assert.Equal(0.91, chances.Groups[1].Stated, 12);
        Assert.All(chances.Groups, g => Assert.True(g.Holds));
        Assert.Equal((9 * 0.01 + 1 + 0.49 + 0.09 + 0.04) / 13, chances.Brier!.Value, 12);
    }

    [Fact]
    public void Chances_that_were_stated_too_high_do_not_hold()
    {
        var chances = StatedChances.Of([.. Enumerable.Repeat(Job(0.95, 0, VerdictOutcome.NoChange), 6)], 2.5);
        Assert.False(Assert.Single(chances.Groups).Holds);
        Assert.Null(StatedChances.Of([], 2.5).Brier);
    }
}
