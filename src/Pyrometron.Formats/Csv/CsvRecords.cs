using System.Text;
using Pyrometron.Core.Messages;

namespace Pyrometron.Formats.Csv;

/// <summary>
/// Reads RFC 4180 records from a stream of UTF-8 bytes with bounded memory, and goes on after a bad one. Libraries for
/// CSV stop at a record that is too long or a quote that is never closed; here one bad line must not cost the good ones
/// after it, and every refusal names its line.
/// </summary>
/// <param name="delimiter">What parts the cells: a comma by RFC 4180; other programs write semicolons or tabs.</param>
internal sealed class CsvRecords(Stream stream, byte delimiter = (byte)',')
{
    /// <summary>The longest record that is read, in bytes.</summary>
    public const int LongestRecord = 64 * 1024;

    private readonly byte[] _buffer = new byte[4 * LongestRecord];
    private readonly List<(int Start, int Length, bool Escaped)> _fields = [];
    private int _start,
        _end,
        _nextLine = 1;
    private bool _ended;

    /// <summary>Line where the current record begins; the first is 1.</summary>
    public int Line { get; private set; }

    /// <summary>Why the current record cannot be used, or null.</summary>
    public Message? Problem { get; private set; }

    /// <summary>Number of fields of the current record.</summary>
    public int Count => _fields.Count;

    /// <summary>Bytes taken from the stream so far.</summary>
    public long BytesRead { get; private set; }

    /// <summary>The raw bytes of a field, quotes taken off; valid until the next <see cref="Read"/>.</summary>
    public ReadOnlySpan<byte> Field(int index)
    {
        var (start, length, escaped) = _fields[index];
        var span = _buffer.AsSpan(start, length);
        return escaped
            ? Encoding.UTF8.GetBytes(Encoding.UTF8.GetString(span).Replace("\"\"", "\"", StringComparison.Ordinal))
            : span;
    }

    /// <summary>Moves to the next record that is not an empty line.</summary>
    /// <returns>False at the end.</returns>
    public bool Read()
    {
        while (true)
        {
            Problem = null;
            _fields.Clear();
            Fill();
            if (_start == _end)
                return false;
            Line = _nextLine;
            if (BytesRead == _end && _start == 0 && _buffer.AsSpan(0, _end).StartsWith("\uFEFF"u8))
                _start = 3;
            var length = Split();
            _start += length;
            if (_fields.Count == 1 && _fields[0].Length == 0 && !_fields[0].Escaped && Problem is null)
                continue;
            return true;
        }
    }

    /// <summary>Splits the record at <see cref="_start"/>; returns its length with its line end.</summary>
    private int Split()
    {
        var data = _buffer.AsSpan(_start, _end - _start);
        int at = 0,
            firstLineEnd = -1,
            lines = 0;
        while (true)
        {
            var fieldStart = at;
            if (at < data.Length && data[at] == '"')
            {
                var escaped = false;
                at++;
                while (true)
                {
                    var step = data[at..].IndexOfAny((byte)'"', (byte)'\n');
                    if (step < 0 || at + step > LongestRecord)
                        return SkipLine(data, firstLineEnd, "a quote is opened and never closed");
                    at += step + 1;
                    if (data[at - 1] == '\n')
                    {
                        lines++;
                        firstLineEnd = firstLineEnd < 0 ? at : firstLineEnd;
                    }
                    else if (at < data.Length && data[at] == '"')
                    {
                        escaped = true;
                        at++;
                    }
                    else
                        break;
                }
                _fields.Add((_start + fieldStart + 1, at - fieldStart - 2, escaped));
                if (at < data.Length && data[at] != delimiter && data[at] is not ((byte)'\r' or (byte)'\n'))
                    return SkipLine(data, firstLineEnd, "text follows a closing quote; double the quotes inside a quoted cell");
            }
            else
            {
                var step = data[at..].IndexOfAny(delimiter, (byte)'\n');
                at = step < 0 ? data.Length : at + step;
                if (at > LongestRecord)
                    return SkipLine(data, firstLineEnd, $"the line is longer than {LongestRecord / 1024} KiB");
                var length = at - fieldStart;
                if (length > 0 && data[at - 1] == '\r' && (at == data.Length || data[at] == '\n'))
                    length--;
                _fields.Add((_start + fieldStart, length, false));
            }
            if (at < data.Length && data[at] == '\r')
                at++;
            if (at >= data.Length || data[at] == '\n')
            {
                _nextLine += lines + 1;
                return Math.Min(at + 1, data.Length);
            }
            at++;
        }
    }

    /// <summary>Gives up on a record: it ends with its first line, so that the lines after it are still read.</summary>
    private int SkipLine(ReadOnlySpan<byte> data, int firstLineEnd, Message problem)
    {
        Problem = problem;
        _nextLine++;
        var end = firstLineEnd >= 0 ? firstLineEnd - 1 : data.IndexOf((byte)'\n');
        while (end < 0)
        {
            // The rest of an endless line is read and dropped, a buffer at a time.
            _start = _end;
            Fill();
            if (_start == _end)
                return 0;
            data = _buffer.AsSpan(_start, _end - _start);
            end = data.IndexOf((byte)'\n');
        }
        return end + 1;
    }

    /// <summary>Keeps at least one longest record in the buffer, unless the stream has ended.</summary>
    private void Fill()
    {
        if (_ended || _end - _start > LongestRecord + 2)
            return;
        _buffer.AsSpan(_start, _end - _start).CopyTo(_buffer);
        (_start, _end) = (0, _end - _start);
        while (_end < _buffer.Length)
        {
            var read = stream.Read(_buffer, _end, _buffer.Length - _end);
            if (read == 0)
            {
                _ended = true;
                break;
            }
            _end += read;
            BytesRead += read;
        }
    }
}
