namespace Pyrometron.Server.Judging;

/// <summary>What has become of a queue since a mark: its new and changed rows, and the machines that left it.</summary>
/// <param name="Items">With their ranks in the whole queue, first rank first. All other rows stand between them as
/// before.</param>
public sealed record QueueChange(IReadOnlyList<QueueItem> Items, IReadOnlyList<string> Gone);

/// <summary>
/// The last few queues that were answered, by their marks, so that who has one of them is told only what has changed. They are
/// lost when the server ends; then the whole queue is answered.
/// </summary>
public sealed class QueueSnapshots
{
    private const int Most = 4;

    private readonly Lock _lock = new();
    private readonly LinkedList<(string Mark, IReadOnlyList<QueueItem> Items)> _newestFirst = new();

    /// <summary>Keeps a queue.</summary>
    /// <returns>Its mark: that of the last one where nothing has changed since.</returns>
    public string Keep(IReadOnlyList<QueueItem> items)
    {
        lock (_lock)
        {
            if (_newestFirst.First is { } newest && newest.Value.Items.SequenceEqual(items))
                return newest.Value.Mark;
            var mark = Guid.CreateVersion7().ToString("N");
            _newestFirst.AddFirst((mark, items));
            if (_newestFirst.Count > Most)
                _newestFirst.RemoveLast();
            return mark;
        }
    }

    /// <summary>What has changed since a mark.</summary>
    /// <returns>Null where the mark is not known, or where too much has changed to be told in parts.</returns>
    public QueueChange? Since(string mark, IReadOnlyList<QueueItem> items)
    {
        IReadOnlyList<QueueItem>? before;
        lock (_lock)
            before = _newestFirst.FirstOrDefault(s => s.Mark == mark).Items;
        if (before is null)
            return null;
        var known = before.ToDictionary(i => i.Asset);
        var changed = items.Where(i => !known.TryGetValue(i.Asset, out var was) || was with { Rank = i.Rank } != i).ToArray();
        if (changed.Length * 2 > items.Count)
            return null;
        var moved = changed.Select(i => i.Asset).ToHashSet();
        var present = items.Select(i => i.Asset).ToHashSet();
        var stayed = before.Select(i => i.Asset).Where(tag => present.Contains(tag) && !moved.Contains(tag));
        // Rows that changed places without changing themselves cannot be told by those that did.
        return stayed.SequenceEqual(items.Select(i => i.Asset).Where(tag => !moved.Contains(tag)))
            ? new QueueChange(changed, [.. known.Keys.Where(tag => !present.Contains(tag))])
            : null;
    }
}
