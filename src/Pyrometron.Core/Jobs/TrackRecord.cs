using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Jobs;

/// <summary>How often a cause, when it was predicted, was among those found on opening.</summary>
/// <param name="Right">Of <paramref name="Jobs"/>.</param>
public sealed record TrackRecord(Cause Predicted, int Jobs, int Right)
{
    /// <summary>With fewer jobs nothing is said about it.</summary>
    public const int LeastJobs = 3;

    /// <summary>The record in a sentence, or null with too few jobs to tell.</summary>
    public Message? Says =>
        Predicted == Cause.None || Jobs < LeastJobs
            ? null
            : Message.Of(
                "Of {jobs} machines opened here with {cause} predicted, {right} were found so.",
                Value.Count("jobs", Jobs),
                Value.Word("cause", Predicted),
                Value.Count("right", Right)
            );

    /// <summary>The record of every cause that was ever predicted, most jobs first.</summary>
    /// <param name="jobs">The predicted cause and those found, for each job that was opened and looked at.</param>
    public static IReadOnlyList<TrackRecord> Of(IEnumerable<(Cause Predicted, IReadOnlyList<Cause> Found)> jobs) =>
        [
            .. jobs.GroupBy(j => j.Predicted)
                .Select(g => new TrackRecord(g.Key, g.Count(), g.Count(j => j.Found.Contains(j.Predicted))))
                .OrderByDescending(r => r.Jobs),
        ];
}
