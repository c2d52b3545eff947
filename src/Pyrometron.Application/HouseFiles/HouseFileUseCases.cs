using System.Text;
using Pyrometron.Formats.Csv;
using Pyrometron.Formats.Fleet;
using Pyrometron.Storage;
using Pyrometron.Storage.HouseFiles;

namespace Pyrometron.Application.HouseFiles;

/// <summary>Takes all that a house knows along in one file of open formats.</summary>
public sealed class HouseFileUseCases(Database database, FleetStore fleet, ReadingStore readings, TimeProvider clock)
{
    /// <summary>
    /// Writes a house file: all tables as JSON lines and the photos, from which an empty house becomes an equal one; besides the
    /// fleet and the readings in the forms in which this program takes them in, for other programs.
    /// </summary>
    /// <param name="stream">Is written from its beginning to its end, and left open.</param>
    /// <param name="tell">Told in words how far it is.</param>
    public HouseManifest Export(Actor actor, Stream stream, Action<string> tell, CancellationToken cancellation)
    {
        var now = clock.GetUtcNow();
        database.Write(
            actor.AllowedEverywhere(Right.KeepHouse),
            now,
            t => t.Log(new Change("export", "All that the house knows was taken along in a file"))
        );
        using var writer = new HouseWriter(stream);
        writer.AddTables(database, tell, cancellation);
        writer.Add("fleet.json", to => FleetDocument.Write(to, fleet.Register()));
        writer.Add("readings.csv", to => WriteReadings(to, cancellation));
        tell("fleet and readings for other programs");
        return writer.Finish(now);
    }

    private void WriteReadings(Stream stream, CancellationToken cancellation)
    {
        var machines = fleet.All();
        var csv = new ReadingsCsvWriter(
            [.. machines.SelectMany(m => m.Asset.Parts.Select(p => p.Name)).Distinct().Order(StringComparer.Ordinal)],
            readings.MostFans()
        );
        using var writer = new StreamWriter(stream, new UTF8Encoding(false), leaveOpen: true);
        writer.Write(csv.Header());
        foreach (var machine in machines)
        {
            string[] parts = [.. machine.Asset.Parts.Select(p => p.Name)];
            foreach (var reading in readings.All(machine))
            {
                cancellation.ThrowIfCancellationRequested();
                writer.Write(csv.Record(machine.Asset.Tag, parts, reading));
            }
        }
    }
}
