using Pyrometron.Core.Messages;
using Pyrometron.Core.Planning;
using Pyrometron.Core.Weeks;
using Pyrometron.Storage;

namespace Pyrometron.Application.Weeks;

/// <summary>Plans made anew, changed by hand and taken back. Who changes one says which they have seen.</summary>
public sealed class PlanUseCases(Database database, TimeProvider clock)
{
    private DateTimeOffset Now => clock.GetUtcNow();

    /// <summary>Refuses before any work is done who could not keep the plan.</summary>
    /// <exception cref="NotAllowedException">They may not plan, or not for all sites.</exception>
    public static void CheckMay(Actor actor) => actor.AllowedEverywhere(Right.Plan);

    /// <summary>Puts a plan that was made anew in force.</summary>
    /// <param name="seen">The plan in force when it was begun; null where there was none.</param>
    /// <exception cref="NotPossibleException">That was changed meanwhile.</exception>
    public long Keep(Actor actor, long? seen, WeekProblem week, Plan plan, IReadOnlyList<StoredLeftOut> leftByHand) =>
        database.Write(
            actor.AllowedEverywhere(Right.Plan),
            Now,
            t =>
            {
                var before = PlanStore.Newest(t);
                if (before?.Id != seen)
                    throw ChangedMeanwhile();
                var left = LeftOutReasons.Of(plan.Roster);
                var placed = week.Placed(plan.Assignments);
                var says = Message.Of(
                    "Planned anew: {placed} in their places, {left} left out",
                    Value.Counted("placed", placed.Count, "job"),
                    Value.Count("left", left.Count + leftByHand.Count)
                );
                t.Log(new Change("plan", says));
                return PlanStore.Keep(
                    t,
                    new StoredPlan(
                        0,
                        seen,
                        t.Now,
                        "",
                        says,
                        week.Problem.Start,
                        week.Problem.Days,
                        plan.Cost,
                        plan.Bound,
                        plan.Planner,
                        placed,
                        [.. left.Select(l => new StoredLeftOut(week.Wanted[l.Job], l.Code, week.Reason(l))), .. leftByHand]
                    )
                );
            }
        );

    /// <summary>Gives work another place, or one where it was left out; it stays there when the plan is made anew.</summary>
    /// <param name="tryOnly">Whether it is only asked.</param>
    /// <returns>Why it cannot stand there; null where it can, and then it does unless it was only asked.</returns>
    /// <exception cref="NotPossibleException">The plan was changed meanwhile.</exception>
    /// <exception cref="NotThereException">There is no such work in it, or no such person.</exception>
    public Message? Place(Actor actor, long seen, string work, string person, DateTimeOffset start, bool tryOnly) =>
        database.Write(
            actor.AllowedEverywhere(Right.Plan),
            Now,
            t =>
            {
                var plan = Seen(t, seen);
                var week = Standing(t, plan);
                var job = IndexOf(week, work);
                if (week.PersonOf(person) is not (>= 0 and var who))
                    throw new NotThereException(Message.Of("Nobody has the code '{code}'.", Value.Text("code", person)));
                var roster = new Roster(week.Problem);
                foreach (var a in StandingPlan.Assignments(week, plan.Placed).Where(a => a.Job != job))
                    roster.TryPut(a);
                var wanted = new Assignment(job, who, week.MinuteOf(start));
                var old = plan.Placed.FirstOrDefault(p => p.Work.Id == work);
                // Who helps stays if they can.
                var same = wanted with
                {
                    Helper = old is null ? null : StandingPlan.HelperOf(week, old),
                };
                if (!roster.TryPut(same) && !roster.TryPut(wanted))
                    return Conflict.Of(roster, wanted);
                if (!tryOnly)
                {
                    var placed = week.Placed(roster.Assignments.Where(a => a.Job == job))[0] with { Locked = true };
                    Change(
                        t,
                        plan with
                        {
                            Placed = [.. plan.Placed.Where(p => p != old), placed],
                            LeftOut = [.. plan.LeftOut.Where(l => l.Work.Id != work)],
                            Cost = roster.Cost,
                        },
                        Message.Of(
                            "{work} moved to {person}, {day}",
                            Value.Text("work", StandingPlan.NameOf(placed.Work)),
                            Value.Text("person", week.Problem.People[who].Id),
                            Value.Day("day", DateOnly.FromDateTime(start.UtcDateTime))
                        )
                    );
                }
                return null;
            }
        );

