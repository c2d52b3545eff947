using System.Globalization;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Readings;
using Pyrometron.Core.Simulation;
using Pyrometron.Core.Statistics;
using Pyrometron.Core.Units;

namespace Pyrometron.Bench.Scoring;

/// <summary>
/// Fleets that nobody has looked at: as many as wanted, by seed, from the project's own simulator. Models, rooms, faults and
/// what may mislead are drawn by chance; the truth is what the simulator put in. A second opinion beside the trial fleets:
/// its readings come from another simulator, with fans that follow a temperature and cleanings that leave some dust behind.
/// </summary>
internal sealed class InventedFleet
{
    private const int HistoryDays = 360;

    private static readonly DateOnly Today = new(2025, 9, 26);
    private static readonly double Now = UnixDay.Noon(Today) + 0.4;

    private readonly Random _random;
    private readonly List<(SimulatedMachine Machine, SimulatedZone Air, Zone Zone, string[] Confounds)> _machines = [];
    private readonly Register _register;
    private readonly RoughTroubles? _roughly;

    private InventedFleet(int seed, bool rough)
    {
        _random = new Random(seed);
        _register = Build();
        if (rough)
            _roughly = RoughTroubles.On(_machines.Select(m => m.Machine.Asset), Now, new Random(seed));
    }

    /// <summary>The fleet of a seed, with its readings and its truth.</summary>
    /// <param name="rough">Whether its data is poor: see <see cref="RoughTroubles"/>.</param>
    public static TrialFleet Of(int seed, bool rough = false)
    {
        var fleet = new InventedFleet(seed, rough);
        if (fleet._roughly is { } troubles)
            for (var i = 0; i < fleet._machines.Count; i++)
            {
                var m = fleet._machines[i];
                fleet._machines[i] = (troubles.In(m.Machine), m.Air, m.Zone, m.Confounds);
            }
        var readings = fleet._machines.Select(
            (m, i) =>
                (
                    m.Machine.Asset.Tag,
                    fleet.Told(
                        m.Machine.Asset,
                        Workshop.Run(
                            m.Machine,
                            m.Air,
                            Math.Max(Now - HistoryDays, UnixDay.Noon(m.Machine.Asset.InServiceSince)),
                            Now,
                            1000 * seed + i,
                            fleet.Chance(0.2) ? 0.25 : 0.04
                        )
                    )
                )
        );
        return new TrialFleet(
            fleet._register,
            readings.ToDictionary(r => r.Tag, r => r.Item2),
            Today,
            fleet
                ._machines.Select(m => InventedTruth.Of(m.Machine, m.Zone, Now, fleet.ConfoundsOf(m.Machine.Asset, m.Confounds)))
                .ToDictionary(t => t.Asset)
        );
    }

    private List<Reading> Told(Asset asset, List<Reading> readings) => _roughly?.Told(asset, readings) ?? readings;

    private string[] ConfoundsOf(Asset asset, string[] confounds) => [.. confounds, .. _roughly?.ConfoundsOf(asset) ?? []];

    private Register Build()
    {
        var sites = new[]
        {
            new Site("HIGH", "Upper works", _random.Next(0, 1200), [.. Zones("H", 3), .. Zones("S", 2)]),
            new Site("LOW", "Lower works", _random.Next(0, 300), [.. Zones("F", 3)]),
        };
        foreach (var zone in sites.SelectMany(s => s.Zones))
        {
            var (air, misleading) = AirOf(zone);
            foreach (
                var kind in zone.Code[0] switch
                {
                    'H' => [AssetKind.GraphicsCard],
                    'S' => [AssetKind.Server],
                    _ => new[] { AssetKind.Laptop, AssetKind.Desktop },
                }
            )
            {
                InventedModel[] models =
                [
                    .. Enumerable
                        .Range(1, 2)
                        .Select(n =>
                            InventedModel.Draw(_random, kind, $"{zone.Code} {Words.Of(kind)} {n}", zone.DesignAmbient.Value)
                        ),
                ];
                for (
                    var i = 0;
                    i
                        < (
                            kind is AssetKind.GraphicsCard ? 20
                            : kind is AssetKind.Server ? 15
                            : 12
                        );
                    i++
                )
                    _machines.Add(MachineOf(models[_random.Next(models.Length)], zone, air, misleading));
            }
        }
        return new Register(sites, [.. _machines.Select(m => m.Machine.Asset)]);
    }

