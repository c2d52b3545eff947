using Pyrometron.Application.Fleet;
using Pyrometron.Core.Fleet;
using Pyrometron.Formats;
using Pyrometron.Formats.Tables;
using Pyrometron.Storage;

namespace Pyrometron.Application.Imports;

/// <summary>What became of a table of machines, or would become in a dry run.</summary>
/// <param name="Refused">Lines that were left out.</param>
public sealed record TableTaken(
    IReadOnlyList<TableColumn> Columns,
    int Created,
    int Updated,
    int Unchanged,
    IReadOnlyList<InputProblem> Refused,
    IReadOnlyList<InputQuestion> Questions,
    IReadOnlyList<TableDefault> Defaults,
    IReadOnlyList<Asset> Preview
);

/// <summary>Tables of machines coming in.</summary>
public sealed class TableUseCases(Database database, FleetStore fleet, FleetUseCases machines, TimeProvider clock)
{
    private const int Previewed = 8;

    /// <summary>Takes a table, or shows what it would do.</summary>
    /// <param name="headers">Field of each header that somebody settles now.</param>
    /// <param name="words">Meaning of each word that somebody settles now.</param>
    /// <exception cref="RefusedInputException">It is no table of machines.</exception>
    public TableTaken Take(
        Actor actor,
        byte[] bytes,
        IReadOnlyDictionary<string, MachineField> headers,
        IReadOnlyDictionary<string, string> words,
        bool dryRun,
        CancellationToken cancellation
    )
    {
        actor.AllowedEverywhere(Right.KeepMachines);
        var today = DateOnly.FromDateTime(clock.GetUtcNow().UtcDateTime);
        var said = new TableMeanings(Headers(headers), WordsOf(words));
        var table = MachineTable.Read(TableText.Of(bytes), said, today);
        if (!table.HasTags && !dryRun)
            throw new RefusedInputException(table.LacksTags);
        cancellation.ThrowIfCancellationRequested();
        var here = fleet.Register();
        var import = new TableImport(here, today);
        var register = import.Make(table.Machines, said.Words);
        var (created, updated, unchanged) = dryRun
            ? Compare(here, register)
            : Store(actor, register, headers, words, cancellation);
        return new TableTaken(
            table.Columns,
            created,
            updated,
            unchanged,
            [
                .. table.HasTags ? (InputProblem[])[] : [table.LacksTags],
                .. table.Refused.Concat(import.Refused).OrderBy(r => r.Line),
            ],
            [.. table.Questions, .. import.Questions],
            import.Defaults,
            [.. register.Assets.Take(Previewed)]
        );
    }

    private (int Created, int Updated, int Unchanged) Store(
        Actor actor,
        Register register,
        IReadOnlyDictionary<string, MachineField> headers,
        IReadOnlyDictionary<string, string> words,
        CancellationToken cancellation
    )
    {
        var change = machines.Import(actor, register, cancellation);
        if (headers.Count + words.Count > 0)
            database.Write(
                actor,
                clock.GetUtcNow(),
                t =>
                {
                    TableMeaningStore.Keep(
                        t,
                        TableMeaningStore.MachineHeader,
                        headers.ToDictionary(h => TableMeanings.KeyOf(h.Key), h => Words.Of(h.Value))
                    );
                    TableMeaningStore.Keep(
                        t,
                        TableMeaningStore.MachineWord,
                        words.ToDictionary(w => TableMeanings.KeyOf(w.Key), w => w.Value)
                    );
                }
            );
        return (change.Created, change.Updated, change.Unchanged);
    }

    private static (int, int, int) Compare(Register here, Register there)
    {
        var known = here.Assets.ToDictionary(a => a.Tag);
        var (created, updated) = (0, 0);
        foreach (var asset in there.Assets)
            if (known.GetValueOrDefault(asset.Tag) is not { } before)
                created++;
            else if (!FleetStore.Same(before, asset))
                updated++;
        return (created, updated, there.Assets.Count - created - updated);
    }

    /// <summary>What is settled now, over what was settled before.</summary>
    private Dictionary<string, MachineField> Headers(IReadOnlyDictionary<string, MachineField> now)
    {
        var all = new Dictionary<string, MachineField>();
        foreach (var (text, meaning) in TableMeaningStore.Of(database, TableMeaningStore.MachineHeader))
            if (Words.TryRead<MachineField>(meaning, out var field))
                all[text] = field;
        foreach (var (header, field) in now)
            all[TableMeanings.KeyOf(header)] = field;
        return all;
    }

    private Dictionary<string, string> WordsOf(IReadOnlyDictionary<string, string> now)
    {
        var all = TableMeaningStore.Of(database, TableMeaningStore.MachineWord).ToDictionary();
        foreach (var (word, meaning) in now)
            all[TableMeanings.KeyOf(word)] = meaning;
        return all;
    }
}
