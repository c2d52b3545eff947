using Pyrometron.Core.Events;
using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Proof;

/// <summary>
/// Runs after work that had none before it: nothing is proven, but how far each part stays below its limit is seen, and whether
/// it ran through.
/// </summary>
public static class LimitCheck
{
    /// <summary>What the runs show.</summary>
    /// <param name="after">At least one.</param>
    public static Verdict Of(IReadOnlyList<Run> after, TestedMachine machine)
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
        return Verdict.Unproven with { Says = says };
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
