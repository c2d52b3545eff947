using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Learning;
using Pyrometron.Core.Stores;
using Pyrometron.Storage;

namespace Pyrometron.Server.Judging;

/// <summary>A judge of one day with the readings open; dispose it when done.</summary>
internal sealed record OpenJudge(FleetJudge Core, SeriesReader Reader) : IDisposable
{
    /// <summary>What for.</summary>
    /// <param name="Present">
    /// Whether it is the present day: then work done and runs measured since count for their own machine, and all processors are
    /// used; other days are judged beside it.
    /// </param>
    /// <param name="Whole">Whether all machines will be asked for, or a few.</param>
    public readonly record struct Purpose(bool Present, bool Whole);

    /// <summary>Opens one.</summary>
    /// <param name="machines">Those in use.</param>
    /// <param name="failed">Told of machines on whose data the calculation failed.</param>
    public static OpenJudge Of(
        Database database,
        DateOnly day,
        IReadOnlyList<StoredAsset> machines,
        Purpose purpose,
        Action<Asset, Exception> failed
    )
    {
        var (jobs, history) = (new JobStore(database), new HistoryStore(database));
        var stored = machines.ToDictionary(a => a.Asset.Tag);
        var end = new DateTimeOffset(day.AddDays(1).ToDateTime(TimeOnly.MinValue), TimeSpan.Zero);
        var reader = new ReadingStore(database).Series(end.ToUnixTimeMilliseconds() - 1);
        var known = purpose.Whole ? history.All() : null;
        return new OpenJudge(
            new FleetJudge(
                new JudgementBasis(
                    new Register(new FleetStore(database).Sites(), [.. machines.Select(m => m.Asset)]),
                    day,
                    new PolicyStore(database).Current() with
                    {
                        Proven = ProvenGains.Of(jobs.Proven()),
                        Times = ProvenMinutes.Of(jobs.Timed()),
                        Materials = Prices.Of(new ProductStore(database).All()),
                    },
                    asset =>
                        stored[asset.Tag].Damage is { } damage
                            ? throw new InvalidDataException(
                                $"{asset.Tag}: {damage} cannot be read; the database is damaged there."
                            )
                            : reader.Read(stored[asset.Tag])
                )
                {
                    Local = new RuleStore(database).All(),
                    History = asset =>
                        known is null ? history.Of(stored[asset.Tag].Id)
                        : known.TryGetValue(stored[asset.Tag].Id, out var happened) ? happened.Value
                        : MachineHistory.Empty,
                    LaterWorkCounts = purpose.Present,
                    Threads = purpose.Present ? Environment.ProcessorCount : 1,
                    Failed = failed,
                }
            ),
            reader
        );
    }

    /// <inheritdoc/>
    public void Dispose() => Reader.Dispose();
}
