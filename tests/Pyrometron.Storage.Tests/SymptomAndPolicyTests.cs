using Pyrometron.Core.Events;
using Pyrometron.Core.Policies;

namespace Pyrometron.Storage.Tests;

public class SymptomAndPolicyTests
{
    private static void Set(TemporaryDatabase t, JudgementPolicy policy, BenchSchools bench) =>
        t.Write(w => PolicyStore.Set(w, policy, bench));

    private static IEnumerable<SymptomKind> Standing(TemporaryDatabase t) =>
        new SymptomStore(t.Database).Of(t.Id("GC-1")).Where(s => s.WithdrawnReason is null).Select(s => s.Symptom.Kind).Reverse();

    [Fact]
    public void A_report_stands_until_it_is_withdrawn_and_stays_in_the_book()
    {
        using var t = new TemporaryDatabase();
        var store = new SymptomStore(t.Database);
        var asset = t.Fleet.Find("GC-1")!;
        var id = t.Write(w => SymptomStore.Add(w, asset.Id, new Symptom(new(2026, 5, 1), SymptomKind.Shutdown, "under load")));
        t.Write(w => SymptomStore.Add(w, asset.Id, new Symptom(new(2026, 5, 3), SymptomKind.Noise, null)));
        t.Reopen();
        store = new SymptomStore(t.Database);
        Assert.Equal([SymptomKind.Shutdown, SymptomKind.Noise], Standing(t));
        Assert.True(t.Write(w => SymptomStore.Withdraw(w, asset.Id, id, "it was the wall socket")));
        Assert.False(t.Write(w => SymptomStore.Withdraw(w, asset.Id, id, "again")));
        Assert.Equal([SymptomKind.Noise], Standing(t));
        Assert.Equal([null, "it was the wall socket"], store.Of(asset.Id).Select(s => s.WithdrawnReason));
        Assert.Equal("under load", store.Of(asset.Id)[1].Symptom.Note);
    }

    [Fact]
    public void A_report_of_another_machine_cannot_be_withdrawn()
    {
        using var t = new TemporaryDatabase();
        var store = new SymptomStore(t.Database);
        var id = t.Write(w =>
            SymptomStore.Add(w, t.Fleet.Find("GC-1")!.Id, new Symptom(new(2026, 5, 1), SymptomKind.Crash, null))
        );
        Assert.False(t.Write(w => SymptomStore.Withdraw(w, t.Fleet.Find("PC-1")!.Id, id, "not mine")));
        Assert.Empty(store.Of(t.Fleet.Find("PC-1")!.Id));
    }

    [Fact]
    public void The_defaults_hold_until_the_house_says_otherwise()
    {
        using var t = new TemporaryDatabase();
        Assert.Equal(JudgementPolicy.Default, new PolicyStore(t.Database).Current());
        var strict = new JudgementPolicy(8, 3, 7, School.Evidence)
        {
            Precedence = Precedence.Value,
            Intervals = new IntervalRules(HardUseHours: 9)
            {
                GraphicsCard = new(4, 12, 30),
                Server = new(null, 24, null),
                Laptop = new(null, 7, 40, 11, 10),
                Desktop = new(null, null, null),
                Factors = new IntervalFactors(1.3, 0.6, 1.9, 0.4, 0.65, 0.8, 1.2, 0.03, 0.06, 0.75, 0.9),
            },
            Values = new HouseValues("crowns", 52, 0.41, 3, 1.5, 8, 0.65, 4, 0.25)
            {
                GraphicsCard = new(0.3, 700),
                Server = new(2, 5000),
                Laptop = new(4, 1200),
                Desktop = new(5, 900),
            },
        };
        Set(
            t,
            JudgementPolicy.Default with
            {
                School = School.Failure,
            },
            new BenchSchools(Air: AirSource.Can, Pads: PadSchool.Putty)
        );
        Set(t, strict, new BenchSchools(Air: AirSource.Can, Pads: PadSchool.Putty));
        t.Reopen();
        Assert.Equal(strict, new PolicyStore(t.Database).Current());
        Assert.Equal(new BenchSchools(Air: AirSource.Can, Pads: PadSchool.Putty), new PolicyStore(t.Database).Bench());
    }

