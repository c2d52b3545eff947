using System.Runtime.InteropServices;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Drift;

/// <summary>
/// A few days' readings under one workload and one setting, condensed by medians: what the model is fitted to. The cost
/// of all that follows then hardly depends on how often a machine reports. A view into <see cref="CellTable"/>.
/// </summary>
public readonly struct Cell
{
    /// <summary>Width of a cell, days.</summary>
    public const double Days = 5;

    private readonly CellTable _table;
    private readonly int _index;

    internal Cell(CellTable table, int index) => (_table, _index) = (table, index);

    /// <summary>Middle of the readings, days since 1970.</summary>
    public double Day => _table.Row(_index).Day;

    /// <summary>Index of the workload, −1 for none.</summary>
    public int Workload => _table.Row(_index).Workload;

    /// <summary>Index of the settings, −1 for none.</summary>
    public int Settings => _table.Row(_index).Settings;

    /// <summary>Readings condensed.</summary>
    public int Count => _table.Row(_index).Count;

    /// <summary>Convective resistance relative to the reference fan speed, minus 1; 0 where the fan is unknown.</summary>
    public double Flow => _table.Row(_index).Flow;

    /// <summary>Turns per per cent of command, NaN where unknown: low means a tired fan.</summary>
    public double SpeedRatio => _table.Row(_index).SpeedRatio;

    /// <summary>Intake air, °C.</summary>
    public double AmbientC => _table.Row(_index).AmbientC;

    /// <summary>Number of parts.</summary>
    public int Parts => _table.Parts;

    /// <summary>Number of the five-day bin, the same for all machines.</summary>
    public int Bin => BinOf(Day);

    /// <summary>Rise over intake air of a part, K; NaN where not measured.</summary>
    public double Rise(int part) => _table.Rise(_index, part);

    /// <summary>Heat of a part's cooler relative to the reference point.</summary>
    public double AirHeat(int part) => _table.AirHeat(_index, part);

    /// <summary>Heat through a part's own joint relative to the reference point.</summary>
    public double JointHeat(int part) => _table.JointHeat(_index, part);

    /// <summary>Heat of the hottest cooler relative to the reference point.</summary>
    public double Heat
    {
        get
        {
            var most = 0.0;
            for (var p = 0; p < _table.Parts; p++)
                most = Math.Max(most, AirHeat(p));
            return most;
        }
    }

    /// <summary>Number of the bin of a day.</summary>
    public static int BinOf(double day) => (int)Math.Floor(day / Days);
}

/// <summary>
/// The cells of one machine in time order, kept in single precision (whole degrees leave no more to keep): tens of
/// thousands of machines stay in memory between the rounds of a judgement.
/// </summary>
public sealed class CellTable
{
    private readonly CellRow[] _rows;
    private readonly float[] _rise;
    private readonly HeatByWorkload? _heat;

    internal CellTable(int parts, CellRow[] rows, float[] rise, HeatByWorkload? heat) =>
        (Parts, _rows, _rise, _heat) = (parts, rows, rise, heat);

    /// <summary>What is kept of a cell besides its rises.</summary>
    internal readonly record struct CellRow(
        double Day,
        short Workload,
        short Settings,
        int Count,
        float Heat,
        float Flow,
        float SpeedRatio,
        float AmbientC
    );

    /// <summary>Where power is not measured: heat of cooler and joint by workload (−1 first) and part.</summary>
    internal sealed record HeatByWorkload(double[] Air, double[] Joint);

    /// <summary>Number of cells.</summary>
    public int Count => _rows.Length;

    /// <summary>Number of parts.</summary>
    public int Parts { get; }

    /// <summary>One cell.</summary>
    public Cell this[int index] => new(this, index);

    /// <summary>All cells, oldest first.</summary>
    public IEnumerable<Cell> All => Enumerable.Range(0, Count).Select(i => this[i]);

    internal ref readonly CellRow Row(int cell) => ref _rows[cell];

    internal double Rise(int cell, int part) => _rise[cell * Parts + part];

    internal double AirHeat(int cell, int part) =>
        _heat is null ? _rows[cell].Heat : _heat.Air[(_rows[cell].Workload + 1) * Parts + part];

    internal double JointHeat(int cell, int part) =>
        _heat is null ? _rows[cell].Heat : _heat.Joint[(_rows[cell].Workload + 1) * Parts + part];

    /// <summary>Condenses a machine's readings. O(readings × parts).</summary>
    public static CellTable Of(AssetKind kind, Channels machine, ReferencePoint reference)
    {
        var s = machine.Series;
        var condenser = new Condenser(machine, reference);
        var group = new List<int>();
        for (var start = 0; start < s.Count; )
        {
            var end = start;
            while (end < s.Count && Cell.BinOf(s.Day[end]) == Cell.BinOf(s.Day[start]))
                end++;
            // One cell for each label met in the bin, in order of appearance.
            for (var first = start; first < end; first++)
            {
                group.Clear();
                for (var i = start; i < end; i++)
                    if (s.Workload[i] == s.Workload[first] && s.Settings[i] == s.Settings[first])
                        group.Add(i);
                if (group[0] == first)
                    condenser.Add(CollectionsMarshal.AsSpan(group));
            }
            start = end;
        }
        var parts = machine.Parts.Length;
        var (rows, rise) = (condenser.Rows.ToArray(), condenser.Rise.ToArray());
        return new CellTable(
            parts,
            rows,
            rise,
            reference.HasPower || parts == 0
                ? null
                : HeatOf(rows, rise, parts, reference.Workload, oneCooler: kind != AssetKind.Desktop)
        );
    }

