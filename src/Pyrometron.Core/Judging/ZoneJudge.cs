using System.Collections.Concurrent;
using Pyrometron.Core.Drift;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.GroupEvents;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Readings;

namespace Pyrometron.Core.Judging;

/// <summary>
/// Judges the machines of one zone together, since they share their air: first each by itself, then, with what siblings elsewhere
/// have shown, to the end.
/// </summary>
internal sealed class ZoneJudge(JudgementBasis basis, HouseRules rules, Site site, Zone zone, Asset[] assets)
{
    /// <summary>Turns of machines and room, before and after sibling priors are applied.</summary>
    private const int FirstTurns = 2,
        LastTurns = 1;

    /// <summary>The air of a zone is known from this many intakes; more would only have to be kept in memory.</summary>
    private const int AirSample = 64;

    private readonly ParallelOptions _parallel = new() { MaxDegreeOfParallelism = basis.Threads };
    private readonly List<ZoneRoom> _rooms = [];
    private MachineFacts[] _machines = [];
    private GroupEvent? _dust;

    /// <summary>The zone's code.</summary>
    public string Code => zone.Code;

    /// <summary>The machines that stand in it.</summary>
    public Asset[] Assets => assets;

    /// <summary>What the zone's room adds, as far as it is known.</summary>
    private ZoneRoom Room => _rooms.Count > 0 ? _rooms[^1] : ZoneRoom.None;

    /// <summary>The zone's measured intake air.</summary>
    private ZoneAir Air { get; set; } = ZoneAir.Of([]);

    /// <summary>The machines with a model, once prepared.</summary>
    public IEnumerable<(Siblings.Kin Kin, WearModel Model, double Altitude)> Models =>
        _machines
            .Where(m => m.Model is not null)
            .Select(m => (Siblings.Kin.Of(m.Asset, m.Model!), m.Model!, site.AltitudeMetres));

    /// <summary>The fitted machines and the room they stand in.</summary>
    public IEnumerable<(WearModel Model, ZoneRoom Room)> Fitted => Models.Select(m => (m.Model, Room));

    /// <summary>Cleans and condenses the readings.</summary>
    public void Prepare(CancellationToken cancellation)
    {
        Channels Read(Asset asset)
        {
            cancellation.ThrowIfCancellationRequested();
            return Clean(asset, basis.Readings(asset));
        }

        var sample = new Channels?[assets.Length];
        var step = Math.Max(1, assets.Length / AirSample);
        Parallel.For(
            0,
            (assets.Length + step - 1) / step,
            _parallel,
            i => Guard(assets[i * step], () => sample[i * step] = Read(assets[i * step]))
        );
        Air = ZoneAir.Of(sample.Where(c => c is not null)!);
        _machines = new MachineFacts[assets.Length];
        Parallel.For(
            0,
            assets.Length,
            _parallel,
            i =>
            {
                _machines[i] = MachineFacts.Failing(assets[i], basis.AsOf);
                Guard(assets[i], () => _machines[i] = FactsOf(assets[i], sample[i] ?? Read(assets[i]), Air));
                sample[i] = null;
            }
        );
    }

    /// <summary>Fits every machine for a first time.</summary>
    /// <param name="events">What happened to many machines at once.</param>
    public void FitFirst(IReadOnlyList<GroupEvent> events, CancellationToken cancellation)
    {
        foreach (var (_, model, _) in Models)
            Expect(model, events);
        Fit(FirstTurns, cancellation);
    }

    private static void Expect(WearModel model, IReadOnlyList<GroupEvent> events)
    {
        GroupEvent[] own = [.. events.Where(e => e.Concerns(model.Asset))];
        if (own.Length > 0)
            model.Expect(own);
    }

