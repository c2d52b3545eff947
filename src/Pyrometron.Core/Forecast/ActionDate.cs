using MathNet.Numerics;

namespace Pyrometron.Core.Forecast;

/// <summary>When a part reaches its action line: the day by the present pace, and the early and late day (10 and 90 %).</summary>
/// <param name="Late">
/// Null when the slow end of the pace never gets there within <see cref="ActionForecast.HorizonDays"/>.
/// </param>
public readonly record struct ActionDate(DateOnly Day, DateOnly Early, DateOnly? Late)
{
    /// <summary>Of a normal distribution, below which 90 % lie, standard deviations.</summary>
    internal const double Z90 = 1.2815515655446004;

    /// <summary>The least spread: a date is told in whole days.</summary>
    private const double LeastDays = 0.5;

    /// <summary>The chance that the line is reached by a day, from the middle day and the spread around it.</summary>
    public double ChanceBy(DateOnly day)
    {
        var spread = Late is { } late ? late.DayNumber - Day.DayNumber : Day.DayNumber - Early.DayNumber;
        var z = (day.DayNumber - Day.DayNumber) / Math.Max(LeastDays, spread / Z90);
        return SpecialFunctions.Erfc(-z / Math.Sqrt(2)) / 2;
    }
}

/// <summary>Forecast to the action line at the zone's design ambient, reference power and full fan.</summary>
public static class ActionForecast
{
    /// <summary>Nothing is dated further ahead than this.</summary>
    public const double HorizonDays = 730;

    /// <summary>Dates the crossing.</summary>
    /// <param name="asOf">Today; also the answer when the line is passed already.</param>
    /// <param name="marginKelvin">Kelvins left to the line; negative beyond it.</param>
    /// <param name="marginSigma">Their standard uncertainty.</param>
    /// <param name="rate">K a day; not positive means no trend.</param>
    /// <param name="rateSigma">Its standard uncertainty.</param>
    /// <returns>Null without a trend, or when the line is further away than the horizon.</returns>
    public static ActionDate? Of(DateOnly asOf, double marginKelvin, double marginSigma, double rate, double rateSigma)
    {
        if (marginKelvin <= 0)
            return new ActionDate(asOf, asOf, asOf);
        if (!(rate > 0) || marginKelvin / rate > HorizonDays)
            return null;
        var days = marginKelvin / rate;
        // First-order propagation (GUM 5.1.2) of margin and pace into days.
        var sigma = days * Math.Sqrt(Math.Pow(marginSigma / marginKelvin, 2) + Math.Pow(rateSigma / rate, 2));
        var late = days + ActionDate.Z90 * sigma;
        return new ActionDate(
            asOf.AddDays((int)Math.Round(days)),
            asOf.AddDays((int)Math.Max(0, Math.Round(days - ActionDate.Z90 * sigma))),
            late > HorizonDays ? null : asOf.AddDays((int)Math.Round(late))
        );
    }
}
