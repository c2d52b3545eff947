using Prometheus;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;
using Pyrometron.Server.Access;
using Pyrometron.Server.Backups;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Judging;
using Pyrometron.Storage;

namespace Pyrometron.Server.Operation;

/// <summary>
/// The program's own health in figures, in the text form of OpenMetrics and Prometheus: requests, the judgement, the work at the
/// bench, the disk, backups. All but the requests are looked up when they are asked for.
/// </summary>
internal sealed class HouseMetrics
{
    private const int JobsLookedAt = 1000;

    private readonly CollectorRegistry _registry = Metrics.NewCustomRegistry();
    private readonly Histogram _requests;

    public HouseMetrics(JudgementService judgement, JobStore jobs, Database database, BackupDesk backups, TimeProvider clock)
    {
        var factory = Metrics.WithCustomRegistry(_registry);
        _requests = factory.CreateHistogram(
            "pyrometron_http_request_duration_seconds",
            "How long calls took.",
            new HistogramConfiguration { LabelNames = ["method", "code"], Buckets = Histogram.ExponentialBuckets(0.005, 4, 7) }
        );
        var build = factory.CreateGauge("pyrometron_build_info", "The version that runs.", ["version"]);
        build.WithLabels(Setup.Version).Set(1);
        var machines = factory.CreateGauge("pyrometron_machines", "Machines judged, by urgency.", ["urgency"]);
        var age = factory.CreateGauge("pyrometron_judgement_age_seconds", "Since the fleet was judged last.");
        var pending = factory.CreateGauge("pyrometron_judgement_pending", "1 while data is newer than the judgement.");
        var open = factory.CreateGauge("pyrometron_jobs_open", "Jobs at the bench that are not closed.", ["state"]);
        var size = factory.CreateGauge(
            "pyrometron_database_bytes",
            "Size of the database, with what is not moved into its file yet."
        );
        var free = factory.CreateGauge("pyrometron_disk_free_bytes", "Room on the disk of the database.");
        var backup = factory.CreateGauge(
            "pyrometron_backup_age_seconds",
            "Since the newest backup that is whole; NaN without one."
        );
        _registry.AddBeforeCollectCallback(async cancellation =>
        {
            var judged = await judgement.GetAsync(null, TimeSpan.Zero, cancellation);
            foreach (var urgency in Enum.GetValues<Urgency>())
                machines
                    .WithLabels(Words.Of(urgency))
                    .Set(judged.Judgement?.Queue.Count(a => a.Urgency == urgency) ?? double.NaN);
            age.Set(judged.JudgedAt is { } at ? (clock.GetUtcNow() - at).TotalSeconds : double.NaN);
            pending.Set(judged.Pending ? 1 : 0);
            var newest = jobs.Newest(JobsLookedAt);
            foreach (var state in (JobState[])[JobState.Open, JobState.WaitingForProof])
                open.WithLabels(Words.Of(state)).Set(newest.Count(j => j.State == state));
            size.Set(SizeStore.BytesOf(database.Path));
            free.Set(FreeBytes(database));
            var made = backups.Folder.All().Where(b => b is { Manifest: not null, Damage: null }).Max(b => b.Manifest?.MadeAt);
            backup.Set(made is { } last ? (clock.GetUtcNow() - last).TotalSeconds : double.NaN);
        });
    }

    /// <summary>Room on the disk that a database lies on, bytes.</summary>
    public static long FreeBytes(Database database) =>
        new DriveInfo(Path.GetDirectoryName(Path.GetFullPath(database.Path))!).AvailableFreeSpace;

    /// <summary>Counts a call with how long it took.</summary>
    public async Task Measure(HttpContext context, RequestDelegate next)
    {
        using var timer = new TimedCall(_requests, context);
        await next(context);
    }

    /// <summary>The figures, for whoever may look or has a key for that.</summary>
    public static void Map(IEndpointRouteBuilder app)
    {
        var registry = app.ServiceProvider.GetRequiredService<HouseMetrics>()._registry;
        app.MapMetrics(options => options.Registry = registry).RequireAuthorization(AccessSetup.Look).ExcludeFromDescription();
    }

    /// <summary>Methods by what they are; others, which anybody may make up, are one.</summary>
    private readonly struct TimedCall(Histogram requests, HttpContext context) : IDisposable
    {
        private readonly long _began = System.Diagnostics.Stopwatch.GetTimestamp();

        public void Dispose() =>
            requests
                .WithLabels(
                    HttpMethods.IsGet(context.Request.Method) ? "GET"
                        : HttpMethods.IsPost(context.Request.Method) ? "POST"
                        : HttpMethods.IsPut(context.Request.Method) ? "PUT"
                        : HttpMethods.IsDelete(context.Request.Method) ? "DELETE"
                        : "other",
                    context.Response.StatusCode.ToString(System.Globalization.CultureInfo.InvariantCulture)
                )
                .Observe(System.Diagnostics.Stopwatch.GetElapsedTime(_began).TotalSeconds);
    }
}
