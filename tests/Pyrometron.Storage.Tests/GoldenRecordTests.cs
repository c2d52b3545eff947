using System.Text.Json.Nodes;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Inspection;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Materials;
using Pyrometron.Core.Procedures;
using Pyrometron.Core.Units;
using Pyrometron.Storage.Records;

namespace Pyrometron.Storage.Tests;

/// <summary>
/// One example of every record as it lies in databases of users (<c>tests/golden</c>). An example is added with a kind and never
/// changed: a program that cannot read it cannot read somebody's history.
/// </summary>
public class GoldenRecordTests
{
    private static readonly Run Measured = new(
        "steady",
        20,
        new Celsius(24.5),
        new RunFan(FanMode.Fixed, 60, 1900),
        "stock",
        220,
        1800,
        91.5,
        false,
        [new RunPart("core", new Celsius(71), 1, new Celsius(73))]
    )
    {
        AmbientSpread = 2,
        Position = "in its rack",
        FailedAfterMinutes = 12,
        Source = RunSource.Log,
        Settled = true,
        ShareOfRise = 0.98,
        Start = new Celsius(31),
        SlopeAtEnd = 0.02,
        FanRamp = 0.01,
        ScoreUnit = "frames",
    };

    private static readonly JobEntry[] Entries =
    [
        new StepDone("blow", ["Fan held still"]),
        new StepUndone("blow"),
        new StepSkipped("prepare", "done by a colleague"),
        new StepAdded(Stage.Clean, "Rinse the dust mesh"),
        new StepRepeated("blow"),
        new LevelChanged(ServiceLevel.FanSwap, "bearing gone", "rear"),
        new Counted(CountOf.Screws, "6 mm PH1", 4, 3),
        new CountExcused(CountOf.Connectors, "one was missing on arrival"),
        new Found(FindingSubject.Pads, "torn", "two of four"),
        new DamageFound("clip broken"),
        new DeviationSeen("paste instead of pads"),
        new ComplaintRecorded(ComplaintKind.Crashes, "rendering", 9.5, true),
        new WarrantyAnswered("Seller agreed by letter"),
        new BeforeExcused("does not start"),
        new RunMeasured(RunPhase.Before, Measured),
        new RunVoided(RunPhase.Before, "door open", Guid.Parse("5f0c4a86-5d0c-4d1c-9f39-0a4f2f7b9f11")),
        new ChipSeen(ChipKind.Lidded),
        new TimerStarted("drain", 15),
        new TimerStopped("drain"),
        new MaterialUsed(MaterialKind.PadPieces, 2, 1.5),
        new ProductUsed(ProductKind.Paste, "Hemlock 8", "L2231", PastePattern.Spread),
        new PadMeasured("2 · memory, back", 1.38, 1.5, PadMeasure.Caliper, 2),
        new ToolUsed("long PH0"),
        new OrderAgreed("clean it, it is loud", "Ida Varga", 120, true, "lid scratched", true),
        new MinutesBooked(12.5),
        new Noted("dry, like chalk"),
        new PhotoTaken(new Guid("6f1c2b7e-0a3d-4a5c-9c61-2f0f3f1f7d11"), "Fins as found", "inspect", FoundOnOpening: true),
        new WorkFiled(),
        new Reopened(true, true, false, "still a gap"),
        new VerdictFiled(true),
        new HandedBack("Desk 4", "runs quiet"),
        new GivenUp("owner took it back"),
        new NotesTaken(),
        new CardChanged(
            ["paste-off~2"],
            [
                new StepPutOn(
                    new CardStep(
                        "paste-on~2",
                        Stage.Paste,
                        "Put new paste on: a pea.",
                        [new Caution("Alcohol burns: ventilate, no flame.", "SDS")],
                        ["Foil off"],
                        StepForm.Tick,
                        new StepTimer("Alcohol dries", 60, true),
                        [],
                        false
                    ),
                    "paste-off"
                ),
            ]
        ),
    ];

