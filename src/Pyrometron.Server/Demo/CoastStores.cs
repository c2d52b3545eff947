using Pyrometron.Application.Stores;
using Pyrometron.Core.Materials;
using Pyrometron.Core.Stores;
using Pyrometron.Storage;

namespace Pyrometron.Server.Demo;

/// <summary>What stands on the institute's shelf: enough for most of the work ahead, not for all of it.</summary>
/// <param name="today">The day the demo is laid.</param>
internal sealed class CoastStores(DateOnly today)
{
    private const string Hemlock = "hemlock-8",
        Alder = "alder-11";

    private static readonly Product[] Products =
    [
        new(
            Hemlock,
            ProductKind.Paste,
            "Hemlock 8",
            new(8.5, 2.6, Viscosity.Medium, PasteNature.NonConducting, ShelfMonths: 36, OpenMonths: 24),
            new(4, 7, 3),
            [],
            6
        ),
        new(
            Alder,
            ProductKind.Paste,
            "Alder 11",
            new(11, 2.9, Viscosity.Thick, PasteNature.Capacitive, NeedsWarming: true, ShelfMonths: 24, OpenMonths: 12),
            new(10, 19, 5),
            []
        ),
        new(
            "sedge-metal",
            ProductKind.Paste,
            "Sedge metal",
            new(38, 6.4, Viscosity.Thin, PasteNature.LiquidMetal, NotOnAluminium: true, ShelfMonths: 24),
            new(1, 12, 10),
            []
        ),
        Pad("1-0", 1.0, 100, 100, 9),
        Pad("1-5", 1.5, 120, 85, 10),
        Pad("2-0", 2.0, 100, 100, 11),
        Pad("2-5", 2.5, 100, 100, 13),
        new("marl-putty", ProductKind.Putty, "Marl putty", new(6, 3.1, ShelfMonths: 18, OpenMonths: 9), new(30, 12, 5), []),
        new("alcohol-99", ProductKind.Alcohol, "Alcohol 99 %", new(StrengthPercent: 99), new(1000, 9, 2), [], 200),
        new("brine-remover", ProductKind.Remover, "Brine remover, two bottles", new(ShelfMonths: 36), new(60, 8, 4), []),
        new("wipes", ProductKind.Wipes, "Lint-free wipes", new(), new(100, 6, 2), [], 40),
        new("fan-80", ProductKind.Fan, "Fan 80 mm", new(), new(1, 14, 12), [CoastModels.Sorrel.Name], 1),
        new("fan-90", ProductKind.Fan, "Fan 90 mm", new(), new(1, 16, 12), [CoastModels.Bladder.Name]),
    ];

    /// <summary>Lays it, each lot on the day it came.</summary>
    public void Lay(Database database, TimeProvider clock)
    {
        var first = new StoresUseCases(database, new PastClock(clock.GetUtcNow().AddDays(-200)));
        foreach (var product in Products)
            first.Keep(Actor.Program, product);
        foreach (var (daysAgo, lot) in Lots)
            new StoresUseCases(database, new PastClock(clock.GetUtcNow().AddDays(-daysAgo))).Add(Actor.Program, lot);
    }

    /// <summary>
    /// Counts it once the jobs of the past have used what they used. Of the thickness that every card takes a strip is left: no
    /// card can get new pads before more has come.
    /// </summary>
    public static void Count(Database database, TimeProvider clock)
    {
        var mira = Actor.Of("Mira", "");
        var stores = new StoresUseCases(database, new PastClock(clock.GetUtcNow().AddDays(-2)));
        stores.Count(mira, 10, 140, null);
        stores.Count(mira, 5, 0.05, "a strip");
    }

    /// <summary>The paste of a job of the past.</summary>
    public static (string Name, string Batch, long Lot) PasteOn(int daysAgo) =>
        daysAgo > 20 ? ("Hemlock 8", "H-2231", 1) : ("Alder 11", "A-0907", 2);

    private IEnumerable<(int DaysAgo, Lot Lot)> Lots =>
        [
            (190, Lot(Hemlock, 8, "H-2231", "drawer 2", opened: 100)),
            (60, Lot(Alder, 10, "A-0907", "drawer 2", opened: 40)),
            (150, Lot("pad-1-0", 2, "P10-4", "box A")),
            (150, Lot("pad-1-5", 3, "P15-7", "box A")),
            (150, Lot("pad-2-0", 3, "P20-2", "box A")),
            (90, Lot("pad-2-5", 1, "P25-1", "box A")),
            (300, Lot("marl-putty", 20, "M-118", "cold shelf", opened: 280)),
            (100, Lot("alcohol-99", 700, null, "metal cabinet", opened: 90)),
            (100, Lot("brine-remover", 50, null, "metal cabinet", opened: 90)),
            (100, Lot("wipes", 160, null, "drawer 1")),
            (80, Lot("fan-80", 2, null, "shelf 3")),
        ];

    private Lot Lot(string product, double amount, string? batch, string place, int? opened = null)
    {
        var of = Products.Single(p => p.Code == product);
        return new(
            0,
            product,
            batch,
            place,
            today.AddDays(-(opened ?? 60) - 10),
            opened is { } days ? today.AddDays(-days) : null,
            null,
            of.PricePerUnit,
            of.Facts.SheetWidthMm,
            of.Facts.SheetHeightMm,
            null,
            amount
        );
    }

    private static Product Pad(string code, double thickness, double width, double height, double price) =>
        new(
            $"pad-{code}",
            ProductKind.Pads,
            FormattableString.Invariant($"Kelpmat 13, {thickness:0.0} mm"),
            new(12.8, 3.2, ThicknessMm: thickness, SheetWidthMm: width, SheetHeightMm: height, MostCompression: 0.3),
            new(1, price, 5),
            []
        );
}
