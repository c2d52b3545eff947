namespace Pyrometron.Server.Judging;

/// <summary>
/// Work that several callers may wait for, by day: done one at a time, shared by all who ask for the same day, and given up once
/// nobody has asked for a while. A hundred different days asked for at once cost no more than a few of them.
/// </summary>
/// <param name="most">Days that are worked on or wait for it at once.</param>
/// <param name="lease">Without a caller it goes on for this long, so that one who asks again and again gets his answer.</param>
internal sealed class OtherDays(int most, TimeSpan lease, TimeProvider clock) : IDisposable
{
    private readonly SemaphoreSlim _one = new(1, 1);
    private readonly Dictionary<DateOnly, Asked> _days = [];

    private sealed class Asked
    {
        public required CancellationTokenSource GivenUp { get; init; }

        public Task Work { get; set; } = Task.CompletedTask;

        public int Waiting { get; set; }

        public DateTimeOffset Last { get; set; }
    }

    /// <summary>Days worked on or waiting.</summary>
    public int Count
    {
        get
        {
            lock (_days)
                return _days.Count;
        }
    }

    /// <summary>Waits for the work of a day, and begins it where nobody has.</summary>
    /// <returns>False when all places are taken by days that others wait for.</returns>
    public async Task<bool> WaitAsync(
        DateOnly day,
        Func<CancellationToken, Task> work,
        TimeSpan patience,
        CancellationToken cancellation
    )
    {
        if (Ask(day, work) is not { } asked)
            return false;
        try
        {
            await Task.WhenAny(asked.Work, Task.Delay(patience, clock, cancellation));
            cancellation.ThrowIfCancellationRequested();
            if (asked.Work.IsCompleted)
                await asked.Work;
            return true;
        }
        finally
        {
            lock (_days)
                asked.Waiting--;
            _ = GiveUpLaterAsync(asked);
        }
    }

    private Asked? Ask(DateOnly day, Func<CancellationToken, Task> work)
    {
        lock (_days)
        {
            if (!_days.TryGetValue(day, out var asked))
            {
                if (_days.Count >= most)
                {
                    // The one that nobody waits for, and that was asked for longest ago, gives way.
                    var idle = _days.Where(d => d.Value.Waiting == 0).OrderBy(d => d.Value.Last).FirstOrDefault();
                    if (idle.Value is null)
                        return null;
                    _days.Remove(idle.Key);
                    idle.Value.GivenUp.Cancel();
                }
                _days[day] = asked = new Asked { GivenUp = new CancellationTokenSource() };
                asked.Work = RunAsync(day, asked, work);
            }
            asked.Waiting++;
            asked.Last = clock.GetUtcNow();
            return asked;
        }
    }

    private async Task RunAsync(DateOnly day, Asked asked, Func<CancellationToken, Task> work)
    {
        // Not on the caller's thread, which holds the lock.
        await Task.Yield();
        try
        {
            await _one.WaitAsync(asked.GivenUp.Token);
            try
            {
                await Task.Run(() => work(asked.GivenUp.Token), asked.GivenUp.Token);
            }
            finally
            {
                _one.Release();
            }
        }
        catch (OperationCanceledException) when (asked.GivenUp.IsCancellationRequested)
        {
            // Nobody waits for it any more.
        }
        finally
        {
            lock (_days)
                if (_days.GetValueOrDefault(day) == asked)
                    _days.Remove(day);
        }
    }

    private async Task GiveUpLaterAsync(Asked asked)
    {
        await Task.Delay(lease, clock);
        lock (_days)
            if (asked.Waiting > 0 || clock.GetUtcNow() - asked.Last < lease)
                return;
        await asked.GivenUp.CancelAsync();
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        lock (_days)
            foreach (var asked in _days.Values)
                asked.GivenUp.Cancel();
        _one.Dispose();
    }
}
