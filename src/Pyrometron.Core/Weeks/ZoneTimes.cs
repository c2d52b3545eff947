namespace Pyrometron.Core.Weeks;

/// <summary>When machines of a zone may be worked on, and what it takes to begin there.</summary>
/// <param name="Zone">Code of the zone.</param>
/// <param name="SetupMinutes">The tools, the mat, the forms of the house: before the first job of a visit.</param>
/// <param name="MaxDown">How many of its machines may be down at once; null where any number may.</param>
/// <param name="Open">The stretches of a week in which machines may be down; empty for always.</param>
/// <param name="Closed">Days on which none may be, whatever the week says.</param>
public sealed record ZoneTimes(
    string Zone,
    int SetupMinutes,
    int? MaxDown,
    IReadOnlyList<WeeklyTime> Open,
    IReadOnlyList<ClosedDays> Closed
)
{
    /// <summary>Minutes of set-up where nobody has said. Common practice, no source.</summary>
    public const int UsualSetup = 10;

    /// <summary>A zone of which nobody has said anything.</summary>
    public static ZoneTimes Usual(string zone) => new(zone, UsualSetup, null, [], []);

    /// <summary>The first day from a day on, within so many, on which machines may be down; null where there is none.</summary>
    public DateOnly? NextOpen(DateOnly from, int days) =>
        Enumerable
            .Range(0, days)
            .Select(d => (DateOnly?)from.AddDays(d))
            .FirstOrDefault(day =>
                (Open.Count == 0 || Open.Any(o => o.Day == day!.Value.DayOfWeek))
                && !Closed.Any(c => c.From <= day && day <= c.To)
            );
}

/// <summary>Days on which nothing of a zone may be down.</summary>
/// <param name="To">The last day.</param>
/// <param name="Reason">As typed: exams, the last week of a quarter.</param>
public sealed record ClosedDays(DateOnly From, DateOnly To, string Reason);
