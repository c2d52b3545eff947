using Pyrometron.Storage;

namespace Pyrometron.Server.Access;

/// <summary>Who calls: whoever signed in, a program with its key, or without accounts the one person at this machine.</summary>
/// <param name="Session">The browser that is signed in; null without accounts, and for a program.</param>
public sealed record Caller(Actor Actor, Session? Session)
{
    private static readonly Caller TheOne = new(Actor.Unnamed, null);
    private static readonly Caller Nobody = new(new Actor(ActorKind.Person, ""), null);

    /// <summary>The account that is signed in.</summary>
    /// <exception cref="BadHttpRequestException">There are no accounts here.</exception>
    public Account Account =>
        Session?.Account
        ?? throw new BadHttpRequestException(
            "There are no accounts here: the program was started for one person at this machine.",
            StatusCodes.Status409Conflict
        );

    /// <summary>Who calls; nobody, who may nothing, where nobody is signed in.</summary>
    public static Caller Of(HttpContext context) =>
        context.RequestServices.GetRequiredService<Door>().Solo ? TheOne
        : context.Items[typeof(ApiKey)] is ApiKey key ? new(key.Actor, null)
        : context.Items[typeof(Session)] is Session session ? new(session.Account.Actor, session)
        : Nobody;

    /// <summary>Whether it is a person at a browser, and no program: without accounts the one person always is.</summary>
    public bool IsOneself => Session is not null || ReferenceEquals(this, TheOne);

    /// <summary>The name of who signed in, whatever was said; without accounts what was said.</summary>
    public string? Named(string? said) => Session?.Account.Name ?? said;

    /// <summary>Lets endpoints take it as a parameter.</summary>
    public static ValueTask<Caller> BindAsync(HttpContext context) => ValueTask.FromResult(Of(context));

    /// <summary>
    /// Who did something at the bench: without accounts whoever the device names, else who signed in, whatever the device says.
    /// </summary>
    public Actor At(string? by, string device) => ReferenceEquals(this, TheOne) ? Actor.Of(by, device) : Actor;
}
