using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Judging;

/// <summary>Why a machine stands where it stands while too little of it was measured.</summary>
internal static class UnmeasuredReasons
{
    /// <summary>What is known, and what would help.</summary>
    public static Message Of(Assessment a)
    {
        if (a.Symptoms.Count > 0)
            return Message.Of("Too little is measured to say why: look inside.");
        if (a.MeasuredRun is { } measured && a.Readings < MachineFacts.LeastReadings)
            return AfterOneRun(a, measured);
        if (a.Asset.NewBaseline is { } change && change.Date <= a.AsOf)
            return Message.Of(
                "How it cools since its {level} of {day} is not known yet. Five loaded readings over a week or more, or two runs, would do.",
                Value.Word("level", change.Level),
                Value.Day("day", change.Date)
            );
        if (a.Readings > 0)
            return Message.Join(
                Message.Of(
                    "Only {readings}: too few to tell wear from chance. Five loaded readings over a week or more would do.",
                    Value.Counted("readings", a.Readings, "reading")
                ),
                Overdue(a)
            )!;
        if (Overdue(a) is { } overdue)
            return Message.Join("Never measured.", overdue)!;
        return Message.Of("No readings yet. One loaded run with the air temperature written down would be a start.");
    }

    /// <summary>The interval that the calendar asks for; null where it does not.</summary>
    private static Message? Overdue(Assessment a)
    {
        if (a.Urgency is not (Urgency.Soon or Urgency.Next) || a.AtItsLimit || a.ServiceDue is not { } due)
            return null;
        var (level, interval) = (Value.Word("level", due.Level), Value.Counted("interval", due.Days, "day"));
        return due.Due == a.AsOf
            ? Message.Of("By the calendar its {level} is due today (interval {interval}).", level, interval)
            : Message.Of(
                "By the calendar its {level} is {overdue} overdue (interval {interval}, until {day}).",
                level,
                interval,
                Value.Day("day", due.Due),
                Value.Counted("overdue", a.AsOf.DayNumber - due.Due.DayNumber, "day")
            );
    }

    private static Message AfterOneRun(Assessment a, MeasuredRun measured)
    {
        var hottest = measured.Run.Parts.MaxBy(p => p.Celsius.Value)!;
        return Message.Join(
            Message.Of(
                a.AtItsLimit
                    ? "{part} stood at its limit in the run of {day}: {celsius}. Nothing older is there to compare with: look inside."
                    : "Measured once, on {day}: {part} {celsius}. Nothing older is there to compare with; its next run will show whether it drifts.",
                a.AtItsLimit ? Value.PartFirst("part", hottest.Part) : Value.Part("part", hottest.Part),
                Value.Day("day", DateOnly.FromDateTime(measured.At.UtcDateTime)),
                Value.Celsius("celsius", hottest.Celsius.Value)
            ),
            Overdue(a)
        )!;
    }
}
