using Pyrometron.Core.Assessments;
using Pyrometron.Core.Causes;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Priority;
using Pyrometron.Core.Worth;

namespace Pyrometron.Core.Tests.Priority;

public class RecommendationTests
{
    private static readonly DateOnly Today = new(2026, 3, 1);

    private static readonly Asset Card = new(
        "GC-1",
        AssetKind.GraphicsCard,
        "Sorrel",
        "ROW",
        null,
        24,
        new(2024, 1, 1),
        null,
        [new("core", new(90), JointMaterial.Paste), new("memory", new(105), JointMaterial.Pad)],
        []
    );

    private static PartAssessment Part(CauseSplit split) =>
        new(Card.Parts[split.Material == JointMaterial.Pad ? 1 : 0], 40, 15, split, 1, 80, 85, 50, 5, null, 0, null, []);

    private static ServiceLevel? LevelFor(CauseSplit[] splits, JudgementPolicy? policy = null, Asset? asset = null)
    {
        var (card, house) = (asset ?? Card, policy ?? JudgementPolicy.Default);
        PartAssessment[] parts = [.. splits.Select(Part)];
        return Recommendation.LevelFor(
            card,
            parts,
            new LevelValuation(card, parts, [(30, 25)], default, [], Today, house).Levels(),
            house,
            Today
        );
    }

    private static CauseSplit Core(double dust = 0, double paste = 0, double fan = 0, double mount = 0) =>
        new(dust, paste, fan, mount, JointMaterial.Paste);

    [Fact]
    public void The_level_is_the_one_that_takes_the_cause_away()
    {
        Assert.Equal(ServiceLevel.DustOut, LevelFor([Core(dust: 8)]));
        Assert.Equal(ServiceLevel.Repaste, LevelFor([Core(paste: 8)]));
        Assert.Equal(ServiceLevel.Repaste, LevelFor([Core(mount: 8)]));
        Assert.Equal(ServiceLevel.FanSwap, LevelFor([Core(fan: 8)]));
        Assert.Equal(ServiceLevel.Repad, LevelFor([new CauseSplit(0, 8, 0, 0, JointMaterial.Pad)]));
        // Fan and joint both: the joint first, the larger.
        Assert.Equal(ServiceLevel.Repaste, LevelFor([Core(paste: 7, fan: 5)]));
        Assert.Null(LevelFor([Core(dust: 2)]));
    }

    [Fact]
    public void Work_that_nothing_asks_for_is_left_unless_the_house_does_more_while_it_is_open_and_it_pays()
    {
        // Six parts of eight are dust: blowing the fins free cures. New paste on top takes the rest, for 25 minutes more.
        CauseSplit[] splits = [Core(dust: 7, paste: 1.2)];
        Assert.Equal(ServiceLevel.DustOut, LevelFor(splits));
        Assert.Equal(
            ServiceLevel.DustOut,
            LevelFor(
                splits,
                JudgementPolicy.Default with
                {
                    Values = HouseValues.Default with { GraphicsCard = new(0.2, 20000) },
                }
            )
        );
        var all = JudgementPolicy.Default with { Extent = Extent.AllWhileOpen };
        Assert.Equal(ServiceLevel.Repad, LevelFor(splits, all));
        Assert.Equal(
            ServiceLevel.DustOut,
            LevelFor(splits, all with { Values = HouseValues.Default with { TechnicianHour = 400 } })
        );
    }

    [Fact]
    public void Where_no_level_cures_the_one_that_brings_most_is_advised()
    {
        CauseSplit[] both = [Core(paste: 6, fan: 6)];
        Assert.Equal(ServiceLevel.FanSwap, LevelFor(both));
        Assert.Equal(ServiceLevel.Repaste, LevelFor([Core(paste: 9, fan: 4)]));
        // Where nothing pays, doing nothing for it is no advice: one that helps is named.
        var poor = JudgementPolicy.Default with
        {
            Values = HouseValues.Default with { GraphicsCard = new(0, 0) },
        };
        Assert.Equal(ServiceLevel.FanSwap, LevelFor(both, poor));
        // A little of everything: none wins enough by itself, so the one that wins most.
        Assert.Equal(ServiceLevel.Repaste, LevelFor([Core(dust: 1, paste: 1.2, fan: 1.1)], poor));
    }

    [Fact]
    public void Where_the_house_does_it_all_while_open_a_lifted_cooler_brings_new_pads()
    {
        var all = JudgementPolicy.Default with { Extent = Extent.AllWhileOpen };
        Assert.Equal(ServiceLevel.Repad, LevelFor([Core(paste: 8)], all));
        Assert.Equal(ServiceLevel.DustOut, LevelFor([Core(dust: 8)], all));
        Assert.Equal(ServiceLevel.Repaste, LevelFor([Core(paste: 8)], all, Card with { Parts = [Card.Parts[0]] }));
    }

    [Fact]
    public void Under_warranty_air_is_advised_where_it_wins_enough_and_the_house_allows_nothing_more()
    {
        var young = Card with { WarrantyUntil = Today };
        Assert.Equal(ServiceLevel.BlowOut, LevelFor([Core(dust: 8)], asset: young));
        // Air does nothing for paste: what would cure is said, and the maker is asked.
        Assert.Equal(ServiceLevel.Repaste, LevelFor([Core(paste: 8)], asset: young));
        Assert.Equal(
            ServiceLevel.DustOut,
            LevelFor([Core(dust: 8)], JudgementPolicy.Default with { Warranty = WarrantySchool.AskFirst }, young)
        );
        Assert.Equal(ServiceLevel.DustOut, LevelFor([Core(dust: 8)], asset: young with { WarrantyUntil = Today.AddDays(-1) }));
    }
}
