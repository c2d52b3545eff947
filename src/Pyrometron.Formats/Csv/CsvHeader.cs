using System.Text;

namespace Pyrometron.Formats.Csv;

/// <summary>The header row: which column stands where. A file without its columns is refused whole.</summary>
internal static class CsvHeader
{
    /// <summary>A table with more columns is refused.</summary>
    private const int MostColumns = 5000;

    private static readonly UTF8Encoding Strict = new(false, throwOnInvalidBytes: true);

    /// <summary>Reads the header record.</summary>
    /// <exception cref="RefusedInputException">Empty, not text, a column missing or named twice.</exception>
    public static string[] Read(CsvRecords records, string what, params ReadOnlySpan<string> required)
    {
        if (!records.Read())
            throw Refused($"The file is empty; {what} begins with a header row.");
        if (records.Count > MostColumns)
            throw Refused($"The header row has {records.Count} columns; {MostColumns} are the most.");
        var names = new string[records.Count];
        for (var i = 0; i < names.Length; i++)
            names[i] =
                TryText(records.Field(i), out var text) && !text.Contains('\0', StringComparison.Ordinal)
                    ? text.Trim()
                    : throw Refused($"This is no UTF-8 text, so no {what}. Save it as CSV in UTF-8 and send it again.");
        if (records.Problem is { } problem)
            throw Refused($"The header row cannot be read: {problem}.");
        foreach (var name in required)
            if (!names.Contains(name, StringComparer.Ordinal))
                throw Refused($"The header row lacks the column '{name}'; {what} needs {string.Join(", ", required.ToArray())}.");
        if (names.Where(n => n.Length > 0).GroupBy(n => n).FirstOrDefault(g => g.Count() > 1) is { } twice)
            throw Refused($"The header row names the column '{(twice.Key.Length > 80 ? twice.Key[..80] : twice.Key)}' twice.");
        return names;
    }

    /// <summary>UTF-8 bytes to text.</summary>
    /// <returns>False when the bytes are no UTF-8.</returns>
    public static bool TryText(ReadOnlySpan<byte> bytes, out string text)
    {
        try
        {
            text = Strict.GetString(bytes);
            return true;
        }
        catch (DecoderFallbackException)
        {
            text = "";
            return false;
        }
    }

    private static RefusedInputException Refused(string message) => new(new InputProblem(message, 1));
}
