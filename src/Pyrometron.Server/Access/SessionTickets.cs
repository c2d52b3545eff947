using System.Security.Claims;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Pyrometron.Application.Access;
using Pyrometron.Storage;

namespace Pyrometron.Server.Access;

/// <summary>
/// Sessions as the framework's cookies ask for them: the cookie holds a token alone, and what it stands for is looked up each
/// time. So a change of an account counts at once, and a browser that was signed out is out.
/// </summary>
internal sealed class SessionTickets(SignInUseCases signIn) : ITicketStore
{
    private const string TokenItem = "token";

    /// <summary>What signs a browser in with a token.</summary>
    public static (ClaimsPrincipal Who, AuthenticationProperties How) For(Account account, string token, DateTimeOffset now)
    {
        var how = new AuthenticationProperties
        {
            IsPersistent = true,
            IssuedUtc = now,
            // The browser keeps the cookie so long; the session behind it may end before.
            ExpiresUtc = now.AddDays(30),
        };
        how.Items[TokenItem] = token;
        return (PrincipalOf(account), how);
    }

    public Task<string> StoreAsync(AuthenticationTicket ticket) => Task.FromResult(ticket.Properties.Items[TokenItem]!);

    public Task RenewAsync(string key, AuthenticationTicket ticket) => Task.CompletedTask;

    public Task<AuthenticationTicket?> RetrieveAsync(string key) => Task.FromResult<AuthenticationTicket?>(null);

    public Task<AuthenticationTicket?> RetrieveAsync(string key, HttpContext httpContext, CancellationToken cancellationToken)
    {
        if (signIn.Find(key) is not { } session)
            return Task.FromResult<AuthenticationTicket?>(null);
        httpContext.Items[typeof(Session)] = session;
        return Task.FromResult<AuthenticationTicket?>(
            new AuthenticationTicket(
                PrincipalOf(session.Account),
                new AuthenticationProperties { IssuedUtc = session.BegunAt, ExpiresUtc = session.Until },
                CookieAuthenticationDefaults.AuthenticationScheme
            )
        );
    }

    public Task RemoveAsync(string key)
    {
        signIn.SignOut(key);
        return Task.CompletedTask;
    }

    private static ClaimsPrincipal PrincipalOf(Account account) =>
        new(
            new ClaimsIdentity(
                [new Claim(ClaimTypes.NameIdentifier, account.Code), new Claim(ClaimTypes.Name, account.Name)],
                CookieAuthenticationDefaults.AuthenticationScheme
            )
        );
}
