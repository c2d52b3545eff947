using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;
using Pyrometron.Storage;

namespace Pyrometron.Application.Access;

/// <summary>Accounts as whoever keeps the house changes them.</summary>
public sealed class AccountUseCases(Database database, TimeProvider clock)
{
    /// <summary>A link counts this long.</summary>
    public static readonly TimeSpan LinkLife = TimeSpan.FromDays(7);

    /// <summary>Adds an account; its person comes in by a link.</summary>
    /// <returns>The token of the link; nobody can read it again.</returns>
    /// <exception cref="NotPossibleException">The name is taken, or one that reads alike.</exception>
    public string Add(Actor actor, Account account) =>
        Write(
            actor.AllowedEverywhere(Right.KeepHouse),
            t =>
            {
                CheckNew(t, account);
                var id = AccountStore.Add(t, account);
                t.Log(
                    Of(Message.Of("Account {account} added: {role}", Value.Text("account", account.Code), RoleOf(account))) with
                    {
                        After = Told(account),
                    }
                );
                return GiveLink(t, account with { Id = id });
            }
        );

    /// <summary>Changes what an account is called and may.</summary>
    /// <param name="account">Its number is not looked at: the code tells which.</param>
    /// <exception cref="NotThereException">There is no such account.</exception>
    /// <exception cref="NotPossibleException">Nobody would be left who keeps the house, or the name is taken.</exception>
    public void Change(Actor actor, Account account) =>
        Write(
            actor.AllowedEverywhere(Right.KeepHouse),
            t =>
            {
                var before = Find(t, account.Code);
                var after = account with { Id = before.Id };
                CheckNew(t, after);
                AccountStore.Update(t, after);
                CheckKept(t);
                if (after.Suspended)
                    SessionStore.EndAll(t, after.Id, null);
                t.Log(
                    Of(Message.Of("Account {account} changed: {role}", Value.Text("account", after.Code), RoleOf(after))) with
                    {
                        Before = Told(before),
                        After = Told(after),
                    }
                );
            }
        );

    /// <summary>Removes an account. What its person did keeps their name.</summary>
    /// <exception cref="NotThereException">There is no such account.</exception>
    /// <exception cref="NotPossibleException">Nobody would be left who keeps the house.</exception>
    public void Remove(Actor actor, string code) =>
        Write(
            actor.AllowedEverywhere(Right.KeepHouse),
            t =>
            {
                var account = Find(t, code);
                AccountStore.Remove(t, account.Id);
                CheckKept(t);
                t.Log(Of(Message.Of("Account {account} removed", Value.Text("account", code))) with { Before = Told(account) });
            }
        );

    /// <summary>Gives out a new link by which a person chooses a password; the one before it ends.</summary>
    /// <returns>The token of the link; nobody can read it again.</returns>
    /// <exception cref="NotThereException">There is no such account.</exception>
    public string GiveLink(Actor actor, string code) =>
        Write(
            actor.AllowedEverywhere(Right.KeepHouse),
            t =>
            {
                var account = Find(t, code);
                t.Log(Of(Message.Of("New link for the account {account}", Value.Text("account", code))));
                return GiveLink(t, account);
            }
        );

    /// <summary>Signs an account out everywhere.</summary>
    /// <exception cref="NotThereException">There is no such account.</exception>
    public void SignOut(Actor actor, string code) =>
        Write(
            actor.AllowedEverywhere(Right.KeepHouse),
            t =>
            {
                SessionStore.EndAll(t, Find(t, code).Id, null);
                t.Log(Of(Message.Of("Account {account} signed out everywhere", Value.Text("account", code))));
            }
        );

    /// <summary>Signs one browser out, whosoever it is: a phone that is lost.</summary>
    /// <exception cref="NotThereException">It is signed out already.</exception>
    public void EndSession(Actor actor, long id) =>
        Write(
            actor.AllowedEverywhere(Right.KeepHouse),
            t =>
            {
                var whose = SessionStore.OwnerOf(t, id) ?? throw new NotThereException("This browser is not signed in any more.");
                SessionStore.End(t, whose.Id, id);
                t.Log(Of(Message.Of("A browser of {account} signed out", Value.Text("account", whose.Code))));
            }
        );

