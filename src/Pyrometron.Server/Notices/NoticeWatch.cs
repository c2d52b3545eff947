using Pyrometron.Storage;

namespace Pyrometron.Server.Notices;

/// <summary>Looks for news when data has changed and every minute, and sends it.</summary>
internal sealed class NoticeWatch : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromMinutes(1),
        Batching = TimeSpan.FromSeconds(1);

    private readonly Database _database;
    private readonly NoticeDesk _desk;
    private readonly NoticePost _post;
    private readonly ILogger<NoticeWatch> _log;
    private readonly SemaphoreSlim _wake = new(0);

    public NoticeWatch(Database database, NoticeDesk desk, NoticePost post, ILogger<NoticeWatch> log)
    {
        (_database, _desk, _post, _log) = (database, desk, post, log);
        database.Changed += OnChanged;
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
        // The server answers first.
        await Task.Yield();
        while (!stoppingToken.IsCancellationRequested)
            try
            {
                await _desk.LookAsync(stoppingToken);
                await _post.RunAsync(stoppingToken);
                await _wake.WaitAsync(Every, stoppingToken);
                await Task.Delay(Batching, stoppingToken);
                while (_wake.CurrentCount > 0)
                    await _wake.WaitAsync(stoppingToken);
            }
            catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
            {
                return;
            }
            catch (Exception error)
            {
                _log.LogError(error, "What is new could not be looked for or sent; it is tried again in a minute");
                await Task.Delay(Every, stoppingToken).ContinueWith(_ => { }, TaskScheduler.Default);
            }
    }

    private void OnChanged() => _wake.Release();
}
