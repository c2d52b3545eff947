using System.Text.RegularExpressions;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Readings;

namespace Pyrometron.Formats.Csv;

/// <summary>One line of a readings file: a reading, or why it is refused.</summary>
public readonly record struct ReadingLine(int Line, string Asset, Reading? Reading, InputProblem? Problem);

/// <summary>
/// Reads readings CSV (RFC 4180, UTF-8): a header row, then one reading window a line. Column order is free; only
/// <c>time</c> and <c>asset</c> must be there.
/// </summary>
/// <param name="partsOf">The part names of an asset in the register's order, or null for an unknown tag.</param>
/// <param name="now">The server's clock: times more than a day ahead of it are refused.</param>
/// <param name="delimiter">What parts its cells.</param>
public sealed partial class ReadingsCsv(
    Func<string, IReadOnlyList<string>?> partsOf,
    DateTimeOffset now,
    CsvDelimiter delimiter = CsvDelimiter.Comma
)
{
    private const int LongestLabel = 200;

    /// <summary>Clocks that were never set count from 1970 or 1980; nothing measured then is in a fleet today.</summary>
    private static readonly long Earliest = new DateTimeOffset(1990, 1, 1, 0, 0, 0, TimeSpan.Zero).ToUnixTimeMilliseconds();

    private readonly long _latest = now.AddDays(1).ToUnixTimeMilliseconds();
    private readonly Dictionary<string, (int Count, string First)> _keptOut = [];
    private readonly List<Message> _warnings = [];
    private readonly Dictionary<string, string> _labels = [];
    private CsvRecords? _records;

    private enum Role
    {
        Unknown,
        Time,
        Asset,
        Ambient,
        Outlet,
        Power,
        FanRpm,
        FanPct,
        Clock,
        Throttled,
        Score,
        Samples,
        Spread,
        Settings,
        Workload,
        Fan,
        Part,
    }

    private static readonly Dictionary<string, Role> Roles = new()
    {
        ["time"] = Role.Time,
        ["asset"] = Role.Asset,
        ["ambient_c"] = Role.Ambient,
        ["outlet_c"] = Role.Outlet,
        ["power_w"] = Role.Power,
        ["fan_rpm"] = Role.FanRpm,
        ["fan_pct"] = Role.FanPct,
        ["clock_mhz"] = Role.Clock,
        ["throttled"] = Role.Throttled,
        ["score"] = Role.Score,
        ["samples"] = Role.Samples,
        ["spread_k"] = Role.Spread,
        ["settings"] = Role.Settings,
        ["workload"] = Role.Workload,
    };

    /// <summary>What was kept out without refusing a line: unknown columns, parts that a machine does not have.</summary>
    public IReadOnlyList<Message> Warnings =>
        [
            .. _warnings,
            .. _keptOut.Select(k =>
                (Message)
                    $"Column '{k.Key}': {k.Value.Count} values kept out, the machine has no such part (first: {k.Value.First})."
            ),
        ];

    /// <summary>Bytes read so far, for progress.</summary>
    public long BytesRead => _records?.BytesRead ?? 0;

    /// <summary>Reads the file lazily; memory stays bounded whatever its size.</summary>
    /// <exception cref="RefusedInputException">It is no readings file at all.</exception>
    public IEnumerable<ReadingLine> Read(Stream csv)
    {
        _records = new CsvRecords(csv, CsvForm.Written(delimiter));
        var names = CsvHeader.Read(_records, CsvForm.Readings);
        var columns = names.Select(n => (Name: n, Role: RoleOf(n))).ToArray();
        foreach (var column in columns.Where(c => c.Role == Role.Unknown))
            _warnings.Add($"Unknown column '{column.Name}' was kept out.");
        return Lines(_records, columns);
    }

    private static Role RoleOf(string name) =>
        Roles.TryGetValue(name, out var role) ? role
        : FanColumn().IsMatch(name) ? Role.Fan
        : PartColumn().IsMatch(name) ? Role.Part
        : Role.Unknown;

    private IEnumerable<ReadingLine> Lines(CsvRecords records, (string Name, Role Role)[] columns)
    {
        var (timeAt, assetAt) = (
            Array.FindIndex(columns, c => c.Role == Role.Time),
            Array.FindIndex(columns, c => c.Role == Role.Asset)
        );
        var partNames = columns.Select(c => c.Role == Role.Part ? c.Name[..^2] : "").ToArray();
        while (records.Read())
            yield return ReadLine(records, columns, partNames, timeAt, assetAt);
    }

    private ReadingLine ReadLine(
        CsvRecords records,
        (string Name, Role Role)[] columns,
        string[] partNames,
        int timeAt,
        int assetAt
    )
    {
        var line = records.Line;
        ReadingLine Refuse(string? column, Message message) => new(line, "", null, new InputProblem(message, line, column));

        if (records.Problem is { } problem)
            return Refuse(null, $"Not readable: {problem}.");
        if (records.Count != columns.Length)
            return Refuse(null, $"The line has {records.Count} cells, the header {columns.Length}.");
        if (!IsoInstant.TryParse(records.Field(timeAt), out var at))
            return Refuse("time", $"'{Shown(records.Field(timeAt))}' is no time with an offset, such as 2026-05-01T06:00Z.");
        if (at > _latest)
            return Refuse("time", $"'{Shown(records.Field(timeAt))}' lies more than a day ahead of this server's clock.");
        if (at < Earliest)
            return Refuse("time", $"'{Shown(records.Field(timeAt))}' is before 1990: the clock of the device was not set.");
        if (!CsvHeader.TryText(records.Field(assetAt), out var asset) || partsOf(asset) is not { } parts)
            return Refuse("asset", $"'{Shown(records.Field(assetAt))}' is not in the fleet; import its fleet document first.");

        Span<double> channels = stackalloc double[Enum.GetValues<Role>().Length];
        channels.Fill(double.NaN);
        var celsius = new double[parts.Count];
        Array.Fill(celsius, double.NaN);
        string? settings = null,
            workload = null,
            fans = null;
        for (var i = 0; i < columns.Length; i++)
        {
            var (name, role) = columns[i];
            var cell = records.Field(i);
            if (cell.IsEmpty || role is Role.Time or Role.Asset or Role.Unknown)
                continue;
            if (role is Role.Settings or Role.Workload)
            {
                if (!CsvHeader.TryText(cell, out var label) || label.Length > LongestLabel)
                    return Refuse(name, $"A label is UTF-8 text of at most {LongestLabel} characters.");
                if (role == Role.Settings)
                    settings = Shared(label);
                else
                    workload = Shared(label);
                continue;
            }
            if (!TryNumber(cell, out var value))
                return Refuse(
                    name,
                    $"'{Shown(cell)}' is no number; write 41.5, and leave the cell empty for what was not measured."
                );
            if (Refusal(role, value) is { } reason)
                return Refuse(name, reason);
            if (role == Role.Part)
            {
                var slot = IndexOf(parts, partNames[i]);
                if (slot >= 0)
                    celsius[slot] = value;
                else
                    _keptOut[name] = _keptOut.TryGetValue(name, out var seen) ? (seen.Count + 1, seen.First) : (1, asset);
            }
            else if (role == Role.Fan)
                fans = (fans is null ? "" : fans + ";") + value.ToString(System.Globalization.CultureInfo.InvariantCulture);
            else
                channels[(int)role] = value;
        }
        return new ReadingLine(
            line,
            asset,
            new Reading(
                at,
                channels[(int)Role.Ambient],
                channels[(int)Role.Outlet],
                channels[(int)Role.Power],
                channels[(int)Role.FanRpm],
                channels[(int)Role.FanPct],
                channels[(int)Role.Clock],
                channels[(int)Role.Throttled],
                channels[(int)Role.Score],
                settings,
                workload,
                fans,
                celsius
            )
            {
                Samples = double.IsNaN(channels[(int)Role.Samples]) ? 0 : (int)channels[(int)Role.Samples],
                SpreadKelvin = channels[(int)Role.Spread],
            },
            null
        );
    }

    /// <summary>A number; where no comma parts the cells, its decimal sign may be one.</summary>
    private bool TryNumber(ReadOnlySpan<byte> cell, out double value)
    {
        if (delimiter == CsvDelimiter.Comma || cell.Length > 40 || !cell.Contains((byte)','))
            return IsoInstant.TryNumber(cell, out value);
        Span<byte> point = stackalloc byte[cell.Length];
        cell.Replace(point, (byte)',', (byte)'.');
        return IsoInstant.TryNumber(point, out value);
    }

    private static Message? Refusal(Role role, double value) =>
        role switch
        {
            Role.Ambient or Role.Outlet or Role.Part when value is < -273.15 or > Reading.HottestC => (Message)
                $"{value} °C is no temperature; it must lie between −273.15 and {Reading.HottestC} °C.",
            Role.Throttled when value is not (0 or 1) => "throttled is 0 or 1.",
            Role.Power or Role.FanRpm or Role.FanPct or Role.Fan or Role.Clock or Role.Spread when value < 0 =>
                $"{value} is negative; a power, speed, spread or percentage cannot be.",
            Role.Samples when value is not (>= 1 and <= int.MaxValue) || value != Math.Floor(value) =>
                "samples is a whole number from 1 on.",
            _ => null,
        };

    private static int IndexOf(IReadOnlyList<string> parts, string name)
    {
        for (var i = 0; i < parts.Count; i++)
            if (parts[i] == name)
                return i;
        return -1;
    }

    /// <summary>A file repeats a few labels a hundred thousand times: one string each, while they are few.</summary>
    private string Shared(string label)
    {
        if (_labels.TryGetValue(label, out var known))
            return known;
        if (_labels.Count < 1000)
            _labels[label] = label;
        return label;
    }

    private static string Shown(ReadOnlySpan<byte> cell)
    {
        var text = System.Text.Encoding.UTF8.GetString(cell.Length > 80 ? cell[..80] : cell);
        return string.Concat(text.Select(c => char.IsControl(c) ? '�' : c)) + (cell.Length > 80 ? "…" : "");
    }

    [GeneratedRegex("^fan[0-9]{1,2}_rpm$")]
    private static partial Regex FanColumn();

    [GeneratedRegex("^[a-z][a-z0-9_-]{0,40}_c$")]
    private static partial Regex PartColumn();
}
