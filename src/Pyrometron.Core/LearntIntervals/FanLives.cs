using Pyrometron.Core.Fleet;
using Pyrometron.Core.Intervals;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Statistics;
using Pyrometron.Core.Worth;

namespace Pyrometron.Core.LearntIntervals;

/// <summary>The lives of the fans of one model, and the age at which to change them.</summary>
/// <param name="Failures">Fans that had failed when they were changed, or of which nobody said.</param>
/// <param name="Unsaid">How many of these nobody said it of.</param>
/// <param name="InTime">Fans that were changed before they failed.</param>
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
    int Unsaid,
    int InTime,
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
    /// All models with failures enough. A fan that was changed in time ran until then, as one that still runs has. Where nobody
    /// said why it was changed it counts as failed, and so lives are told rather too short.
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
        var changes = machines.SelectMany(a => ChangesOf(a, asOf)).ToArray();
        Lifetime[] lives = [.. changes.Select(c => c.Life), .. machines.SelectMany(a => RunningOf(a, asOf))];
        var failures = lives.Count(l => l.Failed);
        if (failures < LeastFailures || WeibullLife.Fit(lives) is not { } life)
            return null;
        var (asset, values) = (machines[0], policy.Values);
        var worth = values.Of(asset.Kind);
        var minutes = policy.Times.Of(asset, ServiceLevel.FanSwap).Minutes;
        var planned =
            minutes
                / 60.0
                * (
                    values.TechnicianHour * policy.HandsFor(ServiceLevel.FanSwap)
                    + worth.MachineHour * values.DowntimeShare * asset.DutyHoursPerDay / 24
                )
            + policy.Materials.Of(ServiceLevel.FanSwap)
            + BenchCosts.ChanceOfDamage(asset.Kind, ServiceLevel.FanSwap) * worth.Replacement;
        var atFailure = planned + values.CrashHours * worth.MachineHour + minutes / 60.0 * values.TechnicianHour;
        return new FanLives(
            asset.Kind,
            asset.Model,
            failures,
            changes.Count(c => c.Failed is null),
            changes.Count(c => c.Failed == false),
            lives.Length - changes.Length,
            life,
            WeibullLife.ShapeUncertainty(failures),
            planned,
            atFailure,
            new AgeReplacement(life, planned, atFailure).BestAge
        );
    }

    /// <summary>The lives that ended with a change, and whether it was said that the fan had failed.</summary>
    private static IEnumerable<(Lifetime Life, bool? Failed)> ChangesOf(Asset asset, DateOnly asOf)
    {
        var since = asset.InServiceSince;
        foreach (var service in asset.Services)
            if (service.Renews(Cause.Fan) && service.Date > since && service.Date <= asOf)
            {
                // Another cooler brings another fan, whatever the old one was like.
                var failed = service.FanFailed ?? (service.Level == ServiceLevel.FanSwap ? null : false);
                yield return (new Lifetime(Months(since, service.Date), failed ?? true), failed);
                since = service.Date;
            }
    }

    /// <summary>The life of the fan that runs now.</summary>
    private static IEnumerable<Lifetime> RunningOf(Asset asset, DateOnly asOf)
    {
        var since = asset.RenewedOn(Cause.Fan, asOf);
        if (asOf > since)
            yield return new Lifetime(Months(since, asOf), Failed: false);
    }

    private static double Months(DateOnly from, DateOnly to) => (to.DayNumber - from.DayNumber) / Interval.DaysAMonth;
}
