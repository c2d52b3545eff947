using Pyrometron.Core.Messages;
using Pyrometron.Storage;

namespace Pyrometron.Application.Access;

/// <summary>Somebody who is signed in.</summary>
/// <param name="Address">From where on the network.</param>
public sealed record SignedIn(Account Account, string? Address)
{
    /// <summary>The number of the account.</summary>
    public long Id => Account.Id;

    /// <summary>They as those who change something.</summary>
    public Actor Actor => Account.Actor with { Address = Address };
}

/// <summary>What people change of their own account: being signed in is the permission.</summary>
/// <param name="passwords">How passwords are written.</param>
public sealed class OwnAccountUseCases(Database database, AccountStore accounts, IPasswordHashes passwords, TimeProvider clock)
{
    /// <summary>Changes the password; all other browsers are signed out.</summary>
    /// <param name="session">The session that asks for it: it stays.</param>
    /// <exception cref="NotPossibleException">The old one is not right, or the new one is not taken.</exception>
    public void ChangePassword(SignedIn me, string old, string next, long? session)
    {
        CheckPassword(me, old);
        var hash = HashOf(me.Account, next);
        Write(
            me,
            t =>
            {
                AccountStore.SetPassword(t, me.Id, hash);
                SessionStore.EndAll(t, me.Id, session);
                t.Log(AccountUseCases.Of("Password changed"));
            }
        );
    }

    /// <summary>Offers a secret for one-time codes.</summary>
    /// <returns>The secret, base 32.</returns>
    public string OfferCodes(SignedIn me, string password)
    {
        CheckPassword(me, password);
        var secret = OneTimeCodes.MakeSecret();
        Write(me, t => AccountStore.OfferTotp(t, me.Id, secret));
        return secret;
    }

    /// <summary>Has one-time codes asked for from now on, once the phone has shown that it can tell them.</summary>
    /// <returns>The recovery codes; nobody can read them again.</returns>
    /// <exception cref="NotPossibleException">The code is not right, or nothing was offered.</exception>
    public IReadOnlyList<string> BeginCodes(SignedIn me, string code)
    {
        var recovery = OneTimeCodes.MakeRecoveryCodes();
        Write(
            me,
            t =>
            {
                var secret =
                    AccountStore.Secrets(t, me.Id).TotpOffered
                    ?? throw new NotPossibleException("Begin again: nothing is being set up for this account.");
                if (OneTimeCodes.StepOf(secret, code, t.Now) is not { } step)
                    throw new NotPossibleException(
                        "This is not the code of the moment. Look whether the phone's clock is right, and type the one it shows now."
                    );
                AccountStore.SetTotp(t, me.Id, secret, [.. recovery.Select(OneTimeCodes.HashOfRecovery)]);
                AccountStore.TakeStep(t, me.Id, step);
                t.Log(AccountUseCases.Of("One-time codes set up"));
            }
        );
        return recovery;
    }

    /// <summary>Has no one-time codes asked for any more.</summary>
    /// <exception cref="NotPossibleException">The password is not right.</exception>
    public void EndCodes(SignedIn me, string password)
    {
        CheckPassword(me, password);
        Write(
            me,
            t =>
            {
                AccountStore.SetTotp(t, me.Id, null, []);
                t.Log(AccountUseCases.Of("One-time codes taken away"));
            }
        );
    }

    /// <summary>Signs one browser of theirs out: a phone that is lost.</summary>
    /// <exception cref="NotThereException">It is signed out already, or not theirs.</exception>
    public void EndSession(SignedIn me, long id) =>
        Write(
            me,
            t =>
            {
                if (!SessionStore.End(t, me.Id, id))
                    throw new NotThereException("This browser is not signed in with your account.");
                t.Log(AccountUseCases.Of("A browser signed out"));
            }
        );

