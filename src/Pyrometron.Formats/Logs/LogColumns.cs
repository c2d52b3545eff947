using Pyrometron.Formats.Tables;
using static Pyrometron.Formats.Logs.LogWords;

namespace Pyrometron.Formats.Logs;

/// <summary>
/// Which column of a sensor log holds what, by the words and the unit of its header, in eight languages; and which of a machine's
/// parts a temperature belongs to.
/// </summary>
internal static class LogColumns
{
    /// <summary>Matches the columns.</summary>
    /// <param name="headers">As they stand, to be shown and settled by.</param>
    /// <param name="names">What each is called on this machine; null for a column of another one.</param>
    /// <param name="units">A row of units below the header; empty cells where there is none.</param>
    /// <param name="first">The first lines with data.</param>
    /// <param name="parts">Names of the machine's parts.</param>
    /// <param name="settled">Field of a folded header, as somebody said now or before.</param>
    public static LogColumn[] Match(
        IReadOnlyList<string> headers,
        IReadOnlyList<string?> names,
        IReadOnlyList<string> units,
        IReadOnlyList<string[]> first,
        IReadOnlyList<string> parts,
        IReadOnlyDictionary<string, string> settled
    )
    {
        var columns = new LogColumn[headers.Count];
        for (var c = 0; c < headers.Count; c++)
        {
            if (names[c] is not { } called)
            {
                columns[c] = new LogColumn(headers[c], LogField.Ignore, LogUnit.None, false);
                continue;
            }
            var unit =
                UnitOf(called) is var own && own != LogUnit.None ? own
                : c < units.Count ? UnitWord(units[c])
                : LogUnit.None;
            columns[c] = settled.TryGetValue(TableMeanings.KeyOf(headers[c]), out var name)
                ? new LogColumn(headers[c], LogField.Of(name), unit, false)
                : new LogColumn(headers[c], Guess(called, unit, parts), unit, true);
        }
        OnlyOne(columns, LogRole.Asset);
        OnlyOne(columns, LogRole.Time);
        OnlyOne(columns, LogRole.Date);
        OnlyOne(columns, LogRole.ClockTime);
        foreach (
            var role in (LogRole[])
                [LogRole.Ambient, LogRole.Power, LogRole.Clock, LogRole.Load, LogRole.FanRpm, LogRole.FanPercent]
        )
            OnlyOne(columns, role);
        // Day and time of day in two columns: what calls itself time is the clock then; so it is with no day in its cells.
        for (var c = 0; c < columns.Length; c++)
            if (columns[c] is { Field.Role: LogRole.Time, Guessed: true })
                if (columns.Any(o => o.Field.Role == LogRole.Date) || first.Count > 0 && first.All(r => IsClockAlone(r, c)))
                    columns[c] = columns[c] with { Field = new LogField(LogRole.ClockTime) };
        // Temperatures are in °C where nothing says otherwise.
        for (var c = 0; c < columns.Length; c++)
            if (columns[c] is { Field.Role: LogRole.Part or LogRole.Ambient, Unit: LogUnit.None })
                columns[c] = columns[c] with { Unit = LogUnit.Celsius };
        return columns;
    }

    private static bool IsClockAlone(string[] row, int column) =>
        column < row.Length && row[column].IndexOf(':', StringComparison.Ordinal) is 1 or 2;

    /// <summary>Of several guesses for one role the first stays; what was settled goes before any guess.</summary>
    private static void OnlyOne(LogColumn[] columns, LogRole role)
    {
        var best = Array.FindIndex(columns, c => c.Field.Role == role && !c.Guessed);
        if (best < 0)
            best = Array.FindIndex(columns, c => c.Field.Role == role);
        for (var c = 0; c < columns.Length; c++)
            if (c != best && columns[c].Field.Role == role)
                columns[c] = columns[c] with { Field = LogField.Ignore };
    }

