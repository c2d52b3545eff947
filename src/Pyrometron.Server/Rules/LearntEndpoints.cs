using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Application.Rules;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.LearntIntervals;
using Pyrometron.Core.Policies;
using Pyrometron.Formats;
using Pyrometron.Server.Access;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Judging;
using Pyrometron.Storage;

namespace Pyrometron.Server.Rules;

/// <summary>An interval that the record contradicts, and a better one.</summary>
/// <param name="Name">What people call the zone or model.</param>
/// <param name="Machines">Measured machines that it rests on.</param>
/// <param name="Jobs">Proven jobs that it rests on besides.</param>
/// <param name="KelvinPerMonth">What they gather in the mean.</param>
/// <param name="UncertaintyKelvinPerMonth">Its expanded uncertainty, k = 2.</param>
/// <param name="MuchKelvin">What is worth opening a machine for at once.</param>
/// <param name="PresentMonths">By the rules.</param>
/// <param name="Months">The better interval: shorter by what is likeliest, longer only as far as is sure.</param>
/// <param name="LowMonths">The time in which so much gathers: its lower end, k = 2.</param>
/// <param name="HighMonths">The upper end; null where it may never gather.</param>
/// <param name="RuleMonths">What a rule has to say so that surroundings make this of it.</param>
/// <param name="Refused">When somebody did not want it; null where nobody has.</param>
/// <param name="RefusedBecause">Why.</param>
public sealed record LearntIntervalAnswer(
    RuleScope Scope,
    string Key,
    string Name,
    ServiceLevel Level,
    int Machines,
    int Jobs,
    double KelvinPerMonth,
    double UncertaintyKelvinPerMonth,
    double MuchKelvin,
    double PresentMonths,
    double Months,
    double LowMonths,
    double? HighMonths,
    double RuleMonths,
    DateTimeOffset? Refused,
    string? RefusedBecause
);

/// <summary>What changing fans at an age costs a month.</summary>
public sealed record CostAtAge(double Months, double Cost);

/// <summary>Lives of the fans of a model, and the age at which to change them.</summary>
/// <param name="Failures">Fans that had failed when they were changed, or of which nobody said.</param>
/// <param name="Unsaid">How many of these nobody said it of.</param>
/// <param name="InTime">Fans that were changed before they failed.</param>
/// <param name="Running">Fans that still run.</param>
/// <param name="Shape">Of the Weibull distribution; above 1 they wear out.</param>
/// <param name="ShapeLow">Lower end, k = 2.</param>
/// <param name="ShapeHigh">Upper end.</param>
/// <param name="ScaleMonths">By this age 63.2 % have failed.</param>
/// <param name="MeanMonths">Mean life.</param>
/// <param name="Planned">What a planned change costs.</param>
/// <param name="AtFailure">What one costs after a fan has stopped at work.</param>
/// <param name="BestMonths">The age that costs least; null where they had better run until they fail.</param>
/// <param name="CostAtBest">Cost a month then.</param>
/// <param name="CostOfFailure">Cost a month when all run until they fail.</param>
/// <param name="Curve">Cost a month by age.</param>
public sealed record FanLivesAnswer(
    AssetKind Kind,
    string Model,
    int Failures,
    int Unsaid,
    int InTime,
    int Running,
    double Shape,
    double ShapeLow,
    double ShapeHigh,
    double ScaleMonths,
    double MeanMonths,
    double Planned,
    double AtFailure,
    double? BestMonths,
    double? CostAtBest,
    double CostOfFailure,
    IReadOnlyList<CostAtAge> Curve
)
{
    private const int CurvePoints = 40;

    internal static FanLivesAnswer From(FanLives fans)
    {
        var (cost, mean) = (fans.Replacement, fans.Life.Mean);
        var spread = 2 * fans.ShapeUncertainty;
        return new(
            fans.Kind,
            fans.Model,
            fans.Failures,
            fans.Unsaid,
            fans.InTime,
            fans.Running,
            fans.Life.Shape,
            fans.Life.Shape * Math.Max(0, 1 - spread),
            fans.Life.Shape * (1 + spread),
            fans.Life.Scale,
            mean,
            fans.Planned,
            fans.AtFailure,
            fans.BestMonths,
            fans.BestMonths is { } best ? cost.CostRate(best) : null,
            cost.CostRateOfFailure,
            [
                .. Enumerable
                    .Range(1, CurvePoints)
                    .Select(i => 2 * mean * i / CurvePoints)
                    .Select(age => new CostAtAge(age, cost.CostRate(age))),
            ]
        );
    }
}

