using Pyrometron.Core.Messages;
using Pyrometron.Storage;

namespace Pyrometron.Application.Imports;

/// <summary>Imports after they were made.</summary>
public sealed class ImportUseCases(Database database, TimeProvider clock)
{
    /// <summary>Undoes an import as a whole.</summary>
    /// <exception cref="NotThereException">There is no such import.</exception>
    /// <exception cref="NotPossibleException">It was undone already, or something was built on it.</exception>
    public void Undo(Actor actor, long id) =>
        database.Write(
            actor.AllowedEverywhere(Right.KeepMachines),
            clock.GetUtcNow(),
            t =>
            {
                var import =
                    ImportStore.Find(t, id)
                    ?? throw new NotThereException(Message.Of("There is no import {import}.", Value.Count("import", id)));
                if (import.UndoneAt is not null)
                    throw new NotPossibleException("This import was undone already.");
                if (ImportUndo.Obstacle(t, import) is { } obstacle)
                    throw new NotPossibleException(
                        Message.Of("It cannot be undone: {obstacle}", Value.List("obstacle", "", [obstacle]))
                    );
                ImportUndo.Run(t, import);
                // Without a machine of its own it touches the whole fleet.
                t.Log(
                    new Change("import", Message.Of("Import undone: {kind}", Value.Word("kind", import.Kind)))
                    {
                        After = "undone",
                    }
                );
            }
        );
}
