using Pyrometron.Core.Drift;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.GroupEvents;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Readings;

namespace Pyrometron.Core.Judging;

/// <summary>
/// What a judgement is made from. Readings and history are asked for once a machine, from several threads, and are not kept.
/// </summary>
/// <param name="Register">Where machines stand, and which there are.</param>
/// <param name="AsOf">The day as whose end is judged.</param>
/// <param name="Policy">The house's rules.</param>
/// <param name="Readings">A machine's readings up to and including the day judged.</param>
public sealed record JudgementBasis(Register Register, DateOnly AsOf, JudgementPolicy Policy, Func<Asset, ReadingSeries> Readings)
{
    /// <summary>What happened to a machine besides.</summary>
    public Func<Asset, MachineHistory> History { get; init; } = _ => MachineHistory.Empty;

    /// <summary>
    /// Whether work done and runs measured after the day judged count for their own machine: where readings ended long ago, a
    /// machine that was served since is judged as of then.
    /// </summary>
    public bool LaterWorkCounts { get; init; }

    /// <summary>Threads to work on.</summary>
    public int Threads { get; init; } = 1;

    /// <summary>
    /// Told of a machine on whose data the calculation failed; that machine's row says so, all others are judged.
    /// </summary>
    public Action<Asset, Exception>? Failed { get; init; }

    /// <summary>Rules for some of the machines, over those of the house.</summary>
    public IReadOnlyList<LocalRule> Local { get; init; } = [];

    /// <summary>Left out to measure what it is worth.</summary>
    internal Ablation Without { get; init; }
}

/// <summary>
/// Judges a whole fleet, or again what new readings touch: every machine against its own fresh state, with the zones' rooms
/// taken out. Pure: the same basis always gives the same answer.
/// </summary>
public sealed class FleetJudge(JudgementBasis basis)
{
    /// <summary>
    /// A few machines cannot move the room of a zone with many: beyond this size, and with fewer than one in <see cref="FewOf"/>
    /// touched, only those are judged again, in the room as it was.
    /// </summary>
    private const int SmallZone = 64,
        FewOf = 10;

    private readonly HouseRules _rules = new(basis.Policy, basis.Local);

    /// <summary>Judges all machines.</summary>
    /// <param name="progress">Steps done and their number; a zone takes three.</param>
    public FleetJudgement JudgeAll(Action<int, int>? progress = null, CancellationToken cancellation = default)
    {
        var zones = Zones(_ => true);
        var done = 0;
        void Step() => progress?.Invoke(++done, 3 * zones.Count);
        foreach (var zone in zones)
        {
            zone.Prepare(cancellation);
            Step();
        }
        var events = basis.Without.HasFlag(Ablation.GroupEvents)
            ? []
            : ModelReadings.Find(zones.SelectMany(z => z.Models).Select(m => m.Model), basis.Threads, cancellation);
        foreach (var zone in zones)
        {
            zone.FitFirst(events, cancellation);
            Step();
        }
        var siblings = basis.Without.HasFlag(Ablation.Siblings) ? [] : Siblings.Learn(zones.SelectMany(z => z.Models));
        var noise = basis.Without.HasFlag(Ablation.Noise) ? LearntNoise.None : LearntNoise.Of(zones.SelectMany(z => z.Fitted));
        var machines = new List<Assessment>();
        foreach (var zone in zones)
        {
            machines.AddRange(zone.Settle(siblings, noise, cancellation));
            Step();
        }
        return Done(machines, zones.ToDictionary(z => z.Code, z => z.Assess()), siblings, events, noise);
    }

    /// <summary>
    /// Judges again some machines and the zones they stand in, with what siblings had shown before; all others keep their
    /// judgement.
    /// </summary>
    /// <param name="before">A judgement of the same day.</param>
    /// <param name="touched">
    /// Tags of machines of which anything changed; machines that are new or gone are found by themselves.
    /// </param>
    public FleetJudgement JudgeAgain(
        FleetJudgement before,
        IReadOnlySet<string> touched,
        CancellationToken cancellation = default
    )
    {
        var register = basis.Register;
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
                        .WithDegreeOfParallelism(basis.Threads)
                        .WithCancellation(cancellation)
                        .Select(a =>
                            zone.JudgeOne(a, known, before.KnownSiblings, before.ModelEvents, before.Noise, withHistory: false)
                        )
                );
                continue;
            }
            zone.Prepare(cancellation);
            zone.FitFirst(before.ModelEvents, cancellation);
            machines.AddRange(zone.Settle(before.KnownSiblings, before.Noise, cancellation));
            judged[zone.Code] = zone.Assess();
        }
        return Done(machines, judged, before.KnownSiblings, before.ModelEvents, before.Noise);
    }

    /// <summary>
    /// Judges one machine again, its zone's room as judged before, and tells its past. Where nothing of it has changed since, the
    /// answer is the same as in that judgement. Null when its zone was not judged.
    /// </summary>
    public Assessment? JudgeOne(FleetJudgement before, Asset asset) =>
        before.JudgedZones.TryGetValue(asset.Zone, out var zone)
            ? before.AmongOthers.Attach(
                Zones(z => z == asset.Zone)[0]
                    .JudgeOne(asset, zone, before.KnownSiblings, before.ModelEvents, before.Noise, withHistory: true)
            )
            : null;

    /// <summary>
    /// The same machines as they were seen before, judged by the rules given now. Reads nothing: O(machines). Work of the house
    /// that taught what services win is taken as it was.
    /// </summary>
    /// <param name="before">A judgement of the same day.</param>
    public FleetJudgement RuleAgain(FleetJudgement before, CancellationToken cancellation = default)
    {
        var rules = new HouseRules(basis.Policy with { Proven = before.Policy.Proven, Times = before.Policy.Times }, basis.Local);
        var machines = before
            .Alone.Values.AsParallel()
            .AsOrdered()
            .WithDegreeOfParallelism(basis.Threads)
            .WithCancellation(cancellation)
            .Select(a => MachineRuling.Of(a.Findings!, rules))
            .ToList();
        return Done(machines, before.JudgedZones, before.KnownSiblings, before.ModelEvents, before.Noise);
    }

    private FleetJudgement Done(
        List<Assessment> machines,
        IReadOnlyDictionary<string, JudgedZone> zones,
        IReadOnlyDictionary<Siblings.Kin, Siblings.Known> siblings,
        IReadOnlyList<GroupEvent> events,
        LearntNoise noise
    )
    {
        var others = AmongOthers.Of(machines, basis.AsOf);
        return new FleetJudgement(
            basis.AsOf,
            basis.Policy,
            QueueOrder.Of(machines.Select(others.Attach), basis.AsOf, basis.Policy),
            machines,
            zones,
            siblings,
            events,
            noise,
            others
        );
    }

    private List<ZoneJudge> Zones(Func<string, bool> wanted)
    {
        var byZone = basis.Register.Assets.ToLookup(a => a.Zone);
        return
        [
            .. from site in basis.Register.Sites
            from zone in site.Zones
            where wanted(zone.Code)
            select new ZoneJudge(basis, _rules, site, zone, [.. byZone[zone.Code]]),
        ];
    }
}
