using System.Diagnostics;
using System.Globalization;
using Pyrometron.Core.Planning;
using Pyrometron.Planning;

namespace Pyrometron.Bench;

/// <summary>
/// Plans weeks that are made up from a seed on: 300 jobs, 8 people, 10 days, with windows, limits, skills and set-ups; and prints
/// how near the plan comes to its bound, beside what the first free slot by due day costs. Each also with 20 jobs, to be proven.
/// </summary>
internal static class PlanCommand
{
    private static readonly string[] Skills = ["lift", "pads", "laptops"];

    public static int Run(int seed, int count, double seconds)
    {
        Console.WriteLine("seed  jobs  first free slot     plan    bound   gap   gap beyond unavoidable   seconds");
        var (gaps, beyond) = (new List<double>(), new List<double>());
        var again = new List<string>();
        for (var s = seed; s < seed + count; s++)
            foreach (var jobs in (int[])[300, 20])
            {
                var problem = Week(s, jobs);
                var first = FirstFreeSlot(problem).Cost;
                var clock = Stopwatch.StartNew();
                var plan = new SolverPlanner().Solve(problem, seconds, null, default);
                var avoidable = Math.Max(1, plan.Cost - problem.Unavoidable);
                if (jobs == 300)
                {
                    gaps.Add(plan.Gap);
                    beyond.Add((plan.Cost - plan.Bound) / avoidable);
                }
                if (jobs == 300)
                    again.Add(Again(plan));
                Console.WriteLine(
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{s, 4}  {jobs, 4}  {first - problem.Unavoidable, 15:0.00}  {plan.Cost - problem.Unavoidable, 7:0.00}  {plan.Bound - problem.Unavoidable, 7:0.00}  {plan.Gap, 5:0.0%}  {(plan.Cost - plan.Bound) / avoidable, 8:0.0%}  {clock.Elapsed.TotalSeconds, 24:0.0}"
                    )
                );
            }
        Console.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"costs without what nobody can help. 300 jobs: gap median {Median(gaps):0.0%}, largest {gaps.Max():0.0%}; beyond unavoidable {Median(beyond):0.0%}, largest {beyond.Max():0.0%}"
            )
        );
        Console.WriteLine("planned again in 2 s after the one with most work is away on the first day:");
        foreach (var line in again)
            Console.WriteLine(line);
        return 0;
    }

    /// <summary>Plans ten times as much with ten times as many people and zones, beside the first free slot by due day.</summary>
    public static int RunLarge(int seed, int jobs, double seconds)
    {
        var problem = Week(seed, jobs, Math.Max(1, jobs / 300));
        var clock = Stopwatch.StartNew();
        var first = FirstFreeSlot(problem);
        var firstSeconds = clock.Elapsed.TotalSeconds;
        clock.Restart();
        double? whole = null;
        var plan = new SolverPlanner().Solve(
            problem,
            seconds,
            new FirstPlan(() => whole ??= clock.Elapsed.TotalSeconds),
            default
        );
        Console.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"{jobs} jobs, {problem.People.Count} people, {problem.Zones.Count} zones, beyond what nobody can help: first free slot {first.Cost - problem.Unavoidable:0} in {firstSeconds:0.0} s; planned {plan.Cost - problem.Unavoidable:0} in {clock.Elapsed.TotalSeconds:0.0} s, a first plan after {whole:0.0} s; {plan.Assignments.Count} in their places"
            )
        );
        return 0;
    }

    private sealed class FirstPlan(Action told) : IProgress<Plan>
    {
        public void Report(Plan value) => told();
    }

    /// <summary>What moves, and what it costs, beside only putting what fell where there is room.</summary>
    private static string Again(Plan plan)
    {
        var problem = plan.Roster.Problem;
        var ill = Enumerable
            .Range(0, problem.People.Count)
            .MaxBy(p => plan.Assignments.Count(a => a.Person == p && a.Start < PlanProblem.Day));
        var fallen = plan.Assignments.Count(a => a.Person == ill && a.Start < PlanProblem.Day);
        var places = plan.Assignments.ToDictionary(a => a.Job);
        var after = problem with
        {
            People =
            [
                .. problem.People.Select(
                    (p, i) => i == ill ? p with { Shifts = [.. p.Shifts.Where(s => s.From >= PlanProblem.Day)] } : p
                ),
            ],
            Jobs =
            [
                .. problem.Jobs.Select(
                    (j, i) =>
                        places.TryGetValue(i, out var a)
                            ? j with
                            {
                                Before = new PlanLock(a.Person, a.Start),
                                MoveCost = j.Weight,
                            }
                            : j
                ),
            ],
        };
        var clock = Stopwatch.StartNew();
        var next = new SolverPlanner().Solve(after, 2, null, default);
        var seconds = clock.Elapsed.TotalSeconds;
        var moved = next.Assignments.Count(a =>
            places.TryGetValue(a.Job, out var old)
            && (old.Person, old.Start / PlanProblem.Day) != (a.Person, a.Start / PlanProblem.Day)
        );
        return string.Create(
            CultureInfo.InvariantCulture,
            $"  {fallen} fell, {moved} have another day or person; costs {next.Cost - after.Unavoidable:0.00}, only filled in {GreedyPlanner.Kept(after).Cost - after.Unavoidable:0.00}; {seconds:0.0} s"
        );
    }

    /// <summary>The simple rule: by due day, each into the first place that is free.</summary>
    private static Roster FirstFreeSlot(PlanProblem problem)
    {
        var roster = new Roster(problem);
        var places = new List<Place>();
        foreach (var j in Enumerable.Range(0, problem.Jobs.Count).OrderBy(j => problem.Jobs[j].DueDay ?? int.MaxValue))
        {
            (Opening Opening, Place Place)? best = null;
            foreach (var opening in roster.Openings.Of(j))
            {
                roster.Places(j, opening, places);
                foreach (var place in places.Where(p => p.At == roster.Of(opening.Person, opening.Shift).Count))
                    if (best is null || place.Start < best.Value.Place.Start)
                        best = (opening, place);
            }
            if (best is { } found)
                roster.Put(j, found.Opening, found.Place);
        }
        return roster;
    }

    private static PlanProblem Week(int seed, int jobs, int times = 1)
    {
        var chance = new Random(seed);
        const int days = 10;
        HashSet<string> Some(double share) => [.. Skills.Where(_ => chance.NextDouble() < share)];
        var people = Enumerable
            .Range(0, 8 * times)
            .Select(i => new PlanPerson(
                $"p{i}",
                i == 0 ? [.. Skills] : Some(0.6),
                chance.NextDouble() < 0.6 ? null : new HashSet<string> { chance.Next(2) == 0 ? "Q" : "K" },
                [
                    .. Enumerable
                        .Range(0, days)
                        .Where(d => d % 7 < 5 && chance.NextDouble() < 0.85)
                        .Select(d => new Span((d * PlanProblem.Day) + 480, (d * PlanProblem.Day) + 960)),
                ]
            ))
            .ToList();
        var zones = Enumerable
            .Range(0, 12 * times)
            .Select(i => new PlanZone(
                $"Z{i}",
                chance.Next(2) == 0 ? "Q" : "K",
                5 * chance.Next(2, 6),
                chance.Next(2) == 0 ? null : chance.Next(2, 4),
                i % 3 == 0
                    ?
                    [
                        .. Enumerable
                            .Range(0, days)
                            .Select(d => new Span((d * PlanProblem.Day) + 780, (d * PlanProblem.Day) + 1200)),
                    ]
                    : null
            ))
            .ToList();
        return new PlanProblem(
            new DateOnly(2026, 12, 7),
            days,
            people,
            zones,
            [
                .. Enumerable
                    .Range(0, jobs)
                    .Select(i => new PlanJob(
                        $"j{i}",
                        chance.Next(zones.Count),
                        5 * chance.Next(3, 20),
                        new HashSet<string> { Skills[chance.Next(Skills.Length)] },
                        chance.NextDouble() < 0.15 ? PlanProblem.Day * chance.Next(1, 6) : 0,
                        chance.NextDouble() < 0.2 ? -chance.Next(1, 200) : chance.Next(0, days),
                        chance.Next(1, 10),
                        null
                    )),
            ]
        );
    }

    private static double Median(List<double> values) => values.Order().ElementAt(values.Count / 2);
}
