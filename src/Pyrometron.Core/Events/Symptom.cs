namespace Pyrometron.Core.Events;

/// <summary>What somebody saw or heard a machine do.</summary>
public enum SymptomKind
{
    /// <summary>It hangs or restarts under load.</summary>
    Crash,

    /// <summary>It switches itself off.</summary>
    Shutdown,

    /// <summary>It gets slow under load.</summary>
    Throttling,

    /// <summary>A fan is loud, rattles or grinds.</summary>
    Noise,

    /// <summary>Liquid came into it.</summary>
    Wet,

    /// <summary>It smells burnt or of chemicals.</summary>
    Smell,

    /// <summary>It fell or was hit.</summary>
    Dropped,

    /// <summary>Something else, in the reporter's words.</summary>
    Other,
}

/// <summary>
/// A report of a symptom. It stands until a run of the right length after it shows that it is gone, or a person says so; never
/// because a service was done.
/// </summary>
/// <param name="Date">The day it was noticed.</param>
/// <param name="Note">In the reporter's words, or null.</param>
public sealed record Symptom(DateOnly Date, SymptomKind Kind, string? Note)
{
    /// <summary>
    /// A machine whose time to failure nobody wrote down is tested for this long before it counts as cured. Common practice, no
    /// source: twice a usual test.
    /// </summary>
    public const double UsualMinutes = 40;

    /// <summary>
    /// A machine that failed after N minutes is not cured before it has run so many times N. Common practice, no source.
    /// </summary>
    public const double TimesToFailure = 2;

    /// <summary>When it was reported; null where only the day is known.</summary>
    public DateTimeOffset? ReportedAt { get; init; }

    /// <summary>How long it takes to show, minutes; null where nobody said.</summary>
    public double? MinutesToFailure { get; init; }

    /// <summary>The run in which it showed; null for what people reported.</summary>
    public MeasuredRun? Shown { get; init; }

    /// <summary>Whether it endangers work or the machine: it goes down, or must not be run.</summary>
    public bool IsFailure => Kind is SymptomKind.Crash or SymptomKind.Shutdown or SymptomKind.Wet or SymptomKind.Smell;

    /// <summary>A run without it has to last so long before it counts as gone, minutes.</summary>
    public double MinutesToClear => MinutesToFailure is { } minutes ? TimesToFailure * minutes : UsualMinutes;

    /// <summary>Those that stand, newest first: reports, and the last run in which the machine failed.</summary>
    /// <param name="history">As known on the day judged.</param>
    public static IReadOnlyList<Symptom> Standing(MachineHistory history)
    {
        var shown = history.Runs.LastOrDefault(r => r.Run.FailedAfterMinutes is not null) is { } failed ? Of(failed) : null;
        // A person who filed that the complaint is not gone knows better than a run that happened to go through.
        var notGone = history.Results.Where(r => r.ComplaintGone == false).Select(r => r.Job).ToHashSet();
        var through = history.Runs.Where(r => !notGone.Contains(r.Job)).ToArray();
        return
        [
            .. history
                .Symptoms.Append(shown)
                .OfType<Symptom>()
                .Where(s => !through.Any(s.IsClearedBy))
                .OrderByDescending(s => s.Date)
                .ThenByDescending(s => s.Shown is not null),
        ];
    }

    /// <summary>
    /// Whether a run shows that the symptom is gone: measured after the work that followed the report, long enough, and without
    /// it.
    /// </summary>
    public bool IsClearedBy(MeasuredRun measured) =>
        Kind is SymptomKind.Crash or SymptomKind.Shutdown or SymptomKind.Throttling
        && measured.Phase != RunPhase.Before
        && measured.At > (ReportedAt ?? new DateTimeOffset(Date.ToDateTime(TimeOnly.MinValue), TimeSpan.Zero))
        && measured.Run.FailedAfterMinutes is null
        && !(Kind == SymptomKind.Throttling && measured.Run.Throttled)
        && measured.Run.Minutes >= MinutesToClear;

    /// <summary>What a run shows in which the machine failed: nobody needs to report that.</summary>
    private static Symptom Of(MeasuredRun failed) =>
        new(DateOnly.FromDateTime(failed.At.UtcDateTime), SymptomKind.Shutdown, null)
        {
            ReportedAt = failed.At,
            MinutesToFailure = failed.Run.FailedAfterMinutes,
            Shown = failed,
        };
}
