using Pyrometron.Core.Fleet;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Drift;

/// <summary>
/// The thermal model of one machine with its wear, fitted to its cells in one piece:
/// <code>rise_i = room + q_i·[ J_i,w + O_i(t) + M_i(t) ] + q·s_i·(1 + f)·(F + S(t))</code>
/// q heat (of the cooler, q_i through part i's joint) and f convective resistance relative to the reference point; J_i,w the joint side of part i under workload w;
/// F the fresh air side; S(t) what has fouled it, shared by all parts in the proportion s_i; O_i(t) what part i alone has
/// lost; M_i steps where a cooler was lifted. S and O only ever grow between the services that renew them, and start at
/// zero there: that is what tells wear from seasons. Robust (Huber weights), sparse (a lasso prior: no wear unless the
/// readings ask for it, and one shared cause before three of their own).
/// </summary>
public sealed class WearModel
{
    /// <summary>Spread of a single reading about the model, K (whole degrees, load and air not quite settled).</summary>
    private const double ReadingSigma = 1.3;

    /// <summary>Spread of a cell's median that more readings do not shrink, K.</summary>
    private const double CellSigma = 0.45;

    private const double HuberK = 1.5;

    /// <summary>Length of a piece of the growing curves, days.</summary>
    private const double PieceDays = 40;

    /// <summary>Spread of the relative convective resistance that tells the air side apart.</summary>
    private const double LeastFlowSpread = 0.12;

    private readonly Asset _asset;
    private readonly ReferencePoint _reference;
    private readonly IReadOnlyList<Cell> _cells;
    private readonly double[] _share;
    private readonly WearColumns _columns;
    private readonly double[] _x;
    private readonly double[] _hessian;
    private readonly double[] _gradient;
    private readonly double[] _rows;
    private readonly double[] _weights;

    private WearModel(Asset asset, ReferencePoint reference, IReadOnlyList<Cell> cells, double asOfDay, IReadOnlyList<SensorStep> sensorSteps)
    {
        (_asset, _reference, _cells) = (asset, reference, cells);
        SensorSteps = sensorSteps;
        var levels = Enumerable.Range(0, asset.Parts.Count).Select(p => MainLevel(p)).ToArray();
        _share = AirShares(asset, levels);
        _columns = WearColumns.For(asset, reference, cells, asOfDay, levels, _share, sensorSteps, PieceDays);
        var n = _columns.Count;
        _x = _columns.Start();
        (_hessian, _gradient) = (new double[n * n], new double[n]);
        _rows = new double[cells.Count * asset.Parts.Count * n];
        _weights = new double[cells.Count * asset.Parts.Count];
        for (var c = 0; c < cells.Count; c++)
            for (var p = 0; p < asset.Parts.Count; p++)
                _columns.Fill(_rows.AsSpan((c * asset.Parts.Count + p) * n, n), cells[c], p, _share[p]);
    }

    /// <summary>Offsets of single sensors that were found and taken out.</summary>
    public IReadOnlyList<SensorStep> SensorSteps { get; }

    /// <summary>The machine's cells, in time order.</summary>
    public IReadOnlyList<Cell> Cells => _cells;

    /// <summary>The reference point everything is brought to.</summary>
    public ReferencePoint Reference => _reference;

    /// <summary>In what proportion the parts feel the air side, the hottest 1.</summary>
    public IReadOnlyList<double> AirShare => _share;

    /// <summary>Sets up the model of a machine.</summary>
    /// <returns>Null when there is nothing to fit.</returns>
    public static WearModel? For(Asset asset, ReferencePoint reference, IReadOnlyList<Cell> cells, double asOfDay, IReadOnlyList<SensorStep> sensorSteps) =>
        cells.Count < 2 || asset.Parts.Count == 0 ? null : new WearModel(asset, reference, cells, asOfDay, sensorSteps);

    /// <summary>Fits the model with a given room. May be called again with a better one; it goes on from where it stands.</summary>
    /// <param name="room">What the room adds on a bin, K.</param>
    /// <param name="passes">Rounds of reweighting.</param>
    /// <param name="relaxed">Whether the wear that stands now is taken as found, and only its size is fitted.</param>
    public void Fit(Func<int, double> room, int passes, bool relaxed = false)
    {
        var found = relaxed ? (double[])_x.Clone() : null;
        var n = _columns.Count;
        for (var pass = 0; pass < passes; pass++)
        {
            Array.Clear(_hessian);
            Array.Clear(_gradient);
            _columns.AddPriors(_hessian, _gradient);
            for (var c = 0; c < _cells.Count; c++)
            {
                var offset = room(_cells[c].Bin);
                for (var p = 0; p < _asset.Parts.Count; p++)
                {
                    var index = c * _asset.Parts.Count + p;
                    var y = _cells[c].Rise[p] - offset;
                    if (double.IsNaN(y))
                        continue;
                    var row = _rows.AsSpan(index * n, n);
                    var variance = CellSigma * CellSigma + ReadingSigma * ReadingSigma / _cells[c].Count;
                    var pull = Math.Abs(y - Dot(row, _x)) / Math.Sqrt(variance);
                    var weight = (pass == 0 && _weights[index] == 0 ? 1 : Math.Min(1, HuberK / pull)) / variance;
                    _weights[index] = weight;
                    Accumulate(row, y, weight);
                }
            }
            for (var i = 0; i < n; i++)
                for (var j = 0; j < i; j++)
                    _hessian[i * n + j] = _hessian[j * n + i];
            _columns.AddPrices(_hessian, _gradient, found);
            BoundedLeastSquares.Solve(_hessian, _gradient, _columns.NonNegative, _x);
        }
    }

