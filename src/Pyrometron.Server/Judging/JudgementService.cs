using System.Collections.Concurrent;
using System.Diagnostics;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Learning;
using Pyrometron.Storage;

namespace Pyrometron.Server.Judging;

/// <summary>A judgement of the fleet, and whether newer data is still being judged.</summary>
/// <param name="Judgement">Null while the first one is worked out.</param>
/// <param name="JudgedAt">When it was done.</param>
public sealed record JudgedFleet(FleetJudgement? Judgement, DateTimeOffset? JudgedAt, bool Pending);

/// <summary>
/// Keeps the fleet judged. It follows the change log: what a change touches is judged again in the background; the whole fleet
/// once an hour, since the dates move and the rooms with them. A judgement is used only as long as the log has not gone on since.
/// An answer never waits for long: the older judgement is given with "pending".
/// </summary>
public sealed class JudgementService : BackgroundService
{
    /// <summary>Other days kept besides the present one.</summary>
    private const int MostDays = 8;

    /// <summary>With no reading newer than this, the newest reading's day is judged instead of today.</summary>
    private static readonly TimeSpan Fresh = TimeSpan.FromDays(30);

    /// <summary>After this the whole fleet is judged again, whatever has changed.</summary>
    private static readonly TimeSpan Stale = TimeSpan.FromHours(1);

    /// <summary>A file arrives in batches: judging each of them would be work for nothing.</summary>
    private static readonly TimeSpan Batching = TimeSpan.FromMilliseconds(200);

    private readonly Database _database;
    private readonly FleetStore _fleet;
    private readonly ReadingStore _readings;
    private readonly ChangeStore _changes;
    private readonly TimeProvider _clock;
    private readonly ILogger<JudgementService> _log;
    private readonly ConcurrentDictionary<DateOnly, Judged> _byDay = new();
    private readonly SemaphoreSlim _one = new(1, 1);
    private readonly SemaphoreSlim _wake = new(0);
    private long _lastChange;
    private Newest? _newest;

    /// <summary>Follows a database's change log.</summary>
    public JudgementService(Database database, TimeProvider clock, ILogger<JudgementService> log)
    {
        (_database, _clock, _log) = (database, clock, log);
        (_fleet, _readings, _changes) = (new FleetStore(database), new ReadingStore(database), new ChangeStore(database));
        _lastChange = _changes.Last();
        database.Changed += OnChanged;
    }

    /// <param name="Change">The line of the change log up to which it holds.</param>
    private sealed record Newest(long Change, DateTimeOffset? At);

    /// <param name="Change">The line of the change log up to which it holds.</param>
    /// <param name="At">When it was brought up to date.</param>
    /// <param name="WholeAt">When the whole fleet was judged.</param>
    private sealed record Judged(long Change, FleetJudgement Judgement, DateTimeOffset At, DateTimeOffset WholeAt);

    /// <summary>Steps done and their number, while a judgement is being worked out.</summary>
    public (int Done, int Of) Progress { get; private set; }

    /// <summary>The day judged when none is asked for.</summary>
    public DateOnly PresentDay()
    {
        var now = _clock.GetUtcNow();
        var change = Volatile.Read(ref _lastChange);
        // Finding the newest reading asks every machine: only when readings have come in since.
        if (_newest is not { } known || (known.Change != change && _changes.HasReadingsSince(known.Change)))
            _newest = known = new Newest(change, _readings.NewestInstant());
        else if (known.Change != change)
            _newest = known = known with { Change = change };
        return DateOnly.FromDateTime(known.At is { } at && now - at > Fresh ? at.UtcDateTime : now.UtcDateTime);
    }

    /// <summary>The judgement as of a day.</summary>
    /// <param name="asOf">Null for the present day.</param>
    /// <param name="patience">How long to wait for one that includes the newest data.</param>
    public async Task<JudgedFleet> GetAsync(DateOnly? asOf, TimeSpan patience, CancellationToken cancellation)
    {
        var day = asOf ?? PresentDay();
        if (Current(day) is { } current)
            return new JudgedFleet(current.Judgement, current.At, false);
        // Not bound to the caller's token: who gives up waiting does not stop the work for the next one.
        var work = Task.Run(() => JudgeAsync(day, CancellationToken.None), CancellationToken.None);
        await Task.WhenAny(work, Task.Delay(patience, cancellation));
        cancellation.ThrowIfCancellationRequested();
        if (work.IsCompleted)
            await work;
        var (judged, pending) = Current(day) is { } now ? (now, false) : (_byDay.GetValueOrDefault(day), true);
        return new JudgedFleet(judged?.Judgement, judged?.At, pending);
    }

