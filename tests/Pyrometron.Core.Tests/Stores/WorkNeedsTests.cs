using Pyrometron.Core.Fleet;
using Pyrometron.Core.Materials;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Procedures;
using Pyrometron.Core.Stores;

namespace Pyrometron.Core.Tests.Stores;

/// <summary>What a job takes follows from its card. Amounts are common practice, no source.</summary>
public sealed class WorkNeedsTests
{
    private static readonly ModelNotes Notes = ModelNotes.Empty("Heron") with
    {
        Pads = [new(1, "memory", 0, 0, 14, 12, 1.5), new(2, "memory", 20, 0, 12, 14, 1.5), new(3, "vrm", 40, 0, 10, 80, 2)],
        Fans = [new("left", true), new("rear", false)],
    };

    private static IReadOnlyList<Need> Of(
        ServiceLevel level,
        BenchSchools? schools = null,
        string? fan = null,
        ModelNotes? notes = null
    ) =>
        WorkNeeds.Of(
            new CardBasis(AssetKind.GraphicsCard, level, notes ?? Notes, schools ?? BenchSchools.Default, fan, HasPads: true),
            "Heron",
            UsedSoFar.Nothing
        );

    private static ProductKind[] Kinds(IReadOnlyList<Need> needs) => [.. needs.Select(n => n.Kind).Distinct()];

    [Fact]
    public void Nothing_for_air() => Assert.Empty(Of(ServiceLevel.BlowOut));

    /// <summary>A lifted cooler always gets new paste (common practice, no source).</summary>
    [Theory]
    [InlineData("left", false)]
    [InlineData("rear", true)]
    public void A_fan_that_takes_the_cooler_with_it_brings_paste(string fan, bool paste) =>
        Assert.Equal(paste, Kinds(Of(ServiceLevel.FanSwap, fan: fan)).Contains(ProductKind.Paste));

    [Fact]
    public void Pads_by_thickness_with_their_sizes()
    {
        var pads = Of(ServiceLevel.Repad).Where(n => n.Kind == ProductKind.Pads).ToList();
        Assert.Equal([(1.5, 2.0), (2.0, 1.0)], pads.Select(p => (p.ThicknessMm!.Value, p.Amount)));
        // Two that lie differently on the board are the same pad on the sheet.
        Assert.Equal(new PadCut(14, 12, 1.5, 2), Assert.Single(pads[0].Cuts));
    }

    [Fact]
    public void Pads_that_nobody_noted_are_unknown()
    {
        var pads = Of(ServiceLevel.Repad, notes: ModelNotes.Empty("Heron")).Single(n => n.Kind == ProductKind.Pads);
        Assert.False(pads.Known);
    }

    /// <summary>2 · 14 · 12 · 1.5 + 10 · 80 · 2 = 2,104 mm³ at 3 g/cm³.</summary>
    [Fact]
    public void A_house_that_uses_putty_takes_putty()
    {
        var needs = Of(ServiceLevel.Repad, BenchSchools.Default with { Pads = PadSchool.Putty });
        Assert.DoesNotContain(ProductKind.Pads, Kinds(needs));
        Assert.Equal(2.104 * 3, needs.Single(n => n.Kind == ProductKind.Putty).Amount, 6);
    }

    [Fact]
    public void The_house_s_own_jobs_tell_the_amount_where_there_are_three()
    {
        UsedByJob Used(string model, double grams) =>
            new(AssetKind.GraphicsCard, model, ServiceLevel.Repaste, MaterialKind.PasteGrams, grams);
        double Grams(params UsedByJob[] jobs) =>
            new UsedSoFar(jobs).Of(AssetKind.GraphicsCard, "Heron", ServiceLevel.Repaste, MaterialKind.PasteGrams, 0.4);
        Assert.Equal(0.4, Grams(Used("Heron", 1), Used("Heron", 1)));
        Assert.Equal(1, Grams(Used("Heron", 1), Used("Heron", 1), Used("Teal", 1)), 9);
        Assert.Equal(0.8, Grams(Used("Heron", 0.7), Used("Heron", 0.8), Used("Heron", 0.9), Used("Teal", 9)), 9);
    }

    [Fact]
    public void Prices_of_the_stores_replace_the_usual_cost()
    {
        Assert.Equal(4, Prices.Of([]).Of(ServiceLevel.Repaste));
        var costs = Prices.Of([Shelves.Paste, Shelves.Pad(1.5)]);
        // 0.4 g at 2 a gram; 2,300 mm² of a sheet of 10,000 at 10.
        Assert.Equal(0.8, costs.Of(ServiceLevel.Repaste), 9);
        Assert.Equal(3.1, costs.Of(ServiceLevel.Repad), 9);
        Assert.Equal(15, costs.Of(ServiceLevel.FanSwap));
        Assert.False(costs.IsKnown(ServiceLevel.FanSwap));
    }
}
