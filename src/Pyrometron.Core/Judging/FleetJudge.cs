using Pyrometron.Core.Drift;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Priority;
using Pyrometron.Core.Readings;

namespace Pyrometron.Core.Judging;

/// <summary>
/// Judges a whole fleet: every machine against its own fresh state, with the zones' rooms taken out. Pure: the same
/// register, readings and day always give the same answer.
/// </summary>
public static class FleetJudge
{
    /// <summary>Judges all machines of a register.</summary>
    /// <param name="readings">A machine's readings up to and including <paramref name="asOf"/>; asked once a machine, from several threads.</param>
    /// <param name="asOf">The day as whose end is judged; later services are left out.</param>
    /// <param name="progress">Steps done and their number; a zone takes two.</param>
    public static FleetJudgement Judge(Register register, Func<Asset, ReadingSeries> readings, DateOnly asOf, JudgementPolicy policy,
        Action<int, int>? progress = null, CancellationToken cancellation = default)
    {
        var byZone = register.Assets.ToLookup(a => a.Zone);
        var zones = register.Sites.SelectMany(s => s.Zones).Select(z => new ZoneJudge(z, [.. byZone[z.Code]], asOf, policy)).ToArray();
        var options = new ParallelOptions { CancellationToken = cancellation };
        var done = 0;
        void Each(Action<ZoneJudge> work) => Parallel.ForEach(zones, options, zone =>
        {
            work(zone);
            progress?.Invoke(Interlocked.Increment(ref done), 2 * zones.Length);
        });

        Each(zone => zone.Prepare(readings, cancellation));
        foreach (var model in zones.SelectMany(z => z.Models).GroupBy(m => (m.Asset.Kind, m.Asset.Model)))
            Siblings.Pool([.. model.Select(m => m.Model)]);
        Each(zone => zone.Settle(cancellation));
        return new FleetJudgement(asOf, Order(zones.SelectMany(z => z.Machines), asOf, policy), [.. zones.Select(z => z.Zone)]);
    }

    /// <summary>Most pressing first; equal ones by tag, so that the order is the same every time.</summary>
    private static Assessment[] Order(IEnumerable<Assessment> machines, DateOnly asOf, JudgementPolicy policy) =>
        [.. machines.OrderBy(m => m.Urgency)
            .ThenByDescending(m => UrgencyRule.Pressure(m.DriftKelvin ?? 0, m.Action, asOf, policy))
            .ThenBy(m => m.Asset.Tag, StringComparer.Ordinal)];
}
