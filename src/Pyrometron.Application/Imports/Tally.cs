namespace Pyrometron.Application.Imports;

/// <summary>Counts what became of a file's lines and keeps the first refusals.</summary>
public sealed class Tally(int mostListed)
{
    private readonly List<RefusedLine> _listed = [];
    private long _refused;

    public long Accepted { get; set; }

    public long Duplicates { get; set; }

    public long Lines => Accepted + Duplicates + _refused;

    public void Refuse(int line, string? column, string message)
    {
        if (_refused++ < mostListed)
            _listed.Add(new RefusedLine(line, column, message));
    }

    public ImportAnswer Answer(IReadOnlyList<string> warnings) =>
        new(Accepted, Duplicates, _refused, [.. _listed.OrderBy(r => r.Line)], warnings);
}
