using Pyrometron.Core.Assessments;
using Pyrometron.Core.Drift;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Judging;

/// <summary>
/// What is kept of a machine's readings and runs once they are condensed, so that the readings themselves need not stay in
/// memory.
/// </summary>
/// <param name="Asset">The machine, with the services known on its day.</param>
/// <param name="AsOf">The day as whose end it is judged.</param>
/// <param name="History">What happened to it, as known on that day.</param>
/// <param name="Readings">How many were given.</param>
/// <param name="Runs">Runs that tell of its parts, oldest first.</param>
/// <param name="NewestDay">Of readings and runs, days since 1970; null without any.</param>
internal sealed record MachineFacts(
    Asset Asset,
    DateOnly AsOf,
    MachineHistory History,
    int Readings,
    IReadOnlyList<MeasuredRun> Runs,
    double? NewestDay
)
{
    /// <summary>
    /// Older readings than this before the newest say nothing about today that services since have not undone, days.
    /// </summary>
    public const double HistoryDays = 3 * 365.25;

    /// <summary>Fewer readings than this cannot tell wear from chance.</summary>
    public const int LeastReadings = 5;

    /// <summary>A run so long after a service still shows its fresh state, days.</summary>
    private const double FreshDays = 60;

    /// <summary>Whether the calculation failed on its data.</summary>
    public bool Failed { get; init; }

    /// <summary>Whether the machine measures its own intake air.</summary>
    public bool OwnAir { get; init; }

    /// <summary>Whether it throttled or stood at a limit when it was measured last.</summary>
    public bool AtItsLimit { get; init; }

    /// <summary>What it shows now; null where nothing was measured.</summary>
    public Latest? Latest { get; init; }

    /// <summary>Its fan, where that stands under a full command.</summary>
    public StandingFan? StandingFan { get; init; }

    /// <summary>How its readings come; null with too few to say.</summary>
    public ReadingRhythm? Rhythm { get; init; }

    /// <summary>Channels not believed.</summary>
    public IReadOnlyList<SensorFinding> Findings { get; init; } = [];

    /// <summary>Where it works by its newest readings as they are, where it cannot be judged by itself.</summary>
    public OperatingRise? Operating { get; init; }

    /// <summary>Its wear model; null where there is nothing to fit.</summary>
    public WearModel? Model { get; init; }

    /// <summary>Whether it is known by runs alone.</summary>
    public bool RunsAlone => Readings < LeastReadings && Runs.Count > 0;

    /// <summary>Reports and runs of failure that stand.</summary>
    public IReadOnlyList<Symptom> Symptoms => Symptom.Standing(History);

    /// <summary>What somebody saw to be as it should be since its last service, the newest look of each cause.</summary>
    public IReadOnlyList<Look> RuledOut
    {
        get
        {
            var served = Asset
                .Services.Where(s => s.Level != ServiceLevel.Inspect)
                .Select(s => s.Day)
                .DefaultIfEmpty(double.NegativeInfinity)
                .Max();
            return
            [
                .. History
                    .Looks.Where(l => UnixDay.Of(l.At) >= served)
                    .GroupBy(l => l.Cause)
                    .Select(g => g.MaxBy(l => l.At)!)
                    .Where(l => !l.Found),
            ];
        }
    }

    /// <summary>Whether somebody has looked at it since a day, and reported nothing.</summary>
    public bool LookedSince(double? day) =>
        Symptoms.Count == 0
        && (RuledOut.Any(l => UnixDay.Of(l.At) > day) || Asset.Services.Any(s => s.Level == ServiceLevel.Inspect && s.Day > day));

    /// <summary>
    /// Whether it can be judged: by readings enough; by runs where there are two of them, or one that shows its fresh state after
    /// a service.
    /// </summary>
    public bool IsKnown => Model is not null && (Readings >= LeastReadings || Runs.Count >= 2 || HasFreshRun);

    /// <summary>
    /// Whether a run shows the fresh state: soon after a service that opened it, or after its first day of use.
    /// </summary>
    public bool HasFreshRun =>
        Runs.Any(r =>
            Asset
                .Services.Where(s => ServiceEffects.Opens(s.Level))
                .Select(s => s.Day)
                .Append(UnixDay.Noon(Asset.InServiceSince))
                .Any(day => UnixDay.Of(r.At) - day is > 0 and < FreshDays)
        );

    /// <summary>When a service last took some of a cause away, or minus infinity.</summary>
    public static double LastServed(Asset asset, Cause cause) =>
        asset.Services.Where(s => s.Removed(cause) > 0).Select(s => s.Day).DefaultIfEmpty(double.NegativeInfinity).Max();

    private static Channels Since(double day, Asset asset, Channels channels) =>
        channels.Series.Since(day) is var left && left.Count == channels.Series.Count ? channels : Channels.Clean(asset, left);

    /// <summary>What is left of a machine on whose data the calculation failed.</summary>
    public static MachineFacts Failing(Asset asset, DateOnly asOf) =>
        new(asset, asOf, MachineHistory.Empty, 0, [], null) { Failed = true };

    /// <summary>Takes what the judgement needs from one machine's cleaned readings and its runs.</summary>
    /// <param name="asset">With the services known on the day.</param>
    /// <param name="air">The zone's air, for machines without their own.</param>
    public static MachineFacts Of(
        Asset asset,
        DateOnly asOf,
        Channels channels,
        MachineHistory history,
        ZoneAir air,
        Ablation without
    )
    {
        if (asset.NewBaseline is { } change)
            (channels, history) = (Since(change.Day, asset, channels), history.RunsSince(change.Day));
        var series = channels.Series;
        var runs = RunCells.Usable(asset, history.Runs, series.Count > 0);
        double? newest = (series.Count, runs.Count) is (0, 0)
            ? null
            : Math.Max(
                series.Count > 0 ? series.Day[^1] : double.NegativeInfinity,
                runs.Count > 0 ? UnixDay.Of(runs[^1].At) : double.NegativeInfinity
            );
        var facts = new MachineFacts(asset, asOf, history, series.Count, runs, newest)
        {
            Findings = channels.Findings,
            Rhythm = ReadingRhythm.Of(series),
            StandingFan = Drift.StandingFan.Of(series, LastServed(asset, Cause.Fan)),
        };
        var all = channels;
        // Without its fan it shows nothing of its wear: that is judged by what was read before.
        if (facts.StandingFan is { } stands && series.Before(stands.FromDay) is { Count: >= LeastReadings } before)
        {
            series = before;
            channels = Channels.Clean(asset, before);
        }
        var referenceChannels = facts.RunsAlone ? Channels.Clean(asset, RunCells.Merged(asset, series, runs)) : channels;
        if (ReferencePoint.Of(referenceChannels, without.HasFlag(Ablation.Fan)) is not { } reference)
            return facts;
        var ownAir = facts.RunsAlone ? runs.All(r => r.Run.Ambient is not null) : air.Complete(channels);
        var runCells = new RunCells(asset, reference, facts.RunsAlone ? referenceChannels.Series : series, air.At);
        var cells = CellTable.Of(asset, channels, reference, runs, runCells);
        var latest = Latest.Of(asset, all, reference.Workload, runs, runCells.AirOf);
        var model = WearModel.For(
            asset,
            reference,
            cells,
            NoiseModel.Of(series),
            UnixDay.EndOf(asOf),
            without.HasFlag(Ablation.SensorSteps)
                ? []
                : SensorSteps.Find(asset, reference, cells, NoiseModel.IsRare(series), facts.Symptoms.Count > 0),
            CleanLook.Of(asset, history.Looks),
            facts.RunsAlone ? runs[^1].Run.Workload : null
        );
        return facts with
        {
            OwnAir = ownAir,
            AtItsLimit = Latest.StandsAtItsLimit(asset, all, latest),
            Latest = latest,
            Model = model,
            Operating = (facts with { Model = model }).IsKnown ? null : SiblingComparison.Raw(asset, latest, reference),
        };
    }
}
