using System.Numerics.Tensors;

namespace Pyrometron.Core.Materials;

/// <summary>
/// Poisson's equation on those cells of a square grid that hold liquid: conjugate gradients, each step bettered on ever coarser
/// grids (one multigrid V-cycle over aggregates of 2 × 2 cells; Trottenberg, Oosterlee and Schüller, Multigrid, 2001).
/// </summary>
internal sealed class PressureField
{
    private const int MostIterations = 60,
        SmallestGrid = 4,
        SweepsOnTheSmallest = 8;

    private readonly Level[] _levels;
    private readonly double[] _residual,
        _direction,
        _applied;

    /// <summary>A field of some cells on each side.</summary>
    public PressureField(int side)
    {
        var levels = new List<Level>();
        for (var n = side; ; n = (n + 1) / 2)
        {
            levels.Add(new Level(n));
            if (n <= SmallestGrid)
                break;
        }
        _levels = [.. levels];
        var cells = _levels[0].Value.Length;
        (_residual, _direction, _applied) = (new double[cells], new double[cells], new double[cells]);
    }

    /// <summary>Cells from one row to the next: there is an empty one at each end.</summary>
    public int Stride => _levels[0].Stride;

    /// <summary>The weight between a cell and its right neighbour; 0 unless both are full.</summary>
    public double[] Right => _levels[0].Right;

    /// <summary>The weight between a cell and its lower neighbour; 0 unless both are full.</summary>
    public double[] Below => _levels[0].Below;

    /// <summary>The sum of a cell's weights, those to places without pressure with them; 0 where it is not full.</summary>
    public double[] Own => _levels[0].Own;

    /// <summary>
    /// Finds the field whose weighted differences are the sources.
    /// </summary>
    /// <param name="value">A first guess, replaced by the field; 0 where a cell is not full.</param>
    /// <param name="source">Of each cell; 0 where it is not full.</param>
    /// <param name="tolerance">Of the residual against the sources, root of the sum of squares.</param>
    public void Solve(double[] value, double[] source, double tolerance)
    {
        for (var l = 1; l < _levels.Length; l++)
            _levels[l].Gather(_levels[l - 1]);
        var fine = _levels[0];
        fine.Apply(value, _applied);
        for (var i = 0; i < _residual.Length; i++)
            _residual[i] = source[i] - _applied[i];
        var enough = tolerance * tolerance * Dot(source, source);
        var before = 0.0;
        for (var iteration = 0; iteration < MostIterations && Dot(_residual, _residual) > enough; iteration++)
        {
            var better = Cycle();
            var now = Dot(_residual, better);
            var keep = iteration == 0 ? 0 : now / before;
            for (var i = 0; i < _direction.Length; i++)
                _direction[i] = better[i] + (keep * _direction[i]);
            fine.Apply(_direction, _applied);
            var step = now / Dot(_direction, _applied);
            for (var i = 0; i < _direction.Length; i++)
            {
                value[i] += step * _direction[i];
                _residual[i] -= step * _applied[i];
            }
            before = now;
        }
    }

    private double[] Cycle()
    {
        _residual.CopyTo(_levels[0].Source, 0);
        for (var l = 0; l < _levels.Length - 1; l++)
        {
            Array.Clear(_levels[l].Value);
            _levels[l].Sweep(blackFirst: false);
            _levels[l].Restrict(_levels[l + 1]);
        }
        var last = _levels[^1];
        Array.Clear(last.Value);
        for (var i = 0; i < SweepsOnTheSmallest; i++)
        {
            last.Sweep(blackFirst: false);
            last.Sweep(blackFirst: true);
        }
        for (var l = _levels.Length - 2; l >= 0; l--)
        {
            _levels[l].Add(_levels[l + 1]);
            // The other way round than before: so the whole stays symmetric, as conjugate gradients need it.
            _levels[l].Sweep(blackFirst: true);
        }
        return _levels[0].Value;
    }

    private static double Dot(double[] a, double[] b) => TensorPrimitives.Dot<double>(a, b);

    /// <summary>One grid.</summary>
    private sealed class Level(int side)
    {
        public int Side => side;

        public int Stride { get; } = side + 2;

        public double[] Right { get; } = new double[(side + 2) * (side + 2)];
        public double[] Below { get; } = new double[(side + 2) * (side + 2)];
        public double[] Own { get; } = new double[(side + 2) * (side + 2)];
        public double[] Value { get; } = new double[(side + 2) * (side + 2)];
        public double[] Source { get; } = new double[(side + 2) * (side + 2)];

