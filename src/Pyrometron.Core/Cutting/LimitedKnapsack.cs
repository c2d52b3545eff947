using System.Runtime.Intrinsics;

namespace Pyrometron.Core.Cutting;

/// <summary>
/// A valuable way to cut one sheet that takes no more of any piece than is needed: the table of
/// <see cref="GuillotineKnapsack"/> in which each rectangle also keeps how many of each piece it takes, and two rectangles that
/// together take too many are not joined. Only the best way of each rectangle is kept, so the best of all may be missed.
/// </summary>
public sealed class LimitedKnapsack
{
    private const double Same = 1e-9;

    private readonly OneThickness _part;
    private readonly (int Type, Size Size)[] _all;

    /// <summary>Counts that lie in one rectangle, for whole vectors.</summary>
    private readonly int _lanes;

    private (int Type, Size Size)[] _ways = [];
    private CutGrid _grid = null!;

    /// <summary>Of each rectangle, by its width and then its height: its value, what made it, and what it takes.</summary>
    private double[] _best = [];
    private Made[] _made = [];
    private ushort[] _taken = [];

    private LimitedKnapsack(OneThickness part, (int Type, Size Size)[] all)
    {
        (_part, _all) = (part, all);
        var vector = Vector256<ushort>.Count;
        _lanes = (part.Pieces.Count + vector - 1) / vector * vector;
    }

    private enum By : byte
    {
        Nothing,
        Piece,
        UprightCut,
        LevelCut,
        Narrower,
        Lower,
    }

    /// <summary>A table for a part of a problem, or null where it would be too large.</summary>
    public static LimitedKnapsack? For(OneThickness part)
    {
        var all = part.AllWays();
        var grid = CutGrid.Of([.. all.Select(w => w.Size)], CutGrid.Around([.. part.Sheets]));
        return grid.IsSmall(all.Length) ? new LimitedKnapsack(part, all) : null;
    }

    /// <summary>A valuable pattern of each of some types of sheet.</summary>
    /// <param name="values">Of each type of piece; what is worth nothing is not cut.</param>
    /// <param name="needed">So many of each type are cut at most.</param>
    /// <param name="sheets">The types of sheet; one at least.</param>
    public IReadOnlyList<Pattern> Best(IReadOnlyList<double> values, IReadOnlyList<int> needed, IReadOnlyList<int> sheets)
    {
        _ways = [.. _all.Where(w => needed[w.Type] > 0 && values[w.Type] > 0)];
        if (_ways.Length == 0)
            return [];
        _grid = CutGrid.Of([.. _ways.Select(w => w.Size)], CutGrid.Around([.. sheets.Select(s => _part.Sheets[s])]));
        Clear();
        Fill(values, [.. needed.Select(n => (ushort)Math.Min(n, short.MaxValue)), .. new ushort[_lanes - needed.Count]]);
        return
        [
            .. sheets.Select(sheet =>
            {
                var spots = new List<Spot>();
                Read(_grid.FloorX[_part.Sheets[sheet].Width], _grid.FloorY[_part.Sheets[sheet].Height], 0, 0, spots);
                return new Pattern(sheet, spots);
            }),
        ];
    }

    private void Clear()
    {
        var cells = _grid.Xs.Length * _grid.Ys.Length;
        if (_best.Length < cells)
            (_best, _made, _taken) = (new double[cells], new Made[cells], new ushort[cells * _lanes]);
        else
        {
            Array.Clear(_best, 0, cells);
            Array.Clear(_made, 0, cells);
            Array.Clear(_taken, 0, cells * _lanes);
        }
    }

