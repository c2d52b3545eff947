using System.Text;
using Pyrometron.Formats.Csv;
using Pyrometron.Formats.Tables;

namespace Pyrometron.Formats.Logs;

/// <summary>The beginning of a sensor log: how it is written, its headers, the units below them, and its first lines.</summary>
internal sealed class LogHead
{
    private const int Peeked = 256 * 1024,
        LookedAt = 200,
        MostPreamble = 50,
        MostColumns = 5000;

    private readonly Encoding? _wide;
    private readonly byte _delimiter;

    private LogHead(Encoding? wide, byte delimiter) => (_wide, _delimiter) = (wide, delimiter);

    /// <summary>Names of its columns.</summary>
    public string[] Headers { get; private set; } = [];

    /// <summary>The line of the headers.</summary>
    public int HeaderLine { get; private set; }

    /// <summary>Units in a line of their own below the headers; empty without one.</summary>
    public string[] Units { get; private set; } = [];

    /// <summary>The first lines with data.</summary>
    public List<string[]> First { get; } = [];

    /// <summary>Looks at a log.</summary>
    /// <exception cref="RefusedInputException">It is no table of samples.</exception>
    public static LogHead Of(Func<Stream> open)
    {
        var bytes = new byte[Peeked];
        var length = open().ReadAtLeast(bytes, Peeked, throwOnEndOfStream: false);
        var peek = bytes.AsSpan(0, length).ToArray();
        // The text of the beginning refuses what is no text, and tells the delimiter.
        var text = TableText.Of(peek);
        var wide =
            peek.AsSpan().StartsWith((ReadOnlySpan<byte>)[0xFF, 0xFE]) ? Encoding.Unicode
            : peek.AsSpan().StartsWith((ReadOnlySpan<byte>)[0xFE, 0xFF]) ? Encoding.BigEndianUnicode
            : null;
        var head = new LogHead(wide, (byte)text.Delimiter);
        head.Read(open);
        return head;
    }

    /// <summary>All records from the line after the headers on.</summary>
    public CsvRecords Records(Stream stream)
    {
        var records = new CsvRecords(
            _wide is null ? stream : Encoding.CreateTranscodingStream(stream, _wide, Encoding.UTF8),
            _delimiter
        );
        while (records.Read() && records.Line < HeaderLine) { }
        return records;
    }

    private void Read(Func<Stream> open)
    {
        var stream = open();
        var records = new CsvRecords(
            _wide is null ? stream : Encoding.CreateTranscodingStream(stream, _wide, Encoding.UTF8),
            _delimiter
        );
        // Some programs write a title or two before their headers.
        for (var i = 0; i < MostPreamble && records.Read(); i++)
            if (records.Problem is null && records.Count > 1)
            {
                if (records.Count > MostColumns)
                    throw new RefusedInputException(
                        new InputProblem(
                            $"The header row has {records.Count} columns; {MostColumns} are the most. Export the sensors of one machine.",
                            records.Line
                        )
                    );
                (Headers, HeaderLine) = (Cells(records), records.Line);
                break;
            }
        if (Headers.Length == 0)
            throw new RefusedInputException(
                new InputProblem("No row of headers was found: a sensor log has one column a sensor, with its name on top.", 1)
            );
        while (First.Count < LookedAt && records.Read())
            if (records.Problem is null && records.Count >= 2)
            {
                var cells = Cells(records);
                if (First.Count == 0 && Units.Length == 0 && IsUnits(cells))
                    Units = cells;
                else if (!cells.SequenceEqual(Headers))
                    First.Add(cells);
            }
    }

    private static bool IsUnits(string[] cells) =>
        cells.Any(c => LogColumns.UnitWord(c.Trim('[', ']', '(', ')')) != LogUnit.None)
        && !cells.Any(c => c.Any(char.IsAsciiDigit));

    private static string[] Cells(CsvRecords records) =>
        [.. Enumerable.Range(0, records.Count).Select(i => Text(records.Field(i)))];

    /// <summary>A cell; letters of older programs, one byte each, are read as Western ones.</summary>
    public static string Text(ReadOnlySpan<byte> cell) =>
        (
            CsvHeader.TryText(cell, out var text) ? text : CodePagesEncodingProvider.Instance.GetEncoding(1252)!.GetString(cell)
        ).Trim();
}
