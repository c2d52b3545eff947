using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Proof;

/// <summary>One part before and after.</summary>
/// <param name="ChangeKelvin">Difference of rises over ambient at equal conditions; negative is cooler.</param>
/// <param name="UncertaintyKelvin">Expanded, k = 2.</param>
/// <param name="RawChangeCelsius">Difference of the temperatures as read.</param>
public sealed record PartVerdict(
    string Part,
    VerdictOutcome Outcome,
    double ChangeKelvin,
    double UncertaintyKelvin,
    double RawChangeCelsius
);

/// <summary>Why a comparison is limited, adjusted or not possible.</summary>
/// <param name="Code">Stable word for programs, such as <c>ambient-differs</c>.</param>
public sealed record VerdictReason(string Code, Message Says);

/// <summary>What is better besides the kelvins.</summary>
public enum AlsoBetter
{
    Quieter,
    Faster,
    NoLongerThrottling,
    NoLongerFailing,
}

/// <summary>What a service proved to have won, or not.</summary>
/// <param name="Advice">What to do next, most useful first.</param>
public sealed record Verdict(
    VerdictOutcome Outcome,
    IReadOnlyList<PartVerdict> Parts,
    IReadOnlyList<VerdictReason> Reasons,
    IReadOnlyList<Message> Advice
)
{
    /// <summary>What is better besides.</summary>
    public IReadOnlyList<AlsoBetter> AlsoBetter { get; init; } = [];

    /// <summary>Without a before-run nothing can be proven, whatever the after-run says.</summary>
    public static Verdict Unproven { get; } =
        new(
            VerdictOutcome.NotComparable,
            [],
            [new VerdictReason("before-missing", "There was no before-run, so nothing can be proven.")],
            ["The after-run stands as the machine's new starting point."]
        );
}
