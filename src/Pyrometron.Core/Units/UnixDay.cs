namespace Pyrometron.Core.Units;

/// <summary>Days since 1970-01-01T00:00Z with their fraction: the time axis of all calculations.</summary>
public static class UnixDay
{
    private static readonly DateOnly Epoch = new(1970, 1, 1);

    /// <summary>The day of an instant.</summary>
    public static double Of(DateTimeOffset instant) => instant.ToUnixTimeMilliseconds() / 86_400_000.0;

    /// <summary>The end of a date, UTC: what happened on it lies before.</summary>
    public static double EndOf(DateOnly date) => date.DayNumber - Epoch.DayNumber + 1;

    /// <summary>
    /// Noon of a date: what a service of that day is dated, since its morning's readings still belong to the time before.
    /// </summary>
    public static double Noon(DateOnly date) => date.DayNumber - Epoch.DayNumber + 0.5;

    /// <summary>The date of a day, UTC.</summary>
    public static DateOnly DateOf(double day) => Epoch.AddDays((int)Math.Floor(day));
}