    public static TheoryData<string> Kinds() => [.. Entries.Select(JobStore.KindOf)];

    private static string Golden(string path)
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(folder.FullName, "Pyrometron.slnx")))
            folder = folder.Parent!;
        return Path.Combine(folder.FullName, "tests", "golden", path);
    }

    [Fact]
    public void Every_kind_of_entry_has_its_example()
    {
        var kinds = typeof(JobEntry)
            .GetCustomAttributes(typeof(System.Text.Json.Serialization.JsonDerivedTypeAttribute), false)
            .Cast<System.Text.Json.Serialization.JsonDerivedTypeAttribute>()
            .Select(a => (string)a.TypeDiscriminator!)
            .Order()
            .ToArray();
        Assert.Equal(34, kinds.Length);
        Assert.Equal(kinds, Entries.Select(JobStore.KindOf).Order());
        Assert.Equal(kinds, Directory.EnumerateFiles(Golden("entries")).Select(f => Path.GetFileNameWithoutExtension(f)).Order());
    }

    [Theory]
    [MemberData(nameof(Kinds))]
    public void An_entry_is_read_from_its_example_and_written_like_it(string kind)
    {
        var json = File.ReadAllText(Golden($"entries/{kind}.json"));
        var read = StoredJson.Read<EntryRecord>(json).ToEntry();
        var expected = Entries.Single(e => JobStore.KindOf(e) == kind);
        // Records compare lists by reference; their written forms are compared instead.
        Assert.IsType(expected.GetType(), read);
        AssertSame(JobStore.StoredFormOf(expected), JobStore.StoredFormOf(read));
        AssertSame(json, JobStore.StoredFormOf(read));
    }

    /// <summary>Until form 2 a run took the place of the one before it: jobs of that time keep saying what they said.</summary>
    [Fact]
    public void A_run_of_form_1_replaces_the_one_before_it()
    {
        var record = StoredJson.Read<EntryRecord>(File.ReadAllText(Golden("entries/run-measured.json")));
        Assert.True(Assert.IsType<RunMeasured>(record.ToEntry(form: 1)).Replaces);
        Assert.Null(Assert.IsType<RunMeasured>(record.ToEntry(form: 2)).Replaces);
    }

    [Fact]
    public void A_card_a_service_and_a_verdict_are_read_from_their_examples_and_written_like_them()
    {
        void Same<T>(string file, Func<T, T> through)
        {
            var json = File.ReadAllText(Golden(file));
            AssertSame(json, StoredJson.Write(through(StoredJson.Read<T>(json))));
        }
        Same<CardRecord>("card.json", r => CardRecord.Of(r.ToCard()));
        Same<VerdictRecord>("verdict.json", r => VerdictRecord.Of(r.ToVerdict()));
        var done = StoredJson
            .Read<ServiceRecord>(File.ReadAllText(Golden("service.json")))
            .Fill(new ServiceDone(new DateOnly(2026, 4, 1), ServiceLevel.FanSwap));
        Assert.Equal((true, 1, 1), (done.LiftedCooler, done.Renewed.Paste, done.Renewed.Fan));
        AssertSame(File.ReadAllText(Golden("service.json")), StoredJson.Write(ServiceRecord.Of(done)!));
    }

    private static void AssertSame(string expected, string actual) =>
        Assert.True(
            JsonNode.DeepEquals(JsonNode.Parse(expected), JsonNode.Parse(actual)),
            $"expected {expected}\nactual {actual}"
        );

    /// <summary>The drawings of the front end are tested by the same list.</summary>
    [Fact]
    public void The_list_of_grades_is_that_of_the_inspection()
    {
        var listed = JsonNode.Parse(File.ReadAllText(Golden("grades.json")))!.AsObject();
        Assert.Equal(Grading.Grades.Keys.Select(Words.Of), listed.Select(s => s.Key));
        foreach (var (subject, grades) in Grading.Grades)
            Assert.Equal(grades.Select(g => g.Word), listed[Words.Of(subject)]!.AsArray().Select(g => (string)g!));
    }
}
