namespace Pyrometron.Core.Stores;

/// <summary>Packs of one product to buy.</summary>
public sealed record PacksToBuy(Product Product, int Packs)
{
    /// <summary>What they cost; null where nobody said.</summary>
    public double? Cost => Packs * Product.Pack.Price;
}

/// <summary>Finds the packs that hold enough and cost least.</summary>
public static class PackChoice
{
    /// <summary>Amounts are counted in so many steps at most: a pack is then rounded down, and what is needed up.</summary>
    private const int MostSteps = 20_000;

    /// <summary>
    /// The cheapest packs, found by dynamic programming over amounts; where prices are missing those that are known go first, and
    /// without any price the fewest packs.
    /// </summary>
    /// <param name="products">Products that serve alike; at least one.</param>
    /// <param name="amount">What is needed, positive.</param>
    public static IReadOnlyList<PacksToBuy> Cheapest(IReadOnlyList<Product> products, double amount)
    {
        var priced = products.Where(p => p.Pack.Price is not null).ToList();
        var among = priced.Count > 0 ? priced : [.. products];
        double PriceOf(Product p) => p.Pack.Price ?? 1;
        // Hundredths, or coarser where that would be too many.
        var unit = Math.Max(0.01, amount / MostSteps);
        var steps = (int)Math.Ceiling((amount / unit) - 1e-9);
        int[] holds = [.. among.Select(p => (int)Math.Min(steps, Math.Floor((p.Pack.Amount / unit) + 1e-9)))];
        var (cost, last) = (new double[steps + 1], new int[steps + 1]);
        for (var s = 1; s <= steps; s++)
        {
            cost[s] = double.PositiveInfinity;
            for (var p = 0; p < among.Count; p++)
            {
                var with = cost[Math.Max(0, s - Math.Max(1, holds[p]))] + PriceOf(among[p]);
                if (with < cost[s])
                    (cost[s], last[s]) = (with, p);
            }
        }
        var packs = new int[among.Count];
        for (var s = steps; s > 0; s -= Math.Max(1, holds[last[s]]))
            packs[last[s]]++;
        return [.. among.Select((p, i) => new PacksToBuy(p, packs[i])).Where(b => b.Packs > 0)];
    }
}
