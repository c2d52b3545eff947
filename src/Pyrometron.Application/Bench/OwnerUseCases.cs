using Pyrometron.Core.Jobs;
using Pyrometron.Storage;

namespace Pyrometron.Application.Bench;

/// <summary>What owners of machines say of work on them.</summary>
public sealed class OwnerUseCases(Database database, TimeProvider clock)
{
    /// <summary>Notes what a machine's owner says themselves: whether it may be opened. What else was agreed stays.</summary>
    /// <param name="machines">The tags of the owner's machines.</param>
    /// <exception cref="NotThereException">There is no such job on a machine of theirs.</exception>
    /// <exception cref="NotPossibleException">The rules do not allow it as things stand.</exception>
    public void Agree(Actor actor, IReadOnlyCollection<string> machines, long id, bool mayOpen) =>
        database.Write(
            actor.Allowed(Right.LookAtOwn),
            clock.GetUtcNow(),
            t =>
            {
                if (JobStore.Find(t, id) is not { } row || !machines.Contains(row.Tag))
                    throw Missing.Job(id);
                var order = JobStore.Job(t, row).Order ?? new OrderAgreed(mayOpen ? "To be opened" : "Not to be opened");
                BenchUseCases.Append(
                    t,
                    row,
                    new EntryToAppend(
                        Guid.NewGuid(),
                        row.Version,
                        "owner's page",
                        actor.Name,
                        null,
                        order with
                        {
                            Owner = actor.Name,
                            MayOpen = mayOpen,
                        }
                    )
                );
            }
        );
}
