using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Inspection;

namespace Pyrometron.Core.Jobs;

// What a job comes to for the machine's history: the service that was done, the runs, the looks, and how it ended.
public sealed partial class Job
{
    private static readonly Dictionary<FindingSubject, Cause> LookedAt = new()
    {
        [FindingSubject.Dust] = Cause.Dust,
        [FindingSubject.FanSpin] = Cause.Fan,
        [FindingSubject.FanNoise] = Cause.Fan,
        [FindingSubject.Paste] = Cause.Paste,
        [FindingSubject.Coverage] = Cause.Mount,
        [FindingSubject.Pads] = Cause.Pads,
    };

    /// <summary>
    /// The service as it was done: its level, and what came with it by the steps that were ticked. A cooler that came off for a
    /// fan brought new paste; a step that was left out renewed nothing. Null before the work is filed.
    /// </summary>
    public ServiceDone? Service =>
        WorkDoneAt is not { } at
            ? null
            : new ServiceDone(DateOnly.FromDateTime(at.UtcDateTime), Level)
            {
                At = at,
                LiftedCooler = Card("cooler-off") is null ? Basis.LiftsCooler : CoolerCameOff,
                Renewed = Renewed,
                FanFailed = Renewed.Fan > 0 ? FoundFailedFan : null,
                Used = [.. Materials.Select(m => new UsedMaterial(m.Material, m.Amount, m.ThicknessMm))],
                Job = Head.Id,
                By = FiledBy,
                Proven = Result?.Outcome,
            };

    /// <summary>How it ended as far as it was measured; null before there is a run after the work.</summary>
    public JobResult? Result
    {
        get
        {
            if (WorkDoneAt is not { } done || (Standing(RunPhase.Recheck) ?? Standing(RunPhase.After)) is not { } last)
                return null;
            var verdict = RecheckVerdict ?? Verdict;
            var part = verdict?.Parts.MaxBy(p => p.ChangeKelvin);
            return new JobResult(
                Head.Id,
                Level,
                done,
                last.At,
                verdict?.Outcome ?? VerdictOutcome.NotComparable,
                part?.Part,
                part?.ChangeKelvin ?? 0,
                ComplaintFixed,
                StandingOf(last.Phase).Min(r => r.Run.FailedAfterMinutes)
            );
        }
    }

    /// <summary>Its runs that stand, oldest first.</summary>
    public IReadOnlyList<MeasuredRun> StandingRuns =>
        [.. _runs.Where(r => r.Voided is null).OrderBy(r => r.At).Select(r => new MeasuredRun(r.At, r.Phase, r.Run, Head.Id))];

    /// <summary>What was seen of each cause, by the grades that were given.</summary>
    public IReadOnlyList<Look> Looks =>
        [
            .. _findings
                .Values.Where(f => LookedAt.ContainsKey(f.Found.About))
                .Select(f => (f.At, Cause: LookedAt[f.Found.About], Grade: Grading.Find(f.Found.About, f.Found.Grade)))
                .Where(f => f.Grade is not null && (f.Grade.Cause is not null || Grading.IsSound(f.Grade)))
                .Select(f => new Look(f.At, f.Cause, f.Grade!.Cause is not null, Basis.Opens)),
        ];

    /// <summary>Whether a fan was found failed, or sound; null where nobody looked at one.</summary>
    private bool? FoundFailedFan =>
        Looks.Where(l => l.Cause == Cause.Fan).Select(l => (bool?)l.Found).OrderDescending().FirstOrDefault();

    private RenewedShares Renewed
    {
        get
        {
            var usual = RenewedShares.Of(Level).And(CoolerCameOff ? RenewedShares.Of(ServiceLevel.Repaste) : default);
            double Of(string step, double share) =>
                Card(step) is null ? share
                : Done(step) ? Math.Max(share, 1)
                : 0;
            return usual with
            {
                Dust = Card("blow") is null && Card("brush") is null || Done("blow") || Done("brush") ? usual.Dust : 0,
                Paste = Of("paste-on", usual.Paste),
                Mount = Of("cooler-on", usual.Mount),
                Pads = Of("pads-on", usual.Pads),
                Fan = Of("fan-swap", usual.Fan),
            };
        }
    }

    private Procedures.CardStep? Card(string kind) => _card.Steps.FirstOrDefault(s => s.Kind == kind);
}
