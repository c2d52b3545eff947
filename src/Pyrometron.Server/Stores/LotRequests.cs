using Pyrometron.Core.Messages;
using Pyrometron.Core.Stores;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Weeks;

namespace Pyrometron.Server.Stores;

/// <summary>A lot that comes onto the shelf.</summary>
/// <param name="Product">Code of its product.</param>
/// <param name="Amount">In the unit of its product, above 0 to 100,000.</param>
/// <param name="CameOn">Today where missing.</param>
/// <param name="PricePerUnit">That of its product where missing.</param>
/// <param name="WidthMm">Of its sheets, where they are smaller than the product's.</param>
public sealed record NewLot(
    string? Product,
    double? Amount,
    string? Batch,
    string? Place,
    DateOnly? CameOn,
    DateOnly? OpenedOn,
    DateOnly? ExpiresOn,
    double? PricePerUnit,
    double? WidthMm,
    double? HeightMm
);

/// <summary>What is known of a lot besides its amount; all of it is replaced.</summary>
/// <param name="BadBecause">Why it is not to be used any more; null where nothing is wrong with it.</param>
public sealed record LotChange(
    string? Batch,
    string? Place,
    DateOnly? OpenedOn,
    DateOnly? ExpiresOn,
    double? PricePerUnit,
    string? BadBecause
);

/// <summary>What somebody counted.</summary>
/// <param name="Amount">0 to 100,000, in the unit of the product.</param>
public sealed record CountedAmount(double? Amount, string? Note, string? By);

/// <summary>What is thrown away.</summary>
public sealed record ThrownAway(double? Amount, string? Reason);

/// <summary>Reads what was sent about lots.</summary>
internal sealed class LotReader : RequestReader
{
    private const int LongestText = 80,
        LongestReason = 300;

    private const double MostPrice = 100_000,
        LargestMm = 2_000;

    private static readonly DateOnly First = new(1980, 1, 1),
        Last = new(2100, 1, 1);

    /// <summary>A new lot; null where anything is wrong with it.</summary>
    /// <param name="product">Its product; null where there is none of that code.</param>
    public Lot? Read(NewLot sent, Product? product, DateOnly today)
    {
        if (product is null)
            Wrong("/product", $"product is needed: the code of one that the stores keep; there is no '{sent.Product}'", 0);
        if (sent.Amount is not (> 0 and <= Application.Stores.StoresUseCases.MostAmount))
            Wrong("/amount", "amount must lie above 0 and up to 100000", 0);
        var size = ((double?, double?))(product?.Facts.SheetWidthMm, product?.Facts.SheetHeightMm);
        if (sent.WidthMm is not null || sent.HeightMm is not null)
        {
            if (sent is not { WidthMm: >= 1 and <= LargestMm, HeightMm: >= 1 and <= LargestMm })
                Wrong("/widthMm", $"widthMm and heightMm are both needed, 1 to {LargestMm} mm", 0);
            size = (sent.WidthMm, sent.HeightMm);
        }
        if (sent.CameOn > today)
            Wrong("/cameOn", "cameOn cannot be in the future", 0);
        var lot = new Lot(
            0,
            sent.Product ?? "",
            Optional("/batch", sent.Batch),
            Place(sent.Place),
            Day("/cameOn", sent.CameOn) ?? today,
            Day("/openedOn", sent.OpenedOn),
            Day("/expiresOn", sent.ExpiresOn),
            Price(sent.PricePerUnit) ?? product?.PricePerUnit,
            size.Item1,
            size.Item2,
            null,
            sent.Amount ?? 0
        );
        return Problems.Count == 0 ? lot : null;
    }

    /// <summary>What is known of a lot; null where anything is wrong with it.</summary>
    public Application.Stores.LotFacts? Read(LotChange sent)
    {
        var facts = new Application.Stores.LotFacts(
            Optional("/batch", sent.Batch),
            Place(sent.Place),
            Day("/openedOn", sent.OpenedOn),
            Day("/expiresOn", sent.ExpiresOn),
            Price(sent.PricePerUnit),
            sent.BadBecause is null ? null : Reason("/badBecause", sent.BadBecause)
        );
        return Problems.Count == 0 ? facts : null;
    }

    /// <summary>Why something is done.</summary>
    public string Reason(string at, string? sent) =>
        Texts.IsLine(sent, LongestReason)
            ? sent!.Trim()
            : Wrong(at, $"{Member(at)} is needed: {LongestReason} characters at most, on one line", "");

    /// <summary>A text that may be missing.</summary>
    public string? Optional(string at, string? sent) =>
        string.IsNullOrWhiteSpace(sent) ? null
        : Texts.IsLine(sent, LongestText) ? sent.Trim()
        : Wrong(at, $"{Member(at)} is {LongestText} characters at most, on one line", "");

    private string Place(string? sent) =>
        Texts.IsLine(sent, LongestText)
            ? sent!.Trim()
            : Wrong("/place", $"place is needed: where it stands, {LongestText} characters at most", "");

    private double? Price(double? sent) =>
        sent is null or (>= 0 and <= MostPrice)
            ? sent
            : Wrong("/pricePerUnit", $"pricePerUnit must be a number from 0 to {MostPrice}", (double?)null);

    private DateOnly? Day(string at, DateOnly? sent) =>
        sent is null || (sent >= First && sent <= Last)
            ? sent
            : Wrong(at, (Message)$"{Member(at)} must be a day from {First} to {Last}", (DateOnly?)null);
}
