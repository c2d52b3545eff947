using Pyrometron.Core.Cooling;

namespace Pyrometron.Core.Events;

/// <summary>
/// How sure a run is of a part's rise over the air, as standard uncertainties in kelvin (JCGM 100:2008, GUM): repeatability of
/// the bench, resolution of the sensor as a rectangular distribution, the air, and what an unsettled run had still to rise. The
/// verdict and the judgement use the same budget.
/// </summary>
/// <param name="Common">What all parts of the run share: air, fan, and most of the repeatability.</param>
/// <param name="Own">What is the part's own.</param>
public readonly record struct RunUncertainty(double Common, double Own)
{
    /// <summary>
    /// From one run to the next at equal conditions, K. Common practice, no source; used until repeats at the bench say
    /// otherwise.
    /// </summary>
    public const double RepeatabilityKelvin = 1.0;

    /// <summary>Intake air read at the machine, and air that nobody measured, K. Common practice, no source.</summary>
    public const double AmbientKelvin = 0.5,
        UnknownAmbientKelvin = 2.5;

    /// <summary>A run that ended this early had not settled, whatever it showed, minutes. Common practice, no source.</summary>
    public const double LeastMinutes = 5;

    /// <summary>Share of a rise that an unsettled run of unknown progress may be off by. Common practice, no source.</summary>
    private const double UnsettledShare = 0.1;

    /// <summary>
    /// The share of the repeatability's variance that one part shows alone: parts of one run are warmed through together.
    /// </summary>
    private const double OwnShare = 0.1;

    /// <summary>Both together: the standard uncertainty of the rise.</summary>
    public double Total => Math.Sqrt(Common * Common + Own * Own);

    /// <summary>The budget of one part in a run, or in the mean of repeated ones.</summary>
    /// <param name="rise">Its rise over the air, K.</param>
    /// <param name="repeatability">Standard deviation from run to run, K.</param>
    /// <param name="repeats">Of how many runs it is the mean.</param>
    public static RunUncertainty Of(
        Run run,
        RunPart part,
        double rise,
        double repeatability = RepeatabilityKelvin,
        int repeats = 1
    )
    {
        var scatter = repeatability * repeatability / repeats;
        var air =
            run.Ambient is null ? UnknownAmbientKelvin
            : run.AmbientSpread > 0 ? run.AmbientSpread / Math.Sqrt(3)
            : AmbientKelvin;
        var resolution = part.ResolutionKelvin / Math.Sqrt(12);
        var unsettled = IsSettled(run) ? 0 : Math.Abs(rise) * (run.ShareOfRise is { } share ? (1 - share) / 2 : UnsettledShare);
        var fan = run.FanRamp is { } ramp ? rise * OfRamp(ramp) : 0;
        return new RunUncertainty(
            Math.Sqrt((1 - OwnShare) * scatter + air * air + unsettled * unsettled + fan * fan),
            Math.Sqrt(OwnShare * scatter + resolution * resolution)
        );
    }

    /// <summary>
    /// What a fan that changed its speed within the run leaves open, as a share of the rise: the rise belongs to a speed
    /// somewhere between that of the middle and that of the end (rectangular).
    /// </summary>
    private static double OfRamp(double ramp) =>
        Math.Abs(ramp) < RampShare
            ? 0
            : AirSide.ShareOfRise * Math.Abs(FanLaw.RelativeResistance(1 + ramp, 1) - 1) / Math.Sqrt(12);

    /// <summary>Speeds that change by less within a run stand still. Common practice, no source.</summary>
    public const double RampShare = 0.1;

    /// <summary>Whether a run counts as settled: as it says, else by its length and that it ran through.</summary>
    public static bool IsSettled(Run run) => run.Settled ?? (run.Minutes >= LeastMinutes && run.FailedAfterMinutes is null);
}
