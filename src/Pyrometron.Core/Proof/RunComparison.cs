using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Proof;

/// <summary>
/// Compares a run before a service with one after it. The rises over ambient are brought to the conditions of the
/// before-run where that can be calculated; their difference carries the uncertainty of both runs
/// (<see cref="RunUncertainty"/>; JCGM 100:2008, GUM) with k = 2.
/// </summary>
public static class RunComparison
{
    /// <summary>Coverage factor.</summary>
    private const double Coverage = 2;

    /// <summary>
    /// Runs of which the longer lasts more than so many times the shorter are not equals: the shorter one counts as unsettled.
    /// </summary>
    private const double UnequalLength = 1.5;

    /// <summary>Judges a pair of runs.</summary>
    /// <param name="service">What was done in between; shapes the advice.</param>
    public static Verdict Evaluate(ServiceLevel service, Run before, Run after)
    {
        var reasons = new List<VerdictReason>();
        var (comparable, scale) = new RunConditions(before, after, reasons).Check();
        var (first, second) = Lengths(before, after);
        foreach (
            var name in before
                .Parts.Select(p => p.Part)
                .Except(after.Parts.Select(p => p.Part))
                .Concat(after.Parts.Select(p => p.Part).Except(before.Parts.Select(p => p.Part)))
        )
            reasons.Add(
                new VerdictReason(
                    "part-missing",
                    Message.Of("{part} was measured in one run only and is left out.", Value.PartFirst("part", name))
                )
            );

        var parts = new List<PartVerdict>();
        foreach (var b in before.Parts)
            if (after.Parts.FirstOrDefault(a => a.Part == b.Part) is { } a)
                parts.Add(Compare(first, second, b, a, scale, comparable));
        var outcome =
            !comparable || parts.All(p => p.Outcome == VerdictOutcome.NotComparable) ? VerdictOutcome.NotComparable
            : parts.Any(p => p.Outcome == VerdictOutcome.Worse) ? VerdictOutcome.Worse
            : parts.Any(p => p.Outcome == VerdictOutcome.Improved) ? VerdictOutcome.Improved
            : VerdictOutcome.NoChange;
        return new Verdict(outcome, parts, reasons, [.. Advice.For(service, before, after, outcome, parts, reasons)])
        {
            AlsoBetter = [.. BetterBesides(before, after)],
        };
    }

    /// <summary>Both runs, the shorter one as unsettled where the other is much longer and it does not say itself.</summary>
    private static (Run Before, Run After) Lengths(Run before, Run after)
    {
        var shorter = Math.Min(before.Minutes, after.Minutes);
        Run Of(Run run) =>
            run.Settled is null && run.Minutes == shorter && Math.Max(before.Minutes, after.Minutes) > UnequalLength * shorter
                ? run with
                {
                    Settled = false,
                }
                : run;
        return (Of(before), Of(after));
    }

    private static PartVerdict Compare(Run before, Run after, RunPart b, RunPart a, RunScale scale, bool comparable)
    {
        // An ambient nobody wrote down is taken as the other run's: the wide uncertainty says what that is worth.
        var ambientBefore = (before.Ambient ?? after.Ambient)?.Value ?? 0;
        var ambientAfter = (after.Ambient ?? before.Ambient)?.Value ?? 0;
        var known = before.Ambient is not null || after.Ambient is not null;
        var (riseBefore, riseAfter) = (b.Celsius.Value - ambientBefore, a.Celsius.Value - ambientAfter);
        var factor = known ? scale.Factor : 1;
        var change = riseAfter * factor - riseBefore;
        var (first, second) = (
            RunUncertainty.Of(before, b, riseBefore).Total,
            RunUncertainty.Of(after, a, riseAfter).Total * factor
        );
        var u = Math.Sqrt(first * first + second * second + (known ? Math.Pow(riseAfter * scale.Sigma, 2) : 0));
        var outcome =
            !comparable || RunConditions.IsBelowAir(before, b) || RunConditions.IsBelowAir(after, a)
                ? VerdictOutcome.NotComparable
            : change > Coverage * u ? VerdictOutcome.Worse
            : change < -Coverage * u && !after.Throttled && after.FailedAfterMinutes is null ? VerdictOutcome.Improved
            : VerdictOutcome.NoChange;
        return new PartVerdict(b.Part, outcome, change, Coverage * u, a.Celsius.Value - b.Celsius.Value);
    }

    private static IEnumerable<AlsoBetter> BetterBesides(Run before, Run after)
    {
        if (
            before.Fan.Mode == FanMode.Auto
            && after.Fan.Mode == FanMode.Auto
            && after.Fan.Rpm < (1 - RunConditions.SpeedDiffersShare) * before.Fan.Rpm
        )
            yield return AlsoBetter.Quieter;
        if (Gain(before.ClockMhz, after.ClockMhz) || Gain(before.Score, after.Score))
            yield return AlsoBetter.Faster;
        if (before.Throttled && !after.Throttled)
            yield return AlsoBetter.NoLongerThrottling;
        if (before.FailedAfterMinutes is not null && after.FailedAfterMinutes is null)
            yield return AlsoBetter.NoLongerFailing;
    }

    private static bool Gain(double? before, double? after) => after > before * (1 + Advice.NotableGain);
}
