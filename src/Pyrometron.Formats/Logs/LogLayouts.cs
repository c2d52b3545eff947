using Pyrometron.Core.Messages;
using Pyrometron.Core.Readings;
using Pyrometron.Formats.Csv;

namespace Pyrometron.Formats.Logs;

/// <summary>The machines of a log, each with where its values stand and with what its samples come to.</summary>
internal sealed class LogLayouts(LogMachines machines, IReadOnlyDictionary<string, IReadOnlyList<string>> partsOf)
{
    private readonly Dictionary<string, (LogLayout Layout, SampleCondenser? Condenser)> _byTag = [];
    private readonly List<string> _order = [];

    /// <summary>The first layout with time and a temperature.</summary>
    public LogLayout First { get; private set; } = null!;

    /// <summary>Machines that nothing can be read of, with why.</summary>
    public IEnumerable<(string Tag, Message Why)> Problems =>
        _order.Where(tag => _byTag[tag].Condenser is null).Select(tag => (tag, _byTag[tag].Layout.Problem!));

    /// <summary>Lays out the machines of the first lines.</summary>
    /// <returns>Why nothing can be read at all, or null.</returns>
    public Message? Begin(LogHead head)
    {
        var tags =
            machines.TagColumn < 0
                ? machines.InEveryLine
                : head
                    .First.Select(r => machines.TagColumn < r.Length ? machines.Known(r[machines.TagColumn]) : null)
                    .OfType<string>();
        foreach (var tag in tags)
            LayOut(tag);
        var readable = _order.Select(t => _byTag[t]).FirstOrDefault(m => m.Condenser is not null).Layout;
        if (readable is null)
            return _order.Count == 0
                ? (Message)
                    $"No line tells of a machine of the fleet: the column '{head.Headers[machines.TagColumn]}' holds none of its tags."
                : _byTag[_order[0]].Layout.Problem;
        First = readable;
        return null;
    }

    /// <summary>Takes one line's samples.</summary>
    /// <param name="only">The machine that is asked for; null for all of them.</param>
    /// <returns>The tag of a machine that nothing can be read of, or null.</returns>
    public string? Add(CsvRecords records, long at, string? only)
    {
        if (machines.TagColumn < 0)
        {
            foreach (var tag in machines.InEveryLine)
                AddTo(tag, records, at);
            return null;
        }
        var cell = LogHead.Text(records.Field(machines.TagColumn));
        if (machines.Known(cell) is not { } known)
            return cell;
        if (only is not null && known != only)
            return null;
        LayOut(known);
        return AddTo(known, records, at) ? null : cell;
    }

    /// <summary>The columns, each as the first machine that uses it has it.</summary>
    public LogColumn[] Columns() =>
        _order.Count == 0
            ? []
            :
            [
                .. Enumerable
                    .Range(0, _byTag[_order[0]].Layout.Columns.Count)
                    .Select(c =>
                        _order.Select(tag => _byTag[tag].Layout.Columns[c]).MaxBy(column => column.Field.Role != LogRole.Ignore)!
                    ),
            ];

    /// <summary>What every machine's samples come to; machines without a sample are left out.</summary>
    public IReadOnlyList<LoggedMachine> Finish() =>
        [
            .. _order
                .Where(tag => _byTag[tag].Condenser is not null)
                .Select(tag => new LoggedMachine(tag, _byTag[tag].Condenser!.Finish()))
                .Where(m => m.Log.Samples > 0 || _order.Count == 1),
        ];

    private bool AddTo(string tag, CsvRecords records, long at)
    {
        var (layout, condenser) = _byTag[tag];
        condenser?.Add(layout.SampleOf(records, at));
        return condenser is not null;
    }

    private void LayOut(string tag)
    {
        if (_byTag.ContainsKey(tag))
            return;
        var layout = new LogLayout(machines.ColumnsOf(tag), partsOf[tag]);
        _byTag[tag] = (layout, layout.Problem is null ? new SampleCondenser(partsOf[tag].Count) : null);
        _order.Add(tag);
    }
}
