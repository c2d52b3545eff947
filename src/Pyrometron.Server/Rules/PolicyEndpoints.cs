using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Application.Rules;
using Pyrometron.Core.Policies;
using Pyrometron.Server.Access;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

namespace Pyrometron.Server.Rules;

/// <summary>The house's rules for judging.</summary>
/// <param name="ActionMarginKelvin">How far below a part's limit its action line lies.</param>
/// <param name="WorthKelvin">Less than this is not worth opening a machine for.</param>
/// <param name="MuchKelvin">This much to win is worth opening a machine for at once.</param>
/// <param name="School">When machines are served.</param>
/// <param name="Bench">The ways at the bench; as they are when omitted.</param>
/// <param name="Precedence">What goes first within one urgency; as it is when omitted.</param>
/// <param name="Values">
/// What hours, machines and electricity are worth; as they are when omitted, and what is omitted within gets its default.
/// </param>
/// <param name="Intervals">
/// How often the calendar asks; as it is when omitted. Months that are omitted for a kind mean that it is not asked.
/// </param>
/// <param name="Downtime">When machines may be down for work; as it is when omitted.</param>
public sealed record PolicyDto(
    double? ActionMarginKelvin,
    double? WorthKelvin,
    double? MuchKelvin,
    School? School,
    BenchSchools? Bench = null,
    Precedence? Precedence = null,
    HouseValues? Values = null,
    IntervalRules? Intervals = null,
    DowntimeRules? Downtime = null
)
{
    internal static PolicyDto From(JudgementPolicy p, BenchSchools bench) =>
        new(
            p.ActionMarginKelvin,
            p.WorthKelvin,
            p.MuchKelvin,
            p.School,
            bench with
            {
                ComebackDays = bench.ComebackDays ?? BenchSchools.UsualComebackDays,
                ComebacksFree = bench.FreesComebacks,
                OthersMachines = bench.OthersMachines ?? false,
                TellsDamage = bench.TellsDamage ?? true,
            },
            p.Precedence,
            p.Values,
            p.Intervals,
            p.Downtime
        );
}

/// <summary>Reading and changing the rules of the house.</summary>
internal static class PolicyEndpoints
{
    public static void MapPolicy(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/policy").WithTags("House rules");
        group
            .MapGet("", (PolicyStore policy) => PolicyDto.From(policy.Current(), policy.Bench()))
            .WithSummary("The rules of the whole house.");
        group.MapPut("", Put);
    }

    /// <summary>Changes the rules of the whole house; the queue follows at once.</summary>
    internal static Results<Ok<PolicyDto>, ProblemHttpResult> Put(
        Caller caller,
        PolicyDto request,
        PolicyStore policy,
        RuleUseCases rules
    )
    {
        var reader = new PolicyReader(policy.Current(), policy.Bench());
        var (next, bench) = reader.Read(request);
        if (reader.Problems.Count > 0)
            return Problems.Input(reader.Problems);
        rules.ChangeHouse(caller.Actor, next, bench);
        return TypedResults.Ok(PolicyDto.From(next, bench));
    }
}
