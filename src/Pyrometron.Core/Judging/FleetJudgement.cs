using Pyrometron.Core.Assessments;
using Pyrometron.Core.Drift;
using Pyrometron.Core.Events;
using Pyrometron.Core.Policies;

namespace Pyrometron.Core.Judging;

/// <summary>One zone's own drift over time.</summary>
public sealed record ZoneAssessment(string Zone, double NowKelvin, int Machines, IReadOnlyList<(int Bin, double Kelvin)> Bins)
{
    /// <summary>Whether its room is to be seen to before any machine.</summary>
    public bool IsWarm => Machines >= ZoneRoom.LeastMachines && NowKelvin >= OutsideCauses.NotableKelvin;
}

/// <summary>The air of a zone in five days.</summary>
/// <param name="Day">Their middle, days since 1970.</param>
/// <param name="SensorC">Median of its machines' intake sensors, °C.</param>
/// <param name="RoomKelvin">What its machines show beyond that; null with too few of them.</param>
public readonly record struct ZoneAirPoint(double Day, double SensorC, double? RoomKelvin);

/// <summary>All machines judged at once, most pressing first.</summary>
public sealed class FleetJudgement
{
    internal FleetJudgement(
        DateOnly asOf,
        JudgementPolicy policy,
        IReadOnlyList<Assessment> queue,
        IEnumerable<Assessment> alone,
        IReadOnlyDictionary<string, JudgedZone> zones,
        IReadOnlyDictionary<Siblings.Kin, Siblings.Known> siblings,
        IReadOnlyList<GroupEvent> events,
        LearntNoise noise,
        AmongOthers others
    )
    {
        (AsOf, Policy, Queue, JudgedZones, KnownSiblings, ModelEvents, Noise, AmongOthers) = (
            asOf,
            policy,
            queue,
            zones,
            siblings,
            events,
            noise,
            others
        );
        ByTag = queue.ToDictionary(a => a.Asset.Tag);
        Alone = alone.ToDictionary(a => a.Asset.Tag);
    }

    /// <summary>The day as whose end is judged.</summary>
    public DateOnly AsOf { get; }

    /// <summary>The rules that it was judged by.</summary>
    public JudgementPolicy Policy { get; }

    /// <summary>Every machine once, most pressing first.</summary>
    public IReadOnlyList<Assessment> Queue { get; }

    /// <summary>The machines' judgements by tag.</summary>
    public IReadOnlyDictionary<string, Assessment> ByTag { get; }

    /// <summary>The air of a zone through time; empty where it was never measured.</summary>
    public IReadOnlyList<ZoneAirPoint> AirOf(string zone)
    {
        if (!JudgedZones.TryGetValue(zone, out var judged) || judged.Air.Known is not var (first, last))
            return [];
        var room = judged.Room.Bins.ToDictionary(b => b.Bin, b => b.Kelvin);
        return
        [
            .. Enumerable
                .Range(Cell.BinOf(first), Cell.BinOf(last) - Cell.BinOf(first) + 1)
                .Select(bin => new ZoneAirPoint(
                    (bin + 0.5) * Cell.Days,
                    judged.Air.At((bin + 0.5) * Cell.Days),
                    room.TryGetValue(bin, out var kelvin) ? kelvin : null
                ))
                .Where(p => !double.IsNaN(p.SensorC)),
        ];
    }

    /// <summary>Each zone's own drift.</summary>
    public IEnumerable<ZoneAssessment> Zones => JudgedZones.Values.Select(z => z.Assessment);

    /// <summary>What happened to many machines at once, the newest first.</summary>
    public IReadOnlyList<GroupEvent> Events =>
        [.. ModelEvents.Concat(JudgedZones.Values.Select(z => z.Dust).OfType<GroupEvent>()).OrderByDescending(e => e.Day)];

    /// <summary>Those that are unknowns of each member's own model.</summary>
    internal IReadOnlyList<GroupEvent> ModelEvents { get; }

    /// <summary>The machines' judgements before they were held against their siblings, which are others every time.</summary>
    internal IReadOnlyDictionary<string, Assessment> Alone { get; }

    internal IReadOnlyDictionary<string, JudgedZone> JudgedZones { get; }

    internal IReadOnlyDictionary<Siblings.Kin, Siblings.Known> KnownSiblings { get; }

    internal LearntNoise Noise { get; }

    internal AmongOthers AmongOthers { get; }
}

/// <summary>What only the whole fleet shows of a machine.</summary>
internal sealed record AmongOthers(SiblingComparison Siblings, ReportingMachines Reporting, TellingRuns Runs)
{
    /// <summary>Learns it from all machines.</summary>
    public static AmongOthers Of(IReadOnlyCollection<Assessment> fleet, DateOnly asOf) =>
        new(SiblingComparison.Of(fleet), ReportingMachines.Of(fleet, asOf), TellingRuns.Of(fleet));

    /// <summary>The assessment with it.</summary>
    public Assessment Attach(Assessment a) => Runs.Attach(Reporting.Attach(Siblings.Attach(a)));
}

/// <summary>What a zone's machines had in common, kept so that one of them can be judged again by itself.</summary>
/// <param name="Rooms">The room by which its machines were fitted, turn by turn; the last one is in force.</param>
/// <param name="Dust">Dust that came over all of its machines at once; null without.</param>
internal sealed record JudgedZone(IReadOnlyList<ZoneRoom> Rooms, ZoneAir Air, ZoneAssessment Assessment, GroupEvent? Dust)
{
    /// <summary>The room in force.</summary>
    public ZoneRoom Room => Rooms[^1];
}
