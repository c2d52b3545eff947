using Pyrometron.Core.Fleet;
using Pyrometron.Core.Inspection;
using Pyrometron.Core.Materials;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Procedures;

namespace Pyrometron.Core.Tests.Procedures;

/// <summary>The order of the work and what belongs to it: common practice, no source, unless one is named.</summary>
public class WorkCardTests
{
    private static readonly ModelNotes Nothing = ModelNotes.Empty("Sorrel");

    private static CardBasis Basis(AssetKind kind = AssetKind.GraphicsCard, ServiceLevel level = ServiceLevel.Repaste) =>
        new(kind, level, Nothing, BenchSchools.Default, HasPads: true);

    private static string[] Ids(CardBasis basis) => [.. WorkCard.For(basis).Select(s => s.Id)];

    public static TheoryData<AssetKind, ServiceLevel> Cards()
    {
        var cards = new TheoryData<AssetKind, ServiceLevel>();
        foreach (var kind in Enum.GetValues<AssetKind>())
        foreach (var level in Enum.GetValues<ServiceLevel>())
            if (ServiceEffects.Suits(level, kind))
                cards.Add(kind, level);
        return cards;
    }

    [Theory]
    [MemberData(nameof(Cards))]
    public void Every_card_is_in_the_order_of_the_trade_made_safe_first_and_looked_at_before_it_is_closed(
        AssetKind kind,
        ServiceLevel level
    )
    {
        var steps = WorkCard.For(Basis(kind, level));
        Assert.Equal(steps.OrderBy(s => s.Stage), steps);
        Assert.Equal(steps.Count, steps.DistinctBy(s => s.Id).Count());
        var fromOutside = level is ServiceLevel.Undervolt or ServiceLevel.Stand or ServiceLevel.Filter;
        Assert.Equal(
            !fromOutside,
            steps.Any(s =>
                s.Id == "power-off" && s.Cautions.Any(c => c.Text.ToString().Contains("power supply", StringComparison.Ordinal))
            )
        );
        var opens = ServiceEffects.Opens(level);
        Assert.Equal(opens, steps.Any(s => s.Id == "boot-look" && !s.MayBeSkipped));
        Assert.Equal(ServiceEffects.LiftsCooler(level), steps.Any(s => s.Id == "paste-on"));
        Assert.Equal(kind == AssetKind.Laptop && opens, steps.Any(s => s.Id == "battery-out"));
        Assert.Equal(kind == AssetKind.Server && opens, steps.Any(s => s.Id == "lift"));
    }

    /// <summary>The rule that plans it for two stands on its card too, before anything is opened.</summary>
    [Theory]
    [InlineData(AssetKind.Server, ServiceLevel.DustOut, true)]
    [InlineData(AssetKind.Desktop, ServiceLevel.Repaste, true)]
    [InlineData(AssetKind.Server, ServiceLevel.BlowOut, false)]
    [InlineData(AssetKind.Server, ServiceLevel.Inspect, false)]
    public void Where_two_lift_a_machine_the_second_one_is_waited_for(AssetKind kind, ServiceLevel level, bool waits)
    {
        var basis = Basis(kind, level) with { TwoPeople = true };
        var opening = WorkCard.For(basis).Where(s => s.Stage == Stage.Open).ToList();
        Assert.Equal(waits, opening.FirstOrDefault()?.Id == "second-person");
        if (waits)
            Assert.Equal("Both are here", Assert.Single(opening[0].Gate).ToString());
        Assert.DoesNotContain("second-person", Ids(Basis(kind, level)));
    }

    [Fact]
    public void What_guards_a_person_or_a_joint_is_confirmed_one_by_one()
    {
        var steps = WorkCard.For(Basis(AssetKind.Laptop, ServiceLevel.Repad));
        string[] OneByOne(bool oneByOne) =>
            [.. steps.Where(s => s.Gate.Count > 0 && s.ConfirmedOneByOne == oneByOne).Select(s => s.Id)];
        Assert.Equal(["power-off", "battery-out", "pads-off", "paste-off", "alcohol-dry", "pads-on"], OneByOne(true));
        Assert.Equal(["owner-told", "leads-on", "boot-look", "screws-in"], OneByOne(false));
    }

    [Fact]
    public void A_lifted_cooler_always_brings_new_paste_on_clean_dry_faces()
    {
        var ids = Ids(Basis());
        string[] inOrder =
        [
            "cooler-off",
            "paste-off",
            "alcohol-dry",
            "paste-on",
            "cooler-on",
            "tighten",
            "leads-on",
            "boot-look",
            "screws-in",
        ];
        Assert.Equal(inOrder, Ids(Basis(AssetKind.Desktop)).Where(inOrder.Contains));
        // A card is whole before it goes back into its host, and is looked at there.
        Assert.Equal([.. inOrder[..7], "screws-in", "boot-look"], ids.Where(inOrder.Contains));
    }

