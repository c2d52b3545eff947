using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Learning;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Readings;
using Pyrometron.Core.Simulation;

namespace Pyrometron.Core.Tests.Judging;

/// <summary>
/// Wear that does not show as degrees: behind a fan, before the first reading, beneath what a cleaning leaves; and what nothing
/// explains.
/// </summary>
public class HiddenWearTests
{
    private static readonly Scatter Daily = new(1, 0.9);

    private static Func<SimulatedMachine, SimulatedMachine> Listening(Func<SimulatedMachine, SimulatedMachine>? change = null) =>
        m => (change ?? (x => x))(m with { Fan = new FanControl.Follows(42, 88), Scatter = Daily });

    /// <summary>
    /// Chance that warms a reading speeds the fan up too: least squares of rise on flow is blind to that (Haavelmo 1943, the
    /// statistical implications of a system of simultaneous equations).
    /// </summary>
    [Fact]
    public void A_fan_that_listens_is_not_taken_for_a_useless_one()
    {
        var hall = new Hall();
        for (var i = 0; i < 10; i++)
            hall.With($"M-{i}", [], change: Listening());
        var machine = new SimulatedMachine(
            hall.Judge().Queue[0].Asset,
            228,
            27,
            [13, 25, 24],
            3200,
            new FanControl.Follows(42, 88),
            [new("steady", 1, 1)],
            new Instruments(1),
            []
        );
        var joints = machine.JointRise;
        var truth = machine.Settle(0, 1, 25).PartsC[0] - 25 - joints[0];
        var found = hall.Judge().Queue.Select(a => a.Parts[0].FreshRiseKelvin - a.Parts[0].FreshJointKelvin).Order().ToArray();
        Assert.InRange(found[5], 0.7 * truth, 1.3 * truth);
    }

    [Fact]
    public void Dust_behind_a_fan_that_listens_is_dust_and_all_of_it()
    {
        var hall = new Hall();
        for (var i = 0; i < 9; i++)
            hall.With($"OK-{i}", [], change: Listening());
        var dusty = new Fault(Cause.Dust, Hall.Now - 250, Hall.Now, 9);
        var a = hall.With("DUST", [dusty], change: Listening()).Judge().ByTag["DUST"];
        var machine = new SimulatedMachine(
            a.Asset,
            228,
            27,
            [13, 25, 24],
            3200,
            new FanControl.Follows(42, 88),
            [new("steady", 1, 1)],
            new Instruments(1),
            [dusty]
        );
        var truth = machine.Wear(Hall.Now)[0][Cause.Dust];
        Assert.Equal((Cause.Dust, ServiceLevel.DustOut), (a.Cause, a.Service));
        Assert.InRange(a.DriftKelvin!.Value, 0.7 * truth, 1.3 * truth);
        // In degrees it shows much less: the fan has paid for the rest.
        Assert.True(
            machine.Settle(Hall.Now, 1, 25).PartsC[0] - (machine with { Faults = [] }).Settle(Hall.Now, 1, 25).PartsC[0]
                < 0.8 * truth
        );
    }

    [Fact]
    public void What_an_unseen_fan_hides_is_told_from_how_it_answers_to_the_weather()
    {
        var hall = new Hall();
        for (var i = 0; i < 9; i++)
            hall.With($"OK-{i}", [], change: m => Listening()(m) with { Instruments = new Instruments(0.5, Fan: false) });
        var judgement = hall.With(
                "DUST",
                [new Fault(Cause.Dust, Hall.Now - 250, Hall.Now, 9)],
                change: m => Listening()(m) with { Instruments = new Instruments(0.5, Fan: false) }
            )
            .Judge();
        var a = judgement.ByTag["DUST"];
        var part = a.Parts[0];
        // The split is what stands behind the fan; the hot day is reckoned with what shows.
        Assert.True(
            part.Split.Total > part.HottestRiseKelvin - part.FreshRiseKelvin + 0.5,
            $"{part.Split.Total} {part.HottestRiseKelvin - part.FreshRiseKelvin}"
        );
        // What shows and what is hidden are the whole.
        Assert.Equal(part.Split.Total - part.HiddenKelvin, part.HottestRiseKelvin - part.FreshRiseKelvin, 1e-6);
        Assert.True(part.HiddenKelvin > 0.5);
        Assert.Equal("DUST", judgement.Queue[0].Asset.Tag);
    }