    /// <summary>Signs all other browsers of theirs out.</summary>
    public void EndOtherSessions(SignedIn me, long? session) =>
        Write(
            me,
            t =>
            {
                SessionStore.EndAll(t, me.Id, session);
                t.Log(AccountUseCases.Of("All other browsers signed out"));
            }
        );

    /// <summary>Chooses a password by a link, which ends with it; all browsers are signed out.</summary>
    /// <exception cref="NotPossibleException">The link is used, too old or none; or the password is not taken.</exception>
    public Account Enter(string link, string password, string? address)
    {
        var hash = Token.HashOf(link);
        var account = accounts.OfLink(hash, clock.GetUtcNow()) ?? throw Ended();
        var hashed = HashOf(account, password);
        return database.Write(
            account.Actor with
            {
                Address = address,
            },
            clock.GetUtcNow(),
            t =>
            {
                var me = AccountStore.OfLink(t, hash) ?? throw Ended();
                AccountStore.SetPassword(t, me.Id, hashed);
                SessionStore.EndAll(t, me.Id, null);
                t.Log(AccountUseCases.Of("Password chosen by a link"));
                return me;
            }
        );
    }

    /// <summary>Makes the account of whoever sets the house up; only while nobody can keep it.</summary>
    /// <exception cref="NotPossibleException">Somebody can, or the name or the password is not taken.</exception>
    public Account EnterFirst(string code, string name, string password, string? address)
    {
        var account = new Account(0, code, name.Trim(), Role.Administrator, [], [], Suspended: false);
        var hash = HashOf(account, password);
        return database.Write(
            account.Actor with
            {
                Address = address,
            },
            clock.GetUtcNow(),
            t =>
            {
                if (AccountStore.HasKeeper(t))
                    throw new NotPossibleException("The house has somebody who keeps it. Ask them for a link.");
                // One who was invited and never came, or who lost the way in.
                if (AccountStore.Find(t, code) is { } waiting)
                    AccountStore.Remove(t, waiting.Id);
                AccountUseCases.CheckNew(t, account);
                var id = AccountStore.Add(t, account);
                AccountStore.SetPassword(t, id, hash);
                t.Log(AccountUseCases.Of(Message.Of("First account: {account}", Value.Text("account", code))));
                return account with { Id = id };
            }
        );
    }

    /// <exception cref="NotPossibleException">It is not taken.</exception>
    private string HashOf(Account account, string password)
    {
        string[] known = [account.Code, .. account.Name.Split(' '), "pyrometron"];
        return PasswordRules.Refuse(password, known, passwords.IsCommon) is { } why
            ? throw new NotPossibleException(why)
            : passwords.Hash(password);
    }

    private void CheckPassword(SignedIn me, string password)
    {
        // Whoever found a browser that is signed in guesses no faster than a stranger.
        var source = FormattableString.Invariant($"again {me.Id}");
        if (
            accounts.Mistakes(source) is { } made
            && made.Last + SignInPace.Wait(made.Count) - clock.GetUtcNow() is { Ticks: > 0 } wait
        )
            throw new NotPossibleException(
                Message.Of(
                    "After several mistakes the next attempt counts in {wait}.",
                    Value.Seconds("wait", Math.Ceiling(wait.TotalSeconds))
                )
            );
        var isRight = accounts.Secrets(me.Id).Password is { } hash && passwords.Verify(hash, password) != PasswordMatch.Wrong;
        Write(
            me,
            t =>
            {
                if (isRight)
                    AccountStore.ForgetMistakes(t, source);
                else
                {
                    AccountStore.NoteMistake(t, source);
                    t.Log(new Change("sign-in", "The password, asked for again, was not right"));
                }
            }
        );
        if (!isRight)
            throw new NotPossibleException("The password is not right. Nothing was changed.");
    }

    private static NotPossibleException Ended() =>
        new("This link is used or has ended. Ask whoever keeps the house's accounts for a new one.");

    private void Write(SignedIn me, Action<Transaction> work) => database.Write(me.Actor, clock.GetUtcNow(), work);
}
