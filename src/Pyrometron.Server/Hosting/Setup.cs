using System.Reflection;
using Pyrometron.Application.Bench;
using Pyrometron.Application.Campaigns;
using Pyrometron.Application.Fleet;
using Pyrometron.Application.HouseFiles;
using Pyrometron.Application.Imports;
using Pyrometron.Application.Notices;
using Pyrometron.Application.Readings;
using Pyrometron.Application.Rules;
using Pyrometron.Application.Stores;
using Pyrometron.Application.Weeks;
using Pyrometron.Sending;
using Pyrometron.Server.Access;
using Pyrometron.Server.Backups;
using Pyrometron.Server.Bench;
using Pyrometron.Server.Campaigns;
using Pyrometron.Server.Demo;
using Pyrometron.Server.Imports;
using Pyrometron.Server.Judging;
using Pyrometron.Server.Machines;
using Pyrometron.Server.Materials;
using Pyrometron.Server.Notices;
using Pyrometron.Server.Operation;
using Pyrometron.Server.Planning;
using Pyrometron.Server.Proof;
using Pyrometron.Server.Rules;
using Pyrometron.Server.Stores;
using Pyrometron.Server.Weeks;
using Pyrometron.Server.Zones;
using Pyrometron.Storage;
using Pyrometron.Storage.Backups;

namespace Pyrometron.Server.Hosting;

/// <summary>Puts the server together.</summary>
public static class Setup
{
    /// <summary>The program's version.</summary>
    public static string Version { get; } =
        Assembly
            .GetExecutingAssembly()
            .GetCustomAttribute<AssemblyInformationalVersionAttribute>()!
            .InformationalVersion.Split('+')[0];

    /// <summary>Registers everything.</summary>
    public static void AddPyrometron(this WebApplicationBuilder builder, ServerOptions options)
    {
        builder.AddAccess(options);
        Logs.Configure(builder.Logging, builder.Configuration);
        // Why it does not start is told in one line, not in a trace.
        builder.Logging.AddFilter("Microsoft.Extensions.Hosting.Internal.Host", LogLevel.None);
        builder.Services.ConfigureHttpJsonOptions(json => ApiJson.Configure(json.SerializerOptions));
        builder.Services.Configure<RouteHandlerOptions>(routes => routes.ThrowOnBadRequest = true);
        builder.Services.AddOpenApi(options => ApiDocument.Configure(options));
        builder.Services.AddResponseCompression(compression => compression.EnableForHttps = false);

        builder.Services.AddHealthProbes();
        builder.Services.AddSingleton<HouseMetrics>();
        builder.Services.AddSingleton<Housekeeping>();
        builder.Services.AddHostedService<SizeDiary>();
        builder.Services.AddSingleton<PlanningDesk>();
        builder.Services.AddSingleton<CuttingDesk>();
        builder.Services.AddSingleton(options);
        builder.Services.AddSingleton(HouseMail.From(builder.Configuration));
        builder.Services.AddSingleton(TimeProvider.System);
        builder.Services.AddSingleton(_ => DataFolder.Take(options.DataFolder));
        builder.Services.AddSingleton(services =>
            Open(
                options,
                services.GetRequiredService<DataFolder>(),
                services.GetRequiredService<BackupSettings>(),
                services.GetRequiredService<TimeProvider>(),
                services.GetRequiredService<ILogger<Database>>()
            )
        );
        foreach (
            var store in (Type[])
                [
                    typeof(FleetStore),
                    typeof(ReadingStore),
                    typeof(ServiceStore),
                    typeof(JobStore),
                    typeof(SetAsideStore),
                    typeof(SymptomStore),
                    typeof(PolicyStore),
                    typeof(RuleStore),
                    typeof(AboutStore),
                    typeof(SizeStore),
                    typeof(PhotoStore),
                    typeof(SampleStore),
                    typeof(NotesStore),
                    typeof(HistoryStore),
                    typeof(ChangeStore),
                    typeof(ImportStore),
                    typeof(PeopleStore),
                    typeof(ZoneTimesStore),
                    typeof(PlanStore),
                    typeof(ProductStore),
                    typeof(LotStore),
                    typeof(StoresUseCases),
                    typeof(WorkAhead),
                    typeof(CuttingPlans),
                    typeof(CampaignStore),
                    typeof(CampaignUseCases),
                    typeof(CampaignReading),
                    typeof(CampaignDrafts),
                    typeof(NoticeStore),
                    typeof(DeliveryStore),
                    typeof(NoticeUseCases),
                    typeof(NoticeDesk),
                    typeof(NoticePost),
                    typeof(StandIns),
                    typeof(WebhookSender),
                    typeof(StaffUseCases),
                    typeof(PlanUseCases),
                    typeof(WeeksDesk),
                    typeof(FleetUseCases),
                    typeof(RuleUseCases),
                    typeof(ZoneUseCases),
                    typeof(ImportUseCases),
                    typeof(ServicesImport),
                    typeof(HouseFileUseCases),
                    typeof(TableUseCases),
                    typeof(LogUseCases),
                    typeof(ReadingUseCases),
                    typeof(BenchUseCases),
                    typeof(BenchQueries),
                    typeof(LiveRuns),
                ]
        )
            builder.Services.AddSingleton(store);
        builder.Services.AddSingleton<ImportProgress>();
        builder.Services.AddSingleton<DemoBeside>();
        builder.Services.AddHostedService(services => services.GetRequiredService<DemoBeside>());
        builder.Services.AddSingleton<JudgementService>();
        builder.Services.AddSingleton<QueueSnapshots>();
        builder.Services.AddHostedService(services => services.GetRequiredService<JudgementService>());
        builder.Services.AddHostedService<DemoPlan>();
        builder.Services.AddHostedService(services => services.GetRequiredService<StandIns>());
        builder.Services.AddHostedService<NoticeWatch>();
        builder.Services.AddSingleton(BackupSettings.From(builder.Configuration, options));
        builder.Services.AddSingleton<BackupDesk>();
        builder.Services.AddHostedService(services => services.GetRequiredService<BackupDesk>());
    }

