using System.Collections.Concurrent;
using Pyrometron.Core.Drift;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Readings;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Judging;

/// <summary>Judges the machines of one zone together, since they share their air: first each by itself, then, with what siblings elsewhere have shown, to the end.</summary>
internal sealed class ZoneJudge(
    Site site,
    Zone zone,
    Asset[] assets,
    DateOnly asOf,
    JudgementPolicy policy,
    Ablation without = Ablation.None
)
{
    /// <summary>Turns of machines and room, before and after siblings are heard.</summary>
    private const int FirstTurns = 2,
        LastTurns = 1;

    /// <summary>The air of a zone is known from this many intakes; more would only have to be kept in memory.</summary>
    private const int AirSample = 64;

    private readonly ParallelOptions _parallel = new() { MaxDegreeOfParallelism = Environment.ProcessorCount };
    private MachineFacts[] _machines = [];

    /// <summary>The zone's code.</summary>
    public string Code => zone.Code;

    /// <summary>The machines that stand in it.</summary>
    public Asset[] Assets => assets;

    /// <summary>What the zone's room adds.</summary>
    public ZoneRoom Room { get; private set; } = ZoneRoom.None;

    /// <summary>The zone's measured intake air.</summary>
    public ZoneAir Air { get; private set; } = ZoneAir.Of([]);

    /// <summary>The machines with a model, once prepared.</summary>
    public IEnumerable<(Siblings.Kin Kin, WearModel Model, double Altitude)> Models =>
        _machines
            .Where(m => m.Model is not null)
            .Select(m => (Siblings.Kin.Of(m.Asset, m.Model!.Reference), m.Model!, site.AltitudeMetres));

    /// <summary>Cleans and condenses the readings, and fits every machine for a first time.</summary>
    public void Prepare(
        Func<Asset, ReadingSeries> readings,
        Func<Asset, IReadOnlyList<Symptom>> symptoms,
        CancellationToken cancellation
    )
    {
        Channels Read(Asset asset)
        {
            cancellation.ThrowIfCancellationRequested();
            return Clean(asset, readings(asset));
        }

        var sample = new Channels?[assets.Length];
        var step = Math.Max(1, assets.Length / AirSample);
        Parallel.For(0, (assets.Length + step - 1) / step, _parallel, i => sample[i * step] = Read(assets[i * step]));
        Air = ZoneAir.Of(sample.Where(c => c is not null)!);
        _machines = new MachineFacts[assets.Length];
        Parallel.For(
            0,
            assets.Length,
            _parallel,
            i =>
            {
                _machines[i] = MachineFacts.Of(
                    assets[i],
                    sample[i] ?? Read(assets[i]),
                    symptoms(assets[i]),
                    Air,
                    UnixDay.Noon(asOf),
                    without
                );
                sample[i] = null;
            }
        );
        Fit(FirstTurns, cancellation);
    }

    /// <summary>Fits to the end and judges.</summary>
    public IReadOnlyList<Assessment> Settle(
        IReadOnlyDictionary<Siblings.Kin, Siblings.Known> siblings,
        CancellationToken cancellation
    )
    {
        foreach (var (kin, model, altitude) in Models)
            Siblings.Teach(siblings, kin, model, altitude);
        Fit(LastTurns, cancellation);
        var judged = new Assessment[_machines.Length];
        Each(
            _machines,
            (machine, i, equations) =>
            {
                cancellation.ThrowIfCancellationRequested();
                judged[i] = Judge(machine, equations, Room, withHistory: false);
                _machines[i] = machine with { Model = null };
            }
        );
        return judged;
    }

    /// <summary>Judges one machine in a zone that was judged before. O(its readings).</summary>
    public Assessment JudgeOne(
        Asset asset,
        ReadingSeries readings,
        IReadOnlyList<Symptom> symptoms,
        JudgedZone before,
        IReadOnlyDictionary<Siblings.Kin, Siblings.Known> siblings,
        bool withHistory
    )
    {
        var machine = MachineFacts.Of(asset, Clean(asset, readings), symptoms, before.Air, UnixDay.Noon(asOf), without);
        var equations = new WearEquations();
        if (machine.Model is { } model)
        {
            Siblings.Teach(siblings, Siblings.Kin.Of(asset, model.Reference), model, site.AltitudeMetres);
            for (var turn = 0; turn < LastTurns; turn++)
            {
                model.Fit(equations, before.Room);
                model.Reweigh(equations, before.Room);
            }
        }
        return Judge(machine, equations, before.Room, withHistory);
    }

    private static Channels Clean(Asset asset, ReadingSeries series) =>
        Channels.Clean(asset, series.Count == 0 ? series : series.Since(series.Day[^1] - MachineFacts.HistoryDays));

    private Assessment Judge(MachineFacts machine, WearEquations equations, ZoneRoom room, bool withHistory)
    {
        if (machine.Model is not { } model)
            return MachineJudge.Unknown(machine, zone, asOf, policy);
        model.Fit(equations, room);
        model.KeepUncertainty(equations);
        return new MachineJudge(machine, model, zone, room, asOf, policy).Assess(
            withHistory ? model.Bootstrap(equations, room) : null
        );
    }

    /// <summary>
    /// Machines and room in turn. The room is solved for exactly, with every machine's answer to it reckoned in, so that a few
    /// turns are enough; it comes first, since what all machines do alike is one cause before it is twenty.
    /// </summary>
    private void Fit(int turns, CancellationToken cancellation)
    {
        var models = _machines.Where(m => m.Model is not null).Select(m => m.Model!).ToArray();
        var bins = models.Length < ZoneRoom.LeastMachines || without.HasFlag(Ablation.Room) ? [] : ZoneRoom.Known(models);
        for (var turn = 0; turn < turns; turn++)
        {
            var parts = new ConcurrentDictionary<int, RoomEquations>();
            var first = turn == 0 && Room == ZoneRoom.None;
            Each(
                models,
                (model, i, equations) =>
                {
                    cancellation.ThrowIfCancellationRequested();
                    if (first)
                        model.Assemble(equations, unworn: true);
                    else
                        model.Fit(equations, Room);
                    if (bins.Length > 0)
                        model.TellRoom(equations, parts.GetOrAdd(i / ChunkOf(models.Length), _ => new RoomEquations(bins)));
                    if (!first)
                        model.Reweigh(equations, Room);
                }
            );
            if (bins.Length == 0)
                continue;
            // Summed in a fixed order, so that the same readings always give the same answer.
            var zoneEquations = new RoomEquations(bins);
            foreach (var part in parts.OrderBy(p => p.Key))
                zoneEquations.Add(part.Value);
            Room = ZoneRoom.Of(zoneEquations);
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
            Room,
            Air,
            new ZoneAssessment(zone.Code, now, _machines.Count(m => m.NewestDay is not null), [.. Room.Bins])
        );
    }
}
