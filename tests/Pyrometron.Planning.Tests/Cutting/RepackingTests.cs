using Pyrometron.Core.Cutting;

namespace Pyrometron.Planning.Tests.Cutting;

/// <summary>Plans bettered by taking sheets apart.</summary>
public sealed class RepackingTests
{
    private static readonly Size Sheet = new(10_000, 10_000);

    /// <summary>A plan that puts each piece on a sheet of its own, of pieces of which four fill one.</summary>
    [Fact]
    public void A_wasteful_plan_ends_at_its_bound()
    {
        var part = OneThickness
            .Of(new CuttingProblem([new("s", Sheet, 100, 16)], [new("p", new(5_000, 5_000), 100, 16)], 0, Rotate: true))
            .Single();
        Pattern[] wasteful = [.. Enumerable.Repeat(0, 16).Select(_ => new Pattern(0, [new Spot(0, 0, 0, new(5_000, 5_000))]))];
        var random = new Random(7);
        using var over = new CancellationTokenSource(TimeSpan.FromSeconds(20));
        var plan = new Repacking(part, new GuillotineFill(part, random), random).Fewer(wasteful, 4, over.Token);
        Assert.Equal(4, plan.Count);
        Assert.Equal(16, plan.Sum(p => p.Spots.Count));
    }

    [Fact]
    public void Cancelled_it_answers_with_the_plan_it_was_given()
    {
        var part = OneThickness
            .Of(new CuttingProblem([new("s", Sheet, 100, 2)], [new("p", new(6_000, 6_000), 100, 2)], 0, Rotate: true))
            .Single();
        Pattern[] plan = [.. Enumerable.Repeat(0, 2).Select(_ => new Pattern(0, [new Spot(0, 0, 0, new(6_000, 6_000))]))];
        var random = new Random(7);
        Assert.Equal(
            plan,
            new Repacking(part, new GuillotineFill(part, random), random).Fewer(plan, 1, new CancellationToken(canceled: true))
        );
    }
}
