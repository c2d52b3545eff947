using System.Buffers.Text;

namespace Pyrometron.Formats.Csv;

/// <summary>
/// ISO 8601 instants with an offset, as readings carry them: <c>2024-10-01T00:00Z</c>, <c>2024-10-01T02:00:30.5+02:00</c>.
/// </summary>
public static class IsoInstant
{
    /// <summary>Reads an instant; seconds and their fraction may be left out, the offset may not.</summary>
    /// <param name="unixMilliseconds">Milliseconds since 1970; a finer fraction is cut.</param>
    public static bool TryParse(ReadOnlySpan<byte> text, out long unixMilliseconds)
    {
        unixMilliseconds = 0;
        if (
            text.Length < 17
            || text[4] != '-'
            || text[7] != '-'
            || text[10] is not ((byte)'T' or (byte)'t' or (byte)' ')
            || text[13] != ':'
            || !Digits(text, 0, 4, out var year)
            || !Digits(text, 5, 2, out var month)
            || !Digits(text, 8, 2, out var day)
            || !Digits(text, 11, 2, out var hour)
            || !Digits(text, 14, 2, out var minute)
            || year < 1
            || month is < 1 or > 12
            || day < 1
            || day > DateTime.DaysInMonth(year, month)
            || hour > 23
            || minute > 59
        )
            return false;
        int at = 16,
            second = 0,
            millisecond = 0;
        if (text[at] == ':')
        {
            if (!Digits(text, at + 1, 2, out second) || second > 59)
                return false;
            at += 3;
            if (at < text.Length && text[at] is (byte)'.' or (byte)',')
            {
                var digits = 0;
                for (at++; at < text.Length && text[at] is >= (byte)'0' and <= (byte)'9'; at++, digits++)
                    if (digits < 3)
                        millisecond = millisecond * 10 + (text[at] - '0');
                if (digits == 0)
                    return false;
                for (; digits < 3; digits++)
                    millisecond *= 10;
            }
        }
        if (!Offset(text[at..], out var offsetMinutes))
            return false;
        var local = new DateTimeOffset(
            year,
            month,
            day,
            hour,
            minute,
            second,
            millisecond,
            TimeSpan.Zero
        ).ToUnixTimeMilliseconds();
        unixMilliseconds = local - offsetMinutes * 60_000L;
        return true;
    }

    private static bool Offset(ReadOnlySpan<byte> text, out int minutes)
    {
        minutes = 0;
        if (text.Length == 1)
            return text[0] is (byte)'Z' or (byte)'z';
        if (text.Length < 3 || text[0] is not ((byte)'+' or (byte)'-') || !Digits(text, 1, 2, out var hours))
            return false;
        var rest = text[3..];
        if (rest.Length > 0 && rest[0] == ':')
            rest = rest[1..];
        var odd = 0;
        if ((text.Length > 3 && (rest.Length != 2 || !Digits(rest, 0, 2, out odd))) || hours > 14 || odd > 59)
            return false;
        minutes = (text[0] == '-' ? -1 : 1) * (hours * 60 + odd);
        return true;
    }

    private static bool Digits(ReadOnlySpan<byte> text, int start, int length, out int value)
    {
        value = 0;
        if (start + length > text.Length)
            return false;
        foreach (var c in text.Slice(start, length))
        {
            if (c is < (byte)'0' or > (byte)'9')
                return false;
            value = value * 10 + (c - '0');
        }
        return true;
    }

    /// <summary>A finite decimal number that fills the whole text; surrounding spaces are let pass.</summary>
    public static bool TryNumber(ReadOnlySpan<byte> text, out double value)
    {
        text = text.Trim((byte)' ');
        return Utf8Parser.TryParse(text, out value, out var used) && used == text.Length && double.IsFinite(value);
    }
}
