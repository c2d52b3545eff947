using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Readings;

namespace Pyrometron.Core.Tests.Judging;

/// <summary>Machines of one model are held against each other at equal heat and fan.</summary>
public class SiblingTests
{
    [Fact]
    public void A_machine_that_came_with_hard_pads_stands_out_although_it_does_not_drift()
    {
        var a = new Hall().WithHealthy(12).With("OLD", [], change: m => m with { JointRise = [13, 25, 36] }).Judge().ByTag["OLD"];
        Assert.Equal("memory", a.Siblings!.Value.Part);
        Assert.True(a.Siblings.Value.StandsOut);
        Assert.InRange(a.Siblings.Value.KelvinAbove, 9, 15);
        Assert.Equal(12, a.Siblings.Value.Peers);
        Assert.Contains(a.Said(), s => s.Contains("than 12 machines of its model", StringComparison.Ordinal));
    }

    [Fact]
    public void Healthy_siblings_do_not_stand_out() =>
        Assert.DoesNotContain(new Hall().WithHealthy(14).Judge().Queue, a => a.Siblings is { StandsOut: true });

    [Fact]
    public void More_heat_or_a_slower_fan_is_no_difference_of_the_machine()
    {
        var judgement = new Hall()
            .WithHealthy(10)
            .With(
                "HARD",
                [],
                change: m =>
                    m with
                    {
                        PowerW = m.PowerW * 1.3,
                        JointRise = [.. m.JointRise.Select(j => j * 1.3)],
                        AirRise = m.AirRise * 1.3,
                    }
            )
            .Judge();
        Assert.False(judgement.ByTag["HARD"].Siblings!.Value.StandsOut, judgement.ByTag["HARD"].Siblings!.Value.ToString());
    }

    [Fact]
    public void Two_readings_are_enough_to_be_compared()
    {
        Asset Card(string tag) =>
            new(
                tag,
                AssetKind.GraphicsCard,
                "Sorrel",
                "ROW",
                null,
                24,
                Hall.Today.AddDays(-400),
                null,
                [new("core", new(90), JointMaterial.Paste), new("memory", new(105), JointMaterial.Pad)],
                []
            );
        Reading At(double day, double core, double memory) =>
            new(
                (long)((Hall.Now + day) * 86_400_000),
                25,
                double.NaN,
                200,
                1800,
                60,
                double.NaN,
                double.NaN,
                double.NaN,
                "stock",
                "steady",
                null,
                [core, memory]
            );
        Asset[] assets = [.. Enumerable.Range(0, 8).Select(i => Card($"GC-{i}")), Card("NEW")];
        var judgement = new FleetJudge(
            new JudgementBasis(
                Hall.Register(DustClass.Normal, assets),
                Hall.Today,
                JudgementPolicy.Default,
                a =>
                    ReadingSeries.From(
                        a.Tag == "NEW"
                            ? [At(-2, 66, 95), At(-1, 66, 96)]
                            : [.. Enumerable.Range(0, 100).Select(i => At(i - 100, 66 + i % 2, 80 + i % 2))],
                        2
                    )
            )
            {
                Threads = Environment.ProcessorCount,
            }
        ).JudgeAll();
        var a = judgement.ByTag["NEW"];
        Assert.Equal(Urgency.Unknown, a.Urgency);
        Assert.StartsWith("Memory is 15 K warmer than 8 machines", a.Reason.ToString(), StringComparison.Ordinal);
        Assert.Null(a.DriftKelvin);
    }

    [Fact]
    public void Other_models_and_too_few_are_not_compared()
    {
        var judgement = new Hall().WithHealthy(3).Judge();
        Assert.All(judgement.Queue, a => Assert.Null(a.Siblings));
    }
}
