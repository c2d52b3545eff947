using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;

namespace Pyrometron.Formats.Csv;

/// <summary>
/// What parts the cells of a CSV file. With another than the comma, numbers may have a decimal comma and days may be written
/// 1.5.2026.
/// </summary>
public enum CsvDelimiter
{
    /// <summary>As RFC 4180 has it.</summary>
    Comma,

    /// <summary>As spreadsheets write it in countries with a decimal comma.</summary>
    Semicolon,

    /// <summary>As cells are copied from a spreadsheet.</summary>
    Tab,
}

/// <summary>The columns of a kind of CSV file.</summary>
/// <param name="What">What it is called in a message.</param>
/// <param name="Required">Columns that must be there.</param>
/// <param name="Others">The others, for the message where one is missing.</param>
public sealed record CsvForm(Message What, IReadOnlyList<string> Required, string Others)
{
    /// <summary>Readings: one window of one machine a line.</summary>
    internal static CsvForm Readings { get; } =
        new(
            "a readings file",
            ["time", "asset"],
            "ambient_c, outlet_c, power_w, one column for each part such as core_c or cpu_c, fan_rpm, fan_pct, fan1_rpm, clock_mhz, throttled, score, settings, workload, samples, spread_k"
        );

    /// <summary>Services: one a line.</summary>
    internal static CsvForm Services { get; } = new("a services file", ["date", "asset", "level"], "");

    /// <summary>The delimiter of a word; comma where none is given.</summary>
    /// <exception cref="RefusedInputException">It is no delimiter's word.</exception>
    public static CsvDelimiter Delimiter(string? word) =>
        Words.TryRead<CsvDelimiter>(word ?? Words.Of(CsvDelimiter.Comma), out var delimiter)
            ? delimiter
            : throw new RefusedInputException(
                new InputProblem($"'{word}' is no delimiter; use one of {Words.List<CsvDelimiter>()}.", Pointer: "/delimiter")
            );

    /// <summary>What a delimiter is written as.</summary>
    internal static byte Written(CsvDelimiter delimiter) =>
        delimiter switch
        {
            CsvDelimiter.Semicolon => (byte)';',
            CsvDelimiter.Tab => (byte)'\t',
            _ => (byte)',',
        };
}
