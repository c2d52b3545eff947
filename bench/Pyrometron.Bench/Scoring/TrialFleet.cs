using Pyrometron.Core.Fleet;
using Pyrometron.Core.Readings;
using Pyrometron.Formats;
using Pyrometron.Formats.Csv;
using Pyrometron.Formats.Fleet;

namespace Pyrometron.Bench.Scoring;

/// <summary>A trial fleet read straight from its files.</summary>
internal sealed record TrialFleet(
    Register Register,
    Dictionary<string, List<Reading>> Readings,
    DateOnly AsOf,
    Dictionary<string, Truth> Truth
)
{
    /// <summary>The fleet document of a folder.</summary>
    public static Register RegisterOf(string folder) =>
        FleetDocument.Read(File.ReadAllBytes(Path.Combine(folder, "fleet.json")), DateOnly.MaxValue.AddDays(-1)).Register;

    public static TrialFleet Load(string folder)
    {
        var register = RegisterOf(folder);
        var parts = register.Assets.ToDictionary(a => a.Tag, a => (IReadOnlyList<string>)[.. a.Parts.Select(p => p.Name)]);
        var (asOf, truth) = Scoring.Truth.Load(Path.Combine(folder, "truth.json"));
        var readings = register.Assets.ToDictionary(a => a.Tag, _ => new List<Reading>());
        using var file = File.OpenRead(Path.Combine(folder, "readings.csv.gz"));
        using var spool = GzipSpool.TakeAsync(file, Path.GetTempPath(), CancellationToken.None).GetAwaiter().GetResult();
        foreach (var line in new ReadingsCsv(parts.GetValueOrDefault, DateTimeOffset.UtcNow).Read(spool.Open()))
            readings[line.Asset].Add(line.Reading ?? throw new InvalidDataException(line.Problem?.Says.ToString()));
        return new TrialFleet(register, readings, asOf, truth);
    }
}
