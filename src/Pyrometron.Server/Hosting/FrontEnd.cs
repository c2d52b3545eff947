using System.Security.Cryptography;
using Microsoft.AspNetCore.StaticFiles;

namespace Pyrometron.Server.Hosting;

/// <summary>The files of the front end, and its page under all addresses that a browser asks a page of.</summary>
internal static class FrontEnd
{
    /// <summary>Stands in the page for the word that lets its own styles in.</summary>
    private const string NoncePlace = "nonce-of-this-page";

    private const string Page = "/index.html";

    private const int NonceBytes = 18;

    /// <summary>Sends files as they are; the page has to be made for each who asks.</summary>
    public static void UseFrontEnd(this WebApplication app)
    {
        var types = new FileExtensionContentTypeProvider();
        types.Mappings[".webmanifest"] = "application/manifest+json";
        app.UseWhen(
            context => context.Request.Path != Page,
            files =>
                files.UseStaticFiles(
                    new StaticFileOptions
                    {
                        ContentTypeProvider = types,
                        // Files under assets/ carry a hash of their content in their name.
                        OnPrepareResponse = file =>
                            file.Context.Response.Headers.CacheControl = file.Context.Request.Path.StartsWithSegments("/assets")
                                ? "public, max-age=31536000, immutable"
                                : "no-cache",
                    }
                )
        );
    }

    /// <summary>The page; programs are told that there is none.</summary>
    public static async Task SendPage(HttpContext context, IWebHostEnvironment environment)
    {
        var request = context.Request;
        if (!HttpMethods.IsGet(request.Method) && !HttpMethods.IsHead(request.Method))
        {
            context.Response.Headers.Allow = "GET, HEAD";
            context.Response.StatusCode = StatusCodes.Status405MethodNotAllowed;
            return;
        }
        if (
            request.Path != "/"
            && request.Path != Page
            && !request.Headers.Accept.ToString().Contains("text/html", StringComparison.OrdinalIgnoreCase)
        )
        {
            context.Response.StatusCode = StatusCodes.Status404NotFound;
            return;
        }
        var page = environment.WebRootFileProvider.GetFileInfo(Page);
        if (!page.Exists)
        {
            context.Response.StatusCode = StatusCodes.Status404NotFound;
            await context.Response.WriteAsync("The front end has not been built. Run ./run.sh, or npm run build in web/.");
            return;
        }
        var nonce = Convert.ToBase64String(RandomNumberGenerator.GetBytes(NonceBytes));
        using var reader = new StreamReader(page.CreateReadStream());
        var html = (await reader.ReadToEndAsync(context.RequestAborted)).Replace(NoncePlace, nonce, StringComparison.Ordinal);
        context.Response.Headers.ContentSecurityPolicy = AnswerHeaders.PolicyOf(nonce);
        context.Response.Headers.CacheControl = "no-cache";
        context.Response.ContentType = "text/html; charset=utf-8";
        await context.Response.WriteAsync(html, context.RequestAborted);
    }
}
