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
            DowntimeShare: 0.5
        );
        var rules = new HouseRules(JudgementPolicy.Default, [new LocalRule(RuleScope.Kind, "desktop", all)]);
        var bench = rules.For(Machine, "QUAY", BenchSchools.Default);
        Assert.Equal(all, RuleChange.InForce(rules.For(Machine, "QUAY"), bench, AssetKind.Desktop));
        Assert.True(new RuleChange().IsEmpty());
        Assert.False(all.IsEmpty());
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
