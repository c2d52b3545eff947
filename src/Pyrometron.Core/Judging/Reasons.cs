using Pyrometron.Core.Assessments;
using Pyrometron.Core.Drift;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Priority;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Judging;

/// <summary>Why a machine stands where it stands, in two sentences at most, from the same numbers that decide it.</summary>
internal static class Reasons
{
    /// <summary>The reason for the queue.</summary>
    public static Message Of(Assessment a) =>
        Message.Join(
            a.Symptoms.Count > 0 ? Reported(a.Symptoms[0]) : JobEnded(a) ?? NotMeasured(a),
            a.StandingFan is { } fan ? Stands(fan)
                : a.Evidence is null ? UnmeasuredReasons.Of(a)
                : ByEvidence(a)
        )!;

    private static Message Stands(StandingFan fan) =>
        Message.Of(
            "Its fan has stood still under a full command since {day} ({readings}). Take the load off it and change the fan.",
            Value.Day("day", UnixDay.DateOf(fan.FromDay)),
            Value.Counted("readings", fan.Readings, "reading")
        );

    /// <summary>Adds what siblings show where there is no history of the machine's own.</summary>
    public static Assessment WithSiblings(Assessment a) =>
        a is { Siblings: { StandsOut: true, KelvinAbove: > 0 } s, Urgency: Urgency.Unknown }
            ? a with
            {
                Reason = Message.Join(AmongSiblings(s), a.Reason)!,
            }
            : a;

    /// <summary>How a machine stands among others of its model.</summary>
    public static Message AmongSiblings(AmongSiblings s) =>
        Message.Of(
            s.KelvinAbove > 0
                ? "{part} is {kelvin} warmer than {peers} of its model at equal heat and fan."
                : "{part} is {kelvin} cooler than {peers} of its model at equal heat and fan.",
            Value.PartFirst("part", s.Part),
            Value.Kelvin("kelvin", Math.Abs(s.KelvinAbove)),
            Value.Counted("peers", s.Peers, "machine")
        );

    /// <summary>Of a machine on whose data the calculation failed.</summary>
    public static Message Failed { get; } =
        "It cannot be judged: its data is damaged, or not what the calculation expects. Look at its dates and readings; the program's log tells more.";

    /// <summary>What to measure to be surer; null when nothing would help.</summary>
    public static Message? ToBeSurer(Assessment a)
    {
        var doubtful =
            a.WorstPart is { } worst
            && worst.Split.Total >= a.Policy.WorthKelvin
            && !new Winnable(worst.Split.Total, worst.SigmaKelvin, 0, 0).IsSure;
        return Message.Join(
            doubtful
                ? Message.Of("What is to win may be chance: two loaded runs with the fan fixed, a week apart, would settle it.")
                : null,
            MissingChannels(a)
        );
    }

    private static Message ByEvidence(Assessment a)
    {
        var worst = a.WorstPart!;
        if (Inconclusive(a) is { } inVain)
            return inVain;
        if (
            a is { Service: not null, ByCalendar: false }
            && a.Cause is not (Cause.None or Cause.Room or Cause.Settings or Cause.Sensor or Cause.CoolerLimited)
        )
            return Drifted(a, worst);
        if (a is { Cause: Cause.Sensor, DoubtedSensor: not null })
            return Sensor(a);
        if (a.Symptoms.Count > 0)
            return Message.Of("Its temperatures do not explain it: look inside before anything is replaced.");
        if (a.Result is { Outcome: VerdictOutcome.Worse } && a.Service == ServiceLevel.Inspect)
            return Message.Of("Check the room, that every fan turns, and the settings before it is opened again.");
        if (a.Service is { } due && a.ServiceDue is { } interval)
            return a.Outside.Notable == Cause.Room
                ? Message.Of(
                    "The {level} interval has been due since {day}; apart from the room's {room}, nothing shows wear.",
                    Value.Word("level", due),
                    Value.Day("day", interval.Due),
                    Value.Kelvin("room", a.Outside.Room)
                )
                : Message.Of(
                    "The {level} interval has been due since {day}; by what was measured up to {most} may be lost to wear.",
                    Value.Word("level", due),
                    Value.Day("day", interval.Due),
                    Value.Kelvin("most", new Winnable(worst.Split.Total, worst.SigmaKelvin, 0, 0).Most)
                );
        if (a.StartUnknown)
            return Message.Of(
                "No change beyond {kelvin} since its first run. What it had gathered before is not known: the run after its next service will tell.",
                Value.Kelvin("kelvin", Math.Max(1, 2 * worst.SigmaKelvin))
            );
        return a.Cause switch
        {
            Cause.Room => Message.Of(
                "The air, not the machine: every machine in {zone} is {room} warmer. See to the room.",
                Value.Text("zone", a.Zone.Name),
                Value.Kelvin("room", a.Outside.Room)
            ),
            Cause.Settings => Message.Of(
                "{kelvin} warmer since its settings changed: more heat, no wear. See to the settings.",
                Value.Kelvin("kelvin", a.Outside.Settings)
            ),
            Cause.Sensor => Sensor(a),
            Cause.CoolerLimited => Message.Of(
                "Hot since its first day ({part}, {margin}) and not drifting: the cooler is the limit.",
                Value.Part("part", a.LimitingPart!.Part.Name),
                Value.List("margin", "", [Explanation.Margin(a.LimitingPart.MarginKelvin)])
            ),
            _ => Settled(a, worst),
        };
    }

