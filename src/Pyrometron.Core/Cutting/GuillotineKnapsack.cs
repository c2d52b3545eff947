using System.Numerics;
using System.Runtime.InteropServices;

namespace Pyrometron.Core.Cutting;

/// <summary>
/// The most valuable way to cut one sheet where any number of each piece may be cut: dynamic programming over sums of piece
/// lengths (Gilmore and Gomory 1966; Herz 1972).
/// </summary>
public sealed class GuillotineKnapsack
{
    private const double Same = 1e-9;

    private readonly OneThickness _part;
    private readonly int[] _xs,
        _ys;
    private readonly int[] _floorX,
        _floorY;

    /// <summary>The best value of each rectangle, by its width and then its height.</summary>
    private readonly double[][] _best;
    private readonly (int Type, Size Size)[] _ways;

    private GuillotineKnapsack(OneThickness part, (int Type, Size Size)[] ways, CutGrid grid)
    {
        (_part, _ways) = (part, ways);
        (_xs, _ys, _floorX, _floorY) = (grid.Xs, grid.Ys, grid.FloorX, grid.FloorY);
        _best = [.. _xs.Select(_ => new double[_ys.Length])];
    }

    /// <summary>A table for a part of a problem, or null where it would be too large.</summary>
    public static GuillotineKnapsack? For(OneThickness part)
    {
        var ways = part.AllWays();
        var grid = CutGrid.Of([.. ways.Select(w => w.Size)], CutGrid.Around([.. part.Sheets]));
        return grid.IsSmall(ways.Length) ? new GuillotineKnapsack(part, ways, grid) : null;
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
}
