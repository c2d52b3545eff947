namespace Pyrometron.Core.Cutting;

/// <summary>
/// Betters a plan by taking a few of its sheets apart and filling their pieces into fewer; where that does not go, into as
/// many of which one is emptier than before, so that the next try begins from there (ruin and recreate, Schrimpf and others
/// 2000).
/// </summary>
/// <param name="fill">Fills what was taken apart.</param>
/// <param name="random">Where chance comes from.</param>
public sealed class Repacking(OneThickness part, GuillotineFill fill, Random random)
{
    /// <summary>So many sheets are taken apart at most.</summary>
    private const int MostApart = 4;

    /// <summary>Of so many sheets drawn by chance the emptiest is taken apart.</summary>
    private const int Drawn = 3;

    private readonly double[] _areas = [.. part.Pieces.Select(p => (double)p.Area)];

    /// <summary>A plan of no more sheets than the one it begins with, with all of its pieces.</summary>
    /// <param name="bound">With so few sheets it is content.</param>
    /// <param name="over">Ends the search.</param>
    public IReadOnlyList<Pattern> Fewer(IReadOnlyList<Pattern> plan, int bound, CancellationToken over)
    {
        var sheets = plan.ToList();
        while (sheets.Count > Math.Max(1, bound) && !over.IsCancellationRequested)
        {
            var apart = Apart(sheets);
            var rest = sheets.Except(apart, ReferenceEqualityComparer.Instance).Cast<Pattern>().ToList();
            if (Refilled(apart, rest) is { } refilled && IsBetter(refilled, apart))
                sheets = [.. rest, .. refilled];
        }
        return sheets;
    }

    private List<Pattern> Apart(List<Pattern> sheets)
    {
        var count = random.Next(2, Math.Min(MostApart, sheets.Count) + 1);
        var apart = new List<Pattern>();
        while (apart.Count < count)
        {
            var drawn = Enumerable
                .Range(0, Drawn)
                .Select(_ => sheets[random.Next(sheets.Count)])
                .Where(s => !apart.Exists(a => ReferenceEquals(a, s)))
                .MinBy(Fullness);
            if (drawn is not null)
                apart.Add(drawn);
        }
        return apart;
    }

    /// <summary>The pieces of some sheets filled anew from these and from what is not used; null where one is left.</summary>
    private List<Pattern>? Refilled(List<Pattern> apart, List<Pattern> rest)
    {
        var needed = new int[part.Needed.Count];
        foreach (var spot in apart.SelectMany(s => s.Spots))
            needed[spot.Type]++;
        var stock = part.Stock.ToArray();
        foreach (var sheet in rest)
            stock[sheet.Sheet]--;
        var plan = fill.Plan([.. _areas.Select(a => Math.Pow(a, 1 + (0.5 * random.NextDouble())))], needed, stock, apart.Count);
        return needed.All(n => n == 0) ? plan : null;
    }

    /// <summary>Fewer sheets, or as many whose waste lies closer together.</summary>
    private bool IsBetter(List<Pattern> now, List<Pattern> before) =>
        now.Count < before.Count
        || (now.Count == before.Count && now.Sum(s => Math.Pow(Fullness(s), 2)) > before.Sum(s => Math.Pow(Fullness(s), 2)));

    private double Fullness(Pattern sheet) => sheet.Spots.Sum(s => s.Size.Area) / (double)part.Sheets[sheet.Sheet].Area;
}
