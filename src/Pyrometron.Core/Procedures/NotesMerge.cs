using Pyrometron.Core.Fleet;

namespace Pyrometron.Core.Procedures;

/// <summary>Which of two differing notes is kept.</summary>
public enum PreferredNotes
{
    Here,
    There,
}

/// <summary>What two notes on a model say differently.</summary>
/// <param name="About">Such as <c>chip</c>, <c>screw 4</c>, <c>pad 2</c>.</param>
public sealed record NotesDifference(string About, string Here, string There);

/// <summary>Notes merged.</summary>
/// <param name="Differences">What is said differently, whichever was kept.</param>
public sealed record MergedNotes(ModelNotes Notes, IReadOnlyList<NotesDifference> Differences);

/// <summary>
/// Lays notes from elsewhere over those of this house. What only one of them knows is kept; what they say differently is shown,
/// and kept as this house or the other has it. Merged twice, nothing changes the second time.
/// </summary>
public static class NotesMerge
{
    /// <summary>Merges.</summary>
    /// <param name="here">Of this house.</param>
    /// <param name="there">From elsewhere, of the same model.</param>
    public static MergedNotes Of(ModelNotes here, ModelNotes there, PreferredNotes prefer)
    {
        var differences = new List<NotesDifference>();
        T? One<T>(string about, T? ours, T? theirs, Func<T, string> say)
        {
            if (ours is null || theirs is null || ours.Equals(theirs))
                return ours is null ? theirs : ours;
            differences.Add(new NotesDifference(about, say(ours), say(theirs)));
            return prefer == PreferredNotes.There ? theirs : ours;
        }
        T? Word<T>(string about, T? ours, T? theirs)
            where T : struct, Enum => One(about, ours, theirs, v => Words.Of(v!.Value));
        IReadOnlyList<T> Many<T, TKey>(
            string about,
            IReadOnlyList<T> ours,
            IReadOnlyList<T> theirs,
            Func<T, TKey> key,
            Func<T, string> say
        )
            where T : class
            where TKey : notnull
        {
            var others = theirs.GroupBy(key).ToDictionary(g => g.Key, g => g.First());
            var mine = ours.Select(key).ToHashSet();
            return
            [
                .. ours.Select(o => One($"{about} {key(o)}", o, others.GetValueOrDefault(key(o)), say)!),
                .. others.Where(o => !mine.Contains(o.Key)).Select(o => o.Value),
            ];
        }
        var merged = here with
        {
            // The larger plan holds what either places on it.
            WidthMm = Math.Max(here.WidthMm, there.WidthMm),
            HeightMm = Math.Max(here.HeightMm, there.HeightMm),
            Chip = Word("chip", here.Chip, there.Chip),
            Pattern = Word("pattern", here.Pattern, there.Pattern),
            Loop = Word("loop", here.Loop, there.Loop),
            FansStopAtIdle = One("fans at idle", here.FansStopAtIdle, there.FansStopAtIdle, v => v == true ? "stop" : "turn"),
            Protocol = One("test", here.Protocol, there.Protocol, Say),
            Screws = Many("screw", here.Screws, there.Screws, s => s.Number, Say),
            Pads = Many("pad", here.Pads, there.Pads, p => p.Number, Say),
            Connectors = Many(
                "connector",
                here.Connectors,
                there.Connectors,
                c => c.Name,
                c => $"{c.Count} × {Words.Of(c.Kind)}"
            ),
            Fans = Many("fan", here.Fans, there.Fans, f => f.Name, Say),
            Clips = [.. here.Clips.Union(there.Clips)],
            Traps = [.. here.Traps.Union(there.Traps)],
            Tools = here.Tools is null && there.Tools is null ? null : [.. (here.Tools ?? []).Union(there.Tools ?? [])],
            Sources = Sources(here.Sources, there.Sources),
        };
        return new MergedNotes(NoteChanges.AreAlike(here, merged) ? here : merged, differences);
    }

    private static IReadOnlyList<NoteSource>? Sources(IReadOnlyList<NoteSource>? here, IReadOnlyList<NoteSource>? there) =>
        here is null && there is null
            ? null
            :
            [
                .. (here ?? [])
                    .Concat(there ?? [])
                    .GroupBy(s => (s.About, s.By))
                    .Select(g => new NoteSource(g.Key.About, g.Key.By, g.Max(s => s.Times), g.Max(s => s.Last))),
            ];

    private static string Say(Screw s) =>
        FormattableString.Invariant($"{s.LengthMm:0.#} mm {s.Driver}, {Words.Of(s.Place)}, at {s.XMm:0} × {s.YMm:0} mm")
        + (s.Order is { } order ? $", maker's number {order}" : "")
        + (s.Plate is { } plate ? $", plate {plate}" : "");

    private static string Say(PadNote p) =>
        FormattableString.Invariant($"{p.Part}, {p.WidthMm:0.#} × {p.HeightMm:0.#} × {p.ThicknessMm:0.##} mm")
        + (p.Side is { } side ? $", {Words.Of(side)}" : "")
        + (p.MeasuredMm is { } measured ? FormattableString.Invariant($", measured {measured:0.##} mm") : "");

    private static string Say(FanNote f) =>
        (f.ComesOffAlone ? "comes off alone" : "comes off with the cooler")
        + (f.HotSwap == true ? ", while running" : "")
        + (f.PartNumber is { } number ? $", {number}" : "");

    private static string Say(TestProtocol t) =>
        FormattableString.Invariant($"{t.Load}, {t.Minutes:0.#} min, fan {Words.Of(t.Fan)}")
        + (t.FanPercent is { } percent ? FormattableString.Invariant($" {percent:0} %") : "")
        + $", {t.Settings}";
}
