using System.Reflection;
using System.Text.Json;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Intervals;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Policies;

namespace Pyrometron.Server.Rules;

/// <summary>A rule for some machines, as it is sent.</summary>
/// <param name="Scope">For which machines: of a site, zone, kind or model, or one machine.</param>
/// <param name="Key">Code of the site or zone, word of the kind, name of the model, or tag of the machine.</param>
/// <param name="Change">What it sets; what is null is left to wider rules. Nothing set: the rule is taken away.</param>
public sealed record LocalRuleDto(RuleScope? Scope, string? Key, RuleChange? Change)
{
    /// <summary>No code, model or tag is longer.</summary>
    internal const int LongestKey = 200;
}

/// <summary>A rule for some machines.</summary>
/// <param name="Name">What people call it.</param>
/// <param name="Machines">In use, for which it holds, whether or not a nearer rule sets something else.</param>
public sealed record LocalRuleAnswer(RuleScope Scope, string Key, string Name, int Machines, RuleChange Change);

/// <summary>For which rules there can be: what the fleet has.</summary>
/// <param name="Scope">A site, zone, kind or model.</param>
public sealed record RuleTarget(RuleScope Scope, string Key, string Name, int Machines);

/// <summary>All rules for some machines, and what there can be rules for.</summary>
public sealed record LocalRulesAnswer(IReadOnlyList<LocalRuleAnswer> Rules, IReadOnlyList<RuleTarget> Targets);

/// <summary>Rules to try: those of the house, one for some machines, or both.</summary>
public sealed record RulesToTry(PolicyDto? Policy, LocalRuleDto? Rule);

/// <summary>What rules ask for.</summary>
/// <param name="Machines">How many stand at each urgency.</param>
/// <param name="QuarterHours">Hours of work asked for now, or by the calendar within the next 91 days.</param>
/// <param name="QuarterJobs">Jobs that these are.</param>
public sealed record WorkAskedAnswer(IReadOnlyDictionary<string, int> Machines, double QuarterHours, int QuarterJobs)
{
    internal static WorkAskedAnswer From(WorkAsked asked) =>
        new(asked.Machines.ToDictionary(m => Words.Of(m.Key), m => m.Value), asked.QuarterMinutes / 60.0, asked.QuarterJobs);
}

/// <summary>A machine under some rules.</summary>
/// <param name="Due">When the calendar asks for its next service.</param>
/// <param name="DueLevel">For which.</param>
public sealed record UnderRules(
    Urgency Urgency,
    ServiceLevel? Service,
    int? Minutes,
    DateOnly? ActionDate,
    DateOnly? Due,
    ServiceLevel? DueLevel
)
{
    internal static UnderRules From(Assessment a) =>
        new(a.Urgency, a.Service, a.Minutes, a.Action?.Day, a.ServiceDue?.Due, a.ServiceDue?.Level);
}

/// <summary>A machine that other rules would change.</summary>
public sealed record ChangedMachine(string Asset, string Model, string ZoneName, UnderRules Before, UnderRules After);

/// <summary>What rules that are not in force yet would do.</summary>
/// <param name="AsOf">The day judged.</param>
/// <param name="Machines">How many are judged.</param>
/// <param name="Changed">How many of them would change.</param>
/// <param name="Rows">The first of these; those whose urgency changes come first.</param>
public sealed record RulePreviewAnswer(
    DateOnly AsOf,
    int Machines,
    WorkAskedAnswer Before,
    WorkAskedAnswer After,
    int Changed,
    IReadOnlyList<ChangedMachine> Rows
);

/// <summary>A setting of a machine's rules, and the rule that it comes from.</summary>
/// <param name="Setting">Its name in a rule's <c>change</c>.</param>
/// <param name="Number">Its value, where that is a number.</param>
/// <param name="Word">Where it is a word.</param>
/// <param name="Flag">Where it is yes or no.</param>
/// <param name="Scope">Of the nearest rule that sets it; house where none does.</param>
/// <param name="Key">What that rule is for; null for the house.</param>
/// <param name="Name">What people call it; null for the house.</param>
public sealed record RuleInForce(
    string Setting,
    double? Number,
    string? Word,
    bool? Flag,
    RuleScope Scope,
    string? Key,
    string? Name
);

