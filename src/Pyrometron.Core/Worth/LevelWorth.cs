using Pyrometron.Core.Fleet;

namespace Pyrometron.Core.Worth;

/// <summary>
/// What doing a level now is worth against leaving it, over the years in which it has to pay, in the house's currency. Gains
/// first, then costs; all are amounts, costs positive.
/// </summary>
/// <param name="Throttling">Work not lost to slower clocks.</param>
/// <param name="Crashes">Work not lost to crashes and shutdowns.</param>
/// <param name="Ageing">Life not used up.</param>
/// <param name="Noise">A quieter fan.</param>
/// <param name="Energy">Electricity of the fan.</param>
/// <param name="Work">The technician's time.</param>
/// <param name="Material">Paste, pads, a fan.</param>
/// <param name="Downtime">Work lost while it is at the bench and tested.</param>
/// <param name="Risk">Of breaking something.</param>
/// <param name="Warranty">The maker's cover that opening it would forfeit.</param>
public sealed record LevelValue(
    double Throttling,
    double Crashes,
    double Ageing,
    double Noise,
    double Energy,
    double Work,
    double Material,
    double Downtime,
    double Risk,
    double Warranty
)
{
    /// <summary>All gains.</summary>
    public double Gain => Throttling + Crashes + Ageing + Noise + Energy;

    /// <summary>All costs.</summary>
    public double Cost => Work + Material + Downtime + Risk + Warranty;

    /// <summary>What is left.</summary>
    public double Net => Gain - Cost;

    /// <summary>Nothing done, nothing won.</summary>
    public static LevelValue Nothing { get; } = new(0, 0, 0, 0, 0, 0, 0, 0, 0, 0);

    /// <summary>Of two machines together.</summary>
    public static LevelValue operator +(LevelValue a, LevelValue b) =>
        new(
            a.Throttling + b.Throttling,
            a.Crashes + b.Crashes,
            a.Ageing + b.Ageing,
            a.Noise + b.Noise,
            a.Energy + b.Energy,
            a.Work + b.Work,
            a.Material + b.Material,
            a.Downtime + b.Downtime,
            a.Risk + b.Risk,
            a.Warranty + b.Warranty
        );
}

/// <summary>What a level would win on the part that gains most from it, what it takes, and what that is worth.</summary>
/// <param name="Kelvin">As far as the fleet's proven jobs bear it out.</param>
/// <param name="Minutes">Bench time, not times the people, as far as the fleet's jobs have shown it.</param>
/// <param name="TimedJobs">Jobs of this model and level that the time was learnt from.</param>
/// <param name="ProvenShare">
/// What this level has won of what was predicted, by jobs of this model and its kind; 1 without any.
/// </param>
/// <param name="ProvenJobs">Of this model.</param>
/// <param name="NetLow">Net value if two standard uncertainties less were won.</param>
/// <param name="NetHigh">If two more were.</param>
public sealed record LevelWorth(
    ServiceLevel Level,
    string Part,
    double Kelvin,
    int Minutes,
    int TimedJobs,
    double ProvenShare,
    int ProvenJobs,
    LevelValue Value,
    double NetLow,
    double NetHigh
)
{
    /// <summary>People that it takes.</summary>
    public int Hands { get; init; } = 1;

    /// <summary>Net value for each hour of a technician: what the order within one urgency goes by.</summary>
    public double PerHour => Value.Net * 60 / (Minutes * Hands);
}
