using Pyrometron.Core.Fleet;

namespace Pyrometron.Core.Stores;

/// <summary>What one filed job used of a material.</summary>
public readonly record struct UsedByJob(AssetKind Kind, string Model, ServiceLevel Level, MaterialKind Material, double Amount);

/// <summary>How much the house's own jobs use: the mean of a model's, else of a kind's, where there are enough.</summary>
/// <param name="jobs">What filed jobs used.</param>
public sealed class UsedSoFar(IEnumerable<UsedByJob> jobs)
{
    /// <summary>With fewer jobs common practice tells.</summary>
    public const int LeastJobs = 3;

    private readonly ILookup<(AssetKind, ServiceLevel, MaterialKind), UsedByJob> _jobs = jobs.ToLookup(j =>
        (j.Kind, j.Level, j.Material)
    );

    /// <summary>Nothing is known yet.</summary>
    public static UsedSoFar Nothing { get; } = new([]);

    /// <summary>The amount a job takes.</summary>
    /// <param name="usual">Where the house has too few jobs of its own.</param>
    public double Of(AssetKind kind, string model, ServiceLevel level, MaterialKind material, double usual)
    {
        var alike = _jobs[(kind, level, material)].ToList();
        var own = alike.FindAll(j => j.Model == model);
        return own.Count >= LeastJobs ? own.Average(j => j.Amount)
            : alike.Count >= LeastJobs ? alike.Average(j => j.Amount)
            : usual;
    }
}
