using System.Numerics.Tensors;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Drift;

/// <summary>What the machines of a zone know together of the room they share: normal equations by bins.</summary>
internal sealed class RoomEquations
{
    /// <summary>How far a room is expected to stray from its intake sensors in five days, K.</summary>
    private const double RoomSigma = 10;

    /// <summary>How far it may stray on the average of all days, K.</summary>
    private const double AverageSigma = 0.1;

    private readonly int[] _bins;
    private readonly int _count;
    private readonly double[] _matrix,
        _right;

    /// <summary>Empty equations for some bins, ascending.</summary>
    public RoomEquations(int[] bins)
    {
        (_bins, _count) = (bins, bins.Length);
        (_matrix, _right) = (new double[_count * _count], new double[_count]);
    }

    /// <summary>The bins whose room is asked for, ascending.</summary>
    public IReadOnlyList<int> Bins => _bins;

    /// <summary>Where a machine's bins stand among these: −1 where its bin is none of them.</summary>
    public void Place(ReadOnlySpan<int> bins, Span<int> places)
    {
        for (int b = 0, at = 0; b < bins.Length; b++)
        {
            while (at < _count && _bins[at] < bins[b])
                at++;
            places[b] = at < _count && _bins[at] == bins[b] ? at : -1;
        }
    }

    /// <summary>
    /// Adds one row of a machine's equations, up to its diagonal: the lower triangle is all that is solved with.
    /// </summary>
    /// <param name="row">Where its bin stands, not −1.</param>
    /// <param name="places">Where the machine's bins up to this one stand.</param>
    /// <param name="weights">One value a bin of these.</param>
    public void Add(int row, ReadOnlySpan<int> places, ReadOnlySpan<double> weights, double right)
    {
        var target = _matrix.AsSpan(row * _count, _count);
        for (var k = 0; k < places.Length; k++)
            if (places[k] >= 0)
                target[places[k]] += weights[k];
        _right[row] += right;
    }

    /// <summary>Adds another part of the zone, for the same bins.</summary>
    public void Add(RoomEquations part)
    {
        TensorPrimitives.Add<double>(_matrix, part._matrix, _matrix);
        TensorPrimitives.Add<double>(_right, part._right, _right);
    }

    /// <summary>The room that fits all machines best, drawn to zero by as much as a room is expected to be quiet.</summary>
    /// <returns>K by bin.</returns>
    public double[] Solve()
    {
        for (var b = 0; b < _count; b++)
            _matrix[b * _count + b] += 1 / (RoomSigma * RoomSigma);
        // What the sensors miss on every day alike cannot be told from the machines, and belongs to them.
        var average = 1 / (AverageSigma * AverageSigma * _count * _count);
        for (var i = 0; i < _matrix.Length; i++)
            _matrix[i] += average;
        if (Cholesky.Factor(_matrix, _count))
        {
            Cholesky.SolveLower(_matrix, _count, _right);
            Cholesky.SolveUpper(_matrix, _count, _right);
        }
        else
            Array.Clear(_right);
        return _right;
    }
}