    /// <summary>
    /// Opens the database: a backup that is asked for is laid back first, and the demo laid into a new one when asked for.
    /// </summary>
    private static Database Open(
        ServerOptions options,
        DataFolder folder,
        BackupSettings backups,
        TimeProvider clock,
        ILogger<Database> log
    )
    {
        var path = Path.Combine(folder.Path, ServerOptions.DatabaseFile);
        new Restore(path, new BackupFolder(backups.Folder)).RunAskedFor(
            backups.Passphrase,
            clock.GetUtcNow(),
            words => log.LogWarning("{What}", words)
        );
        if (options.Demo && !File.Exists(path))
            DemoData.Lay(path, clock, log);
        var database = OpenOrTellBackup(path, backups, clock, log);
        if (database.CopyLaidAside is { } copy)
            log.LogInformation("The database was brought up to this version; as it was it lies in {Copy}", copy);
        return database;
    }

    private static Database OpenOrTellBackup(string path, BackupSettings backups, TimeProvider clock, ILogger<Database> log)
    {
        try
        {
            return Database.Open(path, clock, words => log.LogInformation("{What}", words));
        }
        catch (InvalidDataException error)
            when (DatabaseCheck.IsDamage(error)
                && new BackupFolder(backups.Folder).All().FirstOrDefault(b => b.Damage is null) is { } last
            )
        {
            var command = $"./pyrometron restore {last.Name} --data {Path.GetDirectoryName(Path.GetFullPath(path))}";
            throw new InvalidDataException(
                $"{error.Message} The last backup is {last.Name}; this lays it back: {command}",
                error
            );
        }
    }

    /// <summary>Lays the pipeline and the endpoints.</summary>
    public static void UsePyrometron(this WebApplication app)
    {
        app.Use(next => context => app.Services.GetRequiredService<HouseMetrics>().Measure(context, next));
        app.Use(next => context => AnswerHeaders.Set(context, next));
        app.UseExceptionHandler(
            new ExceptionHandlerOptions
            {
                ExceptionHandler = Problems.Answer,
                // A refusal that was planned for is an answer, no fault: it does not belong into the log.
                SuppressDiagnosticsCallback = context => Problems.IsPlanned(context.Exception),
            }
        );
        // An error that has no body yet gets a problem document.
        app.UseStatusCodePages(context => Problems.Describe(context.HttpContext));
        if (app.Services.GetRequiredService<Door>().SpeaksTls)
            // Read before anything listens: one that cannot be used is one clear line at the start.
            _ = app.Services.GetRequiredService<Certificates>();
        app.UseForwardedHeaders();
        app.Use(next => context => Callers.CheckHost(context, next));
        app.Use(next => context => Callers.CheckOrigin(context, next));
        app.UseResponseCompression();
        app.UseFrontEnd();
        app.Use(next => context => Bodies.SetTypeAside(context, next));
        app.UseRouting();
        app.UseAuthentication();
        app.Use(next => context => RefusalLog.Middleware(context, next));
        app.Use(next => context => Keys.Recognise(context, next));
        app.UseRateLimiter();
        app.UseAuthorization();
        app.Use(next => context => Bodies.Middleware(context, next));

        app.MapHealthProbes();
        HouseMetrics.Map(app);
        var open = app.MapGroup("/api/v1");
        open.MapGet("/health", (AboutStore about) => new Health("ok", Version, about.Data))
            .WithSummary("Whether the server answers, its version, and whether its data is the demo's.")
            .WithTags("Health");
        open.MapSignIn();
        open.MapHouseAddress();
        var own = app.MapGroup("/api/v1").RequireAuthorization(AccessSetup.SignedIn);
        own.MapOwnAccount();
        own.MapOwnMachines();
        var api = app.MapGroup("/api/v1").RequireAuthorization(AccessSetup.Look);
        api.MapAccounts();
        api.MapKeys();
        api.MapAudit();
        api.MapDemo();
        api.MapImports();
        api.MapTables();
        api.MapLogs();
        api.MapQueue();
        api.MapWaiting();
        api.MapZones();
        api.MapMachines();
        api.MapSymptoms();
        api.MapPolicy();
        api.MapRules();
        api.MapLearnt();
        api.MapJobs();
        api.MapLiveRuns();
        api.MapModelNotes();
        api.MapLogBook();
        api.MapLabels();
        api.MapVerdicts();
        api.MapWon();
        api.MapPlans();
        api.MapMaterials();
        api.MapStores();
        api.MapLots();
        api.MapCampaigns();
        api.MapJobStores();
        api.MapCalendar();
        api.MapWeeks();
        api.MapStaff();
        api.MapNotices();
        api.MapBackups();
        api.MapHousekeeping();
        app.MapOpenApi("/openapi/v1.json").RequireAuthorization(AccessSetup.Look);
        app.Map("/api/{**rest}", UnknownPaths.Answer).ExcludeFromDescription();
        app.Map("/openapi/{**rest}", UnknownPaths.Answer).ExcludeFromDescription();
        app.MapFallback("{*path}", FrontEnd.SendPage).ExcludeFromDescription();
    }
}

/// <summary>Whether the server lives, and on whose data.</summary>
/// <param name="Data"><c>demo</c> or <c>own</c>.</param>
public sealed record Health(string Status, string Version, string Data);
