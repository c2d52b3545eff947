using Pyrometron.Core.Fleet;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Procedures;

namespace Pyrometron.Core.Tests.Procedures;

/// <summary>Cards of the jobs that make a machine's cooling another one: common practice, no source.</summary>
public class ChangeCardTests
{
    private static IReadOnlyList<CardStep> Card(AssetKind kind, ServiceLevel level, ModelNotes? notes = null) =>
        WorkCard.For(new(kind, level, notes ?? ModelNotes.Empty("Sorrel"), BenchSchools.Default));

    private static string[] InOrder(IReadOnlyList<CardStep> card, params string[] ids) =>
        [.. card.Select(s => s.Id).Where(ids.Contains)];

    [Fact]
    public void Another_cooler_is_checked_on_paper_before_the_old_one_comes_off_and_tried_dry_before_the_paste()
    {
        string[] order =
        [
            "cooler-fits",
            "power-off",
            "cooler-off",
            "paste-off",
            "frame-on",
            "dry-fit",
            "paste-on",
            "cooler-on",
            "tighten",
        ];
        var card = Card(AssetKind.Desktop, ServiceLevel.CoolerSwap);
        Assert.Equal(order, InOrder(card, order));
        Assert.Contains("The film on its face is off", card.Single(s => s.Id == "dry-fit").Gate);
        Assert.Contains("two passes", card.Single(s => s.Id == "paste-off").Do.ToString(), StringComparison.Ordinal);
        Assert.Contains("new cooler", card.Single(s => s.Id == "prepare").Do.ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public void Undervolting_opens_nothing_and_keeps_the_settings_as_they_were_first()
    {
        var card = Card(AssetKind.Laptop, ServiceLevel.Undervolt);
        Assert.Equal(
            ["owner-told", "settings-noted", "undervolt"],
            card.Select(s => s.Id).Order(StringComparer.Ordinal).ToArray()
        );
        Assert.Contains("The way back to them is known", card.Single(s => s.Id == "settings-noted").Gate);
        Assert.All(card.Where(s => s.Id != "owner-told"), s => Assert.NotEmpty(s.Cautions));
    }

    [Theory]
    [InlineData(AssetKind.Laptop, ServiceLevel.Stand, "stand")]
    [InlineData(AssetKind.Desktop, ServiceLevel.Filter, "filter")]
    [InlineData(AssetKind.Server, ServiceLevel.AddOnFan, "fan-on")]
    [InlineData(AssetKind.GraphicsCard, ServiceLevel.OtherPaste, "paste-kind")]
    [InlineData(AssetKind.GraphicsCard, ServiceLevel.OtherPads, "pad-kind")]
    public void Each_change_has_its_own_step_with_what_must_hold(AssetKind kind, ServiceLevel level, string step)
    {
        Assert.NotEmpty(Card(kind, level).Single(s => s.Id == step).Gate);
        // The step belongs to this job alone.
        Assert.DoesNotContain(Card(kind, ServiceLevel.Repaste), s => s.Id == step);
    }

    [Fact]
    public void Paste_of_another_kind_is_a_repaste_and_pads_of_another_kind_a_repad_with_a_look_at_the_sheet_first()
    {
        string[] Steps(ServiceLevel level) => [.. Card(AssetKind.GraphicsCard, level).Select(s => s.Id)];
        Assert.Equal(Steps(ServiceLevel.Repaste), Steps(ServiceLevel.OtherPaste).Where(s => s != "paste-kind"));
        Assert.Equal(Steps(ServiceLevel.Repad), Steps(ServiceLevel.OtherPads).Where(s => s != "pad-kind"));
    }

    [Fact]
    public void Each_plate_of_a_cooler_is_tightened_crosswise_by_itself_never_across_two()
    {
        Screw[] screws =
        [
            .. Enumerable.Range(1, 4).Select(n => new Screw(n, ScrewPlace.Cooler, n % 2 * 30, n / 3 * 30, 4, "PH1", Plate: 1)),
            .. Enumerable
                .Range(5, 4)
                .Select(n => new Screw(n, ScrewPlace.Cooler, 60 + n % 2 * 30, n / 7 * 30, 4, "PH1", Plate: 2)),
        ];
        var plates = Tightening.Plates(screws);
        Assert.Equal([1, 2], plates.Select(p => p.Select(s => s.Plate).Distinct().Single()!.Value));
        Assert.All(
            plates,
            plate =>
            {
                var ring = Tightening.Ring(plate).Select(s => s.Number).ToList();
                // Four screws cannot all avoid a neighbour: crosswise leaves a single step to one.
                Assert.Equal(
                    1,
                    plate
                        .Zip(plate.Skip(1))
                        .Count(p => Tightening.AreNeighbours(ring.IndexOf(p.First.Number), ring.IndexOf(p.Second.Number), 4))
                );
            }
        );
        var notes = ModelNotes.Empty("Sorrel") with { Screws = screws };
        var tighten = Card(AssetKind.GraphicsCard, ServiceLevel.Repaste, notes).Single(s => s.Id == "tighten");
        Assert.Contains("plate by plate", tighten.Do.ToString(), StringComparison.Ordinal);
        Assert.Equal(screws.Length, tighten.Order.Count);
        // The maker's numbers go before any of this.
        Assert.Single(Tightening.Plates([.. screws.Select(s => s with { Order = 9 - s.Number })]));
    }
}
