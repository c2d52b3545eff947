using Pyrometron.Core.Policies;

namespace Pyrometron.Core.Weeks;

/// <summary>Rules of downtime as stretches of weeks and days.</summary>
public static class DowntimeHours
{
    private const int Day = 24 * 60;

    /// <summary>The stretches of a week in which machines may be down; empty for always.</summary>
    public static IReadOnlyList<WeeklyTime> Open(this DowntimeRules rules)
    {
        if (rules.Hours == DownHours.AnyTime)
            return [];
        WeeklyTime[] weekend = [new(DayOfWeek.Saturday, 0, Day), new(DayOfWeek.Sunday, 0, Day)];
        if (rules.Hours == DownHours.Weekends)
            return weekend;
        return
        [
            .. weekend,
            .. from day in Enum.GetValues<DayOfWeek>()
            where day is not (DayOfWeek.Saturday or DayOfWeek.Sunday)
            from hours in (WeeklyTime[])[new(day, 0, DowntimeRules.WorkFrom), new(day, DowntimeRules.WorkTo, Day)]
            select hours,
        ];
    }

    /// <summary>Days, each as a stretch of its own, on which none may.</summary>
    public static IEnumerable<(DateOnly From, DateOnly To)> Closed(this DowntimeRules rules, DateOnly from, int days) =>
        rules.SparesQuarterEnd
            ? Enumerable.Range(0, days).Select(from.AddDays).Where(DowntimeRules.IsQuarterEnd).Select(day => (day, day))
            : [];
}
