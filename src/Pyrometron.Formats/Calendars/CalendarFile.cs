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

/// <summary>Something that is to be done at a time.</summary>
/// <param name="Id">The same as long as it is the same thing, whenever it is done.</param>
/// <param name="Sequence">Grows with each change.</param>
/// <param name="Cancelled">Whether it is not to be done after all.</param>
public sealed record CalendarVisit(
    string Id,
    DateTimeOffset Start,
    TimeSpan Length,
    string Title,
    string Text,
    string Place,
    int Sequence,
    bool Cancelled
);

/// <summary>Writes iCalendar (RFC 5545): a calendar that is published; who reads it later finds what has changed in it.</summary>
public static class CalendarFile
{
    private const string Product = "-//Pyrometron//EN";

    /// <summary>Whole days, so that they are the same day wherever they are read.</summary>
    /// <param name="name">What the calendar is called.</param>
    /// <param name="days">One event each.</param>
    /// <param name="stamp">When it was written, UTC.</param>
    public static string Write(string name, IEnumerable<CalendarDay> days, DateTimeOffset stamp) =>
        Write(
            name,
            days.Select(day =>
            {
                var of = Event(day.Id, day.Title, day.Text, day.Place, stamp);
                (of.Start, of.End) = (new CalDateTime(day.Day), new CalDateTime(day.Day.AddDays(1)));
                of.Categories = [day.Group];
                // A reminder takes nobody's time yet.
                of.Transparency = TransparencyType.Transparent;
                return of;
            })
        );

    /// <summary>Somebody's work, in UTC: each calendar shows it by its own clock.</summary>
    public static string Write(string name, IEnumerable<CalendarVisit> visits, DateTimeOffset stamp) =>
        Write(
            name,
            visits.Select(visit =>
            {
                var of = Event(visit.Id, visit.Title, visit.Text, visit.Place, stamp);
                of.Start = new CalDateTime(visit.Start.UtcDateTime, "UTC");
                of.End = new CalDateTime((visit.Start + visit.Length).UtcDateTime, "UTC");
                of.Sequence = visit.Sequence;
                of.Status = visit.Cancelled ? EventStatus.Cancelled : EventStatus.Confirmed;
                return of;
            })
        );

    private static string Write(string name, IEnumerable<CalendarEvent> events)
    {
        var calendar = new Calendar { ProductId = Product, Method = "PUBLISH" };
        calendar.AddProperty("X-WR-CALNAME", name);
        foreach (var of in events)
            calendar.Events.Add(of);
        return new CalendarSerializer().SerializeToString(calendar) ?? "";
    }

    private static CalendarEvent Event(string id, string title, string text, string place, DateTimeOffset stamp) =>
        new()
        {
            Uid = $"{id}@pyrometron",
            DtStamp = new CalDateTime(stamp.UtcDateTime, "UTC"),
            Summary = title,
            Description = text,
            Location = place,
        };
}
