using System.Globalization;
using System.Text;
using NodaTime;
using Pyrometron.Core.Readings;
using Pyrometron.Formats.Csv;
using Pyrometron.Formats.Tables;

namespace Pyrometron.Formats.Logs;

/// <summary>How a log is to be read.</summary>
/// <param name="Parts">Names of the machine's parts.</param>
/// <param name="TimeZone">The zone of times without an offset; null where nobody has said.</param>
/// <param name="Headers">Field of a header, by its folded form.</param>
/// <param name="Words">Meaning of a header of dates, by its folded form.</param>
public sealed record LogSettings(
    IReadOnlyList<string> Parts,
    string? TimeZone,
    IReadOnlyDictionary<string, string> Headers,
    IReadOnlyDictionary<string, string> Words
);

/// <summary>A sensor log as read and condensed.</summary>
/// <param name="RejectedCount">All lines that could not be used; the first hundred are listed.</param>
public sealed record SensorLogRead(
    IReadOnlyList<LogColumn> Columns,
    CondensedLog Log,
    IReadOnlyList<InputProblem> Rejected,
    int RejectedCount,
    IReadOnlyList<InputQuestion> Questions,
    IReadOnlyList<string[]> FirstLines
)
{
    /// <summary>What it lacks, so that nothing of it could be read; null where it was read.</summary>
    public InputProblem? Problem { get; init; }
}

/// <summary>
/// Reads the log that a monitoring program writes: one column a sensor, a line a few seconds, any headers, delimiter, decimal
/// sign and usual form of time. Streams; memory does not grow with the log.
/// </summary>
public static class SensorLog
{
    /// <summary>What a question about the zone is about.</summary>
    public const string ZoneQuestion = "timeZone";

    private const int MostListed = 100,
        ShownLines = 5;

    /// <summary>Reads a log.</summary>
    /// <param name="open">Goes to its start; called more than once. The stream stays the caller's.</param>
    /// <param name="latest">Later times cannot be, milliseconds since 1970.</param>
    /// <param name="progress">Told of bytes read.</param>
    /// <exception cref="RefusedInputException">It is no sensor log.</exception>
    /// <exception cref="OperationCanceledException">Nobody waits for it any more.</exception>
    public static SensorLogRead Read(
        Func<Stream> open,
        LogSettings settings,
        long latest,
        Action<long>? progress = null,
        CancellationToken cancellation = default
    )
    {
        var head = LogHead.Of(open);
        var columns = LogColumns.Match(head.Headers, head.Units, head.First, settings.Parts, settings.Headers);
        var layout = new LogLayout(columns, settings.Parts);
        if (layout.Problem is { } problem)
            return Unread(head, columns, problem);
        var questions = new List<InputQuestion>();
        var zone = ZoneOf(settings.TimeZone);
        var dates = DatesOf(head, layout, settings, questions);
        var clock = new LogClock(zone, dates);
        var condenser = new SampleCondenser(settings.Parts.Count);
        var rejected = new List<InputProblem>();
        var count = 0;
        void Reject(int line, string? column, string message)
        {
            count++;
            if (rejected.Count < MostListed)
                rejected.Add(new InputProblem(message, line, column));
        }
        var records = head.Records(open());
        var lines = 0;
        while (records.Read())
        {
            if ((++lines & 0xFFF) == 0)
            {
                cancellation.ThrowIfCancellationRequested();
                progress?.Invoke(records.BytesRead);
            }
            if (records.Problem is { } broken)
                Reject(records.Line, null, $"The line cannot be read: {broken}.");
            else if (records.Count != columns.Length)
            {
                if (records.Count > 1 || records.Field(0).Length > 0)
                    Reject(records.Line, null, WrongWidth(records.Count, columns.Length));
            }
            else if (layout.TimeOf(records, clock) is not { } at)
            {
                // The headers again, or the units below them, are no samples.
                if (LogHead.Text(records.Field(layout.TimeColumn)) is var cell && cell.Any(char.IsAsciiDigit))
                    Reject(records.Line, columns[layout.TimeColumn].Header, $"'{MachineTable.Short(cell)}' is no time.");
            }
            else if (at > latest)
                Reject(records.Line, columns[layout.TimeColumn].Header, "The time lies in the future.");
            else
                condenser.Add(layout.SampleOf(records, at));
        }
        if (clock.SawLocal && settings.TimeZone is null)
            questions.Add(
                new InputQuestion(
                    ZoneQuestion,
                    "The log's times carry no offset. In which time zone was it written? It is read as UTC.",
                    ["UTC"]
                )
            );
        questions.AddRange(layout.Questions(head.First));
        return new SensorLogRead(columns, condenser.Finish(), rejected, count, questions, [.. head.First.Take(ShownLines)]);
    }

