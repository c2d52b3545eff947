using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.GroupEvents;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Stores;

namespace Pyrometron.Core.Notices;

/// <summary>Finds what is so today that somebody may want to be told of.</summary>
public static class Conditions
{
    /// <summary>How far ahead "this week" and the stock look, days.</summary>
    public const int DaysAhead = 7;

    /// <summary>Days without an entry after which a job at the bench counts as forgotten. Common practice, no source.</summary>
    public const int OpenDays = 3;

    /// <summary>Days after which an after-run counts as forgotten. Common practice, no source.</summary>
    public const int UnprovenDays = 14;

    /// <summary>All of them, each key once.</summary>
    public static IReadOnlyList<Condition> Of(HouseToday house) =>
        [
            .. house
                .Machines.SelectMany(a => OfMachine(a, house.Day))
                .Concat(OfEvents(house))
                .Concat(house.WarmRooms.Select(r => OfRoom(r, house.ZoneNames)))
                .Concat(house.Jobs.Select(j => OfJob(j, house.Day)).OfType<Condition>())
                .Concat(OfStock(house.Supply, house.Day, house.Machines))
                .DistinctBy(c => c.Key),
        ];

    private static IEnumerable<Condition> OfMachine(Assessment a, DateOnly today)
    {
        var (tag, zone) = (a.Asset.Tag, a.Asset.Zone);
        if (a.Urgency == Urgency.Now)
            yield return new(NoticeKind.Now, $"now:{tag}", Says("{tag} needs work now. {reason}", a), tag, zone);
        // Who falls back from now to next is better off: no news.
        if (a.Urgency is Urgency.Now or Urgency.Next)
            yield return new(
                NoticeKind.Next,
                $"next:{tag}",
                Says("{tag} is next. {reason}", a),
                tag,
                zone,
                IsNews: a.Urgency == Urgency.Next
            );
        if (a.Urgency is Urgency.Next or Urgency.Soon && a.Service is { } service && a.ActBy is { } by)
            if (by <= today.AddDays(DaysAhead))
                yield return new(
                    NoticeKind.DueThisWeek,
                    $"due:{tag}",
                    Message.Of(
                        by < today ? "{tag}: {level} has been due since {day}." : "{tag}: {level} is due by {day}.",
                        Value.Text("tag", tag),
                        Value.Word("level", service),
                        Value.Day("day", by)
                    ),
                    tag,
                    zone
                );
        if (a.Silence is { } silence)
            yield return new(
                NoticeKind.Silent,
                $"silent:{tag}",
                Message.Of("{tag}: {silence}", Value.Text("tag", tag), Value.List("silence", "", [silence.Says])),
                tag,
                zone
            );
    }

    private static Message Says(string template, Assessment a) =>
        Message.Of(template, Value.Text("tag", a.Asset.Tag), Value.List("reason", "", [a.Reason]));

    /// <summary>
    /// The day of an event is found anew with each judgement and may move by some days: its place among those of its group is
    /// what stays.
    /// </summary>
    private static IEnumerable<Condition> OfEvents(HouseToday house) =>
        from of in house.Events.GroupBy(e => (e.Kind, e.Group))
        from e in of.OrderBy(e => e.Day).Select((e, i) => (Event: e, Place: i + 1))
        let isZone = of.Key.Kind == GroupEventKind.Dust
        select new Condition(
            NoticeKind.GroupEvent,
            FormattableString.Invariant($"event:{of.Key.Kind}:{of.Key.Group}:{e.Place}"),
            EventWords.Of(e.Event, isZone ? house.ZoneNames.GetValueOrDefault(e.Event.Group, e.Event.Group) : e.Event.Group),
            null,
            isZone ? e.Event.Group : null
        );

    private static Condition OfRoom(ZoneAssessment room, IReadOnlyDictionary<string, string> names) =>
        new(
            NoticeKind.WarmRoom,
            $"room:{room.Zone}",
            Message.Of(
                "{zone} is {kelvin} too warm as a whole: see to its air before its {machines}.",
                Value.Text("zone", names.GetValueOrDefault(room.Zone, room.Zone)),
                Value.Kelvin("kelvin", room.NowKelvin),
                Value.Counted("machines", room.Machines, "machine")
            ),
            null,
            room.Zone
        );

    private static Condition? OfJob(JobInHand job, DateOnly today)
    {
        var days = today.DayNumber - job.Since.DayNumber;
        Condition Of(string template) =>
            new(
                NoticeKind.Forgotten,
                FormattableString.Invariant($"job:{job.Id}:{job.State}"),
                Message.Of(
                    template,
                    Value.Text("tag", job.Tag),
                    Value.Word("level", job.Level),
                    Value.Counted("days", days, "day")
                ),
                job.Tag,
                job.Zone
            );
        return job.State switch
        {
            JobState.Open when days >= OpenDays => Of(
                "{tag}: nothing was entered for {days} in its {level} at the bench. Go on with it, or give it up."
            ),
            JobState.WaitingForProof when days >= UnprovenDays => Of(
                "{tag}: its {level} was done {days} ago and the run after it is missing. Make it, or the win stays unproven."
            ),
            _ => null,
        };
    }

    private static IEnumerable<Condition> OfStock(
        IReadOnlyList<JobSupply> supply,
        DateOnly today,
        IReadOnlyList<Assessment> machines
    )
    {
        var zones = machines.ToDictionary(a => a.Asset.Tag, a => a.Asset.Zone);
        return from s in supply
            where s.Missing.Count > 0
            where s.Job.By == AheadBy.Bench || s.Job.NeededOn <= today.AddDays(DaysAhead)
            select new Condition(
                NoticeKind.StockShort,
                $"stock:{s.Job.Asset}",
                Message.Of(
                    "The shelf does not hold enough for the {level} of {tag}: {kinds}.",
                    Value.Word("level", s.Job.Level),
                    Value.Text("tag", s.Job.Asset),
                    Value.List("kinds", ", ", [.. s.Missing.Select(OfNeed)])
                ),
                s.Job.Asset,
                zones.GetValueOrDefault(s.Job.Asset)
            );
    }

    private static Message OfNeed(Need need) =>
        need.ThicknessMm is { } mm
            ? Message.Of("pads of {thickness}", Value.Millimetre("thickness", mm))
            : Message.Of("{kind}", Value.Word("kind", need.Kind));
}
