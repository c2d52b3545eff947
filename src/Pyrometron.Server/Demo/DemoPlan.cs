using Pyrometron.Application.Weeks;
using Pyrometron.Server.Weeks;
using Pyrometron.Storage;

namespace Pyrometron.Server.Demo;

/// <summary>
/// Plans the demo's two weeks once its machines are judged: first as all are there, then again with somebody away, so that the
/// plan shows what moved.
/// </summary>
internal sealed class DemoPlan(
    AboutStore about,
    PlanStore plans,
    StaffUseCases staff,
    WeeksDesk desk,
    TimeProvider clock,
    ILogger<DemoPlan> log
) : BackgroundService
{
    private const int Days = 14;
    private const double Seconds = 1;

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        // The server answers first.
        await Task.Yield();
        if (about.Data != "demo" || plans.Newest() is not null)
            return;
        var today = DateOnly.FromDateTime(clock.GetLocalNow().DateTime);
        try
        {
            await desk.MakeAsync(Actor.Program, today, Days, Seconds, stoppingToken);
            staff.Keep(Actor.Program, new CoastStaff(today).Away);
            await desk.MakeAsync(Actor.Program, today, Days, Seconds, stoppingToken);
        }
        catch (Exception error) when (error is not OperationCanceledException)
        {
            log.LogWarning(error, "The demo has no plan");
        }
    }
}
