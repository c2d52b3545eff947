using Pyrometron.Server.Access;

namespace Pyrometron.Server.Hosting;

/// <summary>What every answer tells a browser that it may do with it.</summary>
internal static class AnswerHeaders
{
    /// <summary>
    /// Of a page: scripts and styles of this server only, and the styles that its own code lays in with the word of this page
    /// (Content Security Policy, level 3).
    /// </summary>
    /// <param name="nonce">Null for what is no page.</param>
    public static string PolicyOf(string? nonce) =>
        $"default-src 'self'; img-src 'self' data: blob:; font-src 'self' data:; style-src 'self'{(nonce is null ? "" : $" 'nonce-{nonce}'")}; object-src 'none'; frame-ancestors 'none'; base-uri 'self'; form-action 'self'";

    /// <summary>Sets them when the answer begins: refusals and faults, whose answers are written anew, have them too.</summary>
    public static Task Set(HttpContext context, RequestDelegate next)
    {
        context.Response.OnStarting(() =>
        {
            Put(context);
            return Task.CompletedTask;
        });
        return next(context);
    }

    private static void Put(HttpContext context)
    {
        var headers = context.Response.Headers;
        // A page has brought its own.
        if (headers.ContentSecurityPolicy.Count == 0)
            headers.ContentSecurityPolicy = PolicyOf(null);
        headers.XContentTypeOptions = "nosniff";
        headers["Referrer-Policy"] = "same-origin";
        headers["Cross-Origin-Opener-Policy"] = "same-origin";
        headers["Cross-Origin-Resource-Policy"] = "same-origin";
        var door = context.RequestServices.GetRequiredService<Door>();
        // Under localhost and addresses it would bind other programs of this machine, or means nothing (RFC 6797, 8.1.1).
        if (context.Request.IsHttps && !door.Solo && door.NameForOthers == context.Request.Host.Host)
            headers.StrictTransportSecurity = "max-age=31536000";
        // What is about the house stays in no cache on the way, nor in the browser's; the device keeps its own copy.
        if (context.Request.Path.StartsWithSegments("/api") && !door.Solo && headers.CacheControl.Count == 0)
            headers.CacheControl = "no-store";
    }
}