    private IEnumerable<Zone> Zones(string letter, int count) =>
        Enumerable
            .Range(1, count)
            .Select(n => new Zone(
                letter + n.ToString(CultureInfo.InvariantCulture),
                $"Zone {letter}{n.ToString(CultureInfo.InvariantCulture)}",
                (DustClass)_random.Next(3),
                new(_random.Next(26, 34))
            ));

    private (SimulatedZone Air, string[] Confounds) AirOf(Zone zone)
    {
        var (events, confounds) = (new List<RoomEvent>(), new List<string>());
        if (Chance(0.35))
        {
            var (from, seen) = (Now - _random.Between(15, 200), Chance(0.5));
            events.Add(
                new RoomEvent(
                    from,
                    Chance(0.6) ? double.PositiveInfinity : from + _random.Between(10, 50),
                    _random.Between(3, 7),
                    seen
                )
            );
            confounds.Add(seen ? "air-con-seen" : "air-con-unseen");
        }
        var seasonSeen = Chance(0.6);
        if (!seasonSeen)
            confounds.Add("season-unseen");
        return (
            new SimulatedZone(
                zone.Code,
                zone.DesignAmbient.Value - _random.Between(4, 8),
                _random.Between(0.5, zone.Code[0] == 'F' ? 5 : 3),
                events
            )
            {
                SeasonSeen = seasonSeen,
            },
            [.. confounds]
        );
    }

