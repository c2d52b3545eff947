using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Procedures;

namespace Pyrometron.Core.Tests.Procedures;

public class ModelNotesTests
{
    private static readonly DateTimeOffset Start = new(2026, 3, 2, 9, 0, 0, TimeSpan.Zero);

    private static Job With(params Counted[] counts) =>
        new(
            new JobHead(
                1,
                "LT-1",
                FrozenCard.Deal(new(AssetKind.Laptop, ServiceLevel.DustOut, ModelNotes.Empty("Gannet"), BenchSchools.Default), 0),
                Start,
                []
            ),
            counts.Select((c, i) => new StampedEntry(Guid.NewGuid(), i + 2, "phone", null, Start, c))
        );

    [Fact]
    public void Screws_of_one_length_and_bit_share_a_compartment_of_the_tray()
    {
        Assert.Equal("4 mm PH1", new Screw(1, ScrewPlace.Cover, 0, 0, 4, "PH1").Tray);
        Assert.Equal("2.5 mm T5", ModelNotes.TrayOf(2.5, "T5"));
        Assert.NotEqual(ModelNotes.TrayOf(4, "PH1"), ModelNotes.TrayOf(4, "PH0"));
    }

    [Fact]
    public void The_cooler_is_tightened_by_the_numbers_beside_its_screws_or_crosswise()
    {
        Screw At(int n, double x, double y, int? order = null) => new(n, ScrewPlace.Cooler, x, y, 6, "PH1", order);
        var crosswise = ModelNotes.Empty("x") with
        {
            Screws = [new(1, ScrewPlace.Cover, 5, 5, 4, "PH1"), At(2, 0, 0), At(3, 40, 0), At(4, 40, 40), At(5, 0, 40)],
        };
        Assert.Equal([2, 4], crosswise.CoolerScrewsInOrder.Take(2).Select(s => s.Number));
        var numbered = crosswise with { Screws = [At(2, 0, 0, 4), At(3, 40, 0, 1), At(4, 40, 40, 3), At(5, 0, 40, 2)] };
        Assert.Equal([3, 5, 4, 2], numbered.CoolerScrewsInOrder.Select(s => s.Number));
    }

    [Fact]
    public void What_people_drew_is_never_overwritten_by_a_job()
    {
        var drawn = ModelNotes.Empty("Gannet") with
        {
            Screws = [new(1, ScrewPlace.Cover, 20, 20, 5, "PH0")],
            Connectors = [new("Battery", ConnectorKind.Battery)],
        };
        Assert.Same(
            drawn,
            LearntNotes.From(
                drawn,
                With(new Counted(CountOf.Screws, "8 mm PH0", 5, 5), new Counted(CountOf.Connectors, "fan lead", 2, 2))
            )
        );
    }

    [Fact]
    public void What_is_learnt_keeps_lengths_bits_and_kinds_as_far_as_they_were_told()
    {
        var learnt = LearntNotes.From(
            ModelNotes.Empty("Gannet"),
            With(
                new Counted(CountOf.Screws, "8 mm PH0", 1, 1),
                new Counted(CountOf.Screws, "the odd one", 1, 1),
                new Counted(CountOf.Screws, "2.5 mm T5 long", 1, 1),
                new Counted(CountOf.Screws, "6 mm PH0", 0, 0),
                new Counted(CountOf.Connectors, "Display ribbon", 1, 1),
                new Counted(CountOf.Connectors, "left fan", 1, 1),
                new Counted(CountOf.Connectors, "something", 1, 1)
            )
        );
        Assert.Equal([(2.5, "T5 long"), (8, "PH0"), (5, "one")], learnt.Screws.Select(s => (s.LengthMm, s.Driver)));
        Assert.Equal([ConnectorKind.Display, ConnectorKind.FanLead, ConnectorKind.Data], learnt.Connectors.Select(c => c.Kind));
        Assert.Equal([1, 2, 3], learnt.Screws.Select(s => s.Number));
        Assert.Empty(learnt.Problems());
    }

    [Fact]
    public void However_small_the_plan_learnt_screws_stay_on_it()
    {
        var tiny = ModelNotes.Empty("x") with { WidthMm = 20, HeightMm = 15 };
        var learnt = LearntNotes.From(tiny, With(new Counted(CountOf.Screws, "4 mm PH1", 40, 40)));
        Assert.Equal(40, learnt.Screws.Count);
        Assert.Empty(learnt.Problems());
    }

    [Fact]
    public void A_job_that_counted_nothing_teaches_nothing()
    {
        var notes = ModelNotes.Empty("x");
        Assert.Same(notes, LearntNotes.From(notes, With()));
    }

    [Theory]
    [InlineData(9, 100, "/widthMm")]
    [InlineData(100, 2001, "/widthMm")]
    [InlineData(double.NaN, 100, "/widthMm")]
    public void A_plan_has_a_size_that_can_be(double width, double height, string pointer) =>
        Assert.Contains(
            pointer,
            (ModelNotes.Empty("x") with { WidthMm = width, HeightMm = height }).Problems().Select(p => p.Pointer)
        );

    [Fact]
    public void A_test_needs_what_makes_it_comparable()
    {
        var test = new TestProtocol("full", 20, Core.Events.FanMode.Fixed, 100, "stock", null);
        IEnumerable<string> Wrong(TestProtocol p) =>
            (ModelNotes.Empty("x") with { Protocol = p }).Problems().Select(x => x.Pointer);
        Assert.Empty(Wrong(test));
        foreach (
            var wrong in (TestProtocol[])
                [
                    test with
                    {
                        Load = "",
                    },
                    test with
                    {
                        Minutes = 0,
                    },
                    test with
                    {
                        Minutes = double.NaN,
                    },
                    test with
                    {
                        FanPercent = 101,
                    },
                    test with
                    {
                        Settings = "",
                    },
                    test with
                    {
                        Position = new string('x', 201),
                    },
                ]
        )
            Assert.Equal(["/protocol"], Wrong(wrong));
    }
}
