using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Proof;

/// <summary>
/// What a verdict's pattern says to do next. Room, fan and settings are asked about before anything is opened again.
/// </summary>
internal static class Advice
{
    /// <summary>A clock or score that moves by less is chance, share. Common practice, no source.</summary>
    public const double NotableGain = 0.005;

    /// <summary>
    /// Hot spot and core that move apart by this much, and parts that move alike within it, K. Common practice, no source.
    /// </summary>
    private const double ApartKelvin = 3;

    /// <summary>
    /// A comparison less certain than this (k = 2) cannot tell that a service was not needed, K. Common practice, no source.
    /// </summary>
    private const double TooUncertainKelvin = 4;

    /// <summary>Loaded temperatures above which a machine still counts as hot, °C (common practice, no source).</summary>
    private static double ComfortC(string part) =>
        part switch
        {
            "memory" => 90,
            "hotspot" => 100,
            _ => 85,
        };

    public static IEnumerable<Message> For(
        ServiceLevel service,
        Run before,
        Run after,
        VerdictOutcome outcome,
        IReadOnlyList<PartVerdict> parts,
        IReadOnlyList<VerdictReason> reasons
    )
    {
        if (outcome == VerdictOutcome.NotComparable)
        {
            yield return "Nothing can be said of this pair. Repeat the after-run with the load, settings, fan and time of the before-run.";
            yield break;
        }
        var hot = after.Parts.Where(p => p.Celsius.Value >= ComfortC(p.Part)).Select(p => p.Part).ToArray();
        var wrong = after.Throttled || after.FailedAfterMinutes is not null;
        if (wrong)
            yield return "What it came for is not gone: look for another cause before it goes back.";
        var says = outcome switch
        {
            VerdictOutcome.Worse => OfWorse(service, parts),
            VerdictOutcome.NoChange => OfNoChange(service, parts, hot, wrong),
            _ => hot.Length == 0
                ? []
                :
                [
                    Message.Of(
                        "Better, and still hot: {parts}. Keep an eye on it.",
                        Value.List("parts", ", ", [.. hot.Select(p => Message.Of("{part}", Value.Part("part", p)))])
                    ),
                ],
        };
        foreach (var sentence in says)
            yield return sentence;
        if (reasons.Any(r => r.Code is "duration-differs" or "not-settled"))
            yield return "Give the next run of this machine the same length, 15 minutes at the least.";
        foreach (var gain in Performance(before, after))
            yield return gain;
    }

    private static IEnumerable<Message> OfWorse(ServiceLevel service, IReadOnlyList<PartVerdict> parts)
    {
        double Change(string part) => parts.FirstOrDefault(p => p.Part == part)?.ChangeKelvin ?? 0;
        bool IsWorse(string part) => parts.FirstOrDefault(p => p.Part == part)?.Outcome == VerdictOutcome.Worse;
        var alike = parts.Max(p => p.ChangeKelvin) - parts.Min(p => p.ChangeKelvin) < ApartKelvin;
        yield return parts.Count > 1 && parts.All(p => p.Outcome == VerdictOutcome.Worse) && alike
            ? "All parts are up alike: that is the room, the fan or its lead before it is the joint. Check the air at the intake, that every fan turns, and the settings."
            : "First ask about the room, the fan and the settings; open again only when they are equal.";
        if (service == ServiceLevel.Repad && (IsWorse("core") || IsWorse("hotspot")) && Change("memory") <= 0)
            yield return "Core worse and memory no worse after a repad: the pads are too thick and lift the cooler off the chip, or it sits crooked. Check the thicknesses against the model's notes.";
        if (ServiceEffects.LiftsCooler(service) && Change("hotspot") - Change("core") >= ApartKelvin)
            yield return "The hot spot has moved away from the core: the cooler sits crooked or the paste does not cover. Mount it again with new paste.";
    }

    private static IEnumerable<Message> OfNoChange(
        ServiceLevel service,
        IReadOnlyList<PartVerdict> parts,
        string[] hot,
        bool wrong
    )
    {
        if (hot.Length > 0)
            yield return "No change beyond what two runs differ by, and still hot: the cooler itself is the limit. A stand, lower power, a cooler room or a better cooler would help; opening it again would not.";
        else if (parts.Max(p => p.UncertaintyKelvin) > TooUncertainKelvin)
            yield return "No change beyond what two runs differ by; these two are too uncertain to tell a small one. Measure the air and settle both runs.";
        else if (!wrong)
            yield return "No change beyond what two runs differ by. It did not need this, which is worth knowing for the next one of its model.";
        if (ServiceEffects.LiftsCooler(service))
            yield return "Paste beds in over days: look again in a week before judging it for good.";
    }

    private static IEnumerable<Message> Performance(Run before, Run after)
    {
        foreach (
            var (template, b, a) in ((string, double?, double?)[])
                [
                    ("The clock went from {before} to {after}, {change}.", before.ClockMhz, after.ClockMhz),
                    ("The score went from {before} to {after}, {change}.", before.Score, after.Score),
                ]
        )
            if (b is > 0 && a is > 0 && Math.Abs(a.Value / b.Value - 1) >= NotableGain)
                yield return Message.Of(
                    template,
                    Value.Figure("before", b.Value),
                    Value.Figure("after", a.Value),
                    Value.SignedPercent("change", (a.Value / b.Value - 1) * 100)
                );
    }
}
