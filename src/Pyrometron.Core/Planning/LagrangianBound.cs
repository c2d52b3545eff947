namespace Pyrometron.Core.Planning;

/// <summary>
/// A proven lower bound of what any plan costs. That each job is done once, and that a zone has only so many machines down, is
/// let go against a price; what is left falls apart into one knapsack a shift, with a set-up for each zone that is visited, which
/// is solved exactly. Whatever the prices, no plan costs less than that; they are bettered by subgradient steps. M. L. Fisher,
/// The Lagrangian relaxation method for solving integer programming problems, Management Science 27 (1981) 1–18.
/// </summary>
public sealed class LagrangianBound
{
    /// <summary>
    /// Steps of time that a shift is cut into at most; jobs are rounded down to them, so that the bound stays one.
    /// </summary>
    private const int MostSteps = 960;

    /// <summary>Rounds without a better bound after which the steps are halved.</summary>
    private const int Patience = 100;

    /// <summary>How much of the last direction is kept: prices else swing from one side of the best to the other.</summary>
    private const double Memory = 0.95;

    /// <summary>With smaller steps nothing is gained any more.</summary>
    private const double LeastStride = 1e-5;

    private readonly PlanProblem _problem;
    private readonly Knapsack[] _shifts;
    private readonly double[] _price;
    private readonly double[] _way;
    private readonly List<Limit> _limits;
    private double _stride = 1;
    private int _stalled;

    /// <summary>Sets the shifts of a problem up; the first prices are what a plan pays for each job.</summary>
    public LagrangianBound(Roster plan)
    {
        _problem = plan.Problem;
        _limits = Limits(_problem);
        _shifts = [.. Shifts(_problem).Select(s => new Knapsack(_problem, plan.Openings, s.Person, s.Index, _limits))];
        (_price, _way) = (new double[_problem.Jobs.Count], new double[_problem.Jobs.Count]);
        foreach (var a in plan.Assignments)
            _price[a.Job] = PlanProblem.Placing(_problem.Jobs[a.Job], a.Person, a.Start / PlanProblem.Day);
        Best = _problem.Unavoidable;
    }

    /// <summary>The best bound so far.</summary>
    public double Best { get; private set; }

    /// <summary>One round: the bound at these prices, then better prices.</summary>
    /// <param name="known">What the best known plan costs.</param>
    /// <returns>False when nothing is to be gained any more.</returns>
    public bool Round(double known)
    {
        var done = new int[_price.Length];
        var used = new double[_limits.Count];
        var bound = 0.0;
        for (var j = 0; j < _price.Length; j++)
            bound += _price[j];
        for (var l = 0; l < _limits.Count; l++)
            bound -= _limits[l].Price * _limits[l].Minutes;
        foreach (var shift in _shifts)
            bound += shift.Solve(_price, done, used);
        if (bound > Best + 1e-9)
            (Best, _stalled) = (bound, 0);
        else if (++_stalled >= Patience)
            (_stride, _stalled) = (_stride / 2, 0);
        return Better(known - bound, done, used);
    }

    private bool Better(double room, int[] done, double[] used)
    {
        var norm = 0.0;
        for (var j = 0; j < _price.Length; j++)
        {
            _way[j] = (Memory * _way[j]) + ((1 - Memory) * (1 - done[j]));
            norm += _way[j] * _way[j];
        }
        for (var l = 0; l < _limits.Count; l++)
        {
            var over = (used[l] - _limits[l].Minutes) / PlanProblem.Day;
            _limits[l].Way = (Memory * _limits[l].Way) + ((1 - Memory) * over);
            norm += _limits[l].Way * _limits[l].Way;
        }
        if (norm < 1e-12 || room < 1e-9 || _stride < LeastStride)
            return false;
        var step = _stride * room / norm;
        for (var j = 0; j < _price.Length; j++)
            _price[j] = Math.Clamp(_price[j] + (step * _way[j]), 0, _problem.LeavingOut(_problem.Jobs[j]));
        foreach (var limit in _limits)
            limit.Price = Math.Max(0, limit.Price + (step * limit.Way / PlanProblem.Day));
        return true;
    }

