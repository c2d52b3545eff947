namespace Pyrometron.Core.Weeks;

/// <summary>A stretch of every week, by the clock on the wall.</summary>
/// <param name="Day">The day on which it begins.</param>
/// <param name="From">Minute of that day, 0 to 1439.</param>
/// <param name="To">Minute from that day's 00:00 on, later than <paramref name="From"/>; beyond 1440 on the next day.</param>
public sealed record WeeklyTime(DayOfWeek Day, int From, int To);

/// <summary>Somebody who works on machines.</summary>
/// <param name="Code">Theirs alone: letters, digits and hyphens; stands in addresses.</param>
/// <param name="Skills">What they may do beyond what everybody may.</param>
/// <param name="Sites">Codes of the sites where they work; empty for all.</param>
/// <param name="Hours">When they work; no two overlap.</param>
public sealed record Person(
    string Code,
    string Name,
    IReadOnlySet<Skill> Skills,
    IReadOnlyList<string> Sites,
    IReadOnlyList<WeeklyTime> Hours
);

/// <summary>Days on which somebody is not there.</summary>
/// <param name="Person">Their code.</param>
/// <param name="To">The last day.</param>
/// <param name="Reason">As typed; may be empty.</param>
public sealed record Absence(string Person, DateOnly From, DateOnly To, string Reason);
