using Pyrometron.Core.Planning;

namespace Pyrometron.Planning;

/// <summary>A shift of somebody.</summary>
/// <param name="Person">Index of the person.</param>
/// <param name="Index">Which of their shifts.</param>
/// <param name="Span">From when to when.</param>
internal readonly record struct Shift(int Person, int Index, Span Span);

/// <summary>What the solver's model reads off a problem: shifts, who may do what where, and costs in whole numbers.</summary>
internal sealed class Shifts
{
    /// <summary>Costs are counted in thousandths, rounded down: so a bound stays one. Less fine where weights are huge.</summary>
    private readonly double _scale;

    public Shifts(PlanProblem problem)
    {
        Problem = problem;
        All = [.. problem.People.SelectMany((p, i) => p.Shifts.Select((span, k) => new Shift(i, k, span)))];
        var largest = problem.Jobs.Select(problem.LeavingOut).DefaultIfEmpty(0).Max();
        _scale = Math.Min(1000, 1e12 / Math.Max(1, largest));
    }

    public PlanProblem Problem { get; }

    public IReadOnlyList<Shift> All { get; }

    public long Scaled(double cost) => (long)Math.Floor((cost * _scale) + 1e-6);

    public double Unscaled(double scaled) => scaled / _scale;

    /// <summary>
    /// Where a job may stand in a shift: the minutes at which it may begin, day by day, since its cost is that of the day.
    /// </summary>
    /// <param name="helps">Whether it is helped with there, not done.</param>
    public IEnumerable<(int Day, long[] Starts)> Places(PlanJob job, Shift shift, bool helps = false)
    {
        var person = Problem.People[shift.Person];
        if (helps ? !Problem.MayHelp(person, job) : !Problem.May(person, job))
            return [];
        if (job.Locked is { } locked)
            return
                (helps ? MayHelp(locked, shift.Person) : locked.Person == shift.Person)
                && shift.Span.Holds(new Span(locked.Start, locked.Start + job.Minutes))
                ? [(locked.Start / PlanProblem.Day, [locked.Start, locked.Start])]
                : [];
        var byDay = new SortedDictionary<int, List<long>>();
        foreach (var (first, last) in Problem.Starts(job, shift.Span))
            for (var day = first / PlanProblem.Day; day <= last / PlanProblem.Day; day++)
            {
                if (!byDay.TryGetValue(day, out var starts))
                    byDay[day] = starts = [];
                starts.Add(Math.Max(first, day * PlanProblem.Day));
                starts.Add(Math.Min(last, ((day + 1) * PlanProblem.Day) - 1));
            }
        return byDay.Select(d => (d.Key, d.Value.ToArray()));
    }

    private static bool MayHelp(PlanLock locked, int person) =>
        locked.Helper is { } helper ? helper == person : locked.Person != person;
}