    /// <summary>Fits to the end and judges.</summary>
    public IReadOnlyList<Assessment> Settle(
        IReadOnlyDictionary<Siblings.Kin, Siblings.Known> siblings,
        LearntNoise noise,
        CancellationToken cancellation
    )
    {
        foreach (var (kin, model, altitude) in Models)
        {
            model.ScatterFactor = noise.For(model, Room);
            Siblings.ApplyPriors(siblings, kin, model, altitude);
        }
        Fit(LastTurns, cancellation);
        _dust = basis.Without.HasFlag(Ablation.GroupEvents) ? null : ZoneDust.Find(zone.Code, Models.Select(m => m.Model));
        var judged = new Assessment[_machines.Length];
        Each(
            _machines,
            (machine, i, equations) =>
            {
                cancellation.ThrowIfCancellationRequested();
                judged[i] = Judge(machine, equations, Room);
                _machines[i] = machine with { Model = null };
            }
        );
        return judged;
    }

    /// <summary>
    /// Judges one machine in a zone that was judged before, by the same turns in the same rooms: a machine of which nothing has
    /// changed gets the same judgement. O(its readings).
    /// </summary>
    public Assessment JudgeOne(
        Asset asset,
        JudgedZone before,
        IReadOnlyDictionary<Siblings.Kin, Siblings.Known> siblings,
        IReadOnlyList<GroupEvent> events,
        LearntNoise noise,
        bool withHistory
    )
    {
        var machine = MachineFacts.Failing(asset, basis.AsOf);
        var equations = new WearEquations();
        Guard(
            asset,
            () =>
            {
                var known = FactsOf(asset, Clean(asset, basis.Readings(asset)), before.Air);
                if (known.Model is { } model)
                {
                    Expect(model, events);
                    FitAgain(model, equations, before, siblings, noise);
                }
                machine = known;
            }
        );
        return Judge(machine, equations, before.Room, withHistory);
    }

    private void FitAgain(
        WearModel model,
        WearEquations equations,
        JudgedZone before,
        IReadOnlyDictionary<Siblings.Kin, Siblings.Known> siblings,
        LearntNoise noise
    )
    {
        for (var turn = 1; turn < FirstTurns + LastTurns; turn++)
        {
            if (turn == FirstTurns)
            {
                model.ScatterFactor = noise.For(model, before.Rooms[FirstTurns - 1]);
                Siblings.ApplyPriors(siblings, Siblings.Kin.Of(model.Asset, model), model, site.AltitudeMetres);
            }
            var room = before.Rooms[Math.Min(turn - 1, before.Rooms.Count - 1)];
            model.Fit(equations, room, room.LastBin);
            model.Reweigh(equations, room);
        }
    }

    /// <summary>
    /// Works on one machine. What fails there, whatever it is, is told and is that machine's alone: its row says so, and all
    /// others are judged.
    /// </summary>
    /// <returns>Whether it went well.</returns>
    private bool Guard(Asset asset, Action work)
    {
        try
        {
            work();
            return true;
        }
        catch (Exception error) when (error is not OperationCanceledException)
        {
            basis.Failed?.Invoke(asset, error);
            return false;
        }
    }

    private MachineFacts FactsOf(Asset asset, Channels channels, ZoneAir air)
    {
        var history = basis.History(asset);
        var day = basis.AsOf;
        if (basis.LaterWorkCounts)
            foreach (
                var later in asset
                    .Services.Select(s => s.Date)
                    .Concat(history.Runs.Select(r => DateOnly.FromDateTime(r.At.UtcDateTime)))
            )
                day = later > day ? later : day;
        var known = asset.Services.All(s => s.Date <= day)
            ? asset
            : asset with
            {
                Services = [.. asset.Services.Where(s => s.Date <= day)],
            };
        return MachineFacts.Of(known, day, channels, history.Until(day), air, basis.Without);
    }

    private static Channels Clean(Asset asset, ReadingSeries series) =>
        Channels.Clean(asset, series.Count == 0 ? series : series.Since(series.Day[^1] - MachineFacts.HistoryDays));

