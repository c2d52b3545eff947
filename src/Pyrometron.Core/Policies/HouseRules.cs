using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Policies;

/// <summary>The rules of the house and those for some of its machines; the nearest wins, setting by setting.</summary>
public sealed class HouseRules(JudgementPolicy house, IEnumerable<LocalRule> local)
{
    private readonly Dictionary<(RuleScope, string), LocalRule> _local = local.ToDictionary(r => (r.Scope, r.Key));

    /// <summary>What holds where nothing nearer is set.</summary>
    public JudgementPolicy House => house;

    /// <summary>The rules that hold for a machine besides the house's, the widest first.</summary>
    /// <param name="site">Code of the site that it stands on.</param>
    public IEnumerable<LocalRule> Over(Asset asset, string site)
    {
        if (_local.Count == 0)
            yield break;
        foreach (
            var key in ((RuleScope, string)[])
                [
                    (RuleScope.Site, site),
                    (RuleScope.Zone, asset.Zone),
                    (RuleScope.Kind, Words.Of(asset.Kind)),
                    (RuleScope.ZoneKind, LocalRule.ZoneKind(asset.Zone, asset.Kind)),
                    (RuleScope.Model, asset.Model),
                    (RuleScope.Machine, asset.Tag),
                ]
        )
            if (_local.TryGetValue(key, out var rule))
                yield return rule;
    }

    /// <summary>The policy that a machine is judged by.</summary>
    public JudgementPolicy For(Asset asset, string site) =>
        Over(asset, site).Aggregate(house, (policy, rule) => rule.Change.Over(policy, asset.Kind));

    /// <summary>The ways at the bench for a machine.</summary>
    /// <param name="bench">Those of the house.</param>
    public BenchSchools For(Asset asset, string site, BenchSchools bench) =>
        Over(asset, site).Aggregate(bench, (ways, rule) => rule.Change.Over(ways));

    /// <summary>What the rules that hold for a machine say against each other; null where they go together.</summary>
    public Message? Contradiction(Asset asset, string site) =>
        For(asset, site) is var policy && policy.MuchKelvin >= policy.WorthKelvin
            ? null
            : Message.Of(
                "For '{asset}' the rules contradict each other: {much} would be much to win, and less than {worth} not worth opening it. Change one of the two.",
                Value.Text("asset", asset.Tag),
                Value.Kelvin("much", policy.MuchKelvin),
                Value.Kelvin("worth", policy.WorthKelvin)
            );
}
