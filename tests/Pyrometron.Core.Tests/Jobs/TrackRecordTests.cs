using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;

namespace Pyrometron.Core.Tests.Jobs;

public class TrackRecordTests
{
    private static (Cause, IReadOnlyList<Cause>) Job(Cause predicted, params Cause[] found) => (predicted, found);

    [Fact]
    public void A_prediction_is_right_when_its_cause_is_among_those_found()
    {
        var records = TrackRecord.Of([
            Job(Cause.Pads, Cause.Pads, Cause.Dust),
            Job(Cause.Pads, Cause.None),
            Job(Cause.Pads, Cause.Paste, Cause.Pads),
            Job(Cause.Dust, Cause.Dust),
        ]);
        Assert.Equal([new(Cause.Pads, 3, 2), new(Cause.Dust, 1, 1)], records);
    }

    [Fact]
    public void It_speaks_only_of_causes_and_of_jobs_enough()
    {
        Assert.Equal(
            "Of 3 machines opened here with pads predicted, 2 were found so.",
            new TrackRecord(Cause.Pads, 3, 2).Says?.ToString()
        );
        Assert.Null(new TrackRecord(Cause.Pads, TrackRecord.LeastJobs - 1, 1).Says);
        Assert.Null(new TrackRecord(Cause.None, 9, 9).Says);
        Assert.Empty(TrackRecord.Of([]));
    }
}
