using Pyrometron.Core.Messages;
using Pyrometron.Storage;

namespace Pyrometron.Application.Access;

/// <summary>Whether a password is the one that a hash was made from.</summary>
public enum PasswordMatch
{
    Wrong,
    Right,

    /// <summary>Right, and the hash was made in a way that is out of date.</summary>
    RightButOld,
}

/// <summary>How passwords are written, so that they cannot be read back.</summary>
public interface IPasswordHashes
{
    /// <summary>The hash of a password.</summary>
    string Hash(string password);

    /// <summary>Compares one as typed; takes as long whether it is right or not.</summary>
    PasswordMatch Verify(string hash, string typed);

    /// <summary>Whether a text in small letters is a password that many people have.</summary>
    bool IsCommon(string text);
}

/// <summary>From where somebody signs in.</summary>
/// <param name="Address">Of the network; mistakes are counted by it.</param>
/// <param name="Device">What kind of browser, as it says itself.</param>
/// <param name="KnownDevice">A name of a browser that signed in with this account before; null for none.</param>
public sealed record SignInPlace(string Address, string Device, string? KnownDevice);

/// <summary>What came of signing in.</summary>
public abstract record SignInOutcome
{
    /// <summary>In: what the cookie says, and the hash by which it is kept.</summary>
    public sealed record In(Account Account, string Token) : SignInOutcome;

    /// <summary>The password is right; a one-time code is needed too.</summary>
    public sealed record NeedsCode : SignInOutcome;

    /// <summary>Name, password or code is not right.</summary>
    public sealed record Wrong : SignInOutcome;

    /// <summary>Too many mistakes: the next attempt is looked at after a while.</summary>
    public sealed record Wait(TimeSpan For) : SignInOutcome;
}

