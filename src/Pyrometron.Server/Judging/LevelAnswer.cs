using Pyrometron.Core.Fleet;
using Pyrometron.Core.Worth;

namespace Pyrometron.Server.Judging;

/// <summary>
/// What doing a level now brings and costs over the years in which it has to pay, in the house's currency; costs are positive.
/// </summary>
public sealed record ValueAnswer(
    double Throttling,
    double Crashes,
    double Ageing,
    double Noise,
    double Energy,
    double Gain,
    double Work,
    double Material,
    double Downtime,
    double Risk,
    double Warranty,
    double Cost,
    double Net
)
{
    internal static ValueAnswer From(LevelValue v) =>
        new(
            Rounded(v.Throttling),
            Rounded(v.Crashes),
            Rounded(v.Ageing),
            Rounded(v.Noise),
            Rounded(v.Energy),
            Rounded(v.Gain),
            Rounded(v.Work),
            Rounded(v.Material),
            Rounded(v.Downtime),
            Rounded(v.Risk),
            Rounded(v.Warranty),
            Rounded(v.Cost),
            Rounded(v.Net)
        );

    internal static double Rounded(double value) => Math.Round(value, 2);
}

/// <summary>What a level would win on the part that gains most from it, what it takes, and what that is worth.</summary>
/// <param name="Kelvin">As far as the fleet's proven jobs bear it out.</param>
/// <param name="Minutes">Bench time, as far as the fleet's jobs have shown it.</param>
/// <param name="TimedJobs">Jobs of this model and level that the time was learnt from.</param>
/// <param name="ProvenShare">What this level has won of what was predicted; 1 without any jobs.</param>
/// <param name="ProvenJobs">Jobs of this model that the share was learnt from.</param>
/// <param name="NetLow">Net value if two standard uncertainties less were won.</param>
/// <param name="NetHigh">If two more were.</param>
/// <param name="PerHour">Net value for an hour of work.</param>
public sealed record LevelAnswer(
    ServiceLevel Level,
    string Part,
    double Kelvin,
    int Minutes,
    int TimedJobs,
    double ProvenShare,
    int ProvenJobs,
    ValueAnswer Value,
    double NetLow,
    double NetHigh,
    double PerHour
)
{
    internal static LevelAnswer From(LevelWorth l) =>
        new(
            l.Level,
            l.Part,
            Rounded(l.Kelvin),
            l.Minutes,
            l.TimedJobs,
            Rounded(l.ProvenShare),
            l.ProvenJobs,
            ValueAnswer.From(l.Value),
            Rounded(l.NetLow),
            Rounded(l.NetHigh),
            Rounded(l.PerHour)
        );

    private static double Rounded(double value) => ValueAnswer.Rounded(value);
}
