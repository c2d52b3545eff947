namespace Pyrometron.Core.Cutting;

/// <summary>
/// Where cuts can lie: every cut can be moved to a sum of piece lengths (Herz 1972), so that widths and heights are looked at
/// only there.
/// </summary>
internal sealed class CutGrid
{
    /// <summary>Sizes in odd hundredths would take minutes.</summary>
    private const long MostSteps = 40_000_000;

    private CutGrid(int[] xs, int[] ys, Size largest)
    {
        (Xs, Ys) = (xs, ys);
        (FloorX, FloorY) = (Floors(xs, largest.Width), Floors(ys, largest.Height));
    }

    /// <summary>Widths, and heights, that are sums of piece lengths; the first is 0.</summary>
    public int[] Xs { get; }

    /// <inheritdoc cref="Xs"/>
    public int[] Ys { get; }

    /// <summary>For each width the place of the largest sum that is not wider; the same of heights.</summary>
    public int[] FloorX { get; }

    /// <inheritdoc cref="FloorX"/>
    public int[] FloorY { get; }

    /// <summary>The grid of pieces in the ways they may lie, for sheets up to a size.</summary>
    public static CutGrid Of(IReadOnlyCollection<Size> ways, Size largest) =>
        new(
            Sums([.. ways.Select(w => w.Width).Distinct()], largest.Width),
            Sums([.. ways.Select(w => w.Height).Distinct()], largest.Height),
            largest
        );

    /// <summary>So wide and so high that every sheet lies within.</summary>
    public static Size Around(IReadOnlyCollection<Size> sheets) => new(sheets.Max(s => s.Width), sheets.Max(s => s.Height));

    /// <summary>Whether every cut of every rectangle can be looked at in a fraction of a second.</summary>
    public bool IsSmall(int ways) => (long)Xs.Length * Ys.Length * (Xs.Length + Ys.Length + ways) / 2 <= MostSteps;

    /// <summary>0 and all sums of lengths up to a length.</summary>
    private static int[] Sums(int[] lengths, int most)
    {
        var reached = new bool[most + 1];
        reached[0] = true;
        for (var at = 0; at <= most; at++)
            if (reached[at])
                foreach (var length in lengths)
                    if (at + length <= most)
                        reached[at + length] = true;
        return [.. Enumerable.Range(0, most + 1).Where(i => reached[i])];
    }

    private static int[] Floors(int[] sums, int most)
    {
        var floors = new int[most + 1];
        for (int length = 0, at = 0; length <= most; length++)
        {
            if (at + 1 < sums.Length && sums[at + 1] <= length)
                at++;
            floors[length] = at;
        }
        return floors;
    }
}
