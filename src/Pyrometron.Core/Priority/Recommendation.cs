using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;

namespace Pyrometron.Core.Priority;

/// <summary>Which service level a machine needs: the least that cures.</summary>
public static class Recommendation
{
    /// <summary>A level that wins this share of all that is to win is enough; opening deeper is not worth the rest.</summary>
    private const double EnoughShare = 0.7;

    private static readonly ServiceLevel[] FromLightest = [ServiceLevel.DustOut, ServiceLevel.FanSwap, ServiceLevel.Repaste, ServiceLevel.Repad];

    /// <summary>
    /// The lightest level that wins most of what is to win on every part worth opening for. A machine whose fan is worn
    /// and whose joint has failed needs the joint first; the fan check comes with it. What a level wins is what the split says,
    /// as far as the fleet's proven jobs bear it out.
    /// </summary>
    /// <returns>Null when nothing is worth it.</returns>
    public static ServiceLevel? LevelFor(Asset asset, IReadOnlyList<PartAssessment> parts, JudgementPolicy policy)
    {
        double Won(PartAssessment part, ServiceLevel level) => part.Split.WonBy(level) * policy.Proven.Of(asset, level).Share;
        var worth = parts.Where(p => p.Split.Total >= policy.WorthKelvin).ToArray();
        if (worth.Length == 0)
            return null;
        foreach (var level in FromLightest)
            if (worth.All(p => Won(p, level) >= EnoughShare * p.Split.Total))
                return level;
        return FromLightest.MaxBy(level => worth.Sum(p => Won(p, level)));
    }
}
