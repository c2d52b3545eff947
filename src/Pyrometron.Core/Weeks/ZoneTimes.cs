namespace Pyrometron.Core.Weeks;

/// <summary>When machines of a zone may be worked on, and what it takes to begin there.</summary>
/// <param name="Zone">Code of the zone.</param>
/// <param name="SetupMinutes">The way there, the tools, the mat: before the first job of a visit.</param>
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
}

/// <summary>Days on which nothing of a zone may be down.</summary>
/// <param name="To">The last day.</param>
/// <param name="Reason">As typed: exams, the last week of a quarter.</param>
public sealed record ClosedDays(DateOnly From, DateOnly To, string Reason);
