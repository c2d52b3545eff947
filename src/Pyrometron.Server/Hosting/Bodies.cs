using Microsoft.AspNetCore.Http.Features;
using Pyrometron.Formats;
using Pyrometron.Storage;

namespace Pyrometron.Server.Hosting;

/// <summary>
/// Request bodies: bounded except for the imports, and gzip-encoded ones unpacked only after their checksum is known to be
/// right.
/// </summary>
internal static class Bodies
{
    /// <summary>The largest body of an ordinary call, bytes.</summary>
    private const long Largest = 4 * 1024 * 1024;

    /// <summary>What an endpoint takes besides JSON.</summary>
    /// <param name="Types">The media types that its body may have.</param>
    public sealed record TakesFiles(params string[] Types);

    /// <summary>Tables: readings, services, logs.</summary>
    public static readonly TakesFiles Tables = new(
        "text/csv",
        "application/gzip",
        "application/x-gzip",
        "application/octet-stream"
    );

    /// <summary>Tables of machines, also as spreadsheets copy them.</summary>
    public static readonly TakesFiles Spreadsheets = new([.. Tables.Types, "text/tab-separated-values"]);

    /// <summary>Fleet documents.</summary>
    public static readonly TakesFiles Documents = new(
        "application/json",
        "application/gzip",
        "application/x-gzip",
        "application/octet-stream"
    );

    /// <summary>Photos.</summary>
    public static readonly TakesFiles Pictures = new("image/jpeg", "image/png", "image/webp", "application/octet-stream");

    private static readonly TakesFiles Json = new("application/json");

    private static readonly object SentType = new();

    /// <summary>
    /// The framework finds no address for a body that is not called JSON, nor for one without a type: what was sent is set aside,
    /// and looked at where the address is known.
    /// </summary>
    public static Task SetTypeAside(HttpContext context, RequestDelegate next)
    {
        if (context.Request.Path.StartsWithSegments("/api"))
        {
            context.Items[SentType] = context.Request.ContentType;
            context.Request.ContentType = "application/json";
        }
        return next(context);
    }

    public static async Task Middleware(HttpContext context, RequestDelegate next)
    {
        var endpoint = context.GetEndpoint();
        var files = endpoint?.Metadata.GetMetadata<TakesFiles>();
        var takesFiles = files is not null;
        if (endpoint is not null)
            CheckType(context, files ?? Json);
        if (context.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } size)
            size.MaxRequestBodySize = takesFiles ? null : Largest;
        var encoding = context.Request.Headers.ContentEncoding.ToString();
        if (
            encoding.Length > 0
            && !encoding.Equals("gzip", StringComparison.OrdinalIgnoreCase)
            && !encoding.Equals("identity", StringComparison.OrdinalIgnoreCase)
        )
            throw new BadHttpRequestException(
                $"Content-Encoding '{encoding}' is not taken; send gzip or plain.",
                StatusCodes.Status415UnsupportedMediaType
            );
        if (takesFiles || !encoding.Equals("gzip", StringComparison.OrdinalIgnoreCase))
        {
            await next(context);
            return;
        }
        var uploads = context.RequestServices.GetRequiredService<DataFolder>().Uploads;
        using var spool = await GzipSpool.TakeAsync(context.Request.Body, uploads, context.RequestAborted);
        if (spool.PlainLength > Largest)
            throw new BadHttpRequestException(
                "The unpacked body is larger than this call takes.",
                StatusCodes.Status413PayloadTooLarge
            );
        context.Request.Body = spool.Open();
        context.Request.ContentLength = spool.PlainLength;
        context.Request.Headers.ContentEncoding = "";
        await next(context);
    }

    /// <summary>
    /// A type that the call does not take is refused: plain forms of other sites can send some of them without asking. Without
    /// one the body is told by what is in it.
    /// </summary>
    private static void CheckType(HttpContext context, TakesFiles takes)
    {
        if (
            HttpMethods.IsGet(context.Request.Method)
            || HttpMethods.IsHead(context.Request.Method)
            || context.Items[SentType] is not string { Length: > 0 } sent
        )
            return;
        var type = sent.Split(';')[0].Trim();
        if (
            takes.Types.Contains(type, StringComparer.OrdinalIgnoreCase)
            || (takes == Json && type.EndsWith("+json", StringComparison.OrdinalIgnoreCase))
        )
            return;
        throw new BadHttpRequestException(
            $"Content-Type '{type}' is not taken here; send {string.Join(", ", takes.Types)}, or none.",
            StatusCodes.Status415UnsupportedMediaType
        );
    }
}
