using Pyrometron.Application;
using Pyrometron.Server.Access;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

namespace Pyrometron.Server.Demo;

/// <summary>How far the demo beside is.</summary>
/// <param name="Starting">Whether it is being laid and started.</param>
/// <param name="Address">Where it is; null until it answers.</param>
/// <param name="Problem">Why it did not start, and what to do; null while nothing went wrong.</param>
public sealed record DemoAnswer(bool Starting, string? Address, string? Problem);

/// <summary>
/// The demo beside somebody's own data: a second server in the same process, on a free port of this machine, with a database of
/// its own in the folder <c>demo</c> of the data folder. It ends with the first one.
/// </summary>
internal sealed class DemoBeside(ServerOptions options, IWebHostEnvironment environment, ILogger<DemoBeside> log) : IHostedService
{
    private readonly Lock _lock = new();
    private Task<WebApplication>? _started;

    /// <summary>How far it is.</summary>
    public DemoAnswer State =>
        _started switch
        {
            null => new(false, null, null),
            { IsCompletedSuccessfully: true, Result: var demo } => new(false, demo.Urls.First(), null),
            { IsFaulted: true, Exception: var error } => new(
                false,
                null,
                $"The demo cannot start: {StorageFailure.Of(error!.InnerException!)?.ToString() ?? error.InnerException!.Message}"
            ),
            _ => new(true, null, null),
        };

    /// <summary>Starts it where it does not run, and answers at once.</summary>
    /// <exception cref="NotPossibleException">This server is on demo data itself.</exception>
    public DemoAnswer Open(AboutStore about)
    {
        if (about.Data == "demo")
            throw new NotPossibleException("This is the demo already.");
        lock (_lock)
            if (_started is null or { IsFaulted: true })
                _started = Task.Run(RunAsync);
        return State;
    }

    /// <inheritdoc/>
    public Task StartAsync(CancellationToken cancellationToken) => Task.CompletedTask;

    /// <summary>Stops it; one that is still being laid ends with the process and is laid anew next time.</summary>
    public async Task StopAsync(CancellationToken cancellationToken)
    {
        if (_started is { IsCompletedSuccessfully: true, Result: var demo })
        {
            await demo.StopAsync(cancellationToken);
            await demo.DisposeAsync();
        }
    }

    private async Task<WebApplication> RunAsync()
    {
        var builder = WebApplication.CreateBuilder(
            new WebApplicationOptions
            {
                ContentRootPath = environment.ContentRootPath,
                EnvironmentName = environment.EnvironmentName,
            }
        );
        builder.AddPyrometron(new ServerOptions(Path.Combine(options.DataFolder, "demo"), Port: 0, Demo: true));
        var demo = builder.Build();
        try
        {
            demo.Services.GetRequiredService<Database>();
            demo.UsePyrometron();
            await demo.StartAsync();
        }
        catch
        {
            await demo.DisposeAsync();
            throw;
        }
        log.LogInformation("The demo is at {Address}", demo.Urls.First());
        return demo;
    }
}

/// <summary>The demo, one call away.</summary>
internal static class DemoEndpoints
{
    public static void MapDemo(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/demo").WithTags("Demo");
        group
            .MapGet("", (DemoBeside demo) => TypedResults.Ok(demo.State))
            .WithSummary("Whether the demo is open beside the house's own data.");
        group
            .MapPost("", (DemoBeside demo, AboutStore about) => TypedResults.Ok(demo.Open(about)))
            .WithSummary("Opens the demo beside the house's own data.")
            .Needs(Right.KeepHouse);
    }
}
