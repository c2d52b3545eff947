using Pyrometron.Core.Fleet;
using Pyrometron.Core.Policies;

namespace Pyrometron.Core.Tests.Policies;

/// <summary>The nearest rule wins, setting by setting.</summary>
public class HouseRulesTests
{
    private static readonly Asset Machine = new(
        "DSK-7",
        AssetKind.Desktop,
        "Petrel",
        "F3",
        null,
        8,
        new(2025, 1, 1),
        null,
        UsualMachines.Parts(AssetKind.Desktop),
        []
    );

    private static readonly (RuleScope Scope, string Key)[] Nearer =
    [
        (RuleScope.Site, "QUAY"),
        (RuleScope.Zone, "F3"),
        (RuleScope.Kind, "desktop"),
        (RuleScope.ZoneKind, "F3/desktop"),
        (RuleScope.Model, "Petrel"),
        (RuleScope.Machine, "DSK-7"),
    ];

    private static JudgementPolicy With(params LocalRule[] rules) =>
        new HouseRules(JudgementPolicy.Default, rules).For(Machine, "QUAY");

    [Fact]
    public void Each_wider_rule_holds_until_a_nearer_one_sets_the_same()
    {
        for (var scopes = 0; scopes <= Nearer.Length; scopes++)
        {
            LocalRule[] rules =
            [
                .. Nearer
                    .Take(scopes)
                    .Select((to, i) => new LocalRule(to.Scope, to.Key, new RuleChange(WorthKelvin: 3 + i / 10.0)))
                    .Reverse(),
            ];
            Assert.Equal(scopes == 0 ? 2.5 : 3 + (scopes - 1) / 10.0, With(rules).WorthKelvin);
            Assert.All(rules, r => Assert.True(r.HoldsFor(Machine, "QUAY")));
        }
    }

    [Fact]
    public void What_a_nearer_rule_leaves_open_stays_with_the_wider_one()
    {
        var policy = With(
            new LocalRule(RuleScope.Site, "QUAY", new RuleChange(School: School.Evidence, MuchKelvin: 9)),
            new LocalRule(RuleScope.Machine, "DSK-7", new RuleChange(MuchKelvin: 12))
        );
        Assert.Equal((School.Evidence, 12), (policy.School, policy.MuchKelvin));
        Assert.Equal(JudgementPolicy.Default.ActionMarginKelvin, policy.ActionMarginKelvin);
    }

    [Fact]
    public void Rules_for_others_do_not_hold()
    {
        LocalRule[] others =
        [
            new(RuleScope.Site, "F3", new RuleChange(WorthKelvin: 9)),
            new(RuleScope.Zone, "QUAY", new RuleChange(WorthKelvin: 9)),
            new(RuleScope.Kind, "laptop", new RuleChange(WorthKelvin: 9)),
            new(RuleScope.ZoneKind, "F3/laptop", new RuleChange(WorthKelvin: 9)),
            new(RuleScope.ZoneKind, "F4/desktop", new RuleChange(WorthKelvin: 9)),
            new(RuleScope.Model, "petrel", new RuleChange(WorthKelvin: 9)),
            new(RuleScope.Machine, "DSK-70", new RuleChange(WorthKelvin: 9)),
        ];
        Assert.Equal(JudgementPolicy.Default, With(others));
        Assert.All(others, r => Assert.False(r.HoldsFor(Machine, "QUAY")));
    }

    [Fact]
    public void Zero_months_are_never_and_a_set_interval_is_meant_whatever_a_wider_longest_says()
    {
        var never = With(new LocalRule(RuleScope.Zone, "F3", new RuleChange(RepasteMonths: 0)));
        Assert.Null(never.Intervals.Desktop.Repaste);
        Assert.Equal(18, never.Intervals.Desktop.DustOut);
        var laptop = Machine with { Kind = AssetKind.Laptop };
        var months = new HouseRules(
            JudgementPolicy.Default,
            [new LocalRule(RuleScope.Machine, "DSK-7", new RuleChange(DustOutMonths: 24, RepasteMonths: 60, UsedHard: true))]
        )
            .For(laptop, "QUAY")
            .Intervals.Laptop;
        Assert.Equal((24.0, null, 60.0, null), (months.DustOut, months.LongestDustOut, months.Repaste, months.RepasteUsedHard));
    }

