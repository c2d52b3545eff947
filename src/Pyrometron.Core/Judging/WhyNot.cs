using Pyrometron.Core.Fleet;
using Pyrometron.Core.GroupEvents;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Judging;

/// <summary>What can make a machine warm, or make it seem so.</summary>
public enum Explaining
{
    Room,
    Settings,
    Sensor,
    GroupEvent,
    Dust,
    Fan,
    Paste,
    Pads,
    Mount,
    CoolerLimited,
}

/// <summary>What the evidence says of one explanation.</summary>
public enum Weighed
{
    /// <summary>It is there, and counts.</summary>
    Found,

    /// <summary>It is there, and was taken out: it is no wear.</summary>
    TakenOut,

    /// <summary>It is not there, or too little to matter.</summary>
    RuledOut,

    /// <summary>What was measured does not tell.</summary>
    NotTold,
}

/// <summary>One explanation, and what the evidence says of it.</summary>
/// <param name="Kelvin">What it adds on the part that it adds most to; null where that is not known.</param>
/// <param name="Evidence">By what that is known.</param>
public sealed record Alternative(Explaining What, Weighed Weighed, double? Kelvin, Message Evidence);

/// <summary>
/// Every explanation of what a machine shows, with what speaks for or against it: why this one and not another.
/// </summary>
internal static class WhyNot
{
    /// <summary>Less than this is within what is told of nothing, K.</summary>
    private const double LeastKelvin = 0.5;

    /// <summary>All of them, those that no service helps first; empty where too little was measured.</summary>
    public static IEnumerable<Alternative> Of(Assessment a)
    {
        if (a.Parts.Count == 0 || a.Findings is not { } findings)
            yield break;
        yield return Room(a, findings);
        yield return Settings(a, findings);
        yield return Sensor(a);
        yield return Group(a);
        foreach (
            var (what, cause) in ((Explaining, Cause)[])
                [
                    (Explaining.Dust, Cause.Dust),
                    (Explaining.Fan, Cause.Fan),
                    (Explaining.Paste, Cause.Paste),
                    (Explaining.Pads, Cause.Pads),
                    (Explaining.Mount, Cause.Mount),
                ]
        )
            if (Wear(a, what, cause) is { } wear)
                yield return wear;
        yield return Cooler(a);
    }

    private static Alternative Room(Assessment a, MachineFindings findings)
    {
        var zone = Value.Text("zone", a.Zone.Name);
        var kelvin = a.Outside.Room;
        if (!findings.RoomKnown)
            return new(
                Explaining.Room,
                Weighed.NotTold,
                null,
                Message.Of("Too few machines of {zone} report to tell its air from one machine.", zone)
            );
        return Math.Abs(kelvin) < LeastKelvin
            ? new(
                Explaining.Room,
                Weighed.RuledOut,
                0,
                Message.Of("The other machines of {zone} are no warmer than they were.", zone)
            )
            : new(
                Explaining.Room,
                Weighed.TakenOut,
                kelvin,
                Message.Of("All machines of {zone} have moved by it together, whatever their heat.", zone)
            );
    }

    private static Alternative Settings(Assessment a, MachineFindings findings)
    {
        var kelvin = a.Outside.Settings;
        if (Math.Abs(kelvin) >= LeastKelvin)
            return new(
                Explaining.Settings,
                Weighed.TakenOut,
                kelvin,
                a.Measured is { Power: true }
                    ? "Its power says so: more heat since its settings changed."
                    : "Every part stepped on the day its settings changed, by its share of the heat."
            );
        if (a.Measured is { Power: true })
            return new(Explaining.Settings, Weighed.RuledOut, 0, "Its power is measured, and all is compared at equal power.");
        return findings.SettingsChanged
            ? new(Explaining.Settings, Weighed.RuledOut, 0, "Its settings changed, and it grew no warmer by that.")
            : new(
                Explaining.Settings,
                Weighed.NotTold,
                null,
                "Its settings are written down as unchanged; more heat than before would look like wear, since power is not measured."
            );
    }

