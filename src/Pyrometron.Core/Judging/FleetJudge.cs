using Pyrometron.Core.Drift;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Readings;

namespace Pyrometron.Core.Judging;

/// <summary>
/// Judges a whole fleet, or again what new readings touch: every machine against its own fresh state, with the zones' rooms
/// taken out. Pure: the same register, readings and day always give the same answer. Readings and reports are asked for once
/// a machine, from several threads, and are not kept.
/// </summary>
/// <param name="readings">A machine's readings up to and including the day judged.</param>
/// <param name="symptoms">What people reported of a machine; null for nothing.</param>
public sealed class FleetJudge(
    Register register,
    DateOnly asOf,
    JudgementPolicy policy,
    Func<Asset, ReadingSeries> readings,
    Func<Asset, IReadOnlyList<Symptom>>? symptoms = null
)
{
    private readonly Func<Asset, IReadOnlyList<Symptom>> _symptoms = symptoms ?? (_ => []);

    /// <summary>Left out to measure what it is worth.</summary>
    internal Ablation Without { get; init; }

    /// <summary>Judges all machines.</summary>
    /// <param name="progress">Steps done and their number; a zone takes two.</param>
    public FleetJudgement JudgeAll(Action<int, int>? progress = null, CancellationToken cancellation = default)
    {
        var zones = Zones(_ => true);
        var done = 0;
        void Step() => progress?.Invoke(++done, 2 * zones.Count);
        foreach (var zone in zones)
        {
            zone.Prepare(readings, _symptoms, cancellation);
            Step();
        }
        var siblings = Without.HasFlag(Ablation.Siblings) ? [] : Siblings.Learn(zones.SelectMany(z => z.Models));
        var machines = new List<Assessment>();
        foreach (var zone in zones)
        {
            machines.AddRange(zone.Settle(siblings, cancellation));
            Step();
        }
        return Done(machines, zones.ToDictionary(z => z.Code, z => z.Assess()), siblings);
    }

    /// <summary>
    /// Judges again some machines and the zones they stand in, with what siblings had shown before; all others keep their judgement.
    /// </summary>
    /// <param name="before">A judgement of the same day.</param>
    /// <param name="touched">Tags of machines whose readings, services or data changed; machines that are new or gone are found by themselves.</param>
    public FleetJudgement JudgeAgain(
        FleetJudgement before,
        IReadOnlySet<string> touched,
        CancellationToken cancellation = default
    )
    {
        var changed = register
            .Assets.Where(a => touched.Contains(a.Tag) || !before.ByTag.ContainsKey(a.Tag))
            .Select(a => a.Zone)
            .Concat(before.Queue.Where(a => touched.Contains(a.Asset.Tag)).Select(a => a.Asset.Zone))
            .ToHashSet();
        var here = register.Assets.ToDictionary(a => a.Tag);
        var judged = new Dictionary<string, JudgedZone>(before.JudgedZones);
        var machines = before.Alone.Values.Where(a => here.ContainsKey(a.Asset.Tag) && !changed.Contains(a.Asset.Zone)).ToList();
        foreach (var zone in Zones(changed.Contains))
        {
            var again = zone
                .Assets.Where(a =>
                    touched.Contains(a.Tag) || !before.ByTag.TryGetValue(a.Tag, out var old) || old.Asset.Zone != a.Zone
                )
                .ToArray();
            if (
                before.JudgedZones.TryGetValue(zone.Code, out var known)
                && zone.Assets.Length > SmallZone
                && again.Length * FewOf < zone.Assets.Length
            )
            {
                var named = again.Select(a => a.Tag).ToHashSet();
                machines.AddRange(zone.Assets.Where(a => !named.Contains(a.Tag)).Select(a => before.Alone[a.Tag]));
                machines.AddRange(
                    again
                        .AsParallel()
                        .WithCancellation(cancellation)
                        .Select(a => zone.JudgeOne(a, readings(a), _symptoms(a), known, before.KnownSiblings, withHistory: false))
                );
                continue;
            }
            zone.Prepare(readings, _symptoms, cancellation);
            machines.AddRange(zone.Settle(before.KnownSiblings, cancellation));
            judged[zone.Code] = zone.Assess();
        }
        return Done(machines, judged, before.KnownSiblings);
    }

    /// <summary>
    /// A few machines cannot move the room of a zone with many: beyond this size, and with fewer than one in <see cref="FewOf"/>
    /// touched, only those are judged again, in the room as it was.
    /// </summary>
    private const int SmallZone = 64,
        FewOf = 10;

    /// <summary>Judges one machine again, its zone's room as judged before, and tells its past. Null when its zone was not judged.</summary>
    public Assessment? JudgeOne(FleetJudgement before, Asset asset) =>
        before.JudgedZones.TryGetValue(asset.Zone, out var zone)
            ? before.Comparison.Attach(
                Zones(z => z == asset.Zone)[0]
                    .JudgeOne(asset, readings(asset), _symptoms(asset), zone, before.KnownSiblings, withHistory: true)
            )
            : null;

    private FleetJudgement Done(
        List<Assessment> machines,
        IReadOnlyDictionary<string, JudgedZone> zones,
        IReadOnlyDictionary<Siblings.Kin, Siblings.Known> siblings
    )
    {
        var comparison = SiblingComparison.Of(machines);
        return new FleetJudgement(
            asOf,
            policy,
            QueueOrder.Of(machines.Select(comparison.Attach), asOf, policy),
            machines,
            zones,
            siblings,
            comparison
        );
    }

    private List<ZoneJudge> Zones(Func<string, bool> wanted)
    {
        var byZone = register.Assets.ToLookup(a => a.Zone);
        return
        [
            .. from site in register.Sites
            from zone in site.Zones
            where wanted(zone.Code)
            select new ZoneJudge(site, zone, [.. byZone[zone.Code]], asOf, policy, Without),
        ];
    }
}