/// <summary>Signing in and out.</summary>
public sealed class SignInUseCases(
    Database database,
    AccountStore accounts,
    SessionStore sessions,
    IPasswordHashes passwords,
    TimeProvider clock
)
{
    /// <summary>A browser that is not used so long is signed out.</summary>
    private static readonly TimeSpan Idle = TimeSpan.FromDays(7);

    /// <summary>And after so long in any case.</summary>
    private static readonly TimeSpan Longest = TimeSpan.FromDays(30);

    /// <summary>Mistakes with one account from all unknown places weigh this much less: others may have made them.</summary>
    private const int OfOthers = 5;

    /// <summary>Compared with where there is no account: it takes as long.</summary>
    private readonly Lazy<string> _nobody = new(() => passwords.Hash(Token.Make()));

    /// <summary>Signs somebody in.</summary>
    /// <param name="oneTimeCode">Of the phone or a recovery code; null for none.</param>
    public SignInOutcome SignIn(string code, string password, string? oneTimeCode, SignInPlace place)
    {
        var now = clock.GetUtcNow();
        var wait = Sources(code, place).Max(s => Left(s.Source, s.Weighs, now));
        if (wait > TimeSpan.Zero)
            return new SignInOutcome.Wait(wait);
        var account = accounts.Find(code);
        var secrets = account is null ? null : accounts.Secrets(account.Id);
        // Made before it is needed: the first mistake must take no longer than others.
        var nobody = _nobody.Value;
        var match = passwords.Verify(secrets?.Password ?? nobody, password);
        if (account is null || secrets?.Password is null || match == PasswordMatch.Wrong || account.Suspended)
            return Refuse(code, place, account);
        if (secrets.Totp is not null && string.IsNullOrWhiteSpace(oneTimeCode))
            return new SignInOutcome.NeedsCode();
        var token = Token.Make();
        var taken = database.Write(
            account.Actor with
            {
                Address = place.Address,
            },
            now,
            t =>
            {
                if (secrets.Totp is { } secret && !TakeCode(t, account, secret, oneTimeCode!))
                    return false;
                if (match == PasswordMatch.RightButOld)
                    AccountStore.Rehash(t, account.Id, passwords.Hash(password));
                foreach (var (source, _) in Sources(code, place))
                    AccountStore.ForgetMistakes(t, source);
                Begin(t, account, token, place);
                return true;
            }
        );
        return taken ? new SignInOutcome.In(account, token) : Refuse(code, place, account);
    }

    /// <summary>Whether an account is asked for a one-time code too.</summary>
    public bool NeedsCode(Account account) => accounts.Secrets(account.Id).Totp is not null;

    /// <summary>Signs somebody in who has just chosen a password by a link.</summary>
    /// <returns>What the cookie says.</returns>
    public string SignInByLink(Account account, SignInPlace place)
    {
        var token = Token.Make();
        database.Write(account.Actor with { Address = place.Address }, clock.GetUtcNow(), t => Begin(t, account, token, place));
        return token;
    }

    /// <summary>The session that a cookie names, while it counts; that it is at work is noted once an hour.</summary>
    public Session? Find(string token)
    {
        var (hash, now) = (Token.HashOf(token), clock.GetUtcNow());
        if (sessions.Find(hash, now) is not { } session)
            return null;
        if (now - session.SeenAt > TimeSpan.FromHours(1))
            database.Write(Actor.Program, now, t => SessionStore.See(t, hash, Until(session.BegunAt, now)));
        return session;
    }

    /// <summary>Signs a browser out.</summary>
    public void SignOut(string token) =>
        database.Write(Actor.Program, clock.GetUtcNow(), t => SessionStore.End(t, Token.HashOf(token)));

    private static DateTimeOffset Until(DateTimeOffset begun, DateTimeOffset now) =>
        now + Idle < begun + Longest ? now + Idle : begun + Longest;

    private static void Begin(Transaction t, Account account, string token, SignInPlace place)
    {
        SessionStore.Begin(t, account.Id, Token.HashOf(token), place.Device, place.Address, Until(t.Now, t.Now));
        t.Log(
            new Change(
                "sign-in",
                Message.Of(
                    "{account} signed in: {device}, {address}",
                    Value.Text("account", account.Code),
                    Value.Text("device", place.Device),
                    Value.Text("address", place.Address)
                )
            )
        );
    }

    private static bool TakeCode(Transaction t, Account account, string secret, string typed) =>
        OneTimeCodes.StepOf(secret, typed, t.Now) is { } step
            ? AccountStore.TakeStep(t, account.Id, step)
            : AccountStore.TakeRecoveryCode(t, account.Id, OneTimeCodes.HashOfRecovery(typed));

    private SignInOutcome.Wrong Refuse(string code, SignInPlace place, Account? account)
    {
        database.Write(
            Actor.Program with
            {
                Address = place.Address,
            },
            clock.GetUtcNow(),
            t =>
            {
                foreach (var (source, _) in Sources(code, place))
                    AccountStore.NoteMistake(t, source);
                // A name that nobody has may be a password in the wrong field: it is not written down.
                t.Log(
                    new Change(
                        "sign-in",
                        account is null
                            ? Message.Of("Sign-in refused: nobody has the name; {address}", Value.Text("address", place.Address))
                            : Message.Of(
                                "Sign-in refused: {account}; {device}, {address}",
                                Value.Text("account", account.Code),
                                Value.Text("device", place.Device),
                                Value.Text("address", place.Address)
                            )
                    )
                );
            }
        );
        return new SignInOutcome.Wrong();
    }

    /// <summary>
    /// Where mistakes are counted: of a browser that is known, by itself, so that nobody elsewhere can slow its owner; else by
    /// address, and by account over all of them.
    /// </summary>
    private static IEnumerable<(string Source, int Weighs)> Sources(string code, SignInPlace place) =>
        place.KnownDevice is { } device
            ? [($"device {device}", 1)]
            : [($"address {place.Address}", 1), ($"account {Token.HashOf(code)}", OfOthers)];

    private TimeSpan Left(string source, int weighs, DateTimeOffset now) =>
        accounts.Mistakes(source) is { } made && now - made.Last < SignInPace.Forgotten
            ? made.Last + SignInPace.Wait(made.Count / weighs) - now
            : TimeSpan.Zero;
}
