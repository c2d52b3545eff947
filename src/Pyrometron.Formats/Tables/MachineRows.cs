using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;

namespace Pyrometron.Formats.Tables;

/// <summary>Reads the lines of a table of machines by its columns.</summary>
internal sealed class MachineRows(TableColumn[] columns, List<TableRow> rows, TableMeanings meanings, DateOnly today)
{
    private const int MostQuestions = 30;

    private readonly Dictionary<string, InputQuestion> _questions = [];
    private readonly Dictionary<MachineField, int> _at = columns
        .Select((c, i) => (c.Field, i))
        .Where(c => c.Field != MachineField.Ignore)
        .ToDictionary(c => c.Field, c => c.i);
    private readonly Dictionary<MachineField, DateColumn> _dates = [];

    /// <summary>What the cells do not say by themselves.</summary>
    public IReadOnlyCollection<InputQuestion> Questions => _questions.Values;

    /// <summary>All lines that can be taken; why the others cannot is added.</summary>
    public List<TableMachine> Read(List<InputProblem> refused)
    {
        foreach (
            var field in (MachineField[])[MachineField.InServiceSince, MachineField.WarrantyUntil, MachineField.LastServiceDate]
        )
            if (_at.TryGetValue(field, out var column))
                _dates[field] = DatesOf(column);
        var tags = rows.GroupBy(r => Cell(r, MachineField.Tag)).ToDictionary(g => g.Key, g => g.First().Line);
        var machines = new List<TableMachine>();
        foreach (var row in rows)
        {
            var problems = new List<InputProblem>();
            var machine = Of(row, problems);
            if (machine.Tag.Length > 0 && tags[machine.Tag] != row.Line)
                problems.Add(
                    Problem(
                        row,
                        MachineField.Tag,
                        $"'{MachineTable.Short(machine.Tag)}' stands on line {tags[machine.Tag]} already."
                    )
                );
            if (problems.Count == 0)
                machines.Add(machine);
            else
                refused.AddRange(problems);
        }
        return machines;
    }

    private DateColumn DatesOf(int column)
    {
        var header = columns[column].Header;
        bool? monthFirst = meanings.Words.GetValueOrDefault(TableMeanings.KeyOf(header)) switch
        {
            TableMeanings.MonthFirst => true,
            TableMeanings.DayFirst => false,
            _ => null,
        };
        var dates = DateColumn.Of(rows.Select(r => column < r.Cells.Length ? r.Cells[column] : ""), monthFirst);
        if (dates.IsOpen)
            Ask(
                header,
                $"Do the days in '{header}' begin with the day or with the month? They are read with the day first.",
                [TableMeanings.DayFirst, TableMeanings.MonthFirst]
            );
        return dates;
    }

    private TableMachine Of(TableRow row, List<InputProblem> problems)
    {
        string? Text(MachineField field)
        {
            var text = Cell(row, field);
            if (MachineTable.IsTooLong(text) || text.Any(char.IsControl))
                problems.Add(
                    Problem(row, field, "The text is longer than 200 letters, or holds characters that cannot be printed.")
                );
            return text.Length == 0 ? null : text;
        }
        var tag = Cell(row, MachineField.Tag);
        if (tag.Length == 0)
            problems.Add(Problem(row, MachineField.Tag, "The tag is missing."));
        else if (!Asset.IsTag(tag) || tag.Length > 80 || tag.Any(char.IsControl))
            problems.Add(Problem(row, MachineField.Tag, $"'{MachineTable.Short(tag)}' {Asset.TagRule}."));
        return new TableMachine(row.Line, tag)
        {
            Kind = KindOf(row, problems),
            Model = Text(MachineField.Model),
            Site = Text(MachineField.Site),
            Zone = Text(MachineField.Zone),
            Dust = WordOf(row, MachineField.Dust, CellWords.Dust, problems),
            DesignAmbientCelsius = Number(row, MachineField.DesignAmbientCelsius, -40, 80, problems, isTemperature: true),
            AltitudeMetres = Number(row, MachineField.AltitudeMetres, -500, 9000, problems),
            DutyHoursPerDay = Number(row, MachineField.DutyHoursPerDay, 0, 24, problems),
            InServiceSince = Day(row, MachineField.InServiceSince, problems),
            WarrantyUntil = Day(row, MachineField.WarrantyUntil, problems),
            HostTag = Text(MachineField.HostTag),
            LastServiceDate = Day(row, MachineField.LastServiceDate, problems),
            LastServiceLevel = WordOf(row, MachineField.LastServiceLevel, CellWords.Level, problems),
            LimitCelsius = Number(row, MachineField.LimitCelsius, 20, 300, problems, isTemperature: true),
        };
    }

