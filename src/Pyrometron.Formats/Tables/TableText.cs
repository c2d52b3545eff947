using System.Text;
using Pyrometron.Core.Messages;
using Pyrometron.Formats.Csv;

namespace Pyrometron.Formats.Tables;

/// <summary>
/// A table as spreadsheets and other programs write it: any usual encoding, cells parted by comma, semicolon, tab or bar. What it
/// is in is told from its first lines.
/// </summary>
public sealed class TableText
{
    /// <summary>The most that is read, bytes.</summary>
    public const int LongestBytes = 64 * 1024 * 1024;

    private const int LookedAt = 30;

    private static readonly char[] Delimiters = ['\t', ';', ',', '|'];

    private readonly byte[] _utf8;

    private TableText(byte[] utf8, char delimiter) => (_utf8, Delimiter) = (utf8, delimiter);

    /// <summary>What parts its cells.</summary>
    public char Delimiter { get; }

    /// <summary>Takes a table's bytes.</summary>
    /// <exception cref="RefusedInputException">It is no text, or a spreadsheet's own file.</exception>
    public static TableText Of(byte[] bytes)
    {
        if (
            bytes.AsSpan().StartsWith("PK\u0003\u0004"u8)
            || bytes.AsSpan().StartsWith((ReadOnlySpan<byte>)[0xD0, 0xCF, 0x11, 0xE0])
        )
            throw Refused("This is a spreadsheet's own file. Save it as CSV, or copy its cells and paste them.");
        var text = Decode(bytes);
        if (text.Contains('\0', StringComparison.Ordinal))
            throw Refused("This is no text. Save the table as CSV and send it again.");
        var start = text.AsSpan().TrimStart();
        if (start.IsEmpty)
            throw Refused("The table is empty; it begins with a row of headers.");
        if (start[0] == '<')
            throw Refused("This is a web page, not a table. Save the table as CSV and send it again.");
        if (start[0] == '{')
            throw Refused("This looks like a fleet document in JSON: bring it in as that, not as a table.");
        // Spreadsheets write the delimiter into a line of its own.
        if (text.StartsWith("sep=", StringComparison.OrdinalIgnoreCase) && text.Length > 5 && text[5] is '\r' or '\n')
            return new TableText(Encoding.UTF8.GetBytes("\n" + text[5..].TrimStart('\r', '\n')), text[4]);
        return new TableText(Encoding.UTF8.GetBytes(text), DelimiterOf(text));
    }

    /// <summary>Its records, from the first.</summary>
    internal CsvRecords Records() => new(new MemoryStream(_utf8, writable: false), (byte)Delimiter);

    private static string Decode(byte[] bytes)
    {
        if (bytes.AsSpan().StartsWith((ReadOnlySpan<byte>)[0xFF, 0xFE]))
            return Encoding.Unicode.GetString(bytes.AsSpan(2));
        if (bytes.AsSpan().StartsWith((ReadOnlySpan<byte>)[0xFE, 0xFF]))
            return Encoding.BigEndianUnicode.GetString(bytes.AsSpan(2));
        var plain = bytes.AsSpan().StartsWith("\uFEFF"u8) ? bytes.AsSpan(3) : bytes.AsSpan();
        return CsvHeader.TryText(plain, out var text)
            ? text
            // Older programs write one byte a letter; ASCII is the same in all of them, and Western letters are right.
            : CodePagesEncodingProvider.Instance.GetEncoding(1252)!.GetString(plain);
    }

    /// <summary>The delimiter that cuts most of the first lines into the same number of cells, more than one.</summary>
    private static char DelimiterOf(string text)
    {
        var lines = text.Split('\n', LookedAt + 1).Take(LookedAt).Where(l => l.Trim().Length > 0).ToArray();
        return Delimiters.MaxBy(d =>
        {
            var counts = lines.Select(l => CountOutsideQuotes(l, d)).Where(n => n > 0).ToArray();
            if (counts.Length == 0)
                return 0;
            var usual = counts.GroupBy(n => n).MaxBy(g => g.Count())!;
            return usual.Count() * 1000 + Math.Min(usual.Key, 999);
        });
    }

    private static int CountOutsideQuotes(string line, char delimiter)
    {
        var (count, quoted) = (0, false);
        foreach (var c in line)
        {
            if (c == '"')
                quoted = !quoted;
            else if (c == delimiter && !quoted)
                count++;
        }
        return count;
    }

    private static RefusedInputException Refused(Message message) => new(new InputProblem(message, 1));
}
