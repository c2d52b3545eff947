using Pyrometron.Application.Bench;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Policies;
using Pyrometron.Storage;

namespace Pyrometron.Application.Rules;

/// <summary>Changes the rules of the house, and those for some of its machines.</summary>
public sealed class RuleUseCases(Database database, TimeProvider clock)
{
    /// <summary>Puts other rules of the house in force.</summary>
    /// <exception cref="NotPossibleException">Together with a rule for some machines they contradict themselves.</exception>
    public void ChangeHouse(Actor actor, JudgementPolicy policy, BenchSchools bench) =>
        database.Write(
            actor.AllowedEverywhere(Right.KeepRules),
            clock.GetUtcNow(),
            t =>
            {
                var (before, benchBefore) = (PolicyStore.Current(t), PolicyStore.Bench(t));
                var judged = policy != before;
                if (!judged && bench == benchBefore)
                    return;
                Check(t, new HouseRules(policy, RuleStore.All(t)));
                PolicyStore.Set(t, policy, bench);
                // Only what the judgement rests on has it made anew.
                t.Log(
                    new Change(judged ? "rules" : "bench-rules", "House rules changed")
                    {
                        Before = Told(before, benchBefore),
                        After = Told(policy, bench),
                    }
                );
            }
        );

    private static string Told(JudgementPolicy policy, BenchSchools bench) =>
        Change.Told(
            new
            {
                policy.ActionMarginKelvin,
                policy.WorthKelvin,
                policy.MuchKelvin,
                policy.School,
                policy.Warranty,
                policy.Precedence,
                policy.Extent,
                policy.Values,
                policy.Intervals,
                policy.Downtime,
                bench,
            }
        );

    /// <summary>Keeps a rule for some machines; one that sets nothing takes away the rule that was there.</summary>
    /// <exception cref="NotThereException">It is for nothing that there is.</exception>
    /// <exception cref="NotPossibleException">Together with the other rules it contradicts itself.</exception>
    public void Keep(Actor actor, LocalRule rule) =>
        database.Write(
            actor.AllowedEverywhere(Right.KeepRules),
            clock.GetUtcNow(),
            t =>
            {
                var all = RuleStore.All(t);
                var before = all.FirstOrDefault(r => r.Scope == rule.Scope && r.Key == rule.Key);
                if (before?.Change == rule.Change || (before is null && rule.Change.IsEmpty()))
                    return;
                // A rule for what has gone may still be taken away.
                if (!rule.Change.IsEmpty() && !Machines(t).Any(m => rule.HoldsFor(m.Asset, m.Site)) && !IsPlace(t, rule))
                    throw Nothing(rule);
                Check(t, new HouseRules(PolicyStore.Current(t), [.. all.Where(r => r != before), rule]));
                RuleStore.Keep(t, rule);
                var scope = Value.Word("scope", rule.Scope);
                var key = Value.Text("key", rule.Key);
                t.Log(
                    new Change(
                        "rules",
                        rule.Change.IsEmpty() ? Message.Of("Rule taken away: {scope} {key}", scope, key)
                            : before is null ? Message.Of("New rule: {scope} {key}", scope, key)
                            : Message.Of("Rule changed: {scope} {key}", scope, key)
                    )
                    {
                        Before = before is null ? null : Change.Told(before.Change),
                        After = rule.Change.IsEmpty() ? null : Change.Told(rule.Change),
                    }
                );
            }
        );

    /// <summary>
    /// Keeps that a suggested interval is not wanted, so that it is not suggested again as long as it stays alike.
    /// </summary>
    public void Refuse(Actor actor, RefusedInterval refused) =>
        database.Write(
            actor.AllowedEverywhere(Right.KeepRules),
            clock.GetUtcNow(),
            t =>
            {
                RuleStore.Refuse(t, refused with { At = t.Now });
                t.Log(
                    new Change(
                        "rules",
                        Message.Of(
                            "Suggested interval not taken: {level}, {scope} {key}: {reason}",
                            Value.Word("level", refused.Level),
                            Value.Word("scope", refused.Scope),
                            Value.Text("key", refused.Key),
                            Value.Text("reason", refused.Reason)
                        )
                    )
                );
            }
        );

    private static NotThereException Nothing(LocalRule rule) =>
        rule.Scope == RuleScope.Machine
            ? Missing.Machine(rule.Key)
            : new(
                Message.Of(
                    "No machine in use belongs to the {scope} '{key}'. Choose one that there is.",
                    Value.Word("scope", rule.Scope),
                    Value.Text("key", rule.Key)
                )
            );

    private static bool IsPlace(Transaction t, LocalRule rule) =>
        rule.Scope == RuleScope.Kind
        || SiteStore
            .All(t)
            .Any(s =>
                (rule.Scope == RuleScope.Site && s.Code == rule.Key)
                || (rule.Scope == RuleScope.Zone && s.Zones.Any(z => z.Code == rule.Key))
                || (rule.Scope == RuleScope.ZoneKind && s.Zones.Any(z => z.Code == LocalRule.ReadZoneKind(rule.Key)?.Zone))
            );

    private static IEnumerable<(Asset Asset, string Site)> Machines(Transaction t)
    {
        var sites = SiteStore
            .All(t)
            .SelectMany(s => s.Zones, (s, z) => (s.Code, Zone: z.Code))
            .ToDictionary(z => z.Zone, z => z.Code);
        return FleetStore.All(t).Where(m => m.RetiredOn is null).Select(m => (m.Asset, sites[m.Asset.Zone]));
    }

    /// <summary>Rules that are sound one by one may not be together.</summary>
    private static void Check(Transaction t, HouseRules rules)
    {
        foreach (var (asset, site) in Machines(t))
            if (rules.Contradiction(asset, site) is { } says)
                throw new NotPossibleException(says, "contradiction");
    }
}
