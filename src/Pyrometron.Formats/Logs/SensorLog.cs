using NodaTime;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Readings;
using Pyrometron.Formats.Tables;

namespace Pyrometron.Formats.Logs;

/// <summary>How a log is to be read.</summary>
/// <param name="Machines">Names of the parts of each machine of the fleet, by its tag.</param>
/// <param name="Asset">The machine it was written on; null where the log says so itself.</param>
/// <param name="TimeZone">The zone of times without an offset; null where nobody has said.</param>
/// <param name="Headers">Field of a header, by its folded form.</param>
/// <param name="Words">Meaning of a header of dates, by its folded form.</param>
public sealed record LogSettings(
    IReadOnlyDictionary<string, IReadOnlyList<string>> Machines,
    string? Asset,
    string? TimeZone,
    IReadOnlyDictionary<string, string> Headers,
    IReadOnlyDictionary<string, string> Words
);

/// <summary>What a log holds of one machine.</summary>
/// <param name="Tag">The machine.</param>
public sealed record LoggedMachine(string Tag, CondensedLog Log);

/// <summary>A sensor log as read and condensed.</summary>
/// <param name="Machines">In the order in which the log tells of them.</param>
/// <param name="RejectedCount">All lines that could not be used; the first hundred are listed.</param>
public sealed record SensorLogRead(
    IReadOnlyList<LogColumn> Columns,
    IReadOnlyList<LoggedMachine> Machines,
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
        var machines = LogMachines.Of(head, settings);
        var layouts = new LogLayouts(machines, settings.Machines);
        if (layouts.Begin(head) is { } problem)
            return Unread(head, layouts, problem);
        var first = layouts.First;
        var questions = new List<InputQuestion>();
        var clock = new LogClock(ZoneOf(settings.TimeZone), DatesOf(head, first, settings, questions));
        var rejected = new List<InputProblem>();
        var count = 0;
        void Reject(int line, string? column, Message message)
        {
            count++;
            if (rejected.Count < MostListed)
                rejected.Add(new InputProblem(message, line, column));
        }
        foreach (var (tag, why) in layouts.Problems.Where(p => settings.Asset is null || settings.Asset == p.Tag))
            Reject(head.HeaderLine, null, $"{tag}: {why}");
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
            else if (records.Count != head.Headers.Length)
            {
                if (records.Count > 1 || records.Field(0).Length > 0)
                    Reject(records.Line, null, WrongWidth(records.Count, head.Headers.Length));
            }
            else if (first.TimeOf(records, clock) is not { } at)
            {
                // The headers again, or the units below them, are no samples.
                if (LogHead.Text(records.Field(first.TimeColumn)) is var cell && cell.Any(char.IsAsciiDigit))
                    Reject(records.Line, head.Headers[first.TimeColumn], $"'{MachineTable.Short(cell)}' is no time.");
            }
            else if (at > latest)
                Reject(records.Line, head.Headers[first.TimeColumn], "The time lies in the future.");
            else if (layouts.Add(records, at, settings.Asset) is { } unknown)
                Reject(
                    records.Line,
                    head.Headers[machines.TagColumn],
                    $"'{MachineTable.Short(unknown)}' is no machine of the fleet with a temperature in this log."
                );
        }
        if (clock.SawLocal && settings.TimeZone is null)
            questions.Add(
                InputQuestion.Of(
                    ZoneQuestion,
                    "The log's times carry no offset. In which time zone was it written? It is read as UTC.",
                    ["UTC"]
                )
            );
        questions.AddRange(first.Questions(head.First));
        return new SensorLogRead(
            layouts.Columns(),
            layouts.Finish(),
            rejected,
            count,
            questions,
            [.. head.First.Take(ShownLines)]
        );
    }

    /// <summary>What is known of a log that lacks a column: enough to say which one it is.</summary>
    private static SensorLogRead Unread(LogHead head, LogLayouts layouts, Message problem) =>
        new(layouts.Columns(), [], [new InputProblem(problem, head.HeaderLine)], 1, [], [.. head.First.Take(ShownLines)])
        {
            Problem = new InputProblem(problem, head.HeaderLine),
        };

    private static Message WrongWidth(int cells, int columns) =>
        cells > columns
            ? (Message)
                $"The line has {cells} cells, the header {columns}: a decimal comma in a file parted by commas? Write it with semicolons, or with decimal points."
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
                InputQuestion.Of(
                    header,
                    $"Do the days in '{header}' begin with the day or with the month? They are read with the day first.",
                    [TableMeanings.DayFirst, TableMeanings.MonthFirst]
                )
            );
        return dates;
    }
}
