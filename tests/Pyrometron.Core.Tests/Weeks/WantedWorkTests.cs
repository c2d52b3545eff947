using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Tests.Judging;
using Pyrometron.Core.Units;
using Pyrometron.Core.Weeks;

namespace Pyrometron.Core.Tests.Weeks;

/// <summary>What of a judged fleet a plan should hold. Skills and weights are common practice, no source.</summary>
public sealed class WantedWorkTests
{
    private static readonly DateOnly Today = new(2026, 12, 7);

    private static Assessment Judged(
        string tag,
        Urgency urgency,
        ServiceLevel? level = ServiceLevel.DustOut,
        string? host = null,
        AssetKind kind = AssetKind.GraphicsCard
    ) =>
        new(
            new Asset(tag, kind, "Sorrel", "KELP", host, 24, Today.AddYears(-2), null, [], []),
            Today,
            new Zone("KELP", "Kelp hall", DustClass.Normal, new Celsius(30)),
            JudgementPolicy.Default
        )
        {
            Urgency = urgency,
            Service = level,
            Minutes = 40,
            Cause = Cause.Dust,
        };

    private static Wanted[] Advised(params Assessment[] queue) =>
        [.. WantedWork.Advised(queue, new Dictionary<string, Hold> { ["GC-9"] = new("GC-9", Today.AddDays(5), "2.0 mm pads") })];

    /// <summary>Nobody lifts a machine to blow it out; cards of one host stand when all of them may.</summary>
    [Fact]
    public void Rules_of_lifting_and_of_standing_still_come_with_the_work()
    {
        Assessment Ruled(string tag, ServiceLevel level, DownHours hours, string? host = null) =>
            Judged(tag, Urgency.Next, level, host) with
            {
                Policy = JudgementPolicy.Default with { TwoPeople = true, Downtime = new DowntimeRules(hours) },
            };
        var wanted = Advised(
            Ruled("GC-1", ServiceLevel.DustOut, DownHours.AnyTime),
            Ruled("GC-2", ServiceLevel.BlowOut, DownHours.OutOfHours),
            Ruled("GC-3", ServiceLevel.Repaste, DownHours.OutOfHours, "HOST"),
            Ruled("GC-4", ServiceLevel.Repaste, DownHours.Weekends, "HOST")
        );
        Assert.Equal([true, false, true], wanted.Select(w => w.TakesTwo));
        Assert.Equal([null, DownHours.OutOfHours, DownHours.Weekends], wanted.Select(w => w.Downtime?.Hours));
        var campaign = WantedWork.OfCampaign(
            Ruled("GC-5", ServiceLevel.DustOut, DownHours.Weekends) with
            {
                Urgency = Urgency.Fine,
            },
            "Fins",
            ServiceLevel.Repad,
            null,
            null
        )!;
        Assert.Equal((true, DownHours.Weekends), (campaign.TakesTwo, campaign.Downtime!.Hours));
    }

    [Fact]
    public void Only_what_needs_work_is_planned()
    {
        var wanted = Advised(
            Judged("GC-1", Urgency.Now),
            Judged("GC-2", Urgency.Watch),
            Judged("GC-3", Urgency.Fine),
            Judged("GC-4", Urgency.Next, level: null),
            Judged("GC-5", Urgency.Soon)
        );
        Assert.Equal(["GC-1", "GC-5"], wanted.Select(w => w.Id));
        Assert.True(wanted[0].Weight > wanted[1].Weight);
        Assert.Equal(Today, wanted[0].DueBy);
        Assert.True(wanted[1].DueBy > Today.AddDays(13));
    }

    /// <summary>Nobody is sent with a screwdriver where it is not known yet whether that is needed.</summary>
    [Fact]
    public void A_middling_chance_is_planned_as_the_run_that_decides_it()
    {
        var judged = new Hall()
            .WithHealthy(8)
            .With("MUCH", [Hall.Grown(Cause.Dust, 11)])
            .With("SOME", [Hall.Grown(Cause.Dust, 5.7)])
            .Judge();
        var unsure = judged.Queue.Where(a => a.Measure is not null).ToArray();
        var wanted = Advised([.. judged.Queue]);
        Assert.Equal(
            unsure.Select(a => $"run-{a.Asset.Tag}").Order(),
            wanted.Where(w => w.Kind == WantedKind.DecidingRun).Select(w => w.Id).Order()
        );
        Assert.All(wanted.Where(w => w.Kind == WantedKind.DecidingRun), w => Assert.True(w.Steps.Single().Level is null));
        Assert.Contains(wanted, w => w is { Id: "MUCH", Kind: WantedKind.Service });
    }

