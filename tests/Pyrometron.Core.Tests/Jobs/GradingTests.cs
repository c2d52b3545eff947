using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Inspection;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Procedures;

namespace Pyrometron.Core.Tests.Jobs;

/// <summary>Grades of an inspection and what they speak for; common practice, no source.</summary>
public class InspectionTests
{
    [Fact]
    public void Every_subject_begins_with_nothing_wrong_and_its_words_are_told_apart()
    {
        foreach (var subject in Enum.GetValues<FindingSubject>())
        {
            var grades = Grading.Grades[subject];
            Assert.Null(grades[0].Cause);
            Assert.Equal(grades.Count, grades.DistinctBy(g => g.Word).Count());
            Assert.All(
                grades.Where(g => g.Needs is not null),
                g => Assert.True(ServiceEffects.RemovedShare(g.Needs!.Value, g.Cause!.Value) > 0)
            );
        }
        Assert.Equal(["0", "1", "2", "3", "4"], Grading.Grades[FindingSubject.Dust].Select(g => g.Word));
    }

    [Fact]
    public void What_was_found_is_named_the_gravest_first()
    {
        Assert.Null(Grading.FoundCauses([]));
        Assert.Equal([Cause.None], Grading.FoundCauses([(FindingSubject.Dust, "1"), (FindingSubject.Paste, "soft")])!);
        Assert.Equal([Cause.Pads, Cause.Dust], Grading.FoundCauses([(FindingSubject.Dust, "4"), (FindingSubject.Pads, "oily")])!);
        Assert.Equal([Cause.Mount], Grading.FoundCauses([(FindingSubject.Coverage, "half")])!);
    }

    [Fact]
    public void A_level_is_asked_for_only_where_the_one_in_hand_does_not_cure()
    {
        Assert.Null(Grading.AsksFor(ServiceLevel.Repad, [(FindingSubject.Pads, "torn"), (FindingSubject.Dust, "4")]));
        Assert.Null(Grading.AsksFor(ServiceLevel.Repaste, [(FindingSubject.FanSpin, "stuck")]));
        Assert.Equal(ServiceLevel.DustOut, Grading.AsksFor(ServiceLevel.BlowOut, [(FindingSubject.Dust, "3")])!.Value.Level);
        Assert.Equal(
            ServiceLevel.Repad,
            Grading.AsksFor(ServiceLevel.DustOut, [(FindingSubject.FanSpin, "stuck"), (FindingSubject.Pads, "torn")])!.Value.Level
        );
    }

    [Fact]
    public void Notes_that_cannot_be_are_told_by_place()
    {
        var notes = ModelNotes.Empty("x") with
        {
            Screws = [new(1, ScrewPlace.Cover, 10, 10, 5, "PH1"), new(1, ScrewPlace.Cover, 999, 10, 500, "")],
            Pads = [new(1, "", 240, 10, 20, 5, 99)],
            Connectors = [new("", ConnectorKind.Data, 0)],
            Traps = [""],
        };
        var pointers = notes.Problems().Select(p => p.Pointer).ToArray();
        Assert.Equal(
            [
                "/screws/1/number",
                "/screws/1/xMm",
                "/screws/1/lengthMm",
                "/screws/1/driver",
                "/pads/0/xMm",
                "/pads/0/thicknessMm",
                "/pads/0/part",
                "/connectors/0",
                "/traps/0",
            ],
            pointers
        );
    }

    [Fact]
    public void Every_kind_of_entry_has_its_words()
    {
        JobEntry[] entries =
        [
            new StepDone("blow"),
            new StepUndone("blow"),
            new StepSkipped("blow", "why"),
            new StepAdded(Stage.Clean, "rinse"),
            new StepRepeated("blow"),
            new LevelChanged(ServiceLevel.Repad, "torn"),
            new Counted(CountOf.Screws, "6 mm", 4, 3),
            new CountExcused(CountOf.Screws, "lost"),
            new Found(FindingSubject.Pads, "torn"),
            new DamageFound("clip"),
            new DeviationSeen("paste for pads"),
            new ComplaintRecorded(ComplaintKind.Crashes, "render", 12, true),
            new WarrantyAnswered("agreed"),
            new BeforeExcused("dead"),
            new RunVoided(RunPhase.After, "door"),
            new TimerStarted("drain", 15),
            new TimerStopped("drain"),
            new MaterialUsed(MaterialKind.PadPieces, 2, 1.5),
            new MinutesBooked(5),
            new Noted("n"),
            new PhotoTaken(Guid.NewGuid(), "fins"),
            new WorkFiled(),
            new Reopened(true, true, true, "gap"),
            new VerdictFiled(true),
            new HandedBack("desk"),
            new GivenUp("why"),
        ];
        Assert.All(entries, e => Assert.NotEqual(e.GetType().Name, EntryWords.Of(e, _ => null).ToString()));
        Assert.Equal("Found: pads torn", EntryWords.Of(new Found(FindingSubject.Pads, "torn"), _ => null).ToString());
        Assert.Equal(
            "Used: 2 pads of 1.5 mm",
            EntryWords.Of(new MaterialUsed(MaterialKind.PadPieces, 2, 1.5), _ => null).ToString()
        );
        Assert.Equal(
            "Complaint: crashes under render, after 12 minutes, seen at the bench",
            EntryWords.Of(new ComplaintRecorded(ComplaintKind.Crashes, "render", 12, true), _ => null).ToString()
        );
    }
}
