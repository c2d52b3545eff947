namespace Pyrometron.Core.Planning;

/// <summary>
/// A plan in the making: who does what when, shift by shift. Keeps all rules of <see cref="PlanProblem"/>: a job is only put where
/// it may stand.
/// </summary>
public sealed class Roster
{
    private readonly List<Assignment>[][] _shifts;
    private readonly List<Span>[] _down;
    private readonly int[] _person;

    /// <summary>An empty plan.</summary>
    public Roster(PlanProblem problem)
    {
        Problem = problem;
        _shifts = [.. problem.People.Select(p => p.Shifts.Select(_ => new List<Assignment>()).ToArray())];
        _down = [.. problem.Zones.Select(_ => new List<Span>())];
        _person = [.. Enumerable.Repeat(-1, problem.Jobs.Count)];
    }

    /// <summary>A plan with these jobs in their places.</summary>
    /// <exception cref="ArgumentException">They break a rule.</exception>
    public static Roster Of(PlanProblem problem, IEnumerable<Assignment> assignments)
    {
        var roster = new Roster(problem);
        foreach (var a in assignments.OrderBy(a => a.Start))
            if (!roster.TryPut(a))
                throw new ArgumentException($"Job {problem.Jobs[a.Job].Id} cannot stand there.", nameof(assignments));
        return roster;
    }

    /// <summary>What is planned.</summary>
    public PlanProblem Problem { get; }

    /// <summary>All jobs in their places, by time.</summary>
    public IReadOnlyList<Assignment> Assignments =>
        [.. _shifts.SelectMany(p => p).SelectMany(s => s).OrderBy(a => a.Start).ThenBy(a => a.Person).ThenBy(a => a.Job)];

    /// <summary>Whether a job has its place.</summary>
    public bool Has(int job) => _person[job] >= 0;

    /// <summary>What is done in a shift, in order.</summary>
    public IReadOnlyList<Assignment> Of(int person, int shift) => _shifts[person][shift];

    /// <summary>What it costs.</summary>
    public double Cost
    {
        get
        {
            double cost = 0;
            for (var j = 0; j < Problem.Jobs.Count; j++)
                if (!Has(j))
                    cost += Problem.LeavingOut(Problem.Jobs[j]);
            foreach (var shift in _shifts.SelectMany(p => p))
                for (var i = 0; i < shift.Count; i++)
                    cost +=
                        PlanProblem.Lateness(Problem.Jobs[shift[i].Job], shift[i].Start / PlanProblem.Day)
                        + PlanProblem.SetupCost * SetupAt(shift, i);
            return cost;
        }
    }

    /// <summary>Puts a job where it is said to stand, if no rule forbids it.</summary>
    public bool TryPut(Assignment wanted)
    {
        var job = Problem.Jobs[wanted.Job];
        var person = Problem.People[wanted.Person];
        if (Has(wanted.Job) || !Problem.May(person, job))
            return false;
        var shift = Enumerable.Range(0, person.Shifts.Count).FirstOrDefault(s => person.Shifts[s].Holds(SpanOf(wanted)), -1);
        if (shift < 0 || !Problem.Starts(job, person.Shifts[shift]).Any(s => s.First <= wanted.Start && wanted.Start <= s.Last))
            return false;
        var done = _shifts[wanted.Person][shift];
        var at = done.FindIndex(a => a.Start >= wanted.Start);
        at = at < 0 ? done.Count : at;
        if (!Fits(person.Shifts[shift], done, at, wanted) || Crowded(job.Zone, SpanOf(wanted)))
            return false;
        done.Insert(at, wanted);
        _down[job.Zone].Add(SpanOf(wanted));
        _person[wanted.Job] = wanted.Person;
        return true;
    }

