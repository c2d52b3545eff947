using Pyrometron.Core.Assessments;
using Pyrometron.Core.Cooling;
using Pyrometron.Core.Drift;

namespace Pyrometron.Core.Worth;

/// <summary>What a fan makes of kelvins that are won: an automatic one turns a share of them into less speed.</summary>
/// <param name="SpeedShare">Its usual speed as a share of full speed.</param>
/// <param name="Takes">The share of a win that it turns into less speed; 0 for one that does not listen.</param>
/// <param name="AirRiseKelvin">Rise over the air side at the usual speed with present wear, K.</param>
internal readonly record struct FanAtWork(double SpeedShare, double Takes, double AirRiseKelvin)
{
    /// <summary>Usual share where nobody measures it. Common practice, no source.</summary>
    private const double UsualShare = 0.6;

    /// <summary>A fitted machine's fan.</summary>
    /// <param name="worst">The part with most to win.</param>
    public static FanAtWork Of(WearModel model, PartAssessment worst) =>
        new(
            model.Reference.FanSpeed > 0 ? Math.Min(1, model.Reference.FanSpeed / model.Reference.FullSpeed) : UsualShare,
            model.TakenByFan,
            worst.FreshRiseKelvin - worst.FreshJointKelvin + worst.Split.Dust
        );

    /// <summary>
    /// Its speed after a win relative to the speed now: what it takes of the win it gives back in flow, by the convective law
    /// θ ∝ n^−0.8.
    /// </summary>
    public double SpeedAfter(double wonKelvin) =>
        Takes <= 0 || !(AirRiseKelvin - wonKelvin > 0) ? 1 : FanLaw.SpeedAt(1 + Takes * wonKelvin / (AirRiseKelvin - wonKelvin));

    /// <summary>
    /// How much quieter a fan is that slows down, dB: sound power goes with 50·log₁₀ of the speed (fan laws; ASHRAE Handbook,
    /// HVAC Applications, from memory).
    /// </summary>
    public static double DecibelsLess(double speedAfter) => -50 * Math.Log10(speedAfter);

    /// <summary>
    /// The share of its electricity that a slower fan takes: the cube of its speed (affinity laws; ISO 13348, from memory).
    /// </summary>
    public static double PowerShare(double speed) => speed * speed * speed;
}