    /// <summary>A machine with nothing to win: what it shows, and what nobody has measured yet.</summary>
    private static Message Settled(Assessment a, PartAssessment worst) =>
        a.Unmeasured is { } service
            ? Message.Of(
                "Its {level} of {day} is not measured yet: it is credited with what such a job usually wins, {left} left.",
                Value.Word("level", service.Level),
                Value.Day("day", service.Date),
                Value.Kelvin("left", Math.Max(0, worst.Split.Total))
            )
            : Message.Join(
                Message.Of("Within {kelvin} of its fresh state.", Value.Kelvin("kelvin", Math.Max(1, worst.Split.Total))),
                MovedOn(a)
            )!;

    /// <summary>That the calendar asked and what was measured answered; null where it has not asked yet.</summary>
    private static Message? MovedOn(Assessment a) =>
        a.ServiceDue is { Asked: { } asked } due && asked <= a.AsOf
            ? Message.Of(
                "By the calendar its {level} was due on {asked}; by what was measured less than {worth} may be lost to wear: it can wait until {day}.",
                Value.Word("level", due.Level),
                Value.Day("asked", asked),
                Value.Kelvin("worth", a.Policy.WorthKelvin),
                Value.Day("day", due.Due)
            )
            : null;

    /// <summary>What is still to win after a job that changed nothing.</summary>
    private static Message? Inconclusive(Assessment a) =>
        a is { Service: ServiceLevel.Inspect, Result: { Outcome: VerdictOutcome.NoChange } result, WorstPart: { } worst }
        && worst.Split.Total >= a.Policy.WorthKelvin
            ? Message.Of(
                "{part} is still {kelvin} warmer than fresh. The {level} was not the cure: look for another cause before it is opened for the same again.",
                Value.PartFirst("part", worst.Part.Name),
                Value.Kelvin("kelvin", worst.Split.Total),
                Value.Word("level", result.Level)
            )
            : null;

    /// <summary>What still stands after a service that nobody has measured is an estimate, and says so.</summary>
    private static Message? NotMeasured(Assessment a) =>
        a is { Unmeasured: { } service, Evidence: not null } && a.DriftKelvin >= a.Policy.WorthKelvin
            ? Message.Of(
                "Its {level} of {day} is not measured yet; credited with what such a job usually wins:",
                Value.Word("level", service.Level),
                Value.Day("day", service.Date)
            )
            : null;

    /// <summary>What a job's verdict says, where that is more than what was measured shows.</summary>
    private static Message? JobEnded(Assessment a)
    {
        if (a.Result is not { } result)
            return null;
        var (level, day) = (Value.Word("level", result.Level), Value.Day("day", DateOnly.FromDateTime(result.At.UtcDateTime)));
        return result.Outcome switch
        {
            VerdictOutcome.Worse => Message.Of(
                "Worse after its {level}, measured on {day}: {part} {change}.",
                level,
                day,
                Value.Part("part", result.Part!),
                Value.SignedKelvin("change", result.ChangeKelvin)
            ),
            VerdictOutcome.NoChange when a.WorstPart?.Split.Total >= a.Policy.WorthKelvin => Message.Of(
                "No change by its {level}, measured on {day}.",
                level,
                day
            ),
            _ => null,
        };
    }