    /// <summary>Takes a job out.</summary>
    public void Take(int job)
    {
        foreach (var shift in _shifts[_person[job]])
            if (shift.FindIndex(a => a.Job == job) is >= 0 and var at)
            {
                _down[Problem.Jobs[job].Zone].Remove(SpanOf(shift[at]));
                shift.RemoveAt(at);
                break;
            }
        _person[job] = -1;
    }

    /// <summary>
    /// The earliest places of a job, one for each gap between what is done already: where in the day it costs least set-up is
    /// left to whoever chooses.
    /// </summary>
    /// <param name="index">The job.</param>
    /// <param name="person">Who would do it; may do it.</param>
    /// <param name="shift">In which shift.</param>
    /// <param name="crowding">Whether the limit of machines down at once is looked at.</param>
    /// <returns>The minute it would begin, and the minutes of set-up more than now.</returns>
    public IEnumerable<(int Start, int Setup)> Places(int index, int person, int shift, bool crowding = true)
    {
        var job = Problem.Jobs[index];
        var span = Problem.People[person].Shifts[shift];
        var done = _shifts[person][shift];
        foreach (var (first, last) in Problem.Starts(job, span))
            for (var at = 0; at <= done.Count; at++)
            {
                var before = at == 0 ? span.From : SpanOf(done[at - 1]).To;
                var own = at > 0 && ZoneOf(done[at - 1]) == job.Zone ? 0 : Problem.Zones[job.Zone].SetupMinutes;
                var start = Math.Max(first, before + own);
                if (crowding)
                    start = Uncrowded(job, start);
                var next = at < done.Count ? NextSetup(job.Zone, done[at]) : 0;
                if (start > last || (at < done.Count && start + job.Minutes + next > done[at].Start))
                    continue;
                yield return (start, own + next - (at < done.Count ? SetupAt(done, at) : 0));
            }
    }

    /// <summary>The time a job takes where it stands, without set-up.</summary>
    public Span SpanOf(Assignment a) => new(a.Start, a.Start + Problem.Jobs[a.Job].Minutes);

    private int ZoneOf(Assignment a) => Problem.Jobs[a.Job].Zone;

    private int NextSetup(int zone, Assignment next) => ZoneOf(next) == zone ? 0 : Problem.Zones[ZoneOf(next)].SetupMinutes;

    private int SetupAt(List<Assignment> shift, int i) =>
        i > 0 && ZoneOf(shift[i - 1]) == ZoneOf(shift[i]) ? 0 : Problem.Zones[ZoneOf(shift[i])].SetupMinutes;

    private bool Fits(Span shift, List<Assignment> done, int at, Assignment wanted)
    {
        var zone = ZoneOf(wanted);
        var free = at == 0 ? shift.From : SpanOf(done[at - 1]).To;
        var own = at > 0 && ZoneOf(done[at - 1]) == zone ? 0 : Problem.Zones[zone].SetupMinutes;
        return free + own <= wanted.Start
            && (at == done.Count || SpanOf(wanted).To + NextSetup(zone, done[at]) <= done[at].Start);
    }

    private bool Crowded(int zone, Span span) =>
        Problem.Zones[zone].MaxDown is { } most && MostAtOnce(zone, span) >= most;

    /// <summary>The first minute from this one on at which a job may begin without crowding its zone.</summary>
    private int Uncrowded(PlanJob job, int start)
    {
        while (Crowded(job.Zone, new Span(start, start + job.Minutes)))
        {
            // Where none may be down at all, no end of another job helps.
            var ends = _down[job.Zone].Where(d => d.To > start).Select(d => d.To).DefaultIfEmpty(Problem.Horizon.To);
            start = ends.Min();
            if (start >= Problem.Horizon.To)
                break;
        }
        return start;
    }

    private int MostAtOnce(int zone, Span span)
    {
        var most = 0;
        foreach (var one in _down[zone])
        {
            var at = Math.Max(one.From, span.From);
            if (one.Overlaps(span))
                most = Math.Max(most, _down[zone].Count(d => d.From <= at && at < d.To));
        }
        return most;
    }
}