    /// <summary>Lets work stay where it is when the plan is made anew, or not.</summary>
    public void Lock(Actor actor, long seen, string work, bool locked) =>
        database.Write(
            actor.AllowedEverywhere(Right.Plan),
            Now,
            t =>
            {
                var plan = Seen(t, seen);
                var old = plan.Placed.FirstOrDefault(p => p.Work.Id == work) ?? throw NoWork(work);
                var name = Value.Text("work", StandingPlan.NameOf(old.Work));
                Change(
                    t,
                    plan with
                    {
                        Placed = [.. plan.Placed.Select(p => p == old ? p with { Locked = locked } : p)],
                    },
                    locked ? Message.Of("{work} stays where it is", name) : Message.Of("{work} may move", name)
                );
            }
        );

    /// <summary>Takes work out of the plan; it stays out until somebody puts it back.</summary>
    public void LeaveOut(Actor actor, long seen, string work) =>
        database.Write(
            actor.AllowedEverywhere(Right.Plan),
            Now,
            t =>
            {
                var plan = Seen(t, seen);
                var old = plan.Placed.FirstOrDefault(p => p.Work.Id == work) ?? throw NoWork(work);
                Change(
                    t,
                    plan with
                    {
                        Placed = [.. plan.Placed.Where(p => p != old)],
                        LeftOut = [.. plan.LeftOut, new StoredLeftOut(old.Work, null, "Left out by hand.")],
                    },
                    Message.Of("{work} left out", Value.Text("work", StandingPlan.NameOf(old.Work)))
                );
            }
        );

    /// <summary>Adds work that nobody advised; it waits for its place.</summary>
    /// <returns>Its id.</returns>
    public string AddVisit(Actor actor, long seen, string title, string zone, int minutes, DateOnly? dueBy) =>
        database.Write(
            actor.AllowedEverywhere(Right.Plan),
            Now,
            t =>
            {
                var plan = Seen(t, seen);
                if (SiteStore.All(t).SelectMany(s => s.Zones).All(z => z.Code != zone))
                    throw Bench.Missing.Zone(zone);
                var known = plan.Placed.Select(p => p.Work.Id).Concat(plan.LeftOut.Select(l => l.Work.Id)).ToHashSet();
                var id = Enumerable.Range(1, known.Count + 1).Select(n => $"visit-{n}").First(n => !known.Contains(n));
                var step = new WantedStep("", null, minutes, Core.Fleet.Cause.None, null);
                var work = new Wanted(
                    id,
                    WantedKind.Visit,
                    title,
                    zone,
                    [step],
                    new HashSet<Skill>(),
                    null,
                    "",
                    dueBy,
                    VisitWeight
                );
                Change(
                    t,
                    plan with
                    {
                        LeftOut =
                        [
                            .. plan.LeftOut,
                            new StoredLeftOut(work, LeftOutCode.NoRoom, "It has no place yet: give it one, or plan again."),
                        ],
                    },
                    Message.Of("Added: {work}", Value.Text("work", title))
                );
                return id;
            }
        );