    /// <summary>Takes the second factor of somebody away who has lost it and the recovery codes too.</summary>
    /// <exception cref="NotThereException">There is no such account.</exception>
    public void TakeSecondFactor(Actor actor, string code) =>
        Write(
            actor.AllowedEverywhere(Right.KeepHouse),
            t =>
            {
                var account = Find(t, code);
                AccountStore.SetTotp(t, account.Id, null, []);
                SessionStore.EndAll(t, account.Id, null);
                t.Log(Of(Message.Of("Second factor of {account} taken away", Value.Text("account", code))));
            }
        );

    private static string GiveLink(Transaction t, Account account)
    {
        var token = Token.Make();
        AccountStore.GiveLink(t, account.Id, Token.HashOf(token), t.Now + LinkLife);
        return token;
    }

    /// <summary>Refuses an account that cannot be, or could be taken for another one.</summary>
    internal static void CheckNew(Transaction t, Account account)
    {
        if ((AccountNames.RefuseCode(account.Code) ?? AccountNames.RefuseName(account.Name)) is { } why)
            throw new NotPossibleException(why);
        var alike = AccountNames.Alike(account.Name);
        foreach (var other in AccountStore.All(t).Where(a => a.Id != account.Id))
            if (other.Code == account.Code)
                throw new NotPossibleException(
                    Message.Of("There is an account {account} already.", Value.Text("account", account.Code))
                );
            else if (AccountNames.Alike(other.Name) == alike)
                throw new NotPossibleException(
                    Message.Of(
                        "The account {account} has this name: nobody could tell who did what. Add something to it.",
                        Value.Text("account", other.Code)
                    )
                );
        var sites = SiteStore.All(t).Select(s => s.Code).ToHashSet();
        if (account.Sites.FirstOrDefault(s => !sites.Contains(s)) is { } unknown)
            throw new NotPossibleException(Message.Of("There is no site '{site}'.", Value.Text("site", unknown)));
        if (account.Role == Role.Owner != account.Machines.Count > 0)
            throw new NotPossibleException("An owner needs machines that are theirs; nobody else has some.");
        if (account.Machines.FirstOrDefault(m => FleetStore.Find(t, m) is null) is { } stranger)
            throw Bench.Missing.Machine(stranger);
        if (account.Role == Role.Administrator && account.Sites.Count > 0)
            throw new NotPossibleException("Whoever keeps the house keeps all of it: an administrator has no sites.");
    }

    /// <summary>Somebody who can sign in must be left who lets others in.</summary>
    internal static void CheckKept(Transaction t)
    {
        if (
            !AccountStore
                .All(t)
                .Any(a =>
                    a is { Role: Role.Administrator, Suspended: false } && AccountStore.Secrets(t, a.Id).Password is not null
                )
        )
            throw new NotPossibleException(
                "Nobody who can sign in would be left to keep the house. Make somebody else an administrator first."
            );
    }

    internal static Account Find(Transaction t, string code) =>
        AccountStore.Find(t, code)
        ?? throw new NotThereException(Message.Of("There is no account '{account}'.", Value.Text("account", code)));

    internal static Change Of(Message says) => new("account", says);

    private static MessageValue RoleOf(Account account) => Value.Word("role", account.Role);

    private static string Told(Account a) =>
        string.Join(
            "; ",
            (string[])
                [
                    a.Name,
                    Words.Of(a.Role),
                    .. a.Sites.Count > 0 ? [string.Join(" ", a.Sites)] : (string[])[],
                    .. a.Machines,
                    .. a.Suspended ? ["suspended"] : (string[])[],
                ]
        );

    private void Write(Actor actor, Action<Transaction> work) => database.Write(actor, clock.GetUtcNow(), work);

    private T Write<T>(Actor actor, Func<Transaction, T> work) => database.Write(actor, clock.GetUtcNow(), work);
}
