using Pyrometron.Core.Fleet;
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
            Fleet.Import(Register());
    }

    public string Path => System.IO.Path.Combine(_folder.FullName, "pyrometron.db");

    public string Folder => _folder.FullName;

    public Database Database { get; private set; }

    public FleetStore Fleet => new(Database, TimeProvider.System);

    public ReadingStore Readings => new(Database, TimeProvider.System);

    public ServiceStore Services => new(Database, TimeProvider.System);

    public JobStore Jobs => new(Database, TimeProvider.System);

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

    public List<ReadingFate> Send(string tag, params Reading[] readings)
    {
        var fates = new List<ReadingFate>();
        Readings.Add(
            [.. readings.Select(r => (tag, r))],
            Fleet.All().ToDictionary(a => a.Asset.Tag),
            (_, fate) => fates.Add(fate),
            default
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
