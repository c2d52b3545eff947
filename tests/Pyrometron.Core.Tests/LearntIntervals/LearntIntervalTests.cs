using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Learning;
using Pyrometron.Core.LearntIntervals;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Simulation;
using Pyrometron.Core.Tests.Judging;

namespace Pyrometron.Core.Tests.LearntIntervals;

/// <summary>Intervals against simulated halls whose pace of wear is known.</summary>
public class LearntIntervalTests
{
    private static readonly IReadOnlyList<Site> Sites = Hall.Register(DustClass.Normal).Sites;

    /// <summary>A hall whose cards gather so many kelvins of dust a month, evenly over a year.</summary>
    private static FleetJudgement Dusty(double kelvinPerMonth, JudgementPolicy? policy = null)
    {
        var hall = new Hall();
        for (var i = 0; i < 8; i++)
            hall.With(
                $"GC-{i}",
                [new Fault(Cause.Dust, Hall.Now - 365, Hall.Now, kelvinPerMonth * 12 * (0.85 + 0.3 * i / 7))],
                [new ServiceDone(Hall.Today.AddDays(-365), ServiceLevel.Repaste)]
            );
        return hall.Judge(policy: policy);
    }

    [Fact]
    public void A_hall_that_fouls_faster_than_its_interval_gets_a_shorter_one_with_its_range()
    {
        var learnt = Assert.Single(LearntInterval.Of(Dusty(1.2), Sites, []), l => l.Level == ServiceLevel.DustOut);
        Assert.Equal((RuleScope.Zone, "ROW", 8, 0), (learnt.Scope, learnt.Key, learnt.Machines, learnt.Jobs));
        // 18 months × 0.85 for machines that never rest.
        Assert.Equal(15.3, learnt.PresentMonths, 6);
        // 6 K gather in 5 months at 1.2 K a month.
        Assert.InRange(learnt.Months, 4, 6.5);
        Assert.True(learnt.LowMonths < learnt.Months && learnt.Months < learnt.HighMonths);
        Assert.InRange(5, learnt.LowMonths, learnt.HighMonths!.Value);
        // As a rule it makes just that of it, to the nearest half month.
        Assert.Equal(learnt.Months, learnt.RuleMonths * 0.85, 0.25);
    }

    [Fact]
    public void An_interval_that_fits_is_left_alone() =>
        Assert.DoesNotContain(LearntInterval.Of(Dusty(0.4), Sites, []), l => l.Level == ServiceLevel.DustOut);

    [Fact]
    public void A_clean_hall_gets_a_longer_one_but_never_more_than_twice()
    {
        var often = JudgementPolicy.Default with
        {
            Intervals = IntervalRules.Default with { GraphicsCard = new KindIntervals(null, 4, 42) },
        };
        var learnt = Assert.Single(LearntInterval.Of(Dusty(0.2, often), Sites, []), l => l.Level == ServiceLevel.DustOut);
        Assert.Equal(2 * learnt.PresentMonths, learnt.Months, 6);
    }

    [Fact]
    public void Proven_jobs_count_by_what_they_won_since_the_cleaning_before()
    {
        var before = Dusty(1.2);
        FinishedJob Job(int i, ServiceLevel level) =>
            new(
                i,
                $"GC-{i}",
                "Sorrel",
                "ROW",
                level,
                Hall.Today.AddDays(-5),
                VerdictOutcome.Improved,
                3,
                2,
                Cause.Dust,
                null,
                false,
                0
            );
        var judged = LearntInterval.Of(
            before,
            Sites,
            [Job(1, ServiceLevel.DustOut), Job(2, ServiceLevel.DustOut), Job(3, ServiceLevel.Repaste)]
        );
        var learnt = Assert.Single(judged, l => l.Level == ServiceLevel.DustOut);
        Assert.Equal(2, learnt.Jobs);
        // They won less than the readings say: the pace is slower with them.
        Assert.True(learnt.Months > LearntInterval.Of(before, Sites, []).Single(l => l.Level == ServiceLevel.DustOut).Months);
    }

    [Fact]
    public void Few_machines_teach_nothing()
    {
        var hall = new Hall().With("GC-1", [new Fault(Cause.Dust, Hall.Now - 365, Hall.Now, 20)]);
        Assert.Empty(LearntInterval.Of(hall.Judge(), Sites, []));
    }

    private static Asset Server(int i, params int[] fansAtMonths) =>
        new(
            $"SV-{i}",
            AssetKind.Server,
            "Petrel",
            "ROW",
            null,
            24,
            Hall.Today.AddDays(-(int)(48 * 30.4375)),
            null,
            UsualMachines.Parts(AssetKind.Server),
            [.. fansAtMonths.Select(m => new ServiceDone(Hall.Today.AddDays(-(int)((48 - m) * 30.4375)), ServiceLevel.FanSwap))]
        );

