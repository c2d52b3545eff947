using CsCheck;
using Pyrometron.Core.Cutting;
using Pyrometron.Core.Materials;
using Pyrometron.Core.Stores;
using static Pyrometron.Core.Tests.Stores.Shelves;

namespace Pyrometron.Core.Tests.Stores;

/// <summary>What to buy, at least cost and in time.</summary>
public sealed class ShoppingTests
{
    private static IReadOnlyList<ShoppingLine> List(Shelf shelf, params JobAhead[] jobs) =>
        ShoppingList.Of(shelf, jobs, new GreedyCutter(), CancellationToken.None);

    private static Product Pack(string code, double amount, double? price) =>
        Paste with
        {
            Code = code,
            Pack = new(amount, price, 3),
        };

    /// <summary>10 g: three tubes of 4 for 24, or one of 12 for 20.</summary>
    [Fact]
    public void A_large_pack_where_it_is_cheaper()
    {
        var buy = PackChoice.Cheapest([Pack("small", 4, 8), Pack("large", 12, 20)], 10);
        Assert.Equal(("large", 1), (Assert.Single(buy).Product.Code, buy[0].Packs));
    }

    /// <summary>14 g: one of 12 and one of 4 for 28; two of 12 cost 40, four of 4 cost 32.</summary>
    [Fact]
    public void Packs_of_two_sizes_together()
    {
        var buy = PackChoice.Cheapest([Pack("small", 4, 8), Pack("large", 12, 20)], 14);
        Assert.Equal([("small", 1), ("large", 1)], buy.Select(b => (b.Product.Code, b.Packs)));
    }

    [Fact]
    public void Without_prices_the_fewest_packs_and_no_cost()
    {
        var buy = Assert.Single(PackChoice.Cheapest([Pack("small", 4, null), Pack("large", 12, null)], 10));
        Assert.Equal(("large", 1, null), (buy.Product.Code, buy.Packs, buy.Cost));
    }

    /// <summary>Against trying every number of packs.</summary>
    [Fact]
    public void No_other_packs_cost_less() =>
        Gen.Select(Gen.Int[1, 12], Gen.Int[1, 30], Gen.Int[1, 12], Gen.Int[1, 30], Gen.Int[1, 60])
            .Sample(
                (a, priceA, b, priceB, needed) =>
                {
                    var buy = PackChoice.Cheapest([Pack("a", a, priceA), Pack("b", b, priceB)], needed);
                    Assert.True(buy.Sum(p => p.Packs * p.Product.Pack.Amount) >= needed);
                    var least = (
                        from i in Enumerable.Range(0, 61)
                        from j in Enumerable.Range(0, 61)
                        where (i * a) + (j * b) >= needed
                        select (double)((i * priceA) + (j * priceB))
                    ).Min();
                    Assert.Equal(least, buy.Sum(p => p.Cost!.Value), 9);
                },
                iter: 300
            );

    [Fact]
    public void Nothing_is_bought_for_what_is_there() =>
        Assert.Empty(List(With([Paste], Of(Paste, 1, 4)), Job("A", Today, PasteNeed(0.4))));

    [Fact]
    public void Ordered_so_that_it_is_there_for_the_first_job_that_misses_it()
    {
        var line = Assert.Single(
            List(
                With([Paste], Of(Paste, 1, 0.5)),
                Job("A", Today, PasteNeed(0.4)),
                Job("B", Today.AddDays(9), PasteNeed(0.4)),
                Job("C", Today.AddDays(2), PasteNeed(0.4))
            )
        );
        Assert.Equal(0.7, line.Missing, 9);
        Assert.Equal((Today.AddDays(2), Today.AddDays(-1)), (line.NeededOn, line.OrderBy));
        Assert.Equal(["B", "C"], line.For);
        Assert.Equal(8, line.Cost);
    }

    /// <summary>40 pads of 14 × 12 mm: 58 come from a sheet of 100 × 100 (reference sheet, 12.6), so one sheet does.</summary>
    [Fact]
    public void Pads_are_bought_by_a_plan_of_cuts()
    {
        var pad = Pad(1.5);
        var line = Assert.Single(List(With([pad]), Job("A", Today, PadNeed(1.5, 40))));
        Assert.Equal((40, 1), (line.Pieces, Assert.Single(line.Buy).Packs));
    }

    [Fact]
    public void Pads_of_the_product_whose_sheets_cost_least()
    {
        var (dear, cheap) = (Pad(1.5, price: 30), Pad(1.5, price: 9, width: 60, height: 60));
        var line = Assert.Single(List(With([dear, cheap]), Job("A", Today, PadNeed(1.5, 30))));
        Assert.Equal((cheap.Code, 2, 18.0), (line.Buy[0].Product.Code, line.Buy[0].Packs, line.Cost));
    }

    [Fact]
    public void Two_thicknesses_and_a_pack_for_a_few_pads_are_said()
    {
        var (thin, thick) = (Pad(1.0), Pad(2.0));
        var lines = List(With([thin, thick]), Job("A", Today, PadNeed(1.0, 40), PadNeed(2.0, 2)));
        Assert.Equal(2, lines.Count);
        Assert.Contains(lines[1].Notes, n => n.ToString().StartsWith("A whole pack for 2 pads", StringComparison.Ordinal));
        Assert.All(
            lines,
            l => Assert.Contains(l.Notes, n => n.ToString().StartsWith("A cooler takes 2", StringComparison.Ordinal))
        );
    }

    [Fact]
    public void A_thickness_that_is_not_to_be_had_says_so_and_offers_no_thicker_one()
    {
        var line = Assert.Single(List(With([Pad(2.0)], Of(Pad(2.0), 1, 9)), Job("A", Today, PadNeed(1.5, 4))));
        Assert.Empty(line.Buy);
        Assert.Null(line.Cost);
        Assert.Contains(line.Notes, n => n.ToString().Contains("Never take a thicker one", StringComparison.Ordinal));
    }

    [Fact]
    public void Below_its_line_it_is_bought_though_no_job_waits()
    {
        var line = Assert.Single(List(With([Paste with { LowAt = 6 }], Of(Paste, 1, 4))));
        Assert.Equal((2.0, ProductKind.Paste), (line.Missing, line.Kind));
        Assert.Null(line.OrderBy);
    }

    /// <summary>A quarter of a sheet is left over: it is not a sheet.</summary>
    [Fact]
    public void An_off_cut_counts_as_the_share_of_a_sheet_that_it_is()
    {
        var pad = Pad(1) with { LowAt = 1 };
        var offCut = Of(pad, 1, 1) with { WidthMm = 50, HeightMm = 50 };
        var shelf = With([pad], offCut);
        Assert.Equal(0.25, shelf.Usable(pad), 9);
        Assert.Single(List(shelf));
        Assert.Empty(List(With([pad], Of(pad, 1, 1))));
    }
}
