using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Drift;

/// <summary>
/// The cells of one machine in time order, kept in single precision (whole degrees leave no more to keep): tens of
/// thousands of machines stay in memory between the rounds of a judgement.
/// </summary>
public sealed class CellTable
{
    private readonly CellRow[] _rows;
    private readonly float[] _rise;
    private readonly HeatByWorkload? _heat;
    private readonly RunNoise?[]? _runs;

    private CellTable(int parts, CellRow[] rows, float[] rise, HeatByWorkload? heat, RunNoise?[]? runs) =>
        (Parts, _rows, _rise, _heat, _runs) = (parts, rows, rise, heat, runs);

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

    /// <summary>Those condensed from readings, oldest first; runs left out.</summary>
    public IEnumerable<Cell> OfReadings => All.Where(c => !c.IsRun);

    /// <summary>The noise of a run; null for a cell of readings.</summary>
    internal RunNoise? RunNoiseOf(int cell) => _runs?[cell];

    /// <summary>Whether any of them is a run.</summary>
    internal bool HasRuns => _runs is not null;

    internal bool IsRun(int cell) => _runs?[cell] is not null;

    internal ref readonly CellRow Row(int cell) => ref _rows[cell];

    internal double Rise(int cell, int part) => _rise[cell * Parts + part];

    internal double AirHeat(int cell, int part) =>
        _heat is null ? _rows[cell].Heat : _heat.Air[(_rows[cell].Workload + 1) * Parts + part];

    internal double JointHeat(int cell, int part) =>
        _heat is null ? _rows[cell].Heat : _heat.Joint[(_rows[cell].Workload + 1) * Parts + part];

    /// <summary>Condenses a machine's readings, and puts its runs between them. O(readings × parts).</summary>
    /// <param name="runs">Usable runs, oldest first.</param>
    /// <param name="runCells">How they become cells; null without runs.</param>
    internal static CellTable Of(
        Asset asset,
        Channels machine,
        ReferencePoint reference,
        IReadOnlyList<MeasuredRun>? runs = null,
        RunCells? runCells = null
    )
    {
        var condenser = new CellCondenser(machine, reference);
        condenser.AddAll([.. asset.Services.Select(s => s.Day).Order()]);
        var parts = machine.Parts.Length;
        var (rows, rise) = (condenser.Rows.ToArray(), condenser.Rise.ToArray());
        RunNoise?[]? noise = null;
        if (runs is { Count: > 0 } && runCells is not null)
            (rows, rise, noise) = WithRuns(rows, rise, parts, [.. runs.Select(runCells.Of)]);
        var heat =
            reference.HasPower || parts == 0
                ? null
                : HeatOf(rows, rise, parts, reference.Workload, oneCooler: asset.Kind != AssetKind.Desktop);
        return new CellTable(parts, rows, rise, heat, noise);
    }

    /// <summary>Rows of readings and of runs in the order of time.</summary>
    private static (CellRow[] Rows, float[] Rise, RunNoise?[] Noise) WithRuns(
        CellRow[] rows,
        float[] rise,
        int parts,
        (CellRow Row, float[] Rise, RunNoise Noise)[] runs
    )
    {
        var all = rows.Select((row, i) => (Row: row, Rise: rise.AsMemory(i * parts, parts), Noise: (RunNoise?)null))
            .Concat(runs.Select(r => (r.Row, Rise: r.Rise.AsMemory(), Noise: (RunNoise?)r.Noise)))
            .OrderBy(r => r.Row.Day)
            .ToArray();
        var merged = new float[all.Length * parts];
        for (var i = 0; i < all.Length; i++)
            all[i].Rise.Span.CopyTo(merged.AsSpan(i * parts, parts));
        return ([.. all.Select(r => r.Row)], merged, [.. all.Select(r => r.Noise)]);
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
}
