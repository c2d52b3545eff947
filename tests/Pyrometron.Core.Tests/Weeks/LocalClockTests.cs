using Pyrometron.Core.Planning;
using Pyrometron.Core.Weeks;

namespace Pyrometron.Core.Tests.Weeks;

/// <summary>
/// Hours by the clock on the wall. Summer time in the European Union: Directive 2000/84/EC, from 01:00 UTC on the last Sunday of
/// March to 01:00 UTC on the last Sunday of October.
/// </summary>
public sealed class LocalClockTests
{
    private static readonly TimeZoneInfo Lisbon = TimeZoneInfo.FindSystemTimeZoneById("Europe/Lisbon");
    private static readonly DateOnly SpringEve = new(2027, 3, 27),
        AutumnEve = new(2027, 10, 30);

    [Theory]
    [InlineData(0, 8 * 60, 8 * 60)]
    [InlineData(1, 8 * 60, 1440 + (7 * 60))]
    // 01:30 does not come on that day: an hour later it does.
    [InlineData(1, 90, 1440 + 90)]
    // A night shift that begins on the eve ends an hour of the clock later.
    [InlineData(0, 1440 + (6 * 60), 1440 + (5 * 60))]
    public void Spring_takes_an_hour(int day, int minute, int expected) =>
        Assert.Equal(expected, new LocalClock(SpringEve, Lisbon).Minute(SpringEve.AddDays(day), minute));

    [Theory]
    [InlineData(0, 8 * 60, 7 * 60)]
    [InlineData(1, 8 * 60, 1440 + (8 * 60))]
    // 01:30 comes twice: the second is meant.
    [InlineData(1, 90, 1440 + 90)]
    public void Autumn_gives_it_back(int day, int minute, int expected) =>
        Assert.Equal(expected, new LocalClock(AutumnEve, Lisbon).Minute(AutumnEve.AddDays(day), minute));

    [Fact]
    public void A_night_belongs_to_the_day_on_which_it_begins()
    {
        WeeklyTime[] nights = [new(DayOfWeek.Saturday, 22 * 60, (24 + 6) * 60)];
        var (day, span) = Assert.Single(new LocalClock(SpringEve, Lisbon).Spans(nights, 2));
        Assert.Equal((SpringEve, new Span(22 * 60, 1440 + (5 * 60))), (day, span));
        Assert.Equal(SpringEve.AddDays(1), new LocalClock(SpringEve, Lisbon).DayOf(span.To - 1));
    }

    [Fact]
    public void Far_from_Greenwich_a_day_begins_before_the_plan_does()
    {
        var auckland = TimeZoneInfo.FindSystemTimeZoneById("Pacific/Auckland");
        WeeklyTime[] mornings = [new(DayOfWeek.Monday, 8 * 60, 12 * 60)];
        var monday = new DateOnly(2026, 12, 7);
        // 08:00 of Monday there is 19:00 of Sunday in UTC.
        Assert.Contains((monday, new Span(-5 * 60, -60)), new LocalClock(monday, auckland).Spans(mornings, 7));
    }
}
