using Pyrometron.Core.Events;

namespace Pyrometron.Core.Proof;

/// <summary>What a service won besides kelvins: noise, clock and score, an end to throttling and failing.</summary>
internal static class SideResults
{
    /// <summary>A clock or score that moves by less is chance, share. Common practice, no source.</summary>
    public const double NotableGain = 0.005;

    /// <summary>
    /// The sound power level of a fan follows 50·lg of its speed, all else equal (the fan laws: Madison, Fan Engineering;
    /// Bies &amp; Hansen, Engineering Noise Control, ch. 10; from memory).
    /// </summary>
    public const double DecibelPerDecade = 50;

    /// <summary>Measured fans lie between 40 and 60; taken as rectangular. From memory, as above.</summary>
    private const double DecibelHalfWidth = 10;

    /// <summary>The noise of a fan by its speed, n₁ before and n₂ after.</summary>
    public static NoiseChange NoiseOf(double before, double after)
    {
        var decades = Math.Log10(after / before);
        return new NoiseChange(
            after / before - 1,
            DecibelPerDecade * decades,
            RunComparison.Coverage * DecibelHalfWidth / Math.Sqrt(3) * Math.Abs(decades)
        );
    }

    /// <summary>What an automatic fan won or lost; a fixed one runs as it is told, which is nobody's gain.</summary>
    public static NoiseChange? NoiseOf(Run before, Run after) =>
        before.Fan is { Mode: FanMode.Auto, Rpm: > 0 and var then }
        && after.Fan is { Mode: FanMode.Auto, Rpm: > 0 and var now }
        && Math.Abs(now / then - 1) > RunConditions.SpeedDiffersShare
            ? NoiseOf(then, now)
            : null;

    /// <summary>Clock and score, where both runs have them in the same unit and they moved.</summary>
    public static IEnumerable<PerformanceChange> PerformanceOf(Run before, Run after)
    {
        if (before.ClockMhz is > 0 and var clock && after.ClockMhz is > 0 and var clockNow && Moved(clock, clockNow))
            yield return new(PerformanceFigure.Clock, clock, clockNow, "MHz");
        if (
            before.Score is > 0 and var score
            && after.Score is > 0 and var scoreNow
            && Moved(score, scoreNow)
            && RunConditions.IsSame(before.ScoreUnit ?? "", after.ScoreUnit ?? "")
        )
            yield return new(PerformanceFigure.Score, score, scoreNow, after.ScoreUnit);
    }

    /// <summary>What is better besides the kelvins; nothing of it counts between runs that cannot be compared.</summary>
    public static IEnumerable<AlsoBetter> BetterBesides(Run before, Run after)
    {
        if (NoiseOf(before, after) is { Decibel: < 0 })
            yield return AlsoBetter.Quieter;
        if (PerformanceOf(before, after).ToArray() is { Length: > 0 } moved && moved.All(p => p.After > p.Before))
            yield return AlsoBetter.Faster;
        if (before.Throttled && !after.Throttled && after.FailedAfterMinutes is null)
            yield return AlsoBetter.NoLongerThrottling;
        if (
            before.FailedAfterMinutes is { } failed
            && after.FailedAfterMinutes is null
            && after.Minutes >= Symptom.TimesToFailure * failed
        )
            yield return AlsoBetter.NoLongerFailing;
    }

    private static bool Moved(double before, double after) => Math.Abs(after / before - 1) >= NotableGain;
}
