using Pyrometron.Storage;

namespace Pyrometron.Server.Operation;

/// <summary>Writes down once an hour how large the house is: of each day its last figure stays.</summary>
internal sealed class SizeDiary(Database database, TimeProvider clock, ILogger<SizeDiary> log) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromHours(1);

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        // The server answers first.
        await Task.Yield();
        using var timer = new PeriodicTimer(Every, clock);
        try
        {
            do Note();
            while (await timer.WaitForNextTickAsync(stoppingToken));
        }
        catch (OperationCanceledException)
        {
            // The server ends.
        }
    }

    private void Note()
    {
        var now = clock.GetUtcNow();
        try
        {
            database.Write(Actor.Program, now, t => SizeStore.Note(t, DateOnly.FromDateTime(now.UtcDateTime)));
        }
        catch (Exception error) when (error is Microsoft.Data.Sqlite.SqliteException or IOException)
        {
            // A figure of an hour is not worth ending the program for: the disk may be full.
            log.LogWarning(error, "The size of the house could not be written down; it is tried again in an hour");
        }
    }
}
