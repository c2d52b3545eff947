namespace Pyrometron.Core.Cooling;

/// <summary>
/// How the convective part of a cooler's resistance falls with fan speed: θ(n) = θ₀ + c·(n/n_ref)^(−m). m = 0.8 is
/// turbulent flow along plates and in channels (h ∝ Re^0.8: Dittus &amp; Boelter 1930; Incropera &amp; DeWitt, ch. 7–8).
/// </summary>
public static class FanLaw
{
    /// <summary>The exponent m.</summary>
    public const double Exponent = 0.8;

    /// <summary>
    /// A fan below this share of the reference speed is reckoned as at it: a standing fan leaves natural convection.
    /// </summary>
    public const double LeastSpeedShare = 0.15;

    /// <summary>The convective resistance relative to that at the reference speed.</summary>
    /// <param name="speed">Fan speed, any unit.</param>
    /// <param name="reference">Reference speed, same unit, positive.</param>
    /// <returns>1 at the reference, more below it; NaN when a speed is unknown.</returns>
    public static double RelativeResistance(double speed, double reference, double exponent = Exponent) =>
        Math.Pow(Math.Max(speed / reference, LeastSpeedShare), -exponent);

    /// <summary>
    /// The speed relative to the reference at which the convective resistance is so many times that at the reference.
    /// </summary>
    public static double SpeedAt(double relativeResistance) => Math.Pow(relativeResistance, -1 / Exponent);

    /// <summary>Pressure of the standard atmosphere relative to sea level (ISO 2533:1975), metres to a share.</summary>
    public static double PressureRatio(double altitudeMetres) => Math.Pow(1 - 0.0065 * altitudeMetres / 288.15, 5.255880);

    /// <summary>
    /// What thin air multiplies the convective resistance by. A room keeps its temperature, so its density follows the
    /// pressure ratio, not the standard atmosphere's density ratio.
    /// </summary>
    public static double AltitudeFactor(double altitudeMetres, double exponent = Exponent) =>
        Math.Pow(PressureRatio(altitudeMetres), -exponent);
}
