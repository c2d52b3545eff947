using Pyrometron.Core.Events;
using Pyrometron.Core.Statistics;
using Pyrometron.Core.Units;
using Pyrometron.Storage;

namespace Pyrometron.Server.Bench;

/// <summary>Takes a run from a machine's newest readings instead of from the bench.</summary>
internal static class NewestRun
{
    private const int Windows = 8;

    /// <summary>A reading window is a settled one; it is counted as an hour.</summary>
    private const double WindowMinutes = 60;

    /// <summary>Medians of the newest windows under the load that most of them ran.</summary>
    /// <param name="newest">Newest first.</param>
    /// <param name="since">Older ones do not count.</param>
    /// <returns>Null when there are none.</returns>
    public static Run? From(StoredAsset asset, IReadOnlyList<StoredReading> newest, DateTimeOffset? since)
    {
        var usable = newest
            .Where(r => r.Amended < 2 && (since is null || r.Reading.UnixMilliseconds >= since.Value.ToUnixTimeMilliseconds()))
            .Select(r => r.Reading)
            .ToArray();
        // The hotter of the loads that are met often: idle windows prove nothing.
        var load = usable
            .GroupBy(r => r.Workload)
            .Where(g => g.Count() >= Math.Min(3, usable.Length / 3.0))
            .OrderByDescending(g =>
                g.Max(r => r.PartsC.Where(c => !double.IsNaN(c)).DefaultIfEmpty(double.NegativeInfinity).Max())
            )
            .FirstOrDefault();
        if (load is null)
            return null;
        var taken = load.Take(Windows).ToArray();
        double? MedianOf(Func<Core.Readings.Reading, double> of) =>
            Robust.Median(taken.Select(of).Where(v => !double.IsNaN(v)).ToArray()) is var m && double.IsNaN(m)
                ? null
                : Math.Round(m, 1);
        var parts = asset
            .Asset.Parts.Select((p, i) => (p.Name, Celsius: MedianOf(r => r.PartsC[i])))
            .Where(p => p.Celsius is not null)
            .Select(p => new RunPart(p.Name, new Celsius(p.Celsius!.Value)))
            .ToArray();
        if (parts.Length == 0)
            return null;
        var commands = taken.Select(r => r.FanPct).Where(p => !double.IsNaN(p)).ToArray();
        var fixedFan = commands.Length >= 3 && commands.Max() - commands.Min() < 1;
        return new Run(
            load.Key ?? "unnamed load",
            WindowMinutes,
            MedianOf(r => r.AmbientC) is { } air ? new Celsius(air) : null,
            new RunFan(fixedFan ? FanMode.Fixed : FanMode.Auto, MedianOf(r => r.FanPct), MedianOf(r => r.FanRpm)),
            taken[0].Settings ?? "as found",
            MedianOf(r => r.PowerW),
            MedianOf(r => r.ClockMhz),
            MedianOf(r => r.Score),
            taken.Any(r => r.Throttled > 0),
            parts
        )
        {
            // Windows of steady work: settled, and in the machine's history as readings already.
            Settled = true,
            Source = RunSource.Readings,
        };
    }
}
