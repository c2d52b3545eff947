using Pyrometron.Core.Assessments;
using Pyrometron.Core.Cooling;
using Pyrometron.Core.Drift;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Judging;

/// <summary>
/// Compares machines of one model: each brought to the model's usual heat and fan speed, and held against the others' median
/// by a robust z-score (Iglewicz &amp; Hoaglin 1993). It needs no history: a machine that came to the house with hard pads
/// shows here first.
/// </summary>
internal sealed class SiblingComparison
{
    /// <summary>Others that there must be.</summary>
    private const int LeastPeers = 4;

    /// <summary>Machines of one model differ by as much as a rule, K: a tighter group is chance.</summary>
    private const double LeastSpread = 1;

    private readonly Dictionary<Siblings.Kin, Group> _groups;

    /// <summary>How the rises of a part lie over the machines of a group.</summary>
    private readonly record struct Usual(int Machines, double MedianKelvin, double ScaleKelvin);

    /// <param name="Rises">By part: all machines' rises at the group's heat and fan.</param>
    private sealed record Group(double PowerW, double FanSpeed, Dictionary<string, Usual> Rises);

    private SiblingComparison(Dictionary<Siblings.Kin, Group> groups) => _groups = groups;

    /// <summary>Learns what is usual from a whole fleet.</summary>
    public static SiblingComparison Of(IEnumerable<Assessment> fleet)
    {
        var groups = new Dictionary<Siblings.Kin, Group>();
        foreach (var alike in fleet.Where(a => a.Operating is not null).GroupBy(a => KinOf(a)))
        {
            var machines = alike.ToArray();
            if (machines.Length <= LeastPeers)
                continue;
            var power = Robust.Median(machines.Select(m => m.Operating!.PowerW).ToArray());
            var fan = Robust.Median(machines.Select(m => m.Operating!.FanSpeed).Where(f => f > 0).ToArray());
            groups[alike.Key] = new Group(
                power,
                fan,
                machines
                    .SelectMany(m => RisesAt(m, power, fan))
                    .Where(r => !double.IsNaN(r.Kelvin))
                    .GroupBy(r => r.Part)
                    .ToDictionary(g => g.Key, g => UsualOf([.. g.Select(r => r.Kelvin)]))
            );
        }
        return new SiblingComparison(groups);
    }

    /// <summary>
    /// The assessment with the part that stands furthest from its siblings, and a sentence where it stands out.
    /// </summary>
    public Assessment Attach(Assessment a)
    {
        if (a.Operating is null || !_groups.TryGetValue(KinOf(a), out var group))
            return a;
        AmongSiblings? furthest = null;
        foreach (var (part, kelvin) in RisesAt(a, group.PowerW, group.FanSpeed))
        {
            if (double.IsNaN(kelvin) || !group.Rises.TryGetValue(part, out var usual) || usual.Machines <= LeastPeers)
                continue;
            var above = kelvin - usual.MedianKelvin;
            var z = above / Math.Max(LeastSpread, usual.ScaleKelvin);
            if (furthest is not { } known || Math.Abs(z) > Math.Abs(known.Z))
                furthest = new AmongSiblings(part, usual.Machines - 1, above, z);
        }
        return furthest is { } found ? Reasons.WithSiblings(a with { Siblings = found }) : a;
    }

    private static Usual UsualOf(double[] rises) => new(rises.Length, Robust.Median(rises), Robust.MadScale(rises));

    private static Siblings.Kin KinOf(Assessment a) =>
        new(a.Asset.Kind, a.Asset.Build, a.Operating!.HasPower, a.Operating.SpeedIsRpm);

    private static IEnumerable<(string Part, double Kelvin)> RisesAt(Assessment a, double power, double fan)
    {
        var own = a.Operating!;
        var heat = own.HasPower && own.PowerW > 0 ? power / own.PowerW : 1;
        var flow = own.FanSpeed > 0 && fan > 0 ? FanLaw.RelativeResistance(fan, own.FanSpeed) : 1;
        return own.Rise.Select(
            (rise, p) => (a.Asset.Parts[p].Name, heat * rise * (1 - own.AirShare[p] + own.AirShare[p] * flow))
        );
    }

    /// <summary>Where a machine that cannot be judged by itself stands, as it was measured last.</summary>
    public static OperatingRise? Raw(Asset asset, Latest latest, ReferencePoint reference) =>
        double.IsNaN(latest.AirC)
            ? null
            : new OperatingRise(
                reference.PowerW,
                reference.HasPower,
                reference.FanSpeed,
                reference.SpeedIsRpm,
                [.. latest.PartsC.Select((c, p) => c - latest.AirsC[p])],
                [.. asset.Parts.Select(_ => AirSide.ShareOfRise)]
            );
}