    private static IEnumerable<(int Person, int Index)> Shifts(PlanProblem problem) =>
        problem.People.SelectMany((p, i) => p.Shifts.Select((_, k) => (i, k)));

    /// <summary>
    /// What a zone with a limit holds on one day: the limit times the time in which somebody can be there. Shifts over midnight
    /// are left out of it.
    /// </summary>
    private static List<Limit> Limits(PlanProblem problem)
    {
        var limits = new List<Limit>();
        for (var z = 0; z < problem.Zones.Count; z++)
            if (problem.Zones[z] is { MaxDown: { } most } zone)
                for (var day = 0; day < problem.Days; day++)
                {
                    var whole = new Span(day * PlanProblem.Day, (day + 1) * PlanProblem.Day);
                    var here = problem
                        .People.Where(p => p.Sites?.Contains(zone.Site) != false)
                        .SelectMany(p => p.Shifts)
                        .Where(whole.Holds)
                        .SelectMany(s => (zone.Windows ?? [problem.Horizon]).Select(w => w.And(s)))
                        .ToList();
                    if (here.Count > most)
                        limits.Add(new Limit(z, whole, (double)most * Span.Merged(here).Sum(s => s.Minutes)));
                }
        return limits;
    }

    /// <summary>The minutes that may be worked in a zone on a day, and what one is priced at.</summary>
    private sealed class Limit(int zone, Span day, double minutes)
    {
        public int Zone => zone;
        public Span Day => day;
        public double Minutes => minutes;
        public double Price { get; set; }
        public double Way { get; set; }
    }

    /// <summary>One shift: which jobs are worth most in it at the prices.</summary>
    private sealed class Knapsack
    {
        private readonly int _step,
            _room,
            _windowed;

        private readonly List<ZoneItems> _zones = [];
        private readonly double[] _value;
        private readonly double[] _open;
        private readonly List<bool[]> _taken = [];

        public Knapsack(PlanProblem problem, Openings openings, int person, int index, List<Limit> limits)
        {
            var span = problem.People[person].Shifts[index];
            _step = Math.Max(1, (int)Math.Ceiling(span.Minutes / (double)MostSteps));
            var jobs = new List<(int Job, Opening Opening)>();
            for (var j = 0; j < problem.Jobs.Count; j++)
                foreach (var opening in openings.Of(j))
                    if (opening.Person == person && opening.Shift == index && MayLocked(problem.Jobs[j], person, span))
                        jobs.Add((j, opening));
            if (_step == 1)
                _step = Math.Max(
                    1,
                    jobs.Select(j => problem.Jobs[j.Job].Minutes)
                        .Concat(jobs.Select(j => problem.Zones[problem.Jobs[j.Job].Zone].SetupMinutes))
                        .Aggregate(0, Divisor)
                );
            _room = Steps(span.Minutes, up: true);
            var open = new List<Span>();
            var largest = 0;
            foreach (var zone in jobs.GroupBy(j => problem.Jobs[j.Job].Zone).OrderBy(z => problem.Zones[z.Key].Windows is null))
            {
                var of = problem.Zones[zone.Key];
                var limit = limits.FindIndex(l => l.Zone == zone.Key && l.Day.Holds(span));
                _zones.Add(
                    new ZoneItems(
                        of.Windows is not null,
                        Steps(of.SetupMinutes, up: false),
                        PlanProblem.SetupCost * of.SetupMinutes,
                        limit < 0 ? null : limits[limit],
                        limit,
                        [
                            .. zone.Select(j => new Item(
                                j.Job,
                                problem.Jobs[j.Job].Minutes,
                                Steps(problem.Jobs[j.Job].Minutes, up: false),
                                Least(problem.Jobs[j.Job], j.Opening)
                            )),
                        ]
                    )
                );
                if (of.Windows is { } windows)
                {
                    open.AddRange(windows.Select(w => w.And(span)));
                    largest = Math.Max(largest, of.SetupMinutes);
                }
            }
            // In one stretch of windows only the first set-up can stand before it.
            var stretches = Span.Merged(open);
            _windowed = Math.Min(_room, Steps(stretches.Sum(s => s.Minutes + largest), up: true));
            (_value, _open) = (new double[_room + 1], new double[_room + 1]);
            foreach (var _ in _zones.SelectMany(z => z.Items))
                _taken.Add(new bool[_room + 1]);
        }