/// <summary>What makes an interval longer or shorter.</summary>
public sealed record IntervalFactorAnswer(IntervalInfluence Influence, double Times);

/// <summary>How often the calendar asks for a service, and how that comes about.</summary>
/// <param name="BaseMonths">By the rules.</param>
/// <param name="Factors">What its surroundings make of them.</param>
/// <param name="LongestMonths">Never longer than this; null without a bound.</param>
/// <param name="UsedHard">Whether the months are those of machines that are used hard.</param>
/// <param name="Months">What comes out.</param>
/// <param name="Days">The same.</param>
public sealed record IntervalAnswer(
    ServiceLevel Level,
    double BaseMonths,
    IReadOnlyList<IntervalFactorAnswer> Factors,
    double? LongestMonths,
    bool UsedHard,
    double Months,
    int Days
);

/// <summary>The rules that hold for one machine.</summary>
public sealed record MachineRulesAnswer(
    string Currency,
    IReadOnlyList<RuleInForce> Settings,
    IReadOnlyList<IntervalAnswer> Intervals
)
{
    private static readonly PropertyInfo[] Settable = typeof(RuleChange).GetProperties();

    internal static MachineRulesAnswer Of(Asset asset, Site site, HouseRules rules, BenchSchools bench, RuleNames names)
    {
        var over = rules.Over(asset, site.Code).Reverse().ToArray();
        var policy = rules.For(asset, site.Code);
        var inForce = RuleChange.InForce(policy, rules.For(asset, site.Code, bench), asset.Kind);
        return new MachineRulesAnswer(
            policy.Values.Currency,
            [.. Settable.Select(setting => InForce(setting, inForce, over, names))],
            [
                .. new ServiceIntervals(asset, site, site.Zones.First(z => z.Code == asset.Zone), policy)
                    .All()
                    .Select(i => new IntervalAnswer(
                        i.Level,
                        i.BaseMonths,
                        [.. i.Factors.Select(f => new IntervalFactorAnswer(f.Influence, f.Times))],
                        i.LongestMonths,
                        i.UsedHard,
                        i.Months,
                        i.Days
                    )),
            ]
        );
    }

    private static RuleInForce InForce(PropertyInfo setting, RuleChange inForce, LocalRule[] nearestFirst, RuleNames names)
    {
        var value = setting.GetValue(inForce);
        var from = nearestFirst.FirstOrDefault(r => setting.GetValue(r.Change) is not null);
        return new RuleInForce(
            JsonNamingPolicy.CamelCase.ConvertName(setting.Name),
            value as double?,
            value is Enum word ? JsonNamingPolicy.KebabCaseLower.ConvertName(word.ToString()) : null,
            value as bool?,
            from?.Scope ?? RuleScope.House,
            from?.Key,
            from is null ? null : names.Of(from.Scope, from.Key)
        );
    }
}

/// <summary>What people call what a rule is for.</summary>
internal sealed class RuleNames(IReadOnlyList<Site> sites)
{
    /// <summary>Its name, or its key where it has no other; of a zone and a kind the zone's.</summary>
    public string Of(RuleScope scope, string key) =>
        scope switch
        {
            RuleScope.Site => sites.FirstOrDefault(s => s.Code == key)?.Name ?? key,
            RuleScope.Zone => Zone(key),
            RuleScope.ZoneKind => Zone(LocalRule.ReadZoneKind(key)?.Zone ?? key),
            _ => key,
        };

    private string Zone(string code) => sites.SelectMany(s => s.Zones).FirstOrDefault(z => z.Code == code)?.Name ?? code;
}
