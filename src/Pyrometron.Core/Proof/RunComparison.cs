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
    internal const double Coverage = 2;

    /// <summary>
    /// Runs of which the longer lasts more than so many times the shorter are not equals: the shorter one counts as unsettled.
    /// </summary>
    private const double UnequalLength = 1.5;

    /// <summary>Corrections below this change nothing that anybody could see, K.</summary>
    private const double LeastCorrection = 0.05;

    /// <summary>Judges a pair of runs.</summary>
    /// <param name="service">What was done in between; shapes the advice.</param>
    public static Verdict Evaluate(ServiceLevel service, Run before, Run after) => TestSet.Judge(service, [before], [after]);

    /// <summary>Compares runs of one kind before with runs of one kind after.</summary>
    internal static RunPair Pair(RunGroup before, RunGroup after, double repeatability, MeantToDiffer meant = default)
    {
        var (first, second) = (before.Mean, after.Mean);
        var reasons = new List<VerdictReason>();
        var (comparable, scale) = new RunConditions(first, second, meant, reasons).Check();
        foreach (
            var name in first
                .Parts.Select(p => p.Part)
                .Except(second.Parts.Select(p => p.Part))
                .Concat(second.Parts.Select(p => p.Part).Except(first.Parts.Select(p => p.Part)))
        )
            reasons.Add(
                new VerdictReason(
                    "part-missing",
                    Message.Of("{part} was measured in one run only and is left out.", Value.PartFirst("part", name))
                )
            );

        var compare = new Comparison(before, after, scale, comparable, repeatability);
        PartVerdict[] parts =
        [
            .. first.Parts.SelectMany(b => second.Parts.Where(a => a.Part == b.Part).Select(a => compare.Of(b, a))),
        ];
        var outcome =
            !comparable || parts.All(p => p.Outcome == VerdictOutcome.NotComparable) ? VerdictOutcome.NotComparable
            : parts.Any(p => p.Outcome == VerdictOutcome.Worse) ? VerdictOutcome.Worse
            : parts.Any(p => p.Outcome == VerdictOutcome.Improved) ? VerdictOutcome.Improved
            : VerdictOutcome.NoChange;
        return new RunPair(
            first,
            before.Runs.Count,
            second,
            after.Runs.Count,
            before.Kind.Equals(after.Kind),
            outcome,
            parts,
            reasons
        )
        {
            AlsoBetter = [.. SideResults.BetterBesides(first, second).Where(b => b != AlsoBetter.Quieter || !meant.Fan)],
            // The fan law compares one fan with itself.
            Noise = meant.Fan ? null : SideResults.NoiseOf(first, second),
            Performance = [.. SideResults.PerformanceOf(first, second)],
        };
    }

    private sealed class Comparison(
        RunGroup beforeRuns,
        RunGroup afterRuns,
        RunScale scale,
        bool comparable,
        double repeatability
    )
    {
        private readonly Run _before = Lengths(beforeRuns.Mean, afterRuns.Mean),
            _after = Lengths(afterRuns.Mean, beforeRuns.Mean);

        public PartVerdict Of(RunPart b, RunPart a)
        {
            // An ambient nobody wrote down is taken as the other run's: the wide uncertainty says what that is worth.
            var ambientBefore = (_before.Ambient ?? _after.Ambient)?.Value ?? 0;
            var ambientAfter = (_after.Ambient ?? _before.Ambient)?.Value ?? 0;
            var known = _before.Ambient is not null || _after.Ambient is not null;
            var (riseBefore, riseAfter) = (b.Celsius.Value - ambientBefore, a.Celsius.Value - ambientAfter);
            var factor = known ? scale.Factor : 1;
            var change = riseAfter * factor - riseBefore;
            var (first, second) = (
                RunUncertainty.Of(_before, b, riseBefore, repeatability, beforeRuns.Runs.Count).Total,
                RunUncertainty.Of(_after, a, riseAfter, repeatability, afterRuns.Runs.Count).Total * factor
            );
            var start = RunSettling.OfStart(_before, _after);
            var u = Math.Sqrt(
                first * first + second * second + start * start + (known ? Math.Pow(riseAfter * scale.Sigma, 2) : 0)
            );
            var outcome =
                !comparable || RunConditions.IsBelowAir(_before, b) || RunConditions.IsBelowAir(_after, a)
                    ? VerdictOutcome.NotComparable
                : change > Coverage * u && CanTell ? VerdictOutcome.Worse
                : change < -Coverage * u && CanTell && !StillWrong ? VerdictOutcome.Improved
                : VerdictOutcome.NoChange;
            return new PartVerdict(b.Part, outcome, change, Coverage * u, a.Celsius.Value - b.Celsius.Value)
            {
                Read = new PartReadings(b.Celsius.Value, a.Celsius.Value),
                Corrections = known
                    ?
                    [
                        .. (
                            (Correction[])
                                [
                                    new(CorrectionFor.Air, ambientBefore - ambientAfter),
                                    new(CorrectionFor.Power, riseAfter * (scale.Power - 1)),
                                    new(CorrectionFor.Fan, riseAfter * (factor - scale.Power)),
                                ]
                        ).Where(c => Math.Abs(c.Kelvin) >= LeastCorrection),
                    ]
                    : [],
            };
        }

        private bool CanTell => !RunSettling.ProvesNothing(_before) && !RunSettling.ProvesNothing(_after);

        private bool StillWrong => _after.Throttled || _after.FailedAfterMinutes is not null;
    }

    /// <summary>A run beside another: as unsettled where that one is much longer and it does not say itself.</summary>
    private static Run Lengths(Run run, Run other) =>
        run.Settled is null && other.Minutes > UnequalLength * run.Minutes ? run with { Settled = false } : run;
}