        private static bool MayLocked(PlanJob job, int person, Span span) =>
            job.Locked is not { } locked || (locked.Person == person && span.From <= locked.Start && locked.Start < span.To);

        /// <summary>The least cost less prices; counts what is done in it.</summary>
        public double Solve(double[] price, int[] done, double[] used)
        {
            // _value[c]: the least cost with at most c steps taken by the zones so far.
            Array.Clear(_value);
            var opened = new List<bool[]>();
            var at = 0;
            foreach (var zone in _zones)
            {
                var room = zone.Windowed ? _windowed : _room;
                for (var c = 0; c <= _room; c++)
                    _open[c] = c >= zone.Setup && c <= room ? _value[c - zone.Setup] + zone.SetupCost : double.PositiveInfinity;
                foreach (var item in zone.Items)
                {
                    var taken = _taken[at++];
                    Array.Clear(taken);
                    var worth = item.Cost - price[item.Job] + ((zone.Limit?.Price ?? 0) * item.Minutes);
                    if (worth >= 0)
                        continue;
                    for (var c = room; c >= item.Steps; c--)
                        if (_open[c - item.Steps] + worth < _open[c])
                            (_open[c], taken[c]) = (_open[c - item.Steps] + worth, true);
                }
                var chosen = new bool[_room + 1];
                for (var c = 0; c <= _room; c++)
                    if (_open[c] < _value[c])
                        (_value[c], chosen[c]) = (_open[c], true);
                if (zone.Windowed)
                    // What the windows did not take is room for the others.
                    for (var c = room + 1; c <= _room; c++)
                        _value[c] = _value[room];
                opened.Add(chosen);
            }
            Trace(opened, done, used);
            return _value[_room];
        }

        private void Trace(List<bool[]> opened, int[] done, double[] used)
        {
            var (c, at) = (_room, _taken.Count);
            for (var z = _zones.Count - 1; z >= 0; z--)
            {
                var zone = _zones[z];
                if (zone.Windowed)
                    c = Math.Min(c, _windowed);
                at -= zone.Items.Count;
                if (!opened[z][c])
                    continue;
                for (var i = zone.Items.Count - 1; i >= 0; i--)
                    if (_taken[at + i][c])
                    {
                        var item = zone.Items[i];
                        c -= item.Steps;
                        done[item.Job]++;
                        if (zone.Limit is not null)
                            used[zone.LimitIndex] += item.Minutes;
                    }
                c -= zone.Setup;
            }
        }

        /// <summary>What a job costs at least in a shift, on whichever of its days.</summary>
        private static double Least(PlanJob job, Opening opening) =>
            opening
                .Starts.SelectMany(s => (int[])[s.First / PlanProblem.Day, s.Last / PlanProblem.Day])
                .Min(day => PlanProblem.Placing(job, opening.Person, day));

        private int Steps(int minutes, bool up) => up ? (minutes + _step - 1) / _step : minutes / _step;

        private static int Divisor(int a, int b) => b == 0 ? a : Divisor(b, a % b);

        private sealed record Item(int Job, int Minutes, int Steps, double Cost);

        private sealed record ZoneItems(
            bool Windowed,
            int Setup,
            double SetupCost,
            Limit? Limit,
            int LimitIndex,
            IReadOnlyList<Item> Items
        );
    }
}
