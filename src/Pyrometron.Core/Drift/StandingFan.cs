using Pyrometron.Core.Readings;

namespace Pyrometron.Core.Drift;

/// <summary>
/// A fan that does not turn although it is fully commanded: the machine is not cooled, and what its temperatures show from then
/// on is that and no wear.
/// </summary>
/// <param name="FromDay">The first of the readings that show it, days since 1970.</param>
/// <param name="Readings">How many show it.</param>
public readonly record struct StandingFan(double FromDay, int Readings)
{
    /// <summary>
    /// A command, per cent, at which no fan may stand (semi-passive ones stand at idle), and readings that make it more than a
    /// hiccup. Common practice, no source.
    /// </summary>
    private const double FullCommand = 80;

    private const int LeastReadings = 3;

    /// <summary>Looks for it in the newest readings. O(readings).</summary>
    /// <param name="renewed">Day of the last fan swap, days since 1970, or negative infinity.</param>
    /// <returns>Null where the fan turns, or its speed or command is not read, or it never turned: then its sensor is
    /// dead.</returns>
    public static StandingFan? Of(ReadingSeries series, double renewed)
    {
        var (from, count) = (double.NaN, 0);
        for (var i = series.Count - 1; i >= 0 && series.Day[i] > renewed; i--)
            if (series.FanRpm[i] > 0)
                return count >= LeastReadings ? new StandingFan(from, count) : null;
            else if (series.FanRpm[i] == 0 && series.FanPct[i] >= FullCommand)
                (from, count) = (series.Day[i], count + 1);
        return null;
    }
}
