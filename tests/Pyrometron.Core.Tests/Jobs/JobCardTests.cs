using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Inspection;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Procedures;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Tests.Jobs;

/// <summary>How a job's card stands after what has happened to it.</summary>
public class JobCardTests
{
    private static readonly DateTimeOffset Start = new(2026, 3, 2, 9, 0, 0, TimeSpan.Zero);

    private static readonly ModelNotes Notes = ModelNotes.Empty("Sorrel") with
    {
        Screws =
        [
            new(1, ScrewPlace.Shroud, 10, 10, 4, "PH1"),
            new(2, ScrewPlace.Shroud, 90, 10, 4, "PH1"),
            new(3, ScrewPlace.Cooler, 40, 40, 6, "PH1"),
            new(4, ScrewPlace.Cooler, 60, 60, 6, "PH1"),
        ],
        Connectors = [new("Fan lead", ConnectorKind.FanLead, 2)],
    };

    private static CardBasis Basis(ServiceLevel level) =>
        new(AssetKind.GraphicsCard, level, Notes, BenchSchools.Default, HasPads: true);

    /// <summary>A job whose entries are taken as they come: what the rules would refuse is not asked here.</summary>
    private static Job Of(ServiceLevel level, params JobEntry[] entries)
    {
        var job = new Job(Head(level), []);
        var stamped = new List<StampedEntry>();
        foreach (var entry in entries)
        {
            var before = job;
            Add(entry);
            if (job.CardChange(before, null) is { } change)
                Add(change);
        }
        return job;

        void Add(JobEntry entry)
        {
            stamped.Add(
                new StampedEntry(Guid.NewGuid(), stamped.Count + 2, "phone", null, Start.AddMinutes(stamped.Count), entry)
            );
            job = new Job(job.Head, stamped);
        }
    }

    private static JobHead Head(ServiceLevel level) =>
        new(1, "GC-1", FrozenCard.Deal(Basis(level), 0), Start, [new("core", new(90), JointMaterial.Paste)]);

    private static Run Run(double celsius) =>
        new(
            "steady",
            20,
            new Celsius(25),
            new RunFan(FanMode.Fixed, 100),
            "stock",
            null,
            null,
            null,
            false,
            [new("core", new(celsius))]
        );

    private static string[] Ids(Job job) => [.. job.Steps.Select(s => s.Card.Id)];

    [Fact]
    public void A_second_round_comes_after_the_whole_of_the_first_and_begins_with_making_safe()
    {
        var job = Of(
            ServiceLevel.Repaste,
            new WorkFiled(),
            new RunMeasured(RunPhase.After, Run(97)),
            new Reopened(true, true, true, "worse")
        );
        var ids = Ids(job);
        var second = Array.FindIndex(ids, id => id.EndsWith("~r2", StringComparison.Ordinal));
        Assert.Equal("owner-told~r2", ids[second]);
        Assert.All(ids[..second], id => Assert.DoesNotContain('~', id));
        Assert.All(ids[second..], id => Assert.EndsWith("~r2", id));
        Assert.DoesNotContain("prepare~r2", ids);
        Assert.Null(job.Standing(RunPhase.After));
        Assert.Equal("worse", job.Runs.Single().Voided);
    }

    [Fact]
    public void After_a_dust_out_the_second_round_lifts_the_cooler()
    {
        var job = Of(
            ServiceLevel.DustOut,
            new WorkFiled(),
            new RunMeasured(RunPhase.After, Run(97)),
            new Reopened(true, true, true, "worse")
        );
        Assert.DoesNotContain("paste-on", Ids(job));
        Assert.Contains("paste-on~r2", Ids(job));
    }

    [Fact]
    public void What_is_repeated_or_added_belongs_to_the_round_in_hand()
    {
        var job = Of(
            ServiceLevel.Repaste,
            new WorkFiled(),
            new RunMeasured(RunPhase.After, Run(97)),
            new Reopened(true, true, true, "worse"),
            new StepRepeated("blow~r2"),
            new StepAdded(Stage.Paste, "look at the imprint")
        );
        var ids = Ids(job);
        Assert.Equal(Array.IndexOf(ids, "blow~r2") + 1, Array.IndexOf(ids, "blow~r2~2"));
        Assert.True(Array.IndexOf(ids, "own-1") > Array.IndexOf(ids, "cooler-on~r2"));
        Assert.True(Array.IndexOf(ids, "own-1") < Array.IndexOf(ids, "tighten~r2"));
        Assert.Equal("blow", job.Steps.Single(s => s.Card.Id == "blow~r2~2").Card.Kind);
    }

    [Fact]
    public void A_tick_taken_back_and_a_step_taken_in_again_are_open()
    {
        var job = Of(
            ServiceLevel.DustOut,
            new StepDone("blow"),
            new StepUndone("blow"),
            new StepSkipped("brush", "no fins"),
            new StepDone("brush")
        );
        Assert.True(job.Steps.Single(s => s.Card.Id == "blow").IsOpen);
        var brush = job.Steps.Single(s => s.Card.Id == "brush");
        Assert.Equal((false, Start.AddMinutes(3)), (brush.Skipped, brush.DoneAt));
    }