    private static Message Reported(Symptom symptom)
    {
        var day = Value.Day("day", symptom.Date);
        if (symptom.Shown is { Run: var run } shown)
            return Message.Of(
                shown.Phase == RunPhase.Before
                    ? "Failed after {minutes} in the run of {day}."
                    : "Failed again after {minutes} in the run of {day}.",
                Value.Minutes("minutes", run.FailedAfterMinutes ?? 0),
                day
            );
        return symptom.Kind switch
        {
            SymptomKind.Crash => Message.Of("Crashes, reported on {day}.", day),
            SymptomKind.Shutdown => Message.Of("Switches itself off, reported on {day}.", day),
            SymptomKind.Throttling => Message.Of("Slow under load, reported on {day}.", day),
            SymptomKind.Wet => Message.Of("Got wet, reported on {day}: off and unplugged until it was opened and dried.", day),
            SymptomKind.Smell => Message.Of("Smells, reported on {day}: off until it was looked at.", day),
            SymptomKind.Dropped => Message.Of("Dropped, reported on {day}.", day),
            SymptomKind.Other => Message.Of("Reported on {day}: see its book.", day),
            _ => Message.Of("Loud, reported on {day}.", day),
        };
    }

    private static Message Drifted(Assessment a, PartAssessment worst)
    {
        var split = worst.Split;
        var part = Value.PartFirst("part", worst.Part.Name);
        var first = a.Cause switch
        {
            Cause.Dust when a.Parts.Count > 1 => Message.Of(
                "All parts are {kelvin} warmer at equal heat and fan",
                Value.Kelvin("kelvin", split.Dust)
            ),
            Cause.Dust => Message.Of(
                "{part} is {kelvin} warmer at equal heat and fan",
                part,
                Value.Kelvin("kelvin", split.Total)
            ),
            Cause.Paste => Message.Of(
                "{part} alone is {kelvin} warmer than with fresh paste",
                part,
                Value.Kelvin("kelvin", split.Joint)
            ),
            Cause.Pads => Message.Of(
                "{part} alone is {kelvin} warmer, the rest unchanged: the pads have hardened",
                part,
                Value.Kelvin("kelvin", split.Joint)
            ),
            Cause.Fan => Message.Of(
                "The fan turns slower than its command asks for, which costs {kelvin}",
                Value.Kelvin("kelvin", split.Fan)
            ),
            Cause.Mount => Message.Of(
                "{part} stepped up by {kelvin} on the day the cooler was lifted: it sits badly",
                part,
                Value.Kelvin("kelvin", split.Mount)
            ),
            _ => Message.Of("{part} is {kelvin} warmer", part, Value.Kelvin("kelvin", split.Total)),
        };
        var rest = split
            .Ranked()
            .Where(c => c.Cause != a.Cause && c.Kelvin >= 1)
            .Select(c => Explanation.OfCause(c.Cause, c.Kelvin))
            .ToArray();
        var causes =
            rest.Length == 0
                ? Message.Of("{first}.", Value.List("first", "", [first]))
                : Message.Of("{first}; also {rest}.", Value.List("first", "", [first]), Value.List("rest", " and ", rest));
        return a.LimitingPart is { MarginKelvin: <= 0 } limiting
            ? Message.Join(
                causes,
                Message.Of("{part} is past its action line on a hot day.", Value.PartFirst("part", limiting.Part.Name))
            )!
            : causes;
    }

    private static Message Sensor(Assessment a) =>
        a.SensorFindings.Count == 0 ? Message.Of("A sensor cannot be believed.")
        : a.DoubtedSensor is { } doubted
            ? Message.Of(
                a.Measure is null
                    ? "{part} {what}: taken for its sensor. Somebody has looked at it since and reported nothing."
                    : "{part} {what}: taken for its sensor. Look whether its fan turns, and report what you find.",
                Value.PartFirst("part", doubted.Channel),
                Value.List("what", "", [doubted.What])
            )
        : Message.Of(
            "The {channel} sensor {what}; the others show no wear.",
            Value.Part("channel", a.SensorFindings[^1].Channel),
            Value.List("what", "", [a.SensorFindings[^1].What])
        );

    private static Message? MissingChannels(Assessment a) =>
        a.Measured is { } measured
            ? measured.ToRaise
            : Message.Of("A loaded run of 20 minutes with the air temperature written down.");
}
