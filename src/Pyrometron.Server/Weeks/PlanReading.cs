using Pyrometron.Application.Weeks;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Planning;
using Pyrometron.Core.Weeks;
using Pyrometron.Server.Judging;
using Pyrometron.Storage;

namespace Pyrometron.Server.Weeks;

/// <summary>Reads a stored plan against the house as it is now: local times, set-ups, what cannot stand any more.</summary>
internal sealed class PlanReading
{
    private readonly StoredPlan _plan;
    private readonly House _house;
    private readonly WeekProblem _week;
    private readonly Roster _roster;
    private readonly Places _places;
    private readonly Dictionary<string, Message> _conflicts = [];

    public PlanReading(StoredPlan plan, House house)
    {
        (_plan, _house) = (plan, house);
        _week = StandingPlan.Of(house, plan);
        _roster = new Roster(_week.Problem);
        _places = Places.Of(house.Sites);
        foreach (var a in StandingPlan.Assignments(_week, plan.Placed).OrderBy(a => a.Start))
            if (!_roster.TryPut(a))
                _conflicts[_week.Wanted[a.Job].Id] = Conflict.Of(_roster, a);
    }

    /// <summary>The plan as answered.</summary>
    /// <param name="before">The plan that it was made from, if it is kept.</param>
    /// <param name="bench">The newest job at the bench of each machine.</param>
    public PlanInForce Answer(StoredPlan? before, IReadOnlyDictionary<string, StoredJob> bench) =>
        new(
            _plan.Id,
            _plan.MadeAt,
            _plan.By,
            _plan.Says,
            _plan.Start,
            _plan.Days,
            Math.Round(_plan.Cost, 2),
            CostOf(),
            _plan.Bound is { } bound ? Math.Round(bound, 2) : null,
            _plan.Bound is { } least ? Math.Max(0, _plan.Cost - least) / Math.Max(_plan.Cost, 1) : null,
            _plan.Planner,
            before is not null,
            _plan.Placed.Sum(p => Spent(p, p.Person) + (p.Helper is { } helper ? Spent(p, helper) : 0)),
            _week.Shifts.Sum(s => s.Span.Minutes),
            [.. _plan.Placed.OrderBy(p => p.Start).ThenBy(p => p.Person).Select(p => Job(p, bench))],
            [.. _plan.LeftOut.Select(Left)],
            [.. _week.Shifts.Select(s => new ShiftAnswer(_house.People[s.Person].Code, s.Day, s.From, s.From + s.Span.Minutes))],
            before is null ? [] : [.. Moved(before)]
        );

    /// <summary>
    /// What the cost is made of. Only its sum is stored: lateness, left-out work and set-ups are reckoned anew, by the house as
    /// it is now, and the rest is told as that of moves.
    /// </summary>
    private PlanCost CostOf()
    {
        var (late, left, setup) = (0.0, 0.0, 0.0);
        var jobs = _week.Problem.Jobs.ToDictionary(j => j.Id);
        foreach (var placed in _plan.Placed.Where(p => jobs.ContainsKey(p.Work.Id)))
        {
            late += PlanProblem.Lateness(jobs[placed.Work.Id], _week.MinuteOf(placed.Start) / PlanProblem.Day);
            setup += SetupOf(placed, placed.Person) + (placed.Helper is { } helper ? SetupOf(placed, helper) : 0);
        }
        foreach (var work in _plan.LeftOut.Where(l => l.Code is not null && jobs.ContainsKey(l.Work.Id)))
            left += _week.Problem.LeavingOut(jobs[work.Work.Id]);
        setup *= PlanProblem.SetupCost;
        return new PlanCost(
            Math.Round(late, 2),
            Math.Round(left, 2),
            Math.Round(setup, 2),
            Math.Max(0, Math.Round(_plan.Cost - late - left - setup, 2))
        );
    }

    private PlannedJob Job(Placed placed, IReadOnlyDictionary<string, StoredJob> bench)
    {
        var (work, minute) = (placed.Work, _week.MinuteOf(placed.Start));
        var (day, from) = Local(placed.Person, minute);
        var known = _week.PersonOf(placed.Person) >= 0;
        var job = bench.GetValueOrDefault(work.Steps[0].Tag);
        return new(
            work.Id,
            work.Kind,
            work.Title,
            work.Zone,
            _places.ZoneName(work.Zone),
            Steps(work),
            placed.Person,
            placed.Start,
            day,
            from,
            work.Minutes,
            SetupOf(placed, placed.Person),
            placed.Locked,
            work.DueBy,
            IsLate(work, day),
            !known ? "Who was to do it is not on the list any more."
                : placed.Helper is { } other && _week.PersonOf(other) < 0 ? "Who was to help is not on the list any more."
                : _conflicts.GetValueOrDefault(work.Id),
            job is null || DateOnly.FromDateTime(job.StartedAt.UtcDateTime) < _plan.Start
                ? null
                : new OpenJob(job.Id, Core.Fleet.Words.Of(job.State)),
            work.Campaign,
            placed.Helper is { } helper ? Help(placed, helper) : null
        );
    }