    private void Fill(IReadOnlyList<double> worth, ushort[] most)
    {
        var (xs, ys, floorX, floorY) = (_grid.Xs, _grid.Ys, _grid.FloorX, _grid.FloorY);
        for (var i = 1; i < xs.Length; i++)
        {
            var row = i * ys.Length;
            for (var j = 1; j < ys.Length; j++)
                Take(row + j, row - ys.Length + j, By.Narrower);
            foreach (var (type, size) in _ways)
                if (size.Width == xs[i] && size.Height < floorY.Length)
                    Place(row + floorY[size.Height], type, size, worth[type]);
            for (var a = 1; a < i && 2 * xs[a] <= xs[i]; a++)
                JoinRows(row, a * ys.Length, floorX[xs[i] - xs[a]] * ys.Length, new Made(By.UprightCut, a, default), most);
            var values = _best.AsSpan(row, ys.Length);
            for (var j = 1; j < ys.Length; j++)
            {
                if (values[j - 1] > values[j])
                    Take(row + j, row + j - 1, By.Lower);
                for (var b = 1; b < j && 2 * ys[b] <= ys[j]; b++)
                    if (floorY[ys[j] - ys[b]] is var rest && values[b] + values[rest] > values[j] + Same)
                        Join(row + j, row + b, row + rest, new Made(By.LevelCut, b, default), most);
            }
        }
    }

    /// <summary>A rectangle can be cut as one that is smaller.</summary>
    private void Take(int at, int smaller, By by)
    {
        (_best[at], _made[at]) = (_best[smaller], new Made(by, 0, default));
        _taken.AsSpan(smaller * _lanes, _lanes).CopyTo(_taken.AsSpan(at * _lanes, _lanes));
    }

    private void Place(int at, int type, Size size, double worth)
    {
        if (worth <= _best[at])
            return;
        (_best[at], _made[at]) = (worth, new Made(By.Piece, type, size));
        _taken.AsSpan(at * _lanes, _lanes).Clear();
        _taken[(at * _lanes) + type] = 1;
    }

    /// <summary>Joins the rectangles of two widths at each height; most are ruled out by value, several at once.</summary>
    private void JoinRows(int row, int one, int other, Made made, ushort[] most)
    {
        var (wide, heights) = (Vector256<double>.Count, _grid.Ys.Length);
        for (var j = 0; j < heights; j += wide)
        {
            if (j + wide <= heights && !Vector256.GreaterThanAny(Of(one + j) + Of(other + j), Of(row + j)))
                continue;
            for (var k = j; k < Math.Min(j + wide, heights); k++)
                Join(row + k, one + k, other + k, made, most);
        }
    }

    private Vector256<double> Of(int at) => Vector256.Create(_best, at);

    /// <summary>Makes a rectangle of two others where they are worth more and together take no more than is needed.</summary>
    private void Join(int at, int one, int other, Made made, ushort[] most)
    {
        if (_best[one] + _best[other] <= _best[at] + Same)
            return;
        for (var k = 0; k < _lanes; k += Vector256<ushort>.Count)
            if (Vector256.GreaterThanAny(Together(one, other, k), Vector256.Create(most, k)))
                return;
        for (var k = 0; k < _lanes; k += Vector256<ushort>.Count)
            Together(one, other, k).CopyTo(_taken, (at * _lanes) + k);
        (_best[at], _made[at]) = (_best[one] + _best[other], made);
    }

    private Vector256<ushort> Together(int one, int other, int k) =>
        Vector256.Create(_taken, (one * _lanes) + k) + Vector256.Create(_taken, (other * _lanes) + k);

    private void Read(int i, int j, int x, int y, List<Spot> spots)
    {
        while (_made[(i * _grid.Ys.Length) + j].By is By.Narrower or By.Lower)
            (i, j) = _made[(i * _grid.Ys.Length) + j].By == By.Narrower ? (i - 1, j) : (i, j - 1);
        var (by, at, size) = _made[(i * _grid.Ys.Length) + j];
        switch (by)
        {
            case By.Piece:
                spots.Add(new Spot(at, x, y, size));
                break;
            case By.UprightCut:
                Read(at, j, x, y, spots);
                Read(_grid.FloorX[_grid.Xs[i] - _grid.Xs[at]], j, x + _grid.Xs[at], y, spots);
                break;
            case By.LevelCut:
                Read(i, at, x, y, spots);
                Read(i, _grid.FloorY[_grid.Ys[j] - _grid.Ys[at]], x, y + _grid.Ys[at], spots);
                break;
        }
    }

    /// <summary>What made a rectangle's value.</summary>
    /// <param name="At">The type of the piece, or the place of the cut.</param>
    /// <param name="Size">Of the piece, as it lies.</param>
    private readonly record struct Made(By By, int At, Size Size);
}