    [Fact]
    public void A_fan_that_comes_off_alone_leaves_the_paste_and_one_that_does_not_brings_it()
    {
        var basis = Basis(level: ServiceLevel.FanSwap) with
        {
            Notes = Nothing with { Fans = [new("left", true), new("right", false)] },
        };
        Assert.DoesNotContain("paste-on", Ids(basis with { Fan = "left" }));
        Assert.Contains("paste-on", Ids(basis with { Fan = "right" }));
        Assert.Contains("paste-on", Ids(basis));
        Assert.DoesNotContain("paste-on", Ids(basis with { Notes = Nothing }));
    }

    [Fact]
    public void Battery_first_on_laptops_then_the_drain_of_fifteen_seconds()
    {
        var steps = WorkCard.For(Basis(AssetKind.Laptop, ServiceLevel.DustOut)).ToList();
        Assert.True(steps.FindIndex(s => s.Id == "battery-out") < steps.FindIndex(s => s.Id == "screws-out"));
        var drain = steps.Single(s => s.Id == "drain");
        Assert.Equal(new StepTimer("drain", 15, true), drain.Timer);
        Assert.False(drain.MayBeSkipped);
    }

    [Fact]
    public void Schools_change_the_card()
    {
        string Do(string id, BenchSchools schools) =>
            WorkCard.For(Basis() with { Schools = schools }).Single(s => s.Id == id).Do.ToString();
        Assert.Contains("thin line", Do("paste-on", new(Paste: PasteSchool.Line)));
        Assert.Contains("cross from corner", Do("paste-on", new(Paste: PasteSchool.Cross)));
        Assert.Contains("can", Do("blow", new(Air: AirSource.Can)));
        Assert.DoesNotContain("blow", Ids(Basis() with { Schools = new(Air: AirSource.BrushOnly) }));
        Assert.Contains(
            "brush-outside",
            Ids(Basis(level: ServiceLevel.BlowOut) with { Schools = new(Air: AirSource.BrushOnly) })
        );
        Assert.Contains("pads-keep", Ids(Basis()));
        Assert.Contains("pads-on", Ids(Basis() with { Schools = new(Pads: PadSchool.AlwaysRenew) }));
        Assert.Contains("pads-on", Ids(Basis() with { Schools = new(Extent: Extent.AllWhileOpen) }));
        Assert.DoesNotContain(
            "pads-on",
            Ids(Basis(level: ServiceLevel.DustOut) with { Schools = new(Extent: Extent.AllWhileOpen) })
        );
        Assert.Contains("putty", Do("pads-on", new(Pads: PadSchool.Putty, Extent: Extent.AllWhileOpen)));
    }

    /// <summary>T10: 99 % dries in seconds; 70 % works but must dry longer. Common practice, no source.</summary>
    [Fact]
    public void The_weaker_the_alcohol_the_longer_it_dries()
    {
        int Dry(AlcoholStrength strength) =>
            WorkCard.For(Basis() with { Schools = new(Alcohol: strength) }).Single(s => s.Id == "alcohol-dry").Timer!.Seconds;
        Assert.InRange(Dry(AlcoholStrength.Ninetynine), 5, 60);
        Assert.True(Dry(AlcoholStrength.NinetyPlus) > Dry(AlcoholStrength.Ninetynine));
        Assert.True(Dry(AlcoholStrength.Seventy) >= 2 * Dry(AlcoholStrength.NinetyPlus));
    }

    /// <summary>T11: soak 30–60 s; a cold joint is run 4–5 minutes first. Common practice, no source.</summary>
    [Fact]
    public void Soak_and_warm_up_take_their_time()
    {
        Assert.InRange(WorkCard.SoakSeconds, 30, 60);
        Assert.InRange(WorkCard.WarmUpSeconds / 60.0, 4, 5);
        Assert.All(WorkCard.For(Basis()).Where(s => s.Id is "warm-joint" or "paste-off"), s => Assert.False(s.Timer!.Required));
    }

    /// <summary>
    /// T12: rice to pea on a lidded processor; spread to 1–2 mm from the edge on a bare chip. Common practice, no source.
    /// </summary>
    [Fact]
    public void The_paste_pattern_follows_the_chip_where_the_model_says_nothing_else()
    {
        string Paste(ModelNotes notes) =>
            WorkCard.For(Basis() with { Notes = notes }).Single(s => s.Id == "paste-on").Do.ToString();
        Assert.Contains("rice and a pea", Paste(Nothing with { Chip = ChipKind.Lidded }));
        Assert.Contains("1–2 mm from its edge", Paste(Nothing with { Chip = ChipKind.Bare }));
        Assert.Contains("line along", Paste(Nothing with { Chip = ChipKind.Bare, Pattern = PastePattern.Line }));
    }

