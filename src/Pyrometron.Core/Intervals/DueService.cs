using Pyrometron.Core.Fleet;

namespace Pyrometron.Core.Intervals;

/// <summary>A service that the calendar asks for.</summary>
/// <param name="Days">Length of its interval.</param>
public readonly record struct DueService(ServiceLevel Level, DateOnly Due, int Days = 0)
{
    /// <summary>Whether it is due on a day.</summary>
    public bool IsDue(DateOnly day) => Due <= day;

    /// <summary>Whether it is overdue by half of its length or more.</summary>
    public bool IsLongOverdue(DateOnly day) => day.DayNumber - Due.DayNumber >= Days / 2.0 && IsDue(day);

    /// <summary>Days since it was due, by the length of its interval; 0 on its day, and without a length.</summary>
    public double OverdueShare(DateOnly day) => Days > 0 ? (day.DayNumber - Due.DayNumber) / (double)Days : 0;
}
