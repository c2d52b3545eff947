using System.Threading.RateLimiting;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.HttpOverrides;
using Microsoft.AspNetCore.Server.Kestrel.Core;
using Microsoft.AspNetCore.Server.Kestrel.Https;
using Pyrometron.Application.Access;
using Pyrometron.Application.Bench;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Operation;
using Pyrometron.Storage;

namespace Pyrometron.Server.Access;

/// <summary>Puts together who comes in: listening, sessions, rights, and how often somebody may ask.</summary>
internal static class AccessSetup
{
    /// <summary>The policy of all calls but signing in.</summary>
    public const string Look = "look";

    /// <summary>Of the cookie by which a browser is signed in.</summary>
    public const string CookieName = "__Host-pyrometron";

    /// <summary>The policy of calls about what is one's own.</summary>
    public const string SignedIn = "signed-in";

    /// <summary>Calls that somebody may make at once, and that come back every second: far more than a page needs.</summary>
    private const int Burst = 400,
        EverySecond = 40;

    /// <summary>Attempts at signing in, from one address: the pace of one account is kept apart.</summary>
    private const int AttemptsAtOnce = 30,
        AttemptsAMinute = 60;

    public static void AddAccess(this WebApplicationBuilder builder, ServerOptions options)
    {
        var door = Door.From(builder.Configuration);
        var services = builder.Services;
        services.AddSingleton(door);
        services.AddSingleton<AccountStore>();
        services.AddSingleton<SessionStore>();
        services.AddSingleton<IPasswordHashes, PasswordHashes>();
        services.AddSingleton<AccountUseCases>();
        services.AddSingleton<ErasureUseCases>();
        services.AddSingleton<OwnerUseCases>();
        services.AddSingleton<KeyStore>();
        services.AddSingleton<KeyUseCases>();
        services.AddSingleton<RefusalLog>();
        services.AddSingleton<AuditStore>();
        services.AddSingleton<OwnAccountUseCases>();
        services.AddSingleton<SignInUseCases>();
        services.AddSingleton<FirstLink>();
        services.AddSingleton<KnownDevices>();
        services.AddSingleton<SessionTickets>();
        services.AddSingleton(s => new Certificates(
            door,
            Path.Combine(s.GetRequiredService<DataFolder>().Path, "certificates"),
            s.GetRequiredService<TimeProvider>(),
            s.GetRequiredService<ILogger<Certificates>>()
        ));
        builder.WebHost.ConfigureKestrel(kestrel =>
        {
            kestrel.AddServerHeader = false;
            kestrel.Listen(door.Listen, options.Port, listen => Listen(listen, door, kestrel.ApplicationServices));
        });
        if (door.Solo)
            services.AddDataProtection().UseEphemeralDataProtectionProvider();
        else
            services
                .AddDataProtection()
                .SetApplicationName("pyrometron")
                .PersistKeysToFileSystem(Certificates.OwnFolder(Path.Combine(options.DataFolder, "keys")));
        // That keys lie in plain files which their owner alone may read is on purpose.
        builder.Logging.AddFilter("Microsoft.AspNetCore.DataProtection", LogLevel.Error);
        services.AddAuthentication(CookieAuthenticationDefaults.AuthenticationScheme).AddCookie();
        services
            .AddOptions<CookieAuthenticationOptions>(CookieAuthenticationDefaults.AuthenticationScheme)
            .Configure<SessionTickets>(Cookies);
        services
            .AddAuthorizationBuilder()
            .AddPolicy(Look, p => p.RequireAssertion(a => May(a.Resource, Right.Look)))
            .AddPolicy(SignedIn, p => p.RequireAssertion(a => a.Resource is HttpContext c && Caller.Of(c).IsOneself));
        services.Configure<ForwardedHeadersOptions>(forwarded => Forwarded(forwarded, door));
        services.AddRateLimiter(limiter =>
        {
            limiter.RejectionStatusCode = StatusCodes.Status429TooManyRequests;
            limiter.GlobalLimiter = PartitionedRateLimiter.Create<HttpContext, string>(context => Pace(context, door));
        });
    }

    /// <summary>Has a call refused to whoever lacks a right: for calls that go to no use case, which would ask itself.</summary>
    public static TBuilder Needs<TBuilder>(this TBuilder calls, Right right)
        where TBuilder : IEndpointConventionBuilder =>
        calls.RequireAuthorization(policy => policy.RequireAssertion(a => May(a.Resource, right)));

