using System.Globalization;
using NodaTime;
using Pyrometron.Formats.Tables;

namespace Pyrometron.Formats.Logs;

/// <summary>
/// The time of a log's lines: instants with their offset as they are, local ones in the log's zone. In the hour that a clock set
/// back lives twice, times that go back belong to the second.
/// </summary>
/// <param name="zone">The zone in which local times are meant.</param>
/// <param name="dates">How days are written.</param>
internal sealed class LogClock(DateTimeZone zone, DateColumn dates)
{
    private LocalDateTime? _before;
    private bool _second;

    /// <summary>Whether any time was local.</summary>
    public bool SawLocal { get; private set; }

    /// <summary>The zone of a name, or null: the library ships its own data, since a bare machine may have none.</summary>
    public static DateTimeZone? Zone(string name) => DateTimeZoneProviders.Tzdb.GetZoneOrNull(name);

    /// <summary>The instant of a cell with day and time.</summary>
    /// <returns>Milliseconds since 1970; null where it is none.</returns>
    public long? Read(string cell)
    {
        var text = cell.Trim();
        if (
            double.TryParse(text, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number)
            && number is >= 1e9 and < 1e14
        )
            return (long)Math.Round(number >= 1e11 ? number : number * 1000);
        var at = text.IndexOfAny(['T', ' ']);
        while (
            at > 0
            && at < text.Length - 1
            && !(char.IsAsciiDigit(text[at + 1]) && text.IndexOf(':', at) is > 0 and var colon && colon <= at + 3)
        )
            at = text.IndexOfAny(['T', ' '], at + 1);
        return at <= 0 ? null : Read(text[..at].TrimEnd(',', ' '), text[(at + 1)..]);
    }

    /// <summary>The instant of a day and a time of day in two cells.</summary>
    public long? Read(string day, string time)
    {
        if (dates.Read(day) is not { } date || TimeOf(time, out var offset) is not { } clock)
            return null;
        var local = new LocalDate(date.Year, date.Month, date.Day).At(LocalTime.Midnight).PlusTicks(clock.Ticks);
        if (offset is { } known)
            return local.WithOffset(Offset.FromTimeSpan(known)).ToInstant().ToUnixTimeMilliseconds();
        SawLocal = true;
        var mapping = zone.MapLocal(local);
        // Going back within the doubled hour means that the clock was set back.
        if (mapping.Count < 2)
            _second = false;
        else if (_before is { } before && local < before)
            _second = true;
        _before = local;
        return (
            mapping.Count switch
            {
                2 => _second ? mapping.Last() : mapping.First(),
                1 => mapping.Single(),
                _ => zone.AtLeniently(local),
            }
        )
            .ToInstant()
            .ToUnixTimeMilliseconds();
    }

    private static TimeSpan? TimeOf(string text, out TimeSpan? offset)
    {
        offset = null;
        var clock = text.Trim();
        if (clock.EndsWith('Z'))
            (clock, offset) = (clock[..^1], TimeSpan.Zero);
        else if (
            clock.LastIndexOfAny(['+', '-']) is > 4 and var sign
            && TimeSpan.TryParseExact(
                clock[(sign + 1)..].Replace(":", "", StringComparison.Ordinal),
                ["hhmm", "hh"],
                CultureInfo.InvariantCulture,
                out var shift
            )
        )
            (clock, offset) = (clock[..sign], clock[sign] == '-' ? -shift : shift);
        clock = clock.Trim();
        var afternoon = clock.EndsWith("PM", StringComparison.OrdinalIgnoreCase);
        var twelve = afternoon || clock.EndsWith("AM", StringComparison.OrdinalIgnoreCase);
        if (twelve)
            clock = clock[..^2].Trim();
        var pieces = clock.Replace(',', '.').Split(':');
        if (
            pieces.Length is < 2 or > 3
            || !int.TryParse(pieces[0], NumberStyles.None, CultureInfo.InvariantCulture, out var hours)
            || !int.TryParse(pieces[1], NumberStyles.None, CultureInfo.InvariantCulture, out var minutes)
        )
            return null;
        var seconds = 0.0;
        if (
            pieces.Length == 3
            && !double.TryParse(pieces[2], NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out seconds)
        )
            return null;
        if (twelve)
            hours = hours % 12 + (afternoon ? 12 : 0);
        return hours is >= 0 and < 24 && minutes is >= 0 and < 60 && seconds is >= 0 and < 61
            ? new TimeSpan(hours, minutes, 0) + TimeSpan.FromSeconds(Math.Min(seconds, 59.999))
            : null;
    }
}
