using Pyrometron.Core.Messages;
using Pyrometron.Storage;

namespace Pyrometron.Application.Access;

/// <summary>Keys of programs: given out, renewed, ended, and recognised.</summary>
public sealed class KeyUseCases(Database database, KeyStore keys, TimeProvider clock)
{
    /// <summary>By which a key is told from other secrets, also where somebody looks for those left lying about.</summary>
    public const string Prefix = "pyrometron_";

    private const int ShownLength = 6,
        LongestName = 60;

    /// <summary>After a renewal the key before counts for so long: programs are not all told at once.</summary>
    private static readonly TimeSpan Overlap = TimeSpan.FromDays(1);

    /// <summary>Gives a program a key.</summary>
    /// <param name="until">When it ends; null for never.</param>
    /// <returns>The key; nobody can read it again.</returns>
    /// <exception cref="NotPossibleException">The name is taken or none.</exception>
    public string Add(Actor actor, string name, KeyScope scope, DateTimeOffset? until) =>
        database.Write(
            actor.AllowedEverywhere(Right.KeepHouse),
            clock.GetUtcNow(),
            t =>
            {
                if (AccountNames.RefuseName(name) is { } why)
                    throw new NotPossibleException(why);
                if (name.Length > LongestName)
                    throw new NotPossibleException($"A program's name has {LongestName} characters at most.");
                if (until <= t.Now)
                    throw new NotPossibleException("It would have ended already: choose a later day.");
                var key = Make();
                if (!KeyStore.Add(t, name, scope, until, Begins(key), Token.HashOf(key)))
                    throw new NotPossibleException(Message.Of("There is a key for {name} already.", Value.Text("name", name)));
                t.Log(
                    AccountUseCases.Of(
                        Message.Of("Key for {name}: {scope}", Value.Text("name", name), Value.Word("scope", scope))
                    )
                );
                return key;
            }
        );

    /// <summary>Makes a new key for the same program; the one before counts for another day.</summary>
    /// <returns>The key; nobody can read it again.</returns>
    /// <exception cref="NotThereException">There is no such key.</exception>
    public string Renew(Actor actor, long id) =>
        database.Write(
            actor.AllowedEverywhere(Right.KeepHouse),
            clock.GetUtcNow(),
            t =>
            {
                var known = Find(t, id);
                var key = Make();
                KeyStore.Renew(t, id, Begins(key), Token.HashOf(key), t.Now + Overlap);
                t.Log(AccountUseCases.Of(Message.Of("Key for {name} renewed", Value.Text("name", known.Name))));
                return key;
            }
        );

    /// <summary>Ends a key at once.</summary>
    /// <exception cref="NotThereException">There is no such key.</exception>
    public void Remove(Actor actor, long id) =>
        database.Write(
            actor.AllowedEverywhere(Right.KeepHouse),
            clock.GetUtcNow(),
            t =>
            {
                var known = Find(t, id);
                KeyStore.Remove(t, id);
                t.Log(AccountUseCases.Of(Message.Of("Key for {name} ended", Value.Text("name", known.Name))));
            }
        );

    /// <summary>The key that a program shows, while it counts; that it is in use is noted once an hour.</summary>
    public ApiKey? Recognise(string shown, string address)
    {
        var now = clock.GetUtcNow();
        if (!shown.StartsWith(Prefix, StringComparison.Ordinal) || keys.Find(Token.HashOf(shown), now) is not { } key)
            return null;
        if (key.UsedAt is not { } used || now - used > TimeSpan.FromHours(1) || key.UsedFrom != address)
            database.Write(Actor.Program, now, t => KeyStore.See(t, key.Id, address));
        return key;
    }

    private static ApiKey Find(Transaction t, long id) =>
        KeyStore.Find(t, id) ?? throw new NotThereException(Message.Of("There is no key {key}.", Value.Count("key", id)));

    private static string Make() => Prefix + Token.Make();

    /// <summary>How a key begins, which is no secret; null for a text that is none.</summary>
    public static string? BeginOf(string shown) =>
        shown.StartsWith(Prefix, StringComparison.Ordinal) && shown.Length > 2 * (Prefix.Length + ShownLength)
            ? Begins(shown)
            : null;

    private static string Begins(string key) => key[..(Prefix.Length + ShownLength)];
}
