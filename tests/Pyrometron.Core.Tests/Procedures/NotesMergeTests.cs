using Pyrometron.Core.Procedures;

namespace Pyrometron.Core.Tests.Procedures;

/// <summary>Notes from elsewhere laid over those of this house.</summary>
public class NotesMergeTests
{
    private static readonly ModelNotes Nothing = ModelNotes.Empty("Sorrel");

    private static readonly ModelNotes Here = Nothing with
    {
        Chip = ChipKind.Bare,
        Screws = [new(1, ScrewPlace.Cooler, 10, 10, 4, "PH1"), new(2, ScrewPlace.Cooler, 40, 10, 4, "PH1")],
        Traps = ["The ribbon tears"],
        Sources = [new("chip", "Ida", 1, new(2026, 3, 1))],
    };

    private static readonly ModelNotes There = Nothing with
    {
        WidthMm = 320,
        Chip = ChipKind.Lidded,
        FansStopAtIdle = true,
        Screws = [new(2, ScrewPlace.Cooler, 40, 10, 6, "PH1"), new(3, ScrewPlace.Cooler, 300, 10, 4, "PH1")],
        Tools = ["long PH0"],
        Sources = [new("chip", "Ida", 3, new(2026, 5, 1)), new("chip", "Jon", 2, new(2026, 4, 1))],
    };

    [Theory]
    [InlineData(PreferredNotes.Here, ChipKind.Bare, 4)]
    [InlineData(PreferredNotes.There, ChipKind.Lidded, 6)]
    public void What_only_one_knows_is_kept_and_what_both_say_differently_is_shown(
        PreferredNotes prefer,
        ChipKind chip,
        double lengthMm
    )
    {
        var merged = NotesMerge.Of(Here, There, prefer);
        Assert.Equal(chip, merged.Notes.Chip);
        Assert.Equal([1, 2, 3], merged.Notes.Screws.Select(s => s.Number));
        Assert.Equal(lengthMm, merged.Notes.Screws[1].LengthMm);
        Assert.Equal(true, merged.Notes.FansStopAtIdle);
        Assert.Equal(320, merged.Notes.WidthMm);
        Assert.Equal(["The ribbon tears"], merged.Notes.Traps);
        Assert.Equal(["long PH0"], merged.Notes.Tools);
        Assert.Equal([3, 2], merged.Notes.Sources!.Select(s => s.Times));
        Assert.Equal(["chip", "screw 2"], merged.Differences.Select(d => d.About).Order());
        Assert.Contains(merged.Differences, d => d is { About: "chip", Here: "bare", There: "lidded" });
        Assert.Empty(merged.Notes.Problems());
    }

    [Fact]
    public void Merged_twice_nothing_changes_the_second_time()
    {
        var once = NotesMerge.Of(Here, There, PreferredNotes.Here).Notes;
        Assert.Same(once, NotesMerge.Of(once, There, PreferredNotes.Here).Notes);
        Assert.Same(Here, NotesMerge.Of(Here, Here with { }, PreferredNotes.There).Notes);
    }

    [Fact]
    public void Who_changed_what_is_written_beside_it()
    {
        var after = Here with { Chip = ChipKind.Lidded, Traps = ["The ribbon tears", "Clips break when cold"] };
        var signed = NoteChanges.SignedBy(Here, after, "Ida", new DateOnly(2026, 6, 1));
        Assert.Equal(
            [("Clips break when cold", 1), ("chip", 2)],
            signed.Sources!.Select(s => (s.About, s.Times)).OrderBy(s => s.About, StringComparer.Ordinal)
        );
        Assert.Empty(NoteChanges.Between(after, after));
    }
}
