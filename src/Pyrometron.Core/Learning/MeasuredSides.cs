namespace Pyrometron.Core.Learning;

/// <summary>What a job's runs showed besides the kelvins won. Null where it was not measured, or is told in no run.</summary>
/// <param name="AfterCelsius">The part that won most, as read after the work, °C.</param>
/// <param name="Decibel">What an automatic fan changed in noise, dB; negative is quieter.</param>
/// <param name="ExpandedDecibel">Its expanded uncertainty, k = 2.</param>
/// <param name="Performance">Share by which the score, or without one the clock, rose; negative where it fell.</param>
/// <param name="EndedThrottling">Whether it throttled before, and not after.</param>
/// <param name="EndedFailing">Whether it failed before, and not after in at least as long.</param>
public sealed record MeasuredSides(
    double? AfterCelsius,
    double? Decibel,
    double? ExpandedDecibel,
    double? Performance,
    bool EndedThrottling,
    bool EndedFailing
)
{
    /// <summary>Nothing but the kelvins was measured.</summary>
    public static MeasuredSides None { get; } = new(null, null, null, null, false, false);
}

/// <summary>What some jobs have won besides kelvins; each figure over the jobs in which it was measured.</summary>
/// <param name="NoiseJobs">Jobs whose runs tell the noise of an automatic fan that changed its speed.</param>
/// <param name="MeanDecibel">Mean of these, dB; negative is quieter. Null without one.</param>
/// <param name="PerformanceJobs">Jobs whose clock or score moved.</param>
/// <param name="MeanPerformance">Mean share of these; null without one.</param>
/// <param name="EndedThrottling">Jobs after which a machine throttled no longer.</param>
/// <param name="EndedFailing">Jobs after which it failed no longer.</param>
public sealed record SidesWon(
    int NoiseJobs,
    double? MeanDecibel,
    int PerformanceJobs,
    double? MeanPerformance,
    int EndedThrottling,
    int EndedFailing
)
{
    /// <summary>Adds jobs up; those that could not be compared count for nothing.</summary>
    public static SidesWon Of(IEnumerable<FinishedJob> jobs)
    {
        var sides = jobs.Where(WorkWon.IsCompared).Select(j => j.Sides).ToList();
        double[] noise = [.. sides.Select(s => s.Decibel).OfType<double>()];
        double[] faster = [.. sides.Select(s => s.Performance).OfType<double>()];
        return new SidesWon(
            noise.Length,
            noise.Length == 0 ? null : noise.Average(),
            faster.Length,
            faster.Length == 0 ? null : faster.Average(),
            sides.Count(s => s.EndedThrottling),
            sides.Count(s => s.EndedFailing)
        );
    }
}
