using Pyrometron.Core.Fleet;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Events;

/// <summary>Which measurement of a job.</summary>
public enum RunPhase
{
    Before,
    After,
    Recheck,
}

/// <summary>A run that stands: measured at the bench and not struck out.</summary>
/// <param name="At">When it was measured.</param>
public sealed record MeasuredRun(DateTimeOffset At, RunPhase Phase, Run Run, long Job);

/// <summary>What a person saw of a cause when they looked.</summary>
/// <param name="Found">False where what was looked at is as it should be.</param>
/// <param name="Opened">Whether the machine was open: from outside less is seen.</param>
public sealed record Look(DateTimeOffset At, Cause Cause, bool Found, bool Opened);

/// <summary>How a job ended as far as it was measured.</summary>
/// <param name="At">When its last run was measured, or its verdict filed.</param>
/// <param name="Outcome">Of its runs; not comparable where one of them is missing.</param>
/// <param name="Part">The part that changed most for the worse, or that won least; null where nothing was compared.</param>
/// <param name="ChangeKelvin">Of that part, negative is cooler.</param>
/// <param name="ComplaintGone">As filed with the verdict; null without a complaint, or while it is not filed.</param>
/// <param name="FailedAfterMinutes">When the machine failed in the run after the work; null when it ran through.</param>
public sealed record JobResult(
    long Job,
    ServiceLevel Level,
    DateTimeOffset WorkDoneAt,
    DateTimeOffset At,
    VerdictOutcome Outcome,
    string? Part,
    double ChangeKelvin,
    bool? ComplaintGone,
    double? FailedAfterMinutes
);

/// <summary>What happened to a machine besides its readings and its services. Everything in the order of time.</summary>
public sealed record MachineHistory(
    IReadOnlyList<MeasuredRun> Runs,
    IReadOnlyList<Symptom> Symptoms,
    IReadOnlyList<Look> Looks,
    IReadOnlyList<JobResult> Results
)
{
    /// <summary>Nothing happened yet.</summary>
    public static MachineHistory Empty { get; } = new([], [], [], []);

    /// <summary>The same with the runs from an instant on alone.</summary>
    /// <param name="day">Days since 1970.</param>
    public MachineHistory RunsSince(double day) => this with { Runs = [.. Runs.Where(r => UnixDay.Of(r.At) >= day)] };

    /// <summary>What was known by the end of a day.</summary>
    public MachineHistory Until(DateOnly day)
    {
        var end = new DateTimeOffset(day.AddDays(1).ToDateTime(TimeOnly.MinValue), TimeSpan.Zero);
        return new(
            [.. Runs.Where(r => r.At < end)],
            [.. Symptoms.Where(s => s.Date <= day)],
            [.. Looks.Where(l => l.At < end)],
            [.. Results.Where(r => r.At < end)]
        );
    }
}
