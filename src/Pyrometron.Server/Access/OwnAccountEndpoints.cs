using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Application.Access;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

namespace Pyrometron.Server.Access;

/// <summary>A browser that is signed in.</summary>
/// <param name="Device">What kind, as it says itself.</param>
/// <param name="Address">From where it signed in.</param>
/// <param name="SeenAt">When it was last at work, to the hour.</param>
/// <param name="Until">When it is signed out by itself, unless it is used before.</param>
/// <param name="Here">Whether it is the one that asks.</param>
public sealed record BrowserAnswer(
    long Id,
    string Device,
    string Address,
    DateTimeOffset BegunAt,
    DateTimeOffset SeenAt,
    DateTimeOffset Until,
    bool Here
);

/// <summary>Somebody's own account.</summary>
/// <param name="OneTimeCodes">Whether a code of their phone is asked for.</param>
/// <param name="RecoveryCodes">How many recovery codes are left.</param>
public sealed record OwnAccountAnswer(
    string Account,
    string Name,
    Role Role,
    IReadOnlyList<string> Sites,
    bool OneTimeCodes,
    int RecoveryCodes,
    IReadOnlyList<BrowserAnswer> Browsers
);

/// <summary>A change of password.</summary>
public sealed record PasswordChange(string? Old, string? New);

/// <summary>The password, asked for once more before something that matters.</summary>
public sealed record PasswordAgain(string? Password);

/// <summary>A secret for one-time codes, to be read by a phone.</summary>
/// <param name="Secret">Base 32, to be typed where no camera is.</param>
/// <param name="Qr">The same as a QR code, SVG.</param>
public sealed record CodesOffer(string Secret, string Qr);

/// <summary>The code that the phone shows.</summary>
public sealed record CodeRequest(string? Code);

/// <summary>Codes for the day the phone is lost; told once.</summary>
public sealed record RecoveryCodesAnswer(IReadOnlyList<string> Codes);

/// <summary>What people see and change of their own account.</summary>
internal static class OwnAccountEndpoints
{
    private const int LongestText = 1024;

    public static void MapOwnAccount(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/account").WithTags("Accounts");
        group.MapGet("", Get);
        group.MapPut("/password", ChangePassword);
        group.MapPost("/codes", OfferCodes);
        group.MapPost("/codes/begin", BeginCodes);
        group.MapPost("/codes/end", EndCodes);
        group.MapDelete("/browsers/{id:long}", EndBrowser);
        group.MapPost("/browsers/end-others", EndOthers);
    }

    /// <summary>The account that is signed in, and where else it is.</summary>
    internal static OwnAccountAnswer Get(Caller caller, AccountStore accounts, SessionStore sessions, TimeProvider clock)
    {
        var me = caller.Account;
        var secrets = accounts.Secrets(me.Id);
        return new(
            me.Code,
            me.Name,
            me.Role,
            me.Sites,
            secrets.Totp is not null,
            secrets.RecoveryCodes,
            [
                .. sessions
                    .All(clock.GetUtcNow(), me.Code)
                    .Select(s => new BrowserAnswer(
                        s.Id,
                        s.Device,
                        s.Address,
                        s.BegunAt,
                        s.SeenAt,
                        s.Until,
                        s.Id == caller.Session?.Id
                    )),
            ]
        );
    }

    /// <summary>Changes the password; all other browsers are signed out.</summary>
    internal static Results<NoContent, ProblemHttpResult> ChangePassword(
        PasswordChange request,
        Caller caller,
        OwnAccountUseCases own
    )
    {
        if (!IsShort(request.Old) || !IsShort(request.New))
            return Problems.Input("/new", "old and new are needed.");
        own.ChangePassword(caller.Me, request.Old!, request.New!, caller.Session?.Id);
        return TypedResults.NoContent();
    }

    /// <summary>Offers a secret for one-time codes; it counts once a code of it is sent back.</summary>
    internal static Results<Ok<CodesOffer>, ProblemHttpResult> OfferCodes(
        PasswordAgain request,
        Caller caller,
        OwnAccountUseCases own
    )
    {
        if (!IsShort(request.Password))
            return Problems.Input("/password", "password is needed.");
        var secret = own.OfferCodes(caller.Me, request.Password!);
        var uri = Application.Access.OneTimeCodes.UriOf(secret, "Pyrometron", caller.Account.Code);
        return TypedResults.Ok(new CodesOffer(secret, QrCode.Svg(uri)));
    }

    /// <summary>Has codes asked for from now on.</summary>
    internal static Results<Ok<RecoveryCodesAnswer>, ProblemHttpResult> BeginCodes(
        CodeRequest request,
        Caller caller,
        OwnAccountUseCases own
    ) =>
        IsShort(request.Code)
            ? TypedResults.Ok(new RecoveryCodesAnswer(own.BeginCodes(caller.Me, request.Code!)))
            : Problems.Input("/code", "code is needed: six digits.");

    /// <summary>Has no codes asked for any more.</summary>
    internal static Results<NoContent, ProblemHttpResult> EndCodes(PasswordAgain request, Caller caller, OwnAccountUseCases own)
    {
        if (!IsShort(request.Password))
            return Problems.Input("/password", "password is needed.");
        own.EndCodes(caller.Me, request.Password!);
        return TypedResults.NoContent();
    }

    /// <summary>Signs a browser out.</summary>
    internal static NoContent EndBrowser(long id, Caller caller, OwnAccountUseCases own)
    {
        own.EndSession(caller.Me, id);
        return TypedResults.NoContent();
    }

    /// <summary>Signs all browsers out but this one.</summary>
    internal static NoContent EndOthers(Caller caller, OwnAccountUseCases own)
    {
        own.EndOtherSessions(caller.Me, caller.Session?.Id);
        return TypedResults.NoContent();
    }

    private static bool IsShort(string? text) => text is { Length: > 0 and <= LongestText };
}
