using System.Globalization;

namespace Pyrometron.Server.Weeks;

/// <summary>Times of a day as they are written, such as 08:00.</summary>
internal static class WallTimes
{
    /// <summary>Minutes of the day; null where it is none.</summary>
    public static int? Read(string? text) =>
        TimeOnly.TryParseExact(text, "HH:mm", CultureInfo.InvariantCulture, DateTimeStyles.None, out var time)
            ? (time.Hour * 60) + time.Minute
            : null;

    /// <summary>As written; beyond 1440 the time of the next day.</summary>
    public static string Write(int minute) =>
        new TimeOnly(minute / 60 % 24, minute % 60).ToString("HH:mm", CultureInfo.InvariantCulture);
}
