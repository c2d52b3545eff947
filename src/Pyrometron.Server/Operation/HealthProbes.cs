using Microsoft.Extensions.Diagnostics.HealthChecks;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Judging;
using Pyrometron.Storage;

namespace Pyrometron.Server.Operation;

/// <summary>Whether the program lives, and whether it can be used. Nobody needs to sign in to ask; no more is told.</summary>
/// <param name="Status"><c>live</c>, <c>ready</c> or <c>not-ready</c>.</param>
/// <param name="Checks">What was looked at: <c>ok</c>, or what is wrong.</param>
public sealed record ProbeAnswer(string Status, IReadOnlyDictionary<string, string> Checks);

/// <summary>Probes for whoever keeps the program running: a service manager, a balancer, a container.</summary>
internal static class HealthProbes
{
    /// <summary>With less room than this on its disk the database may not be able to take what comes, bytes.</summary>
    private const long LeastRoom = 256L << 20;

    public static void AddHealthProbes(this IServiceCollection services) =>
        services
            .AddHealthChecks()
            .AddCheck<DatabaseAnswers>("database")
            .AddCheck<RoomOnDisk>("disk")
            .AddCheck<FleetJudged>("judgement");

    public static void MapHealthProbes(this IEndpointRouteBuilder app)
    {
        // Without a check: as long as this is answered the program lives.
        app.MapGet("/health/live", () => new ProbeAnswer("live", new Dictionary<string, string>()))
            .WithSummary("Whether the program runs at all.")
            .WithTags("Health");
        app.MapGet("/health/ready", ReadyAsync).Produces<ProbeAnswer>().Produces<ProbeAnswer>(503).WithTags("Health");
    }

    /// <summary>Whether the program can answer: its database, its disk and its judgement.</summary>
    internal static async Task<IResult> ReadyAsync(HealthCheckService health, CancellationToken cancellation)
    {
        var report = await health.CheckHealthAsync(cancellation);
        var ready = report.Status == HealthStatus.Healthy;
        return TypedResults.Json(
            new ProbeAnswer(
                ready ? "ready" : "not-ready",
                report.Entries.ToDictionary(
                    e => e.Key,
                    e => e.Value.Status == HealthStatus.Healthy ? "ok" : e.Value.Description ?? "cannot be told"
                )
            ),
            ApiJson.Options,
            statusCode: ready ? 200 : 503
        );
    }

    /// <summary>Whether the database can be read.</summary>
    private sealed class DatabaseAnswers(AboutStore about) : IHealthCheck
    {
        public Task<HealthCheckResult> CheckHealthAsync(HealthCheckContext context, CancellationToken cancellation)
        {
            try
            {
                _ = about.Data;
                return Task.FromResult(HealthCheckResult.Healthy());
            }
            catch (Exception error) when (StorageFailure.Of(error) is not null)
            {
                return Task.FromResult(HealthCheckResult.Unhealthy("cannot be read"));
            }
        }
    }

    /// <summary>Whether there is room to go on storing.</summary>
    private sealed class RoomOnDisk(Database database) : IHealthCheck
    {
        public Task<HealthCheckResult> CheckHealthAsync(HealthCheckContext context, CancellationToken cancellation) =>
            Task.FromResult(
                HouseMetrics.FreeBytes(database) < LeastRoom
                    ? HealthCheckResult.Unhealthy("nearly full")
                    : HealthCheckResult.Healthy()
            );
    }

    /// <summary>Whether the fleet has been judged since the start.</summary>
    private sealed class FleetJudged(JudgementService judgement) : IHealthCheck
    {
        public async Task<HealthCheckResult> CheckHealthAsync(HealthCheckContext context, CancellationToken cancellation) =>
            (await judgement.GetAsync(null, TimeSpan.Zero, cancellation)).Judgement is null
                ? HealthCheckResult.Unhealthy("being made for the first time")
                : HealthCheckResult.Healthy();
    }
}
