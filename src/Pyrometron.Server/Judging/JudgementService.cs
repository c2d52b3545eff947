using System.Collections.Concurrent;
using System.Diagnostics;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Priority;
using Pyrometron.Storage;

namespace Pyrometron.Server.Judging;

/// <summary>A judgement of the fleet, and whether newer data is still being judged.</summary>
/// <param name="Judgement">Null while the first one is worked out.</param>
/// <param name="JudgedAt">When it was done.</param>
public sealed record JudgedFleet(FleetJudgement? Judgement, DateTimeOffset? JudgedAt, bool Pending);

/// <summary>
/// Keeps the fleet judged: whenever data changes, the present day is judged again in the background; other days are judged
/// when asked for. An answer never waits for long: the older judgement is given with "pending".
/// </summary>
public sealed class JudgementService(FleetStore fleet, ReadingStore readings, TimeProvider clock, ILogger<JudgementService> log) : BackgroundService
{
    /// <summary>Other days kept besides the present one.</summary>
    private const int MostDays = 8;

    /// <summary>With no reading newer than this, the newest reading's day is judged instead of today.</summary>
    private static readonly TimeSpan Fresh = TimeSpan.FromDays(30);

    private readonly ConcurrentDictionary<DateOnly, Judged> _byDay = new();
    private readonly SemaphoreSlim _one = new(1, 1);
    private readonly SemaphoreSlim _wake = new(0);
    private int _dataVersion;
    private Newest? _newest;

    private sealed record Newest(int Version, DateTimeOffset? At);

    private sealed record Judged(int Version, FleetJudgement Judgement, DateTimeOffset At);

    /// <summary>Zones judged and their number, while a judgement is being worked out.</summary>
    public (int Done, int Of) Progress { get; private set; }

    /// <summary>Says that readings, services or machines have changed.</summary>
    public void DataChanged()
    {
        Interlocked.Increment(ref _dataVersion);
        _wake.Release();
    }

    /// <summary>The day judged when none is asked for.</summary>
    public DateOnly PresentDay()
    {
        var now = clock.GetUtcNow();
        var version = Volatile.Read(ref _dataVersion);
        // Finding the newest reading asks every machine: once for each state of the data is enough.
        if (_newest is not { } known || known.Version != version)
            _newest = known = new Newest(version, readings.NewestInstant());
        var newest = known.At;
        return DateOnly.FromDateTime(newest is { } at && now - at > Fresh ? at.UtcDateTime : now.UtcDateTime);
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
                log.LogError(error, "The fleet could not be judged; the last judgement stays until data changes again");
            }
            try
            {
                // Wakes when data changes, and every hour, since tomorrow the dates have moved.
                await _wake.WaitAsync(TimeSpan.FromHours(1), stoppingToken);
                // A file arrives in batches: judging each of them would be work for nothing.
                await Task.Delay(200, stoppingToken);
            }
            catch (OperationCanceledException)
            {
                return;
            }
            while (_wake.CurrentCount > 0)
                await _wake.WaitAsync(stoppingToken);
        }
    }

    /// <summary>
    /// Work done after the newest readings counts at once: where readings ended long ago the judged day lies in the past, and
    /// a machine that was served since would stand in the queue for ever.
    /// </summary>
    private static Register WithWorkSince(Register register, DateOnly day) => register with
    {
        Assets = [.. register.Assets.Select(a => a.Services.Count == 0 || a.Services[^1].Date <= day ? a
            : a with { Services = [.. a.Services.Select(s => s.Date > day ? s with { Date = day } : s)] })],
    };

    private Judged? Current(DateOnly day) => _byDay.TryGetValue(day, out var judged) && judged.Version == Volatile.Read(ref _dataVersion) ? judged : null;

    private async Task JudgeAsync(DateOnly day, CancellationToken cancellation)
    {
        await _one.WaitAsync(cancellation);
        try
        {
            if (Current(day) is not null)
                return;
            var version = Volatile.Read(ref _dataVersion);
            var clockwork = Stopwatch.StartNew();
            var register = fleet.Register(withRetired: false);
            if (day == PresentDay())
                register = WithWorkSince(register, day);
            var stored = fleet.All().ToDictionary(a => a.Asset.Tag);
            var until = new DateTimeOffset(day.AddDays(1).ToDateTime(TimeOnly.MinValue), TimeSpan.Zero).ToUnixTimeMilliseconds() - 1;
            var judgement = FleetJudge.Judge(register, asset => readings.Series(stored[asset.Tag], until), day, JudgementPolicy.Default,
                (done, of) => Progress = (done, of), cancellation);
            _byDay[day] = new Judged(version, judgement, clock.GetUtcNow());
            foreach (var old in _byDay.Where(j => j.Key != day).OrderByDescending(j => j.Value.At).Skip(MostDays).ToArray())
                _byDay.TryRemove(old.Key, out _);
            log.LogInformation("Judged {Machines} machines as of {Day} in {Milliseconds} ms", judgement.Queue.Count, day, clockwork.ElapsedMilliseconds);
        }
        finally
        {
            _one.Release();
        }
    }
}
