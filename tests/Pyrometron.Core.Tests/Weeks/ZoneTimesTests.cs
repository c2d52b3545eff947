using Pyrometron.Core.Weeks;

namespace Pyrometron.Core.Tests.Weeks;

/// <summary>The next day on which machines of a zone may be down.</summary>
public sealed class ZoneTimesTests
{
    /// <summary>A Tuesday.</summary>
    private static readonly DateOnly Today = new(2026, 12, 1);

    private static ZoneTimes Of(DayOfWeek[] open, params ClosedDays[] closed) =>
        new("Z", 10, null, [.. open.Select(d => new WeeklyTime(d, 360, 600))], closed);

    [Fact]
    public void Open_always_is_open_today() => Assert.Equal(Today, ZoneTimes.Usual("Z").NextOpen(Today, 60));

    [Theory]
    [InlineData(DayOfWeek.Tuesday, 0)]
    [InlineData(DayOfWeek.Friday, 3)]
    [InlineData(DayOfWeek.Monday, 6)]
    public void The_next_open_weekday(DayOfWeek day, int days) =>
        Assert.Equal(Today.AddDays(days), Of([day]).NextOpen(Today, 60));

    [Fact]
    public void Closed_days_are_passed_over()
    {
        var exams = new ClosedDays(Today, Today.AddDays(6), "exams");
        Assert.Equal(Today.AddDays(7), Of([], exams).NextOpen(Today, 60));
        Assert.Equal(Today.AddDays(10), Of([DayOfWeek.Friday], exams).NextOpen(Today, 60));
    }

    [Fact]
    public void A_window_that_never_opens_is_none() =>
        Assert.Null(Of([], new ClosedDays(Today, Today.AddYears(1), "rebuilding")).NextOpen(Today, 60));
}
