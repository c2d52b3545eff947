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
    private readonly Opening[][] _helping;

    /// <summary>Looks at every job in every shift once.</summary>
    public Openings(PlanProblem problem)
    {
        _ofJob = [.. problem.Jobs.Select(job => Find(problem, job, problem.May).ToArray())];
        _helping = [.. problem.Jobs.Select(job => job.TakesTwo ? Find(problem, job, problem.MayHelp).ToArray() : [])];
        _firstShift = new int[problem.People.Count];
        for (var p = 1; p < _firstShift.Length; p++)
            _firstShift[p] = _firstShift[p - 1] + problem.People[p - 1].Shifts.Count;
        var shifts = problem.People.Sum(p => p.Shifts.Count);
        _at = [.. _ofJob.Select(_ => new Opening?[shifts])];
        for (var j = 0; j < _ofJob.Length; j++)
            foreach (var opening in _ofJob[j])
                _at[j][_firstShift[opening.Person] + opening.Shift] = opening;
    }

    /// <summary>When a job may begin in a shift; null where it may not stand in it.</summary>
    public Opening? At(int job, int person, int shift) => _at[job][_firstShift[person] + shift];

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
