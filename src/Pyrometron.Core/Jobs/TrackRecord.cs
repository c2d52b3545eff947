using Pyrometron.Core.Fleet;

namespace Pyrometron.Core.Jobs;

/// <summary>How often a cause, when it was predicted, was among those found on opening.</summary>
/// <param name="Right">Of <paramref name="Jobs"/>.</param>
public sealed record TrackRecord(Cause Predicted, int Jobs, int Right)
{
    /// <summary>With fewer jobs nothing is said about it.</summary>
    public const int LeastJobs = 3;

    /// <summary>The record in a sentence, or null with too few jobs to tell.</summary>
    public string? Says =>
        Predicted == Cause.None || Jobs < LeastJobs
            ? null
            : $"Of {Jobs} machines opened here with {Words.Of(Predicted)} predicted, {Right} were found so.";

    /// <summary>The record of every cause that was ever predicted, most jobs first.</summary>
    /// <param name="jobs">The predicted cause and those found, for each job that was opened and looked at.</param>
    public static IReadOnlyList<TrackRecord> Of(IEnumerable<(Cause Predicted, IReadOnlyList<Cause> Found)> jobs) =>
        [
            .. jobs.GroupBy(j => j.Predicted)
                .Select(g => new TrackRecord(g.Key, g.Count(), g.Count(j => j.Found.Contains(j.Predicted))))
                .OrderByDescending(r => r.Jobs),
        ];
}
