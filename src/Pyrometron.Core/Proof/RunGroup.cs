using Pyrometron.Core.Events;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Proof;

/// <summary>What makes runs comparable as they are: the same load, fan and settings, by their names.</summary>
/// <param name="FanPercent">Of a fixed fan, whole per cent; null where automatic or not known.</param>
internal sealed record RunKind(string Workload, FanMode Fan, int? FanPercent, string Settings)
{
    public static RunKind Of(Run run) =>
        new(
            run.Workload.Trim().ToUpperInvariant(),
            run.Fan.Mode,
            run.Fan is { Mode: FanMode.Fixed, Percent: { } percent } ? (int)Math.Round(percent) : null,
            run.Settings.Trim().ToUpperInvariant()
        );
}

/// <summary>Runs of one kind and their mean.</summary>
/// <param name="Runs">In the order in which they were measured; at least one.</param>
internal sealed record RunGroup(RunKind Kind, IReadOnlyList<Run> Runs, Run Mean)
{
    /// <summary>Runs sorted by their kind, in the order in which each was first measured.</summary>
    public static IReadOnlyList<RunGroup> Of(IEnumerable<Run> runs) =>
        [.. runs.GroupBy(RunKind.Of).Select(g => new RunGroup(g.Key, [.. g], MeanOf([.. g])))];

    /// <summary>
    /// Sum of squared deviations from the mean, of the rises where the air is known, averaged over the parts; and its degrees
    /// of freedom.
    /// </summary>
    public (double Squares, int Freedom) Scatter()
    {
        if (Runs.Count < 2)
            return (0, 0);
        var withAir = Runs.All(r => r.Ambient is not null);
        var sums = new List<double>();
        foreach (var part in Mean.Parts.Select(p => p.Part).Where(p => Runs.All(r => r.Parts.Any(q => q.Part == p))))
        {
            var rises = Runs.Select(r =>
                r.Parts.First(p => p.Part == part).Celsius.Value - (withAir ? r.Ambient!.Value.Value : 0)
            );
            var mean = rises.Average();
            sums.Add(rises.Sum(v => (v - mean) * (v - mean)));
        }
        return sums.Count == 0 ? (0, 0) : (sums.Average(), Runs.Count - 1);
    }

    /// <summary>
    /// The mean of repeated runs. What went wrong in one of them went wrong, and the shortest says how long they ran.
    /// </summary>
    private static Run MeanOf(Run[] runs)
    {
        if (runs.Length == 1)
            return runs[0];
        double? Mean(Func<Run, double?> of) => runs.All(r => of(r) is not null) ? runs.Average(of) : null;
        bool? settled =
            runs.Any(r => r.Settled == false) ? false
            : runs.All(r => r.Settled == true) ? true
            : null;
        return runs[0] with
        {
            Minutes = runs.Min(r => r.Minutes),
            Ambient = Mean(r => r.Ambient?.Value) is { } air ? new Celsius(air) : null,
            AmbientSpread = runs.Max(r => r.AmbientSpread),
            Fan = runs[0].Fan with { Rpm = Mean(r => r.Fan.Rpm), Percent = Mean(r => r.Fan.Percent) },
            PowerWatts = Mean(r => r.PowerWatts),
            ClockMhz = Mean(r => r.ClockMhz),
            Score = Mean(r => r.Score),
            Throttled = runs.Any(r => r.Throttled),
            FailedAfterMinutes = runs.Min(r => r.FailedAfterMinutes),
            Settled = settled,
            ShareOfRise = runs.Min(r => r.ShareOfRise),
            SlopeAtEnd = runs.Max(r => r.SlopeAtEnd),
            Start = Mean(r => r.Start?.Value) is { } start ? new Celsius(start) : null,
            FanRamp = runs.Select(r => r.FanRamp).MaxBy(r => Math.Abs(r ?? 0)),
            Parts =
            [
                .. runs.SelectMany(r => r.Parts)
                    .GroupBy(p => p.Part)
                    .Where(g => g.Count() == runs.Length)
                    .Select(g => new RunPart(
                        g.Key,
                        new Celsius(g.Average(p => p.Celsius.Value)),
                        g.Max(p => p.ResolutionKelvin),
                        g.Max(p => p.Maximum?.Value) is { } hottest ? new Celsius(hottest) : null
                    )),
            ],
        };
    }
}
