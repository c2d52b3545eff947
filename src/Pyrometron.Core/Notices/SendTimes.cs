namespace Pyrometron.Core.Notices;

/// <summary>When notices are sent.</summary>
public static class SendTimes
{
    /// <summary>Waits before the second attempt, the third, and so on; after the last one it is given up.</summary>
    private static readonly TimeSpan[] Waits =
    [
        TimeSpan.FromMinutes(1),
        TimeSpan.FromMinutes(5),
        TimeSpan.FromMinutes(30),
        TimeSpan.FromHours(2),
        TimeSpan.FromHours(6),
        TimeSpan.FromHours(12),
        TimeSpan.FromHours(24),
    ];

    /// <summary>When to try again after so many attempts have failed; null where it is given up.</summary>
    /// <param name="failed">One at least.</param>
    public static DateTimeOffset? NextAttempt(int failed, DateTimeOffset now) =>
        failed <= Waits.Length ? now + Waits[failed - 1] : null;

    /// <summary>The first instant after another one at which a clock on the wall shows a minute of the day.</summary>
    /// <remarks>A time that summer time skips is the same time after the skip; one that comes twice is the second.</remarks>
    public static DateTimeOffset NextAt(int minute, DateTimeOffset after, TimeZoneInfo zone)
    {
        for (var day = TimeZoneInfo.ConvertTime(after, zone).Date; ; day = day.AddDays(1))
        {
            var wall = day.AddMinutes(minute);
            if (zone.IsInvalidTime(wall))
                wall = wall.AddHours(1);
            var instant = new DateTimeOffset(wall, zone.GetUtcOffset(wall));
            if (instant > after)
                return instant;
        }
    }

    /// <summary>The first instant from now on that does not lie in quiet hours.</summary>
    public static DateTimeOffset NotQuiet(DateTimeOffset now, QuietHours? quiet, TimeZoneInfo zone)
    {
        var wall = TimeZoneInfo.ConvertTime(now, zone);
        return quiet?.Contains(wall.Hour * 60 + wall.Minute) == true ? NextAt(quiet.To, now, zone) : now;
    }
}
