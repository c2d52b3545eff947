using System.Globalization;

namespace Pyrometron.Formats.Tables;

/// <summary>
/// Days as people write them. Whether 03/04 is in March or in April is told by the column: one day after the twelfth settles it
/// for all of them.
/// </summary>
internal sealed class DateColumn
{
    /// <summary>Spreadsheets number days from here.</summary>
    private static readonly DateOnly SerialStart = new(1899, 12, 30);

    private static readonly string[] Months =
    [
        "jan sty gen ene",
        "feb fev lut",
        "mar mrt maa mär",
        "apr avr abr kwi",
        "may mai mag maj mei",
        "jun juin giu cze",
        "jul juil lug lip",
        "aug aou ago sie",
        "sep set wrz",
        "oct okt ott out paz",
        "nov lis",
        "dec dez dic gru",
    ];

    private readonly bool _monthFirst;

    private DateColumn(bool monthFirst, bool isOpen) => (_monthFirst, IsOpen) = (monthFirst, isOpen);

    /// <summary>Whether nothing in the column tells day from month, although it matters.</summary>
    public bool IsOpen { get; }

    /// <summary>Looks at a column.</summary>
    /// <param name="monthFirst">What somebody answered; null where nobody was asked.</param>
    public static DateColumn Of(IEnumerable<string> cells, bool? monthFirst)
    {
        var (dayFirst, monthFirstSeen, ambiguous) = (false, false, false);
        foreach (var cell in cells)
            if (Parts(cell) is { } p && p.Numbers is [< 100, < 100, _])
            {
                dayFirst |= p.Numbers[0] > 12 || p.Separator is '.' or '-';
                monthFirstSeen |= p.Numbers[1] > 12;
                ambiguous |= p is { Separator: '/' } && p.Numbers[0] <= 12 && p.Numbers[1] <= 12 && p.Numbers[0] != p.Numbers[1];
            }
        return new DateColumn(
            monthFirst ?? (monthFirstSeen && !dayFirst),
            monthFirst is null && ambiguous && !dayFirst && !monthFirstSeen
        );
    }

    /// <summary>The day of a cell, or null where it is none.</summary>
    public DateOnly? Read(string cell)
    {
        var text = cell.Trim();
        if (DateOnly.TryParseExact(text.Split('T', ' ')[0], "yyyy-MM-dd", CultureInfo.InvariantCulture, 0, out var iso))
            return iso;
        if (WithMonthName(text) is { } named)
            return named;
        if (Parts(text) is not { } parts)
            return null;
        return parts.Numbers switch
        {
            [var year and >= 1900 and <= 2200] => Day(year, 1, 1),
            [var serial and >= 20_000 and <= 80_000] => SerialStart.AddDays(serial),
            [var year and >= 1000, var month, var day] => Day(year, month, day),
            [var a, var b, var year] => _monthFirst && a <= 12 || b > 12 ? Day(Full(year), a, b) : Day(Full(year), b, a),
            [var month, var year and >= 1000] => Day(year, month, 1),
            [var year and >= 1000, var month] => Day(year, month, 1),
            _ => null,
        };
    }

    private static (int[] Numbers, char Separator)? Parts(string cell)
    {
        var text = cell.Trim();
        // A time of day behind the day says nothing here.
        if (
            text.IndexOf(' ', StringComparison.Ordinal) is > 0 and var at
            && text[(at + 1)..].Contains(':', StringComparison.Ordinal)
        )
            text = text[..at];
        var separator = text.FirstOrDefault(c => c is '/' or '.' or '-' or ' ');
        var pieces = text.Split(['/', '.', '-', ' '], StringSplitOptions.RemoveEmptyEntries);
        var numbers = new int[pieces.Length];
        for (var i = 0; i < pieces.Length; i++)
            if (pieces[i].Length > 5 || !int.TryParse(pieces[i], NumberStyles.None, CultureInfo.InvariantCulture, out numbers[i]))
                return null;
        return pieces.Length is >= 1 and <= 3 ? (numbers, separator) : null;
    }

    private static DateOnly? WithMonthName(string text)
    {
        var words = Folded.Of(text).Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var month = -1;
        var numbers = new List<int>();
        foreach (var word in words)
            if (
                int.TryParse(
                    word.TrimEnd('s', 't', 'n', 'd', 'r', 'h'),
                    NumberStyles.None,
                    CultureInfo.InvariantCulture,
                    out var n
                )
            )
                numbers.Add(n);
            else if (month < 0 && word.Length >= 3)
                month = Array.FindIndex(
                    Months,
                    m => m.Split(' ').Any(stem => word.StartsWith(Folded.Of(stem), StringComparison.Ordinal))
                );
        return month < 0
            ? null
            : numbers.ToArray() switch
            {
                [var year and >= 1000] => Day(year, month + 1, 1),
                [var year] => Day(Full(year), month + 1, 1),
                [var year and >= 1000, var day] => Day(year, month + 1, day),
                [var day, var year] => Day(Full(year), month + 1, day),
                _ => null,
            };
    }

    private static int Full(int year) =>
        year >= 100 ? year
        : year >= 80 ? 1900 + year
        : 2000 + year;

    private static DateOnly? Day(int year, int month, int day) =>
        year is >= 1 and <= 9999 && month is >= 1 and <= 12 && day >= 1 && day <= DateTime.DaysInMonth(year, month)
            ? new DateOnly(year, month, day)
            : null;
}
