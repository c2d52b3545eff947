using Pyrometron.Core.Assessments;
using Pyrometron.Core.Drift;
using Pyrometron.Core.Events;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Priority;
using Pyrometron.Core.Units;
using Pyrometron.Core.Worth;

namespace Pyrometron.Core.Judging;

/// <summary>The run that comes before any work where it is not known yet whether a machine needs it.</summary>
internal static class DecidingRun
{
    /// <summary>A run at the bench with its air written down, in kelvins of a rise: repeatability, resolution and air.</summary>
    private static readonly double RunSigma = Math.Sqrt(
        Math.Pow(RunUncertainty.RepeatabilityKelvin, 2) + 1.0 / 12 + Math.Pow(RunUncertainty.AmbientKelvin, 2)
    );

    /// <summary>The run; null where the chance is not middling, or something was reported: that is not weighed.</summary>
    public static RunToMake? For(
        IReadOnlyCollection<PartAssessment> parts,
        IReadOnlyList<Symptom> symptoms,
        JudgementPolicy policy
    )
    {
        var part = parts.MaxBy(p => NeedsWork.ChanceOf(p, policy))!;
        var chance = NeedsWork.ChanceOf(part, policy);
        if (chance is < NeedsWork.Possible or >= NeedsWork.Likely || symptoms.Count > 0)
            return null;
        var byItsLine = NeedsWork.Chance(part.Split.Total, part.SigmaKelvin, near: 0, policy) < chance / 2;
        return new RunToMake(
            "A loaded run of 20 minutes with the fan at a fixed speed; write down the air temperature and that speed.",
            BenchCosts.TestMinutes / 2,
            Message.Of(
                byItsLine
                    ? "The chance that it needs work is {chance}: its action line is near, and {kelvin} ± {sigma} are to win on the {part}. One run leaves ± {after}."
                    : "The chance that it needs work is {chance}: {kelvin} ± {sigma} to win on the {part}. One run leaves ± {after}.",
                Value.Share("chance", chance),
                Value.Kelvin("kelvin", part.Split.Total),
                Value.Kelvin("sigma", part.SigmaKelvin),
                Value.Part("part", part.Part.Name),
                Value.Kelvin("after", After(part.SigmaKelvin))
            )
        );
    }

    /// <summary>What shows whether a part whose readings changed by more than wear does is as hot as it reads.</summary>
    public static RunToMake Beside(SensorFinding doubted) =>
        new(
            "Look whether the fan turns; then a loaded run of 20 minutes with a thermometer in the air that leaves it. Report what you find.",
            BenchCosts.TestMinutes / 2,
            Message.Of(
                "{part} {what} (since {day}): taken for its sensor until a look or a report shows otherwise.",
                Value.PartFirst("part", doubted.Channel),
                Value.List("what", "", [doubted.What]),
                Value.Day("day", UnixDay.DateOf(doubted.FromDay))
            )
        );

    /// <summary>Standard uncertainty once both are known: the precisions add up.</summary>
    private static double After(double sigma) => 1 / Math.Sqrt(1 / (sigma * sigma) + 1 / (RunSigma * RunSigma));
}
