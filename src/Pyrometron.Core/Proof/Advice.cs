using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Proof;

/// <summary>
/// What a verdict's pattern says to do next; it fits what was done. Room, fan and settings are asked about before anything is
/// opened again.
/// </summary>
internal static class Advice
{
    /// <summary>
    /// Hot spot and core that move apart by this much, and parts that move alike within it, K. Common practice, no source.
    /// </summary>
    private const double ApartKelvin = 3;

    /// <summary>
    /// A comparison less certain than this (k = 2) cannot tell that a service was not needed, K. Common practice, no source.
    /// </summary>
    public const double TooUncertainKelvin = 4;

    /// <summary>So near to its limit a part is still hot, K. Common practice, no source.</summary>
    private const double NearLimitKelvin = 10;

    public static IEnumerable<Message> For(SetResult result)
    {
        if (result.Failed is not null || result.Throttled)
            yield return "What it came for is not gone: look for another cause before it goes back.";
        else if (result.Pairs.Where(NotLongEnough).Max(p => p.Before.FailedAfterMinutes) is { } failed)
            yield return Message.Of(
                "It failed after {failed} before: it counts as cured once it has run {needed}.",
                Value.Minutes("failed", failed),
                Value.Minutes("needed", Symptom.TimesToFailure * failed)
            );
        foreach (var sentence in result.Missing)
            yield return sentence;
        if (result.Outcome == VerdictOutcome.NotComparable)
        {
            yield return "Nothing can be said of this pair. Repeat the after-run with the load, settings, fan and time of the before-run.";
            yield break;
        }
        var says = result.Outcome switch
        {
            VerdictOutcome.Worse => OfWorse(result),
            VerdictOutcome.NoChange => OfNoChange(result),
            _ => OfImproved(result),
        };
        foreach (var sentence in says.Concat(OfHotSpot(result)))
            yield return sentence;
        if (result.Pairs.SelectMany(p => p.Reasons).Any(r => r.Code is "duration-differs" or "not-settled"))
            yield return "Give the next run of this machine the same length, 15 minutes at the least.";
        foreach (var figure in result.Pairs.SelectMany(p => p.Performance).Distinct())
            yield return ResultWords.Of(figure);
        foreach (var noise in result.Pairs.Select(p => p.Noise).OfType<NoiseChange>().Distinct())
            yield return ResultWords.Of(noise);
    }

    private static bool NotLongEnough(RunPair pair) =>
        pair.Before.FailedAfterMinutes is { } failed && pair.After.Minutes < Symptom.TimesToFailure * failed;

    /// <summary>
    /// What else lowers a temperature; empty where nothing is too hot after work that could not lower it enough.
    /// </summary>
    public static IReadOnlyList<Remedy> Remedies(SetResult result) =>
        result.Outcome is VerdictOutcome.NotComparable || result.Service == ServiceLevel.Inspect || !Hot(result).Any()
            ? []
            : [.. UsualRemedies(result.Machine.Kind).Where(r => r.Job() != result.Service)];

    private static Remedy[] UsualRemedies(AssetKind? kind) =>
        kind switch
        {
            AssetKind.Laptop => [Remedy.Stand, Remedy.Undervolt, Remedy.CoolerRoom],
            AssetKind.Server => [Remedy.CoolerRoom, Remedy.Undervolt, Remedy.BetterCooler],
            null => [Remedy.Stand, Remedy.AddOnFan, Remedy.Undervolt, Remedy.CoolerRoom, Remedy.BetterCooler],
            _ => [Remedy.AddOnFan, Remedy.Undervolt, Remedy.CoolerRoom, Remedy.BetterCooler],
        };

    /// <summary>Parts still near their limits after the work; where no limit is known, above figures of the trade.</summary>
    private static IEnumerable<Message> Hot(SetResult result) =>
        result
            .Hottest.Select(p =>
                result.Machine.Limits.TryGetValue(p.Part, out var limit)
                    ? p.Celsius > limit - NearLimitKelvin
                        ? Message.Of(
                            "{part} {celsius} of {limit}",
                            Value.Part("part", p.Part),
                            Value.WholeCelsius("celsius", p.Celsius),
                            Value.WholeCelsius("limit", limit)
                        )
                        : null
                    : p.Celsius >= ComfortC(p.Part)
                        ? Message.Of("{part} {celsius}", Value.Part("part", p.Part), Value.WholeCelsius("celsius", p.Celsius))
                        : null
            )
            .OfType<Message>();

    /// <summary>Loaded temperatures above which a machine still counts as hot, °C (common practice, no source).</summary>
    private static double ComfortC(string part) =>
        part switch
        {
            "memory" => 90,
            "hotspot" => 100,
            _ => 85,
        };

    private static MessageValue HotParts(SetResult result) => Value.List("parts", ", ", [.. Hot(result)]);

    private static MessageValue WhatElse(SetResult result) =>
        Value.List("remedies", ", ", [.. Remedies(result).Select(ResultWords.Of)]);

    private static IEnumerable<Message> OfImproved(SetResult result)
    {
        if (Hot(result).Any())
            yield return Message.Of(
                "Cooler than before, and still hot: {parts}. What else helps: {remedies}.",
                HotParts(result),
                WhatElse(result)
            );
        if (
            ServiceEffects.LiftsCooler(result.Service)
            && result.Service != ServiceLevel.CoolerSwap
            && result.Parts.Count > 1
            && result.Parts.All(p => p.Outcome == VerdictOutcome.Improved)
            && result.Parts.Max(p => p.ChangeKelvin) - result.Parts.Min(p => p.ChangeKelvin) < ApartKelvin
        )
            yield return "All parts are cooler alike: most of that is the dust that came out on the way, not the new paste.";
    }

