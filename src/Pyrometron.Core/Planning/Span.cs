namespace Pyrometron.Core.Planning;

/// <summary>A stretch of time in whole minutes from 00:00 UTC of the plan's first day, half open: [From, To).</summary>
public readonly record struct Span(int From, int To)
{
    /// <summary>Its length in minutes.</summary>
    public int Minutes => To - From;

    /// <summary>Whether it holds the whole of another one.</summary>
    public bool Holds(Span other) => From <= other.From && other.To <= To;

    /// <summary>Whether they share a minute; such that only touch do not.</summary>
    public bool Overlaps(Span other) => From < other.To && other.From < To;

    /// <summary>What two have in common; empty where they only touch.</summary>
    public Span And(Span other) => new(Math.Max(From, other.From), Math.Min(To, other.To));

    /// <summary>
    /// The same time with overlapping and touching stretches made one, in order, those without a minute left out.
    /// </summary>
    public static IReadOnlyList<Span> Merged(IEnumerable<Span> spans)
    {
        var merged = new List<Span>();
        foreach (var span in spans.Where(s => s.Minutes > 0).OrderBy(s => s.From))
            if (merged.Count > 0 && span.From <= merged[^1].To)
                merged[^1] = merged[^1] with { To = Math.Max(merged[^1].To, span.To) };
            else
                merged.Add(span);
        return merged;
    }
}