    /// <summary>
    /// Without power, the heat of a workload is told from what it warms. Where all parts sit on one cooler, a part that the
    /// workload leaves idle is still on the warm cooler: the part whose rise falls most gives the heat of the cooler, what the
    /// others exceed it by goes through their own joints. In a desktop each part has a cooler of its own.
    /// </summary>
    private static HeatByWorkload HeatOf(CellRow[] rows, float[] rise, int parts, int main, bool oneCooler)
    {
        var workloads = rows.Select(r => (int)r.Workload).DefaultIfEmpty(-1).Max() + 2;
        var heat = new HeatByWorkload(new double[workloads * parts], new double[workloads * parts]);
        double Level(int workload, int part) =>
            Robust.Median(
                Enumerable
                    .Range(0, rows.Length)
                    .Where(c => rows[c].Workload == workload)
                    .Select(c => (double)rise[c * parts + part])
                    .Where(r => !double.IsNaN(r))
                    .ToArray()
            );
        for (var w = 0; w < workloads; w++)
        {
            var shares = Enumerable
                .Range(0, parts)
                .Select(p => Math.Clamp(Level(w - 1, p) / Level(main, p), 0.05, 1.5))
                .Select(s => double.IsNaN(s) ? 1 : s)
                .ToArray();
            var cooler = shares.Min();
            for (var p = 0; p < parts; p++)
            {
                heat.Air[w * parts + p] = oneCooler ? cooler : shares[p];
                heat.Joint[w * parts + p] =
                    !oneCooler || cooler >= 1 ? shares[p] : Math.Max(0, (shares[p] - cooler) / (1 - cooler));
            }
        }
        return heat;
    }

    /// <summary>Turns the readings of one cell into one row, with no more memory than its own scratch.</summary>
    private sealed class Condenser(Channels machine, ReferencePoint reference)
    {
        private readonly double[] _speeds = machine.Series.FanRpm.Any(n => n > 0) ? machine.Series.FanRpm : machine.Series.FanPct;
        private double[] _scratch = new double[64];

        public List<CellRow> Rows { get; } = [];

        public List<float> Rise { get; } = [];

        public void Add(ReadOnlySpan<int> at)
        {
            var s = machine.Series;
            var (count, power, day, air, flow, flows) = (0, 0.0, 0.0, 0.0, 0.0, 0);
            foreach (var i in at)
                if (Usable(i))
                {
                    count++;
                    power += s.Power[i];
                    day += s.Day[i];
                    air += machine.Ambient[i];
                    if (_speeds[i] > 0 || (_speeds[i] == 0 && s.FanPct[i] > 0))
                        if (FanLaw.RelativeResistance(_speeds[i], reference.FanSpeed) - 1 is var f && double.IsFinite(f))
                            (flow, flows) = (flow + f, flows + 1);
                }
            if (count == 0)
                return;
            power /= count;
            for (var p = 0; p < machine.Parts.Length; p++)
                Rise.Add((float)MedianRise(at, machine.Parts[p], power));
            Rows.Add(
                new CellRow(
                    day / count,
                    (short)s.Workload[at[0]],
                    (short)s.Settings[at[0]],
                    count,
                    (float)(reference.HasPower ? power / reference.PowerW : 1),
                    flows > 0 ? (float)(flow / flows) : 0,
                    (float)MedianRatio(at),
                    (float)(air / count)
                )
            );
        }

        private bool Usable(int i) => !double.IsNaN(machine.Ambient[i]) && (!reference.HasPower || machine.Series.Power[i] > 0);

        private double MedianRise(ReadOnlySpan<int> at, double[] part, double power)
        {
            var n = 0;
            foreach (var i in at)
                if (
                    Usable(i)
                    && (part[i] - machine.Ambient[i]) * (reference.HasPower ? power / machine.Series.Power[i] : 1) is var rise
                    && double.IsFinite(rise)
                )
                    Push(n++, rise);
            return Robust.MedianInPlace(_scratch.AsSpan(0, n));
        }

        private double MedianRatio(ReadOnlySpan<int> at)
        {
            var n = 0;
            foreach (var i in at)
                if (Usable(i) && machine.Series.FanRpm[i] >= 0 && machine.Series.FanPct[i] > 5)
                    Push(n++, machine.Series.FanRpm[i] / machine.Series.FanPct[i]);
            return Robust.MedianInPlace(_scratch.AsSpan(0, n));
        }

        private void Push(int n, double value)
        {
            if (n == _scratch.Length)
                Array.Resize(ref _scratch, 2 * n);
            _scratch[n] = value;
        }
    }
}