    [Fact]
    public void What_had_gathered_before_the_first_reading_is_shown_by_siblings_and_added()
    {
        Asset Old(Asset a) => a with { InServiceSince = Hall.Today.AddDays(-1500) };
        var hall = new Hall();
        for (var i = 0; i < 12; i++)
            hall.With($"OK-{i:00}", [], change: m => m with { Asset = Old(m.Asset) });
        // Its pads were hard a year before anybody looked, and have not changed since.
        hall.With(
            "HARD",
            [new Fault(Cause.Pads, Hall.Now - 1200, Hall.Now - 800, 11, "memory")],
            change: m => m with { Asset = Old(m.Asset) }
        );
        // The same in a machine that came new: then it is how it was built.
        hall.With("NEW", [new Fault(Cause.Pads, Hall.Now - 1200, Hall.Now - 800, 11, "memory")]);
        var judgement = hall.Judge();
        Assert.Equal((Cause.Pads, ServiceLevel.Repad), (judgement.ByTag["HARD"].Cause, judgement.ByTag["HARD"].Service));
        Assert.InRange(judgement.ByTag["HARD"].DriftKelvin!.Value, 6, 12);
        Assert.True(judgement.ByTag["NEW"].DriftKelvin < 3);
        Assert.All(
            judgement.Queue.Where(a => a.Asset.Tag.StartsWith("OK", StringComparison.Ordinal)),
            a => Assert.True(a.DriftKelvin < 2.5, $"{a.Asset.Tag} {a.DriftKelvin}")
        );
    }

    [Fact]
    public void A_model_that_is_hot_as_a_whole_has_a_small_cooler_and_no_wear()
    {
        var hall = new Hall();
        for (var i = 0; i < 12; i++)
            hall.With(
                $"HOT-{i:00}",
                [],
                change: m =>
                    m with
                    {
                        Asset = m.Asset with { InServiceSince = Hall.Today.AddDays(-1500) },
                        JointRise = [.. m.JointRise.Select(j => j + 14)],
                    }
            );
        Assert.All(
            hall.Judge().Queue,
            a =>
                Assert.True(
                    a is { Cause: Cause.CoolerLimited, DriftKelvin: < 2.5, Urgency: > Urgency.Next },
                    $"{a.Asset.Tag} {a.Cause} {a.DriftKelvin}"
                )
        );
    }

    [Fact]
    public void A_cleaning_is_not_credited_with_what_it_left()
    {
        var a = new Hall()
            .WithHealthy(10)
            .With(
                "LEFT",
                [new Fault(Cause.Dust, Hall.Now - 360, Hall.Now - 150, 20)],
                [new(Hall.Today.AddDays(-100), ServiceLevel.DustOut)]
            )
            .Judge()
            .ByTag["LEFT"];
        // 15 % of twenty kelvins (common practice, no source).
        Assert.InRange(a.DriftKelvin!.Value, 1.8, 4.8);
        Assert.Equal(Cause.Dust, a.Cause);
    }

    [Fact]
    public void Split_and_unexplained_add_up_to_what_is_measured_and_every_cause_has_its_uncertainty()
    {
        var hall = new Hall().WithHealthy(9).With("PADS", [Hall.Grown(Cause.Pads, 8, "memory")]);
        // For the last ten days its memory reads three kelvins more: too short to be a step, too long to be chance.
        hall.Distorted["PADS"] = r =>
            r.UnixMilliseconds < (Hall.Now - 10) * 86_400_000
                ? r
                : r with
                {
                    PartsC = [r.PartsC[0], r.PartsC[1], r.PartsC[2] + 3],
                };
        var a = hall.JudgeOne("PADS");
        var memory = a.Parts.Single(p => p.Part.Name == "memory");
        Assert.InRange(memory.UnexplainedKelvin, 0.8, 3.2);
        Assert.InRange(a.Parts[0].UnexplainedKelvin, -1, 1);
        // The fitted curve and the newest points differ by just that.
        var newest = memory.History.Where(h => h.Day > Hall.Now - 14).Select(h => h.Observed - h.Room).Order().ToArray();
        Assert.Equal(newest[newest.Length / 2], memory.PresentRiseKelvin + memory.UnexplainedKelvin, 1.2);
        var sigma = memory.SplitSigma!.Value;
        Assert.All([sigma.Dust, sigma.Joint], s => Assert.InRange(s, 0.05, 3));
        // What may be dust may be no pads: alone each is less sure than both together, and the whole is about as sure as was
        // said.
        Assert.InRange(memory.SigmaKelvin / Math.Sqrt(sigma.Dust * sigma.Dust + sigma.Joint * sigma.Joint), 0.4, 2.2);
        Assert.All(hall.Judge().Queue.SelectMany(x => x.Parts), p => Assert.Null(p.SplitSigma));
    }

