using CsCheck;
using Pyrometron.Core.Procedures;

namespace Pyrometron.Core.Tests.Procedures;

/// <summary>The cross pattern as a property, and the evenness of its passes; common practice, no source.</summary>
public class TighteningTests
{
    private static Screw At(int number, double x, double y, int? order = null) =>
        new(number, ScrewPlace.Cooler, x, y, 6, "PH1", order);

    private static Screw[] Circle(int count, double skew = 0) =>
        [
            .. Enumerable
                .Range(0, count)
                .Select(i =>
                    At(
                        i + 1,
                        50 + 40 * Math.Cos(2 * Math.PI * i / count + skew),
                        50 + 40 * Math.Sin(2 * Math.PI * i / count + skew)
                    )
                ),
        ];

    [Theory]
    [
        InlineData(5),
        InlineData(6),
        InlineData(7),
        InlineData(8),
        InlineData(9),
        InlineData(12),
        InlineData(13),
        InlineData(16),
        InlineData(24)
    ]
    public void From_five_screws_on_no_two_neighbours_follow_each_other(int count)
    {
        var ring = Tightening.Ring(Circle(count));
        var places = Tightening.Order(Circle(count)).Select(s => Array.FindIndex(ring, r => r.Number == s.Number)).ToArray();
        Assert.Equal(count, places.Distinct().Count());
        Assert.All(places.Zip(places.Skip(1)), pair => Assert.False(Tightening.AreNeighbours(pair.First, pair.Second, count)));
    }

    [Fact]
    public void Four_screws_are_crossed_with_the_one_step_beside_that_cannot_be_avoided()
    {
        var order = Tightening.Order([At(1, 0, 0), At(2, 40, 0), At(3, 40, 40), At(4, 0, 40)]).Select(s => s.Number).ToArray();
        Assert.Equal(1, order[0]);
        Assert.Equal(3, order[1]);
        Assert.Equal(6, order[2] + order[3]);
    }

    [Fact]
    public void Wherever_screws_sit_each_comes_once_and_never_more_steps_beside_than_by_chance() =>
        Gen.Select(Gen.Double[0, 100], Gen.Double[0, 100])
            .Array[3, 12]
            .Sample(
                points =>
                {
                    var screws = points.Select((p, i) => At(i + 1, p.Item1, p.Item2)).ToArray();
                    var order = Tightening.Order(screws);
                    Assert.Equal(screws.Select(s => s.Number), order.Select(s => s.Number).Order());
                    var ring = Tightening.Ring(screws);
                    var beside = order
                        .Zip(order.Skip(1))
                        .Count(p =>
                            Tightening.AreNeighbours(
                                Array.FindIndex(ring, r => r.Number == p.First.Number),
                                Array.FindIndex(ring, r => r.Number == p.Second.Number),
                                screws.Length
                            )
                        );
                    Assert.True(
                        beside
                            <= screws.Length switch
                            {
                                3 => 2,
                                4 => 1,
                                _ => 0,
                            }
                    );
                },
                iter: 200
            );

    [Fact]
    public void The_makers_numbers_go_before_the_cross()
    {
        Assert.Equal([3, 1, 2], Tightening.Order([At(1, 0, 0, 2), At(2, 9, 0, 3), At(3, 9, 9, 1)]).Select(s => s.Number));
        Assert.Equal(1, Tightening.Order([At(1, 0, 0, 2), At(2, 9, 0), At(3, 9, 9, 1)])[0].Number);
    }

    [Fact]
    public void No_screw_is_ever_more_than_one_pass_ahead_of_another()
    {
        var order = Tightening.Order(Circle(6));
        var turns = order.ToDictionary(s => s.Number, _ => 0);
        foreach (var _ in Tightening.Passes)
        foreach (var screw in order)
        {
            turns[screw.Number]++;
            Assert.True(turns.Values.Max() - turns.Values.Min() <= 1);
        }
        Assert.All(turns.Values, t => Assert.Equal(Tightening.Passes.Count, t));
    }

    [Fact]
    public void None_one_and_two_screws_need_no_pattern()
    {
        Assert.Empty(Tightening.Order([]));
        Assert.Equal([1, 2], Tightening.Order([At(2, 0, 0), At(1, 5, 5)]).Select(s => s.Number));
    }
}
