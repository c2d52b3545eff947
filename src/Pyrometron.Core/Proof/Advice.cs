using System.Globalization;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;

namespace Pyrometron.Core.Proof;

/// <summary>What a verdict's pattern says to do next. Room, fan and settings are asked about before anything is opened again.</summary>
internal static class Advice
{
    /// <summary>Loaded temperatures above which a machine still counts as hot, °C (common practice, no source).</summary>
    private static double ComfortC(string part) =>
        part switch
        {
            "memory" => 90,
            "hotspot" => 100,
            _ => 85,
        };

    public static IEnumerable<string> For(
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
        double Change(string part) => parts.FirstOrDefault(p => p.Part == part)?.ChangeKelvin ?? 0;
        bool Is(string part, VerdictOutcome o) => parts.FirstOrDefault(p => p.Part == part)?.Outcome == o;
        var hot = after.Parts.Where(p => p.Celsius.Value >= ComfortC(p.Part)).Select(p => p.Part).ToArray();

        if (outcome == VerdictOutcome.Worse)
        {
            if (
                parts.Count > 1
                && parts.All(p => p.Outcome == VerdictOutcome.Worse)
                && parts.Max(p => p.ChangeKelvin) - parts.Min(p => p.ChangeKelvin) < 3
            )
                yield return "All parts are up alike: that is the room, the fan or its lead before it is the joint. Check the air at the intake, that every fan turns, and the settings.";
            else
                yield return "First ask about the room, the fan and the settings; open again only when they are equal.";
            if (
                service == ServiceLevel.Repad
                && (Is("core", VerdictOutcome.Worse) || Is("hotspot", VerdictOutcome.Worse))
                && Change("memory") <= 0
            )
                yield return "Core worse and memory no worse after a repad: the pads are too thick and lift the cooler off the chip, or it sits crooked. Check the thicknesses against the model's notes.";
            if (Change("hotspot") - Change("core") >= 3)
                yield return "The hot spot has moved away from the core: the cooler sits crooked or the paste does not cover. Mount it again with new paste.";
        }
        if (outcome == VerdictOutcome.NoChange)
        {
            yield return hot.Length > 0
                ? "No change beyond what two runs differ by, and still hot: the cooler itself is the limit. A stand, lower power, a cooler room or a better cooler would help; opening it again would not."
                : "No change beyond what two runs differ by. It did not need this, which is worth knowing for the next one of its model.";
            if (service is ServiceLevel.Repaste or ServiceLevel.Repad)
                yield return "Paste beds in over days: look again in a week before judging it for good.";
        }
        if (outcome == VerdictOutcome.Improved && hot.Length > 0)
            yield return $"Better, and still near its limit: {string.Join(", ", hot)}. Keep an eye on it.";
        if (reasons.Any(r => r.Code is "duration-differs" or "not-settled"))
            yield return "Give the next run of this machine the same length, 15 minutes at the least.";
        foreach (var gain in Performance(before, after))
            yield return gain;
    }

    private static IEnumerable<string> Performance(Run before, Run after)
    {
        foreach (
            var (what, b, a) in ((string, double?, double?)[])
                [("clock", before.ClockMhz, after.ClockMhz), ("score", before.Score, after.Score)]
        )
            if (b is > 0 && a is > 0 && Math.Abs(a.Value / b.Value - 1) >= 0.005)
                yield return string.Create(
                    CultureInfo.InvariantCulture,
                    $"The {what} went from {b:0.#} to {a:0.#}, {(a.Value / b.Value - 1) * 100:+0.0;−0.0} %."
                );
    }
}