    private Assessment Judge(MachineFacts machine, WearEquations equations, ZoneRoom room, bool withHistory = false)
    {
        Assessment? judged = null;
        void Examine()
        {
            var findings = new MachineFindings(machine, site, zone) { Sensors = machine.Findings, Operating = machine.Operating };
            if (machine.Model is { } model)
            {
                model.Fit(equations, room);
                model.KeepUncertainty(equations);
                var scatter = withHistory ? model.Bootstrap(equations, room) : null;
                findings = new MachineExaminer(findings, model, room, basis.Policy.Proven).Examine(scatter);
            }
            judged = MachineRuling.Of(findings, rules);
        }
        return Guard(machine.Asset, Examine)
            ? judged!
            : MachineRuling.Of(new(MachineFacts.Failing(machine.Asset, machine.AsOf), site, zone), rules);
    }

    /// <summary>
    /// Machines and room in turn. The room is solved for exactly, with every machine's answer to it reckoned in, so that a few
    /// turns are enough; it comes first, since what all machines do alike is one cause before it is twenty.
    /// </summary>
    private void Fit(int turns, CancellationToken cancellation)
    {
        int[] fitted = [.. Enumerable.Range(0, _machines.Length).Where(i => _machines[i].Model is not null)];
        WearModel[] models = [.. fitted.Select(i => _machines[i].Model!)];
        var bins = models.Length < ZoneRoom.LeastMachines || basis.Without.HasFlag(Ablation.Room) ? [] : ZoneRoom.Known(models);
        // A machine that alone reports of late cannot be told from its room there, and must not bend the room of the time before.
        var until = bins.Length > 0 ? bins[^1] : int.MaxValue;
        for (var turn = 0; turn < turns; turn++)
        {
            var parts = new ConcurrentDictionary<int, RoomEquations>();
            var first = _rooms.Count == 0;
            var room = Room;
            void Turn(WearModel model, int i, WearEquations equations)
            {
                if (first)
                    model.Assemble(equations, unworn: true, until);
                else
                    model.Fit(equations, room, until);
                if (bins.Length > 0)
                    model.AddToRoomEquations(equations, parts.GetOrAdd(i / ChunkOf(models.Length), _ => new RoomEquations(bins)));
                if (!first)
                    model.Reweigh(equations, room);
            }
            Each(
                models,
                (model, i, equations) =>
                {
                    cancellation.ThrowIfCancellationRequested();
                    var machine = _machines[fitted[i]];
                    if (!machine.Failed && !Guard(machine.Asset, () => Turn(model, i, equations)))
                        _machines[fitted[i]] = MachineFacts.Failing(machine.Asset, machine.AsOf);
                }
            );
            if (bins.Length == 0)
            {
                _rooms.Add(room);
                continue;
            }
            // Summed in a fixed order, so that the same readings always give the same answer.
            var zoneEquations = new RoomEquations(bins);
            foreach (var part in parts.OrderBy(p => p.Key))
                zoneEquations.Add(part.Value);
            _rooms.Add(ZoneRoom.Of(zoneEquations));
        }
    }

    /// <summary>Machines worked on by one thread at a time, with one scratch: enough to spread, few enough to sum up.</summary>
    private static int ChunkOf(int machines) => Math.Max(8, machines / 16);

    private void Each<T>(T[] items, Action<T, int, WearEquations> work)
    {
        var size = ChunkOf(items.Length);
        Parallel.For(
            0,
            (items.Length + size - 1) / size,
            _parallel,
            () => new WearEquations(),
            (chunk, _, equations) =>
            {
                for (var i = chunk * size; i < Math.Min(items.Length, (chunk + 1) * size); i++)
                    work(items[i], i, equations);
                return equations;
            },
            _ => { }
        );
    }

    /// <summary>What the zone's machines have in common.</summary>
    public JudgedZone Assess()
    {
        var now = Room.Bins.TakeLast(3).Select(b => b.Kelvin).DefaultIfEmpty(0).Average();
        return new JudgedZone(
            [.. _rooms],
            Air,
            new ZoneAssessment(zone.Code, now, _machines.Count(m => m.NewestDay is not null), [.. Room.Bins]),
            _dust
        );
    }
}
