namespace Pyrometron.Core.Cutting;

/// <summary>
/// Plans that cut one sheet after the other, each in the way that is worth most with no more than is still needed. What a piece
/// is worth is varied from plan to plan: where sheets are many its area, where they are few the large ones count more.
/// </summary>
public static class SheetBySheet
{
    /// <summary>What a piece is worth in the first plans: its area to these powers; later ones are drawn by chance.</summary>
    private static readonly double[] s_powers = [1, 1.05, 1.1];

    private const double GreatestPower = 1.2,
        GreatestShake = 0.1;

    /// <summary>
    /// Plans without end, each cut short where the time is over: the pieces it did not come to are missing then. None where
    /// sizes are too odd.
    /// </summary>
    /// <param name="random">Where chance comes from.</param>
    public static IEnumerable<IReadOnlyList<Pattern>> Plans(OneThickness part, Random random, CancellationToken over)
    {
        if (LimitedKnapsack.For(part) is not { } knapsack)
            yield break;
        var largest = (double)part.Pieces.Max(p => p.Area);
        for (var plan = 0; !over.IsCancellationRequested; plan++)
        {
            var first = plan < s_powers.Length;
            var power = first ? s_powers[plan] : 1 + ((GreatestPower - 1) * random.NextDouble());
            var shake = first ? 0 : GreatestShake * random.NextDouble();
            yield return Plan(
                part,
                knapsack,
                [.. part.Pieces.Select(p => Math.Pow(p.Area / largest, power) * (1 + (shake * (random.NextDouble() - 0.5))))],
                over
            );
        }
    }

    private static List<Pattern> Plan(OneThickness part, LimitedKnapsack knapsack, double[] worth, CancellationToken over)
    {
        var (needed, stock) = (part.Needed.ToArray(), part.Stock.ToArray());
        var plan = new List<Pattern>();
        while (needed.Sum() is > 0 and var left && stock.Any(s => s > 0) && !over.IsCancellationRequested)
        {
            var ways = knapsack.Best(worth, needed, [.. Enumerable.Range(0, stock.Length).Where(s => stock[s] > 0)]);
            // What takes all that is left takes the smallest sheet that it can.
            var best =
                ways.Where(p => p.Spots.Count == left).MinBy(p => part.Sheets[p.Sheet].Area)
                ?? ways.MaxBy(p => p.Spots.Sum(s => worth[s.Type]));
            if (best is null || best.Spots.Count == 0)
                break;
            plan.Add(best);
            stock[best.Sheet]--;
            foreach (var spot in best.Spots)
                needed[spot.Type]--;
        }
        return plan;
    }
}
