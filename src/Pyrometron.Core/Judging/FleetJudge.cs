using Pyrometron.Core.Drift;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Intervals;
using Pyrometron.Core.Priority;
using Pyrometron.Core.Readings;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Judging;

/// <summary>
/// Judges a whole fleet: every machine against its own fresh state, with the zones' rooms taken out. Pure: the same
/// register, readings and day always give the same answer.
/// </summary>
public static class FleetJudge
{
    /// <summary>Rounds between the machines of a zone and its room; the room settles in about that many.</summary>
    private const int Rounds = 10;

    private sealed record Machine(Asset Asset, Channels Channels, ReferencePoint Reference, bool OwnAir, WearModel? Model);

    /// <summary>Judges all machines of a register.</summary>
    /// <param name="readings">A machine's readings up to and including <paramref name="asOf"/>; asked once a machine, from several threads.</param>
    /// <param name="asOf">The day as whose end is judged; later services are left out.</param>
    /// <param name="progress">Zones done and their number.</param>
    public static FleetJudgement Judge(Register register, Func<Asset, ReadingSeries> readings, DateOnly asOf, JudgementPolicy policy,
        Action<int, int>? progress = null, CancellationToken cancellation = default)
    {
        var byZone = register.Assets.ToLookup(a => a.Zone);
        var zones = register.Sites.SelectMany(s => s.Zones).ToArray();
        var done = 0;
        var judged = new (ZoneAssessment Zone, List<Assessment> Machines)[zones.Length];
        Parallel.For(0, zones.Length, new ParallelOptions { CancellationToken = cancellation }, z =>
        {
            judged[z] = JudgeZone(zones[z], [.. byZone[zones[z].Code]], readings, asOf, policy, cancellation);
            progress?.Invoke(Interlocked.Increment(ref done), zones.Length);
        });
        return new FleetJudgement(asOf, Order(judged.SelectMany(j => j.Machines), asOf, policy), [.. judged.Select(j => j.Zone)]);
    }

    /// <summary>Most pressing first; equal ones by tag, so that the order is the same every time.</summary>
    private static Assessment[] Order(IEnumerable<Assessment> machines, DateOnly asOf, JudgementPolicy policy) =>
        [.. machines.OrderBy(m => m.Urgency)
            .ThenByDescending(m => UrgencyRule.Pressure(m.DriftKelvin ?? 0, m.Action, asOf, policy))
            .ThenBy(m => m.Asset.Tag, StringComparer.Ordinal)];

    private static (ZoneAssessment, List<Assessment>) JudgeZone(Zone zone, Asset[] assets, Func<Asset, ReadingSeries> readings, DateOnly asOf,
        JudgementPolicy policy, CancellationToken cancellation)
    {
        var channels = new List<(Asset Asset, Channels Channels)>();
        foreach (var asset in assets)
        {
            cancellation.ThrowIfCancellationRequested();
            channels.Add((asset, Channels.Clean(asset, readings(asset))));
        }
        var air = ZoneAir.Of(channels.Select(c => c.Channels));
        var machines = channels.Select(c => Prepare(c.Asset, c.Channels, air, asOf)).ToList();

        var models = machines.Where(m => m?.Model is not null).Select(m => m!.Model!).ToArray();
        var room = ZoneRoom.None;
        for (var round = 0; round < Rounds; round++)
        {
            cancellation.ThrowIfCancellationRequested();
            foreach (var model in models)
                model.Fit(room.At, round == 0 ? 3 : 1);
            room = ZoneRoom.From(models);
        }
        foreach (var model in models)
            model.Fit(room.At, 2);

        var assessments = machines.Select((m, i) => m?.Model is { } model
            ? Assess(m, model, zone, room, asOf, policy)
            : Unknown(assets[i], channels[i].Channels, zone, asOf)).ToList();
        var now = room.Bins.TakeLast(3).Select(b => b.Kelvin).DefaultIfEmpty(0).Average();
        return (new ZoneAssessment(zone.Code, now, models.Length, [.. room.Bins]), assessments);
    }

    private static Machine? Prepare(Asset asset, Channels channels, ZoneAir air, DateOnly asOf)
    {
        if (ReferencePoint.Of(channels) is not { } reference)
            return null;
        var ownAir = air.Complete(channels);
        var cells = Cell.Of(channels, reference);
        return new Machine(asset, channels, reference, ownAir,
            WearModel.For(asset, reference, cells, UnixDay.Noon(asOf), SensorSteps.Find(asset, reference, cells)));
    }

    private static Assessment Assess(Machine machine, WearModel model, Zone zone, ZoneRoom room, DateOnly asOf, JudgementPolicy policy)
    {
        var asset = machine.Asset;
        var judge = new MachineJudge(asset, zone, machine.Channels, model, room, machine.OwnAir, asOf, policy);
        var parts = judge.Parts();
        var due = ServiceIntervals.FirstDue(asset, zone.Dust, asOf);
        if (parts.Count == 0 || machine.Channels.Series.Count < 5)
            return Unknown(asset, machine.Channels, zone, asOf);

        var worst = parts.MaxBy(p => p.Split.Total)!;
        var limiting = parts.MinBy(p => p.MarginKelvin)!;
        var winnable = worst.Split.Total;
        var action = parts.Where(p => p.Action is not null).Select(p => p.Action).MinBy(a => a!.Value.Day);
        var urgency = UrgencyRule.Of(winnable, worst.SigmaKelvin, judge.AtItsLimit, action, due, asOf, policy);
        var outside = new OutsideCauses(judge.RoomNow, judge.SettingsNow);
        var findings = machine.Channels.Findings
            .Concat(model.SensorSteps.Select(s => new SensorFinding(asset.Parts[s.Part].Name, "jumped from one day to the next, alone", s.Day, 0))).ToArray();
        var cause = winnable >= policy.WorthKelvin ? worst.Split.Ranked().First().Cause
            : OutsideCause(outside, limiting.MarginKelvin, findings);
        ServiceLevel? service = winnable >= policy.WorthKelvin ? Recommendation.LevelFor(parts, policy)
            : urgency == Urgency.Soon ? due?.Level : null;
        var draft = new Assessment(asset, asOf, urgency, cause, winnable, action, service,
            service is { } level ? JudgementPolicy.Minutes(asset.Kind, level) : null, judge.Evidence, machine.Reference, parts, outside, judge.AmbientNow, [.. judge.Steps()], findings, due,
            machine.Channels.Series.Day[^1], machine.Channels.Series.Count, "", [], null);
        return Reasons.Complete(draft, zone);
    }

    /// <summary>What explains a warm machine that no service helps, largest first.</summary>
    private static Cause OutsideCause(OutsideCauses outside, double margin, SensorFinding[] findings)
    {
        const double notable = 2;
        var (room, settings) = (outside.Room, outside.Settings);
        if (room >= notable && room >= settings)
            return Cause.Room;
        if (settings >= notable)
            return Cause.Settings;
        if (margin <= 2)
            return Cause.CoolerLimited;
        return findings.Length > 0 ? Cause.Sensor : Cause.None;
    }

    private static Assessment Unknown(Asset asset, Channels channels, Zone zone, DateOnly asOf)
    {
        var count = channels.Series.Count;
        return Reasons.Complete(new Assessment(asset, asOf, Urgency.Unknown, Cause.None, null, null, null, null, null, null, [], default, double.NaN, [],
            channels.Findings, ServiceIntervals.FirstDue(asset, zone.Dust, asOf), count > 0 ? channels.Series.Day[^1] : null, count, "", [], null), zone);
    }
}
