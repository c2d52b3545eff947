namespace Pyrometron.Core.Drift;

/// <summary>A service that takes wear away.</summary>
/// <param name="Left">Share of what was there before that stays.</param>
/// <param name="Eased">Whether what stays is not known beforehand: it is then a column of its own, and the share 0.</param>
internal readonly record struct Renewal(double Day, double Left, bool Eased);

/// <summary>One unknown of the wear model: its meaning, its span in time and its prior.</summary>
/// <param name="Part">−1 for all parts.</param>
internal readonly record struct WearColumn(WearTerm Term, int Part)
{
    /// <summary>Start of the growth, days since 1970; before it the column is 0.</summary>
    public double From { get; init; } = double.NegativeInfinity;

    /// <summary>Where it reaches 1.</summary>
    public double Full { get; init; } = double.NegativeInfinity;

    /// <summary>When it is renewed, and the share that is left then, ascending.</summary>
    public Renewal[] Ends { get; init; } = [];

    /// <summary>Workload or settings index, −1 for none.</summary>
    public int Label { get; init; } = -1;

    /// <summary>Workload index besides a settings index, −1 for none.</summary>
    public int Workload { get; init; } = -1;

    /// <summary>Mean and standard deviation of the prior.</summary>
    public double Mean { get; init; }

    /// <inheritdoc cref="Mean"/>
    public double Sigma { get; init; }

    /// <summary>Price of a unit in log-likelihood: an exponential prior of wear; 0 for what may be of either sign.</summary>
    public double Price { get; init; }

    /// <summary>How much of it is there on a day, 0 to 1.</summary>
    public double Height(double day)
    {
        if (day < From)
            return 0;
        // Columns that do not depend on time began at minus infinity.
        var height = day >= Full ? 1 : (day - From) / (Full - From);
        for (var i = 0; i < Ends.Length && day >= Ends[i].Day; i++)
            height *= Ends[i].Left;
        return height;
    }
}