/// <summary>What the house's own record says about its intervals.</summary>
public sealed record LearntAnswer(
    string Currency,
    IReadOnlyList<LearntIntervalAnswer> Intervals,
    IReadOnlyList<FanLivesAnswer> Fans
);

/// <summary>A suggested interval that is not wanted.</summary>
public sealed record IntervalRefusal(RuleScope? Scope, string? Key, ServiceLevel? Level, double? Months, string? Reason);

/// <summary>Intervals that learn: suggested from the record, taken or not by a person.</summary>
internal static class LearntEndpoints
{
    private const int LongestReason = 500;

    /// <summary>One that was refused is suggested again once it has moved by more than this share.</summary>
    private const double AlikeShare = 0.25;

    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(20);

    public static void MapLearnt(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/rules/learnt").WithTags("House rules");
        group.MapGet("", Get);
        group.MapPost("/refusals", Refuse);
    }

    /// <summary>What the house's own record says of its intervals.</summary>
    internal static async Task<Results<Ok<LearntAnswer>, ProblemHttpResult>> Get(
        JudgementService judgement,
        FleetStore fleet,
        JobStore jobs,
        RuleStore rules,
        CancellationToken cancellation
    )
    {
        var judged = await judgement.GetAsync(null, Patience, cancellation);
        if (judged.Judgement is not { } known)
            return Problems.Conflict("The fleet is being judged for the first time. Ask again in a moment.");
        var sites = fleet.Sites();
        var names = new RuleNames(sites);
        var refused = rules.Refused();
        var policies = known.Queue.ToDictionary(a => a.Asset.Tag, a => a.Policy);
        return TypedResults.Ok(
            new LearntAnswer(
                known.Policy.Values.Currency,
                [.. LearntInterval.Of(known, sites, jobs.Finished(null, null)).Select(l => Answer(l, names, refused))],
                [.. FanLives.Of(known.Queue.Select(a => a.Asset), known.AsOf, a => policies[a.Tag]).Select(FanLivesAnswer.From)]
            )
        );
    }

    private static LearntIntervalAnswer Answer(LearntInterval l, RuleNames names, IReadOnlyList<RefusedInterval> refused)
    {
        var no = refused.FirstOrDefault(r =>
            r.Scope == l.Scope && r.Key == l.Key && r.Level == l.Level && Math.Abs(r.Months - l.Months) <= AlikeShare * r.Months
        );
        return new(
            l.Scope,
            l.Key,
            names.Of(l.Scope, l.Key),
            l.Level,
            l.Machines,
            l.Jobs,
            l.KelvinPerMonth,
            2 * l.SigmaKelvinPerMonth,
            l.MuchKelvin,
            l.PresentMonths,
            l.Months,
            l.LowMonths,
            l.HighMonths,
            l.RuleMonths,
            no?.At,
            no?.Reason
        );
    }

    /// <summary>Puts an interval that was learnt aside: it is not offered again until more is known.</summary>
    internal static Results<NoContent, ProblemHttpResult> Refuse(Caller caller, IntervalRefusal request, RuleUseCases rules)
    {
        var problems = new List<InputProblem>();
        if (request.Scope is not (RuleScope.Zone or RuleScope.ZoneKind or RuleScope.Model))
            problems.Add(new InputProblem($"scope is zone, zone-kind or model", Pointer: "/scope"));
        if (string.IsNullOrWhiteSpace(request.Key) || request.Key.Length > LocalRuleDto.LongestKey)
            problems.Add(new InputProblem($"key is needed: the zone or model of the suggestion", Pointer: "/key"));
        if (request.Level is null)
            problems.Add(new InputProblem($"level is needed: one of {Words.List<ServiceLevel>()}", Pointer: "/level"));
        if (request.Months is not (> 0 and < 1000))
            problems.Add(new InputProblem($"months is needed: those of the suggestion", Pointer: "/months"));
        if (string.IsNullOrWhiteSpace(request.Reason) || request.Reason.Length > LongestReason)
            problems.Add(new InputProblem($"reason is needed: 1 to {LongestReason} characters", Pointer: "/reason"));
        if (problems.Count > 0)
            return Problems.Input(problems);
        rules.Refuse(
            caller.Actor,
            new RefusedInterval(
                request.Scope!.Value,
                request.Key!,
                request.Level!.Value,
                request.Months!.Value,
                default,
                request.Reason!.Trim()
            )
        );
        return TypedResults.NoContent();
    }
}