    /// <summary>Says on the console where it is, and how somebody comes in where nobody can yet.</summary>
    /// <param name="listening">The address that it listens on.</param>
    public static void TellWhere(this WebApplication app, string listening)
    {
        var (door, first) = (app.Services.GetRequiredService<Door>(), app.Services.GetRequiredService<FirstLink>());
        var port = listening[(listening.LastIndexOf(':') + 1)..].TrimEnd('/');
        var address =
            door.Solo ? listening
            : door.SpeaksTls ? $"https://{NameFor(door)}:{port}"
            : $"https://{NameFor(door)}, through the proxy";
        var console = Logs.ConsoleFor(app.Configuration);
        console.WriteLine($"Pyrometron is at {address}");
        if (!door.Solo && first.IsNeeded)
            console.WriteLine(
                $"Nobody can sign in yet. Whoever sets the house up opens {address.Split(',')[0]}{AccountsEndpoints.PathOf(first.Token)}"
            );
    }

    private static string NameFor(Door door)
    {
        var name = door.NameForOthers;
        return name.Contains(':', StringComparison.Ordinal) ? $"[{name}]" : name;
    }

    private static void Listen(ListenOptions listen, Door door, IServiceProvider services)
    {
        if (door.SpeaksTls)
            listen.UseHttps(
                new HttpsConnectionAdapterOptions
                {
                    ServerCertificateSelector = (_, _) => services.GetRequiredService<Certificates>().Current,
                }
            );
        else
            listen.Use(next => connection => UnparsedRequests.OnConnection(connection, next));
    }

    private static void Cookies(CookieAuthenticationOptions cookies, SessionTickets sessions)
    {
        // The prefix has browsers refuse it from other hosts, other paths, and without HTTPS.
        cookies.Cookie.Name = CookieName;
        cookies.Cookie.Path = "/";
        cookies.Cookie.HttpOnly = true;
        cookies.Cookie.SecurePolicy = CookieSecurePolicy.Always;
        cookies.Cookie.SameSite = SameSiteMode.Strict;
        cookies.SlidingExpiration = false;
        cookies.SessionStore = sessions;
        cookies.Events.OnRedirectToLogin = context => Answer(context.Response, StatusCodes.Status401Unauthorized);
        cookies.Events.OnRedirectToAccessDenied = context => Answer(context.Response, StatusCodes.Status403Forbidden);
    }

    private static Task Answer(HttpResponse response, int status)
    {
        response.StatusCode = status;
        return Task.CompletedTask;
    }

    private static bool May(object? resource, Right right) =>
        resource is HttpContext context && Caller.Of(context).Actor.Rights.May(right);

    private static void Forwarded(ForwardedHeadersOptions forwarded, Door door)
    {
        forwarded.ForwardedHeaders =
            door.Proxies.Count > 0
                ? ForwardedHeaders.XForwardedFor
                    | ForwardedHeaders.XForwardedProto
                    | ForwardedHeaders.XForwardedHost
                    | ForwardedHeaders.XForwardedPrefix
                : ForwardedHeaders.None;
        forwarded.KnownIPNetworks.Clear();
        forwarded.KnownProxies.Clear();
        foreach (var proxy in door.Proxies)
            forwarded.KnownProxies.Add(proxy);
    }

    private static RateLimitPartition<string> Pace(HttpContext context, Door door)
    {
        if (door.Solo || !context.Request.Path.StartsWithSegments("/api"))
            return RateLimitPartition.GetNoLimiter("");
        var address = context.Connection.RemoteIpAddress?.ToString() ?? "";
        if (context.Request.Path.StartsWithSegments("/api/v1/session") && !HttpMethods.IsGet(context.Request.Method))
            return Bucket($"in {address}", AttemptsAtOnce, AttemptsAMinute / 60);
        var who =
            context.Items[typeof(ApiKey)] is ApiKey key ? $"key {key.Id}"
            : context.Items[typeof(Session)] is Session session ? $"account {session.Account.Id}"
            : $"address {address}";
        return Bucket(who, Burst, EverySecond);
    }

    private static RateLimitPartition<string> Bucket(string who, int most, int everySecond) =>
        RateLimitPartition.GetTokenBucketLimiter(
            who,
            _ => new TokenBucketRateLimiterOptions
            {
                TokenLimit = most,
                TokensPerPeriod = everySecond,
                ReplenishmentPeriod = TimeSpan.FromSeconds(1),
                QueueLimit = 0,
            }
        );
}
