using Pyrometron.Core.Fleet;
using Pyrometron.Core.Intervals;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Statistics;
using Pyrometron.Core.Worth;

namespace Pyrometron.Core.LearntIntervals;

/// <summary>The lives of the fans of one model, and the age at which to change them.</summary>
/// <param name="Failures">Fans that were changed.</param>
/// <param name="Running">Fans that still run, each machine's counted as one.</param>
/// <param name="Life">In months.</param>
/// <param name="ShapeUncertainty">Relative, of its shape.</param>
/// <param name="Planned">What a change costs that was planned, in the house's currency.</param>
/// <param name="AtFailure">
/// What one costs after the fan has stopped at work: as much, what a crash costs, and the time of a visit that nobody planned.
/// </param>
/// <param name="BestMonths">The age that costs least; null where they had better run until they fail.</param>
public sealed record FanLives(
    AssetKind Kind,
    string Model,
    int Failures,
    int Running,
    WeibullLife Life,
    double ShapeUncertainty,
    double Planned,
    double AtFailure,
    double? BestMonths
)
{
    /// <summary>Fewer failures than this tell no shape.</summary>
    private const int LeastFailures = 5;

    /// <summary>The costs by age.</summary>
    public AgeReplacement Replacement => new(Life, Planned, AtFailure);

    /// <summary>
    /// All models with failures enough. The book tells that a fan was changed, not why: each change counts as a failure, and so
    /// lives are told rather too short where fans were changed in time.
    /// </summary>
    /// <param name="policyOf">The rules for a machine.</param>
    public static IReadOnlyList<FanLives> Of(IEnumerable<Asset> machines, DateOnly asOf, Func<Asset, JudgementPolicy> policyOf) =>
        [
            .. machines
                .GroupBy(a => (a.Kind, a.Model))
                .OrderBy(g => g.Key.Model, StringComparer.Ordinal)
                .Select(g => OfModel([.. g], asOf, policyOf(g.First())))
                .OfType<FanLives>(),
        ];

    private static FanLives? OfModel(Asset[] machines, DateOnly asOf, JudgementPolicy policy)
    {
        var lives = machines.SelectMany(a => LivesOf(a, asOf)).ToArray();
        var failures = lives.Count(l => l.Failed);
        if (failures < LeastFailures || WeibullLife.Fit(lives) is not { } life)
            return null;
        var (asset, values) = (machines[0], policy.Values);
        var worth = values.Of(asset.Kind);
        var minutes = policy.Times.Of(asset, ServiceLevel.FanSwap).Minutes;
        var planned =
            minutes / 60.0 * (values.TechnicianHour + worth.MachineHour * values.DowntimeShare * asset.DutyHoursPerDay / 24)
            + policy.Materials.Of(ServiceLevel.FanSwap)
            + BenchCosts.ChanceOfDamage(asset.Kind, ServiceLevel.FanSwap) * worth.Replacement;
        var atFailure = planned + values.CrashHours * worth.MachineHour + minutes / 60.0 * values.TechnicianHour;
        return new FanLives(
            asset.Kind,
            asset.Model,
            failures,
            lives.Length - failures,
            life,
            WeibullLife.ShapeUncertainty(failures),
            planned,
            atFailure,
            new AgeReplacement(life, planned, atFailure).BestAge
        );
    }

    private static IEnumerable<Lifetime> LivesOf(Asset asset, DateOnly asOf)
    {
        var since = asset.InServiceSince;
        foreach (var service in asset.Services)
            if (service.Level == ServiceLevel.FanSwap && service.Date > since && service.Date <= asOf)
            {
                yield return new Lifetime((service.Date.DayNumber - since.DayNumber) / Interval.DaysAMonth, Failed: true);
                since = service.Date;
            }
        if (asOf > since)
            yield return new Lifetime((asOf.DayNumber - since.DayNumber) / Interval.DaysAMonth, Failed: false);
    }
}
