using Pyrometron.Core.Fleet;
using Pyrometron.Core.Materials;
using Pyrometron.Core.Stores;

namespace Pyrometron.Core.Tests.Stores;

/// <summary>A small invented shelf.</summary>
internal static class Shelves
{
    public static readonly DateOnly Today = new(2026, 12, 1);

    public static readonly Product Paste = new(
        "paste",
        ProductKind.Paste,
        "Teasel 7",
        new(7, 2.5, ShelfMonths: 24, OpenMonths: 12),
        new(4, 8, 3),
        []
    );

    public static Product Pad(double mm, double price = 10, double width = 100, double height = 100, int leadDays = 5) =>
        new(
            FormattableString.Invariant($"pad-{mm}-{width}"),
            ProductKind.Pads,
            "Sedge pad",
            new(12.8, ThicknessMm: mm, SheetWidthMm: width, SheetHeightMm: height),
            new(1, price, leadDays),
            []
        );

    public static Product Fan(string model) => new($"fan-{model}", ProductKind.Fan, "Fan", new(), new(1, 14, 10), [model]);

    public static Lot Of(Product product, long id, double amount) =>
        new(
            id,
            product.Code,
            "B1",
            "drawer",
            Today.AddDays(-30),
            null,
            null,
            product.PricePerUnit,
            product.Facts.SheetWidthMm,
            product.Facts.SheetHeightMm,
            null,
            amount
        );

    public static Shelf With(IEnumerable<Product> products, params Lot[] lots) =>
        new([.. products], lots, new Dictionary<(string, double), int>(), Today);

    public static JobAhead Job(string tag, DateOnly? day, params Need[] needs) =>
        new(tag, "Heron", ServiceLevel.Repad, AheadBy.Plan, day, null, null, needs);

    public static Need PasteNeed(double grams) => Need.Of(ProductKind.Paste, grams);

    public static Need PadNeed(double mm, int count, double width = 14, double height = 12) =>
        new(ProductKind.Pads, count, mm, [new PadCut(width, height, mm, count)]);
}
