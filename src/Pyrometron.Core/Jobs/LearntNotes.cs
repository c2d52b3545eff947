using Pyrometron.Core.Events;
using Pyrometron.Core.Materials;
using Pyrometron.Core.Procedures;

namespace Pyrometron.Core.Jobs;

/// <summary>
/// What a filed job adds to its model's notes. Only what the notes do not know yet is taken over: what people drew and wrote
/// is never overwritten.
/// </summary>
public static class LearntNotes
{
    private const double ColumnMm = 12,
        RowMm = 12;

    /// <summary>The notes with what the job recorded.</summary>
    /// <returns>The same notes when there was nothing new.</returns>
    public static ModelNotes From(ModelNotes notes, Job job)
    {
        var learnt = notes;
        if (notes.Screws.Count == 0)
            learnt = learnt with { Screws = Screws(notes, job) };
        if (notes.Connectors.Count == 0)
            learnt = learnt with
            {
                Connectors =
                [
                    .. job
                        .Counts.Where(c => c.What == CountOf.Connectors && c.Out > 0)
                        .Select(c => new ConnectorNote(c.Item, KindOf(c.Item), c.Out)),
                ],
            };
        learnt = learnt with { Pads = Pads(notes, job) };
        if (job.Tools.Except(notes.Tools ?? []).ToArray() is { Length: > 0 } tools)
            learnt = learnt with { Tools = [.. (notes.Tools ?? []).Concat(tools).Take(ModelNotes.Most)] };
        if (notes.Pattern is null)
            learnt = learnt with { Pattern = job.Products.FirstOrDefault(p => p.Product == ProductKind.Paste)?.Pattern };
        if (notes.Chip is null)
            learnt = learnt with { Chip = job.Basis.Chip };
        if (notes.Protocol is null && (job.Standing(RunPhase.After) ?? job.Standing(RunPhase.Before))?.Run is { } run)
            learnt = learnt with
            {
                Protocol = new TestProtocol(run.Workload, run.Minutes, run.Fan.Mode, run.Fan.Percent, run.Settings, run.Position),
            };
        return NoteChanges.AreAlike(learnt, notes) ? notes : learnt;
    }

    /// <summary>
    /// Thicknesses as measured beside those the notes have; where the notes have no pads, those that were measured, in rows along
    /// the plan's lower edge until somebody moves them.
    /// </summary>
    private static IReadOnlyList<PadNote> Pads(ModelNotes notes, Job job)
    {
        if (notes.Pads.Count > 0)
            return
            [
                .. notes.Pads.Select(p =>
                    p.MeasuredMm is null && job.PadsMeasured.FirstOrDefault(m => m.Pad == p.Number) is { } measured
                        ? p with
                        {
                            MeasuredMm = measured.MeasuredMm,
                        }
                        : p
                ),
            ];
        var perRow = Math.Max(1, (int)(notes.WidthMm / (2 * ColumnMm)) - 1);
        return
        [
            .. job.PadsMeasured.Select(
                (m, i) =>
                    new PadNote(
                        i + 1,
                        m.Place,
                        Math.Clamp(2 * ColumnMm * (i % perRow), 0, Math.Max(0, notes.WidthMm - ColumnMm)),
                        Math.Max(0, notes.HeightMm - RowMm * (i / perRow + 1)),
                        Math.Min(ColumnMm, notes.WidthMm),
                        Math.Min(RowMm, notes.HeightMm),
                        Math.Max(0.2, m.NominalMm ?? Math.Round(m.MeasuredMm, 1)),
                        m.Place.Contains("back", StringComparison.OrdinalIgnoreCase) ? PadSide.Back : null,
                        m.MeasuredMm
                    )
            ),
        ];
    }

    /// <summary>
    /// Screws of which only number and length are known stand in rows beside the plan's upper edge until somebody moves them to
    /// their place.
    /// </summary>
    private static Screw[] Screws(ModelNotes notes, Job job)
    {
        var perRow = Math.Max(1, (int)(notes.WidthMm / ColumnMm) - 1);
        return
        [
            .. job
                .Counts.Where(c => c is { What: CountOf.Screws, Out: > 0 })
                .OrderBy(c => c.Item, StringComparer.Ordinal)
                .SelectMany(c => Enumerable.Repeat(c, c.Out))
                .Take(ModelNotes.Most)
                .Select(
                    (c, i) =>
                        (
                            Length: TryLength(c.Item, out var length, out var driver) ? length : 5,
                            Driver: driver,
                            Index: i,
                            Place: c.Place ?? ScrewPlace.Cover
                        )
                )
                .Select(s => new Screw(
                    s.Index + 1,
                    s.Place,
                    Math.Min(notes.WidthMm, ColumnMm * (s.Index % perRow + 1)),
                    Math.Min(notes.HeightMm, RowMm * (s.Index / perRow + 1)),
                    s.Length,
                    s.Driver
                )),
        ];
    }

    /// <summary>Reads a tray compartment such as <c>4 mm PH1</c>.</summary>
    private static bool TryLength(string item, out double length, out string driver)
    {
        var words = item.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        driver = words.Length > 2 ? string.Join(' ', words[2..]) : "unknown";
        return double.TryParse(words.FirstOrDefault(), System.Globalization.CultureInfo.InvariantCulture, out length)
            && length is >= 0.5 and <= 200;
    }

    private static ConnectorKind KindOf(string name) =>
        Enum.GetValues<ConnectorKind>()
            .Cast<ConnectorKind?>()
            .FirstOrDefault(k => name.Contains(Fleet.Words.Of(k!.Value).Split('-')[0], StringComparison.OrdinalIgnoreCase))
        ?? ConnectorKind.Data;
}
