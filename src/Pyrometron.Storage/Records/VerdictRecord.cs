using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Proof;

namespace Pyrometron.Storage.Records;

/// <summary>A verdict as filed, as stored, form 1. Advice and reasons of older verdicts are plain English alone.</summary>
internal sealed record VerdictRecord(
    string Outcome,
    IReadOnlyList<PartVerdictRecord> Parts,
    IReadOnlyList<ReasonRecord> Reasons,
    IReadOnlyList<string> Advice,
    IReadOnlyList<MessageRecord>? AdviceMessages = null,
    IReadOnlyList<string>? AlsoBetter = null,
    MessageRecord? Says = null,
    IReadOnlyList<RunPairRecord>? Pairs = null,
    double? RepeatabilityKelvin = null,
    IReadOnlyList<string>? Remedies = null
)
{
    public static VerdictRecord Of(Verdict v) =>
        new(
            Words.Of(v.Outcome),
            [.. v.Parts.Select(PartVerdictRecord.Of)],
            [.. v.Reasons.Select(ReasonRecord.Of)],
            [.. v.Advice.Select(a => a.ToString())],
            [.. v.Advice.Select(MessageRecord.Of)],
            v.AlsoBetter.Count == 0 ? null : [.. v.AlsoBetter.Select(Words.Of)],
            v.Says is { } says ? MessageRecord.Of(says) : null,
            v.Pairs.Count == 0 ? null : [.. v.Pairs.Select(RunPairRecord.Of)],
            v.RepeatabilityKelvin,
            v.Remedies.Count == 0 ? null : [.. v.Remedies.Select(Words.Of)]
        );

    public Verdict ToVerdict() =>
        new(
            StoredWords.Read<VerdictOutcome>(Outcome),
            [.. Parts.Select(p => p.ToPart())],
            [.. Reasons.Select(r => r.ToReason())],
            AdviceMessages is { } messages ? [.. messages.Select(m => m.ToMessage())] : [.. Advice.Select(Message.Verbatim)]
        )
        {
            AlsoBetter = [.. (AlsoBetter ?? []).Select(StoredWords.Read<AlsoBetter>)],
            Says = Says?.ToMessage(),
            Pairs = [.. (Pairs ?? []).Select(p => p.ToPair())],
            RepeatabilityKelvin = RepeatabilityKelvin,
            Remedies = [.. (Remedies ?? []).Select(StoredWords.Read<Remedy>)],
        };
}

/// <summary>One part of a stored verdict.</summary>
internal sealed record PartVerdictRecord(
    string Part,
    string Outcome,
    double ChangeKelvin,
    double UncertaintyKelvin,
    double RawChangeCelsius,
    double? BeforeCelsius = null,
    double? AfterCelsius = null,
    IReadOnlyList<CorrectionRecord>? Corrections = null,
    double? LowKelvin = null,
    double? HighKelvin = null
)
{
    public static PartVerdictRecord Of(PartVerdict part)
    {
        var p = part.Rounded();
        return new(
            p.Part,
            Words.Of(p.Outcome),
            p.ChangeKelvin,
            p.UncertaintyKelvin,
            p.RawChangeCelsius,
            p.Read?.Before,
            p.Read?.After,
            p.Corrections.Count == 0 ? null : [.. p.Corrections.Select(c => new CorrectionRecord(Words.Of(c.What), c.Kelvin))],
            p.OverPairs?.Low,
            p.OverPairs?.High
        );
    }

    public PartVerdict ToPart() =>
        new(Part, StoredWords.Read<VerdictOutcome>(Outcome), ChangeKelvin, UncertaintyKelvin, RawChangeCelsius)
        {
            Read = BeforeCelsius is { } before && AfterCelsius is { } after ? new(before, after) : null,
            Corrections = [.. (Corrections ?? []).Select(c => new Correction(StoredWords.Read<CorrectionFor>(c.What), c.Kelvin))],
            OverPairs = LowKelvin is { } low && HighKelvin is { } high ? new(low, high) : null,
        };
}

/// <summary>A correction of a stored verdict.</summary>
internal sealed record CorrectionRecord(string What, double Kelvin);

/// <summary>A pair of runs of a stored verdict.</summary>
internal sealed record RunPairRecord(
    RunRecord Before,
    int BeforeRuns,
    RunRecord After,
    int AfterRuns,
    bool Alike,
    string Outcome,
    IReadOnlyList<PartVerdictRecord> Parts,
    IReadOnlyList<ReasonRecord> Reasons,
    IReadOnlyList<string>? AlsoBetter = null,
    NoiseChange? Noise = null,
    IReadOnlyList<PerformanceRecord>? Performance = null
)
{
    public static RunPairRecord Of(RunPair p) =>
        new(
            RunRecord.Of(p.Before),
            p.BeforeRuns,
            RunRecord.Of(p.After),
            p.AfterRuns,
            p.Alike,
            Words.Of(p.Outcome),
            [.. p.Parts.Select(PartVerdictRecord.Of)],
            [.. p.Reasons.Select(ReasonRecord.Of)],
            p.AlsoBetter.Count == 0 ? null : [.. p.AlsoBetter.Select(Words.Of)],
            p.Noise?.Rounded(),
            p.Performance.Count == 0
                ? null
                : [.. p.Performance.Select(f => new PerformanceRecord(Words.Of(f.What), f.Before, f.After, f.Unit))]
        );

    public RunPair ToPair() =>
        new(
            Before.ToRun(),
            BeforeRuns,
            After.ToRun(),
            AfterRuns,
            Alike,
            StoredWords.Read<VerdictOutcome>(Outcome),
            [.. Parts.Select(p => p.ToPart())],
            [.. Reasons.Select(r => r.ToReason())]
        )
        {
            AlsoBetter = [.. (AlsoBetter ?? []).Select(StoredWords.Read<AlsoBetter>)],
            Noise = Noise,
            Performance =
            [
                .. (Performance ?? []).Select(f => new PerformanceChange(
                    StoredWords.Read<PerformanceFigure>(f.What),
                    f.Before,
                    f.After,
                    f.Unit
                )),
            ],
        };
}

/// <summary>Clock or score of a stored pair.</summary>
internal sealed record PerformanceRecord(string What, double Before, double After, string? Unit);

/// <summary>A reason of a stored verdict.</summary>
internal sealed record ReasonRecord(string Code, string Message, MessageRecord? Says = null)
{
    public static ReasonRecord Of(VerdictReason r) => new(r.Code, r.Says.ToString(), MessageRecord.Of(r.Says));

    public VerdictReason ToReason() => new(Code, Says?.ToMessage() ?? Core.Messages.Message.Verbatim(Message));
}
