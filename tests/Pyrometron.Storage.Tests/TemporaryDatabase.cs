using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Procedures;
using Pyrometron.Core.Readings;

namespace Pyrometron.Storage.Tests;

/// <summary>A database in a folder of its own that goes with the test, with a small fleet when asked for.</summary>
internal sealed class TemporaryDatabase : IDisposable
{
    private readonly DirectoryInfo _folder = Directory.CreateTempSubdirectory("pyrometron-");

    public TemporaryDatabase(bool withFleet = true)
    {
        Database = Database.Open(Path);
        if (withFleet)
            Import(Register());
    }

    public string Path => System.IO.Path.Combine(_folder.FullName, "pyrometron.db");

    public string Folder => _folder.FullName;

    public Database Database { get; private set; }

    public FleetStore Fleet => new(Database);

    public ReadingStore Readings => new(Database);

    public ServiceStore Services => new(Database);

    public JobStore Jobs => new(Database);

    public static Register Register(params Part[] parts) =>
        new(
            [
                new Site(
                    "S",
                    "Site",
                    10,
                    [new Zone("Z", "Zone", DustClass.Normal, new(30)), new Zone("Y", "Yard", DustClass.Heavy, new(35))]
                ),
            ],
            [
                new Asset(
                    "GC-1",
                    AssetKind.GraphicsCard,
                    "Sorrel",
                    "Z",
                    null,
                    24,
                    new(2024, 1, 1),
                    new(2027, 1, 1),
                    parts.Length > 0
                        ? parts
                        : [new("core", new(90), JointMaterial.Paste), new("memory", new(105), JointMaterial.Pad)],
                    [new(new(2025, 10, 1), ServiceLevel.DustOut)]
                ),
                new Asset(
                    "PC-1",
                    AssetKind.Desktop,
                    "Petrel",
                    "Z",
                    "GC-1",
                    8,
                    new(2024, 1, 1),
                    null,
                    [new("cpu", new(95), JointMaterial.Paste)],
                    []
                ),
            ]
        );

    public static Reading Reading(long minute, params double[] parts) =>
        new(
            1_775_000_000_000 + minute * 60_000,
            24.5,
            double.NaN,
            220,
            1800,
            60,
            double.NaN,
            double.NaN,
            double.NaN,
            "stock",
            "full",
            null,
            parts
        );

    public static Actor Actor { get; } = Actor.Of("M. Larkspur", "");

    public T Write<T>(Func<Transaction, T> work) => Database.Write(Actor, DateTimeOffset.UtcNow, work);

    public void Write(Action<Transaction> work) => Database.Write(Actor, DateTimeOffset.UtcNow, work);

    /// <summary>Imports a fleet and logs what it changed.</summary>
    public FleetChange Import(Register register) => Write(t => FleetStore.Import(t, register));

    public long Id(string tag) => Fleet.Find(tag)!.Id;

    /// <summary>Starts a job on a card of its own.</summary>
    public long? Start(string tag, ServiceLevel level, Prediction? predicted = null)
    {
        var asset = Fleet.Find(tag)!;
        var card = FrozenCard.Deal(
            new CardBasis(asset.Asset.Kind, level, ModelNotes.Empty(asset.Asset.Model), BenchSchools.Default),
            0
        );
        return Write(t => JobStore.Start(t, new NewJob(asset.Id, level, null, null, predicted, card)));
    }

    public List<ReadingFate> Send(string tag, params Reading[] readings)
    {
        var fates = new List<ReadingFate>();
        Write(t =>
            ReadingStore.Add(
                t,
                [.. readings.Select(r => (tag, r))],
                FleetStore.All(t).ToDictionary(a => a.Asset.Tag),
                (_, fate) => fates.Add(fate)
            )
        );
        return fates;
    }

    public void Reopen()
    {
        Database.Dispose();
        Database = Database.Open(Path);
    }

    public void Dispose()
    {
        Database.Dispose();
        _folder.Delete(recursive: true);
    }
}
