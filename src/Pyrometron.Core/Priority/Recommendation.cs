using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Procedures;
using Pyrometron.Core.Worth;

namespace Pyrometron.Core.Priority;

/// <summary>Which service level a machine needs: of those that cure, the one that is worth most.</summary>
public static class Recommendation
{
    /// <summary>A level that wins this share of all that is to win cures.</summary>
    private const double EnoughShare = 0.7;

    private static readonly ServiceLevel[] FromLightest = [ServiceLevel.DustOut, ServiceLevel.FanSwap, ServiceLevel.Repaste, ServiceLevel.Repad];

    /// <summary>
    /// Of the levels that win most of what is to win on every part worth opening for, the one with the best net value: as a rule the
    /// lightest, since a deeper one has to earn its minutes. Where none cures, the one that wins most: a machine whose fan is worn and
    /// whose joint has failed needs the joint first, and the fan check comes with it. What a level wins is what the split says, as far as the
    /// fleet's proven jobs bear it out. Where the house allows air only, air it is, as long as that wins something worth it.
    /// </summary>
    /// <param name="levels">What each level is worth on the machine.</param>
    /// <returns>Null when nothing is worth it.</returns>
    public static ServiceLevel? LevelFor(Asset asset, IReadOnlyList<PartAssessment> parts, IReadOnlyList<LevelWorth> levels, JudgementPolicy policy, DateOnly asOf)
    {
        double Won(PartAssessment part, ServiceLevel level) => policy.Proven.Won(asset, part.Split, level);
        var worth = parts.Where(p => p.Split.Total >= policy.WorthKelvin).ToArray();
        if (worth.Length == 0)
            return null;
        if (policy.AirOnly(asset, asOf) && worth.Max(p => Won(p, ServiceLevel.BlowOut)) >= policy.WorthKelvin)
            return ServiceLevel.BlowOut;
        var curing = FromLightest.Where(level => worth.All(p => Won(p, level) >= EnoughShare * p.Split.Total)).ToArray();
        var best = curing.Length > 0 ? curing.MaxBy(level => levels.Single(l => l.Level == level).Value.Net)
            : FromLightest.MaxBy(level => worth.Sum(p => Won(p, level)));
        // A school of its own: once the cooler is off, the pads go too.
        return policy.Extent == Extent.AllWhileOpen && ServiceEffects.LiftsCooler(best) && asset.Parts.Any(p => p.Joint == JointMaterial.Pad) ? ServiceLevel.Repad : best;
    }
}