    private static LogField Guess(string header, LogUnit unit, IReadOnlyList<string> parts)
    {
        // The unit in brackets is no word of the name.
        var folded = $" {Folded.Of(WithoutUnit(header))} ";
        bool Has(string[] words) => words.Any(w => Stands(folded, w));
        if (unit is LogUnit.Rpm)
            return Has(Elsewhere) && !Has(Fans) ? LogField.Ignore : new LogField(LogRole.FanRpm);
        if (unit == LogUnit.Watt || unit == LogUnit.None && Has(Powers))
            return Has(["limit", "max", "min"]) ? LogField.Ignore : new LogField(LogRole.Power);
        if (unit is LogUnit.Megahertz or LogUnit.Gigahertz || unit == LogUnit.None && Has(Clocks))
            return PartOf(folded) is "memory" || Has(["bus", "ring", "uncore"]) ? LogField.Ignore : new LogField(LogRole.Clock);
        if (unit == LogUnit.Percent)
            return Has(Fans) ? new LogField(LogRole.FanPercent)
                : Has(Loads) && PartOf(folded) is not ("memory" or "vrm") ? new LogField(LogRole.Load)
                : LogField.Ignore;
        var isTemperature = unit is LogUnit.Celsius or LogUnit.Fahrenheit or LogUnit.Kelvin || Has(Temperatures);
        if (!isTemperature)
            return Has(Fans) ? new LogField(LogRole.FanRpm)
                : Has(Days) && Has(Times) ? new LogField(LogRole.Time)
                : Has(Times) ? new LogField(LogRole.Time)
                : Has(Days) ? new LogField(LogRole.Date)
                : Has(Loads) ? new LogField(LogRole.Load)
                : parts.Contains(folded.Trim()) ? new LogField(LogRole.Part, folded.Trim())
                : LogField.Ignore;
        var part = PartOf(folded);
        if (part is null && Has(Airs))
            return new LogField(LogRole.Ambient);
        if (Has(Elsewhere))
            return LogField.Ignore;
        return PartOn(part, parts) is { } known ? new LogField(LogRole.Part, known) : LogField.Ignore;
    }

    private static string? PartOf(string folded) =>
        Parts.FirstOrDefault(p => p.Words.Any(w => Stands(folded, w))).Part
        // A number may hang on a word: "core0", "gpu1".
        ?? Parts.FirstOrDefault(p => p.Words.Any(w => HangsOn(folded, w))).Part;

    /// <summary>Letters from which on a word also counts within a longer one, as in "Prozessortemperatur".</summary>
    private const int LongEnough = 6;

    private static bool Stands(string folded, string word) =>
        folded.Contains($" {word} ", StringComparison.Ordinal)
        || word.Length >= LongEnough && folded.Contains(word, StringComparison.Ordinal);

    private static bool HangsOn(string folded, string word) =>
        folded
            .Split(' ')
            .Any(f =>
                f.Length > word.Length && f.StartsWith(word, StringComparison.Ordinal) && f[word.Length..].All(char.IsAsciiDigit)
            );

    /// <summary>The part of this machine that a log's word means: a card's own chip is its core.</summary>
    private static string? PartOn(string? part, IReadOnlyList<string> parts)
    {
        if (part is null)
            return parts.Count == 1 ? parts[0] : null;
        if (parts.Contains(part))
            return part;
        return part is "gpu" or "cpu" && parts.Contains("core") ? "core" : null;
    }

    private static string WithoutUnit(string header)
    {
        var at = header.LastIndexOfAny(['[', '(']);
        return at > 0 && UnitWord(header[(at + 1)..].Trim(' ', ')', ']')) != LogUnit.None ? header[..at] : header;
    }

    private static LogUnit UnitOf(string header)
    {
        var at = header.LastIndexOfAny(['[', '(', ',', '/']);
        var inside = at >= 0 ? UnitWord(header[(at + 1)..].Trim(' ', ')', ']')) : LogUnit.None;
        return inside != LogUnit.None
            ? inside
            : UnitWord(header.Split([' ', '_'], StringSplitOptions.RemoveEmptyEntries).LastOrDefault() ?? "");
    }

    /// <summary>The unit a word is.</summary>
    public static LogUnit UnitWord(string word) =>
        word.Trim().TrimEnd('.').ToLowerInvariant() switch
        {
            "°c" or "c" or "degc" or "deg c" or "celsius" or "grad c" or "℃" => LogUnit.Celsius,
            "°f" or "f" or "degf" or "deg f" or "fahrenheit" or "℉" => LogUnit.Fahrenheit,
            "k" or "kelvin" => LogUnit.Kelvin,
            "w" or "watt" or "watts" => LogUnit.Watt,
            "mhz" => LogUnit.Megahertz,
            "ghz" => LogUnit.Gigahertz,
            "rpm" or "1/min" or "u/min" or "min-1" or "tr/min" or "obr/min" or "giri/min" or "r/min" or "varv/min" => LogUnit.Rpm,
            "%" or "percent" or "pct" or "prozent" => LogUnit.Percent,
            _ => LogUnit.None,
        };
}
