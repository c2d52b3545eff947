namespace Pyrometron.Core.Campaigns;

/// <summary>What a sequential test says of the measurements so far.</summary>
public enum SequentialVerdict
{
    /// <summary>Neither bound is passed.</summary>
    Open,

    /// <summary>The mean is taken for worthwhile.</summary>
    Worthwhile,

    /// <summary>The mean is taken for not worthwhile.</summary>
    NotWorthwhile,
}

/// <summary>A value that was measured, with its standard uncertainty.</summary>
public readonly record struct Measured(double Value, double Sigma);

/// <summary>How far a sequential test has come.</summary>
/// <param name="Evidence">
/// ln of the likelihood ratio of worthwhile against not, in units of the bound: 1 and beyond decides for it, −1 against it.
/// </param>
/// <param name="Scatter">The scatter between jobs that was reckoned with, K.</param>
public sealed record SequentialResult(SequentialVerdict Verdict, double Evidence, double Scatter);

/// <summary>
/// Wald's sequential probability ratio test on a normal mean (Wald 1945, Annals of Mathematical Statistics 16, 117–186): the
/// mean win is worthwhile, or half as much. The bounds ±ln(1/α) hold each error below α however often one looks, since a
/// likelihood ratio passes 1/α by chance with a probability of α at most (Ville 1939).
/// </summary>
/// <param name="LeastKelvin">The least mean win that is worth the work, K.</param>
/// <param name="ScatterKelvin">
/// By how much wins differ from machine to machine, standard deviation, K; where the measured ones differ more, that is taken.
/// </param>
public sealed record SequentialTest(double LeastKelvin, double ScatterKelvin)
{
    /// <summary>α: how often a work of half the least win is gone on with, and one of the least win stopped, at most.</summary>
    public const double ErrorRate = 0.05;

    /// <summary>Nothing is decided on fewer.</summary>
    public const int LeastJobs = 3;

    private static readonly double Bound = Math.Log(1 / ErrorRate);

    /// <summary>What the measurements so far say.</summary>
    public SequentialResult Of(IReadOnlyList<Measured> wins)
    {
        var scatter = Math.Max(ScatterKelvin, Spread(wins));
        var (none, worth) = (LeastKelvin / 2, LeastKelvin);
        var evidence = wins.Sum(w =>
            (worth - none) * (w.Value - ((none + worth) / 2)) / ((scatter * scatter) + (w.Sigma * w.Sigma))
        );
        var verdict =
            wins.Count < LeastJobs || Math.Abs(evidence) < Bound ? SequentialVerdict.Open
            : evidence > 0 ? SequentialVerdict.Worthwhile
            : SequentialVerdict.NotWorthwhile;
        return new SequentialResult(verdict, evidence / Bound, scatter);
    }

    private static double Spread(IReadOnlyList<Measured> wins)
    {
        if (wins.Count < LeastJobs)
            return 0;
        var mean = wins.Average(w => w.Value);
        return Math.Sqrt(wins.Sum(w => (w.Value - mean) * (w.Value - mean)) / (wins.Count - 1));
    }
}
