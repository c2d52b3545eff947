using Pyrometron.Core.Notices;

namespace Pyrometron.Core.Tests.Notices;

/// <summary>When mails and calls are sent, over nights and changes of the clock.</summary>
public sealed class SendTimesTests
{
    private static readonly TimeZoneInfo Berlin = TimeZoneInfo.FindSystemTimeZoneById("Europe/Berlin");

    private static DateTimeOffset At(string text) => DateTimeOffset.Parse(text, null);

    /// <summary>Summer time in the European Union, directive 2000/84/EC: 29 March to 25 October 2026, at 01:00 UTC.</summary>
    [Theory]
    [InlineData("2026-03-28T12:00Z", "07:30", "2026-03-29T05:30Z")]
    [InlineData("2026-03-28T12:00Z", "02:30", "2026-03-29T01:30Z")]
    [InlineData("2026-10-24T12:00Z", "02:30", "2026-10-25T01:30Z")]
    [InlineData("2026-12-01T06:29Z", "07:30", "2026-12-01T06:30Z")]
    [InlineData("2026-12-01T06:30Z", "07:30", "2026-12-02T06:30Z")]
    public void A_mail_goes_at_its_time_on_the_wall(string after, string wall, string expected)
    {
        var time = TimeOnly.Parse(wall, null);
        Assert.Equal(At(expected), SendTimes.NextAt(time.Hour * 60 + time.Minute, At(after), Berlin));
    }

    [Theory]
    [InlineData("2026-12-01T18:59Z", "2026-12-01T18:59Z")]
    [InlineData("2026-12-01T19:00Z", "2026-12-02T05:00Z")]
    [InlineData("2026-12-02T04:59Z", "2026-12-02T05:00Z")]
    [InlineData("2026-12-02T05:00Z", "2026-12-02T05:00Z")]
    public void Quiet_hours_go_over_midnight(string now, string expected) =>
        Assert.Equal(At(expected), SendTimes.NotQuiet(At(now), new QuietHours(20 * 60, 6 * 60), Berlin));

    [Fact]
    public void Quiet_hours_within_a_day_and_none_at_all()
    {
        var lunch = new QuietHours(12 * 60, 13 * 60);
        Assert.Equal([false, true, true, false], new[] { 719, 720, 779, 780 }.Select(lunch.Contains));
        Assert.Equal(At("2026-12-01T03:00Z"), SendTimes.NotQuiet(At("2026-12-01T03:00Z"), null, Berlin));
    }

    [Fact]
    public void Attempts_come_less_and_less_often_and_end()
    {
        var now = At("2026-12-01T12:00Z");
        var waits = Enumerable.Range(1, 20).Select(n => SendTimes.NextAttempt(n, now) - now).ToList();
        var made = waits.TakeWhile(w => w is not null).ToList();
        Assert.Equal(made.Order(), made);
        Assert.All(waits.Skip(made.Count), w => Assert.Null(w));
        Assert.InRange(made.Sum(w => w!.Value.TotalHours), 24, 72);
    }
}
