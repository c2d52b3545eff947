using Pyrometron.Core.Assessments;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Forecast;
using Pyrometron.Core.GroupEvents;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Units;
using Pyrometron.Core.Worth;

namespace Pyrometron.Core.Judging;

/// <summary>The longer explanation of a complete judgement: one sentence a fact.</summary>
internal static class Explanation
{
    /// <summary>Less unexplained than this is within what two runs differ by, K.</summary>
    private const double NotableUnexplained = 1.5;

    /// <summary>All sentences.</summary>
    public static IEnumerable<Message> Of(Assessment a) =>
        Compared(a).Concat(a.Parts.SelectMany(p => OfPart(a, p))).Concat(OfTime(a)).Concat(OfWork(a)).Concat(OfSurroundings(a));

    /// <summary>Where a margin stands against the action line.</summary>
    public static Message Margin(double kelvin) =>
        kelvin >= 0
            ? Message.Of("{kelvin} below its action line", Value.Kelvin("kelvin", kelvin))
            : Message.Of("{kelvin} past its action line", Value.Kelvin("kelvin", -kelvin));

    /// <summary>A cause with its kelvins.</summary>
    public static Message OfCause(Cause cause, double kelvin) =>
        Message.Of("{cause} {kelvin}", Value.Word("cause", cause), Value.Kelvin("kelvin", kelvin));

    private static IEnumerable<Message> Compared(Assessment a)
    {
        if (a.Reference is { } reference && a.Parts.Count > 0)
            yield return reference.HasPower
                ? Message.Of(
                    "Compared at {power}, 25 °C intake and its usual fan speed.",
                    Value.Watt("power", Math.Round(reference.PowerW))
                )
                : Message.Of("Compared at equal workload, 25 °C intake and its usual fan speed; power is not measured.");
        if (a is { MeasuredRun: { } run, Parts.Count: > 0 })
            yield return Message.Of(
                "Measured last at the bench on {day}: {minutes} of {load}.",
                Value.Day("day", DateOnly.FromDateTime(run.At.UtcDateTime)),
                Value.Minutes("minutes", run.Run.Minutes),
                Value.Text("load", run.Run.Workload)
            );
        if (a is { Unmeasured: { } service, Parts.Count: > 0 })
            yield return Message.Of(
                ServiceEffects.Changes(service.Level) == CoolingChange.None
                    ? "Nothing was measured since its {level} of {day}: it is credited with what such a job usually wins."
                    : "Nothing was measured since its {level} of {day}: what that changed is not known yet.",
                Value.Word("level", service.Level),
                Value.Day("day", service.Date)
            );
    }

    private static IEnumerable<Message> OfPart(Assessment a, PartAssessment p)
    {
        var part = Value.PartFirst("part", p.Part.Name);
        var causes = p.Split.Ranked().Where(c => c.Kelvin >= 0.3).Select(c => OfCause(c.Cause, c.Kelvin)).ToArray();
        MessageValue[] figures =
        [
            part,
            Value.Kelvin("kelvin", p.Split.Total),
            Value.Kelvin("uncertainty", 2 * p.SigmaKelvin),
            Value.Celsius("intake", a.Zone.DesignAmbient.Value),
            Value.WholeCelsius("hottest", p.HottestC),
            Value.List("margin", "", [Margin(p.MarginKelvin)]),
        ];
        yield return causes.Length > 0
            ? Message.Of(
                "{part}: {kelvin} over fresh (± {uncertainty}): {causes}. At {intake} intake and full fan it would read {hottest}, {margin}.",
                [.. figures, Value.List("causes", ", ", causes)]
            )
            : Message.Of(
                "{part}: {kelvin} over fresh (± {uncertainty}). At {intake} intake and full fan it would read {hottest}, {margin}.",
                figures
            );
        if (Math.Abs(p.UnexplainedKelvin) >= NotableUnexplained)
            yield return Message.Of(
                p.UnexplainedKelvin > 0
                    ? "{part} reads {kelvin} more at present than all this explains."
                    : "{part} reads {kelvin} less at present than all this explains.",
                part,
                Value.Kelvin("kelvin", Math.Abs(p.UnexplainedKelvin))
            );
        if (p.Trend is { IsRising: true } trend)
            yield return Message.Of(
                "{part} rises by {pace} (80 %: {low} to {high}).",
                part,
                Value.KelvinPerMonth("pace", trend.KelvinPerDay),
                Value.KelvinPerMonth("low", trend.Low),
                Value.KelvinPerMonth("high", trend.High)
            );
        else if (p.PaceKelvinPerDay > 0)
            yield return Message.Of(
                "{part} gathers {pace} by its fitted curve; its points alone do not show it for certain yet.",
                part,
                Value.KelvinPerMonth("pace", p.PaceKelvinPerDay)
            );
        else if (p.Trend is { } level)
            yield return Message.Of("{part} shows no trend since {day}.", part, Value.Day("day", UnixDay.DateOf(level.FromDay)));
    }

    /// <summary>What time will do: ageing, and the end of what an automatic fan can hide.</summary>
    private static IEnumerable<Message> OfTime(Assessment a)
    {
        if (a.WorstPart is { } hottest && hottest.Split.Total >= 3 && !double.IsNaN(hottest.LatestC))
        {
            var now = new Celsius(hottest.LatestC);
            yield return Message.Of(
                "At this temperature the {part} ages {factor} times as fast as fresh (Arrhenius, {energy} eV).",
                Value.Part("part", hottest.Part.Name),
                Value.Figure("factor", Ageing.Acceleration(now - new KelvinDifference(hottest.Split.Total), now), "0.0"),
                Value.Figure("energy", Ageing.ActivationEnergyEv)
            );
        }
        if (a is { DriftKelvin: >= 1, FanEnd: { Day: { } end } fan })
            yield return fan.ReserveKelvin <= 0
                ? Message.Of("Its automatic fan is at full speed: it hides nothing any more, and every kelvin of wear shows.")
                : Message.Of(
                    "Its automatic fan holds the temperature at {percent} and can hide {reserve} more; at this pace it is at full speed around {day}, and then everything rises at once.",
                    Value.Percent("percent", fan.PercentNow),
                    Value.Kelvin("reserve", fan.ReserveKelvin),
                    Value.Day("day", end)
                );
    }

