using Pyrometron.Core.Fleet;
using Pyrometron.Core.Forecast;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Simulation;

namespace Pyrometron.Core.Tests.Judging;

/// <summary>Whether dates that were stated held: against simulated machines whose pace is known, and by hand.</summary>
public sealed class StatedDatesTests
{
    private static readonly DateOnly Day = new(2026, 6, 1);

    /// <summary>10, 50 and 90 % are what early, middle and late day say.</summary>
    [Fact]
    public void The_chance_of_a_day_is_what_the_date_says()
    {
        var date = new ActionDate(Day, Day.AddDays(-20), Day.AddDays(20));
        Assert.Equal(0.1, date.ChanceBy(Day.AddDays(-20)), 6);
        Assert.Equal(0.5, date.ChanceBy(Day), 6);
        Assert.Equal(0.9, date.ChanceBy(Day.AddDays(20)), 6);
        // Without a late day the spread is that before the middle one.
        Assert.Equal(0.9, (date with { Late = null }).ChanceBy(Day.AddDays(20)), 6);
        // A date of one day is told in whole days.
        var sharp = new ActionDate(Day, Day, Day);
        Assert.Equal([0, 0.5, 1], new[] { -3, 0, 3 }.Select(d => Math.Round(sharp.ChanceBy(Day.AddDays(d)), 6)));
    }

    /// <summary>
    /// A hall in which some machines reach their line within the months that are looked at, judged on both days from the same
    /// readings: who was served meanwhile is left out, and what was to pass has passed, within what chance allows.
    /// </summary>
    [Fact]
    public void Machines_of_a_known_pace_pass_their_line_about_when_it_was_said()
    {
        var hall = new Hall().WithHealthy(4);
        for (var i = 0; i < 12; i++)
            hall.With(
                $"GC-{i}",
                [new Fault(Cause.Dust, Hall.Now - 330, Hall.Now, 8 + i)],
                i == 11 ? [new ServiceDone(Hall.Today.AddDays(-30), ServiceLevel.DustOut)] : null
            );
        var now = hall.Judge();
        var then = hall.JudgeOf(asOf: Hall.Today.AddDays(-90)).JudgeAll();
        var dates = StatedDates.Of(then, now);
        Assert.Equal((Hall.Today.AddDays(-90), Hall.Today), (dates.Then, dates.Now));
        Assert.True(dates.Dated >= 4, $"{dates.Dated} had a date");
        Assert.Equal(dates.Dated - dates.Served, dates.Groups.Sum(g => g.Cases));
        Assert.Equal(dates.Passed, dates.Groups.Sum(g => g.CameTrue));
        Assert.InRange(dates.Passed - dates.Expected, -3, 3);
        Assert.True(dates.Brier < 0.25, $"Brier {dates.Brier}");
        var served = then.ByTag["GC-11"];
        Assert.Equal(served.Action is { } date && date.Day > then.AsOf ? 1 : 0, dates.Served);
    }

    [Fact]
    public void Without_dates_nothing_is_told()
    {
        var judged = new Hall().WithHealthy(4).Judge();
        var dates = StatedDates.Of(judged, judged);
        Assert.Equal((0, 0, 0.0, 0), (dates.Dated, dates.Served, dates.Expected, dates.Passed));
        Assert.Empty(dates.Groups);
        Assert.Null(dates.Brier);
    }
}