    [Fact]
    public void A_rule_can_be_read_back_as_what_is_in_force()
    {
        var all = new RuleChange(
            School.Calendar,
            WarrantySchool.AskFirst,
            Extent.AllWhileOpen,
            PasteSchool.Cross,
            PadSchool.Putty,
            4,
            3,
            8,
            3,
            9,
            24,
            UsedHard: true,
            PetsOrSmoke: true,
            SaltAir: true,
            DryAir: true,
            MachineHour: 7,
            Replacement: 900,
            DowntimeShare: 0.5,
            Alcohol: AlcoholStrength.Seventy,
            Air: AirSource.Blower,
            Opening: OpeningOrder.Free,
            DownHours: DownHours.Weekends,
            SparesQuarterEnd: true,
            TwoPeople: true,
            FanMonths: 60
        );
        var rules = new HouseRules(JudgementPolicy.Default, [new LocalRule(RuleScope.Kind, "desktop", all)]);
        var bench = rules.For(Machine, "QUAY", BenchSchools.Default);
        Assert.Equal(all, RuleChange.InForce(rules.For(Machine, "QUAY"), bench, AssetKind.Desktop));
        Assert.True(new RuleChange().IsEmpty());
        Assert.False(all.IsEmpty());
    }

    [Theory]
    [InlineData("F3/desktop", true)]
    [InlineData("F3/", false)]
    [InlineData("/desktop", false)]
    [InlineData("F3", false)]
    [InlineData("F3/fridge", false)]
    public void The_key_of_a_zone_and_a_kind_is_read_or_refused(string key, bool isOne) =>
        Assert.Equal(isOne ? ("F3", AssetKind.Desktop) : null, LocalRule.ReadZoneKind(key));

    /// <summary>A house that closes its books may let no machine stand then; one of its rooms may allow even less.</summary>
    [Fact]
    public void Downtime_is_set_hour_by_hour_like_every_other_setting()
    {
        var policy = With(
            new LocalRule(RuleScope.Site, "QUAY", new RuleChange(SparesQuarterEnd: true)),
            new LocalRule(RuleScope.Zone, "F3", new RuleChange(DownHours: DownHours.OutOfHours)),
            new LocalRule(RuleScope.Model, "Petrel", new RuleChange(SparesQuarterEnd: false, TwoPeople: true))
        );
        Assert.Equal(new DowntimeRules(DownHours.OutOfHours), policy.Downtime);
        Assert.True(policy.TwoPeople);
        Assert.Equal(
            new DowntimeRules(DownHours.Weekends, true),
            new DowntimeRules(DownHours.Weekends).And(new DowntimeRules(DownHours.OutOfHours, true))
        );
    }

    /// <summary>Against the calendar: quarters end with March, June, September and December.</summary>
    [Fact]
    public void The_last_week_of_a_quarter_is_its_last_seven_days()
    {
        foreach (var year in new[] { 2026, 2028 })
        {
            var days = Enumerable
                .Range(0, DateTime.IsLeapYear(year) ? 366 : 365)
                .Select(new DateOnly(year, 1, 1).AddDays)
                .Where(DowntimeRules.IsQuarterEnd)
                .ToList();
            Assert.Equal(28, days.Count);
            Assert.Equal([(3, 31), (6, 30), (9, 30), (12, 31)], days.Chunk(7).Select(w => (w[^1].Month, w[^1].Day)));
            Assert.All(days.Chunk(7), w => Assert.Equal(6, w[^1].DayNumber - w[0].DayNumber));
        }
    }

    [Fact]
    public void Rules_that_are_sound_alone_can_contradict_each_other()
    {
        HouseRules Rules(double worth) =>
            new(
                JudgementPolicy.Default,
                [
                    new LocalRule(RuleScope.Zone, "F3", new RuleChange(WorthKelvin: worth)),
                    new LocalRule(RuleScope.Model, "Petrel", new RuleChange(MuchKelvin: 4)),
                ]
            );
        Assert.Null(Rules(4).Contradiction(Machine, "QUAY"));
        Assert.StartsWith(
            "For 'DSK-7' the rules contradict each other: 4 K would be much to win, and less than 5 K not worth",
            Rules(5).Contradiction(Machine, "QUAY")!.ToString(),
            StringComparison.Ordinal
        );
    }
}
