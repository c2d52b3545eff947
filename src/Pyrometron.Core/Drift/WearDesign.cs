using System.Runtime.InteropServices;

namespace Pyrometron.Core.Drift;

/// <summary>
/// The design of one machine's wear model without its zeros: a row a cell and part, in that order, its entries beside the columns
/// they stand in.
/// </summary>
internal sealed class WearDesign
{
    private readonly List<double> _entries = [];
    private readonly List<int> _columns = [];
    private readonly List<int> _ends = [];

    /// <summary>Forgets the machine before.</summary>
    public void Clear()
    {
        _entries.Clear();
        _columns.Clear();
        _ends.Clear();
    }

    /// <summary>Puts an entry into the present row.</summary>
    public void Add(int column, double entry)
    {
        _entries.Add(entry);
        _columns.Add(column);
    }

    /// <summary>Ends the row; the next entries belong to the next one.</summary>
    public void End() => _ends.Add(_entries.Count);

    /// <summary>A row by its number.</summary>
    public Row this[int row]
    {
        get
        {
            var (start, length) = (row == 0 ? 0 : _ends[row - 1], _ends[row] - (row == 0 ? 0 : _ends[row - 1]));
            return new(
                CollectionsMarshal.AsSpan(_columns).Slice(start, length),
                CollectionsMarshal.AsSpan(_entries).Slice(start, length)
            );
        }
    }

    /// <summary>A row: its columns, ascending, and the entries in them.</summary>
    public readonly ref struct Row(ReadOnlySpan<int> columns, ReadOnlySpan<double> entries)
    {
        public ReadOnlySpan<int> Columns { get; } = columns;
        public ReadOnlySpan<double> Entries { get; } = entries;

        /// <summary>The row times the unknowns.</summary>
        public double Times(ReadOnlySpan<double> x)
        {
            var sum = 0.0;
            for (var i = 0; i < Columns.Length; i++)
                sum += Entries[i] * x[Columns[i]];
            return sum;
        }
    }
}
