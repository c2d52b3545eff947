using System.Globalization;
using Pyrometron.Core.Readings;

namespace Pyrometron.Formats.Csv;

/// <summary>Writes readings as <see cref="ReadingsCsv"/> reads them: one header for a fleet, one reading a record.</summary>
/// <param name="parts">Names of all parts of the fleet; each has a column.</param>
/// <param name="fans">How many fans a machine reports apart at most.</param>
public sealed class ReadingsCsvWriter(IReadOnlyList<string> parts, int fans)
{
    private readonly Dictionary<string, int> _place = parts.Select((p, i) => (p, i)).ToDictionary(p => p.p, p => p.i);

    /// <summary>The header.</summary>
    public string Header() =>
        CsvWriter.Record([
            "time",
            "asset",
            "ambient_c",
            "outlet_c",
            "power_w",
            "fan_rpm",
            "fan_pct",
            "clock_mhz",
            "throttled",
            "score",
            "samples",
            "spread_k",
            "settings",
            "workload",
            .. Enumerable.Range(1, fans).Select(f => $"fan{f}_rpm"),
            .. parts.Select(p => $"{p}_c"),
        ]);

    /// <summary>One reading.</summary>
    /// <param name="asset">Tag of the machine.</param>
    /// <param name="own">Names of its parts in the register's order.</param>
    public string Record(string asset, IReadOnlyList<string> own, Reading r)
    {
        var temperatures = new string[parts.Count];
        for (var p = 0; p < own.Count; p++)
            temperatures[_place[own[p]]] = Number(r.PartsC[p]);
        var apart = r.FansRpm?.Split(';') ?? [];
        return CsvWriter.Record([
            DateTimeOffset
                .FromUnixTimeMilliseconds(r.UnixMilliseconds)
                .UtcDateTime.ToString("yyyy-MM-dd'T'HH:mm:ss.FFF'Z'", CultureInfo.InvariantCulture),
            asset,
            Number(r.AmbientC),
            Number(r.OutletC),
            Number(r.PowerW),
            Number(r.FanRpm),
            Number(r.FanPct),
            Number(r.ClockMhz),
            Number(r.Throttled),
            Number(r.Score),
            r.Samples == 0 ? "" : r.Samples.ToString(CultureInfo.InvariantCulture),
            Number(r.SpreadKelvin),
            r.Settings,
            r.Workload,
            .. Enumerable.Range(0, fans).Select(f => f < apart.Length ? apart[f] : ""),
            .. temperatures,
        ]);
    }

    private static string Number(double value) => double.IsNaN(value) ? "" : value.ToString("R", CultureInfo.InvariantCulture);
}
