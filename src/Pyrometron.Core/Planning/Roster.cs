namespace Pyrometron.Core.Planning;

/// <summary>A place for a job among those of a shift.</summary>
/// <param name="At">Before which of them, counted from the first.</param>
/// <param name="Start">The minute at which it would begin.</param>
/// <param name="Setup">The minutes of set-up more than now.</param>
/// <param name="Helper">Index of who would help, where it takes two.</param>
public readonly record struct Place(int At, int Start, int Setup, int? Helper = null);

/// <summary>
/// A plan in the making: who does what when, shift by shift. Keeps all rules of <see cref="PlanProblem"/>: a job is only put
/// where it may stand.
/// </summary>
public sealed partial class Roster
{
    private readonly List<Assignment>[][] _shifts;
    private readonly List<(Span Span, int Person)>[] _down;
    private readonly int[] _person;

    /// <summary>An empty plan.</summary>
    public Roster(PlanProblem problem)
        : this(problem, new Openings(problem)) { }

    private Roster(PlanProblem problem, Openings openings)
    {
        (Problem, Openings) = (problem, openings);
        _shifts = [.. problem.People.Select(p => p.Shifts.Select(_ => new List<Assignment>()).ToArray())];
        _down = [.. problem.Zones.Select(_ => new List<(Span, int)>())];
        _person = [.. Enumerable.Repeat(-1, problem.Jobs.Count)];
    }

    /// <summary>A plan with these jobs in their places.</summary>
    /// <exception cref="ArgumentException">They break a rule.</exception>
    public static Roster Of(PlanProblem problem, IEnumerable<Assignment> assignments) =>
        new Roster(problem).With(assignments)
        ?? throw new ArgumentException("A job cannot stand where it is said to.", nameof(assignments));

    /// <summary>What is planned.</summary>
    public PlanProblem Problem { get; }

    /// <summary>Where each of its jobs may stand at all.</summary>
    public Openings Openings { get; }

    /// <summary>The same plan once more, to be changed by itself.</summary>
    public Roster Copy()
    {
        var copy = new Roster(Problem, Openings);
        for (var p = 0; p < _shifts.Length; p++)
        for (var s = 0; s < _shifts[p].Length; s++)
            copy._shifts[p][s].AddRange(_shifts[p][s]);
        for (var z = 0; z < _down.Length; z++)
            copy._down[z].AddRange(_down[z]);
        _person.CopyTo(copy._person, 0);
        return copy;
    }

    /// <summary>Another plan of the same problem, with these jobs in their places; null where they break a rule.</summary>
    public Roster? With(IEnumerable<Assignment> assignments)
    {
        var roster = new Roster(Problem, Openings);
        foreach (var a in assignments.OrderBy(a => a.Start))
            if (!roster.TryPut(a))
                return null;
        return roster;
    }

    /// <summary>All jobs in their places, by time.</summary>
    public IReadOnlyList<Assignment> Assignments =>
        [
            .. _shifts
                .SelectMany((p, person) => p.SelectMany(s => s.Where(a => a.Person == person)))
                .OrderBy(a => a.Start)
                .ThenBy(a => a.Person)
                .ThenBy(a => a.Job),
        ];

    /// <summary>The same in no order, into a list that is there already.</summary>
    internal void CopyTo(List<Assignment> list)
    {
        list.Clear();
        for (var person = 0; person < _shifts.Length; person++)
            foreach (var shift in _shifts[person])
            foreach (var a in shift)
                if (a.Person == person)
                    list.Add(a);
    }

    /// <summary>Whether a job has its place.</summary>
    public bool Has(int job) => _person[job] >= 0;

    /// <summary>What is done in a shift, in order; also what is only helped with.</summary>
    public IReadOnlyList<Assignment> Of(int person, int shift) => _shifts[person][shift];

    /// <summary>Minutes of set-up directly before one of the jobs of a shift.</summary>
    /// <param name="at">Which of them, counted from the first.</param>
    public int SetupBefore(int person, int shift, int at) => SetupAt(_shifts[person][shift], at);

    /// <summary>What it costs.</summary>
    public double Cost
    {
        get
        {
            double cost = 0;
            for (var j = 0; j < Problem.Jobs.Count; j++)
                if (!Has(j))
                    cost += Problem.LeavingOut(Problem.Jobs[j]);
            for (var person = 0; person < _shifts.Length; person++)
                foreach (var shift in _shifts[person])
                    for (var i = 0; i < shift.Count; i++)
                    {
                        cost += PlanProblem.SetupCost * SetupAt(shift, i);
                        if (shift[i].Person == person)
                            cost += PlanProblem.Placing(Problem.Jobs[shift[i].Job], person, shift[i].Start / PlanProblem.Day);
                    }
            return cost;
        }
    }

    /// <summary>Puts a job where it is said to stand, if no rule forbids it.</summary>
    public bool TryPut(Assignment wanted)
    {
        var job = Problem.Jobs[wanted.Job];
        if (
            Has(wanted.Job)
            || Seat(wanted, wanted.Person, Openings.Of(wanted.Job)) is not { } seat
            || Crowded(job.Zone, SpanOf(wanted), wanted.Person)
        )
            return false;
        if (!job.TakesTwo)
            wanted = wanted with { Helper = null };
        else if (HelperFor(wanted) is { } helper)
        {
            wanted = wanted with { Helper = helper.Person };
            _shifts[helper.Person][helper.Shift].Insert(helper.At, wanted);
        }
        else
            return false;
        _shifts[wanted.Person][seat.Shift].Insert(seat.At, wanted);
        _down[job.Zone].Add((SpanOf(wanted), wanted.Person));
        _person[wanted.Job] = wanted.Person;
        return true;
    }

