using Pyrometron.Core.Planning;

namespace Pyrometron.Core.Weeks;

/// <summary>Turns the clock on the wall of a site into minutes of a plan, whose days begin at 00:00 UTC, and back.</summary>
/// <param name="start">The first day of the plan.</param>
/// <param name="zone">The site's time zone.</param>
public sealed class LocalClock(DateOnly start, TimeZoneInfo zone)
{
    private readonly DateTimeOffset _start = new(start, TimeOnly.MinValue, TimeSpan.Zero);

    /// <summary>
    /// The minute of the plan at which the wall shows a time. A time that summer time skips is the same time after the skip; one
    /// that comes twice is the second.
    /// </summary>
    /// <param name="minute">From 00:00 of the day on; beyond 1440 on the next.</param>
    public int Minute(DateOnly day, int minute)
    {
        var wall = day.ToDateTime(TimeOnly.MinValue).AddMinutes(minute);
        if (zone.IsInvalidTime(wall))
            wall = wall.AddHours(1);
        return (int)(new DateTimeOffset(wall, zone.GetUtcOffset(wall)) - _start).TotalMinutes;
    }

    /// <summary>The stretches of a plan that a week's time stands for, day by day.</summary>
    /// <param name="days">The days of the plan.</param>
    public IEnumerable<(DateOnly Day, Span Span)> Spans(IReadOnlyList<WeeklyTime> weekly, int days)
    {
        // One day more on each side: the plan's days are those of UTC.
        for (var d = -1; d <= days; d++)
        {
            var day = start.AddDays(d);
            foreach (var time in weekly.Where(t => t.Day == day.DayOfWeek))
                yield return (day, new Span(Minute(day, time.From), Minute(day, time.To)));
        }
    }

    /// <summary>When a place or a machine may be worked on, in minutes of the plan; null where always.</summary>
    /// <param name="weekly">The stretches of a week; empty for always.</param>
    /// <param name="closed">First and last days of stretches in which not.</param>
    /// <param name="days">The days of the plan.</param>
    /// <param name="horizon">Where it is always open.</param>
    public IReadOnlyList<Span>? Open(
        IReadOnlyList<WeeklyTime> weekly,
        IEnumerable<(DateOnly From, DateOnly To)> closed,
        int days,
        Span horizon
    )
    {
        var shuts = closed.ToList();
        if (weekly.Count == 0 && shuts.Count == 0)
            return null;
        IReadOnlyList<Span> open = weekly.Count == 0 ? [horizon] : Span.Merged(Spans(weekly, days).Select(s => s.Span));
        foreach (var (from, to) in shuts)
        {
            var shut = Days(from, to);
            open = Span.Merged(
                open.SelectMany(o =>
                    new[] { o with { To = Math.Min(o.To, shut.From) }, o with { From = Math.Max(o.From, shut.To) } }
                )
            );
        }
        return open;
    }

    /// <summary>All of a stretch of days.</summary>
    public Span Days(DateOnly from, DateOnly to) => new(Minute(from, 0), Minute(to.AddDays(1), 0));

    /// <summary>The day that the wall's calendar shows at a minute of the plan.</summary>
    public DateOnly DayOf(int minute) =>
        DateOnly.FromDateTime(TimeZoneInfo.ConvertTime(_start.AddMinutes(minute), zone).DateTime);
}
