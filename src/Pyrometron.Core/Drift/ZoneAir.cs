using Pyrometron.Core.Messages;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Drift;

/// <summary>
/// The measured intake air of a zone by bins of days: the median over its machines. Stands in for a machine's own
/// sensor when it has none, or when its own wanders away from everyone else's.
/// </summary>
public sealed class ZoneAir
{
    /// <summary>Width of a bin, days.</summary>
    public const double BinDays = 2;

    /// <summary>An intake sensor that moved this far from its usual distance to the zone, K, is not believed.</summary>
    private const double Astray = 3;

    private readonly Dictionary<int, double> _median;

    private ZoneAir(Dictionary<int, double> median) => _median = median;

    /// <summary>Medians of all machines of one zone.</summary>
    public static ZoneAir Of(IEnumerable<Channels> machines)
    {
        var bins = new Dictionary<int, List<double>>();
        foreach (var machine in machines)
            for (var i = 0; i < machine.Series.Count; i++)
                if (!double.IsNaN(machine.Ambient[i]))
                {
                    if (!bins.TryGetValue(Bin(machine.Series.Day[i]), out var values))
                        bins[Bin(machine.Series.Day[i])] = values = [];
                    values.Add(machine.Ambient[i]);
                }
        return new ZoneAir(bins.ToDictionary(b => b.Key, b => Robust.Median(b.Value.ToArray())));
    }

    /// <summary>The first and the last day with a measured air, days since 1970; null without any.</summary>
    public (double First, double Last)? Known =>
        _median.Count == 0 ? null : (_median.Keys.Min() * BinDays, (_median.Keys.Max() + 1) * BinDays);

    /// <summary>The zone's air near a day, °C; NaN when nobody measured within a week.</summary>
    public double At(double day)
    {
        for (var away = 0; away <= 4; away++)
        {
            var (before, after) = (
                _median.GetValueOrDefault(Bin(day) - away, double.NaN),
                _median.GetValueOrDefault(Bin(day) + away, double.NaN)
            );
            if (!double.IsNaN(before) || !double.IsNaN(after))
                return double.IsNaN(before) ? after
                    : double.IsNaN(after) ? before
                    : (before + after) / 2;
        }
        return double.NaN;
    }

    /// <summary>
    /// Puts the zone's air where a machine has no reading of its own, and where its own sensor has moved away from the
    /// zone for good (its usual distance to the zone is kept).
    /// </summary>
    /// <returns>Whether the machine measures its own air.</returns>
    public bool Complete(Channels machine)
    {
        var series = machine.Series;
        var (distance, zoneAir) = (new double[series.Count], new double[series.Count]);
        for (var i = 0; i < series.Count; i++)
        {
            zoneAir[i] = i > 0 && Bin(series.Day[i]) == Bin(series.Day[i - 1]) ? zoneAir[i - 1] : At(series.Day[i]);
            distance[i] = machine.Ambient[i] - zoneAir[i];
        }
        var own = distance.Where(d => !double.IsNaN(d)).ToArray();
        var usual = own.Length >= 5 ? Robust.Median(own) : 0;
        var (replaced, first) = (0, 0.0);
        for (var i = 0; i < series.Count; i++)
        {
            var zone = zoneAir[i];
            if (double.IsNaN(zone))
                continue;
            if (double.IsNaN(machine.Ambient[i]))
                machine.Ambient[i] = zone + (own.Length >= 5 && Math.Abs(usual) < Astray ? usual : 0);
            else if (Math.Abs(distance[i] - usual) > Astray)
            {
                machine.Ambient[i] = zone + usual;
                first = replaced++ == 0 ? series.Day[i] : first;
            }
        }
        if (replaced > Math.Max(5, own.Length / 50))
            machine.Findings.Add(
                new SensorFinding("ambient", Message.Of("moved away from every other intake sensor of the zone"), first, replaced)
            );
        return own.Length >= Math.Max(5, series.Count / 2);
    }

    private static int Bin(double day) => (int)Math.Floor(day / BinDays);
}