    /// <summary>T13: the thicknesses on sale, and the thinner rather than the thicker. Common practice, no source.</summary>
    [Fact]
    public void Pads_are_named_one_by_one_with_both_films_and_their_thickness()
    {
        var notes = Nothing with { Pads = [new(1, "memory", 10, 10, 12, 7, 1), new(2, "vrm", 60, 10, 10, 60, 1.5)] };
        var pads = WorkCard.For(Basis(level: ServiceLevel.Repad) with { Notes = notes }).Single(s => s.Id == "pads-on");
        Assert.Equal(
            ["Pad 1 (memory, 12 × 7 × 1 mm): both films off", "Pad 2 (regulators, 10 × 60 × 1.5 mm): both films off"],
            pads.Gate.Select(g => g.ToString())
        );
        Assert.Contains(pads.Cautions, c => c.Text.ToString().Contains("never a thicker", StringComparison.Ordinal));
        Assert.Contains("0.5, 1.0, 1.5, 2.0 and 3.0 mm", Outfit(Basis(level: ServiceLevel.Repad)));
        Assert.Contains("1.0 mm (× 1), 1.5 mm (× 1)", Outfit(Basis(level: ServiceLevel.Repad) with { Notes = notes }));
    }

    private static string Outfit(CardBasis basis) => WorkCard.For(basis).Single(s => s.Id == "prepare").Do.ToString();

    [Fact]
    public void Warranty_stops_the_screwdriver_unless_the_school_or_an_answer_lets_it()
    {
        var until = new DateOnly(2027, 5, 1);
        Assert.Contains("air only", new BenchSchools().RefusesUnderWarranty(ServiceLevel.DustOut, until)?.ToString());
        Assert.Contains(
            "ask its maker",
            new BenchSchools(Warranty: WarrantySchool.AskFirst).RefusesUnderWarranty(ServiceLevel.Repad, until)?.ToString()
        );
        Assert.Null(new BenchSchools(Warranty: WarrantySchool.OpenWhereAllowed).RefusesUnderWarranty(ServiceLevel.Repad, until));
        Assert.Null(new BenchSchools().RefusesUnderWarranty(ServiceLevel.BlowOut, until));
        var gate = WorkCard
            .For(Basis() with { UnderWarranty = true, WarrantyAnswer = "Seller agreed" })
            .Single(s => s.Id == "warranty");
        Assert.Contains("Seller agreed", gate.Do.ToString());
        Assert.False(gate.MayBeSkipped);
    }

    [Fact]
    public void Findings_change_the_card()
    {
        Assert.Contains(
            "fan-swap",
            Ids(Basis() with { Findings = new Dictionary<FindingSubject, string> { [FindingSubject.FanNoise] = "rattles" } })
        );
        Assert.DoesNotContain(
            "fan-swap",
            Ids(Basis() with { Findings = new Dictionary<FindingSubject, string> { [FindingSubject.FanNoise] = "hums" } })
        );
        Assert.Contains(
            "dry-out",
            Ids(Basis() with { Findings = new Dictionary<FindingSubject, string> { [FindingSubject.Liquid] = "wet" } })
        );
    }

    [Fact]
    public void Traps_and_earlier_deviations_are_told_at_their_step()
    {
        var steps = WorkCard.For(
            Basis() with
            {
                Notes = Nothing with { Traps = ["the long screw sits at the hinge"] },
                Deviations = ["paste instead of pads"],
            }
        );
        Assert.Contains(
            steps.Single(s => s.Id == "screws-out").Cautions,
            c => c.Text.ToString().Contains("hinge", StringComparison.Ordinal)
        );
        Assert.Contains(
            steps.Single(s => s.Id == "inspect").Cautions,
            c => c.Text.ToString().Contains("paste instead of pads", StringComparison.Ordinal)
        );
    }

    private static void InOrder(CardBasis basis, params string[] steps) => Assert.Equal(steps, Ids(basis).Where(steps.Contains));

    [Fact]
    public void A_joint_is_warmed_right_after_the_run_while_it_is_plugged_in()
    {
        InOrder(Basis(), "warm-joint", "prepare", "power-off", "cooler-off");
        Assert.DoesNotContain("warm-joint", Ids(Basis(level: ServiceLevel.DustOut)));
    }

    [Fact]
    public void Strap_seal_and_way_round_come_before_the_first_screw()
    {
        foreach (var kind in Enum.GetValues<AssetKind>())
            InOrder(Basis(kind), "ground", "seal", "way-round", "screws-out");
        InOrder(Basis(AssetKind.Laptop), "ground", "seal", "cover-off", "battery-out", "drain", "screws-out");
        Assert.All(
            Enum.GetValues<AssetKind>(),
            kind =>
                Assert.Contains(
                    WorkCard.For(Basis(kind)).Single(s => s.Id == "screws-in").Gate,
                    g => g.ToString().Contains("way round")
                )
        );
    }

