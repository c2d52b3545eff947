namespace Pyrometron.Core.Procedures;

/// <summary>What one version of a model's notes says that another does not.</summary>
public static class NoteChanges
{
    /// <summary>What was added or changed, as <see cref="NoteSource.About"/> names it; what was taken out is not told.</summary>
    public static IEnumerable<string> Between(ModelNotes before, ModelNotes after)
    {
        if (!before.Screws.SequenceEqual(after.Screws) && after.Screws.Count > 0)
            yield return "screws";
        if (!before.Connectors.SequenceEqual(after.Connectors) && after.Connectors.Count > 0)
            yield return "connectors";
        foreach (var pad in after.Pads.Except(before.Pads))
            yield return $"pad {pad.Number}";
        foreach (var fan in after.Fans.Except(before.Fans))
            yield return $"fan {fan.Name}";
        if (after.Chip is not null && after.Chip != before.Chip)
            yield return "chip";
        if (after.Loop is not null && after.Loop != before.Loop)
            yield return "loop";
        if (after.Pattern is not null && after.Pattern != before.Pattern)
            yield return "pattern";
        if (after.Protocol is not null && after.Protocol != before.Protocol)
            yield return "test";
        if (after.FansStopAtIdle is not null && after.FansStopAtIdle != before.FansStopAtIdle)
            yield return "fans at idle";
        foreach (
            var sentence in after
                .Clips.Except(before.Clips)
                .Concat(after.Traps.Except(before.Traps))
                .Concat((after.Tools ?? []).Except(before.Tools ?? []))
        )
            yield return sentence;
    }

    /// <summary>The notes with who changed them.</summary>
    /// <param name="by">As they called themselves.</param>
    public static ModelNotes SignedBy(ModelNotes before, ModelNotes after, string by, DateOnly day)
    {
        var sources = (before.Sources ?? []).ToDictionary(s => (s.About, s.By));
        foreach (var about in Between(before, after))
            sources[(about, by)] = sources.TryGetValue((about, by), out var known)
                ? known with
                {
                    Times = known.Times + 1,
                    Last = day,
                }
                : new NoteSource(about, by, 1, day);
        return after with { Sources = sources.Count == 0 ? null : [.. sources.Values.TakeLast(ModelNotes.Most)] };
    }

    /// <summary>Whether two notes say the same, member by member; lists count by what is in them.</summary>
    internal static bool AreAlike(ModelNotes a, ModelNotes b) =>
        a.Screws.SequenceEqual(b.Screws)
        && a.Connectors.SequenceEqual(b.Connectors)
        && a.Pads.SequenceEqual(b.Pads)
        && a.Fans.SequenceEqual(b.Fans)
        && a.Clips.SequenceEqual(b.Clips)
        && a.Traps.SequenceEqual(b.Traps)
        && (a.Tools ?? []).SequenceEqual(b.Tools ?? [])
        && (a.Sources ?? []).SequenceEqual(b.Sources ?? [])
        && a with
        {
            Screws = b.Screws,
            Connectors = b.Connectors,
            Pads = b.Pads,
            Fans = b.Fans,
            Clips = b.Clips,
            Traps = b.Traps,
            Tools = b.Tools,
            Sources = b.Sources,
        } == b;
}