    /// <summary>
    /// Somebody is late: what they have not begun today begins so much later, as far as it can; the rest loses its place.
    /// </summary>
    /// <param name="begun">Whether work was begun at the bench already.</param>
    /// <returns>How many jobs moved, and how many lost their place.</returns>
    /// <exception cref="NotPossibleException">There is nothing left to do for them today.</exception>
    public (int Moved, int Lost) RunLate(Actor actor, long seen, string person, int minutes, Func<Wanted, bool> begun) =>
        database.Write(
            actor.AllowedEverywhere(Right.Plan),
            Now,
            t =>
            {
                var plan = Seen(t, seen);
                var week = Standing(t, plan);
                var who = week.PersonOf(person);
                var shift = who < 0 ? null : week.ShiftAt(who, week.MinuteOf(t.Now));
                var rest = plan
                    .Placed.Where(p =>
                        p.Has(person)
                        && !begun(p.Work)
                        && shift is not null
                        && week.MinuteOf(p.Start) >= shift.Span.From
                        && week.MinuteOf(p.Start) < shift.Span.To
                        && p.Start.AddMinutes(minutes) > t.Now
                    )
                    .OrderBy(p => p.Start)
                    .ToList();
                if (rest.Count == 0)
                    throw new NotPossibleException("There is nothing left in this shift that could begin later.");
                var roster = new Roster(week.Problem);
                foreach (var a in StandingPlan.Assignments(week, [.. plan.Placed.Except(rest)]))
                    roster.TryPut(a);
                var (moved, lost) = (new List<Placed>(), new List<StoredLeftOut>());
                var byId = rest.ToDictionary(p => p.Work.Id);
                foreach (var a in StandingPlan.Assignments(week, rest))
                {
                    var old = byId[week.Wanted[a.Job].Id];
                    var later = a with { Start = a.Start + minutes };
                    // Who helps may be somebody else then.
                    if (roster.TryPut(later) || roster.TryPut(later with { Helper = null }))
                        moved.AddRange(
                            week.Placed(roster.Assignments.Where(r => r.Job == a.Job)).Select(p => p with { Locked = old.Locked })
                        );
                    else
                        lost.Add(new StoredLeftOut(old.Work, LeftOutCode.NoRoom, Conflict.Of(roster, later)));
                }
                Change(
                    t,
                    plan with
                    {
                        Placed = [.. plan.Placed.Except(rest), .. moved],
                        LeftOut = [.. plan.LeftOut, .. lost],
                        Cost = roster.Cost,
                    },
                    Message.Of(
                        "{person} is {late} late: {moved} moved, {lost} without a place",
                        Value.Text("person", week.Problem.People[who].Id),
                        Value.Minutes("late", minutes),
                        Value.Counted("moved", moved.Count, "job"),
                        Value.Count("lost", lost.Count)
                    )
                );
                return (moved.Count, lost.Count);
            }
        );

    /// <summary>Goes back to the plan before the one in force.</summary>
    /// <exception cref="NotPossibleException">There is none, or the plan was changed meanwhile.</exception>
    public void TakeBack(Actor actor, long seen) =>
        database.Write(
            actor.AllowedEverywhere(Right.Plan),
            Now,
            t =>
            {
                var plan = Seen(t, seen);
                if (plan.Before is not { } id || PlanStore.Find(t, id) is not { } before)
                    throw new NotPossibleException("There is no plan before this one to go back to.");
                var says = Message.Of("Taken back: {what}", Value.List("what", "", [plan.Says]));
                t.Log(new Change("plan", says));
                PlanStore.Keep(t, before with { Says = says });
            }
        );

    /// <summary>What a day of lateness of a visit costs.</summary>
    private const double VisitWeight = 2;

    private static House HouseOf(Transaction t) =>
        new(
            SiteStore.All(t),
            PeopleStore.All(t),
            [.. PeopleStore.Absences(t).Select(a => a.Absence)],
            ZoneTimesStore.All(t),
            TimeZoneInfo.Local
        )
        {
            Walking = ZoneTimesStore.Walking(t),
        };

    private static WeekProblem Standing(Transaction t, StoredPlan plan) => StandingPlan.Of(HouseOf(t), plan);

    private static int IndexOf(WeekProblem week, string work)
    {
        for (var i = 0; i < week.Wanted.Count; i++)
            if (week.Wanted[i].Id == work)
                return i;
        throw NoWork(work);
    }

    private static void Change(Transaction t, StoredPlan plan, Message says)
    {
        t.Log(new Change("plan", says));
        PlanStore.Keep(t, plan with { Before = plan.Id, Says = says, Bound = null, Planner = "hand" });
    }

    private static StoredPlan Seen(Transaction t, long seen) =>
        PlanStore.Newest(t) is not { } plan ? throw new NotPossibleException("There is no plan yet: make one first.")
        : plan.Id != seen ? throw ChangedMeanwhile()
        : plan;

    private static NotPossibleException ChangedMeanwhile() =>
        new("Somebody else has changed the plan meanwhile: look at it before you change it again.");

    private static NotThereException NoWork(string work) =>
        new(Message.Of("There is no work '{work}' in the plan.", Value.Text("work", work)));
}