    private static Alternative Sensor(Assessment a) =>
        a.SensorFindings is [.., var last]
            ? new(
                Explaining.Sensor,
                Weighed.TakenOut,
                null,
                Message.Of(
                    "{channel} sensor: {what} (since {day}); left out.",
                    Value.PartFirst("channel", last.Channel),
                    Value.List("what", "", [last.What]),
                    Value.Day("day", UnixDay.DateOf(last.FromDay))
                )
            )
            : new(
                Explaining.Sensor,
                Weighed.RuledOut,
                0,
                "No sensor stood still, left the others from one day to the next, or changed by 20 K within a week."
            );

    private static Alternative Group(Assessment a) =>
        a.Events is [.., var e]
            ? new(Explaining.GroupEvent, Weighed.TakenOut, e.Kelvin, EventWords.OfMember(e))
            : new(
                Explaining.GroupEvent,
                Weighed.RuledOut,
                0,
                Message.Of("Nothing happened to all machines of its model on one day.")
            );

    /// <summary>One cause that service can remove; null where the machine has no such part.</summary>
    private static Alternative? Wear(Assessment a, Explaining what, Cause cause)
    {
        var parts = a.Parts.Where(p => cause is not (Cause.Paste or Cause.Pads) || p.Part.JointCause == cause).ToArray();
        if (parts.Length == 0)
            return null;
        var most = parts.MaxBy(p => p.Split.Of(cause))!;
        var kelvin = most.Split.Of(cause);
        var look = a.RuledOut.FirstOrDefault(l => l.Cause == cause);
        if (look is not null && Explanation.OfLook(look) is { } seen)
            return new(what, Weighed.RuledOut, kelvin, seen);
        if (cause == Cause.Fan && a.Measured is { Fan: false })
            return new(what, Weighed.NotTold, null, "Its fan is not measured: listen and look.");
        if (cause == Cause.Fan && kelvin == 0)
            return new(what, Weighed.RuledOut, 0, "Its fan turns as fast as it ever did for what it is told.");
        if (cause == Cause.Mount && kelvin == 0)
            return new(what, Weighed.RuledOut, 0, "No part stepped up on the day its cooler was lifted.");
        var sigma = most.SplitSigma?.Of(cause) ?? most.SigmaKelvin;
        MessageValue[] figures =
        [
            Value.Part("part", most.Part.Name),
            Value.Kelvin("kelvin", kelvin),
            Value.Kelvin("uncertainty", 2 * sigma),
            Value.Kelvin("worth", a.Policy.WorthKelvin),
        ];
        if (kelvin >= a.Policy.WorthKelvin)
            return new(what, Weighed.Found, kelvin, Message.Of("{kelvin} ± {uncertainty} on the {part}.", [.. figures.Take(3)]));
        return kelvin + 2 * sigma < a.Policy.WorthKelvin
            ? new(
                what,
                Weighed.RuledOut,
                kelvin,
                Message.Of(
                    "{kelvin} ± {uncertainty} on the {part}: surely less than the {worth} that are worth opening it.",
                    figures
                )
            )
            : new(
                what,
                Weighed.NotTold,
                kelvin,
                Message.Of(
                    "{kelvin} ± {uncertainty} on the {part}: whether it is more than the {worth} that are worth opening it is not certain.",
                    figures
                )
            );
    }

    private static Alternative Cooler(Assessment a)
    {
        var limiting = a.LimitingPart!;
        var fresh = limiting.MarginKelvin + limiting.WonAtFullFan(ServiceLevel.Repad);
        return a.Cause == Cause.CoolerLimited
            ? new(
                Explaining.CoolerLimited,
                Weighed.Found,
                null,
                Message.Of(
                    "Even fresh the {part} would stand {margin} on a hot day.",
                    Value.Part("part", limiting.Part.Name),
                    Value.List("margin", "", [Explanation.Margin(fresh)])
                )
            )
            : new(
                Explaining.CoolerLimited,
                fresh > 0 ? Weighed.RuledOut : Weighed.Found,
                null,
                Message.Of(
                    "Fresh, the {part} would stand {margin} on a hot day.",
                    Value.Part("part", limiting.Part.Name),
                    Value.List("margin", "", [Explanation.Margin(fresh)])
                )
            );
    }
}
