using Pyrometron.Application.Bench;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Procedures;
using Pyrometron.Server.Machines;
using Pyrometron.Server.Proof;
using Pyrometron.Storage;

namespace Pyrometron.Server.Bench;

/// <summary>A run of a job; one that was voided is kept, struck through.</summary>
public sealed record JobRunAnswer(Guid Key, RunPhase Phase, DateTimeOffset MeasuredAt, RunAnswer Run, string? Voided);

/// <summary>A photo of a job; its bytes are at <c>/api/v1/photos/{key}</c>.</summary>
public sealed record PhotoAnswer(
    Guid Key,
    string? Caption,
    string? Step,
    bool FoundOnOpening,
    DateTimeOffset TakenAt,
    bool DoneOnTheWay
);

/// <summary>A higher level that the findings ask for.</summary>
public sealed record LevelAsked(ServiceLevel Level, string Because, Message Message)
{
    internal static LevelAsked For(ServiceLevel level, Message because) => new(level, because.ToString(), because);
}

/// <summary>A machine back with its owner.</summary>
public sealed record HandedBackAnswer(string To, string? Note, DateTimeOffset At, string? Condition);

/// <summary>A grade that can be given.</summary>
public sealed record GradeAnswer(string Word, string Says, Message Message);

/// <summary>A timer set going.</summary>
public sealed record TimerAnswer(string Timer, DateTimeOffset StartedAt, int Seconds, bool Stopped);

