using System.Globalization;
using System.Text;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Readings;
using Pyrometron.Formats.Csv;
using Pyrometron.Formats.Tables;

namespace Pyrometron.Formats.Logs;

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
                    ? (Message)
                        $"The log tells the time of day or the day, but not both. Found: {found}. Say which column holds what is missing."
                    : $"No column holds the time. Found: {found}. Say which one it is."
                : _parts.All(p => p.Length == 0)
                    ? (Message)
                        $"No column holds a temperature of this machine's parts ({string.Join(", ", parts)}). Found: {found}. Say which one it is."
                    : null;
    }

    /// <summary>Why it is no log of this machine, or null.</summary>
    public Message? Problem { get; }

    /// <summary>Its columns.</summary>
    public IReadOnlyList<LogColumn> Columns => _columns;

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
                yield return InputQuestion.Of(
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
