using System.Globalization;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Proof;
using Pyrometron.Core.Readings;

namespace Pyrometron.Formats.Csv;

/// <summary>
/// Reads a sensor log of one run: CSV with a header, a column <c>minutes</c>, <c>seconds</c> or <c>time</c> (ISO 8601), and any
/// of
/// <c>&lt;part&gt;_c</c>, <c>ambient_c</c>, <c>power_w</c>, <c>clock_mhz</c>, <c>fan_rpm</c>, <c>fan_pct</c>; others are left
/// alone.
/// </summary>
public static class SensorLogCsv
{
    /// <summary>More samples than these are refused: a run lasts minutes or hours.</summary>
    public const int MostSamples = 100_000;

    /// <summary>More temperatures than these are no machine's.</summary>
    public const int MostParts = 64;

    private static readonly string[] Times = ["minutes", "seconds", "time"];

    /// <summary>Reads the whole log.</summary>
    /// <exception cref="RefusedInputException">It is no such log; a line that cannot be used is named.</exception>
    /// <exception cref="OperationCanceledException">Nobody waits for it any more.</exception>
    public static RunLog Read(Stream csv, CancellationToken cancellation = default)
    {
        var records = new CsvRecords(csv);
        var names = CsvHeader.Read(records, new CsvForm("a sensor log", [], ""));
        var clock = Array.FindIndex(names, n => Times.Contains(n));
        if (clock < 0)
            throw Refused($"The header row lacks a column of time; a sensor log needs one of {string.Join(", ", Times)}.", 1);
        var parts = Enumerable
            .Range(0, names.Length)
            .Where(i => names[i].EndsWith("_c", StringComparison.Ordinal) && names[i] is not ("ambient_c" or "outlet_c"))
            .ToArray();
        if (parts.Length == 0)
            throw Refused("The header row names no temperature; a sensor log needs a column such as core_c.", 1);
        if (parts.Length > MostParts)
            throw Refused(
                $"The header row names {parts.Length} temperatures; {MostParts} are the most. Leave out those of other machines.",
                1
            );
        string[] others = ["ambient_c", "power_w", "clock_mhz", "fan_rpm", "fan_pct"];
        var used = parts.Concat(others.Select(o => Array.IndexOf(names, o)).Where(i => i >= 0)).ToArray();
        var times = new List<double>();
        var cells = used.ToDictionary(i => i, _ => new List<double>());
        while (records.Read())
        {
            cancellation.ThrowIfCancellationRequested();
            if (records.Problem is { } problem)
                throw Refused($"Not readable: {problem}.", records.Line);
            if (records.Count != names.Length)
                throw Refused($"The line has {records.Count} cells, the header {names.Length}.", records.Line);
            if (times.Count == MostSamples)
                throw Refused($"The log has more than {MostSamples} samples; cut it to the run.", records.Line);
            times.Add(Minutes(records, clock, names[clock]));
            if (times.Count > 1 && times[^1] < times[^2])
                throw Refused("The samples are not in order of time.", records.Line, names[clock]);
            foreach (var i in used)
                cells[i].Add(Number(records, i, names[i]));
        }
        if (times.Count == 0)
            throw Refused("The log has no samples.", 1);
        double[]? Column(string name) => Array.IndexOf(names, name) is var i && i >= 0 ? [.. cells[i]] : null;
        return new RunLog(
            [.. times.Select(t => t - times[0])],
            [.. parts.Select(i => (names[i][..^2], cells[i].ToArray()))],
            Column("ambient_c"),
            Column("power_w"),
            Column("clock_mhz"),
            Column("fan_rpm"),
            Column("fan_pct")
        );
    }

    private static double Minutes(CsvRecords records, int column, string name)
    {
        if (name == "time")
            return IsoInstant.TryParse(records.Field(column), out var instant)
                ? instant / 60_000.0
                : throw Refused("This is no time such as 2026-05-01T10:30:05Z.", records.Line, name);
        var value = Number(records, column, name);
        return double.IsNaN(value) ? throw Refused("The time is missing.", records.Line, name)
            : name == "seconds" ? value / 60
            : value;
    }

    private static double Number(CsvRecords records, int column, string name)
    {
        if (!CsvHeader.TryText(records.Field(column), out var text))
            throw Refused("This is no text.", records.Line, name);
        if (text.Length == 0)
            return double.NaN;
        if (!double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var value) || !double.IsFinite(value))
            throw Refused($"'{(text.Length > 40 ? text[..40] : text)}' is no number.", records.Line, name);
        if (name.EndsWith("_c", StringComparison.Ordinal) ? value is < -273.15 or > Reading.HottestC : value < 0)
            throw Refused(
                value < 0 ? (Message)$"{text} cannot be: too low." : $"{text} cannot be: too high.",
                records.Line,
                name
            );
        return value;
    }

    private static RefusedInputException Refused(Message message, int line, string? column = null) =>
        new(new InputProblem(message, line, column));
}