/// <summary>A job at the bench.</summary>
/// <param name="Blocked">What is still missing before the work can be filed as done, or null.</param>
/// <param name="BlockedBefore">Why work may not begin yet, or null.</param>
/// <param name="Verdict">As filed.</param>
/// <param name="Preview">The verdict of the two runs as they stand, before it is filed.</param>
/// <param name="RecheckVerdict">Of the before-run and the second look a week later.</param>
/// <param name="ComplaintStands">Why the complaint cannot be called gone by the runs so far, or null.</param>
/// <param name="Expected">How many of each kind should come out by the model's notes.</param>
/// <param name="CountExcuses">Why counts of a whole kind do not meet.</param>
/// <param name="Excuses">The same, and those of single places.</param>
/// <param name="Notes">What was known of the model when the card was dealt.</param>
/// <param name="NotesChanged">Whether newer notes can be taken over.</param>
/// <param name="ComebackOf">The earlier job that the machine is back from, or null.</param>
/// <param name="FreeOfCharge">Whether this job is, as a comeback.</param>
/// <param name="Damage">What was broken or missing before it was opened.</param>
/// <param name="DamageDone">What this job broke.</param>
/// <param name="Products">Products used and fitted, one of a kind.</param>
/// <param name="PadsMeasured">Old pads as measured, by place.</param>
/// <param name="Tools">Tools beyond the usual ones.</param>
/// <param name="Order">What was agreed with the owner, or null.</param>
/// <param name="Schools">The house's ways as they were when the job began.</param>
/// <param name="Unagreed">What its owner has not agreed to yet, where machines belong to others; or null.</param>
/// <param name="Levels">What can be done to a machine of its kind.</param>
public sealed record JobAnswer(
    long Id,
    string Asset,
    AssetKind Kind,
    string Model,
    ServiceLevel Level,
    ServiceLevel StartedLevel,
    string? Fan,
    JobState State,
    DateTimeOffset StartedAt,
    DateTimeOffset? WorkDoneAt,
    DateTimeOffset? ClosedAt,
    DateOnly? WarrantyUntil,
    string? WarrantyAnswer,
    Prediction? Predicted,
    IReadOnlyList<Cause>? FoundCauses,
    LevelAsked? Asked,
    IReadOnlyList<StepAnswer> Steps,
    string? Blocked,
    string? BlockedBefore,
    string? BeforeExcuse,
    IReadOnlyList<JobRunAnswer> Runs,
    VerdictAnswer? Verdict,
    VerdictAnswer? Preview,
    VerdictAnswer? RecheckVerdict,
    DateTimeOffset? RecheckDue,
    ComplaintRecorded? Complaint,
    bool? ComplaintFixed,
    string? ComplaintStands,
    IReadOnlyList<JobCount> Expected,
    IReadOnlyList<JobCount> Counts,
    IReadOnlyDictionary<CountOf, string> CountExcuses,
    IReadOnlyList<CountExcused> Excuses,
    IReadOnlyList<TimerAnswer> Timers,
    IReadOnlyList<Found> Findings,
    IReadOnlyList<string> Damage,
    IReadOnlyList<string> Deviations,
    IReadOnlyList<MaterialUsed> Materials,
    double Minutes,
    IReadOnlyList<PhotoAnswer> Photos,
    string? Note,
    string? GivenUpBecause,
    HandedBackAnswer? HandedBack,
    ModelNotes Notes,
    IReadOnlyList<MachinePart> Parts,
    int Version,
    bool NotesChanged,
    long? ComebackOf,
    bool FreeOfCharge,
    IReadOnlyList<string> DamageDone,
    IReadOnlyList<ProductUsed> Products,
    IReadOnlyList<PadMeasured> PadsMeasured,
    IReadOnlyList<string> Tools,
    OrderAgreed? Order,
    BenchSchools Schools,
    string? Unagreed,
    IReadOnlyList<ServiceLevel> Levels
)
{
    internal static JobAnswer From(JobInHand hand)
    {
        var (row, job, notesChanged) = hand;
        return new(
            row.Id,
            row.Tag,
            row.Kind,
            row.Model,
            job.Level,
            row.StartedLevel,
            job.Basis.Fan,
            job.State,
            row.StartedAt,
            job.WorkDoneAt,
            job.ClosedAt,
            row.WarrantyUntil,
            job.Basis.WarrantyAnswer,
            row.Predicted,
            job.FoundCauses,
            job.AskedFor is { } asked ? LevelAsked.For(asked.Level, EntryWords.Graded(asked.Subject, asked.Grade)) : null,
            [.. job.Steps.Select(StepAnswer.From)],
            job.BlockedFinish?.ToString(),
            job.BlockedBefore?.ToString(),
            job.BeforeExcuse,
            [.. job.Runs.Select(r => new JobRunAnswer(r.Key, r.Phase, r.At, RunAnswer.From(r.Run), r.Voided))],
            row.Verdict is { } verdict ? VerdictAnswer.From(verdict) : null,
            job.Verdict is { } preview ? VerdictAnswer.From(preview) : null,
            job.RecheckVerdict is { } second ? VerdictAnswer.From(second) : null,
            job.RecheckDue,
            job.Complaint,
            job.ComplaintFixed,
            job.ComplaintStands?.ToString(),
            job.Expected,
            [.. job.Counts],
            job.CountExcuses.Where(e => e.Item is null).ToDictionary(e => e.What, e => e.Reason),
            [.. job.CountExcuses],
            [.. job.Timers.Select(t => new TimerAnswer(t.Timer, t.StartedAt, t.Seconds, t.Stopped))],
            [.. job.Findings],
            [.. job.Damage.Where(d => d.OnTheWay != true).Select(d => d.Text)],
            [.. job.Deviations.Select(d => d.Text)],
            job.Materials,
            job.Minutes,
            [
                .. job.Photos.Select(p => new PhotoAnswer(
                    p.Photo.Photo,
                    p.Photo.Caption,
                    p.Photo.Step,
                    p.Photo.FoundOnOpening,
                    p.Stamp.MadeAt,
                    p.Photo.DoneOnTheWay == true
                )),
            ],
            job.Note,
            job.GivenUpBecause,
            job.HandedBack is { } back ? new HandedBackAnswer(back.To.To, back.To.Note, back.At, back.To.Condition) : null,
            job.Basis.Notes,
            [.. job.Head.Parts.Select(p => new MachinePart(p.Name, p.Limit.Value, p.Joint))],
            job.Version,
            notesChanged,
            row.ComebackOf,
            row.Free,
            [.. job.Damage.Where(d => d.OnTheWay == true).Select(d => d.Text)],
            [.. job.Products],
            [.. job.PadsMeasured],
            job.Tools,
            job.Order,
            job.Basis.Schools,
            job.Unagreed?.ToString(),
            ServiceEffects.For(row.Kind)
        );
    }
}

/// <summary>A job in a list.</summary>
public sealed record JobSummary(
    long Id,
    string Asset,
    ServiceLevel Level,
    JobState State,
    DateTimeOffset StartedAt,
    DateTimeOffset? WorkDoneAt,
    DateTimeOffset? ClosedAt,
    VerdictAnswer? Verdict,
    Cause? Predicted,
    IReadOnlyList<Cause>? Found,
    DateTimeOffset? RecheckDue,
    DateTimeOffset? RecheckedAt,
    long? ComebackOf
)
{
    internal static JobSummary From(StoredJob job) =>
        new(
            job.Id,
            job.Tag,
            job.Level,
            job.State,
            job.StartedAt,
            job.WorkDoneAt,
            job.ClosedAt,
            job.Verdict is { } verdict ? VerdictAnswer.From(verdict) : null,
            job.Predicted?.Cause,
            job.FoundCauses,
            job.RecheckDue,
            job.RecheckedAt,
            job.ComebackOf
        );
}
