using Pyrometron.Core.Drift;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Intervals;
using Pyrometron.Core.Priority;
using Pyrometron.Core.Readings;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Judging;

/// <summary>Judges the machines of one zone together, since they share their air: first each by itself, then, with what siblings elsewhere have shown, to the end.</summary>
internal sealed class ZoneJudge(Zone zone, Asset[] assets, DateOnly asOf, JudgementPolicy policy)
{
    /// <summary>Rounds between the machines of a zone and its room, before and after siblings are heard.</summary>
    private const int FirstRounds = 4, LastRounds = 6;

    private readonly List<(Asset Asset, Channels Channels, Machine? Machine)> _machines = [];
    private ZoneRoom _room = ZoneRoom.None;

    private sealed record Machine(ReferencePoint Reference, bool OwnAir, WearModel? Model);

    /// <summary>The machines with a model, once prepared.</summary>
    public IEnumerable<(Asset Asset, WearModel Model)> Models => _machines.Where(m => m.Machine?.Model is not null).Select(m => (m.Asset, m.Machine!.Model!));

    /// <summary>The machines' judgements, once settled.</summary>
    public IReadOnlyList<Assessment> Machines { get; private set; } = [];

    /// <summary>The zone's own drift, once settled.</summary>
    public ZoneAssessment Zone { get; private set; } = new(zone.Code, 0, 0, []);

    /// <summary>Cleans the readings and fits every machine for a first time.</summary>
    public void Prepare(Func<Asset, ReadingSeries> readings, CancellationToken cancellation)
    {
        var channels = new List<(Asset Asset, Channels Channels)>();
        foreach (var asset in assets)
        {
            cancellation.ThrowIfCancellationRequested();
            channels.Add((asset, Channels.Clean(asset, readings(asset))));
        }
        var air = ZoneAir.Of(channels.Select(c => c.Channels));
        foreach (var (asset, channel) in channels)
            _machines.Add((asset, channel, Prepare(asset, channel, air)));
        Fit(FirstRounds, firstPasses: 3, cancellation);
    }

    /// <summary>Fits to the end and judges.</summary>
    public void Settle(CancellationToken cancellation)
    {
        Fit(LastRounds, firstPasses: 1, cancellation);
        foreach (var (_, model) in Models)
            model.Fit(_room.At, 3, relaxed: true);
        Machines = [.. _machines.Select(m => m.Machine is { Model: { } model } machine ? Assess(m.Asset, m.Channels, machine, model) : Unknown(m.Asset, m.Channels))];
        var now = _room.Bins.TakeLast(3).Select(b => b.Kelvin).DefaultIfEmpty(0).Average();
        Zone = new ZoneAssessment(zone.Code, now, Models.Count(), [.. _room.Bins]);
    }

    private void Fit(int rounds, int firstPasses, CancellationToken cancellation)
    {
        var models = Models.Select(m => m.Model).ToArray();
        for (var round = 0; round < rounds; round++)
        {
            cancellation.ThrowIfCancellationRequested();
            foreach (var model in models)
                model.Fit(_room.At, round == 0 ? firstPasses : 1);
            _room = ZoneRoom.From(models);
        }
    }

    private Machine? Prepare(Asset asset, Channels channels, ZoneAir air)
    {
        if (ReferencePoint.Of(channels) is not { } reference)
            return null;
        var ownAir = air.Complete(channels);
        var cells = Cell.Of(asset.Kind, channels, reference);
        return new Machine(reference, ownAir,
            WearModel.For(asset, reference, cells, UnixDay.Noon(asOf), SensorSteps.Find(asset, reference, cells)));
    }

    private Assessment Assess(Asset asset, Channels channels, Machine machine, WearModel model)
    {
        var judge = new MachineJudge(asset, zone, channels, model, _room, machine.OwnAir, asOf, policy);
        var parts = judge.Parts();
        var due = ServiceIntervals.FirstDue(asset, zone.Dust, asOf);
        if (parts.Count == 0 || channels.Series.Count < 5)
            return Unknown(asset, channels);

        var worst = parts.MaxBy(p => p.Split.Total)!;
        var limiting = parts.MinBy(p => p.MarginKelvin)!;
        var winnable = worst.Split.Total;
        var action = parts.Where(p => p.Action is not null).Select(p => p.Action).MinBy(a => a!.Value.Day);
        var urgency = UrgencyRule.Of(winnable, worst.SigmaKelvin, judge.AtItsLimit, action, due, asOf, policy);
        var outside = new OutsideCauses(judge.RoomNow, judge.SettingsNow);
        var findings = channels.Findings
            .Concat(model.SensorSteps.Select(s => new SensorFinding(asset.Parts[s.Part].Name, "jumped from one day to the next, alone", s.Day, 0))).ToArray();
        var cause = winnable >= policy.WorthKelvin ? worst.Split.Ranked().First().Cause
            : OutsideCause(outside, limiting.MarginKelvin, findings);
        ServiceLevel? service = winnable >= policy.WorthKelvin ? Recommendation.LevelFor(parts, policy)
            : urgency == Urgency.Soon ? due?.Level : null;
        var draft = new Assessment(asset, asOf, urgency, cause, winnable, action, service,
            service is { } level ? JudgementPolicy.Minutes(asset.Kind, level) : null, judge.Evidence, machine.Reference, parts, outside, judge.AmbientNow, [.. judge.Steps()], findings, due,
            channels.Series.Day[^1], channels.Series.Count, "", [], null);
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

    private Assessment Unknown(Asset asset, Channels channels)
    {
        var count = channels.Series.Count;
        return Reasons.Complete(new Assessment(asset, asOf, Urgency.Unknown, Cause.None, null, null, null, null, null, null, [], default, double.NaN, [],
            channels.Findings, ServiceIntervals.FirstDue(asset, zone.Dust, asOf), count > 0 ? channels.Series.Day[^1] : null, count, "", [], null), zone);
    }
}