    /// <summary>What the advised work has won before, is worth, and may not do.</summary>
    private static IEnumerable<Message> OfWork(Assessment a)
    {
        if (a.Service is { } advised && a.Policy.Proven.Of(a.Asset, advised) is { Jobs: >= 2 } proven)
            yield return Message.Of(
                "{jobs} proven jobs of this model: the {level} is expected to win {share} of what the split says.",
                Value.Count("jobs", proven.Jobs),
                Value.Word("level", advised),
                Value.Share("share", proven.Share)
            );
        if (a.Advised is { Kelvin: >= 1 } worth)
            yield return OfWorth(worth, a);
        if (a.Warranty is { } warranty)
            yield return warranty.Says;
    }

    private static IEnumerable<Message> OfSurroundings(Assessment a)
    {
        if (a.Asset.NewBaseline is { } change)
            yield return Message.Of(
                "Its {level} of {day} made its cooling another one: what was measured before does not count.",
                Value.Word("level", change.Level),
                Value.Day("day", change.Date)
            );
        if (Math.Abs(a.Outside.Room) >= 1)
            yield return Message.Of(
                a.Outside.Room > 0
                    ? "{zone} as a whole runs {kelvin} warmer than its intake sensors say; that is taken out."
                    : "{zone} as a whole runs {kelvin} cooler than its intake sensors say; that is taken out.",
                Value.Text("zone", a.Zone.Name),
                Value.Kelvin("kelvin", Math.Abs(a.Outside.Room))
            );
        if (Math.Abs(a.Outside.Settings) >= 1)
            yield return Message.Of(
                "Present settings add {kelvin} against the earlier ones; that is no wear.",
                Value.Kelvin("kelvin", a.Outside.Settings)
            );
        foreach (var e in a.Events)
            yield return EventWords.OfMember(e);
        foreach (var f in a.SensorFindings)
            yield return Message.Of(
                "{channel} sensor: {what} (since {day}); left out.",
                Value.PartFirst("channel", f.Channel),
                Value.List("what", "", [f.What]),
                Value.Day("day", UnixDay.DateOf(f.FromDay))
            );
        if (a.Siblings is { StandsOut: true } siblings)
            yield return Reasons.AmongSiblings(siblings);
        foreach (var look in a.RuledOut)
            if (OfLook(look) is { } seen)
                yield return seen;
    }

    /// <summary>A look that rules a cause out.</summary>
    public static Message? OfLook(Look look)
    {
        var day = Value.Day("day", DateOnly.FromDateTime(look.At.UtcDateTime));
        return (look.Cause, look.Opened) switch
        {
            (Cause.Dust, true) => Message.Of("Its fins were seen clean on {day}, the machine open: it is not the dust.", day),
            (Cause.Dust, false) => Message.Of("Hardly any dust was seen on {day}: it is likely not the dust.", day),
            (Cause.Fan, _) => Message.Of("Its fans turned freely on {day}: it is not a fan that drags.", day),
            (Cause.Paste, _) => Message.Of("Its paste was seen soft and even on {day}: it is not the paste.", day),
            (Cause.Pads, _) => Message.Of("Its pads were seen elastic and whole on {day}: it is not the pads.", day),
            (Cause.Mount, _) => Message.Of("The paste covered the whole chip on {day}: the cooler sits straight.", day),
            _ => null,
        };
    }

    /// <summary>What the advised level is worth over the years in which it has to pay.</summary>
    private static Message OfWorth(LevelWorth level, Assessment a)
    {
        var (v, values) = (level.Value, a.Policy.Values);
        MessageValue Money(string name, double amount) => Value.Money(name, amount, values.Currency);
        MessageValue[] range =
        [
            Value.Word("level", level.Level),
            Value.Counted("span", values.PayBackYears, "year"),
            Money("low", level.NetLow),
            Money("high", level.NetHigh),
        ];
        if (v.Net < 0)
            return Message.Of(
                a.ByCalendar
                    ? "By the house's values the {level} costs {net} more over the next {span} than it brings ({low} to {high}): the calendar alone asks for it."
                    : "By the house's values the {level} costs {net} more over the next {span} than it brings ({low} to {high}): it is advised for its kelvins alone.",
                [.. range, Money("net", -v.Net)]
            );
        (double Amount, Message What)[] gains =
        [
            (v.Throttling, "clocks kept up"),
            (v.Crashes, "crashes avoided"),
            (v.Ageing, "slower ageing"),
            (v.Noise, "a quieter fan"),
            (v.Energy, "a fan that takes less power"),
        ];
        return Message.Of(
            "Doing the {level} now is worth {net} over the next {span} ({low} to {high}): {gain} gained, most of it by {most}, less {cost} of work, material and risk; {hour} an hour of work.",
            [
                .. range,
                Money("net", v.Net),
                Money("gain", v.Gain),
                Value.List("most", "", [gains.MaxBy(g => g.Amount).What]),
                Money("cost", v.Cost),
                Money("hour", level.PerHour),
            ]
        );
    }
}