    [Fact]
    public void Rules_for_some_machines_are_kept_as_they_were_set_and_go_when_they_set_nothing()
    {
        using var t = new TemporaryDatabase();
        LocalRule[] rules =
        [
            new(RuleScope.Zone, "Z", new RuleChange(School.Evidence, WorthKelvin: 3, RepasteMonths: 0, PetsOrSmoke: false)),
            new(
                RuleScope.Machine,
                "GC-1",
                new RuleChange(
                    School.Failure,
                    WarrantySchool.OpenWhereAllowed,
                    Extent.AllWhileOpen,
                    PasteSchool.Line,
                    PadSchool.Putty,
                    1,
                    2,
                    3,
                    4,
                    5,
                    6,
                    true,
                    true,
                    true,
                    true,
                    7,
                    8,
                    0.9,
                    AlcoholStrength.Seventy,
                    AirSource.Blower,
                    OpeningOrder.Free,
                    DownHours.Weekends,
                    true,
                    false,
                    60
                )
            ),
        ];
        foreach (var rule in rules.Reverse())
            t.Write(w => RuleStore.Keep(w, rule));
        t.Write(w => RuleStore.Keep(w, rules[0]));
        t.Reopen();
        Assert.Equal(rules, new RuleStore(t.Database).All());
        Assert.Equal(
            """{"school":"evidence","worthKelvin":3,"repasteMonths":0,"petsOrSmoke":false}""",
            Change.Told(rules[0].Change)
        );
        t.Write(w => RuleStore.Keep(w, rules[1] with { Change = new RuleChange() }));
        Assert.Equal([rules[0]], new RuleStore(t.Database).All());
    }

    /// <summary>The judgement follows the bench's ways where they decide on a level.</summary>
    [Fact]
    public void Extent_and_warranty_of_the_bench_hold_for_the_judgement_too()
    {
        using var t = new TemporaryDatabase();
        var store = new PolicyStore(t.Database);
        Set(t, JudgementPolicy.Default, new BenchSchools(Extent.AllWhileOpen, WarrantySchool.AskFirst));
        Assert.Equal((Extent.AllWhileOpen, WarrantySchool.AskFirst), (store.Current().Extent, store.Current().Warranty));
        Assert.Equal(HouseValues.Default, store.Current().Values);
    }

    [Fact]
    public void Readings_come_as_columns_in_order_of_time_with_gaps_as_gaps()
    {
        using var t = new TemporaryDatabase();
        t.Send(
            "GC-1",
            TemporaryDatabase.Reading(60, 61, double.NaN) with
            {
                Workload = "light",
            },
            TemporaryDatabase.Reading(0, 60, 80),
            TemporaryDatabase.Reading(120, 0, 82) with
            {
                Settings = null,
                FanRpm = 0,
                Throttled = 1,
                PowerW = double.NaN,
            }
        );
        using var reader = t.Readings.Series(long.MaxValue);
        var series = reader.Read(t.Fleet.Find("GC-1")!);
        Assert.Equal(3, series.Count);
        Assert.Equal([60, 61, 0], series.Parts[0]);
        Assert.Equal([80, double.NaN, 82], series.Parts[1]);
        Assert.Equal([0, 1, 0], series.Workload);
        Assert.Equal([0, 0, -1], series.Settings);
        Assert.Equal([1800, 1800, 0], series.FanRpm);
        Assert.Equal([220, 220, double.NaN], series.Power);
        Assert.Equal([false, false, true], series.Throttled);
        Assert.Equal(0, reader.Read(t.Fleet.Find("PC-1")!).Count);
    }

    [Fact]
    public void One_reader_serves_several_threads()
    {
        using var t = new TemporaryDatabase();
        t.Send("GC-1", [.. Enumerable.Range(0, 500).Select(i => TemporaryDatabase.Reading(i, 60 + i % 5, 80))]);
        t.Send("PC-1", [.. Enumerable.Range(0, 300).Select(i => TemporaryDatabase.Reading(i, 50))]);
        var (card, desktop) = (t.Fleet.Find("GC-1")!, t.Fleet.Find("PC-1")!);
        using var reader = t.Readings.Series(long.MaxValue);
        var counts = Enumerable.Range(0, 200).AsParallel().Select(i => reader.Read(i % 2 == 0 ? card : desktop).Count).ToArray();
        Assert.Equal([300, 500], counts.Distinct().Order());
    }
}
