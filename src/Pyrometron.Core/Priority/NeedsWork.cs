using MathNet.Numerics.Distributions;
using Pyrometron.Core.Assessments;
using Pyrometron.Core.Policies;

namespace Pyrometron.Core.Priority;

/// <summary>
/// The chance that a machine needs work: much to win on some part, or enough to win and its action line near. From what is to win
/// and how sure that is; how hot the part stands is measured better than how much of it is wear, and is taken as told by itself.
/// </summary>
public static class NeedsWork
{
    /// <summary>
    /// From this chance on somebody is sent: opening for nothing and leaving what is sick until the next look cost about alike.
    /// Common practice, no source.
    /// </summary>
    public const double Likely = 0.5;

    /// <summary>From this chance on a run comes first that decides it.</summary>
    public const double Possible = 0.2;

    /// <summary>Standard uncertainty of how hot a part stands on a hot day, K. Chosen on invented fleets.</summary>
    private const double LineSigma = 2;

    /// <summary>The chance, by the part that is likeliest to need it; 0 without parts.</summary>
    public static double Chance(IEnumerable<PartAssessment> parts, JudgementPolicy policy) =>
        parts.Select(p => ChanceOf(p, policy)).DefaultIfEmpty(0).Max();

    /// <summary>The chance by one part.</summary>
    public static double ChanceOf(PartAssessment part, JudgementPolicy policy) =>
        Chance(
            part.Split.Total,
            part.SigmaKelvin,
            Normal.CDF(0, 1, (JudgementPolicy.NextDays * part.PaceKelvinPerDay - part.MarginKelvin) / LineSigma),
            policy
        );

    /// <summary>The same by its figures.</summary>
    /// <param name="kelvin">What is to win.</param>
    /// <param name="sigma">Its standard uncertainty, K.</param>
    /// <param name="near">The chance that its action line is near.</param>
    public static double Chance(double kelvin, double sigma, double near, JudgementPolicy policy)
    {
        double Above(double threshold) => 1 - Normal.CDF(0, 1, (threshold - kelvin) / Math.Max(1e-3, sigma));
        var much = Above(policy.MuchKelvin);
        return much + (Above(policy.WorthKelvin) - much) * near;
    }
}
