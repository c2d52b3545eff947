namespace Pyrometron.Core.Planning;

/// <summary>When one job may begin in one shift.</summary>
/// <param name="Person">Who would do it.</param>
/// <param name="Shift">In which of their shifts.</param>
/// <param name="Starts">The first and the last minute of each stretch.</param>
public sealed record Opening(int Person, int Shift, IReadOnlyList<(int First, int Last)> Starts);

/// <summary>All openings of all jobs of a problem, by job.</summary>
public sealed class Openings
{
    private readonly Opening[][] _ofJob;
    private readonly int[] _firstShift;
    private readonly Opening?[][] _at;
    private readonly (int Person, Span Span)[] _slots;
    private readonly int[] _minutes,
        _zones;
    private readonly double[] _leavingOut;
    private readonly Opening[][] _helping;

    /// <summary>Looks at every job in every shift once.</summary>
    public Openings(PlanProblem problem)
    {
        _ofJob = [.. problem.Jobs.Select(job => Find(problem, job, problem.May).ToArray())];
        _helping = [.. problem.Jobs.Select(job => job.TakesTwo ? Find(problem, job, problem.MayHelp).ToArray() : [])];
        _firstShift = new int[problem.People.Count];
        for (var p = 1; p < _firstShift.Length; p++)
            _firstShift[p] = _firstShift[p - 1] + problem.People[p - 1].Shifts.Count;
        _slots = [.. problem.People.SelectMany((p, person) => p.Shifts.Select(span => (person, span)))];
        _minutes = [.. problem.Jobs.Select(j => j.Minutes)];
        _zones = [.. problem.Jobs.Select(j => j.Zone)];
        _leavingOut = [.. problem.Jobs.Select(problem.LeavingOut)];
        _at = [.. _ofJob.Select(_ => new Opening?[_slots.Length])];
        for (var j = 0; j < _ofJob.Length; j++)
            foreach (var opening in _ofJob[j])
                _at[j][Slot(opening.Person, opening.Shift)] = opening;
    }

    /// <summary>How many shifts all people have.</summary>
    public int Slots => _slots.Length;

    /// <summary>A shift among those of all people.</summary>
    public int Slot(int person, int shift) => _firstShift[person] + shift;

    /// <summary>Whose shift it is among those of all people.</summary>
    public int PersonOf(int slot) => _slots[slot].Person;

    /// <summary>From when to when a shift among those of all people is.</summary>
    public Span SpanOf(int slot) => _slots[slot].Span;

    /// <summary>How long a job takes.</summary>
    public int Minutes(int job) => _minutes[job];

    /// <summary>Index of the zone of a job.</summary>
    public int Zone(int job) => _zones[job];

    /// <summary>What it costs to leave a job out.</summary>
    public double LeavingOut(int job) => _leavingOut[job];

    /// <summary>When a job may begin in a shift; null where it may not stand in it.</summary>
    public Opening? At(int job, int person, int shift) => _at[job][Slot(person, shift)];

    /// <summary>Those of a job.</summary>
    public IReadOnlyList<Opening> Of(int job) => _ofJob[job];

    /// <summary>Those of whoever helps with a job that takes two.</summary>
    public IReadOnlyList<Opening> Helping(int job) => _helping[job];

    private static IEnumerable<Opening> Find(PlanProblem problem, PlanJob job, Func<PlanPerson, PlanJob, bool> may)
    {
        for (var p = 0; p < problem.People.Count; p++)
            if (may(problem.People[p], job))
                for (var s = 0; s < problem.People[p].Shifts.Count; s++)
                    if (problem.Starts(job, problem.People[p].Shifts[s]).ToArray() is { Length: > 0 } starts)
                        yield return new Opening(p, s, starts);
    }
}
