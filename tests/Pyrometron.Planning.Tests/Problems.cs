using CsCheck;
using Pyrometron.Core.Planning;

namespace Pyrometron.Planning.Tests;

/// <summary>Planning problems made up for tests.</summary>
internal static class Problems
{
    private static readonly string[] Skills = ["cards", "laptops", "pads"];

    /// <summary>
    /// Small ones of every kind: windows, limits, skills, sites, parts that come later, shifts over midnight, ways, work for two,
    /// a plan before.
    /// </summary>
    public static readonly Gen<PlanProblem> Any =
        from zones in Gen.Select(Gen.Int[0, 1], Gen.Int[0, 30], Gen.Int[0, 3], Gen.Bool).Array[1, 3]
        from people in Gen.Select(Gen.Int[0, 7], Gen.Int[0, 2], Gen.Int[360, 720], Gen.Int[120, 1000]).Array[1, 3]
        from jobs in Gen.Select(Gen.Int[0, 99], Gen.Int[1, 20], Gen.Int[0, 7], Gen.Int[-4, 4], Gen.Int[0, 9]).Array[1, 9]
        select new PlanProblem(
            new DateOnly(2026, 12, 7),
            3,
            [.. people.Select((p, i) => Person(i, p.Item1, p.Item2, p.Item3, p.Item4))],
            [
                .. zones.Select(
                    (z, i) =>
                        new PlanZone(
                            $"Z{i}",
                            $"S{z.Item1}",
                            z.Item2,
                            z.Item3 == 0 ? null : z.Item3,
                            z.Item4 ? [.. Enumerable.Range(0, 3).Select(d => new Span((d * 1440) + 600, (d * 1440) + 900))] : null
                        )
                ),
            ],
            [
                .. jobs.Select(
                    (j, i) =>
                        new PlanJob(
                            $"j{i}",
                            j.Item1 % zones.Length,
                            j.Item2 * 10,
                            Chosen(j.Item3 & 3),
                            j.Item1 % 5 == 0 ? 1440 : 0,
                            j.Item4 == 4 ? null : j.Item4,
                            j.Item5,
                            null
                        )
                        {
                            Before =
                                j.Item2 % 3 == 0 ? new PlanLock(j.Item1 % people.Length, ((j.Item3 % 3) * 1440) + 600) : null,
                            MoveCost = j.Item5 / 2.0,
                            HelperSkills = j.Item1 / 5 % 3 == 0 ? Chosen(j.Item2 & 3) : null,
                            Windows = j.Item1 / 15 % 4 == 0 ? [new Span(660, 1100), new Span(1440, 2880)] : null,
                        }
                ),
            ]
        )
        {
            Walking = new Walking(5 * people[0].Item2, 15 * people[0].Item2),
        };

    /// <summary>One zone, one person from 8 to 16 on each of so many days, with all skills.</summary>
    public static PlanProblem Plain(int days, params PlanJob[] jobs) =>
        new(new DateOnly(2026, 12, 7), days, [Worker("mira", days)], [new PlanZone("Z0", "S0", 15)], jobs);

    public static PlanPerson Worker(string id, int days) =>
        new(
            id,
            new HashSet<string>(Skills),
            null,
            [.. Enumerable.Range(0, days).Select(d => new Span((d * 1440) + 480, (d * 1440) + 960))]
        );

    public static PlanJob Job(string id, int minutes, int? due = 0, double weight = 1, int zone = 0) =>
        new(id, zone, minutes, new HashSet<string>(), 0, due, weight, null);

    private static PlanPerson Person(int index, int skills, int sites, int from, int length) =>
        new(
            $"p{index}",
            Chosen(skills),
            sites == 2 ? null : new HashSet<string> { $"S{sites}" },
            Span.Merged([new Span(from, from + length), new Span(1440 + from, Math.Min(3 * 1440, 1440 + from + length))])
        );

    private static HashSet<string> Chosen(int bits) => [.. Skills.Where((_, i) => (bits & (1 << i)) != 0)];
}