        private int At(int x, int y) => ((y + 1) * Stride) + x + 1;

        /// <summary>
        /// The weights of a finer grid, four cells as one. Two ways side by side over twice the distance lead as one did, so the
        /// sums are halved.
        /// </summary>
        public void Gather(Level fine)
        {
            Array.Clear(Right);
            Array.Clear(Below);
            Array.Clear(Own);
            for (var y = 0; y < fine.Side; y++)
            for (var x = 0; x < fine.Side; x++)
            {
                var (from, to) = (fine.At(x, y), At(x / 2, y / 2));
                var (right, below) = (fine.Right[from], fine.Below[from]);
                Own[to] += fine.Own[from] / 2;
                if ((x & 1) == 0)
                    Own[to] -= right;
                else
                    Right[to] += right / 2;
                if ((y & 1) == 0)
                    Own[to] -= below;
                else
                    Below[to] += below / 2;
            }
        }

        public void Apply(double[] value, double[] result)
        {
            for (var y = 0; y < side; y++)
            {
                var start = At(0, y);
                var row = value.AsSpan(start - 1, side + 2);
                var above = value.AsSpan(start - Stride, side);
                var below = value.AsSpan(start + Stride, side);
                var up = Below.AsSpan(start - Stride, side);
                var down = Below.AsSpan(start, side);
                var right = Right.AsSpan(start - 1, side + 1);
                var own = Own.AsSpan(start, side);
                var to = result.AsSpan(start, side);
                for (var x = 0; x < to.Length; x++)
                    to[x] =
                        (own[x] * row[x + 1])
                        - (right[x] * row[x])
                        - (right[x + 1] * row[x + 2])
                        - (up[x] * above[x])
                        - (down[x] * below[x]);
            }
        }

        /// <summary>Gauss and Seidel's step on the cells of one colour, then on those of the other.</summary>
        public void Sweep(bool blackFirst)
        {
            for (var turn = 0; turn < 2; turn++)
            for (var y = 0; y < side; y++)
            {
                var start = At(0, y);
                var row = Value.AsSpan(start - 1, side + 2);
                var above = Value.AsSpan(start - Stride, side);
                var below = Value.AsSpan(start + Stride, side);
                var up = Below.AsSpan(start - Stride, side);
                var down = Below.AsSpan(start, side);
                var right = Right.AsSpan(start - 1, side + 1);
                var own = Own.AsSpan(start, side);
                var source = Source.AsSpan(start, side);
                for (var x = (y + turn + (blackFirst ? 1 : 0)) & 1; x < source.Length; x += 2)
                    if (own[x] > 0)
                        row[x + 1] =
                            (
                                source[x]
                                + (right[x] * row[x])
                                + (right[x + 1] * row[x + 2])
                                + (up[x] * above[x])
                                + (down[x] * below[x])
                            ) / own[x];
            }
        }

        /// <summary>
        /// Hands what is left to be explained to a coarser grid. Where a sweep came last nothing is left, so half of the cells
        /// are looked at: after a sweep that does not begin with the black ones.
        /// </summary>
        public void Restrict(Level coarse)
        {
            Array.Clear(coarse.Source);
            for (var y = 0; y < side; y++)
            {
                var start = At(0, y);
                var row = Value.AsSpan(start - 1, side + 2);
                var above = Value.AsSpan(start - Stride, side);
                var below = Value.AsSpan(start + Stride, side);
                var up = Below.AsSpan(start - Stride, side);
                var down = Below.AsSpan(start, side);
                var right = Right.AsSpan(start - 1, side + 1);
                var own = Own.AsSpan(start, side);
                var source = Source.AsSpan(start, side);
                var to = coarse.Source.AsSpan(coarse.At(0, y / 2), coarse.Side);
                for (var x = y & 1; x < source.Length; x += 2)
                    if (own[x] > 0)
                        to[x / 2] +=
                            source[x]
                            - (own[x] * row[x + 1])
                            + (right[x] * row[x])
                            + (right[x + 1] * row[x + 2])
                            + (up[x] * above[x])
                            + (down[x] * below[x]);
            }
        }

        /// <summary>Takes over what a coarser grid has found.</summary>
        public void Add(Level coarse)
        {
            for (var y = 0; y < side; y++)
            {
                var row = Value.AsSpan(At(0, y), side);
                var own = Own.AsSpan(At(0, y), side);
                var from = coarse.Value.AsSpan(coarse.At(0, y / 2), coarse.Side);
                for (var x = 0; x < row.Length; x++)
                    row[x] += own[x] > 0 ? from[x / 2] : 0;
            }
        }
    }
}
