using Pyrometron.Core.Planning;

namespace Pyrometron.Planning.Tests;

/// <summary>
/// A second opinion on a plan, minute by minute, written apart from whatever makes plans: whether it keeps every rule, and what
/// it costs.
/// </summary>
internal static class PlanCheck
{
    /// <summary>The cost.</summary>
    /// <exception cref="InvalidOperationException">A rule is broken; says which.</exception>
    public static double Cost(PlanProblem problem, IReadOnlyList<Assignment> plan)
    {
        void Must(bool holds, string rule, Assignment a)
        {
            if (!holds)
                throw new InvalidOperationException($"{rule}: {problem.Jobs[a.Job].Id} at minute {a.Start}");
        }

        var placed = new HashSet<int>();
        var setup = 0;
        var cost = 0.0;
        foreach (var a in plan)
        {
            var (job, person) = (problem.Jobs[a.Job], problem.People[a.Person]);
            var zone = problem.Zones[job.Zone];
            var end = a.Start + job.Minutes;
            Must(placed.Add(a.Job), "placed twice", a);
            Must(job.Skills.All(person.Skills.Contains), "lacks a skill", a);
            Must(person.Sites is null || person.Sites.Contains(zone.Site), "works elsewhere", a);
            Must(a.Start >= job.NotBefore, "too early", a);
            Must(zone.Windows is null || zone.Windows.Any(w => w.From <= a.Start && end <= w.To), "outside a window", a);
            Must(job.Windows is null || job.Windows.Any(w => w.From <= a.Start && end <= w.To), "outside its own windows", a);
            Must(
                job.Locked is not { } fixedAt || (fixedAt.Person == a.Person && fixedAt.Start == a.Start),
                "locked elsewhere",
                a
            );
            Must(job.Locked?.Helper is not { } fixedHelper || fixedHelper == a.Helper, "helped by somebody else", a);
            Must(job.TakesTwo == a.Helper is not null, "takes two, or does not", a);
            if (a.Helper is { } other)
            {
                var helper = problem.People[other];
                Must(other != a.Person, "helps themselves", a);
                Must(job.HelperSkills!.All(helper.Skills.Contains), "helper lacks a skill", a);
                Must(helper.Sites is null || helper.Sites.Contains(zone.Site), "helper works elsewhere", a);
                Must(helper.Shifts.Any(s => s.From <= a.Start && end <= s.To), "outside the helper's shifts", a);
            }
            Must(person.Shifts.Any(s => s.From <= a.Start && end <= s.To), "outside the shifts", a);
            cost += job.DueDay is { } due ? job.Weight * Math.Max(0, (a.Start / 1440) - due) : 0;
            if (job.Before is { } old && (old.Person != a.Person || old.Start / 1440 != a.Start / 1440))
                cost += job.MoveCost;
        }
        for (var p = 0; p < problem.People.Count; p++)
            foreach (var shift in problem.People[p].Shifts)
            {
                var (free, last) = (shift.From, -1);
                foreach (
                    var a in plan.Where(a => (a.Person == p || a.Helper == p) && shift.From <= a.Start && a.Start < shift.To)
                        .OrderBy(a => a.Start)
                        .ThenBy(a => problem.Jobs[a.Job].Minutes)
                )
                {
                    var zone = problem.Jobs[a.Job].Zone;
                    var way =
                        last < 0 ? 0
                        : problem.Zones[last].Site == problem.Zones[zone].Site ? problem.Walking.WithinSite
                        : problem.Walking.BetweenSites;
                    var needed = zone == last ? 0 : problem.Zones[zone].SetupMinutes + way;
                    Must(free + needed <= a.Start, "no time for set-up, or two things at once", a);
                    (free, last, setup) = (a.Start + problem.Jobs[a.Job].Minutes, zone, setup + needed);
                }
            }
        var down = new int[problem.Zones.Count, problem.Days * 1440];
        foreach (var a in plan)
            for (var minute = a.Start; minute < a.Start + problem.Jobs[a.Job].Minutes; minute++)
            {
                var zone = problem.Jobs[a.Job].Zone;
                Must(++down[zone, minute] <= (problem.Zones[zone].MaxDown ?? int.MaxValue), "too many down at once", a);
            }
        for (var j = 0; j < problem.Jobs.Count; j++)
            if (!placed.Contains(j))
            {
                var job = problem.Jobs[j];
                cost += job.Weight * ((job.DueDay is { } due ? Math.Max(0, problem.Days - due) : 0) + 10);
            }
        return cost + (0.01 * setup);
    }
}
