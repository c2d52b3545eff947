using Pyrometron.Core.Fleet;

namespace Pyrometron.Core.Intervals;

/// <summary>A service that the calendar asks for.</summary>
/// <param name="Days">Length of its interval.</param>
/// <param name="Asked">The day on which the calendar asked for it, where what was measured moved it on; else null.</param>
public readonly record struct DueService(ServiceLevel Level, DateOnly Due, int Days = 0, DateOnly? Asked = null)
{
    /// <summary>
    /// The same service on the day until which what was measured answers the calendar, at most an interval later.
    /// </summary>
    /// <param name="days">For how long, from this day on, there will surely be too little wear to be worth it.</param>
    public DueService Until(DateOnly asOf, double days)
    {
        var answered = asOf.AddDays((int)Math.Min(days, Days + Math.Max(0, Due.DayNumber - asOf.DayNumber)));
        var latest = Due.AddDays(Days);
        var moved = answered < latest ? answered : latest;
        return moved > Due && moved > asOf ? this with { Due = moved, Asked = Due } : this;
    }

    /// <summary>Whether it is due on a day.</summary>
    public bool IsDue(DateOnly day) => Due <= day;

    /// <summary>Whether it is overdue by half of its length or more.</summary>
    public bool IsLongOverdue(DateOnly day) => day.DayNumber - Due.DayNumber >= Days / 2.0 && IsDue(day);

    /// <summary>Days since it was due, by the length of its interval; 0 on its day, and without a length.</summary>
    public double OverdueShare(DateOnly day) => Days > 0 ? (day.DayNumber - Due.DayNumber) / (double)Days : 0;
}
