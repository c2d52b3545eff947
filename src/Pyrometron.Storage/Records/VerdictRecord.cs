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
    IReadOnlyList<string>? AlsoBetter = null
)
{
    public static VerdictRecord Of(Verdict v) =>
        new(
            Words.Of(v.Outcome),
            [
                .. v.Parts.Select(p => new PartVerdictRecord(
                    p.Part,
                    Words.Of(p.Outcome),
                    Math.Round(p.ChangeKelvin, 2),
                    Math.Round(p.UncertaintyKelvin, 2),
                    Math.Round(p.RawChangeCelsius, 2)
                )),
            ],
            [.. v.Reasons.Select(r => new ReasonRecord(r.Code, r.Says.ToString(), MessageRecord.Of(r.Says)))],
            [.. v.Advice.Select(a => a.ToString())],
            [.. v.Advice.Select(MessageRecord.Of)],
            v.AlsoBetter.Count == 0 ? null : [.. v.AlsoBetter.Select(Words.Of)]
        );

    public Verdict ToVerdict() =>
        new(
            StoredWords.Read<VerdictOutcome>(Outcome),
            [
                .. Parts.Select(p => new PartVerdict(
                    p.Part,
                    StoredWords.Read<VerdictOutcome>(p.Outcome),
                    p.ChangeKelvin,
                    p.UncertaintyKelvin,
                    p.RawChangeCelsius
                )),
            ],
            [.. Reasons.Select(r => new VerdictReason(r.Code, r.Says?.ToMessage() ?? r.Message))],
            AdviceMessages is { } messages ? [.. messages.Select(m => m.ToMessage())] : [.. Advice.Select(a => (Message)a)]
        )
        {
            AlsoBetter = [.. (AlsoBetter ?? []).Select(StoredWords.Read<AlsoBetter>)],
        };
}

/// <summary>One part of a stored verdict.</summary>
internal sealed record PartVerdictRecord(
    string Part,
    string Outcome,
    double ChangeKelvin,
    double UncertaintyKelvin,
    double RawChangeCelsius
);

/// <summary>A reason of a stored verdict.</summary>
internal sealed record ReasonRecord(string Code, string Message, MessageRecord? Says = null);