    /// <summary>A campaign of dust must not keep a machine from the paste that it needs.</summary>
    [Theory]
    [InlineData(Urgency.Now, ServiceLevel.Repaste, ServiceLevel.DustOut, false)]
    [InlineData(Urgency.Soon, ServiceLevel.Repaste, ServiceLevel.DustOut, false)]
    [InlineData(Urgency.Now, ServiceLevel.DustOut, ServiceLevel.DustOut, true)]
    [InlineData(Urgency.Now, ServiceLevel.DustOut, ServiceLevel.Repaste, true)]
    [InlineData(Urgency.Fine, ServiceLevel.Repaste, ServiceLevel.DustOut, true)]
    public void What_is_advised_goes_before_a_campaign_that_would_not_do_it(
        Urgency urgency,
        ServiceLevel advised,
        ServiceLevel campaign,
        bool taken
    )
    {
        var work = WantedWork.OfCampaign(Judged("GC-1", urgency, advised), "Dust", campaign, null, null);
        Assert.Equal(taken, work is not null);
        if (work is null)
            return;
        Assert.Equal(("Dust", campaign), (work.Campaign, work.Steps.Single().Level));
        Assert.Equal(Today.AddDays(60), work.DueBy);
    }

    [Fact]
    public void Cards_of_one_host_are_one_job_of_a_campaign_and_campaigns_stay_apart()
    {
        (string, Wanted) Of(string tag, string campaign) =>
            ("SV-1", WantedWork.OfCampaign(Judged(tag, Urgency.Fine, host: "SV-1"), campaign, ServiceLevel.DustOut, null, null)!);
        var jobs = WantedWork.ByHost([Of("GC-2", "Dust"), Of("GC-1", "Dust"), Of("GC-3", "Fans")]).ToList();
        Assert.Equal([("GC-1", 2, "Dust"), ("GC-3", 1, "Fans")], jobs.Select(j => (j.Id, j.Steps.Count, j.Campaign!)));
    }

    [Fact]
    public void Cards_of_one_host_are_one_job()
    {
        var job = Assert.Single(
            Advised(
                Judged("GC-1", Urgency.Next, ServiceLevel.Repad, "SV-1"),
                Judged("GC-2", Urgency.Now, ServiceLevel.DustOut, "SV-1")
            )
        );
        Assert.Equal(("GC-1", "SV-1", 80), (job.Id, job.Title, job.Minutes));
        Assert.Equal(["GC-1", "GC-2"], job.Steps.Select(s => s.Tag));
        Assert.Equal([Skill.OpenCards, Skill.ChangePads], job.Skills.Order());
        Assert.Equal(Today, job.DueBy);
    }

    [Fact]
    public void Of_a_host_what_waits_for_parts_is_a_job_of_its_own()
    {
        var holds = new[] { "GC-3", "GC-4" }.ToDictionary(t => t, t => new Hold(t, Today.AddDays(5), "pads"));
        var jobs = WantedWork
            .Advised(Enumerable.Range(1, 4).Select(i => Judged($"GC-{i}", Urgency.Now, host: "SV-1")), holds)
            .ToArray();
        Assert.Equal([("GC-1", null), ("GC-3", Today.AddDays(5))], jobs.Select(j => (j.Id, j.NotBefore)));
        Assert.All(jobs, j => Assert.Equal(2, j.Steps.Count));
    }

    [Fact]
    public void A_machine_that_waits_for_parts_is_not_planned_before()
    {
        var job = Assert.Single(Advised(Judged("GC-9", Urgency.Now)));
        Assert.Equal((Today.AddDays(5), "2.0 mm pads"), (job.NotBefore, job.WaitsFor));
    }

    [Theory]
    [InlineData(AssetKind.GraphicsCard, ServiceLevel.DustOut)]
    [InlineData(AssetKind.GraphicsCard, ServiceLevel.Repaste, Skill.OpenCards)]
    [InlineData(AssetKind.GraphicsCard, ServiceLevel.Repad, Skill.OpenCards, Skill.ChangePads)]
    [InlineData(AssetKind.Laptop, ServiceLevel.BlowOut)]
    [InlineData(AssetKind.Laptop, ServiceLevel.DustOut, Skill.OpenLaptops)]
    [InlineData(AssetKind.Server, ServiceLevel.Repaste)]
    [InlineData(AssetKind.Desktop, ServiceLevel.OtherPads, Skill.ChangePads)]
    public void Work_needs_the_skills_of_its_kind_and_depth(AssetKind kind, ServiceLevel level, params Skill[] skills) =>
        Assert.Equal(skills, Skills.Of(kind, level));

    [Fact]
    public void Follow_ups_are_due_within_a_week()
    {
        var asset = Judged("GC-1", Urgency.Fine).Asset;
        var run = WantedWork.AfterRun(7, asset, Today);
        Assert.Equal(("after-run-7", Today.AddDays(7)), (run.Id, run.DueBy));
        var look = WantedWork.SecondLook(7, asset, Today.AddDays(3));
        Assert.Equal((Today.AddDays(3), Today.AddDays(10)), (look.NotBefore, look.DueBy));
    }
}
