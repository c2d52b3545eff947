using Pyrometron.Core.Fleet;

namespace Pyrometron.Core.Intervals;

/// <summary>Base intervals by kind and level, shortened by what wears: dust, hours, heat (common practice, no source).</summary>
public static class ServiceIntervals
{
    /// <summary>
    /// Months between services of a level on a kind of machine in normal dust; null where the calendar asks for none.
    /// </summary>
    public static int? BaseMonths(AssetKind kind, ServiceLevel level) =>
        (kind, level) switch
        {
            (AssetKind.Laptop, ServiceLevel.DustOut) => 12,
            (_, ServiceLevel.DustOut) => 18,
            (_, ServiceLevel.Repaste) => 42,
            _ => null,
        };

    /// <summary>What multiplies a base interval: below 1 in dust and on machines that never rest.</summary>
    public static double EnvironmentFactor(DustClass dust, double dutyHoursPerDay) =>
        (
            dust switch
            {
                DustClass.Clean => 1.4,
                DustClass.Heavy => 0.65,
                _ => 1.0,
            }
        )
        * (
            dutyHoursPerDay >= 20 ? 0.85
            : dutyHoursPerDay <= 6 ? 1.15
            : 1.0
        );

    /// <summary>The service that is or will be due first, counted from the last one that renewed the same.</summary>
    public static DueService? FirstDue(Asset asset, DustClass dust, DateOnly asOf) => First(All(asset, dust, asOf));

    /// <summary>The one that is due first; null where there is none.</summary>
    public static DueService? First(IEnumerable<DueService> dues)
    {
        DueService? first = null;
        foreach (var due in dues)
            if (first is null || due.Due < first.Value.Due)
                first = due;
        return first;
    }

    /// <summary>All services that the calendar asks for, each counted from the last one that renewed the same.</summary>
    public static IEnumerable<DueService> All(Asset asset, DustClass dust, DateOnly asOf)
    {
        foreach (
            var (level, cause) in ((ServiceLevel, Cause)[])
                [(ServiceLevel.DustOut, Cause.Dust), (ServiceLevel.Repaste, Cause.Paste)]
        )
            if (BaseMonths(asset.Kind, level) is { } months)
            {
                var days = months * 30.4375 * EnvironmentFactor(dust, asset.DutyHoursPerDay);
                var length = (int)Math.Round(days);
                yield return new DueService(level, asset.RenewedOn(cause, asOf).AddDays(length), length);
            }
    }
}