    /// <summary>Where in somebody's shifts a job can be put at its time; null where it cannot.</summary>
    private (int Shift, int At)? Seat(Assignment wanted, int person, IReadOnlyList<Opening> openings)
    {
        if (OpeningAt(openings, person, wanted.Start) is not { Shift: var shift })
            return null;
        var done = _shifts[person][shift];
        var at = done.FindIndex(a => a.Start >= wanted.Start);
        at = at < 0 ? done.Count : at;
        return Fits(Problem.People[person].Shifts[shift], done, at, wanted) ? (shift, at) : null;
    }

    /// <summary>Whether somebody can help with a job at its time: who is said to, or else anybody.</summary>
    public bool HasHelper(Assignment wanted) => HelperFor(wanted) is not null;

    /// <summary>Who can help with a job at its time: who is said to, or else the first who can.</summary>
    private (int Person, int Shift, int At)? HelperFor(Assignment wanted)
    {
        var (first, last) = wanted.Helper is { } said ? (said, said) : (0, Problem.People.Count - 1);
        for (var person = first; person <= last; person++)
            if (person != wanted.Person && Seat(wanted, person, Openings.Helping(wanted.Job)) is { } seat)
                return (person, seat.Shift, seat.At);
        return null;
    }

    /// <summary>Takes a job out.</summary>
    /// <param name="opened">Told whose shifts it stood in, and which.</param>
    public void Take(int job, ICollection<(int Person, int Shift)>? opened = null)
    {
        var person = _person[job];
        var a = TakeFrom(person, job, opened);
        _down[Problem.Jobs[job].Zone].Remove((SpanOf(a), person));
        if (a.Helper is { } helper)
            TakeFrom(helper, job, opened);
        _person[job] = -1;
    }

    private Assignment TakeFrom(int person, int job, ICollection<(int Person, int Shift)>? opened)
    {
        var shift = Array.FindIndex(_shifts[person], s => s.Exists(a => a.Job == job));
        var done = _shifts[person][shift];
        var at = done.FindIndex(a => a.Job == job);
        var taken = done[at];
        done.RemoveAt(at);
        opened?.Add((person, shift));
        return taken;
    }

    /// <summary>Lets each job of a shift begin as early as it may, in their order.</summary>
    public void Compact(int person, int shift)
    {
        var done = _shifts[person][shift];
        var free = Problem.People[person].Shifts[shift].From;
        for (var i = 0; i < done.Count; i++)
        {
            var at = done[i];
            if (
                !Stays(at.Job)
                && Openings.At(at.Job, person, shift) is { } opening
                && Earliest(at.Job, opening, free + SetupAt(done, i), crowding: true) is { } start
                && start < at.Start
            )
                Move(done, i, at with { Start = start });
            free = SpanOf(done[i]).To;
        }
    }

    private void Move(List<Assignment> done, int i, Assignment to)
    {
        var down = _down[ZoneOf(to)];
        down[down.IndexOf((SpanOf(done[i]), to.Person))] = (SpanOf(to), to.Person);
        done[i] = to;
    }

    /// <summary>The time a job takes where it stands, without set-up.</summary>
    public Span SpanOf(Assignment a) => new(a.Start, a.Start + Problem.Jobs[a.Job].Minutes);

    private static Opening? OpeningAt(IReadOnlyList<Opening> openings, int person, int minute)
    {
        foreach (var opening in openings)
            if (opening.Person == person)
                foreach (var (first, last) in opening.Starts)
                    if (first <= minute && minute <= last)
                        return opening;
        return null;
    }

    private int ZoneOf(Assignment a) => Problem.Jobs[a.Job].Zone;

    private int NextSetup(int zone, Assignment next) => Problem.Setup(ZoneOf(next), zone);

    private int SetupAt(List<Assignment> shift, int i) => SetupOf(ZoneOf(shift[i]), shift, i);

    /// <summary>The set-up of a job of a zone in a place of a shift.</summary>
    private int SetupOf(int zone, List<Assignment> shift, int at) => Problem.Setup(zone, at > 0 ? ZoneOf(shift[at - 1]) : null);

    private bool Fits(Span shift, List<Assignment> done, int at, Assignment wanted)
    {
        var zone = ZoneOf(wanted);
        var free = at == 0 ? shift.From : SpanOf(done[at - 1]).To;
        var own = SetupOf(zone, done, at);
        return free + own <= wanted.Start
            && (at == done.Count || SpanOf(wanted).To + NextSetup(zone, done[at]) <= done[at].Start);
    }

    private bool Crowded(int zone, Span span, int person) =>
        Problem.Zones[zone].MaxDown is { } most && MostAtOnce(zone, span, person) >= most;

    /// <summary>How many others' jobs of a zone overlap at once within a span; a person's own never do.</summary>
    private int MostAtOnce(int zone, Span span, int person)
    {
        var most = 0;
        foreach (var (one, who) in _down[zone])
        {
            if (who == person || !one.Overlaps(span))
                continue;
            var at = Math.Max(one.From, span.From);
            var count = 0;
            foreach (var (other, whose) in _down[zone])
                count += whose != person && other.From <= at && at < other.To ? 1 : 0;
            most = Math.Max(most, count);
        }
        return most;
    }
}
