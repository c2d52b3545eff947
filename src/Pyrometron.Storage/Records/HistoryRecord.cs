using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;

namespace Pyrometron.Storage.Records;

/// <summary>
/// What a job comes to for its machine's history, as stored, form 1. Made anew from the job's entries with each of them.
/// </summary>
internal sealed record HistoryRecord(IReadOnlyList<MeasuredRunRecord> Runs, IReadOnlyList<LookRecord> Looks, ResultRecord? Result)
{
    /// <summary>The form that is written.</summary>
    public const int Form = 1;

    public static HistoryRecord Of(Job job) =>
        new(
            [.. job.StandingRuns.Select(r => new MeasuredRunRecord(r.At, Words.Of(r.Phase), RunRecord.Of(r.Run)))],
            [.. job.Looks.Select(l => new LookRecord(l.At, Words.Of(l.Cause), l.Found, l.Opened))],
            job.Result is { } r
                ? new ResultRecord(
                    Words.Of(r.Level),
                    r.WorkDoneAt,
                    r.At,
                    Words.Of(r.Outcome),
                    r.Part,
                    r.ChangeKelvin,
                    r.ComplaintGone,
                    r.FailedAfterMinutes
                )
                : null
        );

    public IEnumerable<MeasuredRun> RunsOf(long job) =>
        Runs.Select(r => new MeasuredRun(r.At, StoredWords.Read<RunPhase>(r.Phase), r.Run.ToRun(), job));

    public IEnumerable<Look> AllLooks => Looks.Select(l => new Look(l.At, StoredWords.Read<Cause>(l.Cause), l.Found, l.Opened));

    public JobResult? ResultOf(long job) =>
        Result is { } r
            ? new JobResult(
                job,
                StoredWords.Read<ServiceLevel>(r.Level),
                r.WorkDoneAt,
                r.At,
                StoredWords.Read<VerdictOutcome>(r.Outcome),
                r.Part,
                r.ChangeKelvin,
                r.ComplaintGone,
                r.FailedAfterMinutes
            )
            : null;
}

/// <summary>A standing run.</summary>
internal sealed record MeasuredRunRecord(DateTimeOffset At, string Phase, RunRecord Run);

/// <summary>A look.</summary>
internal sealed record LookRecord(DateTimeOffset At, string Cause, bool Found, bool Opened);

/// <summary>How the job ended.</summary>
internal sealed record ResultRecord(
    string Level,
    DateTimeOffset WorkDoneAt,
    DateTimeOffset At,
    string Outcome,
    string? Part,
    double ChangeKelvin,
    bool? ComplaintGone,
    double? FailedAfterMinutes
);

/// <summary>What is known of a service beyond its day and level, as stored, form 1.</summary>
internal sealed record ServiceRecord(
    DateTimeOffset? At,
    bool LiftedCooler,
    RenewedRecord Renewed,
    IReadOnlyList<UsedRecord>? Used,
    string? By,
    bool? FanFailed = null
)
{
    /// <summary>The form that is written.</summary>
    public const int Form = 1;

    /// <summary>Null where nothing is known beyond what its level says.</summary>
    public static ServiceRecord? Of(ServiceDone s) =>
        s is { At: null, Used.Count: 0, By: null, FanFailed: null }
        && s.LiftedCooler == ServiceEffects.LiftsCooler(s.Level)
        && s.Renewed == RenewedShares.Of(s.Level)
            ? null
            : new(
                s.At,
                s.LiftedCooler,
                new RenewedRecord(s.Renewed.Dust, s.Renewed.Paste, s.Renewed.Pads, s.Renewed.Fan, s.Renewed.Mount),
                s.Used.Count == 0 ? null : [.. s.Used.Select(u => new UsedRecord(Words.Of(u.Kind), u.Amount, u.ThicknessMm))],
                s.By,
                s.FanFailed
            );

    /// <summary>The service with what is known of it.</summary>
    public ServiceDone Fill(ServiceDone service) =>
        service with
        {
            At = At,
            LiftedCooler = LiftedCooler,
            Renewed = new RenewedShares(Renewed.Dust, Renewed.Paste, Renewed.Pads, Renewed.Fan, Renewed.Mount),
            Used =
            [
                .. (Used ?? []).Select(u => new UsedMaterial(StoredWords.Read<MaterialKind>(u.Kind), u.Amount, u.ThicknessMm)),
            ],
            By = By,
            FanFailed = FanFailed,
        };
}

/// <summary>Shares renewed.</summary>
internal sealed record RenewedRecord(double Dust, double Paste, double Pads, double Fan, double Mount);

/// <summary>Material used.</summary>
internal sealed record UsedRecord(string Kind, double Amount, double? ThicknessMm);
