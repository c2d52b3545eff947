using Pyrometron.Core.Assessments;
using Pyrometron.Core.Drift;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Readings;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Judging;

/// <summary>
/// What is kept of a machine's readings once they are condensed, so that the readings themselves need not stay in memory.
/// </summary>
/// <param name="Readings">How many were given.</param>
/// <param name="NewestDay">Days since 1970, null without readings.</param>
/// <param name="OwnAir">Whether the machine measures its own intake air.</param>
/// <param name="AtItsLimit">Whether it throttled or stood at a limit in its newest readings.</param>
/// <param name="LatestC">Median of the newest readings under the main workload by part, °C, as measured; NaN for none.</param>
/// <param name="LatestFanPct">Commanded fan speed likewise, per cent; NaN for none.</param>
/// <param name="Findings">Channels not believed.</param>
/// <param name="Symptoms">What people reported.</param>
/// <param name="Operating">Where it works by its newest readings as they are.</param>
internal sealed record MachineFacts(
    Asset Asset,
    int Readings,
    double? NewestDay,
    bool OwnAir,
    bool AtItsLimit,
    double[] LatestC,
    double LatestFanPct,
    IReadOnlyList<SensorFinding> Findings,
    IReadOnlyList<Symptom> Symptoms,
    OperatingRise? Operating,
    WearModel? Model
)
{
    /// <summary>Older readings than this before the newest say nothing about today that services since have not undone.</summary>
    public const double HistoryDays = 3 * 365.25;

    private const double RecentDays = 14;

    /// <summary>Takes what the judgement needs from one machine's cleaned readings.</summary>
    /// <param name="air">The zone's air, for machines without their own.</param>
    /// <param name="asOfDay">Days since 1970; later services are left out.</param>
    public static MachineFacts Of(
        Asset asset,
        Channels channels,
        IReadOnlyList<Symptom> symptoms,
        ZoneAir air,
        double asOfDay,
        Ablation without
    )
    {
        var series = channels.Series;
        if (ReferencePoint.Of(channels, without.HasFlag(Ablation.Fan)) is not { } reference)
            return new MachineFacts(
                asset,
                series.Count,
                series.Count == 0 ? null : series.Day[^1],
                false,
                false,
                [],
                double.NaN,
                channels.Findings,
                symptoms,
                null,
                null
            );
        var ownAir = air.Complete(channels);
        var cells = CellTable.Of(asset.Kind, channels, reference);
        var model = WearModel.For(
            asset,
            reference,
            cells,
            NoiseModel.Of(series),
            asOfDay,
            without.HasFlag(Ablation.SensorSteps) ? [] : SensorSteps.Find(asset, reference, cells)
        );
        return new MachineFacts(
            asset,
            series.Count,
            series.Day[^1],
            ownAir,
            StandsAtItsLimit(asset, channels),
            [.. channels.Parts.Select(p => Latest(series, p, reference.Workload))],
            Latest(series, series.FanPct, reference.Workload),
            channels.Findings,
            symptoms,
            model is null || series.Count < MachineJudge.LeastReadings ? SiblingComparison.Raw(channels, reference) : null,
            model
        );
    }

    private static bool StandsAtItsLimit(Asset asset, Channels channels)
    {
        var s = channels.Series;
        var first = Array.FindIndex(s.Day, d => d > s.Day[^1] - RecentDays);
        var (recent, throttled) = (s.Count - first, 0);
        for (var i = first; i < s.Count; i++)
            throttled += s.Throttled[i] ? 1 : 0;
        return throttled >= Math.Max(1, recent / 20)
            || asset
                .Parts.Where(
                    (part, p) => channels.Parts[p].Skip(first).Count(c => c >= part.Limit.Value) > Math.Max(1, recent / 5)
                )
                .Any();
    }

    private static double Latest(ReadingSeries s, double[] part, int workload)
    {
        var latest = new List<double>();
        // Newest first: those of the last fortnight, or the last three whenever they were.
        for (var i = s.Count - 1; i >= 0 && (s.Day[i] > s.Day[^1] - RecentDays || latest.Count < 3); i--)
            if (s.Workload[i] == workload && !double.IsNaN(part[i]))
                latest.Add(part[i]);
        return Robust.Median(latest.ToArray());
    }
}
