using System.Numerics;
using System.Runtime.InteropServices;

namespace Pyrometron.Core.Cutting;

/// <summary>
/// The most valuable way to cut one sheet where any number of each piece may be cut: dynamic programming over sums of piece
/// lengths, since every cut can be moved to such a sum (Gilmore and Gomory 1966; Herz 1972).
/// </summary>
public sealed class GuillotineKnapsack
{
    /// <summary>Beyond so many steps a table is not worked out: sizes in odd hundredths would take minutes.</summary>
    private const long MostSteps = 40_000_000;

    private const double Same = 1e-9;

    private readonly OneThickness _part;
    private readonly int[] _xs,
        _ys;
    private readonly int[] _floorX,
        _floorY;

    /// <summary>The best value of each rectangle, by its width and then its height.</summary>
    private readonly double[][] _best;
    private readonly (int Type, Size Size)[] _ways;

    private GuillotineKnapsack(OneThickness part, int[] xs, int[] ys)
    {
        (_part, _xs, _ys) = (part, xs, ys);
        (_floorX, _floorY) = (Floors(xs, part.Sheets.Max(s => s.Width)), Floors(ys, part.Sheets.Max(s => s.Height)));
        _best = [.. xs.Select(_ => new double[ys.Length])];
        _ways = [.. Enumerable.Range(0, part.Pieces.Count).SelectMany(i => part.Ways(i).Select(w => (i, w)))];
    }

    /// <summary>A table for a part of a problem, or null where it would be too large.</summary>
    public static GuillotineKnapsack? For(OneThickness part)
    {
        var ways = Enumerable.Range(0, part.Pieces.Count).SelectMany(part.Ways).ToList();
        var xs = Sums([.. ways.Select(w => w.Width).Distinct()], part.Sheets.Max(s => s.Width));
        var ys = Sums([.. ways.Select(w => w.Height).Distinct()], part.Sheets.Max(s => s.Height));
        return (long)xs.Length * ys.Length * (xs.Length + ys.Length + ways.Count) / 2 <= MostSteps
            ? new GuillotineKnapsack(part, xs, ys)
            : null;
    }

    /// <summary>The best pattern of each sheet type, with its value.</summary>
    /// <param name="values">Of each type of piece; what is worth nothing is not cut.</param>
    public IReadOnlyList<(Pattern Pattern, double Value)> Best(IReadOnlyList<double> values)
    {
        Fill(values);
        return
        [
            .. _part.Sheets.Select(
                (size, sheet) =>
                {
                    var (x, y) = (_floorX[size.Width], _floorY[size.Height]);
                    var spots = new List<Spot>();
                    Read(values, x, y, 0, 0, spots);
                    return (new Pattern(sheet, spots), _best[x][y]);
                }
            ),
        ];
    }

    private void Fill(IReadOnlyList<double> values)
    {
        for (var i = 0; i < _xs.Length; i++)
        {
            var row = _best[i].AsSpan();
            row.Clear();
            foreach (var (type, size) in _ways)
                if (values[type] > 0 && size.Width <= _xs[i])
                    for (var j = _floorY.Length > size.Height ? _floorY[size.Height] : row.Length; j < row.Length; j++)
                        row[j] = Math.Max(row[j], values[type]);
            for (var a = 1; a < i && 2 * _xs[a] <= _xs[i]; a++)
                LargerOfSum(row, _best[a], _best[_floorX[_xs[i] - _xs[a]]]);
            for (var j = 1; j < row.Length; j++)
            {
                var best = row[j];
                for (var b = 1; b < j && 2 * _ys[b] <= _ys[j]; b++)
                    best = Math.Max(best, row[b] + row[_floorY[_ys[j] - _ys[b]]]);
                row[j] = best;
            }
        }
    }

    /// <summary>Puts a + b wherever it is larger.</summary>
    private static void LargerOfSum(Span<double> row, ReadOnlySpan<double> a, ReadOnlySpan<double> b)
    {
        var rows = MemoryMarshal.Cast<double, Vector<double>>(row);
        var ofA = MemoryMarshal.Cast<double, Vector<double>>(a);
        var ofB = MemoryMarshal.Cast<double, Vector<double>>(b);
        for (var i = 0; i < rows.Length; i++)
            rows[i] = Vector.Max(rows[i], ofA[i] + ofB[i]);
        for (var i = rows.Length * Vector<double>.Count; i < row.Length; i++)
            row[i] = Math.Max(row[i], a[i] + b[i]);
    }

    /// <summary>Finds again what made the best value of a rectangle: nothing, one piece, or a cut.</summary>
    private void Read(IReadOnlyList<double> values, int x, int y, int left, int top, List<Spot> spots)
    {
        var best = _best[x][y];
        if (best <= Same)
            return;
        foreach (var (type, size) in _ways)
            if (values[type] >= best - Same && size.Width <= _xs[x] && size.Height <= _ys[y])
            {
                spots.Add(new Spot(type, left, top, size));
                return;
            }
        for (var a = 1; a < x && 2 * _xs[a] <= _xs[x]; a++)
            if (_floorX[_xs[x] - _xs[a]] is var rest && _best[a][y] + _best[rest][y] >= best - Same)
            {
                Read(values, a, y, left, top, spots);
                Read(values, rest, y, left + _xs[a], top, spots);
                return;
            }
        for (var b = 1; b < y && 2 * _ys[b] <= _ys[y]; b++)
            if (_floorY[_ys[y] - _ys[b]] is var rest && _best[x][b] + _best[x][rest] >= best - Same)
            {
                Read(values, x, b, left, top, spots);
                Read(values, x, rest, left, top + _ys[b], spots);
                return;
            }
    }

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

    /// <summary>For each length the place of the largest sum that is not longer.</summary>
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