    private static IEnumerable<Message> OfWorse(SetResult result)
    {
        double Change(string part) => result[part]?.ChangeKelvin ?? 0;
        bool IsWorse(string part) => result[part]?.Outcome == VerdictOutcome.Worse;
        var alike =
            result.Parts.Count > 1
            && result.Parts.All(p => p.Outcome == VerdictOutcome.Worse)
            && result.Parts.Max(p => p.ChangeKelvin) - result.Parts.Min(p => p.ChangeKelvin) < ApartKelvin;
        if (result.Service == ServiceLevel.Filter)
        {
            yield return "A filter takes some of the air away: that is what it costs, for less dust. Wash it, or leave it out where the machine stands near its limit.";
            yield break;
        }
        yield return alike
            ? "All parts are up alike: that is the room, the fan or its lead before it is the joint. Check the air at the intake, that every fan turns, and the settings."
        : !ServiceEffects.Opens(result.Service)
            ? "Nothing was opened, so look at the room, the fan and the settings; measure again when they are equal."
        : "First ask about the room, the fan and the settings; open again only when they are equal.";
        if (ServiceEffects.RenewsPads(result.Service) && (IsWorse("core") || IsWorse("hotspot")) && Change("memory") <= 0)
            yield return "Core worse and memory no worse after a repad: the pads are too thick and lift the cooler off the chip, or it sits crooked. Check the thicknesses against the model's notes.";
    }

    /// <summary>A hot spot that moved away from the core is told whatever the core itself did.</summary>
    private static IEnumerable<Message> OfHotSpot(SetResult result)
    {
        if (
            result["hotspot"] is not { } spot
            || result["core"] is not { } core
            || spot.ChangeKelvin - core.ChangeKelvin < ApartKelvin
        )
            yield break;
        MessageValue[] gaps =
            spot.Read is { } s && core.Read is { } c
                ? [Value.Kelvin("before", s.Before - c.Before), Value.Kelvin("after", s.After - c.After)]
                : [Value.Kelvin("more", spot.ChangeKelvin - core.ChangeKelvin)];
        yield return (ServiceEffects.LiftsCooler(result.Service), gaps.Length > 1) switch
        {
            (true, true) => Message.Of(
                "The hot spot stood {before} above the core before and {after} after: the cooler sits crooked or the paste does not cover. Mount it again with new paste.",
                gaps
            ),
            (true, false) => Message.Of(
                "The hot spot has moved {more} away from the core: the cooler sits crooked or the paste does not cover. Mount it again with new paste.",
                gaps
            ),
            (false, true) => Message.Of(
                "The hot spot stood {before} above the core before and {after} after, though the joint was not touched: the paste is next.",
                gaps
            ),
            _ => Message.Of(
                "The hot spot has moved {more} away from the core, though the joint was not touched: the paste is next.",
                gaps
            ),
        };
    }

    private static bool IsChange(SetResult result) => ServiceEffects.Changes(result.Service) != CoolingChange.None;

    private static IEnumerable<Message> OfNoChange(SetResult result)
    {
        var better = result.AlsoBetter.Any();
        var wrong = result.Failed is not null || result.Throttled;
        var uncertain = result.Parts.Max(p => p.UncertaintyKelvin) > TooUncertainKelvin;
        if (result.Pairs.Any(p => RunSettling.ProvesNothing(p.Before) || RunSettling.ProvesNothing(p.After)))
            yield return "Too short to tell anything. Measure again until it has settled.";
        else if (Hot(result).Any())
            yield return result.Service switch
            {
                ServiceLevel.Inspect => Message.Of(
                    "No change, as nothing was done but looking, and it is hot: {parts}.",
                    HotParts(result)
                ),
                ServiceLevel.BlowOut => Message.Of(
                    "No change beyond what two runs differ by, and still hot: {parts}. Air from outside did not reach what holds the heat; what is left is inside.",
                    HotParts(result)
                ),
                ServiceLevel.DustOut or ServiceLevel.FanSwap => Message.Of(
                    "No change beyond what two runs differ by, and still hot: {parts}. It was not the air side: the paste is next where it is old; else the cooler itself is the limit, and what helps is {remedies}.",
                    HotParts(result),
                    WhatElse(result)
                ),
                _ when IsChange(result) => Message.Of(
                    "No change beyond what two runs differ by, and still hot: {parts}. What else helps: {remedies}.",
                    HotParts(result),
                    WhatElse(result)
                ),
                _ => Message.Of(
                    "No change beyond what two runs differ by, and still hot: {parts}; the cooler itself is the limit. What would help: {remedies}; opening it again would not.",
                    HotParts(result),
                    WhatElse(result)
                ),
            };
        else if (uncertain)
            yield return "No change beyond what two runs differ by; these two are too uncertain to tell a small one. Measure the air and settle both runs.";
        else if (!result.WasWrong && !wrong && !better && result.Missing.Count == 0 && ServiceEffects.Opens(result.Service))
            yield return IsChange(result)
                ? "No change beyond what two runs differ by. It changed nothing here, which is worth knowing for the next one of its model."
                : "No change beyond what two runs differ by. It did not need this, which is worth knowing for the next one of its model.";
        if (ServiceEffects.LiftsCooler(result.Service))
            yield return "Paste beds in over days: look again in a week before judging it for good.";
    }
}
