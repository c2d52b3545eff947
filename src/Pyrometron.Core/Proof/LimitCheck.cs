using Pyrometron.Core.Events;
using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Proof;

/// <summary>
/// Runs after work that had none before it: nothing is proven, but how far each part stays below its limit is seen, whether it
/// ran through, and how it stands among the other machines of its model.
/// </summary>
public static class LimitCheck
{
    /// <summary>Fewer siblings than this tell nothing of what is usual.</summary>
    private const int LeastSiblings = 3;

    /// <summary>
    /// So far above all its siblings a part is not one of them, K: what two runs differ by. Common practice, no source.
    /// </summary>
    private const double BeyondKelvin = 3;

    /// <summary>What the runs show.</summary>
    /// <param name="after">At least one.</param>
    /// <param name="siblings">Newest runs of other machines of its model.</param>
    public static Verdict Of(IReadOnlyList<Run> after, TestedMachine machine, IReadOnlyList<Run>? siblings = null)
    {
        Message says =
            after.Min(r => r.FailedAfterMinutes) is { } failed
                ? Message.Of("It failed after {minutes}. There was no run before the work.", Value.Minutes("minutes", failed))
            : after.Any(r => r.Throttled) ? "It throttles. There was no run before the work."
            : Least(after, machine) is var (part, margin)
                ? margin < 0
                        ? Message.Of(
                            "{part} is {margin} over its limit. There was no run before the work, so what changed is not proven.",
                            Value.PartFirst("part", part),
                            Value.Kelvin("margin", -margin)
                        )
                    : Message.Of(
                        "All parts stay {margin} or more below their limits ({part} least). There was no run before the work, so what changed is not proven.",
                        Value.Kelvin("margin", margin),
                        Value.Part("part", part)
                    )
            : "There was no run before the work, so nothing is proven.";
        return Verdict.Unproven with
        {
            Says = says,
            Advice = [.. AmongSiblings(after, siblings ?? []), .. Verdict.Unproven.Advice],
        };
    }

    /// <summary>Each part's rise beside those of its siblings under the same load, fan and settings.</summary>
    private static IEnumerable<Message> AmongSiblings(IReadOnlyList<Run> after, IReadOnlyList<Run> siblings)
    {
        var told = false;
        foreach (var run in after.Where(r => r.Ambient is not null))
        {
            var alike = siblings.Where(s => s.Ambient is not null && RunKind.Of(s).Equals(RunKind.Of(run))).ToArray();
            foreach (var part in run.Parts)
            {
                var rises = alike
                    .SelectMany(s =>
                        s.Parts.Where(p => p.Part == part.Part).Select(p => p.Celsius.Value - s.Ambient!.Value.Value)
                    )
                    .ToArray();
                if (rises.Length < LeastSiblings)
                    continue;
                told = true;
                var rise = part.Celsius.Value - run.Ambient!.Value.Value;
                yield return Message.Of(
                    rise > rises.Max() + BeyondKelvin
                        ? "{part} rises {rise} over the air; {count} others of its model under the same load {low} to {high}. That is more than any of them: look again."
                        : "{part} rises {rise} over the air; {count} others of its model under the same load {low} to {high}.",
                    Value.PartFirst("part", part.Part),
                    Value.Kelvin("rise", rise),
                    Value.Count("count", rises.Length),
                    Value.Kelvin("low", rises.Min()),
                    Value.Kelvin("high", rises.Max())
                );
            }
        }
        if (!told)
            yield return Message.Of(
                "Fewer than {least} other machines of its model were run under this load, so it cannot be held against them.",
                Value.Count("least", LeastSiblings)
            );
    }

    private static (string Part, double Margin)? Least(IReadOnlyList<Run> after, TestedMachine machine)
    {
        var margins = after
            .SelectMany(r => r.Parts)
            .Where(p => machine.Limits.ContainsKey(p.Part))
            .Select(p => (p.Part, Margin: machine.Limits[p.Part] - p.Celsius.Value))
            .ToArray();
        return margins.Length == 0 ? null : margins.MinBy(m => m.Margin);
    }
}
