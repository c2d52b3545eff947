using Pyrometron.Core.Assessments;
using Pyrometron.Core.Causes;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Learning;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Priority;
using Pyrometron.Core.Worth;

namespace Pyrometron.Core.Tests.Priority;

public class ProvenGainsTests
{
    private static readonly Asset Card = new(
        "GC-1",
        AssetKind.GraphicsCard,
        "Sorrel",
        "ROW",
        null,
        24,
        new(2024, 1, 1),
        null,
        [new("core", new(90), JointMaterial.Paste)],
        []
    );

    private static ProvenJob Job(
        double won,
        string model = "Sorrel",
        double predicted = 10,
        double expanded = 0,
        ServiceLevel level = ServiceLevel.Repaste
    ) =>
        new(
            AssetKind.GraphicsCard,
            model,
            level,
            level == ServiceLevel.Repaste ? Cause.Paste : Cause.Dust,
            predicted,
            won,
            expanded
        );

    [Fact]
    public void Without_jobs_a_prediction_stands()
    {
        var share = ProvenGains.None.Of(Card, ServiceLevel.Repad);
        Assert.Equal((1, 0), (share.Share, share.Jobs));
        Assert.Equal(Math.Sqrt(0.25 * 0.25 + 0.15 * 0.15), share.Sigma, 1e-12);
    }

    /// <summary>
    /// The normal mean with known variance (Gelman et al. 2013, eq. 2.11–2.12): precisions add, means weigh by them.
    /// </summary>
    [Fact]
    public void A_job_moves_the_share_by_the_weight_of_its_proof()
    {
        var (prior, job) = (1 / (0.25 * 0.25 + 0.15 * 0.15), 1 / (0.2 * 0.2));
        var share = ProvenGains.Of([Job(won: 5)]).Of(Card, ServiceLevel.Repaste);
        Assert.Equal((prior * 1 + job * 0.5) / (prior + job), share.Share, 1e-12);
        Assert.Equal(1 / Math.Sqrt(prior + job), share.Sigma, 1e-12);
        // A proof of ± 10 K (k = 2) on ten predicted hardly says anything.
        Assert.InRange(ProvenGains.Of([Job(won: 5, expanded: 10)]).Of(Card, ServiceLevel.Repaste).Share, 0.86, 0.95);
    }

    [Fact]
    public void Other_models_of_the_kind_teach_less_than_its_own_and_other_levels_nothing()
    {
        var (own, others) = (
            ProvenGains.Of([.. Enumerable.Repeat(Job(5), 4)]),
            ProvenGains.Of([.. Enumerable.Repeat(Job(5, "Wrack"), 4)])
        );
        Assert.True(own.Of(Card, ServiceLevel.Repaste).Share < others.Of(Card, ServiceLevel.Repaste).Share);
        Assert.True(others.Of(Card, ServiceLevel.Repaste).Share < 0.75);
        Assert.Equal((4, 0), (own.Of(Card, ServiceLevel.Repaste).Jobs, others.Of(Card, ServiceLevel.Repaste).Jobs));
        Assert.Equal(1, own.Of(Card, ServiceLevel.Repad).Share);
        Assert.Equal(1, own.Of(Card with { Kind = AssetKind.Server }, ServiceLevel.Repaste).Share);
    }

    [Fact]
    public void Hardly_anything_predicted_teaches_nothing_and_no_share_is_below_zero()
    {
        Assert.Equal(1, ProvenGains.Of([Job(won: -3, predicted: 2)]).Of(Card, ServiceLevel.Repaste).Share);
        Assert.Equal(0, ProvenGains.Of([.. Enumerable.Repeat(Job(won: -30), 20)]).Of(Card, ServiceLevel.Repaste).Share);
    }

    [Fact]
    public void A_cleaning_that_left_what_every_cleaning_leaves_has_held_its_promise() =>
        Assert.Equal(1, ProvenGains.Of([Job(won: 8.5, level: ServiceLevel.DustOut)]).Of(Card, ServiceLevel.DustOut).Share, 1e-12);

    [Fact]
    public void Where_cleaning_has_not_held_its_promise_the_cooler_comes_off()
    {
        PartAssessment[] parts =
        [
            new(Card.Parts[0], 40, 15, new CauseSplit(8, 0, 0, 0, JointMaterial.Paste), 1, 80, 85, 50, 5, null, 0, null, []),
        ];
        ServiceLevel? LevelFor(PartAssessment[] judged, JudgementPolicy policy) =>
            Recommendation.LevelFor(
                Card,
                judged,
                new LevelValuation(Card, judged, [], default, [], new(2026, 3, 1), policy).Levels(),
                policy,
                new(2026, 3, 1)
            );
        Assert.Equal(ServiceLevel.DustOut, LevelFor(parts, JudgementPolicy.Default));
        var taught = JudgementPolicy.Default with
        {
            Proven = ProvenGains.Of([
                .. Enumerable.Repeat(Job(3, level: ServiceLevel.DustOut), 6),
                .. Enumerable.Repeat(Job(3, level: ServiceLevel.FanSwap), 6),
            ]),
        };
        Assert.Equal(ServiceLevel.Repaste, LevelFor(parts, taught));
        Assert.Null(LevelFor([parts[0] with { Split = new CauseSplit(2, 0, 0, 0, JointMaterial.Paste) }], taught));
    }
}
