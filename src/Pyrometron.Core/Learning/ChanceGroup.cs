using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Learning;

/// <summary>Cases of which about the same chance was stated, and how many of them came to pass.</summary>
/// <param name="From">The least chance.</param>
/// <param name="To">The most, not included; 1 is.</param>
/// <param name="Stated">Mean of what was stated.</param>
/// <param name="Cases">All of them: jobs whose runs were compared, or machines that had a date.</param>
/// <param name="CameTrue">Those of them in which it was so.</param>
/// <param name="Low">Lower end of the share in which it was so, 95 %.</param>
/// <param name="High">Upper end.</param>
/// <param name="Holds">Whether what was stated goes together with what was found.</param>
public sealed record ChanceGroup(
    double From,
    double To,
    double Stated,
    int Cases,
    int CameTrue,
    double Low,
    double High,
    bool Holds
)
{
    /// <summary>By the thresholds of the queue: below a fifth nobody is asked, from a half on somebody is sent.</summary>
    private static readonly double[] Bounds = [0, 0.2, 0.5, 0.8, 1];

    /// <summary>Groups by chance, the smallest first; those without a case are left out.</summary>
    public static IReadOnlyList<ChanceGroup> Of(IReadOnlyList<(double Stated, bool CameTrue)> told)
    {
        var groups = new List<ChanceGroup>();
        for (var i = 0; i + 1 < Bounds.Length; i++)
        {
            var (from, to) = (Bounds[i], Bounds[i + 1]);
            var here = told.Where(t => t.Stated >= from && (t.Stated < to || to == 1)).ToArray();
            if (here.Length == 0)
                continue;
            var came = here.Count(t => t.CameTrue);
            var (low, high) = Wilson.Interval(came, here.Length);
            var stated = here.Average(t => t.Stated);
            groups.Add(new ChanceGroup(from, to, stated, here.Length, came, low, high, stated >= low && stated <= high));
        }
        return groups;
    }

    /// <summary>
    /// Mean square of stated less found (Brier 1950, Monthly Weather Review 78, 1–3); 0.25 is what always stating a half makes.
    /// Null without a case.
    /// </summary>
    public static double? Brier(IReadOnlyList<(double Stated, bool CameTrue)> told) =>
        told.Count == 0 ? null : told.Average(t => Math.Pow(t.Stated - (t.CameTrue ? 1 : 0), 2));
}
