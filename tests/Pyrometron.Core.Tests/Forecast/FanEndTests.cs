using Pyrometron.Core.Forecast;

namespace Pyrometron.Core.Tests.Forecast;

/// <summary>Heat-sink law θ ∝ n^−0.8 (Incropera &amp; DeWitt, ch. 7): what a fan's remaining speed is worth.</summary>
public class FanEndTests
{
    private static readonly DateOnly Today = new(2026, 3, 1);

    [Fact]
    public void The_remaining_speed_is_worth_what_the_law_says()
    {
        // 80 % to 100 %: the convective rise of 20 K at 80 % stands for 20·0.8^−0.8 at full-speed capacity.
        var end = FanEnd.Of(Today, 80, 80, 20, 0.05)!;
        Assert.Equal(20 * (Reference.Value("7.4-0.8-0.8-R") - 1), end.ReserveKelvin, 1e-4);
        Assert.Equal(Today.AddDays((int)Math.Round(end.ReserveKelvin / 0.05)), end.Day);
    }

    [Fact]
    public void A_fan_that_already_runs_faster_has_less_left()
    {
        var early = FanEnd.Of(Today, 50, 50, 24, 0.03)!;
        var late = FanEnd.Of(Today, 50, 85, 24, 0.03)!;
        Assert.True(late.ReserveKelvin < early.ReserveKelvin / 3);
        Assert.True(late.Day < (early.Day ?? DateOnly.MaxValue));
    }

    [Fact]
    public void At_full_speed_it_hides_nothing_and_without_pace_or_speed_no_day_is_named()
    {
        Assert.Equal(new FanEnd(99, 0, Today), FanEnd.Of(Today, 60, 99, 24, 0));
        Assert.Null(FanEnd.Of(Today, 60, 70, 24, 0)!.Day);
        Assert.Null(FanEnd.Of(Today, 60, 70, 24, 1e-6)!.Day);
        Assert.Null(FanEnd.Of(Today, double.NaN, 70, 24, 0.1));
        Assert.Null(FanEnd.Of(Today, 60, 0, 24, 0.1));
    }
}
