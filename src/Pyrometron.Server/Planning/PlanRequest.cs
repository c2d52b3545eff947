namespace Pyrometron.Server.Planning;

/// <summary>A planning problem. Times are instants in whole minutes, or dates that stand for their 00:00 UTC.</summary>
/// <param name="Start">The first day of the plan, such as 2026-12-01, from 00:00 UTC.</param>
/// <param name="Days">How many days it has, 1 to 366; nothing is planned beyond them.</param>
/// <param name="Seconds">How long may be thought, up to 60; 20 where it is missing.</param>
/// <param name="People">Who can be sent.</param>
/// <param name="Zones">Where machines stand.</param>
/// <param name="Jobs">What is to be done.</param>
public sealed record PlanRequest(
    string? Start,
    int? Days,
    double? Seconds,
    IReadOnlyList<PlanPersonDto?>? People,
    IReadOnlyList<PlanZoneDto?>? Zones,
    IReadOnlyList<PlanJobDto?>? Jobs
);

/// <summary>A stretch of time, half open: what begins at its end does not overlap it.</summary>
public sealed record PlanSpanDto(string? Start, string? End);

/// <summary>Somebody who can be sent.</summary>
/// <param name="Skills">What they may do; none where missing.</param>
/// <param name="Sites">Where they work; everywhere where missing.</param>
/// <param name="Shifts">When they work; no two overlap. What lies outside the plan is cut off.</param>
public sealed record PlanPersonDto(
    string? Id,
    IReadOnlyList<string?>? Skills,
    IReadOnlyList<string?>? Sites,
    IReadOnlyList<PlanSpanDto?>? Shifts
);

/// <summary>Where machines stand.</summary>
/// <param name="SetupMinutes">Before the first job of a shift there, and before each that follows one in another zone.</param>
/// <param name="MaxDown">How many of its machines may be worked on at once; any number where missing.</param>
/// <param name="Windows">When they may be worked on; always where missing.</param>
public sealed record PlanZoneDto(
    string? Code,
    string? Site,
    int? SetupMinutes,
    int? MaxDown,
    IReadOnlyList<PlanSpanDto?>? Windows
);

/// <summary>Work on one machine.</summary>
/// <param name="Minutes">How long it takes, without set-up; at least 1.</param>
/// <param name="Skills">All that it needs; none where missing.</param>
/// <param name="DueBy">The last day on which it is not late; never late where missing.</param>
/// <param name="Weight">What each day of lateness costs.</param>
/// <param name="Locked">Where it stands, if somebody put it there.</param>
public sealed record PlanJobDto(
    string? Id,
    string? Zone,
    int? Minutes,
    IReadOnlyList<string?>? Skills,
    string? NotBefore,
    string? DueBy,
    double? Weight,
    PlanLockDto? Locked
);

/// <summary>A place that somebody chose.</summary>
/// <param name="Start">When the job begins, after its set-up.</param>
public sealed record PlanLockDto(string? Person, string? Start);
