using Pyrometron.Core.Assessments;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Worth;

namespace Pyrometron.Core.Priority;

/// <summary>Which service level a machine needs: one that cures, under the house's school.</summary>
public static class Recommendation
{
    /// <summary>A level that wins this share of all that is to win cures.</summary>
    private const double EnoughShare = 0.7;

    private static readonly ServiceLevel[] FromLightest =
    [
        ServiceLevel.DustOut,
        ServiceLevel.FanSwap,
        ServiceLevel.Repaste,
        ServiceLevel.Repad,
    ];

    /// <summary>
    /// A level cures that wins most of what is to win on every part worth opening for. A house that does the least that cures
    /// gets the lightest of them: work that nothing asks for is never advised. One that does it all while open gets the one with
    /// the best net value, and new pads with every lifted cooler. Where none cures, a worn fan beside a failed joint, the best
    /// net value of those that help decides too. What a level wins is what the split says, as far as the fleet's proven jobs bear
    /// it out. Where the house allows air only, air it is, as long as that wins something worth it.
    /// </summary>
    /// <param name="levels">What each level is worth on the machine.</param>
    /// <returns>Null when nothing is worth it.</returns>
    public static ServiceLevel? LevelFor(
        Asset asset,
        IReadOnlyList<PartAssessment> parts,
        IReadOnlyList<LevelWorth> levels,
        JudgementPolicy policy,
        DateOnly asOf
    )
    {
        double Won(PartAssessment part, ServiceLevel level) => policy.Proven.Won(asset, part.Split, level);
        var worth = parts.Where(p => p.Split.Total >= policy.WorthKelvin).ToArray();
        if (worth.Length == 0)
            return null;
        if (policy.AirOnly(asset, asOf) && worth.Max(p => Won(p, ServiceLevel.BlowOut)) >= policy.WorthKelvin)
            return ServiceLevel.BlowOut;
        var curing = FromLightest.Where(level => worth.All(p => Won(p, level) >= EnoughShare * p.Split.Total)).ToArray();
        ServiceLevel BestOf(IEnumerable<ServiceLevel> some) =>
            some.MaxBy(level => levels.Single(l => l.Level == level).Value.Net);
        if (curing.Length == 0)
        {
            // The cheapest would be the one that does nothing: each must win something worth it.
            var helping = FromLightest.Where(level => worth.Any(p => Won(p, level) >= policy.WorthKelvin)).ToArray();
            return helping.Length > 0 ? BestOf(helping) : FromLightest.MaxBy(level => worth.Sum(p => Won(p, level)));
        }
        if (policy.Extent == Extent.LeastThatCures)
            return curing[0];
        var best = BestOf(curing);
        return ServiceEffects.LiftsCooler(best) && asset.Parts.Any(p => p.Joint == JointMaterial.Pad) ? ServiceLevel.Repad : best;
    }
}
