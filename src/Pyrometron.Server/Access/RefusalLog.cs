using Microsoft.Extensions.Caching.Memory;
using Pyrometron.Application;
using Pyrometron.Application.Access;
using Pyrometron.Core.Messages;
using Pyrometron.Storage;

namespace Pyrometron.Server.Access;

/// <summary>
/// Writes into the change log what was refused to whom. The same once an hour: a program that asks again and again fills no log.
/// </summary>
internal sealed class RefusalLog(Database database, TimeProvider clock) : IDisposable
{
    private const int MostRemembered = 2_000,
        LongestPath = 200;

    private static readonly TimeSpan Quiet = TimeSpan.FromHours(1);

    private readonly MemoryCache _noted = new(new MemoryCacheOptions { SizeLimit = MostRemembered });

    /// <summary>Notes calls that are refused to somebody who is signed in, or to a program with its key.</summary>
    public static async Task Middleware(HttpContext context, RequestDelegate next)
    {
        try
        {
            await next(context);
        }
        catch (NotAllowedException)
        {
            Note(context);
            throw;
        }
        if (context.Response.StatusCode == StatusCodes.Status403Forbidden)
            Note(context);
    }

    /// <summary>Notes that a key was shown which does not count.</summary>
    public void NoteKey(string shown, string address) =>
        Write(
            Actor.Program with
            {
                Address = address,
            },
            $"key {address}",
            KeyUseCases.BeginOf(shown) is { } begins
                ? Message.Of("Refused: the key {begins}… is none, or has ended", Value.Text("begins", begins))
                : "Refused: a text that is no key"
        );

    /// <inheritdoc/>
    public void Dispose() => _noted.Dispose();

    private static void Note(HttpContext context)
    {
        var caller = Caller.Of(context);
        if (caller.Actor.Name.Length == 0)
            return;
        var path = context.Request.Path.ToString();
        var call = $"{context.Request.Method} {context.GetEndpoint()?.DisplayName}";
        context
            .RequestServices.GetRequiredService<RefusalLog>()
            .Write(
                caller.Actor,
                $"{caller.Actor.Kind} {caller.Actor.Name} {call}",
                Message.Of(
                    "Refused: {method} {path}",
                    Value.Text("method", context.Request.Method),
                    Value.Text("path", path.Length > LongestPath ? path[..LongestPath] : path)
                )
            );
    }

    private void Write(Actor actor, string what, Message says)
    {
        if (_noted.TryGetValue(what, out _))
            return;
        _noted.Set(what, true, new MemoryCacheEntryOptions { Size = 1, AbsoluteExpirationRelativeToNow = Quiet });
        database.Write(actor, clock.GetUtcNow(), t => t.Log(new Change("refused", says)));
    }
}
