using Pyrometron.Core.Campaigns;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Learning;

namespace Pyrometron.Core.Tests.Campaigns;

/// <summary>Which machines of a campaign may be done when.</summary>
public sealed class CampaignProgressTests
{
    private static readonly DateOnly Begun = new(2026, 11, 1);

    private static readonly string[] Tags = ["A", "B", "C", "D", "E", "F", "G", "H", "I", "J"];

    private static Campaign Of(ServiceLevel level = ServiceLevel.Repaste, int pilot = 3) =>
        new(1, "Heron", level, pilot, new SequentialTest(4, 3), CampaignState.Running, Begun, null, null, null, null, Tags);

    private static FinishedJob Job(
        string tag,
        double won,
        ServiceLevel level = ServiceLevel.Repaste,
        int day = 3,
        bool proven = true
    ) =>
        new(
            tag[0],
            tag,
            "Heron",
            "Z",
            level,
            Begun.AddDays(day),
            !proven ? null
                : won > 1 ? VerdictOutcome.Improved
                : VerdictOutcome.NoChange,
            won,
            0.5,
            null,
            null,
            false,
            0
        );

    private static CampaignProgress Look(Campaign campaign, params FinishedJob[] jobs) =>
        CampaignProgress.Of(campaign, jobs, new HashSet<string>(), new HashSet<string>());

    [Fact]
    public void The_pilot_goes_first_and_the_others_wait()
    {
        var progress = Look(Of());
        Assert.Equal(CampaignAdvice.Pilot, progress.Advice);
        Assert.Equal(["A", "B", "C"], progress.Released);
        Assert.Equal(7, progress.Machines.Count(m => m.Step == CampaignStep.Waits));
    }

    [Fact]
    public void Undecided_as_many_again_at_a_time()
    {
        FinishedJob[] three = [Job("A", 4), Job("B", 3), Job("C", 3.5)];
        var progress = Look(Of(), three);
        Assert.Equal(CampaignAdvice.More, progress.Advice);
        Assert.Equal(["D", "E", "F"], progress.Released);
        Assert.Equal(["E", "F"], Look(Of(), [.. three, Job("D", 3)]).Released);
    }

    [Fact]
    public void Worthwhile_all_others_are_released_and_not_worthwhile_none()
    {
        FinishedJob[] good = [Job("A", 14), Job("B", 13), Job("C", 15)];
        Assert.Equal(CampaignAdvice.GoOn, Look(Of(), good).Advice);
        Assert.Equal(7, Look(Of(), good).Released.Count());
        FinishedJob[] bad = [Job("A", -6), Job("B", -7), Job("C", -5)];
        Assert.Equal(CampaignAdvice.Stop, Look(Of(), bad).Advice);
        Assert.Empty(Look(Of(), bad).Released);
        Assert.Equal(7, Look(Of() with { GoneOnBy = "Mira" }, bad).Released.Count());
    }

    [Fact]
    public void A_pilot_without_proof_decides_nothing()
    {
        var progress = Look(Of(), Job("A", 9, proven: false), Job("B", 9, proven: false), Job("C", 9));
        Assert.Equal(CampaignAdvice.Unproven, progress.Advice);
        Assert.Empty(progress.Released);
    }

    [Theory]
    [InlineData(ServiceLevel.Repaste, ServiceLevel.Repad, true)]
    [InlineData(ServiceLevel.Repaste, ServiceLevel.DustOut, false)]
    [InlineData(ServiceLevel.DustOut, ServiceLevel.Repaste, true)]
    [InlineData(ServiceLevel.FanSwap, ServiceLevel.Repaste, false)]
    [InlineData(ServiceLevel.Undervolt, ServiceLevel.Undervolt, true)]
    [InlineData(ServiceLevel.Undervolt, ServiceLevel.Repaste, false)]
    [InlineData(ServiceLevel.Repaste, ServiceLevel.Undervolt, false)]
    public void Work_that_takes_away_as_much_counts(ServiceLevel campaign, ServiceLevel done, bool counts) =>
        Assert.Equal(counts, Look(Of(campaign), Job("A", 5, done)).Machines[0].Step == CampaignStep.Done);

    [Fact]
    public void Only_what_was_done_within_its_days_counts()
    {
        Assert.Equal(CampaignStep.Released, Look(Of(), Job("A", 5, day: -1)).Machines[0].Step);
        var ended = Of() with { State = CampaignState.Ended, Ended = Begun.AddDays(2) };
        Assert.Equal(CampaignStep.Waits, Look(ended, Job("A", 5)).Machines[0].Step);
    }

    [Fact]
    public void At_the_bench_retired_paused_and_all_done()
    {
        var atBench = CampaignProgress.Of(Of(), [], new HashSet<string> { "A" }, new HashSet<string> { "B" });
        Assert.Equal(CampaignStep.AtBench, atBench.Machines[0].Step);
        Assert.DoesNotContain(atBench.Machines, m => m.Tag == "B");
        Assert.Equal(["C", "D"], atBench.Released);
        Assert.Empty(Look(Of() with { State = CampaignState.Paused }).Released);
        Assert.Equal(CampaignAdvice.AllDone, Look(Of(), [.. Tags.Select(t => Job(t, 4))]).Advice);
    }
}
