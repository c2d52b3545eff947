namespace Pyrometron.Core.Cutting;

/// <summary>
/// How many sheets are needed at least, without looking for a plan. Both bounds hold with and without cuts from edge to edge
/// (Martello and Vigo 1998, for sheets of one size).
/// </summary>
public static class SheetBounds
{
    /// <summary>
    /// By area: the largest sheets whose areas together hold all pieces. Where the stock does not, as many of the largest
    /// would have to be there.
    /// </summary>
    public static int ByArea(OneThickness part)
    {
        var needed = part.Pieces.Select((p, i) => p.Area * part.Needed[i]).Sum();
        var (left, sheets) = (needed, 0);
        foreach (var (area, count) in part.Sheets.Select((s, i) => (s.Area, part.Stock[i])).OrderByDescending(s => s.Area))
        {
            var used = (int)Math.Min(count, Ratio(left, area));
            (sheets, left) = (sheets + used, left - (used * area));
            if (left <= 0)
                return sheets;
        }
        return (int)Ratio(needed, part.Sheets.Max(s => s.Area));
    }

    private static long Ratio(long whole, long part) => (whole + part - 1) / part;

    /// <summary>By large pieces: ones of which no two have room on any sheet need a sheet each.</summary>
    public static int ByLargePieces(OneThickness part)
    {
        var apart = new List<int>();
        var sheets = 0;
        foreach (var type in Enumerable.Range(0, part.Pieces.Count).OrderByDescending(i => part.Pieces[i].Area))
        {
            if (apart.Any(other => Together(part, type, other)))
                continue;
            // Of a type two of which share a sheet, one alone still stands apart from the others.
            var alone = !Together(part, type, type);
            sheets += alone ? part.Needed[type] : 1;
            apart.Add(type);
        }
        return sheets;
    }

    /// <summary>Whether two pieces have room on some sheet, side by side or one above the other.</summary>
    private static bool Together(OneThickness part, int a, int b) =>
        part.Sheets.Any(sheet =>
            part.Ways(a)
                .Any(one =>
                    part.Ways(b)
                        .Any(two =>
                            new Size(one.Width + two.Width, Math.Max(one.Height, two.Height)).Within(sheet)
                            || new Size(Math.Max(one.Width, two.Width), one.Height + two.Height).Within(sheet)
                        )
                )
        );
}
