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
/// <param name="TimeZone">By whose clock it is done, an IANA name; in UTC where it is none.</param>
/// <param name="Sequence">Grows with each change.</param>
/// <param name="Cancelled">Whether it is not to be done after all.</param>
public sealed record CalendarVisit(
    string Id,
    DateTimeOffset Start,
    TimeSpan Length,
    string TimeZone,
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

    /// <summary>The day from which on revisions of whole days are counted.</summary>
    private static readonly DateOnly FirstDay = new(2026, 1, 1);

    /// <summary>Writes one.</summary>
    /// <param name="name">What the calendar is called.</param>
    /// <param name="days">Whole days, so that they are the same day wherever they are read.</param>
    /// <param name="visits">Work at its time by the clock of its site.</param>
    /// <param name="stamp">When it was written, UTC.</param>
    public static string Write(
        string name,
        IEnumerable<CalendarDay> days,
        IReadOnlyCollection<CalendarVisit> visits,
        DateTimeOffset stamp
    )
    {
        var calendar = new Calendar { ProductId = Product, Method = "PUBLISH" };
        calendar.AddProperty("X-WR-CALNAME", name);
        foreach (var zone in visits.GroupBy(v => v.TimeZone).Where(z => IsZone(z.Key)))
            calendar.AddTimeZone(
                VTimeZone.FromDateTimeZone(
                    zone.Key,
                    zone.Min(v => v.Start).UtcDateTime.AddYears(-1),
                    includeHistoricalData: false
                )
            );
        foreach (var visit in visits)
            calendar.Events.Add(Of(visit, stamp));
        foreach (var day in days)
            calendar.Events.Add(Of(day, stamp));
        return new CalendarSerializer().SerializeToString(calendar) ?? "";
    }

    private static CalendarEvent Of(CalendarDay day, DateTimeOffset stamp)
    {
        var of = Event(day.Id, day.Title, day.Text, day.Place, stamp);
        (of.Start, of.End) = (new CalDateTime(day.Day), new CalDateTime(day.Day.AddDays(1)));
        of.Categories = [day.Group];
        // A reminder takes nobody's time yet.
        of.Transparency = TransparencyType.Transparent;
        // Nobody counts how often a due day has moved: a later file is the newer one.
        of.Sequence = Math.Max(0, DateOnly.FromDateTime(stamp.UtcDateTime).DayNumber - FirstDay.DayNumber);
        return of;
    }

    private static CalendarEvent Of(CalendarVisit visit, DateTimeOffset stamp)
    {
        var of = Event(visit.Id, visit.Title, visit.Text, visit.Place, stamp);
        (of.Start, of.End) = (At(visit.Start, visit.TimeZone), At(visit.Start + visit.Length, visit.TimeZone));
        of.Sequence = visit.Sequence;
        of.Status = visit.Cancelled ? EventStatus.Cancelled : EventStatus.Confirmed;
        return of;
    }

    private static CalDateTime At(DateTimeOffset instant, string zone) =>
        IsZone(zone)
            ? new CalDateTime(TimeZoneInfo.ConvertTime(instant, TimeZoneInfo.FindSystemTimeZoneById(zone)).DateTime, zone)
            : new CalDateTime(instant.UtcDateTime, "UTC");

    /// <summary>Whether a name stands for a zone with a clock of its own, known here and to the calendar library.</summary>
    private static bool IsZone(string zone) =>
        zone.Contains('/', StringComparison.Ordinal)
        && !zone.StartsWith("Etc/", StringComparison.Ordinal)
        && TimeZoneInfo.TryFindSystemTimeZoneById(zone, out _)
        && NodaTime.DateTimeZoneProviders.Tzdb.GetZoneOrNull(zone) is not null;

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
