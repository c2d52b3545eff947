using System.Collections.Concurrent;
using System.Diagnostics;
using Pyrometron.Application;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Policies;
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

    /// <summary>A judgement of another day that nobody has asked for since is given up.</summary>
    private static readonly TimeSpan GivenUpAfter = TimeSpan.FromSeconds(45);

    /// <summary>
    /// Where more machines than one in so many are touched, the whole fleet is judged: rooms and siblings move with them.
    /// </summary>
    private const int FewOf = 10;

    /// <summary>How often it looks whether another program, a command, has written into the database.</summary>
    private static readonly TimeSpan LookEvery = TimeSpan.FromSeconds(3);

    /// <summary>A file arrives in batches: judging each of them would be work for nothing.</summary>
    private static readonly TimeSpan Batching = TimeSpan.FromMilliseconds(200);

    private readonly Database _database;
    private readonly FleetStore _fleet;
    private readonly ReadingStore _readings;
    private readonly ChangeStore _changes;
    private readonly TimeProvider _clock;
    private readonly ILogger<JudgementService> _log;
    private readonly ConcurrentDictionary<DateOnly, Judged> _byDay = new();
    private readonly OtherDays _others;
    private readonly SemaphoreSlim _one = new(1, 1);
    private readonly SemaphoreSlim _wake = new(0);
    private long _lastChange;
    private Newest? _newest;

    /// <summary>Follows a database's change log.</summary>
    public JudgementService(Database database, TimeProvider clock, ILogger<JudgementService> log)
    {
        (_database, _clock, _log) = (database, clock, log);
        _others = new OtherDays(MostDays, GivenUpAfter, clock);
        (_fleet, _readings, _changes) = (new FleetStore(database), new ReadingStore(database), new ChangeStore(database));
        _lastChange = _changes.Last();
        database.Changed += OnChanged;
    }

    /// <param name="Change">The line of the change log up to which it holds.</param>
    private sealed record Newest(long Change, DateTimeOffset? At);

    /// <param name="Change">The line of the change log up to which it holds.</param>
    /// <param name="At">When it was brought up to date.</param>
    /// <param name="WholeAt">When the whole fleet was judged.</param>
    /// <param name="Present">Whether it was the present day then: later work counts for it.</param>
    private sealed record Judged(long Change, FleetJudgement Judgement, DateTimeOffset At, DateTimeOffset WholeAt, bool Present);

    /// <summary>Steps done and their number, while a judgement is being worked out.</summary>
    public (int Done, int Of) Progress { get; private set; }

    /// <summary>Today, UTC.</summary>
    public DateOnly Today() => DateOnly.FromDateTime(_clock.GetUtcNow().UtcDateTime);

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
    /// <exception cref="NotPossibleException">Too many other days are being judged.</exception>
    public async Task<JudgedFleet> GetAsync(DateOnly? asOf, TimeSpan patience, CancellationToken cancellation)
    {
        var present = PresentDay();
        var day = asOf ?? present;
        Task JudgeOther(CancellationToken token)
        {
            Judge(day, false, token);
            return Task.CompletedTask;
        }
        if (Current(day, day == present) is { } current)
            return new JudgedFleet(current.Judgement, current.At, false);
        if (day == present)
        {
            // Not bound to the caller's token: who gives up waiting does not stop the work for the next one.
            var work = Task.Run(() => JudgePresentAsync(day, CancellationToken.None), CancellationToken.None);
            await Task.WhenAny(work, Task.Delay(patience, cancellation));
            cancellation.ThrowIfCancellationRequested();
            if (work.IsCompleted)
                await work;
        }
        else if (!await _others.WaitAsync(day, JudgeOther, patience, cancellation))
            throw new NotPossibleException(
                Message.Of("{days} other days are being judged already. Ask again in a while.", Value.Count("days", MostDays))
            );
        var (judged, pending) = Current(day, day == present) is { } now ? (now, false) : (_byDay.GetValueOrDefault(day), true);
        return new JudgedFleet(judged?.Judgement, judged?.At, pending);
    }

    /// <summary>A judgement as it would be under other rules; nothing is read or kept.</summary>
    public static FleetJudgement UnderRules(
        FleetJudgement before,
        JudgementPolicy house,
        IReadOnlyList<LocalRule> local,
        CancellationToken cancellation
    ) =>
        new FleetJudge(
            new JudgementBasis(
                new Register([], []),
                before.AsOf,
                house with
                {
                    Materials = before.Policy.Materials,
                },
                _ => throw new InvalidOperationException("Nothing is read.")
            )
            {
                Local = local,
                Threads = Environment.ProcessorCount,
            }
        ).RuleAgain(before, cancellation);

    /// <summary>One machine's judgement with its past, from its data as it is now; null when its zone was never judged.</summary>
    public Assessment? One(FleetJudgement before, string tag)
    {
        if (!before.ByTag.ContainsKey(tag) || _fleet.Find(tag) is not { RetiredOn: null } stored)
            return null;
        using var judge = OpenJudge.Of(_database, before.AsOf, [stored], new(before.AsOf == PresentDay(), Whole: false), Failed);
        return judge.Core.JudgeOne(before, stored.Asset);
    }

    /// <inheritdoc/>
    public override void Dispose()
    {
        _database.Changed -= OnChanged;
        _others.Dispose();
        base.Dispose();
    }

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (true)
        {
            try
            {
                await JudgePresentAsync(PresentDay(), stoppingToken);
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
                await WaitForNews(stoppingToken);
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

    private async Task WaitForNews(CancellationToken stopping)
    {
        var waited = Stopwatch.StartNew();
        while (!await _wake.WaitAsync(LookEvery, stopping) && waited.Elapsed < Stale)
            if (_changes.Last() != Volatile.Read(ref _lastChange))
                OnChanged();
    }

    private void OnChanged()
    {
        Volatile.Write(ref _lastChange, _changes.Last());
        _wake.Release();
    }

    private Judged? Current(DateOnly day, bool present) =>
        _byDay.TryGetValue(day, out var judged)
        && judged.Change == Volatile.Read(ref _lastChange)
        && judged.Present == present
        && _clock.GetUtcNow() - judged.WholeAt <= Stale
            ? judged
            : null;

    private async Task JudgePresentAsync(DateOnly day, CancellationToken cancellation)
    {
        await _one.WaitAsync(cancellation);
        try
        {
            Judge(day, true, cancellation);
        }
        finally
        {
            _one.Release();
        }
    }

    private void Judge(DateOnly day, bool present, CancellationToken cancellation)
    {
        if (Current(day, present) is not null)
            return;
        var time = Stopwatch.StartNew();
        var now = _clock.GetUtcNow();
        // The log is read before the data: what changes in between is judged again.
        var before =
            _byDay.GetValueOrDefault(day) is { } known && known.Present == present && now - known.WholeAt <= Stale ? known : null;
        var since = before is null ? new TouchedSince(_changes.Last(), null, Rules: true) : _changes.TouchedSince(before.Change);
        var machines = _fleet.All().Where(m => m.RetiredOn is null).ToArray();
        var few = since.Tags is { } tags && tags.Count * FewOf <= machines.Length ? tags : null;
        using var judge = OpenJudge.Of(_database, day, machines, new(present, Whole: few is null), Failed);
        FleetJudgement Again(IReadOnlySet<string> touched)
        {
            var known = touched.Count > 0 ? judge.Core.JudgeAgain(before!.Judgement, touched, cancellation) : before!.Judgement;
            return since.Rules ? judge.Core.RuleAgain(known, cancellation) : known;
        }
        var judgement = few is null
            ? judge.Core.JudgeAll((done, of) => Progress = present ? (done, of) : Progress, cancellation)
            : Again(few);
        _byDay[day] = new Judged(since.Last, judgement, now, few is null ? now : before!.WholeAt, present);
        _log.LogInformation(
            "Judged {What} of {Machines} machines as of {Day} in {Milliseconds} ms",
            few is null ? "all"
                : since.Rules ? "the rules"
                : $"{few.Count} and their like",
            judgement.Queue.Count,
            day.ToString("O"),
            time.ElapsedMilliseconds
        );
        foreach (var old in _byDay.Where(j => !j.Value.Present).OrderByDescending(j => j.Value.At).Skip(MostDays).ToArray())
            _byDay.TryRemove(old.Key, out _);
        foreach (var old in _byDay.Where(j => j.Value.Present && j.Key != day && present).ToArray())
            _byDay.TryRemove(old.Key, out _);
    }

    private void Failed(Asset asset, Exception error) =>
        _log.LogError(error, "{Asset} cannot be judged; its row says so, and all others are judged", asset.Tag);
}
