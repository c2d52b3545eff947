using Pyrometron.Core.Fleet;
using Pyrometron.Formats.Csv;

namespace Pyrometron.Formats.Tables;

/// <summary>A line of a table of machines; null where it does not say.</summary>
public sealed record TableMachine(int Line, string Tag)
{
    public AssetKind? Kind { get; init; }
    public string? Model { get; init; }
    public string? Site { get; init; }
    public string? Zone { get; init; }
    public DustClass? Dust { get; init; }
    public double? DesignAmbientCelsius { get; init; }
    public double? AltitudeMetres { get; init; }
    public double? DutyHoursPerDay { get; init; }
    public DateOnly? InServiceSince { get; init; }
    public DateOnly? WarrantyUntil { get; init; }
    public string? HostTag { get; init; }
    public DateOnly? LastServiceDate { get; init; }
    public ServiceLevel? LastServiceLevel { get; init; }
    public double? LimitCelsius { get; init; }
}

/// <summary>What somebody has settled about tables, now or before.</summary>
/// <param name="Headers">Field of a header, by its folded form.</param>
/// <param name="Words">Meaning of a word or of a header of dates, by its folded form.</param>
public sealed record TableMeanings(IReadOnlyDictionary<string, MachineField> Headers, IReadOnlyDictionary<string, string> Words)
{
    /// <summary>The choices for the order of day and month.</summary>
    public const string DayFirst = "day-month",
        MonthFirst = "month-day";

    /// <summary>The kind that a model's name tells of by itself, or null.</summary>
    public static AssetKind? KindIn(string model) => CellWords.Kind(model);

    /// <summary>What a text is remembered under.</summary>
    public static string KeyOf(string text) => Folded.Of(text);
}

/// <summary>A table of machines as read.</summary>
/// <param name="Machines">The lines that can be taken.</param>
/// <param name="Refused">Those that cannot, with why; the same line may stand there more than once.</param>
public sealed record MachineTable(
    IReadOnlyList<TableColumn> Columns,
    IReadOnlyList<TableMachine> Machines,
    IReadOnlyList<InputProblem> Refused,
    IReadOnlyList<InputQuestion> Questions
)
{
    /// <summary>The most lines of a table.</summary>
    public const int MostLines = 100_000;

    private const int MostColumns = 500,
        LongestText = 200,
        LookedAt = 500;

    /// <summary>Whether a column holds the machines' tags; without one nothing can be taken.</summary>
    public bool HasTags => Columns.Any(c => c.Field == MachineField.Tag);

    /// <summary>What to do where there is none.</summary>
    public InputProblem LacksTags =>
        new(
            $"No column holds the machines' tags. Found: {string.Join(", ", Columns.Take(30).Select(c => c.Header))}. Say which one it is, or add one.",
            1
        );

    /// <summary>Reads a table.</summary>
    /// <param name="today">UTC.</param>
    /// <exception cref="RefusedInputException">It has no header row, or too many lines.</exception>
    public static MachineTable Read(TableText text, TableMeanings meanings, DateOnly today)
    {
        var records = text.Records();
        var headers = HeadersOf(records, text.Delimiter);
        var (rows, refused) = RowsOf(records, headers.Length);
        var columns = MachineColumns.Match(headers, [.. rows.Take(LookedAt).Select(r => r.Cells)], meanings.Headers);
        var reader = new MachineRows(columns, rows, meanings, today);
        var machines = columns.Any(c => c.Field == MachineField.Tag) ? reader.Read(refused) : [];
        return new MachineTable(
            columns,
            machines,
            [.. refused.OrderBy(r => r.Line)],
            [.. QuestionsOf(columns, rows), .. reader.Questions]
        );
    }

    private static string[] HeadersOf(CsvRecords records, char delimiter)
    {
        if (!records.Read())
            throw new RefusedInputException(new InputProblem("The table is empty; it begins with a row of headers.", 1));
        if (records.Problem is { } problem)
            throw new RefusedInputException(new InputProblem($"The header row cannot be read: {problem}.", records.Line));
        if (records.Count > MostColumns)
            throw new RefusedInputException(
                new InputProblem($"The header row has {records.Count} columns; {MostColumns} are the most.", 1)
            );
        if (records.Count == 1)
            throw new RefusedInputException(
                new InputProblem(
                    $"The header row has one column only. Cells are parted by comma, semicolon or tab; this looks like '{delimiter}'.",
                    1
                )
            );
        return [.. Enumerable.Range(0, records.Count).Select(i => TextOf(records, i))];
    }

    private static (List<TableRow> Rows, List<InputProblem> Refused) RowsOf(CsvRecords records, int width)
    {
        var (rows, refused) = (new List<TableRow>(), new List<InputProblem>());
        while (records.Read())
        {
            if (rows.Count + refused.Count >= MostLines)
                throw new RefusedInputException(
                    new InputProblem($"The table has more than {MostLines:#,0} lines; send it in parts.", records.Line)
                );
            if (records.Problem is { } problem)
                refused.Add(new InputProblem($"The line cannot be read: {problem}.", records.Line));
            else if (Enumerable.Range(width, Math.Max(0, records.Count - width)).Any(i => TextOf(records, i).Length > 0))
                refused.Add(new InputProblem($"The line has {records.Count} cells, the header {width}.", records.Line));
            else
            {
                string[] cells = [.. Enumerable.Range(0, Math.Min(width, records.Count)).Select(i => TextOf(records, i))];
                if (cells.Any(c => c.Length > 0))
                    rows.Add(new TableRow(records.Line, cells));
            }
        }
        return (rows, refused);
    }

    /// <summary>A cell; the apostrophe that keeps a spreadsheet from taking it for a formula is taken off.</summary>
    private static string TextOf(CsvRecords records, int index)
    {
        CsvHeader.TryText(records.Field(index), out var text);
        text = text.Trim();
        return text is ['\'', '=' or '+' or '-' or '@', ..] ? text[1..] : text;
    }

    private static IEnumerable<InputQuestion> QuestionsOf(TableColumn[] columns, List<TableRow> rows)
    {
        for (var c = 0; c < columns.Length; c++)
        {
            if (columns[c] is not { Field: MachineField.Ignore, Guessed: true } column)
                continue;
            var at = c;
            string[] examples =
            [
                .. rows.Select(r => at < r.Cells.Length ? r.Cells[at] : "").Where(t => t.Length > 0).Distinct().Take(3),
            ];
            if (examples.Length == 0)
                continue;
            yield return InputQuestion.Of(
                column.Header,
                $"What is in the column '{column.Header}', such as {string.Join(", ", examples.Select(e => $"'{Short(e)}'"))}?",
                [
                    .. Enum.GetValues<MachineField>()
                        .Where(f => columns.All(o => o.Field != f) || f == MachineField.Ignore)
                        .Select(NameOf),
                ]
            );
        }
    }

    /// <summary>A field's name in the API.</summary>
    public static string NameOf(MachineField field) => System.Text.Json.JsonNamingPolicy.CamelCase.ConvertName(field.ToString());

    /// <summary>The field of a name in the API, or null.</summary>
    public static MachineField? FieldOf(string name) =>
        Enum.GetValues<MachineField>().Cast<MachineField?>().FirstOrDefault(f => NameOf(f!.Value) == name);

    /// <summary>A text as messages show it: its first letters.</summary>
    public static string Short(string text) => text.Length > 40 ? text[..40] + "…" : text;

    internal static bool IsTooLong(string text) => text.Length > LongestText;
}

/// <summary>A line of a table.</summary>
internal sealed record TableRow(int Line, string[] Cells);
