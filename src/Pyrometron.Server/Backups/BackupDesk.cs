using Pyrometron.Application;
using Pyrometron.Storage;
using Pyrometron.Storage.Backups;

namespace Pyrometron.Server.Backups;

/// <summary>Makes backups while the house works, one at a time, and clears old ones away.</summary>
internal sealed class BackupDesk(
    Database database,
    BackupSettings settings,
    TimeProvider clock,
    IHostApplicationLifetime lifetime,
    ILogger<BackupDesk> log
) : BackgroundService
{
    /// <summary>How often it is looked whether one is due, and how long after the start the first time.</summary>
    private static readonly TimeSpan Every = TimeSpan.FromMinutes(10);

    private readonly Lock _guard = new();

    /// <summary>The folder.</summary>
    public BackupFolder Folder { get; } = new(settings.Folder);

    /// <summary>Lays backups back into this house.</summary>
    public Restore Restore { get; } = new(database.Path, new BackupFolder(settings.Folder));

    /// <summary>Whether one is being made.</summary>
    public bool IsBusy { get; private set; }

    /// <summary>Why the last one was not made; null where nothing went wrong.</summary>
    public string? Failure { get; private set; }

    /// <summary>Begins a backup and does not wait for it.</summary>
    /// <exception cref="NotPossibleException">One is being made.</exception>
    public void Start()
    {
        if (!Begin())
            throw new NotPossibleException("A backup is being made already.");
        _ = Task.Run(Make);
    }

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(Every, clock);
        try
        {
            while (settings.Hours > 0 && await timer.WaitForNextTickAsync(stoppingToken))
                if (IsDue && Begin())
                    await Task.Run(Make, stoppingToken);
        }
        catch (OperationCanceledException)
        {
            // The server ends.
        }
    }

    private bool IsDue =>
        Folder.All().FirstOrDefault(b => b.Damage is null)?.Manifest?.MadeAt is not { } last
        || clock.GetUtcNow() - last >= TimeSpan.FromHours(settings.Hours);

    private bool Begin()
    {
        lock (_guard)
            return !IsBusy && (IsBusy = true);
    }

    private void Make()
    {
        try
        {
            var made = Folder.Make(database.Path, settings.Passphrase, clock.GetUtcNow(), lifetime.ApplicationStopping);
            var gone = Folder.Prune(settings.Retention);
            Failure = null;
            log.LogInformation(
                "Backup {Name} made and checked, {Bytes} bytes; {Gone} older ones cleared away",
                made.Name,
                made.Manifest!.Bytes,
                gone.Count
            );
        }
        catch (Exception error) when (error is InvalidDataException or IOException or UnauthorizedAccessException)
        {
            Failure = error.Message;
            log.LogError("{Why}", error.Message);
        }
        catch (OperationCanceledException)
        {
            Failure = "The program ended before it was finished.";
        }
        finally
        {
            IsBusy = false;
        }
    }
}
