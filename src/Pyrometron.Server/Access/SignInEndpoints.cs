using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Application.Access;
using Pyrometron.Core.Messages;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

namespace Pyrometron.Server.Access;

/// <summary>Who is signed in, and what they may.</summary>
/// <param name="Solo">Whether there are no accounts: one person at this machine may everything.</param>
/// <param name="Account">Sign-in name; null where nobody is signed in.</param>
/// <param name="Name">As it is shown.</param>
/// <param name="Sites">Codes of the sites where they may change something; empty for all.</param>
/// <param name="NeedsFirst">Whether nobody can keep the house yet: the console names the link by which somebody comes in.</param>
public sealed record SessionAnswer(
    bool Solo,
    string? Account,
    string? Name,
    Role? Role,
    IReadOnlyList<Right> Rights,
    IReadOnlyList<string> Sites,
    bool NeedsFirst
);

/// <summary>Somebody who wants to sign in.</summary>
/// <param name="Account">Sign-in name.</param>
/// <param name="Code">Of the phone, or a recovery code; where one was asked for.</param>
public sealed record SignInRequest(string? Account, string? Password, string? Code = null);

/// <summary>A link that somebody came with.</summary>
public sealed record LinkRequest(string? Link);

/// <summary>Whom a link is for.</summary>
/// <param name="First">Whether it is the one for setting the house up: who comes says who they are.</param>
public sealed record LinkAnswer(bool First, string? Account, string? Name);

/// <summary>Somebody who chooses a password by a link.</summary>
/// <param name="Account">Sign-in name; with the first link only.</param>
/// <param name="Name">As it is shown; with the first link only.</param>
public sealed record EnterRequest(string? Link, string? Password, string? Account = null, string? Name = null);

/// <summary>Signing in and out, and coming in by a link. The only calls that nobody has to be signed in for.</summary>
internal static class SignInEndpoints
{
    private const int LongestText = 1024,
        LongestDevice = 120,
        MostAtOnce = 2,
        MostWaiting = 40;

    /// <summary>Hashing takes a processor a while; more at once would hold up everybody else.</summary>
    private static readonly SemaphoreSlim Desk = new(MostAtOnce);

    private static int s_waiting;

    public static void MapSignIn(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/session").WithTags("Accounts").AllowAnonymous();
        group.MapGet("", Get);
        group.MapPost("", SignIn);
        group.MapDelete("", SignOut);
        group.MapPost("/link", Look);
        group.MapPost("/enter", Enter);
    }

    /// <summary>Who is signed in here.</summary>
    internal static SessionAnswer Get(Caller caller, Door door, FirstLink first) =>
        Answer(caller.Session?.Account, caller, door, first);

    private static SessionAnswer Answer(Account? account, Caller caller, Door door, FirstLink first)
    {
        var rights = account?.Rights ?? caller.Actor.Rights;
        return new(
            door.Solo,
            account?.Code,
            account?.Name,
            account?.Role,
            [.. rights.Each.Order()],
            [.. rights.Sites],
            !door.Solo && first.IsNeeded
        );
    }

    /// <summary>Signs somebody in; this browser is from then on told by its cookie.</summary>
    internal static async Task<Results<Ok<SessionAnswer>, ProblemHttpResult>> SignIn(
        SignInRequest request,
        HttpContext context,
        SignInUseCases signIn,
        KnownDevices known,
        Door door,
        FirstLink first,
        TimeProvider clock
    )
    {
        if (door.Solo)
            return Problems.Conflict("There are no accounts here: the program was started for one person at this machine.");
        if (!IsShort(request.Account) || !IsShort(request.Password) || request.Code?.Length > LongestText)
            return Problems.Input("/account", "account and password are needed.");
        if (AlreadyIn(context) is { } already)
            return already;
        var code = request.Account!.Trim().ToLowerInvariant();
        var place = PlaceOf(context, known.NameOf(context, code));
        if (
            await AtDesk(() => signIn.SignIn(code, request.Password!, request.Code, place), context.RequestAborted)
            is not { } outcome
        )
            return Problems.TooOften("Many people are signing in at this moment. Try again in a few seconds.");
        switch (outcome)
        {
            case SignInOutcome.In(var account, var token):
                known.Remember(context, code);
                return TypedResults.Ok(await LetIn(context, account, token, door, first, clock));
            case SignInOutcome.NeedsCode:
                return Problems.NotSignedIn("The code that your phone shows is needed too.", "code");
            case SignInOutcome.Wait(var wait):
                var seconds = Math.Ceiling(wait.TotalSeconds);
                context.Response.Headers.RetryAfter = FormattableString.Invariant($"{seconds:0}");
                return Problems.TooOften(
                    Message.Of("After several mistakes the next attempt counts in {wait}.", Value.Seconds("wait", seconds))
                );
            default:
                return Problems.NotSignedIn(
                    request.Code is { Length: > 0 }
                        ? "Name, password or code is not right. A code counts once, and for a minute."
                        : "Name or password is not right."
                );
        }
    }