    [Fact]
    public void The_last_word_about_a_count_a_grade_a_timer_or_a_note_holds()
    {
        var job = Of(
            ServiceLevel.DustOut,
            new Counted(CountOf.Screws, "4 mm PH1", 1, 0),
            new Counted(CountOf.Screws, "4 mm PH1", 2, 0),
            new Found(FindingSubject.Dust, "1"),
            new Found(FindingSubject.Dust, "4"),
            new TimerStarted("drain", 15),
            new TimerStopped("drain"),
            new TimerStarted("drain", 30),
            new Noted("one"),
            new Noted("two")
        );
        Assert.Equal(new JobCount(CountOf.Screws, "4 mm PH1", 2, 0), job.Counts.Single());
        Assert.Equal("4", job.Findings.Single().Grade);
        Assert.Equal(new JobTimer("drain", Start.AddMinutes(6), 30, Stopped: false), job.Timers.Single());
        Assert.Equal(Start.AddMinutes(6.5), job.Timers.Single().RingsAt);
        Assert.Equal("two", job.Note);
        Assert.Equal(10, job.Version);
    }

    [Fact]
    public void Only_the_screws_that_come_out_at_this_level_are_expected()
    {
        Assert.Equal(
            [new JobCount(CountOf.Screws, "4 mm PH1", 2, 0), new JobCount(CountOf.Connectors, "Fan lead", 2, 0)],
            Of(ServiceLevel.DustOut).Expected
        );
        Assert.Equal(
            [
                new JobCount(CountOf.Screws, "4 mm PH1", 2, 0),
                new JobCount(CountOf.Screws, "6 mm PH1", 2, 0),
                new JobCount(CountOf.Connectors, "Fan lead", 2, 0),
            ],
            Of(ServiceLevel.Repaste).Expected
        );
        Assert.Equal([2, 1], Of(ServiceLevel.DustOut).Steps.Single(s => s.Card.Id == "screws-out").Card.Order);
        Assert.Equal([4, 3, 2, 1], Of(ServiceLevel.Repaste).Steps.Single(s => s.Card.Id == "screws-out").Card.Order);
    }

    [Fact]
    public void A_job_raised_to_a_deeper_level_expects_more_screws()
    {
        var job = Of(ServiceLevel.DustOut, new LevelChanged(ServiceLevel.Repad, "torn"));
        Assert.Equal(4, job.Expected.Where(c => c.What == CountOf.Screws).Sum(c => c.Out));
        Assert.NotNull(job.Head);
        Assert.Equal((ServiceLevel.DustOut, ServiceLevel.Repad), (job.Head.Card.Basis.Level, job.Level));
    }

    [Fact]
    public void A_run_measured_again_is_kept_beside_the_first_and_only_a_person_strikes_one_out()
    {
        var job = Of(
            ServiceLevel.DustOut,
            new RunMeasured(RunPhase.Before, Run(90)),
            new RunMeasured(RunPhase.Before, Run(91)),
            new RunMeasured(RunPhase.Before, Run(92), Replaces: true)
        );
        Assert.Equal([null, "measured again", null], job.Runs.Select(r => r.Voided));
        var first = job.Runs[0].Key;
        Assert.Null(job.Refuses(new RunVoided(RunPhase.Before, "door open", first), Start));
        Assert.Contains("no such", job.Refuses(new RunVoided(RunPhase.Before, "door open", Guid.NewGuid()), Start)?.ToString());

        var none = Of(
            ServiceLevel.DustOut,
            new RunMeasured(RunPhase.Before, Run(90)),
            new RunMeasured(RunPhase.Before, Run(91)),
            new RunVoided(RunPhase.Before, "door open"),
            new RunVoided(RunPhase.Before, "door open too")
        );
        Assert.Equal(["door open too", "door open"], none.Runs.Select(r => r.Voided));
        Assert.NotNull(none.BlockedBefore);
        Assert.Contains("no such", none.Refuses(new RunVoided(RunPhase.Before, "twice"), Start)?.ToString());
    }

    [Fact]
    public void An_entry_is_known_by_its_key()
    {
        var key = Guid.NewGuid();
        var job = new Job(Head(ServiceLevel.DustOut), [new StampedEntry(key, 2, "phone", null, Start, new Noted("x"))]);
        Assert.True(job.Has(key));
        Assert.False(job.Has(Guid.NewGuid()));
    }

    [Theory]
    [InlineData(JobState.Open, true)]
    [InlineData(JobState.WaitingForProof, true)]
    [InlineData(JobState.Proven, false)]
    [InlineData(JobState.Abandoned, false)]
    public void Findings_and_complaints_are_written_until_a_job_is_closed(JobState state, bool taken)
    {
        JobEntry[] entries = state switch
        {
            JobState.Open => [],
            JobState.WaitingForProof => [new WorkFiled()],
            JobState.Proven => [new WorkFiled(), new RunMeasured(RunPhase.After, Run(80)), new VerdictFiled()],
            _ => [new GivenUp("why")],
        };
        var job = Of(ServiceLevel.DustOut, entries);
        Assert.Equal(state, job.State);
        foreach (
            var entry in (JobEntry[])
                [
                    new Found(FindingSubject.Dust, "1"),
                    new DamageFound("clip"),
                    new DeviationSeen("paste"),
                    new ComplaintRecorded(ComplaintKind.Loud),
                ]
        )
            Assert.Equal(taken, job.Refuses(entry, Start) is null);
    }
}