    private int Spent(Placed placed, string person) => placed.Work.Minutes + SetupOf(placed, person);

    private HelpAnswer Help(Placed placed, string helper)
    {
        var (day, from) = Local(helper, _week.MinuteOf(placed.Start));
        return new HelpAnswer(helper, day, from, SetupOf(placed, helper));
    }

    /// <summary>Whether it stands behind its day although it was in time when the plan was made.</summary>
    private bool IsLate(Wanted work, DateOnly day) =>
        work.DueBy is { } due && due < day && due > DateOnly.FromDateTime(_plan.MadeAt.UtcDateTime);

    private LeftOutJob Left(StoredLeftOut left) =>
        new(
            left.Work.Id,
            left.Work.Kind,
            left.Work.Title,
            left.Work.Zone,
            _places.ZoneName(left.Work.Zone),
            Steps(left.Work),
            left.Work.Minutes,
            left.Work.DueBy,
            left.Code is { } code ? Core.Fleet.Words.Of(code) : "by-hand",
            left.Reason
        );

    /// <summary>What moved, and why it could not stay: alone in its old place against the house as it is now.</summary>
    private IEnumerable<MovedJob> Moved(StoredPlan before)
    {
        var now = _plan.Placed.ToDictionary(p => p.Work.Id);
        foreach (var old in before.Placed)
        {
            if (!now.TryGetValue(old.Work.Id, out var placed) || (placed.Person, placed.Start) == (old.Person, old.Start))
                continue;
            var (was, _) = Local(old.Person, _week.MinuteOf(old.Start));
            if (placed.Person == old.Person && Local(placed.Person, _week.MinuteOf(placed.Start)).Day == was)
                continue;
            yield return new MovedJob(old.Work.Id, StandingPlan.NameOf(old.Work), old.Person, was, Why(old, placed));
        }
    }

    private Message Why(Placed old, Placed placed)
    {
        if (placed.Locked)
            return "Moved by hand.";
        if (_week.PersonOf(old.Person) is not (>= 0 and var person))
            return "Who was to do it is not on the list any more.";
        var job = Enumerable.Range(0, _week.Wanted.Count).FirstOrDefault(i => _week.Wanted[i].Id == old.Work.Id, -1);
        if (job < 0)
            return "Its zone is not there any more.";
        var wanted = new Assignment(job, person, _week.MinuteOf(old.Start));
        var empty = new Roster(_week.Problem);
        return empty.TryPut(wanted)
            ? "It could have stayed; the plan as a whole costs less this way."
            : Conflict.Of(empty, wanted);
    }

    /// <summary>The day of the shift that a minute lies in, and what its clock shows.</summary>
    private (DateOnly Day, int From) Local(string person, int minute)
    {
        var index = _week.PersonOf(person);
        if (index >= 0 && _week.ShiftAt(index, minute) is { } shift)
            return (shift.Day, shift.From + minute - shift.Span.From);
        var zone = index >= 0 ? _house.ClockOf(_house.People[index]) : _house.TimeZone;
        var clock = new LocalClock(_plan.Start, zone);
        var day = clock.DayOf(minute);
        return (day, minute - clock.Minute(day, 0));
    }

    private int SetupOf(Placed placed, string code)
    {
        var person = _week.PersonOf(code);
        if (person < 0 || _conflicts.ContainsKey(placed.Work.Id))
            return 0;
        var minute = _week.MinuteOf(placed.Start);
        for (var s = 0; s < _week.Problem.People[person].Shifts.Count; s++)
        {
            var done = _roster.Of(person, s);
            for (var i = 0; i < done.Count; i++)
                if (done[i].Start == minute)
                    return _roster.SetupBefore(person, s, i);
        }
        return 0;
    }

    private static IReadOnlyList<WorkStep> Steps(Wanted work) =>
        [.. work.Steps.Select(s => new WorkStep(s.Tag, s.Level, s.Minutes, s.Cause, s.Kelvin))];
}
