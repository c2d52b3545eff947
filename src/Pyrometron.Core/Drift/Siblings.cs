using Pyrometron.Core.Cooling;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Drift;

/// <summary>
/// Partial pooling over machines of one model: the same cooler has the same convective resistance, so the air side of a
/// machine whose fan never moves, or that has hardly been read, is known from its siblings. Brought from one machine to
/// another by heat, fan speed and the thinness of the air: F = c·P·n^(−m)·altitude.
/// </summary>
internal static class Siblings
{
    /// <summary>
    /// Siblings that must know their air side before others borrow it, and that must have a joint before it is held against
    /// theirs.
    /// </summary>
    private const int LeastForAir = 3,
        LeastForJoints = 5;

    /// <summary>How much two coolers of one model differ at the least.</summary>
    private const double UnitSpread = 0.12;

    /// <summary>How much two joints of one model differ at the least, as a share of the joint's rise, and in K.</summary>
    private const double JointSpread = 0.06,
        LeastJointSpread = 1;

    /// <summary>What machines of one model have shown: c, by whether heat and speed are in watts and rpm.</summary>
    /// <param name="Air">Median of c, and its standard uncertainty.</param>
    /// <param name="Joints">By part: median and spread of the fresh joint's resistance, K/W.</param>
    public sealed record Known(
        (double Median, double Sigma)? Air,
        IReadOnlyDictionary<string, (double Median, double Spread)> Joints
    );

    /// <summary>
    /// What siblings must have in common to be compared: rpm and per cent, measured heat and heat by name are different scales.
    /// </summary>
    /// <param name="Build">Model, and what was built in since.</param>
    /// <param name="Load">
    /// The test load of machines that are known by runs alone, which all put on them alike; null for machines with readings.
    /// </param>
    public readonly record struct Kin(AssetKind Kind, string Build, bool HasPower, bool SpeedIsRpm, string? Load = null)
    {
        public static Kin Of(Asset asset, WearModel model) =>
            new(asset.Kind, asset.Build, model.Reference.HasPower, model.Reference.SpeedIsRpm, model.TestLoad);
    }

    /// <summary>What the machines of a fleet show of their models.</summary>
    public static Dictionary<Kin, Known> Learn(IEnumerable<(Kin Kin, WearModel Model, double Altitude)> machines)
    {
        var known = new Dictionary<Kin, Known>();
        foreach (var alike in machines.GroupBy(m => m.Kin))
        {
            var constants = alike
                .Where(m => m.Model.KnowsItsAir || alike.Key.Load is not null)
                .Select(m => m.Model.AirRise / Scale(m.Model.Reference, m.Altitude))
                .ToArray();
            // Heat by its name is each machine's own, but for a test load: only watts can be shared.
            var joints = alike.Key is { HasPower: false, Load: null }
                ? []
                : alike
                    .SelectMany(m => m.Model.FreshJoints)
                    .GroupBy(j => j.Part, j => j.KelvinPerWatt)
                    .Where(j => j.Count() >= LeastForJoints)
                    .ToDictionary(j => j.Key, j => MedianAndSpread([.. j]));
            (double Median, double Spread)? air = constants.Length < LeastForAir ? null : MedianAndSpread(constants);
            known[alike.Key] = new Known(air is { } c ? (c.Median, c.Spread / Math.Sqrt(constants.Length)) : null, joints);
        }
        return known;
    }

    /// <summary>
    /// Makes what siblings have shown the prior of a machine's fresh air side and joints: what exceeds it was worn before the
    /// first reading.
    /// </summary>
    public static void ApplyPriors(IReadOnlyDictionary<Kin, Known> known, Kin kin, WearModel model, double altitude)
    {
        if (!known.TryGetValue(kin, out var shown))
            return;
        if (shown.Air is { } air && (model.Reference.FanSpeed > 0 || kin.Load is not null))
        {
            var scale = Scale(model.Reference, altitude);
            model.SetAirPrior(
                air.Median * scale,
                Math.Sqrt(Math.Pow(UnitSpread * air.Median * scale, 2) + Math.Pow(air.Sigma * scale, 2))
            );
        }
        foreach (var (part, (median, spread)) in shown.Joints)
            model.SetJointPrior(
                part,
                median * model.Reference.PowerW,
                Math.Max(LeastJointSpread, Math.Max(JointSpread * median, spread) * model.Reference.PowerW)
            );
        model.FreshFromSiblings = kin.Load is not null && shown is { Air: not null, Joints.Count: > 0 };
    }

    private static (double Median, double Spread) MedianAndSpread(double[] values) =>
        (Robust.Median(values), Robust.MadScale(values));

    private static double Scale(ReferencePoint reference, double altitude) =>
        reference.PowerW
        * FanLaw.AltitudeFactor(altitude)
        * (reference.FanSpeed > 0 ? Math.Pow(reference.FanSpeed, -FanLaw.Exponent) : 1);
}
