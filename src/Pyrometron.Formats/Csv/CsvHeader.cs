using System.Text;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;

namespace Pyrometron.Formats.Csv;

/// <summary>The header row: which column stands where. A file without its columns is refused whole.</summary>
internal static class CsvHeader
{
    /// <summary>A table with more columns is refused.</summary>
    private const int MostColumns = 5000;

    /// <summary>Columns found that a message names.</summary>
    private const int MostNamed = 12;

    private static readonly UTF8Encoding Strict = new(false, throwOnInvalidBytes: true);

    /// <summary>Reads the header record.</summary>
    /// <exception cref="RefusedInputException">Empty, not text, a column missing or named twice.</exception>
    public static string[] Read(CsvRecords records, CsvForm form)
    {
        var what = form.What;
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
        if (form.Required.Except(names).FirstOrDefault() is { } missing)
            throw Lacking(names, missing, form);
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

    /// <summary>A column is missing: what was found, what was expected, and whether other delimiters would mend it.</summary>
    private static RefusedInputException Lacking(string[] names, string missing, CsvForm form)
    {
        foreach (var other in (CsvDelimiter[])[CsvDelimiter.Semicolon, CsvDelimiter.Tab])
            if (
                form.Required.All(
                    string.Join(',', names).Split((char)CsvForm.Written(other)).Select(n => n.Trim(' ', '"')).Contains
                )
            )
            {
                var (problem, question) =
                    other == CsvDelimiter.Tab
                        ? (
                            (Message)"The cells of line 1 are separated by tabs, not commas.",
                            (Message)"Line 1 looks like tabs: read it so?"
                        )
                        : (
                            "The cells of line 1 are separated by semicolons, not commas.",
                            "Line 1 looks like semicolons with decimal commas: read it so?"
                        );
                return new RefusedInputException(new InputProblem(problem, 1))
                {
                    Question = InputQuestion.Of("delimiter", question, [Words.Of(other)]),
                };
            }
        var found = string.Join(", ", names.Take(MostNamed).Select(n => n.Length > 40 ? n[..40] + "…" : n));
        Message more = names.Length > MostNamed ? (Message)$"{found} and {names.Length - MostNamed} more" : $"{found}";
        var needed = string.Join(", ", form.Required);
        return Refused(
            form.Others.Length > 0
                ? (Message)
                    $"The header row lacks the column '{missing}'. Found: {more}. Expected: {form.What} needs {needed}, and may have {form.Others}."
                : $"The header row lacks the column '{missing}'. Found: {more}. Expected: {form.What} needs {needed}."
        );
    }

    private static RefusedInputException Refused(Message message) => new(new InputProblem(message, 1));
}
