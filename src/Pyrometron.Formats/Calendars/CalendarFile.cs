using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;

namespace Pyrometron.Formats.Calendars;

/// <summary>Something that is to be done on a day.</summary>
/// <param name="Id">The same as long as it is the same thing, whatever its day: calendars find it again by that.</param>
/// <param name="Title">What is to be done to which machine.</param>
/// <param name="Text">Why.</param>
/// <param name="Place">Where it stands.</param>
/// <param name="Group">What kind of entry it is.</param>
public sealed record CalendarDay(string Id, DateOnly Day, string Title, string Text, string Place, string Group);

/// <summary>Writes days as iCalendar (RFC 5545): whole days, so that they are the same day wherever they are read.</summary>
public static class CalendarFile
{
    private const string Product = "-//Pyrometron//EN";

    /// <summary>A calendar that is published: who reads it later finds changed days in it.</summary>
    /// <param name="name">What the calendar is called.</param>
    /// <param name="days">One event each.</param>
    /// <param name="stamp">When it was written, UTC.</param>
    public static string Write(string name, IEnumerable<CalendarDay> days, DateTimeOffset stamp)
    {
        var calendar = new Calendar { ProductId = Product, Method = "PUBLISH" };
        calendar.AddProperty("X-WR-CALNAME", name);
        foreach (var day in days)
            calendar.Events.Add(
                new CalendarEvent
                {
                    Uid = $"{day.Id}@pyrometron",
                    DtStamp = new CalDateTime(stamp.UtcDateTime, "UTC"),
                    Start = new CalDateTime(day.Day),
                    End = new CalDateTime(day.Day.AddDays(1)),
                    Summary = day.Title,
                    Description = day.Text,
                    Location = day.Place,
                    Categories = [day.Group],
                    // A reminder takes nobody's time yet.
                    Transparency = TransparencyType.Transparent,
                }
            );
        return new CalendarSerializer().SerializeToString(calendar) ?? "";
    }
}