    /// <summary>Signs this browser out.</summary>
    internal static async Task<NoContent> SignOut(HttpContext context, Door door)
    {
        if (!door.Solo)
            await context.SignOutAsync(CookieAuthenticationDefaults.AuthenticationScheme);
        return TypedResults.NoContent();
    }

    /// <summary>Tells whom a link is for.</summary>
    internal static Results<Ok<LinkAnswer>, ProblemHttpResult> Look(
        LinkRequest request,
        AccountStore accounts,
        FirstLink first,
        Door door,
        TimeProvider clock
    )
    {
        if (door.Solo || !IsShort(request.Link))
            return Ended();
        if (first.Is(request.Link!))
            return TypedResults.Ok(new LinkAnswer(true, null, null));
        return accounts.OfLink(Token.HashOf(request.Link!), clock.GetUtcNow()) is { } account
            ? TypedResults.Ok(new LinkAnswer(false, account.Code, account.Name))
            : Ended();
    }

    /// <summary>Chooses a password by a link, and signs in with it.</summary>
    internal static async Task<Results<Ok<SessionAnswer>, ProblemHttpResult>> Enter(
        EnterRequest request,
        HttpContext context,
        OwnAccountUseCases own,
        SignInUseCases signIn,
        KnownDevices known,
        FirstLink first,
        Door door,
        TimeProvider clock
    )
    {
        if (door.Solo || !IsShort(request.Link))
            return Ended();
        if (request.Password is null || request.Password.Length > LongestText)
            return Problems.Input("/password", "password is needed.");
        if (AlreadyIn(context) is { } already)
            return already;
        var isFirst = first.Is(request.Link!);
        if (isFirst && (!IsShort(request.Account) || !IsShort(request.Name)))
            return Problems.Input("/account", "account and name are needed: how you sign in, and how you are called.");
        var address = Caller.AddressOf(context);
        Account Choose() =>
            isFirst
                ? own.EnterFirst(request.Account!.Trim(), request.Name!, request.Password, address)
                : own.Enter(request.Link!, request.Password, address);
        if (await AtDesk(Choose, context.RequestAborted) is not { } account)
            return Problems.TooOften("Many people are signing in at this moment. Try again in a few seconds.");
        // A link opens the account once. Who has a second factor shows it by signing in.
        if (signIn.NeedsCode(account))
            return TypedResults.Ok(Answer(null, Caller.Of(context), door, first));
        var token = signIn.SignInByLink(account, PlaceOf(context, null));
        known.Remember(context, account.Code);
        return TypedResults.Ok(await LetIn(context, account, token, door, first, clock));
    }

    private static async Task<SessionAnswer> LetIn(
        HttpContext context,
        Account account,
        string token,
        Door door,
        FirstLink first,
        TimeProvider clock
    )
    {
        var (who, how) = SessionTickets.For(account, token, clock.GetUtcNow());
        await context.SignInAsync(CookieAuthenticationDefaults.AuthenticationScheme, who, how);
        return Answer(account, Caller.Of(context), door, first);
    }

    /// <summary>Does the slow work when it is its turn.</summary>
    /// <returns>Null where too many wait.</returns>
    private static async Task<T?> AtDesk<T>(Func<T> work, CancellationToken cancellation)
        where T : class
    {
        if (Interlocked.Increment(ref s_waiting) > MostWaiting)
        {
            Interlocked.Decrement(ref s_waiting);
            return null;
        }
        try
        {
            await Desk.WaitAsync(cancellation);
            try
            {
                return await Task.Run(work, CancellationToken.None);
            }
            finally
            {
                Desk.Release();
            }
        }
        finally
        {
            Interlocked.Decrement(ref s_waiting);
        }
    }

    private static SignInPlace PlaceOf(HttpContext context, string? known)
    {
        var device = context.Request.Headers.UserAgent.ToString();
        return new SignInPlace(
            Caller.AddressOf(context),
            new string([.. device.Where(c => !char.IsControl(c)).Take(LongestDevice)]),
            known
        );
    }

    /// <summary>A browser is one person's at a time: a second cookie would leave the first one's session open.</summary>
    private static ProblemHttpResult? AlreadyIn(HttpContext context) =>
        Caller.Of(context).Session is { } session
            ? Problems.Conflict(
                Message.Of("{name} is signed in with this browser. Sign out first.", Value.Text("name", session.Account.Name))
            )
            : null;

    private static ProblemHttpResult Ended() =>
        Problems.Missing("This link is used or has ended. Ask whoever keeps the house's accounts for a new one.");

    private static bool IsShort(string? text) => text is { Length: > 0 and <= LongestText };
}
