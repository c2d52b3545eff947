using System.Text;
using System.Text.RegularExpressions;

namespace Pyrometron.Server.Tests;

/// <summary>
/// What is to be done as iCalendar, read back by the rules of RFC 5545 itself: lines of 75 octets at most that end in CRLF (3.1),
/// folded ones put together, text unescaped (3.3.11), whole days (3.3.4).
/// </summary>
public sealed partial class CalendarTests : IDisposable
{
    private readonly Server _server = new();

    public void Dispose() => _server.Dispose();

    private async Task<List<Dictionary<string, string>>> Events(string query = "")
    {
        var answer = await _server.Raw(new HttpRequestMessage(HttpMethod.Get, "/api/v1/calendar.ics" + query));
        Assert.Equal("text/calendar", answer.Content.Headers.ContentType!.MediaType);
        var text = await answer.Content.ReadAsStringAsync();
        Assert.EndsWith("END:VCALENDAR\r\n", text);
        Assert.DoesNotMatch(BareLineFeed(), text);
        Assert.All(text.Split("\r\n"), line => Assert.InRange(Encoding.UTF8.GetByteCount(line), 0, 75));
        var events = new List<Dictionary<string, string>>();
        foreach (var line in text.Replace("\r\n ", "").Split("\r\n"))
        {
            var (name, value) = (line.Split(':')[0], line[(line.IndexOf(':') + 1)..]);
            if (line == "BEGIN:VEVENT")
                events.Add([]);
            else if (events.Count > 0)
                events[^1].TryAdd(name, value.Replace("\\,", ",").Replace("\\;", ";").Replace("\\n", "\n").Replace("\\\\", "\\"));
        }
        return events;
    }

    [Fact]
    public async Task Due_services_stand_on_their_days_with_an_id_that_stays()
    {
        const string header = "tag,kind,model,zone,inServiceSince,lastServiceDate,lastServiceLevel\n";
        await _server.Send(
            "/api/v1/fleet/table",
            header
                + "PC-1,desktop,\"Petrel; the 7th, \\ “rare”\",Reading room,2024-01-10,2020-05-01,dust-out\n"
                + $"PC-2,desktop,Petrel,Attic,{DateTime.UtcNow:yyyy-MM-dd},,\n",
            "text/csv"
        );
        await _server.Get("/api/v1/queue?wait=20");
        var events = await Events();
        var overdue = Assert.Single(events, e => e["UID"] == "PC-1-dust-out@pyrometron");
        Assert.Equal(DateTime.UtcNow.ToString("yyyyMMdd", null), overdue["DTSTART;VALUE=DATE"]);
        Assert.Equal("PC-1: dust-out", overdue["SUMMARY"]);
        Assert.Equal("Reading room", overdue["LOCATION"]);
        Assert.Contains("overdue", overdue["DESCRIPTION"]);
        // The new one is due only in more than a year.
        Assert.DoesNotContain(events, e => e["UID"].StartsWith("PC-2", StringComparison.Ordinal));
        Assert.Equal(events.Select(e => e["UID"]), (await Events()).Select(e => e["UID"]));

        var zones = (await _server.Get("/api/v1/zones")).Body.EnumerateArray();
        var attic = zones.First(z => z.GetProperty("name").GetString() == "Attic").GetProperty("code").GetString();
        Assert.Empty(await Events($"?zone={attic}"));
        Assert.Equal(404, (await _server.Get("/api/v1/calendar.ics?zone=nowhere")).Status);
    }

    [Fact]
    public async Task An_empty_house_has_an_empty_calendar() => Assert.Empty(await Events());

    [GeneratedRegex("(?<!\r)\n")]
    private static partial Regex BareLineFeed();
}
