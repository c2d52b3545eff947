using System.Numerics.Tensors;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Drift;

/// <summary>
/// The air in front of one machine against its zone's, by bin: an Ornstein–Uhlenbeck process a ~ N(0, Q⁻¹). Its precision Q is
/// tridiagonal at the bins, since only neighbours know of each other; what the readings tell adds D to its diagonal.
/// </summary>
internal sealed class LocalAir
{
    private readonly Tridiagonal _precision = new();
    private double[] _diagonal = [],
        _off = [],
        _weights = [];
    private int _bins;

    /// <summary>Forgets the machine before.</summary>
    public void Clear(int bins)
    {
        _bins = bins;
        if (_diagonal.Length < bins)
            (_diagonal, _off, _weights) = (new double[bins], new double[bins], new double[bins]);
        Array.Clear(_weights, 0, bins);
    }

    /// <summary>D: how much the readings of each bin weigh, K⁻².</summary>
    public Span<double> Weights => _weights.AsSpan(0, _bins);

    /// <summary>Factors M = D + Q.</summary>
    public void Factor(WearModel model)
    {
        var precision = 1 / (model.Noise.LocalAir * model.Noise.LocalAir);
        Array.Fill(_diagonal, precision, 0, _bins);
        for (var b = 0; b + 1 < _bins; b++)
        {
            var rho = Math.Exp(-(model.Bins[b + 1] - model.Bins[b]) * Cell.Days / NoiseModel.LocalAirDays);
            var gained = precision * rho * rho / (1 - rho * rho);
            _diagonal[b] += gained;
            _diagonal[b + 1] += gained;
            _off[b] = -precision * rho / (1 - rho * rho);
        }
        TensorPrimitives.Add(_diagonal.AsSpan(0, _bins), Weights, _diagonal);
        _precision.Factor(_diagonal.AsSpan(0, _bins), _off.AsSpan(0, _bins - 1));
    }

    /// <summary>M⁻¹ times a vector, in place.</summary>
    public void Solve(Span<double> byBin) => _precision.Solve(byBin);
}
