using Pyrometron.Core.Fleet;
using Pyrometron.Core.Learning;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Stores;

namespace Pyrometron.Core.Tests.Stores;

/// <summary>What jobs cost, in round figures that can be reckoned by hand.</summary>
public sealed class WorkSpentTests
{
    /// <summary>An hour of a technician is 60, so that a minute is 1.</summary>
    private static readonly JudgementPolicy House = JudgementPolicy.Default with
    {
        Values = JudgementPolicy.Default.Values with { TechnicianHour = 60, DowntimeShare = 0 },
    };

    private static readonly MaterialCosts Prices = new(new Dictionary<ServiceLevel, double> { [ServiceLevel.Repaste] = 5 });

    private static FinishedJob Job(string tag, double? minutes, double? material) =>
        new(1, tag, "Sorrel", "Z", ServiceLevel.Repaste, new(2026, 11, 1), null, 0, 0, null, null, false, 0)
        {
            Minutes = minutes,
            MaterialCost = material,
        };

    private static (Asset, JudgementPolicy)? Rules(string tag) =>
        tag == "GONE"
            ? null
            : (new Asset(tag, AssetKind.GraphicsCard, "Sorrel", "Z", null, 24, new(2024, 1, 1), null, [], []), House);

    private static WorkSpent Of(params FinishedJob[] jobs) => WorkSpent.Of(jobs, Rules, Prices);

    [Fact]
    public void Booked_minutes_and_material_are_taken_as_they_are()
    {
        var spent = Of(Job("A", 50, 7.5), Job("B", 70, 2.5));
        Assert.Equal((120, 120, 10, 0, 130), (spent.Minutes, spent.Work, spent.Material, spent.Downtime, spent.All));
        Assert.Equal((0, 0), (spent.MinutesUsual, spent.MaterialUsual));
    }

    [Fact]
    public void Where_nothing_was_booked_the_usual_stands_and_is_counted()
    {
        var usual = ProvenMinutes.None.Of(Rules("A")!.Value.Item1, ServiceLevel.Repaste).Minutes;
        var spent = Of(Job("A", null, null));
        Assert.Equal((usual, 5.0), (spent.Minutes, spent.Material));
        Assert.Equal((1, 1), (spent.MinutesUsual, spent.MaterialUsual));
    }

    [Fact]
    public void No_jobs_and_machines_that_are_gone_cost_nothing()
    {
        Assert.Equal(0, Of().All);
        Assert.Equal(0, Of(Job("GONE", 50, 5)).All);
    }
}
