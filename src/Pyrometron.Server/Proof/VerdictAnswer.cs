using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Proof;

namespace Pyrometron.Server.Proof;

/// <summary>A verdict as the API speaks it.</summary>
/// <param name="AdviceMessages">The advice as templates and values.</param>
/// <param name="AlsoBetter">What is better besides the kelvins.</param>
/// <param name="Headline">The result in one sentence; null in verdicts filed before there was one.</param>
/// <param name="HeadlineMessage">The same as template and values.</param>
/// <param name="Pairs">The runs that were compared, pair by pair.</param>
/// <param name="RepeatabilityKelvin">Standard deviation from run to run at this bench, where repeats tell it.</param>
/// <param name="Remedies">What else would lower a temperature that is still too high.</param>
/// <param name="RemedyJobs">The same with the job that each is.</param>
/// <param name="Success">Cooler, or as cool and better in another way, and nothing worse.</param>
public sealed record VerdictAnswer(
    VerdictOutcome Outcome,
    IReadOnlyList<PartVerdict> Parts,
    IReadOnlyList<VerdictReasonAnswer> Reasons,
    IReadOnlyList<string> Advice,
    IReadOnlyList<Message> AdviceMessages,
    IReadOnlyList<AlsoBetter> AlsoBetter,
    string? Headline,
    Message? HeadlineMessage,
    IReadOnlyList<RunPairAnswer> Pairs,
    double? RepeatabilityKelvin,
    IReadOnlyList<Remedy> Remedies,
    bool Success,
    IReadOnlyList<RemedyAnswer> RemedyJobs
)
{
    internal static VerdictAnswer From(Verdict v) =>
        new(
            v.Outcome,
            [.. v.Parts.Select(p => p.Rounded())],
            [.. v.Reasons.Select(VerdictReasonAnswer.From)],
            [.. v.Advice.Select(a => a.ToString())],
            v.Advice,
            v.AlsoBetter,
            v.Says?.ToString(),
            v.Says,
            [.. v.Pairs.Select(RunPairAnswer.From)],
            v.RepeatabilityKelvin is { } k ? Math.Round(k, 2) : null,
            v.Remedies,
            v.IsSuccess,
            [.. v.Remedies.Select(r => new RemedyAnswer(r, r.Job()))]
        );
}

/// <summary>Something else that lowers a temperature.</summary>
/// <param name="Level">The job that it is; null for the room, which is no work on the machine.</param>
public sealed record RemedyAnswer(Remedy Remedy, ServiceLevel? Level);

/// <summary>Runs of one kind before and after.</summary>
/// <param name="Before">The run before; of repeated ones their mean. The same for after.</param>
/// <param name="BeforeRuns">How many there were. The same for after.</param>
/// <param name="Alike">Whether load, fan and settings are the same; else the calculation brings one to the other.</param>
public sealed record RunPairAnswer(
    RunAnswer Before,
    int BeforeRuns,
    RunAnswer After,
    int AfterRuns,
    bool Alike,
    VerdictOutcome Outcome,
    IReadOnlyList<PartVerdict> Parts,
    IReadOnlyList<VerdictReasonAnswer> Reasons,
    IReadOnlyList<AlsoBetter> AlsoBetter,
    NoiseChange? Noise,
    IReadOnlyList<PerformanceChange> Performance
)
{
    internal static RunPairAnswer From(RunPair p) =>
        new(
            RunAnswer.From(p.Before),
            p.BeforeRuns,
            RunAnswer.From(p.After),
            p.AfterRuns,
            p.Alike,
            p.Outcome,
            [.. p.Parts.Select(q => q.Rounded())],
            [.. p.Reasons.Select(VerdictReasonAnswer.From)],
            p.AlsoBetter,
            p.Noise?.Rounded(),
            p.Performance
        );
}

/// <summary>Why a comparison is limited, adjusted or not possible.</summary>
/// <param name="Code">Stable word for programs, such as <c>ambient-differs</c>.</param>
/// <param name="Message">In plain English.</param>
/// <param name="Says">The same as template and values.</param>
public sealed record VerdictReasonAnswer(string Code, string Message, Message Says)
{
    internal static VerdictReasonAnswer From(VerdictReason r) => new(r.Code, r.Says.ToString(), r.Says);
}
