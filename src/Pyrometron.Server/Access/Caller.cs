using System.Net;
using System.Net.Sockets;
using Pyrometron.Application.Access;
using Pyrometron.Storage;

namespace Pyrometron.Server.Access;

/// <summary>Who calls: whoever signed in, a program with its key, or without accounts the one person at this machine.</summary>
/// <param name="Session">The browser that is signed in; null without accounts, and for a program.</param>
/// <param name="IsTheOne">Whether there are no accounts: it is the one person at this machine, who need not say who they are.</param>
public sealed record Caller(Actor Actor, Session? Session, bool IsTheOne = false)
{
    /// <summary>The account that is signed in.</summary>
    /// <exception cref="BadHttpRequestException">There are no accounts here.</exception>
    public Account Account =>
        Session?.Account
        ?? throw new BadHttpRequestException(
            "There are no accounts here: the program was started for one person at this machine.",
            StatusCodes.Status409Conflict
        );

    /// <summary>The account that is signed in, and from where.</summary>
    /// <exception cref="BadHttpRequestException">There are no accounts here.</exception>
    public SignedIn Me => new(Account, Actor.Address);

    /// <summary>Who calls; nobody, who may nothing, where nobody is signed in.</summary>
    public static Caller Of(HttpContext context)
    {
        var address = AddressOf(context) is { Length: > 0 } known ? known : null;
        Caller From(Actor actor, Session? session, bool isTheOne = false) =>
            new(actor with { Address = address }, session, isTheOne);
        return context.RequestServices.GetRequiredService<Door>().Solo ? From(Actor.Unnamed, null, isTheOne: true)
            : context.Items[typeof(ApiKey)] is ApiKey key ? From(key.Actor, null)
            : context.Items[typeof(Session)] is Session session ? From(session.Account.Actor, session)
            : From(new Actor(ActorKind.Person, ""), null);
    }

    /// <summary>A caller's address; of the sixth version the part that one household has. Empty where there is none.</summary>
    public static string AddressOf(HttpContext context)
    {
        var address = context.Connection.RemoteIpAddress;
        if (address is null)
            return "";
        if (address.IsIPv4MappedToIPv6)
            address = address.MapToIPv4();
        if (address.AddressFamily != AddressFamily.InterNetworkV6)
            return address.ToString();
        var bytes = address.GetAddressBytes();
        Array.Clear(bytes, 8, 8);
        return $"{new IPAddress(bytes)}/64";
    }

    /// <summary>Whether it is a person at a browser, and no program: without accounts the one person always is.</summary>
    public bool IsOneself => Session is not null || IsTheOne;

    /// <summary>The name of who signed in, whatever was said; without accounts what was said.</summary>
    public string? Named(string? said) => Session?.Account.Name ?? said;

    /// <summary>Lets endpoints take it as a parameter.</summary>
    public static ValueTask<Caller> BindAsync(HttpContext context) => ValueTask.FromResult(Of(context));

    /// <summary>
    /// Who did something at the bench: without accounts whoever the device names, else who signed in, whatever the device says.
    /// </summary>
    public Actor At(string? by, string device) => IsTheOne ? Actor.Of(by, device) with { Address = Actor.Address } : Actor;
}
