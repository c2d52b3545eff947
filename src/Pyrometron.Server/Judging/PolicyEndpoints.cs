using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Application.Fleet;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Policies;
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
/// <param name="Precedence">What goes first within one urgency; as it is when omitted.</param>
/// <param name="Values">
/// What hours, machines and electricity are worth; as they are when omitted, and what is omitted within gets its default.
/// </param>
public sealed record PolicyDto(
    double? ActionMarginKelvin,
    double? WorthKelvin,
    double? MuchKelvin,
    School? School,
    BenchSchools? Bench = null,
    Precedence? Precedence = null,
    HouseValues? Values = null
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
            p.Values
        );
}

/// <summary>Reading and changing the rules.</summary>
internal static class PolicyEndpoints
{
    private const int LongestCurrency = 8;

    public static void MapPolicy(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/policy").WithTags("House rules");
        group.MapGet("", (PolicyStore policy) => PolicyDto.From(policy.Current(), policy.Bench()));
        group.MapPut("", Put);
    }

    private static Results<Ok<PolicyDto>, ProblemHttpResult> Put(PolicyDto request, PolicyStore policy, FleetUseCases fleet)
    {
        var problems = new List<InputProblem>();
        double Number(double? value, string name, double least, double most, string unit)
        {
            if (value is not { } given || !(given >= least && given <= most))
                problems.Add(
                    new InputProblem(
                        unit.Length > 0
                            ? (Message)$"{name} is needed: {least} to {most} {unit}"
                            : $"{name} is needed: {least} to {most}",
                        Pointer: "/" + name
                    )
                );
            return value ?? 0;
        }
        var (before, bench) = (policy.Current(), request.Bench ?? policy.Bench());
        var next = new JudgementPolicy(
            Number(request.ActionMarginKelvin, "actionMarginKelvin", 0, 30, "K"),
            Number(request.WorthKelvin, "worthKelvin", 0.5, 20, "K"),
            Number(request.MuchKelvin, "muchKelvin", 1, 40, "K"),
            request.School ?? School.WhicheverFirst,
            bench.Warranty
        )
        {
            Extent = bench.Extent,
            Precedence = request.Precedence ?? before.Precedence,
            Values = request.Values ?? before.Values,
        };
        if (request.School is null)
            problems.Add(new InputProblem($"school is needed: one of {Words.List<School>()}", Pointer: "/school"));
        if (bench.ComebackDays is < 0 or > BenchSchools.MostComebackDays)
            problems.Add(
                new InputProblem(
                    $"comebackDays lies between 0 and {BenchSchools.MostComebackDays}",
                    Pointer: "/bench/comebackDays"
                )
            );
        if (next.MuchKelvin < next.WorthKelvin)
            problems.Add(new InputProblem("muchKelvin cannot be less than worthKelvin", Pointer: "/muchKelvin"));
        var values = next.Values;
        if (
            string.IsNullOrWhiteSpace(values.Currency)
            || values.Currency.Length > LongestCurrency
            || values.Currency.Any(char.IsControl)
        )
            problems.Add(
                new InputProblem(
                    $"currency is needed: a word or sign of up to {LongestCurrency} characters",
                    Pointer: "/values/currency"
                )
            );
        foreach (var (name, value, least, most, unit) in Bounds(values))
            Number(value, "values/" + name, least, most, unit);
        if (problems.Count > 0)
            return Problems.Input(problems);
        fleet.ChangeRules(Actor.Unnamed, next, bench);
        return TypedResults.Ok(PolicyDto.From(next, bench));
    }

    /// <summary>What amounts may be: wide, so that any currency fits.</summary>
    private static IEnumerable<(string Name, double? Value, double Least, double Most, string Unit)> Bounds(HouseValues values)
    {
        const double most = 1e9;
        yield return ("technicianHour", values.TechnicianHour, 0, most, "");
        yield return ("kilowattHour", values.KilowattHour, 0, most, "");
        yield return ("decibelYear", values.DecibelYear, 0, most, "");
        yield return ("crashHours", values.CrashHours, 0, 1000, "h");
        yield return ("payBackYears", values.PayBackYears, 1, 10, "years");
        yield return ("lifeYears", values.LifeYears, 0.5, 100, "years");
        yield return ("activationEnergyEv", values.ActivationEnergyEv, 0, 2, "eV");
        foreach (
            var (kind, worth) in ((string, KindValues?)[])
                [
                    ("graphicsCard", values.GraphicsCard),
                    ("server", values.Server),
                    ("laptop", values.Laptop),
                    ("desktop", values.Desktop),
                ]
        )
        {
            yield return ($"{kind}/machineHour", worth?.MachineHour, 0, most, "");
            yield return ($"{kind}/replacement", worth?.Replacement, 0, most, "");
        }
    }
}