    [Fact]
    public void Fans_that_wear_out_have_an_age_to_change_them_at()
    {
        Asset[] machines =
        [
            Server(1, 30),
            Server(2, 33),
            Server(3, 35),
            Server(4, 36),
            Server(5, 38),
            Server(6, 40),
            .. Enumerable.Range(7, 4).Select(i => Server(i)),
        ];
        var dear = JudgementPolicy.Default with { Values = HouseValues.Default with { Server = new KindValues(40, 4000) } };
        var fans = Assert.Single(FanLives.Of(machines, Hall.Today, _ => dear));
        // Six changed fans, their successors and four first ones run.
        Assert.Equal((6, 10), (fans.Failures, fans.Running));
        Assert.True(fans.Life.Shape > 3);
        Assert.True(fans.AtFailure > fans.Planned);
        Assert.InRange(fans.BestMonths!.Value, 10, 40);
        var best = fans.Replacement.CostRate(fans.BestMonths.Value);
        Assert.True(best < fans.Replacement.CostRateOfFailure);
        Assert.All([0.7, 1.4], f => Assert.True(fans.Replacement.CostRate(f * fans.BestMonths.Value) > best));
        Assert.Empty(FanLives.Of(machines.Skip(2), Hall.Today, _ => dear));
    }

    /// <summary>
    /// A fan that was changed in time ran at least so long: it counts as one that still runs, and the life comes out longer than
    /// where the same change is taken for a failure. Another cooler tells nothing of the fan.
    /// </summary>
    [Fact]
    public void Fans_changed_in_time_make_no_life_shorter()
    {
        Asset Changed(int i, int month, bool? failed, ServiceLevel level = ServiceLevel.FanSwap) =>
            Server(i) with
            {
                Services = [new ServiceDone(Server(i, month).Services[0].Date, level) { FanFailed = failed }],
            };
        Asset[] failed = [.. Enumerable.Range(1, 6).Select(i => Changed(i, 24 + 2 * i, true))];
        FanLives Of(params Asset[] more) =>
            Assert.Single(FanLives.Of([.. failed, .. more], Hall.Today, _ => JudgementPolicy.Default));
        var (inTime, unsaid) = (Of(Changed(7, 12, false), Changed(8, 12, false)), Of(Changed(7, 12, null), Changed(8, 12, null)));
        Assert.Equal((6, 0, 2), (inTime.Failures, inTime.Unsaid, inTime.InTime));
        Assert.Equal((8, 2, 0), (unsaid.Failures, unsaid.Unsaid, unsaid.InTime));
        Assert.True(inTime.Life.Mean > unsaid.Life.Mean);
        var cooler = Of(Changed(7, 12, null, ServiceLevel.CoolerSwap), Changed(8, 12, null, ServiceLevel.CoolerSwap));
        Assert.Equal(inTime.Life.Mean, cooler.Life.Mean, 9);
    }

    /// <summary>Each kind of a mixed zone has its own interval: what clogs a laptop does not clog a card.</summary>
    [Fact]
    public void A_zone_of_several_kinds_is_learnt_kind_by_kind()
    {
        var hall = new Hall();
        for (var i = 0; i < 12; i++)
            hall.With(
                $"M-{i}",
                [new Fault(Cause.Dust, Hall.Now - 365, Hall.Now, i < 6 ? 14 : 3)],
                [new ServiceDone(Hall.Today.AddDays(-365), ServiceLevel.Repaste)],
                m => i < 6 ? m : m with { Asset = m.Asset with { Kind = AssetKind.Server, Model = "Petrel" } }
            );
        var learnt = LearntInterval.Of(hall.Judge(), Sites, []).Where(l => l.Level == ServiceLevel.DustOut).ToList();
        Assert.DoesNotContain(learnt, l => l.Scope == RuleScope.Zone);
        var cards = Assert.Single(learnt, l => l.Key == "ROW/graphics-card");
        Assert.Equal((RuleScope.ZoneKind, 6), (cards.Scope, cards.Machines));
        Assert.InRange(5.1, cards.LowMonths, cards.HighMonths!.Value);
        Assert.All(learnt.Where(l => l.Key != cards.Key), l => Assert.True(l.KelvinPerMonth < cards.KelvinPerMonth / 2));
    }

    [Fact]
    public void Fans_that_fail_by_chance_run_until_they_fail()
    {
        Asset[] machines = [Server(1, 1), Server(2, 3), Server(3, 8), Server(4, 20), Server(5, 44), Server(6)];
        var fans = Assert.Single(FanLives.Of(machines, Hall.Today, _ => JudgementPolicy.Default));
        Assert.True(fans.Life.Shape < 1);
        Assert.Null(fans.BestMonths);
    }
}
