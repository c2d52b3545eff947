using System.Security.Claims;
using Pyrometron.Application.Access;
using Pyrometron.Server.Hosting;

namespace Pyrometron.Server.Access;

/// <summary>Programs that come with a key (RFC 6750): recognised, and held to the calls that their key is for.</summary>
internal static class Keys
{
    private const string Scheme = "Bearer";

    /// <summary>Says of a call which keys it takes besides those for looking.</summary>
    public sealed record Takes(KeyScope Scope);

    /// <summary>Lets a call be made with keys of a scope.</summary>
    public static TBuilder ForKeys<TBuilder>(this TBuilder calls, KeyScope scope)
        where TBuilder : IEndpointConventionBuilder => calls.WithMetadata(new Takes(scope));

    /// <summary>Recognises a key; one that does not count, or not here, is refused and nothing else is tried.</summary>
    public static async Task Recognise(HttpContext context, RequestDelegate next)
    {
        var takes = context.GetEndpoint()?.Metadata.GetMetadata<Takes>();
        if (Shown(context, takes) is not { } shown || context.RequestServices.GetRequiredService<Door>().Solo)
        {
            await next(context);
            return;
        }
        var address = Caller.AddressOf(context);
        if (context.RequestServices.GetRequiredService<KeyUseCases>().Recognise(shown, address) is not { } key)
        {
            context.RequestServices.GetRequiredService<RefusalLog>().NoteKey(shown, address);
            context.Response.Headers.WWWAuthenticate = "Bearer error=\"invalid_token\"";
            await Problems
                .NotSignedIn(
                    "This key is none, was ended, or its time is over. Whoever keeps the house's accounts gives a new one."
                )
                .ExecuteAsync(context);
            return;
        }
        context.Items[typeof(ApiKey)] = key;
        if (!IsFor(key, takes, context.Request.Method))
        {
            context.Response.Headers.WWWAuthenticate = "Bearer error=\"insufficient_scope\"";
            await Problems
                .NotAllowed($"This key is for '{key.Scope}', and this call is not. Ask for a key of another kind.")
                .ExecuteAsync(context);
            return;
        }
        context.User = new ClaimsPrincipal(new ClaimsIdentity([new Claim(ClaimTypes.Name, key.Name)], Scheme));
        await next(context);
    }

    /// <summary>
    /// The key of a call. In an address it would be written down on the way; only calendars, which can do no other, may.
    /// </summary>
    private static string? Shown(HttpContext context, Takes? takes) =>
        context.Request.Headers.Authorization.ToString() is { } said
        && said.Split(' ')[0].Equals(Scheme, StringComparison.OrdinalIgnoreCase)
            ? said[Scheme.Length..].Trim()
        : takes?.Scope == KeyScope.Calendar && context.Request.Query["key"].ToString() is { Length: > 0 } inAddress ? inAddress
        : null;

    private static bool IsFor(ApiKey key, Takes? takes, string method) =>
        key.Scope switch
        {
            KeyScope.Look => HttpMethods.IsGet(method) || HttpMethods.IsHead(method),
            var scope => takes?.Scope == scope,
        };
}
