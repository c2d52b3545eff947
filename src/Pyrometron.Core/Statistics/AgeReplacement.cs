namespace Pyrometron.Core.Statistics;

/// <summary>
/// Parts replaced at an age, or when they fail before it (Barlow &amp; Hunter 1960, Operations Research 8, 90–100).
/// </summary>
/// <param name="Planned">What a replacement costs that was planned.</param>
/// <param name="AtFailure">What one costs after a failure.</param>
public readonly record struct AgeReplacement(WeibullLife Life, double Planned, double AtFailure)
{
    /// <summary>Cost a unit of time, replacing at an age.</summary>
    public double CostRate(double age)
    {
        var survival = Life.Survival(age);
        return (Planned * survival + AtFailure * (1 - survival)) / Life.TimeAtWork(age);
    }

    /// <summary>Cost a unit of time, running every part until it fails.</summary>
    public double CostRateOfFailure => AtFailure / Life.Mean;

    /// <summary>
    /// The age that costs least: where h(T)·∫₀ᵀR − (1 − R(T)) = c_p/(c_f − c_p). Null where there is none: parts that do not wear
    /// out, or whose failure costs no more than a planned replacement, run until they fail.
    /// </summary>
    public double? BestAge
    {
        get
        {
            if (Life.Shape <= 1 || AtFailure <= Planned)
                return null;
            var wanted = Planned / (AtFailure - Planned);
            // Grows without bound with the age.
            var (low, high) = (0.0, Life.Scale);
            while (Excess(high) < wanted)
                if ((high *= 2) > 1e6 * Life.Scale)
                    return null;
            for (var i = 0; i < 100; i++)
            {
                var middle = (low + high) / 2;
                (low, high) = Excess(middle) < wanted ? (middle, high) : (low, middle);
            }
            return (low + high) / 2;
        }
    }

    private double Excess(double age) => Life.Hazard(age) * Life.TimeAtWork(age) - (1 - Life.Survival(age));
}
