using System.Collections.Concurrent;

namespace Pyrometron.Server.Imports;

/// <summary>How far an import is.</summary>
/// <param name="Bytes">Bytes of the unpacked file read.</param>
/// <param name="Total">Its length in bytes.</param>
/// <param name="Lines">Lines dealt with.</param>
public sealed record ImportState(long Bytes, long Total, long Lines);

/// <summary>Imports in hand, by the number their sender gave them.</summary>
public sealed class ImportProgress
{
    private readonly ConcurrentDictionary<Guid, ImportState> _running = new();

    /// <summary>Reports an import's state.</summary>
    public void Report(Guid? id, ImportState state)
    {
        if (id is { } known)
            _running[known] = state;
    }

    /// <summary>Forgets an import that has ended.</summary>
    public void End(Guid? id)
    {
        if (id is { } known)
            _running.TryRemove(known, out _);
    }

    /// <summary>An import's state, or null when it has not begun or has ended.</summary>
    public ImportState? Find(Guid id) => _running.GetValueOrDefault(id);
}