    [Fact]
    public void Old_pads_are_measured_and_gone_before_the_paste_faces_are_clean()
    {
        InOrder(Basis(level: ServiceLevel.Repad), "inspect-joint", "pads-off", "paste-off", "alcohol-dry", "pads-on", "paste-on");
        InOrder(Basis(), "pads-shield", "blow", "paste-off", "pads-keep");
        Assert.DoesNotContain("pads-shield", Ids(Basis(level: ServiceLevel.Repad)));
    }

    [Fact]
    public void A_card_leaves_its_host_whose_other_cards_are_told_and_goes_back()
    {
        var hosted = Basis(level: ServiceLevel.Repad) with { Host = "KR-01", HostMates = ["GC-0002", "GC-0003"] };
        InOrder(
            hosted,
            "card-out",
            "back-plate",
            "screws-out",
            "back-plate-on",
            "screws-in",
            "card-in",
            "boot-look",
            "host-closed"
        );
        string Do(string id) => WorkCard.For(hosted).Single(s => s.Id == id).Do.ToString();
        Assert.Contains("KR-01 and the other cards in it go down too: GC-0002, GC-0003", Do("owner-told"));
        Assert.Contains("out of KR-01", Do("card-out"));
        Assert.Contains(
            WorkCard.For(hosted).Single(s => s.Id == "boot-look").Gate,
            g => g.ToString().Contains("under load or forced")
        );
    }

    [Fact]
    public void A_desktop_cleans_filters_supply_grille_and_card_and_counts_no_connector_that_nobody_pulled()
    {
        var ids = Ids(Basis(AssetKind.Desktop, ServiceLevel.DustOut));
        Assert.Equal(["filters", "card-fins", "supply-grille"], ids.Where(i => i is "filters" or "supply-grille" or "card-fins"));
        Assert.DoesNotContain("leads-off", ids);
        Assert.DoesNotContain("leads-on", ids);
        Assert.Contains("leads-off", Ids(Basis(AssetKind.Desktop)));
    }

    [Fact]
    public void A_hot_swap_fan_is_changed_while_the_server_runs()
    {
        var basis = Basis(AssetKind.Server, ServiceLevel.FanSwap) with
        {
            Fan = "3",
            Notes = Nothing with { Fans = [new("3", true, HotSwap: true, PartNumber: "F-77")] },
        };
        Assert.Equal(["prepare", "hot-swap", "log-clear", "fan-beside"], Ids(basis));
        Assert.Contains("bay 3 (part number F-77)", WorkCard.For(basis).Single(s => s.Id == "hot-swap").Do.ToString());
        // Where nobody has written it down, it is powered off first.
        Assert.Contains("power-off", Ids(basis with { Notes = Nothing }));
    }

    [Fact]
    public void A_loop_is_opened_only_if_it_must_and_tested_without_power()
    {
        var loop = Basis() with { Notes = Nothing with { Loop = LoopKind.Opened } };
        // A card hangs on its loop: that comes off before the card does, and is filled once the card is back.
        InOrder(
            loop,
            "loop-isolate",
            "card-out",
            "cooler-off",
            "cooler-on",
            "card-in",
            "loop-refill",
            "loop-leak-test",
            "boot-look"
        );
        InOrder(
            loop with
            {
                Kind = AssetKind.Desktop,
            },
            "cover-off",
            "loop-isolate",
            "cooler-off",
            "loop-refill",
            "loop-leak-test"
        );
        Assert.Contains("The pump runs", WorkCard.For(loop).Single(s => s.Id == "boot-look").Gate);
        var closed = loop with { Notes = Nothing with { Loop = LoopKind.Closed } };
        Assert.Contains("loop-closed", Ids(closed));
        Assert.DoesNotContain("loop-refill", Ids(closed));
        Assert.DoesNotContain("loop-isolate", Ids(loop with { Level = ServiceLevel.DustOut }));
    }

    [Fact]
    public void A_lid_is_never_told_the_words_of_a_bare_chip()
    {
        var lidded = WorkCard.For(Basis(AssetKind.Desktop) with { Notes = Nothing with { Chip = ChipKind.Lidded } });
        Assert.DoesNotContain(
            lidded,
            s =>
                s.Do.ToString().Contains("bare", StringComparison.OrdinalIgnoreCase)
                || s.Cautions.Any(c => c.Text.ToString().Contains("bare", StringComparison.OrdinalIgnoreCase))
        );
        Assert.DoesNotContain(lidded, s => s.Id == "chip-kind");
    }

    [Fact]
    public void A_fan_is_turned_by_hand_only_without_power() =>
        InOrder(Basis(AssetKind.Desktop, ServiceLevel.Inspect), "power-off", "ground", "inspect", "power-up");
}