    /// <summary>What is known of a log that lacks a column: enough to say which one it is.</summary>
    private static SensorLogRead Unread(LogHead head, LogColumn[] columns, string problem) =>
        new(
            columns,
            new CondensedLog(0, 0, [], null, null),
            [new InputProblem(problem, head.HeaderLine)],
            1,
            [],
            [.. head.First.Take(ShownLines)]
        )
        {
            Problem = new InputProblem(problem, head.HeaderLine),
        };

    private static string WrongWidth(int cells, int columns) =>
        cells > columns
            ? $"The line has {cells} cells, the header {columns}: a decimal comma in a file parted by commas? Write it with semicolons, or with decimal points."
            : $"The line has {cells} cells, the header {columns}: it was cut off.";

    private static DateTimeZone ZoneOf(string? name) =>
        name is null
            ? DateTimeZone.Utc
            : LogClock.Zone(name)
                ?? throw new RefusedInputException(
                    new InputProblem($"'{MachineTable.Short(name)}' is no time zone such as Europe/Lisbon.", Pointer: "/timeZone")
                );

    private static DateColumn DatesOf(LogHead head, LogLayout layout, LogSettings settings, List<InputQuestion> questions)
    {
        var header = head.Headers[layout.DayColumn];
        bool? monthFirst = settings.Words.GetValueOrDefault(TableMeanings.KeyOf(header)) switch
        {
            TableMeanings.MonthFirst => true,
            TableMeanings.DayFirst => false,
            _ => null,
        };
        var dates = DateColumn.Of(
            head.First.Select(r => layout.DayColumn < r.Length ? r[layout.DayColumn].Split('T', ' ')[0].TrimEnd(',') : ""),
            monthFirst
        );
        if (dates.IsOpen)
            questions.Add(
                new InputQuestion(
                    header,
                    $"Do the days in '{header}' begin with the day or with the month? They are read with the day first.",
                    [TableMeanings.DayFirst, TableMeanings.MonthFirst]
                )
            );
        return dates;
    }
}

/// <summary>Where what stands in a log's lines.</summary>
internal sealed class LogLayout
{
    private readonly LogColumn[] _columns;
    private readonly int[][] _parts;
    private readonly int _time,
        _date,
        _clock;

    public LogLayout(LogColumn[] columns, IReadOnlyList<string> parts)
    {
        _columns = columns;
        int At(LogRole role) => Array.FindIndex(columns, c => c.Field.Role == role);
        (_time, _date, _clock) = (At(LogRole.Time), At(LogRole.Date), At(LogRole.ClockTime));
        _parts =
        [
            .. parts.Select(p =>
                Enumerable
                    .Range(0, columns.Length)
                    .Where(c => columns[c].Field is { Role: LogRole.Part } f && f.Part == p)
                    .ToArray()
            ),
        ];
        var found = string.Join(", ", columns.Take(30).Select(c => $"'{MachineTable.Short(c.Header)}'"));
        Problem =
            _time < 0 && (_date < 0 || _clock < 0)
                ? _clock >= 0 || _date >= 0
                    ? $"The log tells the time of day or the day, but not both. Found: {found}. Say which column holds what is missing."
                    : $"No column holds the time. Found: {found}. Say which one it is."
                : _parts.All(p => p.Length == 0)
                    ? $"No column holds a temperature of this machine's parts ({string.Join(", ", parts)}). Found: {found}. Say which one it is."
                    : null;
    }

    /// <summary>Why it is no log of this machine, or null.</summary>
    public string? Problem { get; }

