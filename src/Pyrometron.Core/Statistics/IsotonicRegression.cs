namespace Pyrometron.Core.Statistics;

/// <summary>
/// The non-decreasing step curve nearest to points in least squares, by pooling adjacent violators (Ayer et al. 1955).
/// </summary>
public sealed class IsotonicRegression
{
    private readonly double[] _from,
        _level;

    private IsotonicRegression(double[] from, double[] level) => (_from, _level) = (from, level);

    /// <summary>Fits the curve. O(n log n).</summary>
    /// <param name="points">At least one; equal x are averaged.</param>
    public static IsotonicRegression Fit(IEnumerable<(double X, double Y)> points)
    {
        var blocks = new List<(double From, double Sum, int Count)>();
        foreach (var (x, y) in points.GroupBy(p => p.X, p => p.Y).OrderBy(g => g.Key).Select(g => (g.Key, g)))
        {
            blocks.Add((x, y.Sum(), y.Count()));
            while (blocks.Count > 1 && blocks[^2].Sum / blocks[^2].Count >= blocks[^1].Sum / blocks[^1].Count)
            {
                blocks[^2] = (blocks[^2].From, blocks[^2].Sum + blocks[^1].Sum, blocks[^2].Count + blocks[^1].Count);
                blocks.RemoveAt(blocks.Count - 1);
            }
        }
        return new IsotonicRegression([.. blocks.Select(b => b.From)], [.. blocks.Select(b => b.Sum / b.Count)]);
    }

    /// <summary>The curve at a place; NaN to the left of all points, where it could be anything lower.</summary>
    public double At(double x)
    {
        var at = Array.BinarySearch(_from, x);
        var block = at >= 0 ? at : ~at - 1;
        return block < 0 ? double.NaN : _level[block];
    }
}
