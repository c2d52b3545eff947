using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Learning;

/// <summary>Jobs begun with about the same stated chance that the machine needs work, and how many of them did.</summary>
/// <param name="From">The least chance.</param>
/// <param name="To">The most, not included; 1 is.</param>
/// <param name="Stated">Mean of what was stated.</param>
/// <param name="Jobs">Those whose runs before and after were compared.</param>
/// <param name="Needed">Those of them that won what is worth opening a machine.</param>
/// <param name="Low">Lower end of the share that needed it, 95 %.</param>
/// <param name="High">Upper end.</param>
/// <param name="Holds">Whether what was stated goes together with what was found.</param>
public sealed record ChanceGroup(
    double From,
    double To,
    double Stated,
    int Jobs,
    int Needed,
    double Low,
    double High,
    bool Holds
);

/// <summary>
/// Whether the chances that were stated have held. Only work that was done can tell: machines that were left alone are not in it.
/// </summary>
/// <param name="Groups">By chance, the smallest first; those without jobs are left out.</param>
/// <param name="Jobs">All of them.</param>
/// <param name="Brier">
/// Mean square of stated less found (Brier 1950, Monthly Weather Review 78, 1–3); 0.25 is what always stating a half makes. Null
/// without jobs.
/// </param>
public sealed record StatedChances(IReadOnlyList<ChanceGroup> Groups, int Jobs, double? Brier)
{
    /// <summary>By the thresholds of the queue: below a fifth nobody is asked, from a half on somebody is sent.</summary>
    private static readonly double[] Bounds = [0, 0.2, 0.5, 0.8, 1];

    /// <summary>Holds stated chances against what jobs found.</summary>
    /// <param name="worthKelvin">What is worth opening a machine.</param>
    public static StatedChances Of(IEnumerable<FinishedJob> jobs, double worthKelvin)
    {
        var told = jobs.Where(j => j.StatedChance is not null && WorkWon.IsCompared(j))
            .Select(j => (Stated: j.StatedChance!.Value, Needed: j.WonKelvin >= worthKelvin))
            .ToArray();
        var groups = new List<ChanceGroup>();
        for (var i = 0; i + 1 < Bounds.Length; i++)
        {
            var (from, to) = (Bounds[i], Bounds[i + 1]);
            var here = told.Where(t => t.Stated >= from && (t.Stated < to || to == 1)).ToArray();
            if (here.Length == 0)
                continue;
            var needed = here.Count(t => t.Needed);
            var (low, high) = Wilson.Interval(needed, here.Length);
            var stated = here.Average(t => t.Stated);
            groups.Add(new ChanceGroup(from, to, stated, here.Length, needed, low, high, stated >= low && stated <= high));
        }
        return new StatedChances(
            groups,
            told.Length,
            told.Length == 0 ? null : told.Average(t => Math.Pow(t.Stated - (t.Needed ? 1 : 0), 2))
        );
    }
}