    /// <summary>One machine's judgement with its past, from its data as it is now; null when its zone was never judged.</summary>
    public Assessment? One(FleetJudgement before, string tag)
    {
        if (!before.ByTag.ContainsKey(tag) || _fleet.Find(tag) is not { RetiredOn: null } stored)
            return null;
        using var judge = OpenJudge.Of(_database, before.AsOf, [stored], before.AsOf == PresentDay(), whole: false);
        return judge.Core.JudgeOne(before, stored.Asset);
    }

    /// <inheritdoc/>
    public override void Dispose()
    {
        _database.Changed -= OnChanged;
        base.Dispose();
    }

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (true)
        {
            try
            {
                await JudgeAsync(PresentDay(), stoppingToken);
            }
            catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
            {
                return;
            }
            catch (Exception error)
            {
                _log.LogError(error, "The fleet could not be judged; the last judgement stays until data changes again");
            }
            try
            {
                await _wake.WaitAsync(Stale, stoppingToken);
                await Task.Delay(Batching, stoppingToken);
            }
            catch (OperationCanceledException)
            {
                return;
            }
            while (_wake.CurrentCount > 0)
                await _wake.WaitAsync(stoppingToken);
        }
    }

    private void OnChanged()
    {
        Volatile.Write(ref _lastChange, _changes.Last());
        _wake.Release();
    }

    private Judged? Current(DateOnly day) =>
        _byDay.TryGetValue(day, out var judged)
        && judged.Change == Volatile.Read(ref _lastChange)
        && _clock.GetUtcNow() - judged.WholeAt <= Stale
            ? judged
            : null;

    private async Task JudgeAsync(DateOnly day, CancellationToken cancellation)
    {
        await _one.WaitAsync(cancellation);
        try
        {
            if (Current(day) is not null)
                return;
            var time = Stopwatch.StartNew();
            var now = _clock.GetUtcNow();
            var before = _byDay.GetValueOrDefault(day);
            var touched = _changes.TouchedSince(before?.Change ?? 0);
            var tags = before is null || now - before.WholeAt > Stale ? null : touched.Tags;
            using var judge = OpenJudge.Of(
                _database,
                day,
                [.. _fleet.All().Where(m => m.RetiredOn is null)],
                day == PresentDay(),
                whole: tags is null
            );
            var judgement = tags is null
                ? judge.Core.JudgeAll((done, of) => Progress = (done, of), cancellation)
                : judge.Core.JudgeAgain(before!.Judgement, tags, cancellation);
            _byDay[day] = new Judged(touched.Last, judgement, now, tags is null ? now : before!.WholeAt);
            _log.LogInformation(
                "Judged {What} of {Machines} machines as of {Day} in {Milliseconds} ms",
                tags is null ? "all" : $"{tags.Count} and their like",
                judgement.Queue.Count,
                day,
                time.ElapsedMilliseconds
            );
            foreach (var old in _byDay.Where(j => j.Key != day).OrderByDescending(j => j.Value.At).Skip(MostDays).ToArray())
                _byDay.TryRemove(old.Key, out _);
        }
        finally
        {
            _one.Release();
        }
    }
}

/// <summary>A judge of one day with the readings open; dispose it when done.</summary>
internal sealed record OpenJudge(FleetJudge Core, SeriesReader Reader) : IDisposable
{
    /// <summary>Opens one.</summary>
    /// <param name="machines">Those in use.</param>
    /// <param name="present">
    /// Whether it is the present day: then work done and runs measured since count for their own machine.
    /// </param>
    /// <param name="whole">Whether all machines will be asked for, or a few.</param>
    public static OpenJudge Of(Database database, DateOnly day, IReadOnlyList<StoredAsset> machines, bool present, bool whole)
    {
        var (jobs, history) = (new JobStore(database), new HistoryStore(database));
        var stored = machines.ToDictionary(a => a.Asset.Tag);
        var end = new DateTimeOffset(day.AddDays(1).ToDateTime(TimeOnly.MinValue), TimeSpan.Zero);
        var reader = new ReadingStore(database).Series(end.ToUnixTimeMilliseconds() - 1);
        var known = whole ? history.All() : null;
        return new OpenJudge(
            new FleetJudge(
                new JudgementBasis(
                    new Register(new FleetStore(database).Sites(), [.. machines.Select(m => m.Asset)]),
                    day,
                    new PolicyStore(database).Current() with
                    {
                        Proven = ProvenGains.Of(jobs.Proven()),
                        Times = ProvenMinutes.Of(jobs.Timed()),
                    },
                    asset => reader.Read(stored[asset.Tag])
                )
                {
                    History = asset =>
                        known is null ? history.Of(stored[asset.Tag].Id)
                        : known.TryGetValue(stored[asset.Tag].Id, out var happened) ? happened
                        : Pyrometron.Core.Events.MachineHistory.Empty,
                    LaterWorkCounts = present,
                    Threads = Environment.ProcessorCount,
                }
            ),
            reader
        );
    }

    /// <inheritdoc/>
    public void Dispose() => Reader.Dispose();
}
