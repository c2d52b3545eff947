using Pyrometron.Core.Fleet;
using Pyrometron.Core.Materials;

namespace Pyrometron.Core.Learning;

/// <summary>A product that a job named.</summary>
/// <param name="Pattern">How paste was laid on; null where nobody said.</param>
public sealed record NamedProduct(ProductKind Kind, string Name, string? Batch, PastePattern? Pattern);

/// <summary>A job whose work is done, as far as it was proven.</summary>
/// <param name="Outcome">Null where no run after the work was compared.</param>
/// <param name="WonKelvin">On the part that won most, positive for cooler; 0 where nothing was compared.</param>
/// <param name="ExpandedKelvin">Its expanded uncertainty, k = 2.</param>
/// <param name="Predicted">The cause that was predicted; null where nothing was.</param>
/// <param name="Found">What was found on opening; null where nobody looked.</param>
/// <param name="CameBack">Whether the machine came back from it.</param>
/// <param name="BrokenParts">Damage that was done by the work itself.</param>
public sealed record FinishedJob(
    long Id,
    string Tag,
    string Model,
    string Zone,
    ServiceLevel Level,
    DateOnly Done,
    VerdictOutcome? Outcome,
    double WonKelvin,
    double ExpandedKelvin,
    Cause? Predicted,
    IReadOnlyList<Cause>? Found,
    bool CameBack,
    int BrokenParts
)
{
    /// <summary>The chance that the machine needed work, as it was stated when the job began; null where none was.</summary>
    public double? StatedChance { get; init; }

    /// <summary>Minutes that were booked; null where none were.</summary>
    public double? Minutes { get; init; }

    /// <summary>What it took from the shelf cost; null where it took nothing, or a price is missing.</summary>
    public double? MaterialCost { get; init; }

    /// <summary>Whether two worked on it: by the rules of the house when its card was dealt.</summary>
    public bool TookTwo { get; init; }

    /// <summary>What its runs showed besides the kelvins.</summary>
    public MeasuredSides Sides { get; init; } = MeasuredSides.None;

    /// <summary>What it was done with, as far as somebody wrote it down.</summary>
    public IReadOnlyList<NamedProduct> Products { get; init; } = [];

    /// <summary>The product of a kind; null where none was named.</summary>
    public NamedProduct? Product(ProductKind kind) => Products.FirstOrDefault(p => p.Kind == kind);
}

/// <summary>What some jobs have won together.</summary>
/// <param name="Jobs">All of them; the next four add up to it.</param>
/// <param name="NotCompared">No run after the work, or none that could be compared.</param>
/// <param name="MeanKelvin">Mean of those that were compared, worse and unchanged ones with them; null where none was.</param>
/// <param name="ExpandedKelvin">
/// Its expanded uncertainty, k = 2: by how much the jobs differ, and at least by how sure each proof is.
/// </param>
public sealed record WorkWon(
    int Jobs,
    int Improved,
    int NoChange,
    int Worse,
    int NotCompared,
    double? MeanKelvin,
    double? ExpandedKelvin,
    int CameBack,
    int BrokenParts
)
{
    /// <summary>Adds jobs up.</summary>
    public static WorkWon Of(IReadOnlyCollection<FinishedJob> jobs)
    {
        int Count(VerdictOutcome outcome) => jobs.Count(j => j.Outcome == outcome);
        var compared = jobs.Where(IsCompared).ToList();
        double? mean = compared.Count == 0 ? null : compared.Average(j => j.WonKelvin);
        return new WorkWon(
            jobs.Count,
            Count(VerdictOutcome.Improved),
            Count(VerdictOutcome.NoChange),
            Count(VerdictOutcome.Worse),
            jobs.Count - compared.Count,
            mean,
            mean is { } m ? 2 * SigmaOfMean(compared, m) : null,
            jobs.Count(j => j.CameBack),
            jobs.Sum(j => j.BrokenParts)
        );
    }

    /// <summary>Whether a run after the work was compared with one before it.</summary>
    public static bool IsCompared(FinishedJob job) =>
        job.Outcome is VerdictOutcome.Improved or VerdictOutcome.NoChange or VerdictOutcome.Worse;

    /// <summary>The larger of the scatter between jobs (s/√n) and of what their proofs leave open (√Σu²/n).</summary>
    private static double SigmaOfMean(List<FinishedJob> jobs, double mean)
    {
        double n = jobs.Count;
        var byProof = jobs.Sum(j => j.ExpandedKelvin * j.ExpandedKelvin / 4) / (n * n);
        var byScatter = n < 2 ? 0 : jobs.Sum(j => (j.WonKelvin - mean) * (j.WonKelvin - mean)) / (n - 1) / n;
        return Math.Sqrt(Math.Max(byProof, byScatter));
    }
}
