using Pyrometron.Core.Fleet;
using Pyrometron.Core.Forecast;
using Pyrometron.Core.Intervals;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Priority;

namespace Pyrometron.Core.Tests.Judging;

public class UrgencyRuleTests
{
    private static readonly DateOnly Today = new(2026, 3, 1);

    /// <summary>One part that wins so much, its action line within the next 45 days for certain, or certainly not.</summary>
    internal static Winnable Won(double kelvin, double sigma, double pace = 0, bool near = false) =>
        new(kelvin, sigma, pace, NeedsWork.Chance(kelvin, sigma, near ? 1 : 0, JudgementPolicy.Default));

    [Theory]
    [InlineData(2.5, 0, false, Urgency.Now)]
    [InlineData(2.4, 0, false, Urgency.Soon)]
    [InlineData(2.0, 0, false, Urgency.Watch)]
    [InlineData(3.0, 300, true, Urgency.Now)]
    [InlineData(1.0, null, true, Urgency.Watch)]
    [InlineData(6.0, null, false, Urgency.Next)]
    [InlineData(2.5, 45, false, Urgency.Next)]
    [InlineData(2.5, 46, false, Urgency.Soon)]
    [InlineData(2.5, 121, false, Urgency.Watch)]
    [InlineData(5.9, null, false, Urgency.Soon)]
    [InlineData(5.5, null, false, Urgency.Watch)]
    [InlineData(1.0, 200, false, Urgency.Fine)]
    public void Thresholds_stand_where_the_contract_puts_them(double winnable, int? days, bool atLimit, Urgency expected)
    {
        ActionDate? action = days is { } d ? new ActionDate(Today.AddDays(d), Today, null) : null;
        Assert.Equal(
            expected,
            UrgencyRule.Of(Won(winnable, 0.5, near: days <= 45), atLimit, action, null, [], Today, JudgementPolicy.Default)
        );
    }

    /// <summary>Soon is what will be pressing within 120 days: by its date, or by the kelvins that its pace adds.</summary>
    [Theory]
    [InlineData(4.0, 0.02, Urgency.Soon)]
    [InlineData(4.0, 0.016, Urgency.Watch)]
    [InlineData(5.9, 0.001, Urgency.Soon)]
    [InlineData(2.4, 0.05, Urgency.Fine)]
    public void A_pace_that_makes_it_much_within_four_months_is_soon(double winnable, double pace, Urgency expected) =>
        Assert.Equal(expected, UrgencyRule.Of(Won(winnable, 0.5, pace), false, null, null, [], Today, JudgementPolicy.Default));

    [Fact]
    public void What_may_be_chance_sends_nobody_at_once()
    {
        Urgency Of(double kelvin, double sigma, int? days, bool atLimit = false) =>
            UrgencyRule.Of(
                Won(kelvin, sigma, near: days <= 45),
                atLimit,
                days is { } d ? new ActionDate(Today.AddDays(d), Today, null) : null,
                null,
                [],
                Today,
                JudgementPolicy.Default
            );
        Assert.Equal([Urgency.Now, Urgency.Next], new[] { Of(4, 2, 0), Of(4, 2, 30) });
        Assert.Equal(
            [Urgency.Soon, Urgency.Soon, Urgency.Watch],
            new[] { Of(4, 2.1, 0), Of(4, 2.1, 30), Of(4, 2.1, null, atLimit: true) }
        );
        // Likelier than not that it needs work, and no more than possible.
        Assert.Equal([Urgency.Next, Urgency.Soon], new[] { Of(6, 5, null), Of(5.9, 5, null) });
        Assert.Equal(Urgency.Watch, Of(4, 1.9, null));
    }

    /// <summary>
    /// The calendar asks, evidence answers: never beyond twice the interval, and only as far as the pace allows.
    /// </summary>
    [Fact]
    public void A_due_interval_moves_on_as_long_as_what_was_measured_surely_shows_nothing_worth_it()
    {
        var due = new DueService(ServiceLevel.Repaste, Today.AddDays(-30), 300);
        DueService Answered(double kelvin, double sigma, double pace) =>
            due.Until(Today, Won(kelvin, sigma, pace).DaysBelow(2.5));
        Assert.Equal(due with { Due = Today.AddDays(270), Asked = due.Due }, Answered(0, 0.5, 0));
        // 0.5 K and 1.645 · 0.6 K leave 1.013 K: 101 days at 0.01 K a day.
        Assert.Equal(due with { Due = Today.AddDays(101), Asked = due.Due }, Answered(0.5, 0.6, 0.01));
        Assert.Equal(due, Answered(1, 1, 0));
        Assert.Equal(due, Answered(3, 0.1, 0));
        // Twice the interval is over: nothing moves it any more.
        Assert.Equal(due with { Days = 20 }, (due with { Days = 20 }).Until(Today, double.PositiveInfinity));
        // Not due yet, and answered until beyond its day.
        var ahead = new DueService(ServiceLevel.DustOut, Today.AddDays(40), 300);
        Assert.Equal(ahead, ahead.Until(Today, 30));
        Assert.Equal(Today.AddDays(90), ahead.Until(Today, 90).Due);
    }

    [Fact]
    public void A_due_interval_is_soon_from_its_day_on()
    {
        Assert.Equal(
            Urgency.Soon,
            UrgencyRule.Of(
                Won(0, 0.5),
                false,
                null,
                new DueService(ServiceLevel.DustOut, Today),
                [],
                Today,
                JudgementPolicy.Default
            )
        );
        Assert.Equal(
            Urgency.Fine,
            UrgencyRule.Of(
                Won(0, 0.5),
                false,
                null,
                new DueService(ServiceLevel.DustOut, Today.AddDays(1)),
                [],
                Today,
                JudgementPolicy.Default
            )
        );
    }

    [Fact]
    public void More_to_win_and_a_nearer_line_press_harder()
    {
        double Pressure(double kelvin, int days) =>
            QueueOrder.Pressure(kelvin, new ActionDate(Today.AddDays(days), Today, null), Today, JudgementPolicy.Default);
        Assert.True(Pressure(8, 100) > Pressure(6, 100));
        Assert.True(Pressure(6, 20) > Pressure(6, 60));
    }

    [Fact]
    public void No_date_without_a_trend_and_today_when_passed()
    {
        Assert.Null(ActionForecast.Of(Today, 10, 1, 0, 0.1));
        Assert.Null(ActionForecast.Of(Today, 10, 1, double.NaN, 0.1));
        Assert.Equal(Today, ActionForecast.Of(Today, -1, 1, 0, 0)!.Value.Day);
        var date = ActionForecast.Of(Today, 10, 1, 0.1, 0.02)!.Value;
        Assert.Equal(Today.AddDays(100), date.Day);
        Assert.True(date.Early < date.Day && date.Late > date.Day);
    }
}