    private AssetKind? KindOf(TableRow row, List<InputProblem> problems)
    {
        var text = Cell(row, MachineField.Kind);
        if (text.Length == 0)
            return null;
        if (Words.TryRead<AssetKind>(meanings.Words.GetValueOrDefault(TableMeanings.KeyOf(text)), out var settled))
            return settled;
        if (CellWords.Kind(text) is { } kind)
            return kind;
        Ask(text, $"What kind of machine is '{MachineTable.Short(text)}'?", [.. Enum.GetValues<AssetKind>().Select(Words.Of)]);
        problems.Add(
            Problem(row, MachineField.Kind, $"'{MachineTable.Short(text)}' is no kind of machine that is known; say which it is.")
        );
        return null;
    }

    private T? WordOf<T>(TableRow row, MachineField field, Func<string, T?> read, List<InputProblem> problems)
        where T : struct, Enum
    {
        var text = Cell(row, field);
        if (text.Length == 0)
            return null;
        if (read(text) is { } value)
            return value;
        problems.Add(Problem(row, field, $"'{MachineTable.Short(text)}' is none of {Words.List<T>()}."));
        return null;
    }

    private double? Number(
        TableRow row,
        MachineField field,
        double least,
        double most,
        List<InputProblem> problems,
        bool isTemperature = false
    )
    {
        var text = Cell(row, field);
        if (text.Length == 0)
            return null;
        if (CellNumber.Read(text, out var fahrenheit) is not { } value)
        {
            problems.Add(
                Problem(
                    row,
                    field,
                    $"'{MachineTable.Short(text)}' is no number. Write it without thousands separators, such as 21.5 or 21,5."
                )
            );
            return null;
        }
        if (isTemperature && (fahrenheit || IsFahrenheit(columns[_at[field]].Header)))
            value = Math.Round(CellNumber.ToCelsius(value), 1);
        if (value >= least && value <= most)
            return value;
        problems.Add(Problem(row, field, $"{value:0.##} is not between {least:0} and {most:0}."));
        return null;
    }

    private static bool IsFahrenheit(string header) =>
        header.Contains("°F", StringComparison.OrdinalIgnoreCase)
        || header.Contains("(F)", StringComparison.OrdinalIgnoreCase)
        || header.Contains("fahrenheit", StringComparison.OrdinalIgnoreCase);

    private DateOnly? Day(TableRow row, MachineField field, List<InputProblem> problems)
    {
        var text = Cell(row, field);
        if (text.Length == 0)
            return null;
        if (_dates[field].Read(text) is not { } day)
        {
            problems.Add(Problem(row, field, $"'{MachineTable.Short(text)}' is no day. Write it as 2026-03-31 or 31.3.2026."));
            return null;
        }
        var possible =
            field == MachineField.LastServiceDate
                ? ServiceDone.IsPossible(day, today)
                : day >= Asset.EarliestDay && day <= Asset.LatestDay;
        if (possible)
            return day;
        problems.Add(Problem(row, field, $"{day} cannot be: it lies too far away, or in the future."));
        return null;
    }

    private string Cell(TableRow row, MachineField field) =>
        _at.TryGetValue(field, out var column) && column < row.Cells.Length && !MachineColumns.IsEmpty(row.Cells[column])
            ? row.Cells[column]
            : "";

    private InputProblem Problem(TableRow row, MachineField field, Message message) =>
        new(message, row.Line, _at.TryGetValue(field, out var column) ? columns[column].Header : MachineTable.NameOf(field));

    private void Ask(string about, Message ask, IReadOnlyList<string> choices)
    {
        if (_questions.Count < MostQuestions)
            _questions.TryAdd(about, InputQuestion.Of(about, ask, choices));
    }
}
