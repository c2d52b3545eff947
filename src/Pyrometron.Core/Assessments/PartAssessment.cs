using MathNet.Numerics.Distributions;
using Pyrometron.Core.Causes;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Forecast;

namespace Pyrometron.Core.Assessments;

/// <summary>The slow change of a part at its reference point.</summary>
/// <param name="KelvinPerDay">Theil–Sen slope.</param>
/// <param name="Low">Lower end of its 80 % interval.</param>
/// <param name="High">Upper end.</param>
/// <param name="PValue">Mann–Kendall, autocorrelation allowed for.</param>
/// <param name="FromDay">Start of the window, days since 1970.</param>
public readonly record struct Trend(double KelvinPerDay, double Low, double High, double PValue, double FromDay)
{
    /// <summary>Whether there is a rise at all.</summary>
    public bool IsRising => KelvinPerDay > 0 && PValue < 0.05;
}

/// <summary>What one cause has gathered on a part by the fitted curve.</summary>
/// <param name="KelvinPerDay">Its mean pace.</param>
/// <param name="Days">Over how many days: a year, or since it was renewed or measured first.</param>
public readonly record struct Gathering(double KelvinPerDay, double Days);

/// <summary>One point of a part's history, brought to the reference point.</summary>
/// <param name="Day">Days since 1970.</param>
/// <param name="Observed">Rise over the intake at reference heat and fan, room not taken out, K.</param>
/// <param name="Room">What the room adds, K.</param>
/// <param name="Model">Rise by the fitted model, room not included, K.</param>
/// <param name="IsRun">Whether it was measured at the bench.</param>
public readonly record struct DriftPoint(double Day, double Observed, double Room, double Model, bool IsRun);

/// <summary>The judgement of one part.</summary>
/// <param name="FreshRiseKelvin">Rise at the reference point with everything fresh.</param>
/// <param name="FreshJointKelvin">The share of it between the part and its cooler.</param>
/// <param name="Split">What service could win back, by cause.</param>
/// <param name="SigmaKelvin">Standard uncertainty of the split's total.</param>
/// <param name="LatestC">
/// What was measured last, °C: the newest run, or the median of the newest readings under the main workload; NaN for none.
/// </param>
/// <param name="HottestC">Temperature at design ambient, reference power and full fan, °C.</param>
/// <param name="HottestRiseKelvin">The part of it over the air.</param>
/// <param name="MarginKelvin">From there to the action line; negative beyond it.</param>
/// <param name="PaceKelvinPerDay">Present pace of wear by the fitted curve; 0 below what a sound machine gathers.</param>
/// <param name="Action">When the line is reached, or null without a pace.</param>
public sealed record PartAssessment(
    Part Part,
    double FreshRiseKelvin,
    double FreshJointKelvin,
    CauseSplit Split,
    double SigmaKelvin,
    double LatestC,
    double HottestC,
    double HottestRiseKelvin,
    double MarginKelvin,
    Trend? Trend,
    double PaceKelvinPerDay,
    ActionDate? Action,
    IReadOnlyList<DriftPoint> History
)
{
    /// <summary>Rise at the reference point now by the causes found, room left out, K.</summary>
    public double PresentRiseKelvin => FreshRiseKelvin + Split.Total;

    /// <summary>The same held against an action line.</summary>
    /// <param name="marginKelvin">How far below the limit the line lies.</param>
    public PartAssessment HeldAgainst(double marginKelvin, DateOnly asOf)
    {
        var margin = Part.Limit.Value - marginKelvin - HottestC;
        return this with
        {
            MarginKelvin = margin,
            Action = ActionForecast.Of(asOf, margin, SigmaKelvin, PaceKelvinPerDay, PaceSigma),
        };
    }

    /// <summary>
    /// The chance that it is past its action line some days from now if nothing is done: margin and pace are taken as normal, as
    /// the date is.
    /// </summary>
    public double ChancePastLine(double days)
    {
        var beyond = PaceKelvinPerDay * days - MarginKelvin;
        var sigma = Math.Sqrt(SigmaKelvin * SigmaKelvin + Math.Pow(PaceSigma * days, 2));
        return sigma > 0 ? Normal.CDF(0, sigma, beyond)
            : beyond >= 0 ? 1
            : 0;
    }

    /// <summary>Standard uncertainty of the pace, K a day; 0 where nothing tells it.</summary>
    private double PaceSigma => Trend is { } spread ? (spread.High - spread.Low) / (2 * 1.2816) : 0;

    /// <summary>Standard uncertainties of the split's causes, K; null where a whole fleet was judged.</summary>
    public CauseSplit? SplitSigma { get; init; }

    /// <summary>How much of the split an automatic fan that nobody measures keeps from showing, K.</summary>
    public double HiddenKelvin { get; init; }

    /// <summary>The pace of its dust; null where too few days were measured since it was cleaned.</summary>
    public Gathering? DustPace { get; init; }

    /// <summary>The same of its paste or pads.</summary>
    public Gathering? JointPace { get; init; }

    /// <summary>The temperature measured last, layer by layer; null where it was not measured.</summary>
    public HeatPath? Path { get; init; }

    /// <summary>What was measured last beyond all that the heat path explains, K.</summary>
    public double UnexplainedKelvin => Path?.UnexplainedKelvin ?? 0;

    /// <summary>
    /// Convective resistance with the fan at full speed, relative to the reference speed; 1 where speeds are unknown.
    /// </summary>
    internal double FullFanResistance { get; init; } = 1;

    /// <summary>
    /// What a level would win at full fan, K: dust and lost speed cost less there, and what an unseen fan hides does not show in
    /// <see cref="HottestC"/>.
    /// </summary>
    internal double WonAtFullFan(ServiceLevel level)
    {
        if (!(Split.Total > 0))
            return 0;
        var removed = Split.RemovedBy(level);
        return (removed.Joint + removed.Mount + (removed.Dust + removed.Fan) * FullFanResistance)
            * (1 - HiddenKelvin / Split.Total);
    }
}
