namespace Pyrometron.Core.Statistics;

/// <summary>
/// Order statistics of the slopes between all pairs of points, without making them all. Few points are simply sorted. Else,
/// after Matoušek (1991) and Dillencourt, Mount &amp; Netanyahu (1992): a pair's slope lies below s exactly when y − s·t stands
/// in the other order than t, so slopes below s are counted as inversions by one merge sort, O(n log n); a random sample of
/// slopes gives a narrow bracket about the wanted rank, and only the pairs inside it are made. The answer is exact; chance
/// decides only how long it takes.
/// </summary>
internal sealed class PairSlopes
{
    /// <summary>So many points and fewer are sorted pair by pair.</summary>
    private const int Few = 160;

    /// <summary>Slopes sampled for each point.</summary>
    private const int SampledPerPoint = 4;

    private readonly double[] _t,
        _y;
    private readonly double[] _value,
        _other;
    private readonly int[] _order,
        _spare;
    private readonly double[] _sorted;
    private (long Below, double[] Inside)? _bracket;

    /// <summary>Takes the points; O(n log n).</summary>
    public PairSlopes(ReadOnlySpan<double> t, ReadOnlySpan<double> y)
    {
        (_t, _y) = (t.ToArray(), y.ToArray());
        // By time, equal times by value: such pairs have no slope, and stand in order whatever s is.
        var n = _t.Length;
        var order = Enumerable.Range(0, n).ToArray();
        Array.Sort(order, (a, b) => _t[a] != _t[b] ? _t[a].CompareTo(_t[b]) : _y[a].CompareTo(_y[b]));
        (_t, _y) = ([.. order.Select(i => _t[i])], [.. order.Select(i => _y[i])]);
        Count = (long)n * (n - 1) / 2;
        for (int i = 0, run = 1; i < n; i++, run++)
            if (i + 1 == n || _t[i + 1] != _t[i])
                (Count, run) = (Count - (long)run * (run - 1) / 2, 0);
        (_value, _other, _order, _spare) = n <= Few ? ([], [], [], []) : (new double[n], new double[n], new int[n], new int[n]);
        _sorted = n <= Few ? All() : Sample();
        Array.Sort(_sorted);
    }

    /// <summary>Number of pairs with different times.</summary>
    public long Count { get; }

    /// <summary>The slope of a rank, the smallest 0.</summary>
    public double Select(long rank)
    {
        if (_t.Length <= Few)
            return _sorted[rank];
        if (_bracket is not { } known || rank < known.Below || rank >= known.Below + known.Inside.Length)
            _bracket = known = BracketOf(rank);
        return Robust.OrderStatistic(known.Inside, (int)(rank - known.Below));
    }

    private double[] All()
    {
        var slopes = new double[Count];
        var k = 0;
        for (var i = 0; i < _t.Length; i++)
        for (var j = i + 1; j < _t.Length; j++)
            if (_t[j] != _t[i])
                slopes[k++] = Slope(i, j);
        return slopes;
    }

    private double Slope(int i, int j) => (_y[j] - _y[i]) / (_t[j] - _t[i]);

    private double[] Sample()
    {
        var random = new Random(1);
        var slopes = new double[SampledPerPoint * _t.Length];
        var k = 0;
        for (var attempt = 0; attempt < 4 * slopes.Length && k < slopes.Length; attempt++)
            if (random.Next(_t.Length) is var i && random.Next(_t.Length) is var j && _t[i] != _t[j])
                slopes[k++] = Slope(i, j);
        return slopes[..k];
    }

    private (long Below, double[] Inside) BracketOf(long rank)
    {
        // Three standard deviations of a sample quantile to either side; wider until the rank is inside.
        var share = (double)rank / Count;
        for (var width = 3 * Math.Sqrt(share * (1 - share) * _sorted.Length) + 2; ; width *= 3)
        {
            var (from, to) = ((int)Math.Floor(share * _sorted.Length - width), (int)Math.Ceiling(share * _sorted.Length + width));
            var low = from < 0 ? double.NegativeInfinity : Beside(_sorted[from], -1);
            var high = to >= _sorted.Length ? double.PositiveInfinity : Beside(_sorted[to], 1);
            var below = double.IsInfinity(low) ? 0 : SortBy(low);
            if (below > rank)
                continue;
            var inside = Between(low, high);
            if (below + inside.Length <= rank)
                continue;
            return (below, inside);
        }
    }

    /// <summary>A little beside a slope, so that rounding cannot put the pairs with that very slope on either side.</summary>
    private static double Beside(double slope, int side) => slope + side * 1e-9 * Math.Max(1e-6, Math.Abs(slope));

    /// <summary>Slopes above one value and up to another: pairs that change their order in between.</summary>
    private double[] Between(double low, double high)
    {
        // _order stands as sorted by y − low·t; infinitely low is in order of time.
        if (double.IsInfinity(low))
            for (var i = 0; i < _order.Length; i++)
                _order[i] = i;
        var inside = new List<double>(64 * _t.Length);
        for (var place = 0; place < _order.Length; place++)
            _value[place] = double.IsInfinity(high) ? -_order[place] : _y[_order[place]] - high * _t[_order[place]];
        Merge(0, _order.Length, inside);
        return [.. inside];
    }

    /// <summary>Sorts the points by y − s·t and counts the pairs that had to change places.</summary>
    private long SortBy(double s)
    {
        for (var i = 0; i < _order.Length; i++)
        {
            _order[i] = i;
            _value[i] = _y[i] - s * _t[i];
        }
        return Merge(0, _order.Length, null);
    }

    /// <summary>Merge sort by value that counts inversions, or lists the slopes of the pairs that are inverted.</summary>
    private long Merge(int from, int to, List<double>? slopes)
    {
        if (to - from < 2)
            return 0;
        var middle = (from + to) / 2;
        var inversions = Merge(from, middle, slopes) + Merge(middle, to, slopes);
        for (int a = from, b = middle, k = from; k < to; k++)
            if (b >= to || (a < middle && _value[a] <= _value[b]))
                (_other[k], _spare[k]) = (_value[a], _order[a++]);
            else
            {
                inversions += middle - a;
                for (var left = a; slopes is not null && left < middle; left++)
                    if (_t[_order[left]] != _t[_order[b]])
                        slopes.Add(Slope(_order[left], _order[b]));
                (_other[k], _spare[k]) = (_value[b], _order[b++]);
            }
        Array.Copy(_other, from, _value, from, to - from);
        Array.Copy(_spare, from, _order, from, to - from);
        return inversions;
    }
}
