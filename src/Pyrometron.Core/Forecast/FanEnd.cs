using Pyrometron.Core.Cooling;

namespace Pyrometron.Core.Forecast;

/// <summary>
/// How long an automatic fan can go on hiding wear: it holds the temperature and pays with speed, until it is at full speed;
/// then everything rises at once. The convective law (θ ∝ n^−0.8) says how many kelvins its remaining speed is worth.
/// </summary>
/// <param name="PercentNow">Commanded speed under the main load by the newest readings.</param>
/// <param name="ReserveKelvin">Kelvins of wear that it can still hide.</param>
/// <param name="Day">When they are used up by the present pace; null without a pace, or beyond the horizon.</param>
public sealed record FanEnd(double PercentNow, double ReserveKelvin, DateOnly? Day)
{
    /// <summary>A command this near to 100 % has nothing left to give.</summary>
    private const double FullPercent = 97;

    /// <summary>Reckons it.</summary>
    /// <param name="percentFresh">Commanded speed at the reference point.</param>
    /// <param name="percentNow">Commanded speed under the main load now.</param>
    /// <param name="airRiseKelvin">Rise over the air side at the reference point, with present wear.</param>
    /// <param name="paceKelvinPerDay">Of the wear; 0 without one.</param>
    /// <returns>Null when a speed is unknown.</returns>
    public static FanEnd? Of(DateOnly asOf, double percentFresh, double percentNow, double airRiseKelvin, double paceKelvinPerDay)
    {
        if (!(percentFresh > 0) || !(percentNow > 0) || !(airRiseKelvin > 0))
            return null;
        if (percentNow >= FullPercent)
            return new FanEnd(percentNow, 0, asOf);
        var now = airRiseKelvin * FanLaw.RelativeResistance(percentNow, percentFresh);
        var reserve = now * (FanLaw.RelativeResistance(percentNow, 100) - 1);
        var days = paceKelvinPerDay > 0 ? reserve / paceKelvinPerDay : double.PositiveInfinity;
        return new FanEnd(percentNow, reserve, days <= ActionForecast.HorizonDays ? asOf.AddDays((int)Math.Round(days)) : null);
    }
}
