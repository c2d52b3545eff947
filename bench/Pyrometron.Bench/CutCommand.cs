using System.Diagnostics;
using System.Globalization;
using Pyrometron.Core.Cutting;
using Pyrometron.Planning.Cutting;

namespace Pyrometron.Bench;

/// <summary>
/// Cuts 300 pads, made up from a seed on, from mixed sheets and off-cuts, and prints how far each plan lies above its bound
/// and how
/// long it took, beside filling sheets without a solver.
/// </summary>
internal static class CutCommand
{
    private const int One = Size.PerMillimetre;

    public static int Run(int seed, int count)
    {
        Console.WriteLine("seed  kinds  kerf   sheets  bound  without solver   seconds  without solver");
        var (above, slowest) = (new List<int>(), 0.0);
        for (var s = seed; s < seed + count; s++)
        {
            var problem = Pads(s);
            var (plan, seconds) = Timed(new SolverCutter(), problem);
            var (greedy, plainly) = Timed(new GreedyCutter(), problem);
            above.Add(plan.Sheets.Count - plan.LowerBound);
            slowest = Math.Max(slowest, seconds);
            Console.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{s, 4}  {problem.Pieces.Count, 5}  {problem.Kerf / (double)One, 4}  {plan.Sheets.Count, 7}  {plan.LowerBound, 5}  {greedy.Sheets.Count, 14}  {seconds, 8:0.00}  {plainly, 14:0.00}"
                )
            );
        }
        Console.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"sheets above the bound: none {above.Count(a => a == 0)}, one {above.Count(a => a == 1)}, more {above.Count(a => a > 1)}; slowest {slowest:0.00} s"
            )
        );
        return 0;
    }

    private static (CuttingPlan Plan, double Seconds) Timed(ICutter cutter, CuttingProblem problem)
    {
        var clock = Stopwatch.StartNew();
        return (cutter.Cut(problem, default), clock.Elapsed.TotalSeconds);
    }

    /// <summary>
    /// Three hundred pieces of 4 to 40 kinds, from sheets of three sizes and up to six off-cuts, kerf 0, 0.5 or 1 mm.
    /// </summary>
    private static CuttingProblem Pads(int seed)
    {
        var random = new Random(seed);
        var kinds = random.Next(4, 41);
        var longest = random.Next(15, 60);
        Size Any(int least, int most) => new(random.Next(least, most) * One, random.Next(least, most) * One);
        return new CuttingProblem(
            [
                new PadSheet("large", new(145 * One, 95 * One), One, random.Next(0, 30)),
                new PadSheet("square", new(100 * One, 100 * One), One, random.Next(0, 30)),
                new PadSheet("small", new(85 * One, 45 * One), One, 300),
                .. Enumerable.Range(0, random.Next(7)).Select(i => new PadSheet($"off-cut {i}", Any(30, 90), One, 1)),
            ],
            [
                .. Enumerable
                    .Range(0, kinds)
                    .Select(i => new PadPiece(
                        $"pad {i}",
                        new(random.Next(6, longest) * One, random.Next(6, Math.Min(longest, 45)) * One),
                        One,
                        (300 / kinds) + (i < 300 % kinds ? 1 : 0)
                    )),
            ],
            random.Next(3) * One / 2,
            true
        );
    }
}
