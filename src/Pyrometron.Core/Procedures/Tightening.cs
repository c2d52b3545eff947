using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Procedures;

/// <summary>
/// The order in which the screws of a cooler are tightened: by the maker's numbers, else crosswise from where they sit. Over
/// the screws of a ring it is the order with the fewest steps to a neighbour, and among those the one that crosses widest
/// (exact by dynamic programming over subsets, O(2ⁿ·n²); above <see cref="MostExact"/> screws a wide stride around the ring).
/// </summary>
public static class Tightening
{
    /// <summary>Up to so many screws the order is exact.</summary>
    public const int MostExact = 12;

    /// <summary>The passes: each goes once over all screws, so that none is ever more than one pass ahead.</summary>
    public static IReadOnlyList<Message> Passes { get; } =
    ["a few turns, until the thread holds", "half tight", "snug, and no further"];

    /// <summary>The screws in order, plate after plate.</summary>
    /// <param name="screws">Any order; the result begins with the lowest number where no maker's numbers are known.</param>
    public static IReadOnlyList<Screw> Order(IReadOnlyList<Screw> screws) => [.. Plates(screws).SelectMany(p => p)];

    /// <summary>
    /// The screws of each plate in order: crosswise within one plate, never across two. Where the maker numbered all of them,
    /// that order is one.
    /// </summary>
    public static IReadOnlyList<IReadOnlyList<Screw>> Plates(IReadOnlyList<Screw> screws) =>
        screws.Count == 0 ? []
        : screws.All(s => s.Order is not null)
            ?
            [
                [.. screws.OrderBy(s => s.Order).ThenBy(s => s.Number)],
            ]
        : [.. screws.GroupBy(s => s.Plate).OrderBy(g => g.Min(s => s.Number)).Select(g => OfPlate([.. g]))];

    private static IReadOnlyList<Screw> OfPlate(IReadOnlyList<Screw> screws)
    {
        if (screws.Count < 3)
            return [.. screws.OrderBy(s => s.Number)];
        var ring = Ring(screws);
        var start = Array.FindIndex(ring, s => s.Number == ring.Min(r => r.Number));
        Screw[] turned = [.. ring[start..], .. ring[..start]];
        return [.. (turned.Length <= MostExact ? Exact(turned) : Stride(turned.Length)).Select(i => turned[i])];
    }

    /// <summary>Whether two places of a ring of so many are neighbours.</summary>
    public static bool AreNeighbours(int a, int b, int count) => Math.Abs(a - b) is var d && (d == 1 || d == count - 1);

    /// <summary>The screws around their middle, by angle.</summary>
    public static Screw[] Ring(IReadOnlyList<Screw> screws)
    {
        var (x, y) = (screws.Average(s => s.XMm), screws.Average(s => s.YMm));
        return [.. screws.OrderBy(s => Math.Atan2(s.YMm - y, s.XMm - x)).ThenBy(s => s.Number)];
    }

    private static int[] Exact(Screw[] ring)
    {
        var n = ring.Length;
        // A step to a neighbour costs more than all distances together can win.
        var reach = 0.0;
        for (var a = 0; a < n; a++)
        for (var b = 0; b < n; b++)
            reach = Math.Max(reach, Distance(ring[a], ring[b]));
        double Cost(int a, int b) => (AreNeighbours(a, b, n) ? 2 * n * (reach + 1) : 0) - Distance(ring[a], ring[b]);

        var full = (1 << n) - 1;
        var best = new double[1 << n, n];
        var from = new int[1 << n, n];
        for (var set = 0; set <= full; set++)
        for (var last = 0; last < n; last++)
            best[set, last] = double.PositiveInfinity;
        best[1, 0] = 0;
        for (var set = 1; set <= full; set += 2)
        for (var last = 0; last < n; last++)
            if (!double.IsInfinity(best[set, last]))
                for (var next = 1; next < n; next++)
                    if (
                        (set >> next & 1) == 0
                        && best[set, last] + Cost(last, next) is var cost
                        && cost < best[set | 1 << next, next]
                    )
                        (best[set | 1 << next, next], from[set | 1 << next, next]) = (cost, last);

        var end = Enumerable.Range(0, n).MinBy(last => best[full, last]);
        var order = new int[n];
        for (int i = n - 1, set = full; i >= 0; i--)
        {
            order[i] = end;
            (set, end) = (set & ~(1 << end), from[set, end]);
        }
        return order;
    }

    /// <summary>Every k-th place around a ring, k nearly half of it and without a common divisor.</summary>
    private static int[] Stride(int count)
    {
        var k = count / 2;
        while (k > 1 && Gcd(k, count) > 1)
            k--;
        return [.. Enumerable.Range(0, count).Select(i => (int)((long)i * k % count))];
    }

    private static int Gcd(int a, int b) => b == 0 ? a : Gcd(b, a % b);

    private static double Distance(Screw a, Screw b) => Math.Sqrt(Math.Pow(a.XMm - b.XMm, 2) + Math.Pow(a.YMm - b.YMm, 2));
}
