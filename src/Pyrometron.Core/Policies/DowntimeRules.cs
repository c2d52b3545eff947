namespace Pyrometron.Core.Policies;

/// <summary>When machines may be down for work; each allows less than the one before it.</summary>
public enum DownHours
{
    AnyTime,

    /// <summary>Not while people work at them.</summary>
    OutOfHours,

    /// <summary>On Saturdays and Sundays.</summary>
    Weekends,
}

/// <summary>When machines may be down for work, besides what their zone says. The default allows everything.</summary>
/// <param name="SparesQuarterEnd">Whether none may in the last week of a quarter, when books are closed.</param>
public sealed record DowntimeRules(DownHours Hours = DownHours.AnyTime, bool SparesQuarterEnd = false)
{
    /// <summary>
    /// When people work at machines, from Monday to Friday, minutes from 00:00: eight to six. Common practice, no source.
    /// </summary>
    public const int WorkFrom = 8 * 60,
        WorkTo = 18 * 60;

    /// <summary>Days of a quarter's last week.</summary>
    private const int LastDays = 7;

    /// <summary>Nothing is asked.</summary>
    public static DowntimeRules Default { get; } = new();

    /// <summary>What both allow.</summary>
    public DowntimeRules And(DowntimeRules other) =>
        new(Hours > other.Hours ? Hours : other.Hours, SparesQuarterEnd || other.SparesQuarterEnd);

    /// <summary>Whether a day lies in the last week of a quarter.</summary>
    public static bool IsQuarterEnd(DateOnly day)
    {
        var last = new DateOnly(day.Year, (day.Month + 2) / 3 * 3, 1).AddMonths(1).AddDays(-1);
        return last.DayNumber - day.DayNumber < LastDays;
    }
}
