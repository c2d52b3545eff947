using Pyrometron.Core.Messages;

namespace Pyrometron.Application.Imports;

/// <summary>Counts what became of a file's lines and keeps the first refusals.</summary>
public sealed class Tally(int mostListed)
{
    private const int MostRetired = 20;

    private readonly List<RefusedLine> _listed = [];
    private long _refused;

    public long Accepted { get; set; }

    public long Duplicates { get; set; }

    /// <summary>Machines that are out of use and were told of all the same.</summary>
    private readonly SortedDictionary<string, DateOnly> _retired = new(StringComparer.Ordinal);

    public long Lines => Accepted + Duplicates + _refused;

    public void Refuse(int line, string? column, Message message)
    {
        if (_refused++ < mostListed)
            _listed.Add(RefusedLine.Of(line, column, message));
    }

    /// <summary>Notes that what was taken is about a machine that is out of use.</summary>
    public void NoteRetired(string tag, DateOnly on) => _retired[tag] = on;

    public ImportAnswer Answer(IReadOnlyList<Message> warnings)
    {
        Message[] all = [.. warnings, .. Retired()];
        return new(Accepted, Duplicates, _refused, [.. _listed.OrderBy(r => r.Line)], [.. all.Select(w => w.ToString())], all);
    }

    private IEnumerable<Message> Retired()
    {
        foreach (var (tag, on) in _retired.Take(MostRetired))
            yield return $"{tag} was retired on {on}: what came in is kept, but it is not judged.";
        if (_retired.Count > MostRetired)
            yield return $"The same for {_retired.Count - MostRetired} more retired machines.";
    }
}
