using System.Runtime.InteropServices;
using Pyrometron.Core.Cooling;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Drift;

/// <summary>Turns the readings of one cell into one row, with no more memory than its own scratch.</summary>
internal sealed class CellCondenser(Channels machine, ReferencePoint reference)
{
    private readonly double[] _speeds = machine.Series.FanRpm.Any(n => n > 0) ? machine.Series.FanRpm : machine.Series.FanPct;
    private double[] _scratch = new double[64];

    public List<CellTable.CellRow> Rows { get; } = [];

    public List<float> Rise { get; } = [];

    /// <summary>Condenses all readings: by bins of days, and never over the instant of a service.</summary>
    /// <param name="services">When the machine was served, days since 1970, ascending.</param>
    public void AddAll(ReadOnlySpan<double> services)
    {
        var s = machine.Series;
        var group = new List<int>();
        var next = 0;
        for (var start = 0; start < s.Count; )
        {
            while (next < services.Length && services[next] <= s.Day[start])
                next++;
            var until = next < services.Length ? services[next] : double.PositiveInfinity;
            var end = start;
            while (end < s.Count && Cell.BinOf(s.Day[end]) == Cell.BinOf(s.Day[start]) && s.Day[end] < until)
                end++;
            // One cell for each label met in the bin, in order of appearance.
            for (var first = start; first < end; first++)
            {
                group.Clear();
                for (var i = start; i < end; i++)
                    if (s.Workload[i] == s.Workload[first] && s.Settings[i] == s.Settings[first])
                        group.Add(i);
                if (group[0] == first)
                    Add(CollectionsMarshal.AsSpan(group));
            }
            start = end;
        }
    }

    private void Add(ReadOnlySpan<int> at)
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
            new CellTable.CellRow(
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
