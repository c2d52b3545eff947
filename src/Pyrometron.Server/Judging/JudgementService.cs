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
/// Keeps the fleet judged. When data changes, what it touches is judged again in the background; the whole fleet once an hour,
/// since the dates move and the rooms with them. Other days are judged when asked for. An answer never waits for long: the
/// older judgement is given with "pending".
/// </summary>
public sealed class JudgementService(
    FleetStore fleet,
    ReadingStore readings,
    SymptomStore symptoms,
    PolicyStore policy,
    JobStore jobs,
    TimeProvider clock,
    ILogger<JudgementService> log
) : BackgroundService
{
    /// <summary>Other days kept besides the present one.</summary>
    private const int MostDays = 8;

    /// <summary>With no reading newer than this, the newest reading's day is judged instead of today.</summary>
    private static readonly TimeSpan Fresh = TimeSpan.FromDays(30);

    /// <summary>After this the whole fleet is judged again, whatever has changed.</summary>
    private static readonly TimeSpan Stale = TimeSpan.FromHours(1);

    private readonly ConcurrentDictionary<DateOnly, Judged> _byDay = new();
    private readonly SemaphoreSlim _one = new(1, 1);
    private readonly SemaphoreSlim _wake = new(0);
    private readonly Lock _changes = new();
    private readonly HashSet<string> _touched = [];
    private bool _allTouched = true;
    private int _dataVersion;
    private Newest? _newest;

    private sealed record Newest(int Version, DateTimeOffset? At);

    /// <param name="At">When it was brought up to date.</param>
    /// <param name="WholeAt">When the whole fleet was judged.</param>
    private sealed record Judged(int Version, FleetJudgement Judgement, DateTimeOffset At, DateTimeOffset WholeAt);

    /// <summary>Steps done and their number, while a judgement is being worked out.</summary>
    public (int Done, int Of) Progress { get; private set; }

    /// <summary>Says that readings, services or reports of some machines have changed.</summary>
    public void Changed(params IEnumerable<string> tags)
    {
        lock (_changes)
        {
            _touched.UnionWith(tags);
            _dataVersion++;
        }
        _wake.Release();
    }

    /// <summary>Says that anything may have changed: zones, policy, many machines.</summary>
    public void AllChanged()
    {
        lock (_changes)
        {
            _allTouched = true;
            _dataVersion++;
        }
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

    /// <summary>One machine's judgement with its past, from its readings as they are now; null when its zone was never judged.</summary>
    public Assessment? One(FleetJudgement before, string tag)
    {
        if (!before.ByTag.ContainsKey(tag) || fleet.Find(tag) is not { RetiredOn: null } stored)
            return null;
        using var judge = Judge(before.AsOf, [stored]);
        return judge.Core.JudgeOne(before, judge.Register.Assets[0]);
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
                if (!await _wake.WaitAsync(Stale, stoppingToken))
                    AllChanged();
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

    /// <summary>A judge of one day with the readings open; dispose it when done.</summary>
    private sealed record OpenJudge(FleetJudge Core, Register Register, SeriesReader Reader) : IDisposable
    {
        public void Dispose() => Reader.Dispose();
    }

    /// <param name="machines">Those in use.</param>
    private OpenJudge Judge(DateOnly day, IReadOnlyList<StoredAsset> machines)
    {
        var register = new Register(fleet.Sites(), [.. machines.Select(m => m.Asset)]);
        if (day == PresentDay())
            register = WithWorkSince(register, day);
        var stored = machines.ToDictionary(a => a.Asset.Tag);
        var until = new DateTimeOffset(day.AddDays(1).ToDateTime(TimeOnly.MinValue), TimeSpan.Zero).ToUnixTimeMilliseconds() - 1;
        var reported = symptoms.Standing();
        var reader = readings.Series(until);
        return new OpenJudge(
            new FleetJudge(
                register,
                day,
                policy.Current() with
                {
                    Proven = ProvenGains.Of(jobs.Proven()),
                    Times = ProvenMinutes.Of(jobs.Timed()),
                },
                asset => reader.Read(stored[asset.Tag]),
                asset => reported.GetValueOrDefault(asset.Tag, [])
            ),
            register,
            reader
        );
    }

    /// <summary>
    /// Work done after the newest readings counts at once: where readings ended long ago the judged day lies in the past, and
    /// a machine that was served since would stand in the queue for ever.
    /// </summary>
    private static Register WithWorkSince(Register register, DateOnly day) =>
        register with
        {
            Assets =
            [
                .. register.Assets.Select(a =>
                    a.Services.Count == 0 || a.Services[^1].Date <= day
                        ? a
                        : a with
                        {
                            Services = [.. a.Services.Select(s => s.Date > day ? s with { Date = day } : s)],
                        }
                ),
            ],
        };

    private Judged? Current(DateOnly day) =>
        _byDay.TryGetValue(day, out var judged) && judged.Version == Volatile.Read(ref _dataVersion) ? judged : null;

    private async Task JudgeAsync(DateOnly day, CancellationToken cancellation)
    {
        await _one.WaitAsync(cancellation);
        try
        {
            if (Current(day) is not null)
                return;
            var present = day == PresentDay();
            var (version, touched) = Take(present);
            try
            {
                var clockwork = Stopwatch.StartNew();
                using var judge = Judge(day, [.. fleet.All().Where(m => m.RetiredOn is null)]);
                var before = touched is null ? null : _byDay.GetValueOrDefault(day);
                var now = clock.GetUtcNow();
                var whole = before is null || now - before.WholeAt > Stale;
                var judgement = whole
                    ? judge.Core.JudgeAll((done, of) => Progress = (done, of), cancellation)
                    : judge.Core.JudgeAgain(before!.Judgement, touched!, cancellation);
                _byDay[day] = new Judged(version, judgement, now, whole ? now : before!.WholeAt);
                log.LogInformation(
                    "Judged {What} of {Machines} machines as of {Day} in {Milliseconds} ms",
                    whole ? "all" : $"{touched!.Count} and their like",
                    judgement.Queue.Count,
                    day,
                    clockwork.ElapsedMilliseconds
                );
            }
            catch
            {
                PutBack(present, touched);
                throw;
            }
            foreach (var old in _byDay.Where(j => j.Key != day).OrderByDescending(j => j.Value.At).Skip(MostDays).ToArray())
                _byDay.TryRemove(old.Key, out _);
        }
        finally
        {
            _one.Release();
        }
    }

    /// <summary>What has been touched since the present day was judged last; null for everything. Other days are always judged whole.</summary>
    private (int Version, HashSet<string>? Touched) Take(bool present)
    {
        lock (_changes)
        {
            if (!present)
                return (_dataVersion, null);
            HashSet<string>? touched = _allTouched ? null : [.. _touched];
            _touched.Clear();
            _allTouched = false;
            return (_dataVersion, touched);
        }
    }

    private void PutBack(bool present, HashSet<string>? touched)
    {
        if (!present)
            return;
        lock (_changes)
        {
            _allTouched |= touched is null;
            _touched.UnionWith(touched ?? []);
        }
    }
}
