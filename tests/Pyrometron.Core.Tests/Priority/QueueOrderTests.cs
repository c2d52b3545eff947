using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Worth;

namespace Pyrometron.Core.Tests.Priority;

public class QueueOrderTests
{
    private static readonly DateOnly Today = new(2026, 3, 1);

    private static Assessment Machine(
        string tag,
        double kelvin,
        double perHour,
        Urgency urgency = Urgency.Next,
        params Symptom[] symptoms
    )
    {
        var asset = new Asset(
            tag,
            AssetKind.Server,
            "Wrack",
            "ROW",
            null,
            24,
            new(2024, 1, 1),
            null,
            [new("cpu", new(90), JointMaterial.Paste)],
            []
        );
        return new Assessment(asset, Today, new Zone("ROW", "Row", DustClass.Normal, new(33)), JudgementPolicy.Default)
        {
            Urgency = urgency,
            Cause = Cause.Dust,
            DriftKelvin = kelvin,
            Service = ServiceLevel.DustOut,
            Minutes = 60,
            Symptoms = symptoms,
            Levels =
            [
                new LevelWorth(
                    ServiceLevel.DustOut,
                    "cpu",
                    kelvin,
                    60,
                    0,
                    1,
                    0,
                    new LevelValue(perHour, 0, 0, 0, 0, 0, 0, 0, 0, 0),
                    perHour,
                    perHour
                ),
            ],
        };
    }

    private static string Order(Precedence precedence, params Assessment[] machines) =>
        string.Join(
            ' ',
            QueueOrder.Of(machines, Today, JudgementPolicy.Default with { Precedence = precedence }).Select(a => a.Asset.Tag)
        );

    [Fact]
    public void Kelvins_decide_and_between_machines_that_stand_alike_the_value_of_an_hour() =>
        Assert.Equal(
            "hot dear cheap",
            Order(Precedence.Evidence, Machine("cheap", 7.8, 10), Machine("hot", 9, 1), Machine("dear", 7.1, 90))
        );

    [Fact]
    public void A_house_may_put_value_first_within_an_urgency()
    {
        Assert.Equal(
            "dear cheap hot",
            Order(Precedence.Value, Machine("cheap", 7.8, 10), Machine("hot", 9, 1), Machine("dear", 7.1, 90))
        );
        Assert.Equal("now dear", Order(Precedence.Value, Machine("dear", 7.1, 90), Machine("now", 3, 1, Urgency.Now)));
    }

    [Theory]
    [InlineData(Precedence.Evidence)]
    [InlineData(Precedence.Value)]
    public void What_crashes_goes_first_whatever_it_is_worth(Precedence precedence) =>
        Assert.Equal(
            "crashing hot",
            Order(
                precedence,
                Machine("hot", 15, 90),
                Machine("crashing", 6, 1, Urgency.Next, new Symptom(Today, SymptomKind.Crash, null))
            )
        );

    [Fact]
    public void Equal_ones_go_by_their_tags() =>
        Assert.Equal("a b c", Order(Precedence.Evidence, Machine("c", 7, 5), Machine("a", 7, 5), Machine("b", 7, 5)));
}
