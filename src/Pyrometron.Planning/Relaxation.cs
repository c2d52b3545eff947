using Google.OrTools.Sat;
using Pyrometron.Core.Planning;

namespace Pyrometron.Planning;

/// <summary>
/// Which job in which shift, without saying when: what a shift, its zones' windows and the limits of machines down hold in sum, and
/// a set-up for each zone that is visited. Every plan keeps all of that, so no plan costs less than the least cost here.
/// </summary>
internal static class Relaxation
{
    /// <param name="Bound">What every plan costs at least.</param>
    /// <param name="Shift">The shift each job was given; −1 where it was left out.</param>
    public sealed record Answer(double Bound, int[] Shift);

    public static Answer? Solve(Shifts shifts, Roster hint, double seconds, CancellationToken cancel)
    {
        var problem = shifts.Problem;
        var model = new CpModel();
        var load = shifts.All.Select(_ => new List<(BoolVar, int)>()).ToList();
        var visits = new Dictionary<(int Shift, int Zone), BoolVar>();
        var inside = new Dictionary<(int Shift, int Zone), List<(BoolVar, int)>>();
        var choices = new List<(int Shift, BoolVar Var)>[problem.Jobs.Count];
        var terms = new List<BoolVar>();
        var costs = new List<long>();
        void Costs(BoolVar variable, double cost)
        {
            terms.Add(variable);
            costs.Add(shifts.Scaled(cost));
        }

        var hinted = hint.Assignments.ToDictionary(a => a.Job);
        for (var j = 0; j < problem.Jobs.Count; j++)
        {
            var job = problem.Jobs[j];
            choices[j] = [];
            for (var s = 0; s < shifts.All.Count; s++)
            {
                var day = shifts.Places(job, shifts.All[s]).Select(p => p.Day).DefaultIfEmpty(-1).First();
                if (day < 0)
                    continue;
                var x = model.NewBoolVar("");
                choices[j].Add((s, x));
                Costs(x, PlanProblem.Lateness(job, day));
                load[s].Add((x, job.Minutes));
                var key = (s, job.Zone);
                if (!visits.TryGetValue(key, out var y))
                {
                    visits[key] = y = model.NewBoolVar("");
                    inside[key] = [];
                    Costs(y, PlanProblem.SetupCost * problem.Zones[job.Zone].SetupMinutes);
                    load[s].Add((y, problem.Zones[job.Zone].SetupMinutes));
                }
                inside[key].Add((x, job.Minutes));
                model.AddImplication(x, y);
                var here = hinted.TryGetValue(j, out var a) && Stands(shifts.All[s], a);
                model.AddHint(x, here);
            }
            var all = choices[j].Select(c => c.Var).ToList();
            if (job.Locked is null)
            {
                var left = model.NewBoolVar("");
                Costs(left, problem.LeavingOut(job));
                all.Add(left);
                model.AddHint(left, !hinted.ContainsKey(j));
            }
            model.AddExactlyOne(all);
        }
        for (var s = 0; s < shifts.All.Count; s++)
        {
            model.Add(Sum(load[s]) <= shifts.All[s].Span.Minutes);
            foreach (var key in visits.Keys.Where(k => k.Shift == s && problem.Zones[k.Zone].Windows is not null))
                WindowsHold(model, shifts, s, problem.Zones[key.Zone].Windows!, inside);
        }
        LimitsHold(model, shifts, inside);
        model.Minimize(LinearExpr.WeightedSum(terms, costs));

        var solver = new CpSolver
        {
            StringParameters = $"max_time_in_seconds:{seconds:0.##},num_workers:{Workers.Count},linearization_level:2",
        };
        using var stop = cancel.Register(solver.StopSearch);
        var status = solver.Solve(model);
        if (status is not (CpSolverStatus.Optimal or CpSolverStatus.Feasible))
            return status is CpSolverStatus.Unknown ? new Answer(shifts.Unscaled(solver.BestObjectiveBound), []) : null;
        return new Answer(
            shifts.Unscaled(solver.BestObjectiveBound),
            [.. choices.Select(c => c.Where(x => solver.BooleanValue(x.Var)).Select(x => x.Shift).DefaultIfEmpty(-1).First())]
        );
    }

    private static bool Stands(Shift shift, Assignment a) => shift.Person == a.Person && shift.Span.From <= a.Start && a.Start < shift.Span.To;

    private static LinearExpr Sum(List<(BoolVar Var, int Minutes)> load) =>
        LinearExpr.WeightedSum(load.Select(l => l.Var), load.Select(l => (long)l.Minutes));

    /// <summary>All zones that are open only within some windows share the time of these windows.</summary>
    private static void WindowsHold(
        CpModel model,
        Shifts shifts,
        int s,
        IReadOnlyList<Span> windows,
        Dictionary<(int Shift, int Zone), List<(BoolVar, int)>> inside
    )
    {
        var span = shifts.All[s].Span;
        var open = Open(windows, span);
        var within = inside
            .Where(i => i.Key.Shift == s && shifts.Problem.Zones[i.Key.Zone].Windows is { } other
                && Open(other, span).All(o => open.Any(w => w.Holds(o))))
            .SelectMany(i => i.Value)
            .ToList();
        model.Add(Sum(within) <= open.Sum(o => o.Minutes));
    }

    /// <summary>What is down at once in a zone during a day is at most its limit times the time in which anybody works.</summary>
    private static void LimitsHold(CpModel model, Shifts shifts, Dictionary<(int Shift, int Zone), List<(BoolVar, int)>> inside)
    {
        foreach (var group in shifts.Groups)
            for (var z = 0; z < shifts.Problem.Zones.Count; z++)
                if (shifts.Problem.Zones[z] is { MaxDown: { } most } zone)
                {
                    var here = group.Where(s => inside.ContainsKey((s, z))).ToList();
                    var time = Span.Merged(here.SelectMany(s => Open(zone.Windows ?? [shifts.Problem.Horizon], shifts.All[s].Span)));
                    if (here.Count > most)
                        model.Add(Sum([.. here.SelectMany(s => inside[(s, z)])]) <= (long)most * time.Sum(t => t.Minutes));
                }
    }

    private static List<Span> Open(IReadOnlyList<Span> windows, Span shift) =>
        [.. windows.Select(w => w.And(shift)).Where(w => w.Minutes > 0)];
}
