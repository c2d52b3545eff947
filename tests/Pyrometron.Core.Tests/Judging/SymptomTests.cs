using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Priority;
using Pyrometron.Core.Readings;

namespace Pyrometron.Core.Tests.Judging;

/// <summary>What people saw outranks degrees; and when a house has its machines served is its own affair.</summary>
public class SymptomTests
{
    private static Reading[] Healthy => [.. Enumerable.Range(0, 50).Select(i => Handmade.At(350 - 7 * i, 70 + i % 2))];

    private static Symptom Said(SymptomKind kind, int daysAgo) => new(Hall.Today.AddDays(-daysAgo), kind, null);

    private static Assessment Judge(Asset asset, Reading[] readings, params Symptom[] symptoms) =>
        Hall.JudgeReported(asset, readings, symptoms);

    [Theory]
    [InlineData(SymptomKind.Shutdown, Urgency.Now, "Switches itself off")]
    [InlineData(SymptomKind.Crash, Urgency.Now, "Crashes")]
    [InlineData(SymptomKind.Noise, Urgency.Soon, "Loud")]
    [InlineData(SymptomKind.Throttling, Urgency.Soon, "Slow under load")]
    public void A_report_asks_for_a_look_even_where_temperatures_are_fine(SymptomKind kind, Urgency urgency, string words)
    {
        var a = Judge(Handmade.Desktop, Healthy, Said(kind, 3));
        Assert.Equal((urgency, ServiceLevel.Inspect), (a.Urgency, a.Service));
        Assert.StartsWith(words, a.Reason.ToString(), StringComparison.Ordinal);
        Assert.Contains("do not explain it", a.Reason.ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public void A_report_needs_no_readings()
    {
        var a = Judge(Handmade.Desktop, [], Said(SymptomKind.Shutdown, 1));
        Assert.Equal((Urgency.Now, ServiceLevel.Inspect, 10), (a.Urgency, a.Service, a.Minutes));
        Assert.StartsWith("Switches itself off", a.Reason.ToString(), StringComparison.Ordinal);
    }

    /// <summary>A service is no proof that a symptom is gone: common practice, no source.</summary>
    [Theory]
    [InlineData(ServiceLevel.Inspect, 2)]
    [InlineData(ServiceLevel.Repaste, 0)]
    [InlineData(ServiceLevel.Repaste, 2)]
    public void A_service_does_not_answer_it(ServiceLevel level, int daysAgo)
    {
        var served = Handmade.Desktop with { Services = [new(Hall.Today.AddDays(-daysAgo), level)] };
        Assert.Equal(Urgency.Now, Judge(served, Healthy, Said(SymptomKind.Crash, 3)).Urgency);
    }

    [Fact]
    public void What_is_reported_later_than_the_day_judged_is_not_known_yet() =>
        Assert.Equal(Urgency.Fine, Judge(Handmade.Desktop, Healthy, Said(SymptomKind.Crash, -2)).Urgency);

    [Fact]
    public void A_machine_that_crashes_goes_before_one_that_is_only_hot()
    {
        Asset[] assets = [Handmade.Desktop, Handmade.Desktop with { Tag = "DT-2" }];
        Reading[] worn = [.. Enumerable.Range(0, 50).Select(i => Handmade.At(350 - 7 * i, 70 + i % 2 + i * 0.5))];
        var queue = new FleetJudge(
            new JudgementBasis(
                Hall.Register(DustClass.Normal, assets),
                Hall.Today,
                JudgementPolicy.Default,
                a => ReadingSeries.From(a.Tag == "DT-1" ? Healthy : worn, 1)
            )
            {
                History = a => MachineHistory.Empty with { Symptoms = a.Tag == "DT-1" ? [Said(SymptomKind.Shutdown, 1)] : [] },
                Threads = Environment.ProcessorCount,
            }
        )
            .JudgeAll()
            .Queue;
        Assert.Equal(["DT-1", "DT-2"], queue.Select(a => a.Asset.Tag));
        Assert.Equal([Urgency.Now, Urgency.Now], queue.Select(a => a.Urgency));
    }

    [Theory]
    [InlineData(School.WhicheverFirst, 7.0, false, Urgency.Next)]
    [InlineData(School.WhicheverFirst, 0.0, true, Urgency.Soon)]
    [InlineData(School.Evidence, 7.0, true, Urgency.Next)]
    [InlineData(School.Evidence, 0.0, true, Urgency.Fine)]
    [InlineData(School.Calendar, 7.0, false, Urgency.Watch)]
    [InlineData(School.Calendar, 7.0, true, Urgency.Soon)]
    [InlineData(School.Failure, 7.0, true, Urgency.Watch)]
    [InlineData(School.Failure, 0.0, true, Urgency.Fine)]
    public void The_school_decides_between_evidence_and_calendar(School school, double winnable, bool due, Urgency expected) =>
        Assert.Equal(
            expected,
            UrgencyRule.Of(
                UrgencyRuleTests.Won(winnable, 0.5),
                false,
                null,
                due ? new(ServiceLevel.DustOut, Hall.Today) : null,
                [],
                Hall.Today,
                JudgementPolicy.Default with
                {
                    School = school,
                }
            )
        );

    [Theory]
    [InlineData(School.WhicheverFirst)]
    [InlineData(School.Calendar)]
    [InlineData(School.Evidence)]
    [InlineData(School.Failure)]
    public void Under_every_school_a_machine_in_trouble_is_now(School school)
    {
        var policy = JudgementPolicy.Default with { School = school };
        Assert.Equal(Urgency.Now, UrgencyRule.Of(UrgencyRuleTests.Won(4, 0.5), true, null, null, [], Hall.Today, policy));
        Assert.Equal(
            Urgency.Now,
            UrgencyRule.Of(UrgencyRuleTests.Won(0, 0.5), false, null, null, [Said(SymptomKind.Crash, 0)], Hall.Today, policy)
        );
    }
}