    private (SimulatedMachine, SimulatedZone, Zone, string[]) MachineOf(
        InventedModel model,
        Zone zone,
        SimulatedZone air,
        string[] misleading
    )
    {
        var confounds = misleading.ToList();
        var weekly = model.Kind is AssetKind.Laptop or AssetKind.Desktop;
        double Alike() => 1 + 0.04 * _random.Normal();
        var joints = model.Parts.Select(p => p.Rise * Alike()).ToArray();
        var since = Today.AddDays(-_random.Next(330, 1300));
        var services = new List<ServiceDone>();
        if (Chance(0.6))
            services.Add(
                new ServiceDone(
                    Today.AddDays(-_random.Next(HistoryDays, HistoryDays + 400)),
                    Chance(0.7) ? ServiceLevel.DustOut : ServiceLevel.Repaste
                )
            );
        var pads = model.Parts.Any(p => p.Joint == JointMaterial.Pad) && model.Kind == AssetKind.GraphicsCard;
        var faults = Faults(model, zone, pads);
        if (Chance(0.28))
        {
            var level =
                Chance(0.6) ? ServiceLevel.DustOut
                : pads && Chance(0.5) ? ServiceLevel.Repad
                : ServiceLevel.Repaste;
            var on = _random.Next(40, 280);
            services.Add(new ServiceDone(Today.AddDays(-on), level));
            if (ServiceEffects.LiftsCooler(level) && Chance(0.5))
                faults.Add(
                    new Fault(
                        Cause.Mount,
                        UnixDay.Noon(Today.AddDays(-on)) + 0.01,
                        0,
                        _random.Between(2, 9),
                        model.Kind is AssetKind.GraphicsCard ? "core" : "cpu",
                        GrowthShape.Step
                    )
                );
            confounds.Add("mid-history-service");
        }
        (double, double)? settings = null;
        if (Chance(0.25))
        {
            settings = (Now - _random.Between(30, 250), Chance(0.7) ? _random.Between(1.06, 1.2) : _random.Between(0.82, 0.95));
            confounds.Add("settings-change");
        }
        if (model.CoolerTooSmall)
            confounds.Add("cooler-limited");
        SensorFault? sensor = null;
        if (Chance(0.08))
        {
            sensor = new SensorFault(
                model.Parts[_random.Next(model.Parts.Length)].Name,
                Now - _random.Between(20, 250),
                Chance(0.5) ? null : _random.Between(5, 10) * (Chance(0.5) ? 1 : -1)
            );
            confounds.Add("sensor");
        }
        var loads =
            weekly ? [new SimulatedLoad("all", 1, 0.65), new SimulatedLoad("one", 0.6, 0.35, "gpu")]
            : Chance(0.3) ? new[] { new SimulatedLoad("a", 1, 1) }
            : [new SimulatedLoad("a", 1, 0.72), new SimulatedLoad("b", 0.86, 0.22), new SimulatedLoad("rest", 0.15, 0.06)];
        var asset = new Asset(
            $"{zone.Code}-{_machines.Count:000}",
            model.Kind,
            model.Name,
            zone.Code,
            null,
            weekly ? 9 : 24,
            since,
            null,
            [.. model.Parts.Select(p => new Part(p.Name, new Celsius(p.LimitC), p.Joint))],
            [.. services.Where(s => s.Date > since).OrderBy(s => s.Date)]
        );
        var instruments = weekly
            ? new Instruments(6.5, Ambient: Chance(0.75), Power: false, Fan: Chance(0.6))
            : new Instruments(0.25);
        return (
            new SimulatedMachine(
                asset,
                model.PowerW * Alike(),
                model.AirRise * Alike(),
                joints,
                model.MaxRpm,
                model.Fan,
                loads,
                instruments,
                faults,
                settings,
                sensor
            )
            {
                AirShare = model.Kind is AssetKind.Server ? [1, model.MemoryShare] : null,
                DustLeftBehind = _random.Between(0, 0.3),
                Scatter = weekly ? new Scatter(1.8, 0.7) : new Scatter(1, 0.9),
            },
            air,
            zone,
            [.. confounds]
        );
    }

    /// <summary>A little of everything for everybody; for about one in three something that matters, begun at any time.</summary>
    private List<Fault> Faults(InventedModel model, Zone zone, bool pads)
    {
        var joint = model.Kind is AssetKind.GraphicsCard ? "core" : "cpu";
        var hot = model.Kind is AssetKind.GraphicsCard ? 0.45 : 1;
        Fault Growing(Cause cause, double kelvin, string? part, double began) =>
            new(
                cause,
                Now - began,
                Now + _random.Between(-20, 60),
                kelvin,
                part,
                Chance(0.4) ? GrowthShape.Steady : GrowthShape.LateFast
            );
        var faults = new List<Fault>
        {
            new(Cause.Dust, Now - 700, Now + 300, _random.Between(0.3, 2.5) * (1 + (int)zone.Dust) / 2),
            new(Cause.Paste, Now - 900, Now + 300, _random.Between(0, 1.2) * hot, joint),
        };
        if (pads)
            faults.Add(new Fault(Cause.Pads, Now - 900, Now + 300, _random.Between(0, 1.5), "memory"));
        for (var i = 0; i < 2; i++)
            if (Chance(0.22))
            {
                var (kelvin, began) = (_random.Between(3, 15), _random.Between(70, 420));
                faults.Add(
                    _random.Next(pads ? 4 : 3) switch
                    {
                        0 => Growing(Cause.Dust, kelvin, null, began),
                        1 => Growing(Cause.Paste, kelvin * hot, joint, began),
                        2 => Growing(Cause.Fan, 0.8 * kelvin, null, began),
                        _ => Growing(Cause.Pads, kelvin, "memory", began),
                    }
                );
            }
        return faults;
    }

    private bool Chance(double share) => _random.Chance(share);
}
