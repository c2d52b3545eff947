using System.Globalization;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;

namespace Pyrometron.Formats.Csv;

/// <summary>One line of a services file: a service, or why it is refused.</summary>
public readonly record struct ServiceLine(int Line, string Asset, ServiceDone? Service, InputProblem? Problem);

/// <summary>Reads services CSV: <c>date,asset,level</c>.</summary>
public static class ServicesCsv
{
    /// <summary>The most lines of one file: five services of each of a hundred thousand machines.</summary>
    public const int MostLines = 500_000;

    /// <summary>Reads the file lazily.</summary>
    /// <param name="isKnown">Whether a tag is in the fleet.</param>
    /// <param name="today">Services later than tomorrow are refused.</param>
    /// <param name="delimiter">What parts its cells.</param>
    /// <exception cref="RefusedInputException">It is no services file at all.</exception>
    public static IEnumerable<ServiceLine> Read(
        Stream csv,
        Func<string, bool> isKnown,
        DateOnly today,
        CsvDelimiter delimiter = CsvDelimiter.Comma
    )
    {
        var records = new CsvRecords(csv, CsvForm.Written(delimiter));
        var names = CsvHeader.Read(records, CsvForm.Services);
        return Lines(records, names, isKnown, today, delimiter == CsvDelimiter.Comma ? IsoDays : AnyDays);
    }

    private static readonly string[] IsoDays = ["yyyy-MM-dd"],
        AnyDays = ["yyyy-MM-dd", "d.M.yyyy"];

    private static IEnumerable<ServiceLine> Lines(
        CsvRecords records,
        string[] names,
        Func<string, bool> isKnown,
        DateOnly today,
        string[] days
    )
    {
        for (var count = 0; records.Read(); count++)
            yield return count < MostLines
                ? ReadLine(records, names, isKnown, today, days)
                : throw new RefusedInputException(
                    new InputProblem($"The file has more than {MostLines:#,0} lines; send it in parts.", records.Line)
                );
    }

    private static ServiceLine ReadLine(
        CsvRecords records,
        string[] names,
        Func<string, bool> isKnown,
        DateOnly today,
        string[] days
    )
    {
        ServiceLine Refuse(string? column, Message message) =>
            new(records.Line, "", null, new InputProblem(message, records.Line, column));
        string Cell(string column) =>
            CsvHeader.TryText(records.Field(Array.IndexOf(names, column)), out var text) && text.Length <= 80
                ? text
                : "(not readable)";

        if (records.Problem is { } problem)
            return Refuse(null, $"Not readable: {problem}.");
        if (records.Count != names.Length)
            return Refuse(null, $"The line has {records.Count} cells, the header {names.Length}.");
        var (date, asset, level) = (Cell("date"), Cell("asset"), Cell("level"));
        if (!DateOnly.TryParseExact(date, days, CultureInfo.InvariantCulture, DateTimeStyles.None, out var day))
            return Refuse("date", $"'{date}' is no date such as 2026-05-01.");
        if (!ServiceDone.IsPossible(day, today))
            return Refuse("date", $"'{date}' is not a day on which this machine can have been serviced.");
        if (!isKnown(asset))
            return Refuse("asset", $"'{asset}' is not in the fleet; import its fleet document first.");
        if (!Words.TryRead<ServiceLevel>(level, out var known))
            return Refuse("level", $"'{level}' is no service level; use one of {Words.List<ServiceLevel>()}.");
        return new ServiceLine(records.Line, asset, new ServiceDone(day, known), null);
    }
}
