using Pyrometron.Server.Access;

namespace Pyrometron.Server.Hosting;

/// <summary>
/// Who may call: under the names of the house only (a page elsewhere could point a name of its own at this address), and for
/// writing only the server's own pages or programs that are no pages.
/// </summary>
internal static class Callers
{
    /// <summary>Refuses calls under a name that is not one of the house's.</summary>
    public static Task CheckHost(HttpContext context, RequestDelegate next)
    {
        var door = context.RequestServices.GetRequiredService<Door>();
        return !context.Request.Host.HasValue || door.IsCalled(context.Request.Host.Host) ? next(context)
            : door.Solo ? throw new BadHttpRequestException("This server answers to localhost and 127.0.0.1 only.")
            : throw new BadHttpRequestException(
                "This server does not answer to this name. Whoever runs it adds the name with --name, or uses one of those it has."
            );
    }

    /// <summary>Refuses writes that a page of another site made through the reader's browser.</summary>
    public static Task CheckOrigin(HttpContext context, RequestDelegate next)
    {
        var request = context.Request;
        if (HttpMethods.IsGet(request.Method) || HttpMethods.IsHead(request.Method) || HttpMethods.IsOptions(request.Method))
            return next(context);
        var origins = request.Headers.Origin;
        var own = $"{request.Scheme}://{request.Host}";
        var foreign =
            request.Headers["Sec-Fetch-Site"] == "cross-site"
            || (origins.Count > 0 && !(origins.Count == 1 && string.Equals(origins[0], own, StringComparison.OrdinalIgnoreCase)));
        return foreign
            ? throw new BadHttpRequestException("Writes from pages of other sites are refused.", StatusCodes.Status403Forbidden)
            : next(context);
    }
}
