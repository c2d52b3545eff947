namespace Pyrometron.Core.Cutting;

/// <summary>
/// Fills sheets one after the other with what is still needed: each rectangle takes one of the pieces that fit it best at its
/// upper left and is cut in two beside or below it. Chance decides among what is nearly as good, so that many tries differ.
/// </summary>
/// <param name="random">Where chance comes from.</param>
public sealed class GuillotineFill(OneThickness part, Random random)
{
    /// <summary>Tries for each sheet; the one that covers the largest share of it is kept.</summary>
    private const int TriesASheet = 12;

    private readonly Size[][] _ways = [.. Enumerable.Range(0, part.Pieces.Count).Select(i => part.Ways(i).ToArray())];

    /// <summary>A plan: patterns within the stock until nothing is needed any more or nothing fits.</summary>
    /// <param name="worth">
    /// Of each type of piece, in any unit: its area, or a price that draws forward what is hard to place.
    /// </param>
    public IReadOnlyList<Pattern> Plan(IReadOnlyList<double> worth)
    {
        var (needed, stock) = (part.Needed.ToArray(), part.Stock.ToArray());
        worth = Scaled(worth);
        var plan = new List<Pattern>();
        while (needed.Any(n => n > 0))
        {
            var tries = Enumerable
                .Range(0, part.Sheets.Count)
                .Where(s => stock[s] > 0)
                .SelectMany(s => Tries(s, needed, worth))
                .Where(p => p.Spots.Count > 0)
                .ToList();
            if (tries.Count == 0)
                break;
            var left = needed.Sum();
            // What takes all that is left takes the smallest sheet that it can.
            var last = tries.Where(p => p.Spots.Count == left).MinBy(p => part.Sheets[p.Sheet].Area);
            var best = last ?? tries.MaxBy(p => p.Spots.Sum(s => worth[s.Type]))!;
            plan.Add(best);
            stock[best.Sheet]--;
            foreach (var spot in best.Spots)
                needed[spot.Type]--;
        }
        return plan;
    }

    private IEnumerable<Pattern> Tries(int sheet, int[] needed, IReadOnlyList<double> worth)
    {
        for (var i = 0; i < TriesASheet; i++)
        {
            var spots = new List<Spot>();
            Fill(part.Sheets[sheet], 0, 0, needed.ToArray(), worth, spots);
            yield return new Pattern(sheet, spots);
        }
    }

    /// <summary>Worth as if it were area: all that is needed together is worth its area.</summary>
    private double[] Scaled(IReadOnlyList<double> worth)
    {
        var area = part.Pieces.Select((p, i) => (double)p.Area * part.Needed[i]).Sum();
        var sum = worth.Select((w, i) => w * part.Needed[i]).Sum();
        return [.. worth.Select(w => sum > 0 ? w * area / sum : w)];
    }

    private void Fill(Size room, int x, int y, int[] left, IReadOnlyList<double> worth, List<Spot> spots)
    {
        var (found, best) = (default(Spot), double.NegativeInfinity);
        for (var type = 0; type < left.Length; type++)
        {
            if (left[type] == 0)
                continue;
            foreach (var way in _ways[type])
            {
                if (!way.Within(room))
                    continue;
                // Large pieces first, then ones that leave no narrow strip.
                var strip =
                    Math.Min(room.Width - way.Width, room.Height - way.Height) / (double)Math.Max(room.Width, room.Height);
                var value = (worth[type] / room.Area) - (0.5 * strip) + (0.35 * random.NextDouble());
                if (value > best)
                    (best, found) = (value, new Spot(type, x, y, way));
            }
        }
        if (double.IsNegativeInfinity(best))
            return;
        spots.Add(found);
        left[found.Type]--;
        var (beside, below) = (room.Width - found.Size.Width, room.Height - found.Size.Height);
        var (w, h) = (found.Size.Width, found.Size.Height);
        // The cut that leaves the larger rectangle whole, mostly.
        var upright = (long)beside * room.Height > (long)below * room.Width;
        if (random.NextDouble() < 0.2)
            upright = !upright;
        Fill(upright ? new(w, below) : new(room.Width, below), x, y + h, left, worth, spots);
        Fill(upright ? new(beside, room.Height) : new(beside, h), x + w, y, left, worth, spots);
    }
}
