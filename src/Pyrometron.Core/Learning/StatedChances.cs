namespace Pyrometron.Core.Learning;

/// <summary>
/// Whether the chances that were stated have held. Only work that was done can tell: machines that were left alone are not in it.
/// </summary>
/// <param name="Groups">By chance, the smallest first; those without jobs are left out.</param>
/// <param name="Jobs">All of them.</param>
/// <param name="Brier"><see cref="ChanceGroup.Brier"/>.</param>
public sealed record StatedChances(IReadOnlyList<ChanceGroup> Groups, int Jobs, double? Brier)
{
    /// <summary>Holds stated chances against what jobs found.</summary>
    /// <param name="worthKelvin">What is worth opening a machine.</param>
    public static StatedChances Of(IEnumerable<FinishedJob> jobs, double worthKelvin)
    {
        var told = jobs.Where(j => j.StatedChance is not null && WorkWon.IsCompared(j))
            .Select(j => (j.StatedChance!.Value, j.WonKelvin >= worthKelvin))
            .ToArray();
        return new StatedChances(ChanceGroup.Of(told), told.Length, ChanceGroup.Brier(told));
    }
}
