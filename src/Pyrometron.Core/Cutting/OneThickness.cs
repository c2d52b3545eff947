namespace Pyrometron.Core.Cutting;

/// <summary>
/// The part of a problem that has one thickness, without kerf: a kerf k is gone once pieces and sheets are k wider and higher,
/// since n pieces in a row take their widths and n − 1 cuts. Pieces of one size are one type, and so are sheets.
/// </summary>
public sealed class OneThickness
{
    private readonly CuttingProblem _problem;
    private readonly List<int>[] _pieces;
    private readonly List<int>[] _sheets;

    private OneThickness(CuttingProblem problem, int thickness)
    {
        (_problem, Rotate) = (problem, problem.Rotate);
        var sheets = Among(problem.Sheets.Select((s, i) => (s.Size, s.Thickness, s.Count, i)), thickness, turn: false);
        var pieces = Among(problem.Pieces.Select((p, i) => (p.Size, p.Thickness, p.Count, i)), thickness, problem.Rotate)
            .Where(p => sheets.Any(s => Fits(p.Size, s.Size)))
            .ToArray();
        (Pieces, Needed, _pieces) = (
            [.. pieces.Select(p => p.Size)],
            [.. pieces.Select(p => p.Count)],
            [.. pieces.Select(p => p.Of)]
        );
        (Sheets, Stock, _sheets) = (
            [.. sheets.Select(s => s.Size)],
            [.. sheets.Select(s => s.Count)],
            [.. sheets.Select(s => s.Of)]
        );
    }

    /// <summary>Whether pieces may lie on their other side.</summary>
    public bool Rotate { get; }

    /// <summary>The size of each type of piece, with one kerf.</summary>
    public IReadOnlyList<Size> Pieces { get; }

    /// <summary>How many of each type are needed.</summary>
    public IReadOnlyList<int> Needed { get; }

    /// <summary>The size of each type of sheet, with one kerf.</summary>
    public IReadOnlyList<Size> Sheets { get; }

    /// <summary>How many of each type there are.</summary>
    public IReadOnlyList<int> Stock { get; }

    /// <summary>The parts of a problem of which something can be cut.</summary>
    public static IEnumerable<OneThickness> Of(CuttingProblem problem) =>
        problem
            .Pieces.Select(p => p.Thickness)
            .Distinct()
            .Order()
            .Select(t => new OneThickness(problem, t))
            .Where(o => o.Pieces.Count > 0);

    /// <summary>The ways in which a piece may lie.</summary>
    public IEnumerable<Size> Ways(int piece) =>
        Rotate && Pieces[piece].Width != Pieces[piece].Height ? [Pieces[piece], Pieces[piece].Turned] : [Pieces[piece]];

    /// <summary>The ways in which all pieces may lie.</summary>
    public (int Type, Size Size)[] AllWays() =>
        [.. Enumerable.Range(0, Pieces.Count).SelectMany(i => Ways(i).Select(w => (i, w)))];

    /// <summary>Whether a piece can be cut from a sheet at all.</summary>
    public bool Fits(Size piece, Size sheet) => piece.Within(sheet) || (Rotate && piece.Turned.Within(sheet));

    /// <summary>
    /// Patterns as sheets of the problem; pieces beyond what is needed are left away, and sheets from which none is left.
    /// </summary>
    /// <param name="index">How many sheets of each of the problem's were used before; counted on.</param>
    public IEnumerable<CutSheet> Cut(IEnumerable<Pattern> patterns, int[] index)
    {
        var names = _pieces
            .Select(of => new Queue<int>(of.SelectMany(p => Enumerable.Repeat(p, _problem.Pieces[p].Count))))
            .ToArray();
        foreach (var pattern in patterns)
        {
            var placed = new List<PlacedPiece>();
            foreach (var spot in pattern.Spots)
                if (names[spot.Type].TryDequeue(out var piece))
                    placed.Add(
                        new(piece, spot.X, spot.Y, new(spot.Size.Width - _problem.Kerf, spot.Size.Height - _problem.Kerf))
                    );
            if (placed.Count == 0)
                continue;
            var sheet = _sheets[pattern.Sheet].First(s => index[s] < _problem.Sheets[s].Count);
            yield return new CutSheet(sheet, index[sheet]++, placed);
        }
    }

    private (Size Size, int Count, List<int> Of)[] Among(
        IEnumerable<(Size Size, int Thickness, int Count, int Index)> all,
        int thickness,
        bool turn
    ) =>
        [
            .. all.Where(a => a.Thickness == thickness && a.Count > 0)
                .Select(a => (Size: new Size(a.Size.Width + _problem.Kerf, a.Size.Height + _problem.Kerf), a.Count, a.Index))
                .GroupBy(a => turn && a.Size.Width < a.Size.Height ? a.Size.Turned : a.Size)
                .Select(g => (g.Key, g.Sum(a => a.Count), g.Select(a => a.Index).ToList())),
        ];
}

/// <summary>A piece of a type in its place.</summary>
public readonly record struct Spot(int Type, int X, int Y, Size Size);

/// <summary>One way to cut a sheet of a type.</summary>
public sealed record Pattern(int Sheet, IReadOnlyList<Spot> Spots)
{
    /// <summary>How many pieces of each type it gives.</summary>
    public int[] Counts(int types)
    {
        var counts = new int[types];
        foreach (var spot in Spots)
            counts[spot.Type]++;
        return counts;
    }
}
