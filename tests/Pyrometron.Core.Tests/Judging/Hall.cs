using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Readings;
using Pyrometron.Core.Simulation;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Tests.Judging;

/// <summary>A simulated hall of cards whose truth is known: what the judgement must find.</summary>
internal sealed class Hall
{
    public static readonly DateOnly Today = new(2026, 3, 1);

    public static readonly double Now = UnixDay.Noon(Today) + 0.5;

    /// <summary>A service of today, filed after the newest reading.</summary>
    public static ServiceDone ThisEvening(ServiceLevel level) =>
        new(Today, level) { At = new DateTimeOffset(Today.ToDateTime(new TimeOnly(23, 30)), TimeSpan.Zero) };

    private static readonly SimulatedLoad[] Loads = [new("steady", 1, 0.8), new("light", 0.85, 0.17), new("idle", 0.15, 0.03)];

    private readonly List<SimulatedMachine> _machines = [];

    /// <summary>What happens to the room.</summary>
    public List<RoomEvent> Room { get; } = [];

    /// <summary>What a machine's instruments make of its readings, by tag.</summary>
    public Dictionary<string, Func<Reading, Reading>> Distorted { get; } = [];

    /// <summary>Runs at the bench, by tag.</summary>
    public Dictionary<string, MeasuredRun[]> Runs { get; } = [];

    /// <summary>What people saw, by tag.</summary>
    public Dictionary<string, Look[]> Looks { get; } = [];

    /// <summary>Adds a number of healthy cards.</summary>
    public Hall WithHealthy(int count)
    {
        for (var i = 0; i < count; i++)
            With($"OK-{i + 1:00}", []);
        return this;
    }

    /// <summary>Adds a card with faults, services and, if given, other instruments.</summary>
    public Hall With(
        string tag,
        Fault[] faults,
        ServiceDone[]? services = null,
        Func<SimulatedMachine, SimulatedMachine>? change = null
    )
    {
        var asset = new Asset(
            tag,
            AssetKind.GraphicsCard,
            "Sorrel",
            "ROW",
            null,
            24,
            Today.AddDays(-400),
            null,
            [
                new("core", new(90), JointMaterial.Paste),
                new("hotspot", new(105), JointMaterial.Paste),
                new("memory", new(105), JointMaterial.Pad),
            ],
            services ?? []
        );
        var machine = new SimulatedMachine(
            asset,
            228,
            27,
            [13, 25, 24],
            3200,
            new FanControl.Fixed(60),
            Loads,
            new Instruments(1 / 3.0),
            faults
        );
        _machines.Add(change?.Invoke(machine) ?? machine);
        return this;
    }

    /// <summary>Lets the hall run for a year and judges it.</summary>
    public FleetJudgement Judge(DustClass dust = DustClass.Normal, JudgementPolicy? policy = null) =>
        JudgeOf(dust, policy).JudgeAll();

    /// <summary>The judgement of one machine with its past, as its page shows it.</summary>
    public Assessment JudgeOne(string tag)
    {
        var judge = JudgeOf();
        return judge.JudgeOne(judge.JudgeAll(), _machines.Single(m => m.Asset.Tag == tag).Asset)!;
    }

    public FleetJudge JudgeOf(
        DustClass dust = DustClass.Normal,
        JudgementPolicy? policy = null,
        IReadOnlyList<LocalRule>? local = null,
        DateOnly? asOf = null
    )
    {
        var zone = new SimulatedZone("ROW", 26, 4, Room);
        var readings = _machines
            .Select(
                (m, i) =>
                    (
                        m.Asset.Tag,
                        Series: ReadingSeries.From(
                            [
                                .. Workshop
                                    .Run(m, zone, Now - 365, Now, 100 + i)
                                    .Select(Distorted.GetValueOrDefault(m.Asset.Tag, r => r)),
                            ],
                            3
                        )
                    )
            )
            .ToDictionary(r => r.Tag, r => r.Series);
        return new FleetJudge(
            new JudgementBasis(
                Register(dust, [.. _machines.Select(m => m.Asset)]),
                asOf ?? Today,
                policy ?? JudgementPolicy.Default,
                a =>
                    Unreadable.Contains(a.Tag) ? throw new InvalidDataException("damaged")
                    : asOf is { } day ? readings[a.Tag].Before(UnixDay.Noon(day) + 0.5)
                    : readings[a.Tag]
            )
            {
                Local = local ?? [],
                History = a =>
                    MachineHistory.Empty with
                    {
                        Runs = Runs.GetValueOrDefault(a.Tag, []),
                        Looks = Looks.GetValueOrDefault(a.Tag, []),
                    },
                Threads = Threads,
                Failed = (asset, _) => Failed.Add(asset.Tag),
            }
        );
    }

    /// <summary>Machines whose readings cannot be read.</summary>
    public HashSet<string> Unreadable { get; } = [];

    /// <summary>Machines on whose data the calculation failed.</summary>
    public System.Collections.Concurrent.ConcurrentBag<string> Failed { get; } = [];

    /// <summary>Threads that judge it.</summary>
    public int Threads { get; init; } = Environment.ProcessorCount;

    public static Register Register(DustClass dust, params Asset[] assets) =>
        new([new Site("S", "Site", 10, [new Zone("ROW", "Row", dust, new(33))])], assets);

    /// <summary>Judges readings of one machine made by hand.</summary>
    public static Assessment JudgeAlone(Asset asset, params Reading[] readings) => JudgeReported(asset, readings);

    /// <summary>The same with what people reported of it.</summary>
    public static Assessment JudgeReported(Asset asset, Reading[] readings, params Symptom[] symptoms) =>
        new FleetJudge(
            new JudgementBasis(
                Register(DustClass.Normal, asset),
                Today,
                JudgementPolicy.Default,
                _ => ReadingSeries.From(readings, asset.Parts.Count)
            )
            {
                History = _ => MachineHistory.Empty with { Symptoms = symptoms },
                Threads = Environment.ProcessorCount,
            }
        )
            .JudgeAll()
            .Queue.Single();

    public static Fault Grown(Cause cause, double kelvin, string? part = null, double days = 250) =>
        new(cause, Now - days, Now, kelvin, part);
}
