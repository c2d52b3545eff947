using Pyrometron.Core.Fleet;
using Pyrometron.Core.Learning;

namespace Pyrometron.Core.Tests.Learning;

public sealed class WorkWonTests
{
    private static FinishedJob Job(
        VerdictOutcome? outcome,
        double won = 0,
        double expanded = 0,
        bool back = false,
        int broken = 0
    ) =>
        new(1, "GC-1", "Sorrel", "ROW", ServiceLevel.DustOut, new(2026, 11, 1), outcome, won, expanded, null, null, back, broken);

    /// <summary>Every job stands in one of the four, whatever came of it.</summary>
    [Fact]
    public void Counts_add_up()
    {
        var won = WorkWon.Of([
            Job(VerdictOutcome.Improved, 8, 2),
            Job(VerdictOutcome.NoChange, 1, 2, back: true),
            Job(VerdictOutcome.Worse, -4, 2, broken: 2),
            Job(VerdictOutcome.NotComparable),
            Job(null),
        ]);
        Assert.Equal((5, 1, 1, 1, 2), (won.Jobs, won.Improved, won.NoChange, won.Worse, won.NotCompared));
        Assert.Equal((1, 2), (won.CameBack, won.BrokenParts));
        // What made it worse counts against the mean.
        Assert.Equal(5 / 3.0, won.MeanKelvin!.Value, 12);
    }

    /// <summary>
    /// Type A evaluation: standard uncertainty of a mean s/√n (GUM, JCGM 100:2008, 4.2.3). 9, 11, 10, 14 have s² = 14/3.
    /// </summary>
    [Fact]
    public void Jobs_that_differ_more_than_their_proofs_are_as_sure_as_their_scatter()
    {
        var won = WorkWon.Of([.. new[] { 9.0, 11, 10, 14 }.Select(k => Job(VerdictOutcome.Improved, k, 1))]);
        Assert.Equal(11, won.MeanKelvin!.Value, 12);
        Assert.Equal(2 * Math.Sqrt(14 / 3.0 / 4), won.ExpandedKelvin!.Value, 12);
    }

    /// <summary>
    /// Jobs that agree by chance are not surer than what was measured: uncertainties add in squares (GUM, 5.1.2).
    /// </summary>
    [Fact]
    public void Jobs_that_agree_are_as_sure_as_their_proofs()
    {
        var won = WorkWon.Of([Job(VerdictOutcome.Improved, 7, 3), Job(VerdictOutcome.Improved, 7, 4)]);
        Assert.Equal(Math.Sqrt(9 + 16) / 2, won.ExpandedKelvin!.Value, 12);
    }

    [Fact]
    public void One_job_is_as_sure_as_its_proof_and_none_says_nothing()
    {
        Assert.Equal(3.3, WorkWon.Of([Job(VerdictOutcome.Improved, 7, 3.3)]).ExpandedKelvin!.Value, 12);
        var none = WorkWon.Of([Job(null)]);
        Assert.Null(none.MeanKelvin);
        Assert.Null(none.ExpandedKelvin);
        Assert.Equal(0, WorkWon.Of([]).Jobs);
    }
}
