using Pyrometron.Core.Materials;
using Pyrometron.Core.Stores;
using static Pyrometron.Core.Tests.Stores.Shelves;

namespace Pyrometron.Core.Tests.Stores;

/// <summary>Who gets what: a job takes all that it needs or waits and takes nothing.</summary>
public sealed class SupplyTests
{
    [Fact]
    public void The_first_job_is_served_first()
    {
        var supply = Supply.Of(
            With([Paste], Of(Paste, 1, 0.7)),
            [Job("A", Today, PasteNeed(0.4)), Job("B", Today, PasteNeed(0.4)), Job("C", Today, PasteNeed(0.3))]
        );
        Assert.Equal([1, 0, 1], supply.Select(s => s.Takes.Count));
        Assert.Equal(0.4, Assert.Single(supply[1].Missing).Amount);
    }

    [Fact]
    public void A_job_that_waits_takes_nothing()
    {
        var pad = Pad(1.5);
        var supply = Supply.Of(
            With([Paste, pad], Of(Paste, 1, 0.4)),
            [Job("A", Today, PasteNeed(0.4), PadNeed(1.5, 8)), Job("B", Today, PasteNeed(0.4))]
        );
        Assert.Empty(supply[0].Takes);
        Assert.Equal(ProductKind.Pads, Assert.Single(supply[0].Missing).Kind);
        Assert.Single(supply[1].Takes);
    }

    [Fact]
    public void What_is_open_and_expires_first_goes_first_and_a_need_may_take_from_two()
    {
        var old = Of(Paste, 1, 0.3) with { OpenedOn = Today.AddDays(-10) };
        var supply = Supply.Of(With([Paste], Of(Paste, 2, 5), old), [Job("A", Today, PasteNeed(0.4))]);
        Assert.Equal([(1L, 0.3), (2L, 0.1)], supply[0].Takes.Select(t => (t.Lot.Id, Math.Round(t.Amount, 9))));
    }

    [Fact]
    public void Expired_and_bad_lots_serve_nobody()
    {
        var shelf = With(
            [Paste],
            Of(Paste, 1, 5) with
            {
                ExpiresOn = Today.AddDays(-1),
            },
            Of(Paste, 2, 5) with
            {
                BadBecause = "lumps",
            }
        );
        Assert.Single(Supply.Of(shelf, [Job("A", Today, PasteNeed(0.4))])[0].Missing);
    }

    [Fact]
    public void Opened_it_keeps_for_less_long()
    {
        var lot = Of(Paste, 1, 5);
        Assert.Equal(Today.AddDays(-30).AddMonths(24), lot.LastDay(Paste));
        Assert.Equal(Today.AddMonths(10), (lot with { OpenedOn = Today.AddMonths(-2) }).LastDay(Paste));
        Assert.False((lot with { ExpiresOn = Today }).IsExpired(Paste, Today));
        Assert.True((lot with { ExpiresOn = Today }).IsExpired(Paste, Today.AddDays(1)));
    }

    [Fact]
    public void Pads_are_of_their_own_thickness_and_fit_their_sheet()
    {
        var (thin, small) = (Pad(1.0), Pad(1.5, width: 13, height: 13));
        var shelf = With([thin, small], Of(thin, 1, 5), Of(small, 2, 5));
        Assert.Single(Supply.Of(shelf, [Job("A", Today, PadNeed(1.5, 2))])[0].Missing);
    }

    [Fact]
    public void Pads_that_lie_ready_are_not_taken_from_sheets()
    {
        var pad = Pad(1.5);
        var shelf = With([pad], Of(pad, 1, 1)) with { CutPads = new Dictionary<(string, double), int> { [("A", 1.5)] = 8 } };
        var supply = Supply.Of(shelf, [Job("A", Today, PadNeed(1.5, 8)), Job("B", Today, PadNeed(1.5, 8))]);
        Assert.Empty(supply[0].Takes);
        Assert.Empty(supply[0].Missing);
        Assert.Single(supply[1].Takes);
    }

    [Fact]
    public void A_fan_is_for_its_model_and_small_things_count_where_they_are_kept()
    {
        var fan = Fan("Teal");
        var shelf = With([fan], Of(fan, 1, 2));
        var job = Job("A", Today, Need.Of(ProductKind.Fan, 1), Need.Of(ProductKind.Wipes, 4));
        Assert.Equal(ProductKind.Fan, Assert.Single(Supply.Of(shelf, [job])[0].Missing).Kind);
        Assert.Empty(Supply.Of(shelf, [job with { Model = "Teal" }])[0].Missing);
    }

    [Fact]
    public void What_nobody_noted_is_told_and_not_missing()
    {
        var supply = Supply.Of(
            With([Paste], Of(Paste, 1, 5)),
            [Job("A", Today, new Need(ProductKind.Pads, 0, null, [], Known: false), PasteNeed(0.4))]
        );
        Assert.True(supply[0].Unknown);
        Assert.Single(supply[0].Takes);
    }
}
