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
    private const int Unknown = int.MinValue;

    // What is done in each shift, by Openings.Slot. Copies share these lists, and those of _down, until one of them is changed.
    private readonly List<Assignment>[] _shifts;
    private readonly List<(Span Span, int Person)>[] _down;
    private readonly bool[] _ownShifts,
        _ownDown;
    private readonly int[] _idle;
    private readonly double[] _costs;
    private readonly int[] _person;

    /// <summary>An empty plan.</summary>
    public Roster(PlanProblem problem)
        : this(problem, new Openings(problem)) { }

    private Roster(PlanProblem problem, Openings openings)
    {
        (Problem, Openings) = (problem, openings);
        _shifts = [.. Enumerable.Range(0, Openings.Slots).Select(_ => new List<Assignment>())];
        _down = [.. problem.Zones.Select(_ => new List<(Span, int)>())];
        (_ownShifts, _ownDown) = (new bool[_shifts.Length], new bool[_down.Length]);
        (_idle, _costs) = (new int[_shifts.Length], new double[_shifts.Length]);
        Array.Fill(_idle, Unknown);
        _person = [.. Enumerable.Repeat(-1, problem.Jobs.Count)];
    }

    private Roster(Roster other)
    {
        (Problem, Openings) = (other.Problem, other.Openings);
        _shifts = [.. other._shifts];
        _down = [.. other._down];
        Array.Clear(other._ownShifts);
        Array.Clear(other._ownDown);
        (_ownShifts, _ownDown) = (new bool[_shifts.Length], new bool[_down.Length]);
        _idle = [.. other._idle];
        _costs = [.. other._costs];
        _person = [.. other._person];
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
    public Roster Copy() => new(this);

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
    public IReadOnlyList<Assignment> Assignments
    {
        get
        {
            var all = new List<Assignment>();
            CopyTo(all);
            return [.. all.OrderBy(a => a.Start).ThenBy(a => a.Person).ThenBy(a => a.Job)];
        }
    }

    /// <summary>The same in no order, into a list that is there already.</summary>
    internal void CopyTo(List<Assignment> list)
    {
        list.Clear();
        for (var slot = 0; slot < _shifts.Length; slot++)
            foreach (var a in _shifts[slot])
                if (a.Person == Openings.PersonOf(slot))
                    list.Add(a);
    }

    /// <summary>Whether a job has its place.</summary>
    public bool Has(int job) => _person[job] >= 0;

    /// <summary>What is done in a shift, in order; also what is only helped with.</summary>
    public IReadOnlyList<Assignment> Of(int person, int shift) => _shifts[Openings.Slot(person, shift)];

    /// <summary>Minutes of set-up directly before one of the jobs of a shift.</summary>
    /// <param name="at">Which of them, counted from the first.</param>
    public int SetupBefore(int person, int shift, int at) => SetupAt(_shifts[Openings.Slot(person, shift)], at);

    /// <summary>What it costs.</summary>
    public double Cost
    {
        get
        {
            double cost = 0;
            for (var j = 0; j < _person.Length; j++)
                if (_person[j] < 0)
                    cost += Openings.LeavingOut(j);
            for (var slot = 0; slot < _shifts.Length; slot++)
            {
                Known(slot);
                cost += _costs[slot];
            }
            return cost;
        }
    }

    /// <summary>The minutes of a shift in which nothing is done and nothing set up.</summary>
    private int Idle(int slot)
    {
        Known(slot);
        return _idle[slot];
    }

    /// <summary>Works out what a shift costs and how much of it is idle, if it has changed since.</summary>
    private void Known(int slot)
    {
        if (_idle[slot] != Unknown)
            return;
        var (done, person) = (_shifts[slot], Openings.PersonOf(slot));
        var (idle, cost) = (Openings.SpanOf(slot).Minutes, 0.0);
        for (var i = 0; i < done.Count; i++)
        {
            var setup = SetupAt(done, i);
            idle -= Openings.Minutes(done[i].Job) + setup;
            cost += PlanProblem.SetupCost * setup;
            if (done[i].Person == person)
                cost += PlanProblem.Placing(Problem.Jobs[done[i].Job], person, done[i].Start / PlanProblem.Day);
        }
        // Another thread that reads this plan may do the same: what says that it is known is written last.
        _costs[slot] = cost;
        Volatile.Write(ref _idle[slot], idle);
    }

    /// <summary>What is done in a shift, to be changed.</summary>
    private List<Assignment> Changing(int slot)
    {
        if (!_ownShifts[slot])
            (_shifts[slot], _ownShifts[slot]) = ([.. _shifts[slot]], true);
        _idle[slot] = Unknown;
        return _shifts[slot];
    }

    /// <summary>When machines of a zone are down, to be changed.</summary>
    private List<(Span Span, int Person)> ChangingDown(int zone)
    {
        if (!_ownDown[zone])
            (_down[zone], _ownDown[zone]) = ([.. _down[zone]], true);
        return _down[zone];
    }

    /// <summary>Puts a job where it is said to stand, if no rule forbids it.</summary>
    public bool TryPut(Assignment wanted)
    {
        var job = Problem.Jobs[wanted.Job];
        if (Has(wanted.Job) || Seat(wanted, wanted.Person, Openings.Of(wanted.Job)) is not { } seat || Crowded(wanted))
            return false;
        if (!job.TakesTwo)
            wanted = wanted with { Helper = null };
        else if (HelperFor(wanted) is { } helper)
        {
            wanted = wanted with { Helper = helper.Person };
            Changing(Openings.Slot(helper.Person, helper.Shift)).Insert(helper.At, wanted);
        }
        else
            return false;
        Changing(Openings.Slot(wanted.Person, seat.Shift)).Insert(seat.At, wanted);
        ChangingDown(job.Zone).Add((SpanOf(wanted), wanted.Person));
        _person[wanted.Job] = wanted.Person;
        return true;
    }

    /// <summary>Where in somebody's shifts a job can be put at its time; null where it cannot.</summary>
    private (int Shift, int At)? Seat(Assignment wanted, int person, IReadOnlyList<Opening> openings)
    {
        if (OpeningAt(openings, person, wanted.Start) is not { Shift: var shift })
            return null;
        var done = _shifts[Openings.Slot(person, shift)];
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
        ChangingDown(Openings.Zone(job)).Remove((SpanOf(a), person));
        if (a.Helper is { } helper)
            TakeFrom(helper, job, opened);
        _person[job] = -1;
    }

    private Assignment TakeFrom(int person, int job, ICollection<(int Person, int Shift)>? opened)
    {
        for (var shift = 0; ; shift++)
        {
            var slot = Openings.Slot(person, shift);
            if (_shifts[slot].FindIndex(a => a.Job == job) is not (>= 0 and var at))
                continue;
            var taken = _shifts[slot][at];
            Changing(slot).RemoveAt(at);
            opened?.Add((person, shift));
            return taken;
        }
    }

    /// <summary>Lets each job of a shift begin as early as it may, in their order.</summary>
    public void Compact(int person, int shift)
    {
        var slot = Openings.Slot(person, shift);
        var free = Openings.SpanOf(slot).From;
        for (var i = 0; i < _shifts[slot].Count; i++)
        {
            var (done, at) = (_shifts[slot], _shifts[slot][i]);
            if (
                !Stays(at.Job)
                && Openings.At(at.Job, person, shift) is { } opening
                && Earliest(at.Job, opening, free + SetupAt(done, i), crowding: true) is { } start
                && start < at.Start
            )
                Move(slot, i, at with { Start = start });
            free = SpanOf(_shifts[slot][i]).To;
        }
    }

    private void Move(int slot, int i, Assignment to)
    {
        var (done, down) = (Changing(slot), ChangingDown(ZoneOf(to)));
        down[down.IndexOf((SpanOf(done[i]), to.Person))] = (SpanOf(to), to.Person);
        done[i] = to;
    }

    /// <summary>The time a job takes where it stands, without set-up.</summary>
    public Span SpanOf(Assignment a) => new(a.Start, a.Start + Openings.Minutes(a.Job));

    private static Opening? OpeningAt(IReadOnlyList<Opening> openings, int person, int minute)
    {
        foreach (var opening in openings)
            if (opening.Person == person)
                foreach (var (first, last) in opening.Starts)
                    if (first <= minute && minute <= last)
                        return opening;
        return null;
    }

    private int ZoneOf(Assignment a) => Openings.Zone(a.Job);

    private bool Crowded(Assignment a) =>
        Problem.Zones[ZoneOf(a)].MaxDown is { } most && Uncrowded(a.Job, most, a.Start, a.Start, a.Person) != a.Start;

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
}
