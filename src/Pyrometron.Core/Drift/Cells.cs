using Pyrometron.Core.Fleet;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Drift;

/// <summary>
/// A few days' readings under one workload and one setting, condensed by medians: what the model is fitted to. The cost
/// of all that follows then hardly depends on how often a machine reports.
/// </summary>
/// <param name="Day">Middle of the readings, days since 1970.</param>
/// <param name="AirHeat">Heat of each part's cooler relative to the reference point.</param>
/// <param name="JointHeat">Heat through each part's own joint relative to the reference point.</param>
/// <param name="Flow">Convective resistance relative to the reference fan speed, minus 1; 0 where the fan is unknown.</param>
/// <param name="Rise">Rise over intake air by part, K; NaN where not measured.</param>
/// <param name="Count">Readings condensed.</param>
/// <param name="SpeedRatio">Turns per per cent of command, NaN where unknown: low means a tired fan.</param>
public sealed record Cell(
    double Day, int Workload, int Settings, double[] AirHeat, double[] JointHeat, double Flow, double[] Rise, int Count, double SpeedRatio, double AmbientC)
{
    /// <summary>Width of a cell, days.</summary>
    public const double Days = 5;

    /// <summary>Heat of the hottest cooler relative to the reference point.</summary>
    public double Heat => AirHeat.Max();

    /// <summary>Number of the five-day bin, the same for all machines.</summary>
    public int Bin => BinOf(Day);

    /// <summary>Number of the bin of a day.</summary>
    public static int BinOf(double day) => (int)Math.Floor(day / Days);

    /// <summary>Condenses a machine's readings. O(readings × parts).</summary>
    public static List<Cell> Of(AssetKind kind, Channels machine, ReferencePoint reference)
    {
        var s = machine.Series;
        var speeds = s.FanRpm.Any(n => n > 0) ? s.FanRpm : s.FanPct;
        var cells = new List<Cell>();
        for (var start = 0; start < s.Count;)
        {
            var end = start;
            while (end < s.Count && BinOf(s.Day[end]) == BinOf(s.Day[start]))
                end++;
            foreach (var group in Enumerable.Range(start, end - start).GroupBy(i => (s.Workload[i], s.Settings[i])))
                if (Condense(machine, reference, speeds, [.. group]) is { } cell)
                    cells.Add(cell);
            start = end;
        }
        return reference.HasPower || machine.Parts.Length == 0 ? cells : WithHeatByWorkload(cells, reference, machine.Parts.Length, oneCooler: kind != AssetKind.Desktop);
    }

    /// <summary>
    /// Without power, the heat of a workload is told from what it warms. Where all parts sit on one cooler, a part that the
    /// workload leaves idle is still on the warm cooler: the part whose rise falls most gives the heat of the cooler, what the
    /// others exceed it by goes through their own joints. In a desktop each part has a cooler of its own.
    /// </summary>
    private static List<Cell> WithHeatByWorkload(List<Cell> cells, ReferencePoint reference, int parts, bool oneCooler)
    {
        double[] Levels(int workload) => [.. Enumerable.Range(0, parts).Select(p =>
            Robust.Median(cells.Where(c => c.Workload == workload && !double.IsNaN(c.Rise[p])).Select(c => c.Rise[p]).ToArray()))];
        var main = Levels(reference.Workload);
        var heats = cells.Select(c => c.Workload).Distinct().ToDictionary(w => w, w =>
        {
            var shares = Levels(w).Select((level, p) => Math.Clamp(level / main[p], 0.05, 1.5)).Select(s => double.IsNaN(s) ? 1 : s).ToArray();
            if (!oneCooler)
                return (Air: shares, Joint: shares);
            var cooler = shares.Min();
            return (Air: [.. shares.Select(_ => cooler)], Joint: shares.Select(s => cooler >= 1 ? s : Math.Max(0, (s - cooler) / (1 - cooler))).ToArray());
        });
        return [.. cells.Select(c => c with { AirHeat = heats[c.Workload].Air, JointHeat = heats[c.Workload].Joint })];
    }

    private static Cell? Condense(Channels machine, ReferencePoint reference, double[] speeds, int[] at)
    {
        var s = machine.Series;
        var usable = at.Where(i => !double.IsNaN(machine.Ambient[i]) && (!reference.HasPower || s.Power[i] > 0)).ToArray();
        if (usable.Length == 0)
            return null;
        var heat = reference.HasPower ? usable.Average(i => s.Power[i]) / reference.PowerW : 1;
        var flows = usable.Where(i => speeds[i] > 0 || (speeds[i] == 0 && s.FanPct[i] > 0))
            .Select(i => FanLaw.RelativeResistance(speeds[i], reference.FanSpeed) - 1).Where(double.IsFinite).ToArray();
        var rise = new double[machine.Parts.Length];
        for (var p = 0; p < rise.Length; p++)
            rise[p] = Robust.Median(usable.Select(i => (machine.Parts[p][i] - machine.Ambient[i])
                    * (reference.HasPower ? heat * reference.PowerW / s.Power[i] : 1))
                .Where(double.IsFinite).ToArray());
        var ratios = usable.Where(i => s.FanRpm[i] >= 0 && s.FanPct[i] > 5).Select(i => s.FanRpm[i] / s.FanPct[i]).ToArray();
        return new Cell(usable.Average(i => s.Day[i]), s.Workload[at[0]], s.Settings[at[0]],
            [.. rise.Select(_ => heat)], [.. rise.Select(_ => heat)], flows.Length > 0 ? flows.Average() : 0, rise, usable.Length, Robust.Median(ratios), usable.Average(i => machine.Ambient[i]));
    }
}
