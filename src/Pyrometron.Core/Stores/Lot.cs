namespace Pyrometron.Core.Stores;

/// <summary>Why the amount of a lot changed.</summary>
public enum StockMoveKind
{
    CameIn,

    /// <summary>A job used it.</summary>
    Used,

    /// <summary>Somebody counted what is there.</summary>
    Counted,

    ThrownAway,

    /// <summary>Pads were cut from it.</summary>
    Cut,

    /// <summary>What was left over from cutting.</summary>
    OffCut,
}

/// <summary>A change of a lot's amount.</summary>
/// <param name="Amount">In the product's unit; negative for what left.</param>
/// <param name="Job">The job that used it; null for none.</param>
/// <param name="By">Who; empty where nobody said.</param>
/// <param name="Note">Somebody's words, or one of the words below.</param>
public sealed record StockMove(StockMoveKind Kind, double Amount, DateTimeOffset At, long? Job, string By, string? Note)
{
    /// <summary>The job noted no amount: the usual one stands for it.</summary>
    public const string UsualAmount = "usual-amount";

    /// <summary>The job noted more than the lot held: it is to be counted.</summary>
    public const string MoreThanThere = "more-than-there";
}

/// <summary>One tube, bottle, box, or a pile of sheets of one size, that came in together.</summary>
/// <param name="Product">Code of its product.</param>
/// <param name="Place">Where it stands.</param>
/// <param name="ExpiresOn">As printed on it; null for what its product tells.</param>
/// <param name="PricePerUnit">What a unit of it cost; null where nobody said.</param>
/// <param name="WidthMm">Of its sheets, where it is of pads; off-cuts are smaller than their product's.</param>
/// <param name="BadBecause">Why it is not to be used any more; null where nothing is wrong with it.</param>
/// <param name="Amount">What is left: the sum of its moves.</param>
public sealed record Lot(
    long Id,
    string Product,
    string? Batch,
    string Place,
    DateOnly CameOn,
    DateOnly? OpenedOn,
    DateOnly? ExpiresOn,
    double? PricePerUnit,
    double? WidthMm,
    double? HeightMm,
    string? BadBecause,
    double Amount
)
{
    /// <summary>The last day on which it may be used; null where nothing is known to age it.</summary>
    public DateOnly? LastDay(Product product)
    {
        var dates = new[]
        {
            ExpiresOn ?? (product.Facts.ShelfMonths is { } shelf ? CameOn.AddMonths(shelf) : null),
            product.Facts.OpenMonths is { } open ? OpenedOn?.AddMonths(open) : null,
        };
        return dates.Min();
    }

    /// <summary>Whether it is too old on a day.</summary>
    public bool IsExpired(Product product, DateOnly day) => LastDay(product) < day;

    /// <summary>An amount of this lot in units of its product: an off-cut is the share of a whole sheet that it is.</summary>
    public double InUnits(Product product, double amount) =>
        SheetMm2 > 0 && product.SheetMm2 > 0 ? amount * SheetMm2 / product.SheetMm2 : amount;

    /// <summary>The area of one of its sheets, mm².</summary>
    public double SheetMm2 => (WidthMm ?? 0) * (HeightMm ?? 0);
}
