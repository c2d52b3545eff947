using Microsoft.AspNetCore.Http.Features;
using Pyrometron.Formats;

namespace Pyrometron.Server.Hosting;

/// <summary>
/// Request bodies: bounded except for the imports, and gzip-encoded ones unpacked only after their checksum is known to be
/// right.
/// </summary>
internal static class Bodies
{
    /// <summary>The largest body of an ordinary call, bytes.</summary>
    private const long Largest = 4 * 1024 * 1024;

    /// <summary>Marks an endpoint that takes files of any size and unpacks them itself.</summary>
    public sealed record TakesFiles;

    public static async Task Middleware(HttpContext context, RequestDelegate next)
    {
        // A page of another site must not write here through the reader's browser.
        if (
            !HttpMethods.IsGet(context.Request.Method)
            && !HttpMethods.IsHead(context.Request.Method)
            && context.Request.Headers["Sec-Fetch-Site"] == "cross-site"
        )
            throw new BadHttpRequestException("Calls from other sites are refused.", StatusCodes.Status403Forbidden);

        var takesFiles = context.GetEndpoint()?.Metadata.GetMetadata<TakesFiles>() is not null;
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
        using var spool = await GzipSpool.TakeAsync(context.Request.Body, context.RequestAborted);
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
}
