namespace Pyrometron.Core.Planning;

/// <summary>
/// Makes a plan better by taking jobs out that have to do with one another and putting each back where it then costs least, over
/// and over; a plan that became a little dearer is gone on from, the less the longer it runs. Schrimpf et al., Record breaking
/// optimization results using the ruin and recreate principle, J. Comput. Phys. 159 (2000) 139–171.
/// </summary>
public sealed class RuinAndRecreate
{
    /// <summary>Jobs taken out at once, at least and at most.</summary>
    private const int Fewest = 3,
        Most = 12;

    /// <summary>How often a place that costs least is passed over, so that not every round ends alike.</summary>
    private const double Blink = 0.02;

    private readonly Random _chance;
    private readonly List<Place> _places = [];
    private readonly List<Assignment> _standing = [];
    private double _cost,
        _bestCost;
    private Roster _now;

    /// <param name="start">The plan to begin with.</param>
    /// <param name="seed">The same seed makes the same choices.</param>
    public RuinAndRecreate(Roster start, int seed)
    {
        Best = _now = start;
        _cost = _bestCost = start.Cost;
        _chance = new Random(seed);
    }

    /// <summary>The best plan so far.</summary>
    public Roster Best { get; private set; }

    /// <summary>One round.</summary>
    /// <param name="heat">By how much dearer a plan may become and be gone on from, in the mean.</param>
    /// <returns>Whether it found a better plan than ever.</returns>
    public bool Round(double heat)
    {
        var next = _now.Copy();
        var taken = Ruin(next);
        Recreate(next, taken);
        var cost = next.Cost;
        if (cost > _cost - (heat * Math.Log(1 - _chance.NextDouble())))
            return false;
        (_now, _cost) = (next, cost);
        if (cost >= _bestCost - 1e-9)
            return false;
        (Best, _bestCost) = (next, cost);
        return true;
    }

    /// <summary>Takes out some jobs of a shift, of a zone, or of a day, and all that had no place.</summary>
    private List<int> Ruin(Roster roster)
    {
        var jobs = roster.Problem.Jobs;
        var taken = new List<int>();
        for (var j = 0; j < jobs.Count; j++)
            if (!roster.Has(j))
                taken.Add(j);
        roster.CopyTo(_standing);
        _standing.RemoveAll(a => jobs[a.Job].Locked is not null);
        if (_standing.Count == 0)
            return taken;
        var centre = _standing[_chance.Next(_standing.Count)];
        var kind = _chance.Next(3);
        bool Kin(Assignment a) =>
            kind switch
            {
                0 => a.Person == centre.Person && Math.Abs(a.Start - centre.Start) < PlanProblem.Day,
                1 => jobs[a.Job].Zone == jobs[centre.Job].Zone,
                _ => a.Start / PlanProblem.Day == centre.Start / PlanProblem.Day,
            };
        var stranger = _standing[_chance.Next(_standing.Count)];
        _standing.RemoveAll(a => !Kin(a));
        var opened = new HashSet<(int Person, int Shift)>();
        var count = Math.Min(_standing.Count, _chance.Next(Fewest, Most + 1));
        for (var i = 0; i < count; i++)
        {
            var pick = _chance.Next(i, _standing.Count);
            (_standing[i], _standing[pick]) = (_standing[pick], _standing[i]);
            roster.Take(_standing[i].Job, opened);
            taken.Add(_standing[i].Job);
        }
        if (roster.Has(stranger.Job))
        {
            roster.Take(stranger.Job, opened);
            taken.Add(stranger.Job);
        }
        foreach (var (person, shift) in opened)
            roster.Compact(person, shift);
        return taken;
    }

    private void Recreate(Roster roster, List<int> taken)
    {
        var jobs = roster.Problem.Jobs;
        var noise = taken.ToDictionary(j => j, _ => 0.7 + (0.6 * _chance.NextDouble()));
        IEnumerable<int> order = _chance.Next(4) switch
        {
            0 => taken.OrderBy(_ => _chance.Next()),
            1 => taken.OrderBy(j => (jobs[j].DueDay ?? int.MaxValue) - (2 * noise[j])).ThenByDescending(j => jobs[j].Weight),
            2 => taken.OrderByDescending(j => jobs[j].Minutes * noise[j]),
            _ => taken.OrderByDescending(j => noise[j] * jobs[j].Weight / (jobs[j].Minutes + 10)),
        };
        var price = PlanProblem.SetupCost * Math.Pow(20, _chance.NextDouble());
        var late = _chance.Next(2) == 0;
        foreach (var job in order)
            if (GreedyPlanner.Cheapest(roster, job, price, _places, () => _chance.NextDouble() < Blink, late) is { } best)
                roster.Put(job, best.Opening, best.Place);
    }
}