    [Fact]
    public void What_may_be_chance_is_said_to_be_and_what_would_settle_it()
    {
        // Four weekly runs of a warmer end after half a year of others: something, but how much?
        Reading[] runs = [.. Enumerable.Range(0, 30).Select(w => Handmade.At(7 * (30 - w), 74 + w % 3 + (w >= 24 ? 3 : 0)))];
        var a = Hall.JudgeAlone(Handmade.Laptop(limitC: 84, daysOld: 800), runs);
        Assert.True(a.DriftKelvin >= 2.5 && a.Urgency > Urgency.Next, $"{a.DriftKelvin} {a.Urgency}");
        Assert.StartsWith("What is to win may be chance", a.ToBeSurer!.ToString(), StringComparison.Ordinal);
        Assert.Contains("Power in the readings", a.ToBeSurer!.ToString(), StringComparison.Ordinal);
        Assert.StartsWith("weak: ", a.Measured!.Value.Words.ToString(), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(WarrantySchool.AirOnly, ServiceLevel.BlowOut, "this house then uses air only, which should win about 4")]
    [InlineData(WarrantySchool.AskFirst, ServiceLevel.DustOut, "its maker or seller is asked before it is opened")]
    [InlineData(WarrantySchool.OpenWhereAllowed, ServiceLevel.DustOut, null)]
    public void Under_warranty_the_advice_says_what_the_house_does_then(
        WarrantySchool school,
        ServiceLevel advised,
        string? expected
    )
    {
        Func<SimulatedMachine, SimulatedMachine> young = m =>
            m with
            {
                Asset = m.Asset with { WarrantyUntil = Hall.Today.AddDays(200) },
            };
        var a = new Hall()
            .WithHealthy(8)
            .With("DUST", [Hall.Grown(Cause.Dust, 9)], change: young)
            .Judge(policy: JudgementPolicy.Default with { Warranty = school })
            .ByTag["DUST"];
        Assert.Equal(advised, a.Service);
        var said = a.Said().SingleOrDefault(s => s.StartsWith("Under warranty until 17 Sep 2026", StringComparison.Ordinal));
        if (expected is null)
            Assert.Null(said);
        else
            Assert.Contains(expected, said, StringComparison.Ordinal);
    }

    [Fact]
    public void Two_proven_jobs_of_a_model_are_reckoned_in_and_told()
    {
        var proven = ProvenGains.Of([
            .. Enumerable.Repeat(
                new ProvenJob(AssetKind.GraphicsCard, "Sorrel", ServiceLevel.DustOut, Cause.Dust, 8, 6.1, 3.3),
                2
            ),
        ]);
        var a = new Hall()
            .WithHealthy(8)
            .With("DUST", [Hall.Grown(Cause.Dust, 9)])
            .Judge(policy: JudgementPolicy.Default with { Proven = proven })
            .ByTag["DUST"];
        var worth = a.Levels.Single(l => l.Level == ServiceLevel.DustOut);
        Assert.Equal(2, worth.ProvenJobs);
        Assert.Equal(a.WorstPart!.Split.WonBy(ServiceLevel.DustOut) * worth.ProvenShare, worth.Kelvin, 1e-9);
        Assert.Contains(
            a.Said(),
            s => s.StartsWith("2 proven jobs of this model: the dust-out is expected to win 9", StringComparison.Ordinal)
        );
    }

    [Fact]
    public void What_the_advised_level_is_worth_is_told_in_the_houses_currency_also_when_it_costs_more()
    {
        Assessment Judged(HouseValues values) =>
            new Hall()
                .WithHealthy(8)
                .With("DUST", [Hall.Grown(Cause.Dust, 9)])
                .Judge(policy: JudgementPolicy.Default with { Values = values })
                .ByTag["DUST"];
        var dear = Judged(HouseValues.Default with { Currency = "crowns" });
        Assert.Contains(
            dear.Said(),
            s =>
                s.StartsWith(
                    $"Doing the dust-out now is worth {dear.Advised!.Value.Net:0} crowns over the next 2 years",
                    StringComparison.Ordinal
                ) && s.Contains("slower ageing", StringComparison.Ordinal)
        );
        var cheap = Judged(HouseValues.Default with { GraphicsCard = new(0, 10) });
        Assert.True(cheap.Advised!.Value.Net < 0);
        Assert.Contains(cheap.Said(), s => s.EndsWith("it is advised for its kelvins alone.", StringComparison.Ordinal));
        Assert.Equal((dear.Urgency, dear.Service), (cheap.Urgency, cheap.Service));
    }

    /// <summary>
    /// A fan that listens gives a part of every win back as quiet and electricity; one that stands fixed gives nothing.
    /// </summary>
    [Fact]
    public void What_a_cleaning_wins_on_a_fan_that_listens_is_partly_less_speed()
    {
        Func<SimulatedMachine, SimulatedMachine> follows = m => m with { Fan = new FanControl.Follows(40, 85) };
        var hall = new Hall()
            .WithHealthy(8)
            .With("FIXED", [Hall.Grown(Cause.Dust, 9)])
            .With("FOLLOWS", [Hall.Grown(Cause.Dust, 9)], change: follows)
            .Judge();
        Assert.Equal(0, hall.ByTag["FIXED"].Advised!.Value.Energy, 1e-9);
        Assert.InRange(hall.ByTag["FOLLOWS"].Advised!.Value.Energy, 0.5, 2 * 12 * 24 * 0.365 * 0.3);
    }

    /// <summary>
    /// A blow-out takes loose dust alone (common practice, no source: about half): what is left stays to be won, and the pace is
    /// that since.
    /// </summary>
    [Fact]
    public void What_a_blow_out_leaves_is_told_by_the_readings_after_it()
    {
        var blown = new Hall()
            .WithHealthy(8)
            .With("BLOWN", [Hall.Grown(Cause.Dust, 9)], [new(Hall.Today.AddDays(-60), ServiceLevel.BlowOut)])
            .Judge()
            .ByTag["BLOWN"];
        // 6.8 K on the day, 3.4 of them blown out.
        Assert.InRange(blown.WorstPart!.Split.Dust, 5.6 - 1.2, 5.6 + 1.2);
        Assert.Equal((Cause.Dust, ServiceLevel.DustOut), (blown.Cause, blown.Service));
        Assert.True(blown.WorstPart.PaceKelvinPerDay > 0);
        Assert.InRange(Math.Abs(blown.WorstPart.UnexplainedKelvin), 0, 0.8);
    }

    [Theory]
    [InlineData(ServiceLevel.BlowOut, 0.5)]
    [InlineData(ServiceLevel.DustOut, 0.15)]
    [InlineData(ServiceLevel.Inspect, 1)]
    public void Work_that_no_reading_has_seen_yet_is_credited_with_what_its_level_usually_wins(ServiceLevel level, double left)
    {
        Assessment Judged(params ServiceDone[] services) =>
            new Hall()
                .WithHealthy(8)
                .With("DUST", [Hall.Grown(Cause.Dust, 9)], change: m => m with { Asset = m.Asset with { Services = services } })
                .Judge()
                .ByTag["DUST"];
        var before = Judged().WorstPart!.Split.Dust;
        Assert.Equal(left * before, Judged(Hall.ThisEvening(level)).WorstPart!.Split.Dust, 0.4);
    }
}