    /// <summary>The column that a wrong time is told of.</summary>
    public int TimeColumn => _time >= 0 ? _time : _clock;

    /// <summary>The column with the day.</summary>
    public int DayColumn => _time >= 0 ? _time : _date;

    public long? TimeOf(CsvRecords records, LogClock clock) =>
        _time >= 0
            ? clock.Read(Encoding.UTF8.GetString(records.Field(_time)))
            : clock.Read(Encoding.UTF8.GetString(records.Field(_date)), Encoding.UTF8.GetString(records.Field(_clock)));

    public Sample SampleOf(CsvRecords records, long at)
    {
        var parts = new double[_parts.Length];
        for (var p = 0; p < parts.Length; p++)
        {
            // Of several sensors of one part the hottest counts.
            parts[p] = double.NaN;
            foreach (var column in _parts[p])
                if (Temperature(records, column) is var c && !double.IsNaN(c) && !(parts[p] >= c))
                    parts[p] = c;
        }
        double Of(LogRole role) =>
            Array.FindIndex(_columns, c => c.Field.Role == role) is var i && i >= 0 ? Number(records, i) : double.NaN;
        var ambient = Array.FindIndex(_columns, c => c.Field.Role == LogRole.Ambient);
        var clock = Array.FindIndex(_columns, c => c.Field.Role == LogRole.Clock);
        return new Sample(
            at,
            ambient < 0 ? double.NaN : Temperature(records, ambient),
            NotBelowZero(Of(LogRole.Power)),
            clock < 0
                ? double.NaN
                : NotBelowZero(Number(records, clock) * (_columns[clock].Unit == LogUnit.Gigahertz ? 1000 : 1)),
            Of(LogRole.Load),
            NotBelowZero(Of(LogRole.FanRpm)),
            NotBelowZero(Of(LogRole.FanPercent)),
            parts
        );
    }

    /// <summary>
    /// What is asked: columns that look like sensors and were not known, as far as the machine lacks something.
    /// </summary>
    public IEnumerable<InputQuestion> Questions(List<string[]> first)
    {
        string[] missing =
        [
            .. ((LogRole[])[LogRole.Ambient, LogRole.Power, LogRole.FanRpm])
                .Where(r => _columns.All(c => c.Field.Role != r))
                .Select(r => new LogField(r).Name),
        ];
        for (var c = 0; c < _columns.Length; c++)
            if (
                _columns[c]
                    is {
                        Guessed: true,
                        Field.Role: LogRole.Ignore,
                        Unit: LogUnit.Celsius or LogUnit.Fahrenheit or LogUnit.None
                    } column
                && first.Count > 0
                && c < first[0].Length
                && CellNumber.Read(first[0][c], out _) is not null
                && missing.Length > 0
            )
                yield return new InputQuestion(
                    column.Header,
                    $"What is in the column '{column.Header}', such as '{MachineTable.Short(first[0][c])}'?",
                    [.. missing, LogField.Ignore.Name]
                );
    }

    private double Temperature(CsvRecords records, int column)
    {
        var value = Number(records, column);
        var celsius = _columns[column].Unit switch
        {
            LogUnit.Fahrenheit => CellNumber.ToCelsius(value),
            LogUnit.Kelvin => value - 273.15,
            _ => value,
        };
        return celsius is >= Reading.ColdestC and <= Reading.HottestC ? celsius : double.NaN;
    }

    private static double NotBelowZero(double value) => value >= 0 ? value : double.NaN;

    /// <summary>A number with a decimal point or comma, perhaps with its unit; NaN where it is none.</summary>
    private static double Number(CsvRecords records, int column)
    {
        var cell = records.Field(column);
        if (cell.Length is 0 or > 40)
            return double.NaN;
        Span<byte> plain = stackalloc byte[cell.Length];
        cell.CopyTo(plain);
        plain.Replace((byte)',', (byte)'.');
        return double.TryParse(plain, NumberStyles.Float, CultureInfo.InvariantCulture, out var value) && double.IsFinite(value)
            ? value
            : CellNumber.Read(Encoding.UTF8.GetString(cell), out _) ?? double.NaN;
    }
}
