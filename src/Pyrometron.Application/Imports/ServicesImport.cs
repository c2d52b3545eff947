using Pyrometron.Application.Fleet;
using Pyrometron.Core.Fleet;
using Pyrometron.Formats.Csv;
using Pyrometron.Storage;

namespace Pyrometron.Application.Imports;

/// <summary>Takes one services file: all its good lines in one transaction.</summary>
public sealed class ServicesImport(FleetStore fleet, FleetUseCases useCases, TimeProvider clock)
{
    /// <summary>Runs the import to its end.</summary>
    /// <param name="mostListed">How many refused lines the answer lists.</param>
    /// <exception cref="NotAllowedException">The actor may not.</exception>
    /// <exception cref="Formats.RefusedInputException">It is no services file at all.</exception>
    public ImportAnswer Run(Actor actor, Stream file, int mostListed, CsvDelimiter delimiter, CancellationToken cancellation)
    {
        var known = fleet.All().ToDictionary(a => a.Asset.Tag, a => a.RetiredOn);
        var tally = new Tally(mostListed);
        var good = new List<(string, ServiceDone)>();
        var today = DateOnly.FromDateTime(clock.GetUtcNow().UtcDateTime);
        foreach (var line in ServicesCsv.Read(file, known.ContainsKey, today, delimiter))
        {
            cancellation.ThrowIfCancellationRequested();
            if (line.Problem is { } problem)
                tally.Refuse(line.Line, problem.Column, problem.Says);
            else
            {
                good.Add((line.Asset, line.Service!));
                if (known[line.Asset] is { } on)
                    tally.NoteRetired(line.Asset, on);
            }
        }
        tally.Accepted = useCases.AddServices(actor, good, cancellation);
        tally.Duplicates = good.Count - tally.Accepted;
        return tally.Answer([]);
    }
}
