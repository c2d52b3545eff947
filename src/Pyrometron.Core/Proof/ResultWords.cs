using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Proof;

/// <summary>
/// The result of a verdict in one sentence: what a person came for decides first, then the kelvins, then the rest.
/// </summary>
internal static class ResultWords
{
    public static Message Of(SetResult result)
    {
        if (result.Outcome == VerdictOutcome.NotComparable)
            return result.Failed is { } broke
                ? Message.Of("It failed after {minutes} in the after-run: not cured.", Value.Minutes("minutes", broke))
                : "These runs cannot be compared, so nothing is proven.";
        if (result.Failed is not null || result.Throttled)
            return OfStillWrong(result);
        return result.Outcome switch
        {
            VerdictOutcome.Worse => Message.Of(
                "Warmer than before: {part} by {change}.",
                [.. Change(result.Parts.MaxBy(p => p.ChangeKelvin)!)]
            ),
            VerdictOutcome.Improved => OfImproved(result),
            _ => OfNoChange(result),
        };
    }

    /// <summary>The speed and noise of an automatic fan.</summary>
    public static Message Of(NoiseChange noise) =>
        Message.Of(
            noise.Decibel < 0
                ? "The fan runs {share} slower by itself: about {decibel} dB (± {uncertainty}) quieter by the fan law."
                : "The fan runs {share} faster by itself: about {decibel} dB (± {uncertainty}) louder by the fan law.",
            Value.Share("share", Math.Abs(noise.SpeedShare)),
            Value.Figure("decibel", Math.Abs(noise.Decibel)),
            Value.Figure("uncertainty", noise.UncertaintyDecibel)
        );

    /// <summary>Clock or score.</summary>
    public static Message Of(PerformanceChange figure) =>
        Message.Of(
            figure.What == PerformanceFigure.Clock ? "The clock went from {before} to {after} {unit}, {change}."
                : figure.Unit is null ? "The score went from {before} to {after}, {change}."
                : "The score went from {before} to {after} {unit}, {change}.",
            [
                Value.Figure("before", figure.Before),
                Value.Figure("after", figure.After),
                Value.SignedPercent("change", (figure.After / figure.Before - 1) * 100),
                .. figure.Unit is { } unit ? (MessageValue[])[Value.Text("unit", unit)] : [],
            ]
        );

    /// <summary>A remedy.</summary>
    public static Message Of(Remedy remedy) =>
        remedy switch
        {
            Remedy.Stand => "a stand",
            Remedy.AddOnFan => "an add-on fan",
            Remedy.Undervolt => "undervolting",
            Remedy.CoolerRoom => "a cooler room",
            _ => "a better cooler",
        };

    private static Message OfStillWrong(SetResult result)
    {
        // The parts of such a run are never called improved; what they read is told all the same.
        var cooler = result.Parts.Where(p => p.ChangeKelvin < -p.UncertaintyKelvin).MinBy(p => p.ChangeKelvin);
        return (result.Failed, cooler) switch
        {
            ({ } minutes, null) => Message.Of(
                "It failed after {minutes} in the after-run: not cured.",
                Value.Minutes("minutes", minutes)
            ),
            ({ } minutes, { } part) => Message.Of(
                "It failed after {minutes} in the after-run: not cured, though {part} is cooler by {change}.",
                [Value.Minutes("minutes", minutes), .. Change(part)]
            ),
            (_, null) => "It still throttles.",
            (_, { } part) => Message.Of("Cooler by {change} ({part}), but it still throttles.", [.. Change(part)]),
        };
    }

    private static Message OfImproved(SetResult result)
    {
        PartVerdict[] cooler =
        [
            .. result.Parts.Where(p => p.Outcome == VerdictOutcome.Improved).OrderByDescending(p => p.ChangeKelvin),
        ];
        var besides = Value.List("besides", "", Besides(result));
        if (cooler.Length == 1)
            return Message.Of("Cooler than before: {part} by {change}.{besides}", [.. Change(cooler[0]), besides]);
        var (least, most) = (cooler[0], cooler[^1]);
        return Message.Of(
            "Cooler than before: {first} by {most}, {last} by {least}, each ± {uncertainty}.{besides}",
            Value.Part("first", most.Part),
            Value.List("most", "", [Amount(most)]),
            Value.Part("last", least.Part),
            Value.List("least", "", [Amount(least)]),
            Value.Kelvin("uncertainty", cooler.Max(p => p.UncertaintyKelvin)),
            besides
        );
    }

    private static Message OfNoChange(SetResult result)
    {
        var besides = Besides(result);
        var widest = result.Parts.Max(p => p.UncertaintyKelvin);
        if (besides.Count > 0)
            return Message.Of(
                "As warm as before, within {uncertainty}.{besides}",
                Value.Kelvin("uncertainty", widest),
                Value.List("besides", "", besides)
            );
        return widest > Advice.TooUncertainKelvin
            ? Message.Of(
                "Too uncertain to tell: a change of less than {uncertainty} would not show.",
                Value.Kelvin("uncertainty", widest)
            )
            : Message.Of("No change: both runs agree within {uncertainty}.", Value.Kelvin("uncertainty", widest));
    }

    /// <summary>What is better besides, each a sentence with a space before it.</summary>
    private static IReadOnlyList<Message> Besides(SetResult result) =>
        [
            .. result.AlsoBetter.Select(b =>
                b switch
                {
                    AlsoBetter.Quieter => (Message)" Its fan runs slower by itself.",
                    AlsoBetter.Faster => " It is faster.",
                    AlsoBetter.NoLongerThrottling => " It does not throttle any more.",
                    _ => " It ran through where it failed before.",
                }
            ),
        ];

    /// <summary>A change as an amount with its uncertainty.</summary>
    private static IEnumerable<MessageValue> Change(PartVerdict part)
    {
        yield return Value.Part("part", part.Part);
        yield return Value.List(
            "change",
            "",
            [
                Message.Of(
                    part.OverPairs is null ? "{amount} ± {uncertainty}" : "{amount} (mean ± {uncertainty})",
                    Value.List("amount", "", [Amount(part)]),
                    Value.Kelvin("uncertainty", part.UncertaintyKelvin)
                ),
            ]
        );
    }

    /// <summary>An amount, or its range over several pairs that agree in its sign.</summary>
    private static Message Amount(PartVerdict part) =>
        part.OverPairs is { } range && Math.Sign(range.Low) == Math.Sign(range.High)
            ? Message.Of(
                "{least} to {most}",
                Value.Kelvin("least", Math.Min(Math.Abs(range.Low), Math.Abs(range.High))),
                Value.Kelvin("most", Math.Max(Math.Abs(range.Low), Math.Abs(range.High)))
            )
            : Message.Of("{amount}", Value.Kelvin("amount", Math.Abs(part.ChangeKelvin)));
}
