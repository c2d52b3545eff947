using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Application.Rules;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Policies;
using Pyrometron.Server.Access;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Judging;
using Pyrometron.Storage;

namespace Pyrometron.Server.Rules;

/// <summary>Rules for some machines; what rules would do before they are kept; and which hold for one machine.</summary>
internal static class RuleEndpoints
{
    /// <summary>Machines that a preview names.</summary>
    private const int MostRows = 200;

    /// <summary>How long a preview waits for the fleet to be judged first.</summary>
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(20);

    public static void MapRules(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("").WithTags("House rules");
        group.MapGet("/rules", Get);
        group.MapPut("/rules", Put);
        group.MapPost("/rules/preview", Preview);
        group.MapGet("/assets/{tag}/rules", OfMachine);
    }

    /// <summary>The rules for some machines alone: of a site, zone, kind, model or single machine.</summary>
    internal static LocalRulesAnswer Get(RuleStore rules, FleetStore fleet)
    {
        var sites = fleet.Sites();
        var names = new RuleNames(sites);
        var siteOf = sites.SelectMany(s => s.Zones, (s, z) => (s.Code, Zone: z.Code)).ToDictionary(z => z.Zone, z => z.Code);
        var machines = fleet.All().Where(m => m.RetiredOn is null).Select(m => (m.Asset, Site: siteOf[m.Asset.Zone])).ToArray();
        IEnumerable<RuleTarget> Targets(RuleScope scope, Func<(Asset Asset, string Site), string> key) =>
            machines
                .GroupBy(key)
                .OrderBy(g => g.Key)
                .Select(g => new RuleTarget(scope, g.Key, names.Of(scope, g.Key), g.Count()));
        return new LocalRulesAnswer(
            [
                .. rules
                    .All()
                    .Select(r => new LocalRuleAnswer(
                        r.Scope,
                        r.Key,
                        names.Of(r.Scope, r.Key),
                        machines.Count(m => r.HoldsFor(m.Asset, m.Site)),
                        r.Change
                    )),
            ],
            [
                .. Targets(RuleScope.Site, m => m.Site),
                .. Targets(RuleScope.Zone, m => m.Asset.Zone),
                .. Targets(RuleScope.Kind, m => Words.Of(m.Asset.Kind)),
                .. Targets(RuleScope.ZoneKind, m => LocalRule.ZoneKind(m.Asset.Zone, m.Asset.Kind)),
                .. Targets(RuleScope.Model, m => m.Asset.Model),
            ]
        );
    }

    /// <summary>Replaces the rules for some machines.</summary>
    internal static Results<Ok<LocalRulesAnswer>, ProblemHttpResult> Put(
        Caller caller,
        LocalRuleDto request,
        PolicyStore policy,
        RuleStore rules,
        FleetStore fleet,
        RuleUseCases useCases
    )
    {
        var reader = new PolicyReader(policy.Current(), policy.Bench());
        var rule = reader.Read(request);
        if (reader.Problems.Count > 0)
            return Problems.Input(reader.Problems);
        useCases.Keep(caller.Actor, rule);
        return TypedResults.Ok(Get(rules, fleet));
    }

    /// <summary>What rules would do to the queue and to the work of the next quarter. Nothing is kept.</summary>
    internal static async Task<Results<Ok<RulePreviewAnswer>, ProblemHttpResult>> Preview(
        RulesToTry request,
        PolicyStore policy,
        RuleStore rules,
        FleetStore fleet,
        JudgementService judgement,
        CancellationToken cancellation
    )
    {
        var reader = new PolicyReader(policy.Current(), policy.Bench());
        var house = request.Policy is { } sent ? reader.Read(sent).Policy : policy.Current();
        IReadOnlyList<LocalRule> local = rules.All();
        if (request.Rule is { } one)
        {
            var rule = reader.Read(one, "/rule");
            local = [.. local.Where(r => r.Scope != rule.Scope || r.Key != rule.Key), rule];
        }
        if (reader.Problems.Count > 0)
            return Problems.Input(reader.Problems);
        var judged = await judgement.GetAsync(null, Patience, cancellation);
        if (judged.Judgement is not { } before)
            return Problems.Conflict("The fleet is being judged for the first time. Ask again in a moment.");
        var after = JudgementService.UnderRules(before, house, local, cancellation);
        var effect = RuleEffect.Of(before, after);
        var places = Places.Of(fleet.Sites());
        return TypedResults.Ok(
            new RulePreviewAnswer(
                before.AsOf,
                before.Queue.Count,
                WorkAskedAnswer.From(effect.Before),
                WorkAskedAnswer.From(effect.After),
                effect.Changed.Count,
                [
                    .. effect
                        .Changed.Take(MostRows)
                        .Select(m => new ChangedMachine(
                            m.After.Asset.Tag,
                            m.After.Asset.Model,
                            places.ZoneName(m.After.Asset.Zone),
                            UnderRules.From(m.Before),
                            UnderRules.From(m.After)
                        )),
                ]
            )
        );
    }

    /// <summary>Which rules hold for a machine, and from where each comes.</summary>
    internal static Results<Ok<MachineRulesAnswer>, ProblemHttpResult> OfMachine(
        string tag,
        PolicyStore policy,
        RuleStore rules,
        FleetStore fleet
    )
    {
        if (fleet.Find(tag) is not { } known)
            return Problems.Missing($"There is no machine '{tag}'.");
        var sites = fleet.Sites();
        return TypedResults.Ok(
            MachineRulesAnswer.Of(
                known.Asset,
                sites.First(s => s.Zones.Any(z => z.Code == known.Asset.Zone)),
                new HouseRules(policy.Current(), rules.All()),
                policy.Bench(),
                new RuleNames(sites)
            )
        );
    }
}
