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
    /// and whose joint has failed needs the joint first; the fan check comes with it.
    /// </summary>
    /// <returns>Null when nothing is worth it.</returns>
    public static ServiceLevel? LevelFor(IReadOnlyList<PartAssessment> parts, JudgementPolicy policy)
    {
        var worth = parts.Where(p => p.Split.Total >= policy.WorthKelvin).ToArray();
        if (worth.Length == 0)
            return null;
        foreach (var level in FromLightest)
            if (worth.All(p => p.Split.WonBy(level) >= EnoughShare * p.Split.Total))
                return level;
        return FromLightest.MaxBy(level => worth.Sum(p => p.Split.WonBy(level)));
    }
}
