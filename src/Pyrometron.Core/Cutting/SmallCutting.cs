using System.Numerics;

namespace Pyrometron.Core.Cutting;

/// <summary>
/// The fewest sheets for a few pieces, by trying everything: the smallest rectangles from which each set of pieces can be cut,
/// from those of its halves (Wang 1983), and then the fewest sheets that take all sets.
/// </summary>
public static class SmallCutting
{
    private const int MostPieces = 9,
        MostSheetTypes = 6;

    /// <summary>Whether the pieces and kinds of sheets are few enough.</summary>
    public static bool Applies(OneThickness part) => part.Needed.Sum() <= MostPieces && part.Sheets.Count <= MostSheetTypes;

    /// <summary>
    /// The fewest sheets within the stock, and of such plans the least area; null where the stock cannot take all.
    /// </summary>
    public static IReadOnlyList<Pattern>? Best(OneThickness part)
    {
        var types = part.Needed.SelectMany((count, type) => Enumerable.Repeat(type, count)).ToArray();
        var smallest = Smallest(part, types);
        var all = (1 << types.Length) - 1;
        // The plans of each set of pieces of which none needs as many or more of every kind of sheet than another.
        var plans = new List<Plan>[all + 1];
        plans[0] = [new Plan(new int[part.Sheets.Count], [])];
        for (var set = 1; set <= all; set++)
        {
            plans[set] = [];
            var first = set & -set;
            for (var one = set; one > 0; one = (one - 1) & set)
            {
                if ((one & first) == 0)
                    continue;
                for (var s = 0; s < part.Sheets.Count; s++)
                    if (smallest[one].FirstOrDefault(b => b.Size.Within(part.Sheets[s])) is { } box)
                        foreach (var rest in plans[set & ~one].Where(r => r.Used[s] < part.Stock[s]))
                            Keep(plans[set], rest.With(s, box));
            }
        }
        return plans[all]
            .OrderBy(p => p.Cut.Count)
            .ThenBy(p => p.Cut.Sum(c => part.Sheets[c.Sheet].Area))
            .FirstOrDefault()
            ?.Cut.Select(c => new Pattern(c.Sheet, Spots(c.Box)))
            .ToList();
    }

    private static void Keep(List<Plan> plans, Plan plan)
    {
        if (plans.Any(p => p.UsesNoMoreThan(plan)))
            return;
        plans.RemoveAll(plan.UsesNoMoreThan);
        plans.Add(plan);
    }

    /// <summary>For each set of pieces the rectangles from which it can be cut, none of which holds another.</summary>
    private static Box[][] Smallest(OneThickness part, int[] types)
    {
        var widest = new Size(part.Sheets.Max(s => s.Width), part.Sheets.Max(s => s.Height));
        var boxes = new Box[1 << types.Length][];
        boxes[0] = [];
        for (var set = 1; set < boxes.Length; set++)
        {
            var found = new List<Box>();
            if (BitOperations.IsPow2(set))
                found.AddRange(
                    part.Ways(types[BitOperations.Log2((uint)set)]).Select(w => new Box(w, types[BitOperations.Log2((uint)set)]))
                );
            for (var half = (set - 1) & set; half > 0; half = (half - 1) & set)
            {
                if (half > (set ^ half))
                    continue;
                foreach (var a in boxes[half])
                foreach (var b in boxes[set ^ half])
                {
                    found.Add(new(new(a.Size.Width + b.Size.Width, Math.Max(a.Size.Height, b.Size.Height)), a, b, Beside: true));
                    found.Add(new(new(Math.Max(a.Size.Width, b.Size.Width), a.Size.Height + b.Size.Height), a, b, Beside: false));
                }
            }
            boxes[set] = Undominated(found.Where(b => b.Size.Within(widest)));
        }
        return boxes;
    }

    private static Box[] Undominated(IEnumerable<Box> boxes)
    {
        var kept = new List<Box>();
        foreach (var box in boxes.OrderBy(b => b.Size.Width).ThenBy(b => b.Size.Height))
            if (kept.Count == 0 || box.Size.Height < kept[^1].Size.Height)
                kept.Add(box);
        return [.. kept];
    }

    private static List<Spot> Spots(Box box)
    {
        var spots = new List<Spot>();
        Add(box, 0, 0);
        return spots;

        void Add(Box one, int x, int y)
        {
            if (one.First is not { } first || one.Second is not { } second)
            {
                spots.Add(new Spot(one.Type, x, y, one.Size));
                return;
            }
            Add(first, x, y);
            Add(second, one.Beside ? x + first.Size.Width : x, one.Beside ? y : y + first.Size.Height);
        }
    }

    private sealed record Plan(int[] Used, IReadOnlyList<(int Sheet, Box Box)> Cut)
    {
        public Plan With(int sheet, Box box)
        {
            var used = Used.ToArray();
            used[sheet]++;
            return new Plan(used, [.. Cut, (sheet, box)]);
        }

        public bool UsesNoMoreThan(Plan other) => Used.Zip(other.Used).All(u => u.First <= u.Second);
    }

    /// <summary>A rectangle from which a set can be cut: one piece, or two rectangles beside or below each other.</summary>
    private sealed record Box(Size Size, int Type, Box? First = null, Box? Second = null, bool Beside = false)
    {
        public Box(Size size, Box first, Box second, bool Beside)
            : this(size, -1, first, second, Beside) { }
    }
}
