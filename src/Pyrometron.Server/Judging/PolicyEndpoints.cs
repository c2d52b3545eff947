using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Priority;
using Pyrometron.Core.Procedures;
using Pyrometron.Formats;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

namespace Pyrometron.Server.Judging;

/// <summary>The house's rules for judging.</summary>
/// <param name="ActionMarginKelvin">How far below a part's limit its action line lies.</param>
/// <param name="WorthKelvin">Less than this is not worth opening a machine for.</param>
/// <param name="MuchKelvin">This much to win is worth opening a machine for at once.</param>
/// <param name="School">When machines are served.</param>
/// <param name="Bench">The ways at the bench; as they are when omitted.</param>
public sealed record PolicyDto(double? ActionMarginKelvin, double? WorthKelvin, double? MuchKelvin, School? School, BenchSchools? Bench = null)
{
    internal static PolicyDto From(JudgementPolicy p, BenchSchools bench) => new(p.ActionMarginKelvin, p.WorthKelvin, p.MuchKelvin, p.School, bench);
}

/// <summary>Reading and changing the rules.</summary>
internal static class PolicyEndpoints
{
    public static void MapPolicy(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/policy").WithTags("House rules");
        group.MapGet("", (PolicyStore policy) => PolicyDto.From(policy.Current(), policy.Bench()));
        group.MapPut("", Put);
    }

    private static Results<Ok<PolicyDto>, ProblemHttpResult> Put(PolicyDto request, PolicyStore policy, JudgementService judgement)
    {
        var problems = new List<InputProblem>();
        double Kelvin(double? value, string name, double least, double most)
        {
            if (value is not { } given || !(given >= least && given <= most))
                problems.Add(new InputProblem($"{name} is needed: {least} to {most} K", Pointer: "/" + name));
            return value ?? 0;
        }
        var next = new JudgementPolicy(Kelvin(request.ActionMarginKelvin, "actionMarginKelvin", 0, 30), Kelvin(request.WorthKelvin, "worthKelvin", 0.5, 20),
            Kelvin(request.MuchKelvin, "muchKelvin", 1, 40), request.School ?? School.WhicheverFirst);
        if (request.School is null)
            problems.Add(new InputProblem($"school is needed: one of {Words.List<School>()}", Pointer: "/school"));
        if (next.MuchKelvin < next.WorthKelvin)
            problems.Add(new InputProblem("muchKelvin cannot be less than worthKelvin", Pointer: "/muchKelvin"));
        if (problems.Count > 0)
            return Problems.Input(problems);
        var bench = request.Bench ?? policy.Bench();
        var judged = policy.Current();
        policy.Set(next, bench);
        if (next != judged)
            judgement.AllChanged();
        return TypedResults.Ok(PolicyDto.From(next, bench));
    }
}