    private void Accumulate(ReadOnlySpan<double> row, double y, double weight)
    {
        var n = row.Length;
        for (var i = 0; i < n; i++)
        {
            if (row[i] == 0)
                continue;
            var wi = weight * row[i];
            _gradient[i] += wi * y;
            for (var j = i; j < n; j++)
                _hessian[i * n + j] += wi * row[j];
        }
    }

    /// <summary>Rise at a cell by the model without room, K.</summary>
    public double Predict(int cell, int part) => Dot(_rows.AsSpan((cell * _asset.Parts.Count + part) * _columns.Count, _columns.Count), _x);

    /// <summary>What a kind of column contributes to a part's rise at the reference point on a day, K.</summary>
    public double At(WearTerm term, int part, double day) => _columns.At(term, part, day, _x, _share[part]);

    /// <summary>What other settings than the present ones added to a part's rise, K.</summary>
    public double SettingsOffset(int part, int settings) =>
        _columns.OffsetOf(WearTerm.SettingsHeat, part, settings, _x) + _columns.OffsetOf(WearTerm.SettingsOffset, part, settings, _x);

    /// <summary>Fresh rise of the air side at the reference point, K: what same-model machines have in common.</summary>
    public double AirRise => _columns.At(WearTerm.Air, 0, 0, _x, 1);

    /// <summary>Whether the machine's own fan has moved enough for its readings to tell the air side from the joints.</summary>
    public bool KnowsItsAir => _reference.FanSpeed > 0 && _cells.Select(c => c.Flow).ToArray() is { Length: >= 10 } flows
        && Robust.Quantile(flows, 0.9) - Robust.Quantile(flows, 0.1) > LeastFlowSpread;

    /// <summary>Takes what siblings have shown of the air side as this machine's prior.</summary>
    public void SetAirPrior(double mean, double sigma) => _columns.SetAirPrior(mean, sigma);

    /// <summary>The steps of a kind: day, part and kelvins.</summary>
    public IEnumerable<(double Day, int Part, double Kelvin)> Steps(WearTerm term) => _columns.Steps(term, _x);

    /// <summary>Rise of a part at the reference point with everything fresh, K.</summary>
    public double FreshRise(int part) => At(WearTerm.Joint, part, 0) + At(WearTerm.Air, part, 0);

    /// <summary>A cell's measured rise less the room, brought to the reference heat and fan, K.</summary>
    public double AtReference(int cell, int part, double room)
    {
        var c = _cells[cell];
        var atReference = FreshRise(part) + At(WearTerm.Shared, part, c.Day) + At(WearTerm.Own, part, c.Day) + At(WearTerm.Mount, part, c.Day);
        return atReference + (c.Rise[part] - room - Predict(cell, part)) / Math.Max(0.3, c.AirHeat[part]);
    }

    /// <summary>Median rise of the main workload: a first idea of the level.</summary>
    private double MainLevel(int part)
    {
        var main = _cells.Where(c => c.Workload == _reference.Workload && !double.IsNaN(c.Rise[part])).Select(c => c.Rise[part] / c.AirHeat[part]).ToArray();
        return main.Length > 0 ? Robust.Median(main)
            : _cells.Select(c => c.Rise[part]).Where(r => !double.IsNaN(r)).DefaultIfEmpty(30).Average();
    }

    /// <summary>
    /// Parts of a card or a laptop share one cooler: alike. In a server each part has its own fins in one stream of air;
    /// memory has hardly any joint, so nearly all of its rise is the air side.
    /// </summary>
    private static double[] AirShares(Asset asset, double[] levels)
    {
        if (asset.Kind != AssetKind.Server)
            return [.. levels.Select(_ => 1.0)];
        var air = asset.Parts.Select((part, p) => Math.Max(1, levels[p]) * (part.Joint == JointMaterial.Pad ? 0.6 : 0.5)).ToArray();
        return [.. air.Select(a => a / air.Max())];
    }

    private static double Dot(ReadOnlySpan<double> a, ReadOnlySpan<double> b) => System.Numerics.Tensors.TensorPrimitives.Dot(a, b);
}
