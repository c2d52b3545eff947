using Pyrometron.Core.Messages;
using Pyrometron.Storage;

namespace Pyrometron.Application.Access;

/// <summary>Takes people's names out of the house when they ask for it; what they did stays.</summary>
public sealed class ErasureUseCases(Database database, TimeProvider clock)
{
    /// <summary>Takes a name out, with the account, sign-ins and what somebody is told of.</summary>
    /// <exception cref="NotThereException">Nobody is called so.</exception>
    /// <exception cref="NotPossibleException">It is one's own name, or nobody would be left who keeps the house.</exception>
    public ErasedName Erase(Actor actor, string name)
    {
        actor.AllowedEverywhere(Right.KeepHouse);
        if (actor is { Kind: ActorKind.Person } && actor.Name == name)
            throw new NotPossibleException(
                "This is your own name. Somebody else who keeps the house can erase it when you have gone."
            );
        if (NameErasure.Names(database).All(n => n.Name != name))
            throw new NotThereException(Message.Of("Nobody here is called '{name}'.", Value.Text("name", name)));
        return database.Write(
            actor,
            clock.GetUtcNow(),
            t =>
            {
                var hadAccount = AccountStore.All(t).Any(a => a.Name == name);
                var erased = NameErasure.Erase(t, name);
                if (hadAccount)
                    AccountUseCases.CheckKept(t);
                t.Log(
                    AccountUseCases.Of(
                        Message.Of(
                            "The name of a person was erased: {as} stands in its place. {lines} of this log were written anew",
                            Value.Text("as", erased.As),
                            Value.Counted("lines", (int)erased.Lines, "line")
                        )
                    ) with
                    {
                        Before = erased.Hash is { } hash ? $"the last hash before: {hash}" : null,
                    }
                );
                return erased;
            }
        );
    }
}
