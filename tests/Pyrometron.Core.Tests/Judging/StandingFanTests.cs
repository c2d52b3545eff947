using Pyrometron.Core.Fleet;
using Pyrometron.Core.Readings;

namespace Pyrometron.Core.Tests.Judging;

/// <summary>A fan that stands under a full command: the fan, now, and no wear of joints.</summary>
public class StandingFanTests
{
    /// <summary>
    /// A sound card under full command whose fan stands on its last days, all parts thirty kelvin warmer for it.
    /// </summary>
    private static Hall With(double days, double command = 100, ServiceDone[]? services = null, double rpm = 0)
    {
        var hall = new Hall().WithHealthy(5).With("X", [], services);
        hall.Distorted["X"] = r =>
            r.UnixMilliseconds / 86_400_000.0 < Hall.Now - days
                ? r
                : r with
                {
                    FanRpm = rpm,
                    FanPct = command,
                    PartsC = [.. r.PartsC.Select(c => c + 30)],
                };
        return hall;
    }

    [Fact]
    public void Ten_days_without_a_turn_under_full_command_are_the_fan_now()
    {
        var hall = With(10);
        var a = hall.JudgeOne("X");
        Assert.Equal((Urgency.Now, Cause.Fan, ServiceLevel.FanSwap), (a.Urgency, a.Cause, a.Service!.Value));
        Assert.StartsWith("Its fan has stood still under a full command since", a.Reason.ToString(), StringComparison.Ordinal);
        // What it had of wear before is what is told of its wear, not the thirty kelvin.
        Assert.True(a.DriftKelvin < 3, $"drift {a.DriftKelvin}");
        Assert.Equal("X", hall.Judge().Queue[0].Asset.Tag);
    }

    [Fact]
    public void A_fan_that_rests_at_idle_or_was_changed_since_or_turns_again_is_no_standing_fan()
    {
        Assert.NotEqual(Cause.Fan, With(10, command: 20).JudgeOne("X").Cause);
        Assert.NotEqual(Cause.Fan, With(10, services: [new(Hall.Today, ServiceLevel.FanSwap)]).JudgeOne("X").Cause);
        Assert.Null(With(10, rpm: 1800).JudgeOne("X").StandingFan);
    }

    /// <summary>A sensor that never read a turn says nothing of the fan.</summary>
    [Fact]
    public void A_speed_that_was_never_read_is_no_standing_fan() => Assert.Null(With(400).JudgeOne("X").StandingFan);

    [Fact]
    public void Found_with_too_few_readings_to_judge_wear_it_is_told_all_the_same()
    {
        Reading At(double daysAgo, double rpm) => Handmade.At(daysAgo, 80, rpm: rpm, pct: 100);
        var a = Hall.JudgeAlone(Handmade.Desktop, At(4, 1200), At(3, 0), At(2, 0), At(1, 0));
        Assert.Equal((Urgency.Now, ServiceLevel.FanSwap), (a.Urgency, a.Service!.Value));
    }
}
