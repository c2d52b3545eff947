using Pyrometron.Core.Fleet;
using Pyrometron.Core.Policies;

namespace Pyrometron.Core.Intervals;

/// <summary>What makes an interval shorter or longer.</summary>
public enum IntervalInfluence
{
    Dust,
    PetsOrSmoke,
    Hours,
    Heat,
    Altitude,
    SaltAir,
    DryAir,
}

/// <summary>One influence, and what it multiplies an interval by.</summary>
public readonly record struct IntervalFactor(IntervalInfluence Influence, double Times);

/// <summary>How often the calendar asks a machine for a service, and how that comes about.</summary>
/// <param name="BaseMonths">Before its surroundings.</param>
/// <param name="Factors">Those that are not 1.</param>
/// <param name="LongestMonths">Never longer than this; null without a bound.</param>
/// <param name="UsedHard">Whether the base is that of machines that are used hard.</param>
public sealed record Interval(
    ServiceLevel Level,
    double BaseMonths,
    IReadOnlyList<IntervalFactor> Factors,
    double? LongestMonths,
    bool UsedHard
)
{
    /// <summary>Days in a month, as the mean of the Gregorian calendar.</summary>
    public const double DaysAMonth = 30.4375;

    /// <summary>With its surroundings.</summary>
    public double Months =>
        Math.Min(Factors.Aggregate(BaseMonths, (months, f) => months * f.Times), LongestMonths ?? double.PositiveInfinity);

    /// <summary>The same in days; at least one.</summary>
    public int Days => Math.Max(1, (int)Math.Round(Months * DaysAMonth));
}

/// <summary>When the calendar asks one machine for a service: by its rules, shortened by what wears.</summary>
public sealed class ServiceIntervals(Asset asset, Site site, Zone zone, JudgementPolicy policy)
{
    /// <summary>From so many hours a day on a machine never rests, and up to so many it rests most of the day.</summary>
    private const double AllDayHours = 20,
        FewHours = 6;

    /// <summary>Design ambients up to this age paste as usual, °C.</summary>
    private const double UsualAmbientC = 30;

    /// <summary>Altitudes up to this are usual, km.</summary>
    private const double UsualKilometres = 1;

    /// <summary>No influence shortens an interval to less than this share.</summary>
    private const double LeastFactor = 0.25;

    private readonly KindIntervals _kind = policy.Intervals.Of(asset.Kind);
    private readonly IntervalFactors _factors = policy.Intervals.Factors;

    /// <summary>All intervals that hold for it.</summary>
    public IEnumerable<Interval> All()
    {
        if (_kind.Look is { } look)
            yield return new Interval(ServiceLevel.Inspect, look, [], null, false);
        if (_kind.DustOut is { } dustOut)
            yield return new Interval(
                ServiceLevel.DustOut,
                dustOut,
                [.. Shared().Concat(OfFins()).Where(f => f.Times != 1)],
                _kind.LongestDustOut,
                false
            );
        var hard = UsedHard && _kind.RepasteUsedHard is not null;
        if ((hard ? _kind.RepasteUsedHard : _kind.Repaste) is { } repaste)
            yield return new Interval(
                ServiceLevel.Repaste,
                repaste,
                [.. Shared().Concat(OfPaste()).Where(f => f.Times != 1 && !(hard && f.Influence == IntervalInfluence.Hours))],
                null,
                hard
            );
        // Bearings age by their hours and their heat, which the lives of the fleet's own fans have in them.
        if (_kind.Fan is { } fan)
            yield return new Interval(ServiceLevel.FanSwap, fan, [], null, false);
    }

    /// <summary>
    /// All services that the calendar asks for, each counted from the last one that renewed the same; looks from when anything
    /// was last done or measured.
    /// </summary>
    /// <param name="measured">When it was measured last; null when never.</param>
    /// <param name="reports">Whether its readings arrive by themselves: they are the look.</param>
    public IEnumerable<DueService> Due(DateOnly asOf, DateOnly? measured, bool reports)
    {
        foreach (var interval in All())
        {
            if (interval.Level == ServiceLevel.Inspect && reports)
                continue;
            var from = interval.Level switch
            {
                ServiceLevel.Inspect => LookedAt(asOf, measured),
                ServiceLevel.DustOut => asset.RenewedOn(Cause.Dust, asOf),
                ServiceLevel.FanSwap => asset.RenewedOn(Cause.Fan, asOf),
                _ => asset.RenewedOn(Cause.Paste, asOf),
            };
            yield return new DueService(interval.Level, from.AddDays(interval.Days), interval.Days);
        }
    }

    /// <summary>
    /// The one that is due first; where a service is due as well as a look, the service: it looks too. Null where there is none.
    /// </summary>
    public static DueService? First(IEnumerable<DueService> dues, DateOnly asOf)
    {
        DueService? first = null;
        foreach (var due in dues)
            if (
                first is not { } known
                || (known.Level == ServiceLevel.Inspect && due.IsDue(asOf))
                || (due.Due < known.Due && !(due.Level == ServiceLevel.Inspect && known.IsDue(asOf)))
            )
                first = due;
        return first;
    }

    private bool UsedHard => policy.Surroundings.UsedHard ?? asset.DutyHoursPerDay >= policy.Intervals.HardUseHours;

    private DateOnly LookedAt(DateOnly asOf, DateOnly? measured)
    {
        var last = measured is { } day && day > asset.InServiceSince ? day : asset.InServiceSince;
        foreach (var service in asset.Services)
            if (service.Date <= asOf && service.Date > last)
                last = service.Date;
        return last;
    }

    /// <summary>What wears fins and paste alike.</summary>
    private IEnumerable<IntervalFactor> Shared()
    {
        var server = asset.Kind == AssetKind.Server;
        yield return new IntervalFactor(
            IntervalInfluence.Dust,
            zone.Dust switch
            {
                DustClass.Clean => server ? _factors.ServerCleanAir : _factors.CleanAir,
                DustClass.Heavy => server ? _factors.ServerHeavyDust : _factors.HeavyDust,
                _ => 1,
            }
        );
        yield return new IntervalFactor(
            IntervalInfluence.Hours,
            asset.DutyHoursPerDay >= AllDayHours ? _factors.AllDay
                : asset.DutyHoursPerDay <= FewHours ? _factors.FewHours
                : 1
        );
        yield return new IntervalFactor(
            IntervalInfluence.Altitude,
            Less(_factors.PerKilometre * (site.AltitudeMetres / 1000 - UsualKilometres))
        );
        if (policy.Surroundings.SaltAir)
            yield return new IntervalFactor(IntervalInfluence.SaltAir, _factors.SaltAir);
    }

    private IEnumerable<IntervalFactor> OfFins()
    {
        if (policy.Surroundings.PetsOrSmoke)
            yield return new IntervalFactor(IntervalInfluence.PetsOrSmoke, _factors.PetsOrSmoke);
    }

    private IEnumerable<IntervalFactor> OfPaste()
    {
        yield return new IntervalFactor(
            IntervalInfluence.Heat,
            Less(_factors.PerHotKelvin * (zone.DesignAmbient.Value - UsualAmbientC))
        );
        if (policy.Surroundings.DryAir)
            yield return new IntervalFactor(IntervalInfluence.DryAir, _factors.DryAir);
    }

    private static double Less(double share) => Math.Clamp(1 - share, LeastFactor, 1);
}
