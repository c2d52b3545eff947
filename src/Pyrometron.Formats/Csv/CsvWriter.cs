namespace Pyrometron.Formats.Csv;

/// <summary>Writes RFC 4180 records. A cell that a spreadsheet would take for a formula is told apart by an apostrophe.</summary>
public static class CsvWriter
{
    /// <summary>One record with its line end.</summary>
    public static string Record(params ReadOnlySpan<string?> cells)
    {
        var written = new string[cells.Length];
        for (var i = 0; i < cells.Length; i++)
            written[i] = Cell(cells[i] ?? "");
        return string.Join(',', written) + "\r\n";
    }

    private static string Cell(string text)
    {
        if (
            text.Length > 0
            && text[0] is '=' or '+' or '-' or '@' or '\t' or '\r'
            && !double.TryParse(text, System.Globalization.CultureInfo.InvariantCulture, out _)
        )
            text = "'" + text;
        return text.AsSpan().IndexOfAny(",\"\r\n") < 0 ? text : $"\"{text.Replace("\"", "\"\"", StringComparison.Ordinal)}\"";
    }
}
